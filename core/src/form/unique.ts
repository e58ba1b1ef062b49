import type { Field, FieldValue, Values } from '../register/index.ts';
import type { UniqueRule } from './design.ts';

/**
 * The answers of a rule as they are compared: capitals, spaces at the ends and several in a row
 * don’t tell two texts apart. Null when one of them is empty: blanks are not the same as each
 * other.
 */
export function claimOf(rule: UniqueRule, fields: readonly Field[], values: Values): string | null {
  const parts = rule.fields.map((key) =>
    Object.hasOwn(values, key) && fields.some((field) => field.key === key) ? values[key] : undefined,
  );
  return parts.every((part) => part !== undefined) ? JSON.stringify(parts.map(compared)) : null;
}

const compared = (value: FieldValue): unknown =>
  typeof value === 'string' ? value.normalize('NFKC').toLowerCase().trim().replace(/\s+/g, ' ') : value;
