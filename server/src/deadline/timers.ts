import { type Deadline, type DeadlinePlan, timersFor } from '@tolvek/core/deadline';
import { and, asc, eq } from 'drizzle-orm';
import { v7 as uuid } from 'uuid';
import { calendarOf } from '../calendar/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import type { DeadlineRow } from './queries.ts';
import { timers } from './tables.ts';

/** Drops what would still ring for a deadline. */
export function dropTimers(tx: Transaction, deadlineId: string): void {
  tx.update(timers)
    .set({ state: 'dropped' })
    .where(and(eq(timers.deadlineId, deadlineId), eq(timers.state, 'waiting')))
    .run();
}

/** Sets the timers of a changed deadline anew; what was told already is not told again. */
export function resetTimers(
  tx: Transaction,
  { id, requestId }: Pick<DeadlineRow, 'id' | 'requestId'>,
  deadline: Deadline,
  plan: DeadlinePlan,
): void {
  const told = new Set(
    tx
      .select()
      .from(timers)
      .where(and(eq(timers.deadlineId, id), eq(timers.state, 'done')))
      .all()
      .map((timer) => timer.kind),
  );
  dropTimers(tx, id);
  for (const { kind, at } of timersFor(deadline, plan, calendarOf(tx, plan.calendar)))
    if (!told.has(kind))
      tx.insert(timers).values({ id: uuid(), requestId, deadlineId: id, kind, at, state: 'waiting' }).run();
}

export const next = prepared((db) =>
  db.select().from(timers).where(eq(timers.state, 'waiting')).orderBy(asc(timers.at)).limit(1).prepare(),
);

/** When something becomes due next, epoch ms. */
export const nextTimerAt = (db: Reader): number | null => next(db).get()?.at ?? null;
