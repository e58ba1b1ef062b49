/** Bounds that make every expression end with a small answer. */
export const LIMITS = {
  /** UTF-16 units an expression may be written with. */
  length: 4_000,
  /** How deep an expression may be nested. */
  depth: 60,
  /** Turns all loops of one evaluation may take together; beyond them the answer is empty. */
  turns: 100_000,
  /** Items of a list that a function gives; a longer one is empty. */
  items: 20_000,
  /** UTF-16 units of a text that an expression gives; a longer one is empty. */
  text: 100_000,
} as const;
