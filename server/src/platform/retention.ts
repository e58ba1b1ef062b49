import { and, inArray, isNull, lt, type SQL, sql } from 'drizzle-orm';
import type { SQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import { keptAnswers, waitingSubmissions } from '../door/tables.ts';
import { uploads } from '../files/tables.ts';
import { outbox } from '../notice/tables.ts';
import { ruleRuns } from '../register/tables.ts';
import type { Transaction } from './database.ts';
import { idempotency, links, session } from './tables.ts';

const DAY = 24 * 3_600_000;
/** Rows that one turn takes away at most: a turn is short, and the next comes soon. */
export const AT_ONCE = 20;

/**
 * Something that is kept for a while only. The table in the guide says the same; a test holds that.
 */
interface Kept {
  readonly what: string;
  readonly until: string;
  /**
   * Takes away what is past keeping, some of it at once; returns how many rows. `now`: epoch ms.
   */
  readonly sweep: (tx: Transaction, now: number) => number;
}

const dropOld =
  (table: SQLiteTable, id: SQLiteColumn, isOld: (now: number) => SQL | undefined) =>
  (tx: Transaction, now: number): number =>
    tx
      .delete(table)
      .where(inArray(id, tx.select({ id }).from(table).where(isOld(now)).limit(AT_ONCE)))
      .run().changes;

/** What is kept for a while only, and how long. */
export const RETENTION: readonly Kept[] = [
  {
    what: 'Requests from outside whose mail address was not confirmed',
    until: '3 days after the link to confirm ends',
    sweep: dropOld(waitingSubmissions, waitingSubmissions.id, (now) => lt(waitingSubmissions.expiresAt, now - 3 * DAY)),
  },
  {
    what: 'Answers that were begun and not sent',
    until: '14 days after they were last typed, or until they are sent',
    sweep: dropOld(keptAnswers, keptAnswers.id, (now) => lt(keptAnswers.expiresAt, now)),
  },
  {
    what: 'Links in letters',
    until: '30 days after they end',
    sweep: dropOld(links, links.id, (now) => lt(links.expiresAt, now - 30 * DAY)),
  },
  {
    what: 'The text of letters that were delivered',
    until: '30 days after they went; that they went, when, to whom and about what stays',
    sweep: (tx, now) => {
      // Named, as SQLite would go through all that were sent: the index holds those with a text alone.
      const some = sql`(select id from outbox indexed by outbox_bodies where state = 'sent' and html <> '' and sent_at < ${now - 30 * DAY} limit ${AT_ONCE})`;
      return tx.update(outbox).set({ text: '', html: '' }).where(inArray(outbox.id, some)).run().changes;
    },
  },
  {
    what: 'What a rule changed in requests there were, for taking it back',
    until: '30 days after it was done',
    sweep: dropOld(ruleRuns, ruleRuns.id, (now) => lt(ruleRuns.at, now - 30 * DAY)),
  },
  {
    what: 'Sessions of people who are signed in',
    until: '14 days after they were last used',
    // Sessions live by the real clock, as the sign-in library does.
    sweep: (tx) => dropOld(session, session.id, () => lt(session.expiresAt, new Date()))(tx, 0),
  },
  {
    what: 'The answers given to writes, for whoever sends the same again',
    until: '7 days',
    sweep: (tx, now) =>
      tx
        .delete(idempotency)
        .where(
          sql`rowid in (select rowid from ${idempotency} where ${lt(idempotency.createdAt, now - 7 * DAY)} limit ${AT_ONCE})`,
        )
        .run().changes,
  },
];

/** How long a file is kept that no request names: longer than what was begun is kept. */
export const UNCLAIMED_FILES = { what: 'Files that no request claimed', until: '15 days', ms: 15 * DAY } as const;

/** Files past keeping, some of them at once. */
export const unclaimedFiles = (now: number): SQL | undefined =>
  and(isNull(uploads.requestId), lt(uploads.createdAt, now - UNCLAIMED_FILES.ms));
