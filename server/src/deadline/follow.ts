import { type Deadline, type DeadlinePlan, pauseDeadline, replanDeadline, resumeDeadline } from '@tolvek/core/deadline';
import { inArray } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { releaseById } from '../form/queries.ts';
import { adding, changing } from '../platform/adding.ts';
import type { Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import type { Work } from '../platform/work.ts';
import { dueIs, type Follower } from '../request/change.ts';
import type { ShownRow } from '../request/queries.ts';
import { type DeadlineRow, deadlineIn, deadlinesOf } from './queries.ts';
import { deadlines, timers } from './tables.ts';
import { addTimers, dropTimers, resetTimers } from './timers.ts';

const addDeadline = adding(deadlines);

const planOf = (tx: Transaction, request: ShownRow): DeadlinePlan =>
  releaseById(tx, request.releaseId).release.design.deadline;

const changeDeadline = changing(deadlines, ['start', 'due', 'allowance', 'workingDays', 'pauses', 'state']);

/** What can bring a request to another stage. */
const MOVES: ReadonlySet<string> = new Set([
  ...['stage', 'freed', 'withdrawn', 'decided', 'decided-anew', 'returned', 'answered', 'sent-to-decide'],
]);

/**
 * Deadlines and their timers follow a request: they begin when it arrives, stand still while it is
 * paused, end when it is finished, and begin again where it is taken up again. What it is due by is
 * the nearest that is open.
 */
export const followDeadlines: Follower = (work, request, change, before) => {
  if (change.kind === 'arrived') {
    begin(work, request, change.taken?.deadlines ?? []);
    return undefined;
  }
  if (change.kind === 'due') return replan(work, request);
  if (!before || before.phase === request.phase || !MOVES.has(change.kind)) return undefined;
  const { tx, now } = work;
  const rows = deadlinesOf(tx, request.id);
  const plan = planOf(tx, request);
  const calendar = calendarOf(tx, plan.calendar);
  const isOver = request.phase === 'finished';
  const dues = rows.map((row) => {
    const was = deadlineIn(row);
    const is =
      request.phase === 'paused'
        ? pauseDeadline(was, now)
        : before.phase === 'paused'
          ? resumeDeadline(was, calendar, now)
          : was;
    const state = isOver ? 'ended' : 'open';
    if (is !== was || state !== row.state) changeDeadline(tx, { ...is, state, id: row.id });
    // What stands still, ends or begins again rings otherwise.
    if (isOver) dropTimers(tx, row);
    else if (!request.trial && (is !== was || row.state === 'ended')) resetTimers(tx, row, is, plan);
    return is.due;
  });
  return dues.length > 0 ? dueIs(work, request, Math.min(...dues)) : undefined;
};

/** Counts what is open anew by the calendar in force. */
function replan(work: Work, request: ShownRow): ShownRow | undefined {
  const { tx } = work;
  const plan = planOf(tx, request);
  const calendar = calendarOf(tx, plan.calendar);
  const dues = deadlinesOf(tx, request.id).map((row) => {
    if (row.state !== 'open') return row.due;
    const is = replanDeadline(deadlineIn(row), calendar);
    changeDeadline(tx, { ...is, state: row.state, id: row.id });
    if (!request.trial) resetTimers(tx, row, is, plan);
    return is.due;
  });
  return dues.length > 0 ? dueIs(work, request, Math.min(...dues)) : undefined;
}

function begin({ tx }: Work, request: ShownRow, planned: readonly { key: string; deadline: Deadline }[]): void {
  const state = request.phase === 'finished' ? 'ended' : 'open';
  for (const { key, deadline } of planned) {
    const row: DeadlineRow = { ...deadline, id: newId(), requestId: request.id, key, state };
    addDeadline(tx, row);
    if (!request.trial && state === 'open') addTimers(tx, row, deadline, planOf(tx, request));
  }
}

/** Takes away the deadlines of requests that are deleted, with their timers. */
export function dropDeadlines(tx: Transaction, requestIds: readonly string[]): void {
  for (const table of [timers, deadlines])
    tx.delete(table)
      .where(inArray(table.requestId, [...requestIds]))
      .run();
}
