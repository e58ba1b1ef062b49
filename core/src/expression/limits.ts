import { BUDGETS } from '../budget/index.ts';

/** Bounds that make every expression end with a small answer. */
export const LIMITS = {
  /** UTF-16 units an expression may be written with. */
  length: 4_000,
  /** How deep an expression may be nested. */
  depth: 60,
  /**
   * Steps of one evaluation; beyond them the answer is empty. A turn of a loop is `turn` steps; a
   * function takes one for each item, and for each sixteen letters, of what it is given.
   */
  steps: BUDGETS.evaluation,
  /** Steps of one turn of a loop: 100,000 turns are all there are. */
  turn: 10,
  /** Items of a list that a function gives; a longer one is empty. */
  items: 20_000,
  /** UTF-16 units of a text that an expression gives; a longer one is empty. */
  text: 100_000,
} as const;
