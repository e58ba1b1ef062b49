import type { AccessLevel } from '../access/index.ts';
import { namesIn } from '../expression/index.ts';
import { columnKey, type Field, type ItemColumn } from '../register/index.ts';
import type { Action, FormDesign, FormRule, Part } from './design.ts';

/** What somebody may not fill in while they ask, by key of fields and columns: what they may only read, and not even that. */
export type Unasked = ReadonlyMap<string, Exclude<AccessLevel, 'write'>>;

/** The name of the rule that keeps what may only be read. */
const KEEPS: Omit<FormRule, 'then'> = {
  ...{ id: 'access-keeps', name: '', says: '', when: 'true', otherwise: [], on: true, runs: 'filling' },
};

/**
 * A form as it is asked of somebody: without the questions that are hidden from them, with those that they may only read
 * locked at what stands in them, and lines with the columns that they may fill in.
 */
export function askedBy<Form extends Pick<FormDesign, 'fields' | 'parts' | 'rules'>>(
  form: Form,
  unasked: Unasked,
): Form {
  if (unasked.size === 0) return form;
  const fields = form.fields.map((field) => withAskedColumns(field, unasked));
  const asksNothing = new Set(
    fields.flatMap(({ key, type }) => (type.kind === 'line-items' && !type.columns.some(isAsked) ? [key] : [])),
  );
  const isHidden = (part: Part): boolean =>
    part.part === 'question' && (unasked.get(part.field) === 'hidden' || asksNothing.has(part.field));
  const shown = form.parts.filter((part) => !isHidden(part));
  return { ...form, fields, ...keptIn({ ...form, parts: shown }, (field) => unasked.get(field) === 'read', KEEPS) };
}

/** Parts and rules of a form in which questions are shown and not asked. `by`: the rule that keeps them. */
export function keptIn(
  { parts: all, rules }: Pick<FormDesign, 'parts' | 'rules'>,
  isKept: (field: string) => boolean,
  by: Omit<FormRule, 'then'>,
): Pick<FormDesign, 'parts' | 'rules'> {
  // What somebody can’t fill in is not demanded of them.
  const parts = all.map((part) =>
    part.part === 'question' && isKept(part.field) ? { ...part, required: false } : part,
  );
  const kept = parts.flatMap((part) => (part.part === 'question' && isKept(part.field) ? [part.field] : []));
  if (kept.length === 0) return { parts, rules };
  const demanded = (actions: readonly Action[]): readonly Action[] =>
    actions.flatMap((action) => {
      if (action.do !== 'require') return [action];
      const left = action.fields.filter((field) => !isKept(field));
      return left.length > 0 ? [{ ...action, fields: left }] : [];
    });
  const left = rules.map((rule) => ({ ...rule, then: demanded(rule.then), otherwise: demanded(rule.otherwise) }));
  return { parts, rules: [...left, { ...by, then: [{ do: 'lock', fields: kept }] }] };
}

const isAsked = ({ formula }: ItemColumn): boolean => formula === undefined;

/** A field of lines without the columns that somebody may not fill in, and what is computed from those. */
function withAskedColumns(field: Field, unasked: Unasked): Field {
  const { type } = field;
  if (type.kind !== 'line-items') return field;
  const gone = new Set(
    type.columns.flatMap((column) =>
      isAsked(column) && unasked.has(columnKey(field.key, column.key)) ? [column.key] : [],
    ),
  );
  for (let before = -1; before < gone.size; ) {
    before = gone.size;
    for (const { key, formula } of type.columns) {
      const isHidden = unasked.get(columnKey(field.key, key)) === 'hidden';
      if (formula !== undefined && (isHidden || namesIn(formula).some((name) => gone.has(name)))) gone.add(key);
    }
  }
  if (gone.size === 0) return field;
  return { ...field, type: { ...type, columns: type.columns.filter(({ key }) => !gone.has(key)) } };
}
