import type { Call } from './read.ts';

/** What answers otherwise than the data of an earlier release did, on purpose. */
interface Mended {
  readonly route: Call['route'];
  /** Where in the answer, as a path, with both sides behind it. */
  readonly where: RegExp;
  readonly why: string;
}

export const MENDED: readonly Mended[] = [];
