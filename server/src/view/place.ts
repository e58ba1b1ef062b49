import { refused } from '@tolvek/words';
import { Problem } from '../platform/problem.ts';

/** Where a page of requests ended: what its last row is ordered by, and its id. */
export interface Place {
  readonly at: number;
  readonly id: string;
}

/** The place that an address names. @throws Problem 400 for one that names none */
export function readPlace(after: string): Place {
  const [at = '', id = ''] = after.split('.');
  if (!/^\d+$/.test(at) || id === '') throw new Problem(400, 'not-understood', refused('noSuchPage'));
  return { at: Number(at), id };
}
