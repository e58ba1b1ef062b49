import type { Said } from '@tolvek/words';

/** Something a check found in an expression, with its place in the text. */
export interface ExpressionFinding {
  readonly severity: 'error' | 'caution';
  readonly message: Said;
  readonly from: number;
  readonly to: number;
}
