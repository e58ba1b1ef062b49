import type { TimeLimit } from '@tolvek/core/approval';
import {
  addWorkingTime,
  NeverOpen,
  subtractWorkingTime,
  type WorkingCalendar,
  workingTimeBetween,
} from '@tolvek/core/deadline';
import { eq, isNotNull } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { releaseById } from '../form/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import type { ShownRow } from '../request/queries.ts';
import type { StepRow } from './queries.ts';
import { approvalRounds, approvalSteps } from './tables.ts';

/** The calendar that the time of a request’s decisions is counted by. */
const calendarFor = (db: Reader, request: ShownRow): WorkingCalendar =>
  calendarOf(db, releaseById(db, request.releaseId).release.design.deadline.calendar);

interface Ends {
  readonly dueAt: number | null;
  readonly ringAt: number | null;
}
const NEVER: Ends = { dueAt: null, ringAt: null };

/**
 * Until when a step is decided whose time begins now, and when something rings for it first: for nobody where a request was
 * made to try something. `left`: ms that are left of it.
 */
function endsOf(tx: Transaction, request: ShownRow, limit: TimeLimit, now: number, left: number): Ends {
  const calendar = calendarFor(tx, request);
  try {
    const dueAt = addWorkingTime(calendar, now, left);
    const remindAt = limit.remind === undefined ? null : subtractWorkingTime(calendar, dueAt, limit.remind);
    return { dueAt, ringAt: request.trial ? null : remindAt !== null && remindAt > now ? remindAt : dueAt };
  } catch (error) {
    // A calendar that never opens again: it takes as long as it takes.
    if (error instanceof NeverOpen) return NEVER;
    throw error;
  }
}

const set = (tx: Transaction, id: string, values: Partial<typeof approvalSteps.$inferInsert>): void => {
  tx.update(approvalSteps).set(values).where(eq(approvalSteps.id, id)).run();
};

type Limited = Pick<StepRow, 'id' | 'limit'>;

/** The time of a step begins: it stands still from the first while whoever asked has to answer. */
export function beginLimit(tx: Transaction, request: ShownRow, { id, limit }: Limited, now: number): void {
  if (!limit) return;
  const stands = request.phase === 'paused';
  set(tx, id, stands ? { ...NEVER, left: limit.within } : endsOf(tx, request, limit, now, limit.within));
}

/** Nothing rings for a step any more, and nobody is missing there. */
export const endLimit = (tx: Transaction, { id, ringAt, left, nobodySince }: StepRow): void => {
  if (ringAt !== null || left !== null || nobodySince !== null)
    set(tx, id, { ringAt: null, left: null, nobodySince: null });
};

/** From when on nobody can decide at a step; null: somebody can. */
export const setNobody = (tx: Transaction, { id }: Pick<StepRow, 'id'>, nobodySince: number | null): void =>
  set(tx, id, { nobodySince });

/** The time of a step stands still: what is left of it is kept. */
export function pauseLimit(tx: Transaction, request: ShownRow, { id, limit, dueAt }: StepRow, now: number): void {
  if (!limit || dueAt === null) return;
  const left = Math.max(0, workingTimeBetween(calendarFor(tx, request), now, dueAt));
  set(tx, id, { ...NEVER, left });
}

/** The time of a step goes on with what was left of it. */
export function resumeLimit(tx: Transaction, request: ShownRow, { id, limit, left }: StepRow, now: number): void {
  if (limit && left !== null) set(tx, id, { ...endsOf(tx, request, limit, now, left), left: null });
}

/** A reminder went out: next, the time is over. */
export const reminded = (tx: Transaction, { id, dueAt }: Pick<StepRow, 'id' | 'dueAt'>): void =>
  set(tx, id, { ringAt: dueAt });

/** Whatever it was of: nothing rings for it any more. */
export const stopRinging = (tx: Transaction, id: string): void => set(tx, id, { ringAt: null });

const first = prepared((db) =>
  db
    .select({ id: approvalSteps.id, ringAt: approvalSteps.ringAt, requestId: approvalRounds.requestId })
    .from(approvalSteps)
    .innerJoin(approvalRounds, eq(approvalRounds.id, approvalSteps.roundId))
    .where(isNotNull(approvalSteps.ringAt))
    .orderBy(approvalSteps.ringAt)
    .limit(1)
    .prepare(),
);

/** The step for which something rings next, when, and its request. */
export const nextRinging = (db: Reader) => first(db).get();
