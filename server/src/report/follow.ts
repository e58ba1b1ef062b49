import { inArray } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import { byRequest, isThere, type LaidPart } from '../request/layBy.ts';
import { reportCopies, reportCopyRows } from './tables.ts';

/** What frozen tables said of a request comes back with it. */
export const LAID_REPORTS: readonly LaidPart[] = [
  {
    table: reportCopyRows,
    of: byRequest(reportCopyRows.requestId),
    back: (row, _now, db) => (isThere(db, reportCopies, row.copy_id) ? row : null),
  },
];

/** What frozen tables said of requests goes with them; that they count does not. */
export const dropReported = (tx: Transaction, requestIds: readonly string[]): void =>
  void tx
    .delete(reportCopyRows)
    .where(inArray(reportCopyRows.requestId, [...requestIds]))
    .run();
