import type { Field, RequestFacts } from '../register/index.ts';
import { FIRST_PAGE } from './design.ts';
import type { Effects, ReadyRules } from './effects.ts';
import type { Place } from './layout.ts';

/** Which parts are visible, by their place in the form. */
export type Visible = (effects: Effects, facts: RequestFacts) => readonly boolean[];

/**
 * Prepares the question what is visible: rules decide about parts, about the sections and pages
 * they stand in, and skip pages.
 */
export function prepareVisible(places: readonly Place[], fields: readonly Field[], rules: ReadyRules): Visible {
  // Staff are not shown to whoever comes from outside, so there is nobody to pick there.
  const needsPeople = new Set(
    fields.flatMap((field) => (field.type.kind === 'person' || field.type.kind === 'people' ? [field.key] : [])),
  );
  const forStaff = places.map((place) => needsPeople.has(place.key));
  const isShown = (key: string, { shown }: Effects): boolean => shown.get(key) ?? !rules.awaiting.has(key);
  const known = new WeakMap<Effects, { readonly door: string; readonly visible: readonly boolean[] }>();

  return (effects, { door }) => {
    const found = known.get(effects);
    if (found?.door === door) return found.visible;
    const visible = places.map(
      ({ key, section, page }, index) =>
        !(forStaff[index] && door === 'outside') &&
        isShown(key, effects) &&
        (section === null || isShown(section, effects)) &&
        !effects.skipped.has(page) &&
        (page === FIRST_PAGE || isShown(page, effects)),
    );
    known.set(effects, { door, visible });
    return visible;
  };
}
