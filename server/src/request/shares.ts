import { holdersOf, type Viewer, wordOf } from '@tolvek/core/people';
import { and, asc, eq, gte, isNull, or, type SQL, sql } from 'drizzle-orm';
import { settledDay } from '../people/settle.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import { shares } from './tables.ts';

export type ShareRow = typeof shares.$inferSelect;

/** Whether a share has not ended: its last day is a day like any other. `day`: ISO 8601, as groups are settled for. */
const lasts = (day: string | SQL): SQL | undefined => or(isNull(shares.untilDay), gte(shares.untilDay, sql`${day}`));

const anyFor = prepared((db) =>
  db
    .select({ holder: shares.holder, untilDay: shares.untilDay })
    .from(shares)
    .where(and(eq(shares.requestId, sql.placeholder('request')), isListed(shares.holder, 'words')))
    .prepare(),
);

/** Whether a request is shared with somebody of the staff today, by themselves or by a group. */
export function isSharedWith(db: Reader, requestId: string, viewer: Viewer): boolean {
  if (viewer.kind !== 'staff') return false;
  const found = anyFor(db).all({ request: requestId, words: listed(holdersOf(viewer)) });
  if (found.length === 0) return false;
  const day = settledDay(db) ?? '';
  return found.some(({ untilDay }) => untilDay === null || untilDay >= day);
}

/** The ids of requests that are shared with somebody of the staff today: as a part of a query. */
export const sharedWith = (db: Reader, viewer: Viewer): SQL =>
  viewer.kind === 'staff'
    ? sql`(select ${shares.requestId} from ${shares} where ${and(
        sql`${shares.holder} in (select value from json_each(${listed(holdersOf(viewer))}))`,
        lasts(settledDay(db) ?? ''),
      )})`
    : sql`(select null where 0)`;

/** Who a request is shared with today. */
export const sharesOf = (db: Reader, requestId: string): readonly ShareRow[] =>
  db
    .select()
    .from(shares)
    .where(and(eq(shares.requestId, requestId), lasts(settledDay(db) ?? '')))
    .orderBy(asc(shares.at))
    .all();

/** Shares a request with somebody, in place of what was so before. */
export function putShare(tx: Transaction, share: ShareRow): void {
  const { untilDay, by, at } = share;
  tx.insert(shares)
    .values(share)
    .onConflictDoUpdate({ target: [shares.requestId, shares.holder], set: { untilDay, by, at } })
    .run();
}

/** Ends a share; false where there was none. */
export const endShare = (tx: Transaction, requestId: string, holder: string): boolean =>
  tx
    .delete(shares)
    .where(and(eq(shares.requestId, requestId), eq(shares.holder, holder)))
    .run().changes > 0;

/** What was shared with one record of a person is shared with the other. */
export function shareWithOther(tx: Transaction, from: string, to: string): void {
  const [was, is] = [wordOf({ person: from }), wordOf({ person: to })];
  tx.run(sql`update or replace ${shares} set holder = ${is} where holder = ${was}`);
}
