import type { Words } from '@tolvek/words';

/**
 * Something wrong with one answer, in words for the person who gave it: what is wrong, and the way
 * out.
 */
export interface Problem {
  /** The field's key, or `form` when it is about the whole. */
  readonly field: string;
  readonly message: Words;
  readonly fix: Words;
  /** What it comes from, where somebody has to tell it from others: nothing was answered yet. */
  readonly why?: 'unanswered';
  /** Which cell of line items it is about; rows from 0. */
  readonly place?: { readonly row: number; readonly column: string };
}
