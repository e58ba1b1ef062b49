import { namesIn, orderOf } from '../../expression/index.ts';
import { isFilled } from '../../register/index.ts';
import { type Action, END, FIRST_PAGE, type FormDesign } from '../design.ts';
import { pageKeys, pagesBetween, placesOf } from '../layout.ts';
import { presetReads } from '../presets.ts';

/**
 * What each field’s value depends on: what its formula or preset reads, and what the rules read
 * that show it, hide it, skip its page or put something into it. A circle in this has no settled
 * answer, and is told by the fields it goes through.
 */
export function circleOf(design: FormDesign): readonly string[] | null {
  const needs = new Map<string, Set<string>>(design.fields.map((field) => [field.key, new Set()]));
  const add = (field: string, names: readonly string[]): void => {
    for (const name of names) needs.get(field)?.add(name);
  };
  for (const field of design.fields) {
    if (field.source === 'computed') add(field.key, namesIn(field.formula));
    else if (field.source === 'carried') add(field.key, [field.reference]);
    else if (isFilled(field) && field.preset) add(field.key, presetReads(field.preset));
  }
  const places = placesOf(design.parts);
  const pages = pageKeys(design.parts);
  const under = (target: string): readonly string[] =>
    places.flatMap((place) =>
      place.part.part === 'question' && (place.key === target || place.section === target || place.page === target)
        ? [place.key]
        : [],
    );
  const touches = (action: Action): readonly string[] => {
    switch (action.do) {
      case 'show':
      case 'hide':
        return action.parts.flatMap(under);
      case 'jump':
        return pagesBetween(pages, action.after, action.to).flatMap(under);
      case 'lock':
      case 'clear':
        return action.fields;
      case 'set':
        return [action.field];
      default:
        return [];
    }
  };
  for (const rule of design.rules.filter((each) => each.on)) {
    const when = namesIn(rule.when);
    for (const action of [...rule.then, ...rule.otherwise]) {
      for (const field of touches(action)) add(field, action.do === 'set' ? [...when, ...namesIn(action.value)] : when);
    }
  }
  const order = orderOf(new Map([...needs].map(([field, names]) => [field, [...names]])));
  return order.ok ? null : order.circle;
}

export const isPage = (key: string, design: FormDesign): boolean =>
  key === FIRST_PAGE || key === END || pageKeys(design.parts).includes(key);
