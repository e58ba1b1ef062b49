import { type Deadline, type DeadlinePlan, timersFor, type WorkingCalendar } from '@tolvek/core/deadline';
import { and, asc, eq, lte, sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { adding } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { prepared } from '../platform/prepared.ts';
import type { DeadlineRow } from './queries.ts';
import { timers } from './tables.ts';

const addTimer = adding(timers);

/** With the request, by which they are found: a desk has many that wait. */
const ofDeadline = (state: 'waiting' | 'done') =>
  and(
    eq(timers.requestId, sql.placeholder('requestId')),
    eq(timers.deadlineId, sql.placeholder('id')),
    // As said, else all that wait anywhere would be looked through for it.
    sql`+${timers.state} = ${state}`,
  );
const dropping = prepared((db) => db.update(timers).set({ state: 'dropped' }).where(ofDeadline('waiting')).prepare());
const rung = prepared((db) => db.select({ kind: timers.kind }).from(timers).where(ofDeadline('done')).prepare());

/** Drops what would still ring for a deadline. */
export function dropTimers(tx: Transaction, { id, requestId }: Pick<DeadlineRow, 'id' | 'requestId'>): void {
  dropping(tx).run({ id, requestId });
}

/** Sets the timers of a changed deadline anew; what was told already is not told again. */
export function resetTimers(
  tx: Transaction,
  { id, requestId }: Pick<DeadlineRow, 'id' | 'requestId'>,
  deadline: Deadline,
  plan: DeadlinePlan,
): void {
  const told = new Set(
    rung(tx)
      .all({ id, requestId })
      .map((timer) => timer.kind),
  );
  dropTimers(tx, { id, requestId });
  addTimers(tx, { id, requestId }, deadline, plan, told);
}

/** How many timers of a deadline would ring at once, would it be another; what was told already is not told again. */
export function ringAtOnce(
  db: Reader,
  { id, requestId }: Pick<DeadlineRow, 'id' | 'requestId'>,
  deadline: Deadline,
  { plan, calendar, now }: { readonly plan: DeadlinePlan; readonly calendar: WorkingCalendar; readonly now: number },
): number {
  const told = new Set(
    rung(db)
      .all({ id, requestId })
      .map((timer) => timer.kind),
  );
  return timersFor(deadline, plan, calendar).filter(({ kind, at }) => at <= now && !told.has(kind)).length;
}

/** Holds back what would ring for a request by now: it counts as told. */
export function holdTimers(tx: Transaction, requestId: string, now: number): void {
  tx.update(timers)
    .set({ state: 'done' })
    .where(and(eq(timers.requestId, requestId), eq(timers.state, 'waiting'), lte(timers.at, now)))
    .run();
}

/** Sets the timers of a deadline; `told`: what was told already. */
export function addTimers(
  tx: Transaction,
  { id, requestId }: Pick<DeadlineRow, 'id' | 'requestId'>,
  deadline: Deadline,
  plan: DeadlinePlan,
  told: ReadonlySet<string> = new Set(),
): void {
  for (const { kind, at } of timersFor(deadline, plan, calendarOf(tx, plan.calendar)))
    if (!told.has(kind)) addTimer(tx, { id: newId(), requestId, deadlineId: id, kind, at, state: 'waiting' });
}

export const next = prepared((db) =>
  db.select().from(timers).where(eq(timers.state, 'waiting')).orderBy(asc(timers.at)).limit(1).prepare(),
);

/** When something becomes due next, epoch ms. */
export const nextTimerAt = (db: Reader): number | null => next(db).get()?.at ?? null;
