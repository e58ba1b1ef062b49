import { type Deadline, FINISH, type Running } from '@tolvek/core/deadline';
import { and, eq, or, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import { deadlines } from './tables.ts';

export type DeadlineRow = typeof deadlines.$inferSelect;

export const deadlineIn = ({ start, due, allowance, workingDays, counted, pauses }: DeadlineRow): Deadline => ({
  ...{ start, due, allowance, workingDays, counted, pauses },
});

/** Where the deadlines of a request are, by key. */
export const runningIn = (rows: readonly DeadlineRow[]): ReadonlyMap<string, Running> =>
  new Map(rows.map((row) => [row.key, { deadline: deadlineIn(row), state: row.state, endedAt: row.endedAt }] as const));

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

/** When a request is to be finished, epoch ms; null for a thing. */
export const finishOf = (db: Reader, requestId: string): number | null =>
  deadlinesOf(db, requestId).find(({ key }) => key === FINISH)?.due ?? null;

const ofMany = prepared((db) =>
  db
    .select()
    .from(deadlines)
    .where(and(isListed(deadlines.requestId, 'ids'), or(eq(deadlines.state, 'open'), eq(deadlines.key, FINISH))))
    .prepare(),
);

/** What requests are due by next, by their ids: the nearest that is open, else the finish. Things are not among them. */
export function nearestOf(db: Reader, requestIds: readonly string[]): ReadonlyMap<string, DeadlineRow> {
  const nearest = new Map<string, DeadlineRow>();
  for (const row of ofMany(db).all({ ids: listed(requestIds) })) {
    const known = nearest.get(row.requestId);
    if (!known || isNearer(row, known)) nearest.set(row.requestId, row);
  }
  return nearest;
}

/** What is open comes first, then what is due earlier. */
const isNearer = (one: DeadlineRow, other: DeadlineRow): boolean =>
  one.state === 'open' ? other.state !== 'open' || one.due < other.due : false;
