import { type Deadline, FINISH } from '@tolvek/core/deadline';
import { and, eq, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import { deadlines } from './tables.ts';

export type DeadlineRow = typeof deadlines.$inferSelect;

export const deadlineIn = ({ start, due, allowance, workingDays, pauses }: DeadlineRow): Deadline => ({
  ...{ start, due, allowance, workingDays, pauses },
});

const promisedTo = prepared((db) =>
  db
    .select()
    .from(deadlines)
    .where(eq(deadlines.requestId, sql.placeholder('request')))
    .prepare(),
);

/** What a request is due by. */
export const deadlinesOf = (db: Reader, requestId: string): readonly DeadlineRow[] =>
  promisedTo(db).all({ request: requestId });

const ofMany = prepared((db) =>
  db
    .select()
    .from(deadlines)
    .where(and(isListed(deadlines.requestId, 'ids'), eq(deadlines.key, FINISH)))
    .prepare(),
);

/** What requests have until when to be finished, by their ids; things are not among them. */
export const finishing = (db: Reader, requestIds: readonly string[]): ReadonlyMap<string, Deadline> =>
  new Map(
    ofMany(db)
      .all({ ids: listed(requestIds) })
      .map((row) => [row.requestId, deadlineIn(row)]),
  );
