import type { Comparator } from './tree.ts';
import { equal, order, type Ternary, type Value } from './value.ts';

/**
 * One comparison; with nothing to compare the answer can't be said, except for `=` and `!=` with
 * empty.
 */
export function compare(op: Comparator, a: Value, b: Value): Ternary {
  if (op === '=') return equal(a, b);
  if (op === '!=') {
    const same = equal(a, b);
    return same === null ? null : !same;
  }
  const way = order(a, b);
  if (way === null) return null;
  switch (op) {
    case '<':
      return way < 0;
    case '<=':
      return way <= 0;
    case '>':
      return way > 0;
    case '>=':
      return way >= 0;
  }
}
