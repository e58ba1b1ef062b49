import {
  type Compiled,
  type Computed,
  compile,
  computingOrder,
  parseExpression,
  type Scope,
  type Slots,
  type Value,
} from '../expression/index.ts';
import {
  expressionValue,
  type Field,
  type FieldValue,
  factSlots,
  isFilled,
  type RequestFacts,
  valueFromExpression,
} from '../register/index.ts';
import type { Effects, ReadyRules } from './effects.ts';

/** Where rules, presets and computed values have come to rest. */
export interface Settled {
  readonly effects: Effects;
  /** By the place of the field. */
  readonly values: readonly (FieldValue | undefined)[];
  /**
   * False when they went round in a circle and were stopped; findings keep such a form from its
   * release.
   */
  readonly atRest: boolean;
}

/** What a field holds when no rule puts a value into it, for the state of a round. */
export type Entered = (index: number, effects: Effects, slots: Slots) => FieldValue | undefined;

interface Formula {
  readonly index: number;
  readonly field: Field;
  readonly run: Compiled;
}

/**
 * Formulas of computed fields in the order to compute them; those in a circle, or that can’t be
 * read, stay empty.
 */
function formulasOf(fields: readonly Field[], scope: Scope): readonly Formula[] {
  const parsed = fields.flatMap((field, index) => {
    const result = field.source === 'computed' ? parseExpression(field.formula) : null;
    return result?.ok ? [{ field, index, node: result.value }] : [];
  });
  const order = computingOrder(parsed.map(({ field, node }): Computed => ({ name: field.key, node })));
  const places = new Map(order.ok ? order.order.map((key, place) => [key, place]) : []);
  return parsed
    .filter(({ field }) => places.has(field.key))
    .sort((a, b) => (places.get(a.field.key) ?? 0) - (places.get(b.field.key) ?? 0))
    .map(({ field, index, node }) => ({ field, index, run: compile(node, scope) }));
}

const isSame = (a: FieldValue | undefined, b: FieldValue | undefined): boolean =>
  a === b || (typeof a === 'object' && typeof b === 'object' && JSON.stringify(a) === JSON.stringify(b));

/**
 * Prepares the settling of values: rules read values, and put values that rules read. All rules of
 * a round read the same values; rounds go on until nothing changes. Without circles each round
 * settles one more link of the longest chain, so that as many rounds as there are rules and presets
 * are enough, and the result does not depend on where it began.
 */
export function prepareSettling(
  fields: readonly Field[],
  scope: Scope,
  rules: ReadyRules,
): (entered: Entered, facts: RequestFacts) => Settled {
  const formulas = formulasOf(fields, scope);
  const most =
    rules.count +
    fields.filter((field) => (isFilled(field) ? field.preset !== undefined : field.source === 'carried')).length +
    2;

  return (entered, facts) => {
    const values: (FieldValue | undefined)[] = fields.map(() => undefined);
    const slots: Value[] = [...fields.map(() => null), ...factSlots(facts)];
    const hold = (index: number, value: FieldValue | undefined): boolean => {
      const field = fields[index];
      if (!field || isSame(values[index], value)) return false;
      values[index] = value;
      slots[index] = expressionValue(field, value);
      return true;
    };
    let effects = rules.nothing;
    for (let round = 0; round <= most; round += 1) {
      const before = [...slots];
      let moved = round === 0;
      for (const [index, field] of fields.entries()) {
        if (field.source === 'computed') continue;
        const put = effects.put.get(field.key);
        moved =
          hold(index, put === undefined ? entered(index, effects, before) : valueFromExpression(field, put)) || moved;
      }
      // What the effects were worked out from still stands, so they do as well.
      if (!moved) return { effects, values, atRest: true };
      for (const { index, field, run } of formulas) hold(index, valueFromExpression(field, run(slots, null)));
      effects = rules.effects(slots);
    }
    return { effects, values, atRest: false };
  };
}
