import type { Viewer } from '@tolvek/core/people';
import { and, count, eq, isNotNull, isNull } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { programNamed } from '../program/queries.ts';
import { LEFT, notices } from './tables.ts';
import { knowsOfEmail } from './told.ts';

const byState = prepared((db) =>
  db
    .select({ state: notices.state, n: count() })
    .from(notices)
    .where(and(LEFT, isNull(notices.program), eq(notices.way, 'email')))
    .groupBy(notices.state)
    .prepare(),
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

const failedAsText = prepared((db) =>
  db
    .select({ n: count() })
    .from(notices)
    .where(and(LEFT, isNull(notices.program), eq(notices.way, 'text'), eq(notices.state, 'failed')))
    .prepare(),
);

/** How many text messages were given up. */
export const textsFailed = (db: Reader): number => failedAsText(db).get()?.n ?? 0;

const failedByProgram = prepared((db) =>
  db
    .select({ program: notices.program, count: count() })
    .from(notices)
    .where(and(LEFT, isNotNull(notices.program), eq(notices.state, 'failed')))
    .groupBy(notices.program)
    .prepare(),
);

/** The programs that did not take what they were told, and how much of it. */
export const programsFailed = (db: Reader): readonly { key: string; name: string; count: number }[] =>
  failedByProgram(db)
    .all()
    .map(({ program, count: n }) => ({ key: program ?? '', name: programNamed(db, program ?? ''), count: n }));

/** What a notice is that goes once more, at a moment (epoch ms). */
const fromTheFirstTry = (now: number) => ({ state: 'waiting', attempts: 0, nextAttemptAt: now }) as const;

/** Sends the letters and text messages that were given up once more, from the first try on. Returns how many. */
export function sendFailedAgain(house: House): number {
  return write(house, ({ tx, now }) => {
    return tx
      .update(notices)
      .set(fromTheFirstTry(now))
      .where(and(LEFT, isNull(notices.program), eq(notices.state, 'failed')))
      .run().changes;
  });
}

/**
 * Sends one email once more, with the same words and links: one that was given up, or one that went and is still kept.
 *
 * @throws Problem 404 where there is none that whoever asks may know of, or its text is not kept any more.
 */
export function sendAgain(house: House, viewer: Viewer, id: string): void {
  write(house, ({ tx, now }) => {
    const notice = tx.select().from(notices).where(eq(notices.id, id)).get();
    if (!notice || !maySendAgain(notice) || !knowsOfEmail(tx, viewer, notice)) throw notFound('email');
    tx.update(notices).set(fromTheFirstTry(now)).where(eq(notices.id, id)).run();
  });
}

/** Tells a program once more what it took, or did not take, as it was. @throws Problem 404 */
export function sendAgainTo(house: House, { key, id }: { readonly key: string; readonly id: string }): void {
  write(house, ({ tx, now }) => {
    const notice = tx
      .select()
      .from(notices)
      .where(and(eq(notices.id, id), eq(notices.program, key)))
      .get();
    if (!notice || !maySendAgain(notice)) throw notFound('notice');
    tx.update(notices).set(fromTheFirstTry(now)).where(eq(notices.id, id)).run();
  });
}

/** Whether an email can be sent once more. */
export const maySendAgain = ({ state, said }: Pick<typeof notices.$inferSelect, 'state' | 'said'>): boolean =>
  state === 'failed' || (state === 'sent' && said !== null);
