import { said } from '@tolvek/words';
import { own } from '../own/index.ts';
import type { Field, Values } from './field.ts';
import { sayValue } from './kinds/index.ts';
import type { Problem } from './problem.ts';

/**
 * Dates and moments that must not lie before another field's, such as a departure before the
 * arrival.
 */
export function orderProblems(fields: readonly Field[], values: Values): readonly Problem[] {
  return fields.flatMap((field) => {
    if ((field.type.kind !== 'date' && field.type.kind !== 'date-time') || !field.type.notBefore) return [];
    const { notBefore } = field.type;
    const other = fields.find((each) => each.key === notBefore);
    const value = own(values, field.key);
    const earliest = own(values, notBefore);
    if (!other || typeof value !== 'string' || typeof earliest !== 'string') return [];
    // A day and a moment are compared by their days.
    const length = Math.min(value.length, earliest.length);
    if (value.slice(0, length) >= earliest.slice(0, length)) return [];
    const words = sayValue(other, earliest);
    return [
      {
        field: field.key,
        message: said('answers:beforeOther', { label: other.label, value: words }),
        fix: said('answers:laterThanOther', { value: words, label: other.label }),
      },
    ];
  });
}
