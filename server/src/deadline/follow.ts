import {
  type Course,
  type CourseAsked,
  calendarFor,
  type DeadlinePlan,
  type DeadlineRule,
  dueOf,
  hangsOn,
  type Running,
  replanDeadline,
  rowHangs,
  ruleByRow,
  ruleOf,
  turnsWith,
  type WorkingCalendar,
} from '@tolvek/core/deadline';
import type { Slots } from '@tolvek/core/expression';
import type { Field } from '@tolvek/core/register';
import { type RoutingSaid, saidThen } from '@tolvek/core/routing';
import { and, eq, inArray } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { planningOf, releaseById } from '../form/queries.ts';
import { adding, changing } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import type { Work } from '../platform/work.ts';
import { holdsThings, registerById } from '../register/queries.ts';
import { dueIs, type Follower } from '../request/change.ts';
import { slotsOfRequest } from '../request/facts.ts';
import { byRequest, isBefore, type LaidPart, missed } from '../request/layBy.ts';
import { requestById, type ShownRow } from '../request/queries.ts';
import { type DeadlineRow, deadlinesOf, runningIn } from './queries.ts';
import { deadlines, timers } from './tables.ts';
import { addTimers, dropTimers, holdTimers, resetTimers } from './timers.ts';

const addDeadline = adding(deadlines);

const changeDeadline = changing(deadlines, [
  ...(['start', 'due', 'allowance', 'workingDays', 'counted', 'pauses', 'state', 'endedAt'] as const),
]);

/** How requests keep time by a release: its plan, what it makes of what happens, and the fields that its formulas read. */
export interface Planning {
  readonly plan: DeadlinePlan;
  readonly course: Course;
  readonly fields: readonly Field[];
}

function planningFor(db: Reader, request: ShownRow): Planning {
  const { release, course } = planningOf(db, request);
  return { plan: release.design.deadline, course, fields: release.design.fields };
}

/** A calendar by its key. */
type CalendarOf = (key: string) => WorkingCalendar;

/** What can be read of a request where its deadlines hang on it. */
function readOf(
  db: Reader,
  request: ShownRow,
  fields: readonly Field[],
  now: number,
): Pick<CourseAsked, 'row' | 'values' | 'slots' | 'slotsNow'> {
  const slots = (at: number): Slots =>
    slotsOfRequest(db, request, registerById(db, request.registerId), { fields, at });
  return {
    values: request.values,
    slots: () => slots(request.createdAt),
    slotsNow: () => slots(now),
    row: () => saidOf(db, request),
  };
}

/** How long the rows of its routing table say that deadlines are. */
const lengthsOf = (db: Reader, { releaseId }: Pick<ShownRow, 'releaseId'>) => releaseById(db, releaseId).route.lengths;

/** What its routing table said of a request; null where none did. */
function saidOf(db: Reader, request: Pick<ShownRow, 'id' | 'releaseId'>): RoutingSaid | null {
  const routed = requestById(db, request.id)?.routed;
  return routed ? saidThen(releaseById(db, request.releaseId).release.design.routing, routed) : null;
}

/** A deadline as it is for a request: its row of the routing table may say how long that is. */
export function ruleFor(
  db: Reader,
  request: Pick<ShownRow, 'id' | 'releaseId'>,
  rule: DeadlineRule,
): { readonly rule: DeadlineRule; readonly byRow: boolean } {
  const isSaid = lengthsOf(db, request).some(({ deadline }) => deadline === rule.key);
  const said = isSaid ? ruleByRow(rule, saidOf(db, request)?.deadlines) : rule;
  return { rule: said ?? rule, byRow: said !== rule };
}

/** Whether something in the deadlines of a request hangs on what it holds. */
const hangsOnAnswers = (db: Reader, request: ShownRow, { deadlines: all }: DeadlinePlan): boolean =>
  all.some(hangsOn) || lengthsOf(db, request).some(rowHangs);

const ANSWERS: ReadonlySet<string> = new Set(['values', 'claimed', 'same-person']);

/**
 * Deadlines and their timers follow a request: they begin when it arrives or comes to a stage, stand still, end by their
 * own rules or with it, and begin again where it is taken up again. What it is due by is the nearest that is open.
 */
export const followDeadlines: Follower = (work, request, change, before) => {
  const { tx, now } = work;
  if (holdsThings(registerById(tx, request.registerId))) return undefined;
  if (change.kind === 'due') return settle(work, request, countedAnew(tx, request, now));
  const planning = planningFor(tx, request);
  if (change.kind === 'replanned') {
    const planned = settle(work, request, plannedAnew(tx, request, planning, now), true);
    // What would ring at once, as it is late by now, was not promised before: it is held back.
    holdTimers(tx, request.id, now);
    return planned;
  }
  const { plan, course, fields } = planning;
  const hasMoved = before === null || before.stage !== request.stage || before.phase !== request.phase;
  const changed = ANSWERS.has(change.kind) && hangsOnAnswers(tx, request, plan);
  const answered = change.kind === 'said' && change.to === 'requester' && !change.byRequester;
  const isAnswer = answered && plan.deadlines.some(({ ends }) => ends.on === 'answered');
  if (!hasMoved && !changed && !isAnswer) return undefined;
  const had =
    change.kind === 'arrived'
      ? new Map<string, Running>(
          (change.taken?.deadlines ?? []).map(({ key, deadline }) => [key, { deadline, state: 'open', endedAt: null }]),
        )
      : runningIn(deadlinesOf(tx, request.id));
  const is = course(had, {
    ...{ now, at: request, before, changed, answered, ...readOf(tx, request, fields, now) },
    ...(change.kind === 'arrived' ? { row: () => change.taken?.routed?.outcome ?? null } : {}),
    calendar: (key) => calendarOf(tx, key),
  });
  return settle(work, request, is);
};

/**
 * The deadlines of a request counted anew by the calendars in force, or by others; what is over stays as it is. Keeps
 * nothing.
 */
export function countedAnew(
  db: Reader,
  request: ShownRow,
  now: number,
  calendar: CalendarOf = (key) => calendarOf(db, key),
): ReadonlyMap<string, Running> {
  const { plan, course, fields } = planningFor(db, request);
  const counted = [...runningIn(deadlinesOf(db, request.id))].map(([key, running]): [string, Running] => {
    const rule = ruleOf(plan, key);
    if (!rule || running.state !== 'open') return [key, running];
    return [key, { ...running, deadline: replanDeadline(running.deadline, calendar(calendarFor(plan, rule))) }];
  });
  const at = { now, at: request, before: request, changed: hangsOnAnswers(db, request, plan), answered: false };
  return course(new Map(counted), { ...at, ...readOf(db, request, fields, now), calendar });
}

/**
 * Asks again, as the clock has gone on, which deadlines apply to a request where that hangs on the day or the moment. Gives
 * the request as it is then.
 */
export function turnDeadlines(work: Work, request: ShownRow): ShownRow {
  const { tx, now } = work;
  const { plan, course, fields } = planningFor(tx, request);
  if (!plan.deadlines.some((rule) => turnsWith(rule) !== null)) return request;
  const at = { now, at: request, before: request, changed: false, turned: true, answered: false };
  const calendar = (key: string): WorkingCalendar => calendarOf(tx, key);
  const is = course(runningIn(deadlinesOf(tx, request.id)), { ...at, ...readOf(tx, request, fields, now), calendar });
  return settle(work, request, is) ?? request;
}

/** The deadlines of a request by another plan: what it has goes on, what is new begins now. Keeps nothing. */
export function plannedAnew(
  db: Reader,
  request: ShownRow,
  { course, fields }: Planning,
  now: number,
): ReadonlyMap<string, Running> {
  const at = { now, at: request, before: request, changed: true, answered: false };
  const calendar = (key: string): WorkingCalendar => calendarOf(db, key);
  return course(runningIn(deadlinesOf(db, request.id)), { ...at, ...readOf(db, request, fields, now), calendar });
}

/** Stores where the deadlines of a request are, and when they ring; what has not changed stays as it is, unless all is set `anew`. */
function settle(work: Work, request: ShownRow, is: ReadonlyMap<string, Running>, anew = false): ShownRow | undefined {
  const { tx } = work;
  const { plan } = planningFor(tx, request);
  const rows = new Map(deadlinesOf(tx, request.id).map((row) => [row.key, row]));
  const was = runningIn([...rows.values()]);
  for (const [key, row] of rows) if (!is.has(key)) dropDeadline(tx, row);
  for (const [key, running] of is) {
    const rule = ruleOf(plan, key);
    const row = rows.get(key);
    if (!rule || (row && !anew && isSame(running, was.get(key)))) continue;
    const { state, endedAt, deadline } = running;
    const stored = { ...deadline, state, endedAt, id: row?.id ?? newId() };
    const owner = { id: stored.id, requestId: request.id };
    if (row) changeDeadline(tx, stored);
    else addDeadline(tx, { ...stored, requestId: request.id, key });
    if (request.trial) continue;
    const ringing = { rule, calendar: calendarOf(tx, calendarFor(plan, rule)) };
    if (!row && state === 'open') addTimers(tx, owner, deadline, ringing);
    else if (state === 'open') resetTimers(tx, owner, deadline, ringing);
    else if (row) dropTimers(tx, owner);
  }
  return is.size > 0 ? dueIs(work, request, dueOf(is)) : undefined;
}

const isSame = (one: Running, other: Running | undefined): boolean => JSON.stringify(one) === JSON.stringify(other);

/** Takes away a deadline that is there no more, with what would ring for it. */
function dropDeadline(tx: Transaction, { id, requestId }: DeadlineRow): void {
  tx.delete(timers)
    .where(and(eq(timers.requestId, requestId), eq(timers.deadlineId, id)))
    .run();
  tx.delete(deadlines).where(eq(deadlines.id, id)).run();
}

/** What comes back with a request: what should have rung meanwhile rings no more. */
export const LAID_DEADLINES: readonly LaidPart[] = [
  { table: deadlines, of: byRequest(deadlines.requestId) },
  {
    table: timers,
    of: byRequest(timers.requestId),
    back: missed((row, now) => row.state === 'waiting' && isBefore(row, 'at', now), { state: 'dropped' }),
  },
];

/** Takes away the deadlines of requests that are deleted, with their timers. */
export function dropDeadlines(tx: Transaction, requestIds: readonly string[]): void {
  for (const table of [timers, deadlines])
    tx.delete(table)
      .where(inArray(table.requestId, [...requestIds]))
      .run();
}
