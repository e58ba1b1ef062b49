import type { Call } from './read.ts';

/** What answers otherwise than the data of an earlier release did, on purpose. */
interface Mended {
  readonly route: Call['route'];
  /** Where in the answer, as a path, with both sides behind it. */
  readonly where: RegExp;
  readonly why: string;
}

export const MENDED: readonly Mended[] = [
  {
    route: 'draftHistory',
    where: /^\.body\.states\[1\]\.changes\.length: 5 → 2/,
    why: 'The oldest state of a draft was compared with what is in force today; it is compared with what was in force before it.',
  },
];
