import type { Field, FieldValue, Kind } from './field.ts';
import { typedForm } from './kinds/index.ts';

/** What a column of a spreadsheet holds, so that it is added up, put in order and drawn there. */
export type SpreadsheetKind =
  | { readonly is: 'text' | 'date' | 'moment' | 'yes-no' }
  /** In hours. */
  | { readonly is: 'duration' }
  | { readonly is: 'number'; readonly places: number }
  /** In whole units of a currency (ISO 4217), not in its smallest. */
  | { readonly is: 'money'; readonly currency: string };

/** A cell: days and moments as ISO 8601 on the clock of the desk; null where there is nothing. */
export type SpreadsheetCell = string | number | boolean | null;

/** As what a spreadsheet takes what a field holds; what it has no kind for is a text. */
export function spreadsheetKind(type: Kind): SpreadsheetKind {
  switch (type.kind) {
    case 'number':
      return { is: 'number', places: type.places };
    case 'money':
      return { is: 'money', currency: type.currency };
    case 'date':
    case 'duration':
    case 'yes-no':
      return { is: type.kind };
    case 'date-time':
      return { is: 'moment' };
    default:
      return { is: 'text' };
  }
}

const MINUTES_OF_AN_HOUR = 60;

/** What a field holds as a cell of a spreadsheet. `text`: the same as people read it, where it is a text there. */
export function spreadsheetCell(
  { type }: Pick<Field, 'type'>,
  value: FieldValue | null,
  text: string,
): SpreadsheetCell {
  if (value === null) return null;
  switch (spreadsheetKind(type).is) {
    case 'money':
      return Number(typedForm({ type }, value));
    case 'duration':
      return typeof value === 'number' ? value / MINUTES_OF_AN_HOUR : text;
    case 'number':
    case 'date':
    case 'moment':
    case 'yes-no':
      return typeof value === 'number' || typeof value === 'boolean' || typeof value === 'string' ? value : text;
    case 'text':
      return text === '' ? null : text;
  }
}
