import type { Field, Values } from './field.ts';
import { dateInWords } from './kinds/date.ts';
import type { Problem } from './problem.ts';

/** Dates that must not lie before another field's date, such as a departure before the arrival. */
export function orderProblems(fields: readonly Field[], values: Values): readonly Problem[] {
  return fields.flatMap((field) => {
    if (field.type.kind !== 'date' || !field.type.notBefore) return [];
    const { notBefore } = field.type;
    const value = values[field.key];
    const earliest = values[notBefore];
    if (typeof value !== 'string' || typeof earliest !== 'string' || value >= earliest) return [];
    const other = fields.find((each) => each.key === notBefore)?.label ?? notBefore;
    return [{ field: field.key, message: `This is before “${other}” (${dateInWords(earliest)}).`, fix: `Pick ${dateInWords(earliest)} or later, or change “${other}”.` }];
  });
}
