import { type Difference, partKey } from '../design.ts';

/** In the place of a stage: while the form is filled in, before there is a request. */
export const ASKING = '~asking';

/** What tells a difference from others of its edition: there is one of each kind about one part. */
export function differenceKey(difference: Difference): string {
  if (difference.does === 'only') return 'only';
  return `${difference.does} ${difference.does === 'add' ? partKey(difference.adds) : difference.part}`;
}

/** The part that a difference is about; that of its own where it adds one, null where it is about all. */
export const aboutPart = (difference: Difference): string | null =>
  difference.does === 'only' ? null : difference.does === 'add' ? partKey(difference.adds) : difference.part;
