import { and, count, eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { prepared } from '../platform/prepared.ts';
import { write } from '../platform/work.ts';
import { LEFT, notices } from './tables.ts';

const byState = prepared((db) =>
  db.select({ state: notices.state, n: count() }).from(notices).where(LEFT).groupBy(notices.state).prepare(),
);

/** How many letters wait to go, those under way among them, and how many were given up. */
export function lettersLeft(db: Reader): { readonly waiting: number; readonly failed: number } {
  const left = new Map(
    byState(db)
      .all()
      .map(({ state, n }) => [state, n]),
  );
  return { waiting: (left.get('waiting') ?? 0) + (left.get('sending') ?? 0), failed: left.get('failed') ?? 0 };
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
