/** Something wrong with one answer, in words for the person who gave it: what is wrong, and the way out. */
export interface Problem {
  /** The field's key, or `form` when it is about the whole. */
  readonly field: string;
  readonly message: string;
  readonly fix: string;
}
