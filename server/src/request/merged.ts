import { asc, eq, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { type RequestRow, requestById } from './queries.ts';
import { mergedRequests } from './tables.ts';

export type MergedRow = typeof mergedRequests.$inferSelect;

const merging = prepared((db) =>
  db
    .select()
    .from(mergedRequests)
    .where(eq(mergedRequests.requestId, sql.placeholder('id')))
    .prepare(),
);
const taking = prepared((db) =>
  db
    .select()
    .from(mergedRequests)
    .where(eq(mergedRequests.intoId, sql.placeholder('id')))
    .orderBy(asc(mergedRequests.at), asc(mergedRequests.requestId))
    .prepare(),
);

/** How a request was merged into another; undefined where it was not. */
export const mergedAs = (db: Reader, id: string): MergedRow | undefined => merging(db).get({ id });

/** What was merged into a request, the first one first. */
export const mergedInto = (db: Reader, id: string): readonly MergedRow[] => taking(db).all({ id });

/** The request that another goes with: the one it was merged into, or itself. */
export function goesWith<Row extends Pick<RequestRow, 'id'>>(db: Reader, request: Row): Row | RequestRow {
  const merged = mergedAs(db, request.id);
  return (merged && requestById(db, merged.intoId)) ?? request;
}
