import type { NoticeCause } from '@tolvek/core/notice';
import { and, asc, eq, inArray, lte, sql } from 'drizzle-orm';
import { adding } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { listed, prepared } from '../platform/prepared.ts';
import { GATHERING, notices } from './tables.ts';

/** So many are gathered in one write. */
const AT_ONCE = 200;

const isDue = and(GATHERING, lte(notices.nextAttemptAt, sql.placeholder('now')));
const someDue = prepared((db) => db.select({ id: notices.id }).from(notices).where(isDue).limit(1).prepare());
const dueNow = prepared((db) =>
  db.select().from(notices).where(isDue).orderBy(asc(notices.nextAttemptAt), asc(notices.id)).limit(AT_ONCE).prepare(),
);
const addNotice = adding(notices);

type Notice = typeof notices.$inferSelect;

/** Whether something that waited for its reader’s time is to go by now. */
export const isTimeToGather = (db: Reader, now: number): boolean => someDue(db).get({ now }) !== undefined;

/** Lets what waited for its reader’s time go: what one reader hears of then in one email, which names them all. */
export function gather(tx: Transaction, now: number): void {
  for (const some of byReader(dueNow(tx).all({ now }))) {
    const [first] = some;
    if (!first) continue;
    if (some.length === 1) {
      tx.update(notices).set({ state: 'waiting', nextAttemptAt: now }).where(eq(notices.id, first.id)).run();
      continue;
    }
    const { personId, groupKey, toName, toAddress } = first;
    const ids = some.map(({ id }) => id);
    const cause: NoticeCause = { kind: 'digest', of: ids };
    const id = newId();
    addNotice(tx, {
      ...{ id, requestId: null, personId, groupKey, kind: 'digest', cause, toName, toAddress },
      ...{ state: 'waiting', nextAttemptAt: now, createdAt: now },
    });
    tx.update(notices).set({ state: 'gathered', inId: id }).where(inArray(notices.id, ids)).run();
  }
}

function byReader(due: readonly Notice[]): readonly (readonly Notice[])[] {
  const found = new Map<string, Notice[]>();
  for (const notice of due) {
    // Text messages go one by one.
    const reader = notice.personId ?? (notice.groupKey === null ? notice.toAddress : `group ${notice.groupKey}`);
    const key = notice.way === 'text' ? `text ${notice.id}` : reader;
    found.set(key, [...(found.get(key) ?? []), notice]);
  }
  return [...found.values()];
}

const ofDigest = prepared((db) =>
  db
    .select()
    .from(notices)
    .where(sql`${notices.id} in (select value from json_each(${sql.placeholder('ids')}))`)
    .orderBy(asc(notices.createdAt), asc(notices.id))
    .prepare(),
);

/** The notices that a digest names, in the order they came. */
export const gatheredIn = (db: Reader, ids: readonly string[]): readonly Notice[] =>
  ofDigest(db).all({ ids: listed(ids) });

/** What went in a digest is not kept besides. */
export const settleGathered = (tx: Transaction, digest: string): void =>
  void tx.update(notices).set({ cause: null }).where(eq(notices.inId, digest)).run();

/** What an email said of requests that are deleted is worded again without them, or is not kept. */
export function forgetGathered(tx: Transaction, requestIds: readonly string[]): void {
  const digests = tx
    .select({ id: notices.inId })
    .from(notices)
    .where(and(inArray(notices.requestId, [...requestIds]), sql`in_id is not null`))
    .all()
    .flatMap(({ id }) => id ?? []);
  if (digests.length > 0) tx.update(notices).set({ said: null }).where(inArray(notices.id, digests)).run();
}
