import { and, count, eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { write } from '../platform/work.ts';
import { LEFT, notices } from './tables.ts';

/** How many letters wait to go, those under way among them, and how many were given up. */
export function lettersLeft(db: Reader): { readonly waiting: number; readonly failed: number } {
  const tally = (state: 'waiting' | 'sending' | 'failed'): number =>
    db
      .select({ n: count() })
      .from(notices)
      .where(and(LEFT, eq(notices.state, state)))
      .get()?.n ?? 0;
  return { waiting: tally('waiting') + tally('sending'), failed: tally('failed') };
}

/** Sends the letters that were given up once more, from the first try on. Returns how many. */
export function sendFailedAgain(house: House): number {
  return write(house, ({ tx, now }) => {
    const again = { state: 'waiting', attempts: 0, nextAttemptAt: now } as const;
    return tx
      .update(notices)
      .set(again)
      .where(and(LEFT, eq(notices.state, 'failed')))
      .run().changes;
  });
}
