import { placeholdersIn } from '../design/index.ts';
import { namesIn } from '../expression/index.ts';
import { type Field, isFilled } from '../register/index.ts';
import { type Action, type AskedForm, type FormRule, questionsOf } from './design.ts';
import { presetReads } from './presets.ts';

/** Whether an action shows in the form, given the fields that count there. */
const shows = (action: Action, needed: ReadonlySet<string>): boolean =>
  action.do === 'set'
    ? needed.has(action.field)
    : action.do === 'clear'
      ? action.fields.some((key) => needed.has(key))
      : true;

/**
 * What a requester’s device needs to complete a form, and no more: the fields that are asked, those
 * that rules, defaults and instructions of the form read, and the rules that change what is asked.
 * Fields only the desk works with stay in the house, and so do the names and reasons of rules.
 */
export function askedForm(form: AskedForm): AskedForm {
  const fields = new Map(form.fields.map((field) => [field.key, field]));
  const needed = new Set<string>();
  const need = (keys: readonly string[]): void => {
    for (const key of keys) {
      const field = fields.get(key);
      if (!field || needed.has(key)) continue;
      needed.add(key);
      need(readBy(field));
    }
  };
  need(questionsOf(form.parts).map((question) => question.field));
  need(form.parts.flatMap((part) => (part.part === 'instruction' ? placeholdersIn(part.text) : [])));
  const running = form.rules.filter((rule) => rule.on);
  for (let before = -1; before < needed.size; ) {
    before = needed.size;
    for (const rule of running) {
      const acts = [...rule.then, ...rule.otherwise].filter((action) => shows(action, needed));
      if (acts.length > 0)
        need([...namesIn(rule.when), ...acts.flatMap((action) => (action.do === 'set' ? namesIn(action.value) : []))]);
    }
  }
  const rules = running.flatMap((rule): FormRule[] => {
    const kept = (actions: readonly Action[]): readonly Action[] => actions.filter((action) => shows(action, needed));
    const [then, otherwise] = [kept(rule.then), kept(rule.otherwise)];
    return then.length + otherwise.length > 0 ? [{ ...rule, name: '', says: '', then, otherwise }] : [];
  });
  const asked = form.fields.flatMap((field): Field[] => {
    if (!needed.has(field.key)) return [];
    // They read one language; the others stay in the house.
    const { translations: _, ...rest } = field;
    return [rest as Field];
  });
  return { fields: asked, parts: form.parts, rules };
}

function readBy(field: Field): readonly string[] {
  if (field.source === 'computed') return namesIn(field.formula);
  if (field.source === 'carried') return [field.reference];
  return isFilled(field) && field.preset ? presetReads(field.preset) : [];
}
