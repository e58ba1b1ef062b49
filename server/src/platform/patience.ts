import { setTimeout as pause } from 'node:timers/promises';
import { refused } from '@tolvek/words';
import { Problem } from './problem.ts';
import type { Trouble, Troubles } from './troubles.ts';

/** How long a write waits for a locked database before its caller is told to come back, ms. */
export const PATIENCE = 5_000;
/** Waits between two tries, ms: short at first, so that a moment’s lock is hardly felt. */
const FIRST_WAIT = 20;
const LONGEST_WAIT = 250;

/** Who is told of what is wrong around the application. */
interface Troubled {
  readonly troubles: Troubles;
}

/** What SQLite says when it can’t do something just now, and what that is for people. */
const CODES: readonly (readonly [start: string, trouble: Trouble])[] = [
  ['SQLITE_BUSY', 'locked'],
  ['SQLITE_LOCKED', 'locked'],
  ['SQLITE_FULL', 'full'],
  ['SQLITE_IOERR', 'disk'],
  ['SQLITE_READONLY', 'disk'],
  ['SQLITE_CANTOPEN', 'disk'],
  ['ENOSPC', 'full'],
  ['EDQUOT', 'full'],
  ['EROFS', 'disk'],
  ['EIO', 'disk'],
];

/** What is wrong around us, when that is why something failed; undefined for our own mistakes. */
export function troubleOf(error: unknown): Trouble | undefined {
  const code = typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
  const found = CODES.find(([start]) => code.startsWith(start));
  return found?.[1] ?? (error instanceof Error && error.cause ? troubleOf(error.cause) : undefined);
}

/**
 * Does a piece of work that may meet a locked database: it is tried again for five seconds, without
 * holding up anybody else. The work is done as a whole or not at all, as a transaction is.
 *
 * @throws Problem 503 with Retry-After when the database stays locked, or the disk is full.
 */
export async function patiently<T>(house: Troubled, work: () => T | Promise<T>): Promise<T> {
  const until = performance.now() + PATIENCE;
  for (let wait = FIRST_WAIT; ; wait = Math.min(LONGEST_WAIT, wait * 2)) {
    try {
      return await work();
    } catch (error) {
      if (troubleOf(error) !== 'locked' || performance.now() + wait >= until) throw inWords(house, error);
      await pause(wait);
    }
  }
}

/** What failed because of what is around us, told as such; our own mistakes stay as they are. */
export function inWords(house: Troubled, error: unknown): unknown {
  const trouble = troubleOf(error);
  if (trouble === undefined) return error;
  house.troubles.met(trouble);
  return notNow(trouble);
}

function notNow(trouble: Trouble): Problem {
  return new Problem(
    503,
    trouble === 'locked' ? 'busy' : 'disk',
    refused(trouble === 'locked' ? 'busy' : 'diskFull'),
    undefined,
    trouble === 'locked' ? 5 : 60,
  );
}
