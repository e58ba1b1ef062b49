import { said } from '@tolvek/words';
import { own } from '../own/index.ts';
import {
  type Field,
  type FieldValue,
  orderProblems,
  type Problem,
  type RequestFacts,
  requestScope,
  type Values,
} from '../register/index.ts';
import { carriedValue } from './carried.ts';
import type { AskedForm } from './design.ts';
import { ReadyRules, type Said } from './effects.ts';
import { prepareSettling } from './settle.ts';

/** What a change of a stored request comes to. */
export interface Kept {
  readonly values: Values;
  readonly problems: readonly Problem[];
  readonly warnings: readonly Said[];
}

/**
 * Prepares the keeping of changed values, by whichever way they come in: computed fields are
 * computed anew, and the rules that run at every saving have their say. Presets are for those who
 * ask, so none is filled in here. `mayRead`: the fields that may be told of to whoever changes
 * something.
 */
export function prepareKeeping(
  form: AskedForm,
  mayRead: (field: string) => boolean = () => true,
): (values: Values, touched: ReadonlySet<string>, facts: RequestFacts) => Kept {
  const { fields } = form;
  const scope = requestScope(fields);
  const rules = new ReadyRules(form, scope, (rule) => rule.runs === 'saving');
  const settle = prepareSettling(fields, scope, rules);
  const indexOf = new Map(fields.map((field, index) => [field.key, index]));
  return (before, touched, facts) => {
    const { effects, values: held } = settle((index, _, slots) => {
      const field = fields[index];
      if (field?.source !== 'carried') return heldBy(before, field);
      // What is frozen stays until the reference points elsewhere; what is live follows where its
      // request is known.
      const pointsTo = slots[indexOf.get(field.reference) ?? -1];
      const isKnown = facts.references.some((each) => each.id === pointsTo);
      const stays =
        !touched.has(field.reference) && pointsTo === (before[field.reference] ?? null) && !(field.live && isKnown);
      return stays ? heldBy(before, field) : carriedValue(field, pointsTo, facts);
    }, facts);
    const values: Record<string, FieldValue> = { ...before };
    for (const [index, field] of fields.entries()) {
      const value = held[index];
      if (value === undefined) delete values[field.key];
      else values[field.key] = value;
    }
    const labelOf = (key: string): string => fields.find((field) => field.key === key)?.label ?? key;
    const nameOf = (id: string): string => form.rules.find((rule) => rule.id === id)?.name ?? id;
    const problems: Problem[] = [
      ...orderProblems(
        fields.filter((field) => mayRead(field.key)),
        values,
      ).filter((problem) => touched.has(problem.field)),
      ...[...effects.required]
        .filter((key) => own(values, key) === undefined)
        .map((key) => ({
          field: key,
          message: said('answers:neededNow', { label: labelOf(key) }),
          fix: said('answers:fillInToo'),
        })),
      ...[...touched]
        .filter(
          (key) =>
            effects.locked.has(key) ||
            (effects.put.has(key) && JSON.stringify(own(before, key)) !== JSON.stringify(own(values, key))),
        )
        .map((key) => ({
          field: key,
          message: said('answers:setByRule', { label: labelOf(key) }),
          fix: said('answers:changeWhatRuleUses'),
        })),
      ...[...effects.limits].flatMap(([key, offers]) =>
        touched.has(key) &&
        isOutside(
          fields.find((field) => field.key === key),
          own(values, key),
          offers,
        )
          ? [
              {
                field: key,
                message: said('answers:valueNotOffered', { label: labelOf(key) }),
                fix: said('answers:chooseFromList'),
              },
            ]
          : [],
      ),
      ...effects.refusals.map(({ rule, field, text, fix }) => ({
        field,
        message: text,
        fix: fix || said('answers:ruleSetsThis', { rule: nameOf(rule) }),
      })),
    ];
    return { values, problems, warnings: effects.warnings };
  };
}

const heldBy = (values: Values, field: Field | undefined): FieldValue | undefined =>
  field && Object.hasOwn(values, field.key) ? values[field.key] : undefined;

/** Whether an option was chosen that a rule took away; what was said instead of one is none. */
const isOutside = (field: Field | undefined, value: FieldValue | undefined, offers: readonly string[]): boolean => {
  const options = field?.type.kind === 'choice' || field?.type.kind === 'choices' ? field.type.options : [];
  const keys = value === undefined ? [] : Array.isArray(value) ? (value as readonly string[]) : [String(value)];
  return keys.some((key) => !offers.includes(key) && options.some((option) => option.key === key));
};
