import { type Deadline, type DeadlinePlan, type Timer, timersFor } from '@tolvek/core/deadline';
import { and, asc, eq } from 'drizzle-orm';
import { v7 as uuid } from 'uuid';
import { calendarOf } from '../calendar/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { timers } from './tables.ts';

export function setTimers(tx: Transaction, requestId: string, planned: readonly Timer[]): void {
  for (const timer of planned)
    tx.insert(timers).values({ id: uuid(), requestId, kind: timer.kind, at: timer.at, state: 'waiting' }).run();
}

export function dropTimers(tx: Transaction, requestId: string): void {
  tx.update(timers)
    .set({ state: 'dropped' })
    .where(and(eq(timers.requestId, requestId), eq(timers.state, 'waiting')))
    .run();
}

/** Sets the timers of a changed deadline anew; what was told already is not told again. */
export function resetTimers(tx: Transaction, requestId: string, deadline: Deadline, plan: DeadlinePlan): void {
  const told = new Set(
    tx
      .select()
      .from(timers)
      .where(and(eq(timers.requestId, requestId), eq(timers.state, 'done')))
      .all()
      .map((timer) => timer.kind),
  );
  dropTimers(tx, requestId);
  setTimers(
    tx,
    requestId,
    timersFor(deadline, plan, calendarOf(tx, plan.calendar)).filter((timer) => !told.has(timer.kind)),
  );
}

export const next = prepared((db) =>
  db.select().from(timers).where(eq(timers.state, 'waiting')).orderBy(asc(timers.at)).limit(1).prepare(),
);

/** When something becomes due next, epoch ms. */
export const nextTimerAt = (db: Reader): number | null => next(db).get()?.at ?? null;
