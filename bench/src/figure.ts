/** One measured figure beside the limit measured in the same run. */
export interface Figure {
  readonly what: string;
  readonly ours: string;
  readonly limit: string;
  readonly ratio: string;
}
