import { Temporal } from 'temporal-polyfill';
import { type Compiled, compileText, conditionOf, type Scope, type Slots, type Value } from '../expression/index.ts';
import { own } from '../own/index.ts';
import type { Phase, Values } from '../register/index.ts';
import { readyCalendar, SEARCH_DAYS, type WorkingCalendar } from './calendar.ts';
import {
  type Deadline,
  pauseDeadline,
  planDeadline,
  replanDeadline,
  resumeDeadline,
  type Span,
  spanOf,
} from './deadline.ts';
import {
  calendarFor,
  type DeadlinePlan,
  type DeadlineRule,
  FINISH,
  MOST_WORKING_DAYS,
  type RowLength,
  ruleByRow,
  turnsWith,
} from './plan.ts';
import { instantsOf } from './wallClock.ts';
import { endOfDay, NeverOpen, subtractWorkingTime } from './workingTime.ts';

/** Where a deadline of a request is: `over`, its own end has come; `ended`, with the request. */
export interface Running {
  readonly deadline: Deadline;
  readonly state: 'open' | 'over' | 'ended';
  /** When it was over or ended, epoch ms; null while it is open. */
  readonly endedAt: number | null;
}

interface At {
  readonly stage: string;
  readonly phase: Phase;
}

/** What a row of the routing table says of time. */
export interface RowTime {
  /** How many working days it allows until the finish. */
  readonly workingDays: number;
  /** How long other deadlines are, in place of what they say themselves. */
  readonly deadlines?: readonly RowLength[] | undefined;
}

/** What is asked about the deadlines of a request when something has happened. */
export interface CourseAsked {
  /** Epoch ms. */
  readonly now: number;
  readonly at: At;
  /** Where it was before; null when it has just arrived. */
  readonly before: At | null;
  /** Whether its answers have changed; they count as changed when it arrives. */
  readonly changed: boolean;
  /** Whether a day has turned, or time has passed, and nothing else has happened: conditions that read the clock are asked again. */
  readonly turned?: boolean | undefined;
  /** Whether the desk has just answered whoever asked. */
  readonly answered: boolean;
  /** What its row of the routing table says of time; null where it was not routed. */
  readonly row: () => RowTime | null;
  readonly values: Values;
  /** What conditions and formulas read, on the day it arrived; asked for only where there are some. */
  readonly slots: () => Slots;
  /** What conditions that read the clock read now; the same where nothing is said. */
  readonly slotsNow?: (() => Slots) | undefined;
  /** A calendar by its key. */
  readonly calendar: (key: string) => WorkingCalendar;
}

/**
 * What has become of the deadlines of a request: those that are there, by key. What has not changed is the same object.
 *
 * @throws NeverOpen where a calendar does not reach as far as a number of days.
 */
export type Course = (had: ReadonlyMap<string, Running>, asked: CourseAsked) => ReadonlyMap<string, Running>;

interface Ready {
  readonly rule: DeadlineRule;
  readonly calendar: string;
  readonly applies: Compiled | null;
  /** A formula that says how long it is, compiled. */
  readonly formula: (text: string) => Compiled;
  /** Whether its condition reads the clock. */
  readonly turns: boolean;
}

/**
 * Prepares a plan once. A deadline is there while its condition holds and its length is known; it begins with the request
 * or with a stage, stands still, and ends by its own rule or with the request.
 */
export function prepareCourse(plan: DeadlinePlan, scope: Scope): Course {
  // A row of a table can bring a formula of its own: each is compiled when it is first asked.
  const compiled = new Map<string, Compiled>();
  const formula = (text: string): Compiled => {
    const known = compiled.get(text) ?? compileText(text, scope);
    compiled.set(text, known);
    return known;
  };
  const ready = plan.deadlines.map((rule): Ready => {
    const when = conditionOf(rule);
    return {
      ...{ rule, calendar: calendarFor(plan, rule) },
      applies: when === null ? null : compileText(when, scope),
      turns: turnsWith(rule) !== null,
      formula,
    };
  });
  return (had, now) => {
    let row: RowTime | null | undefined;
    const asked: CourseAsked = { ...now, row: () => (row === undefined ? (row = now.row()) : row) };
    const is = new Map<string, Running>();
    for (const each of ready) {
      const running = next(each, had.get(each.rule.key), asked);
      if (running) is.set(each.rule.key, running);
    }
    return is;
  };
}

/** Whether a stage is one that a deadline begins in; arrival is the beginning of all. */
const isWithin = ({ begins }: DeadlineRule, { stage }: At): boolean =>
  begins.on === 'arrival' || begins.stages.includes(stage);

function next(ready: Ready, had: Running | undefined, asked: CourseAsked): Running | undefined {
  const { rule } = ready;
  const isIn = isWithin(rule, asked.at);
  const comes = isIn && (asked.before === null || !isWithin(rule, asked.before));
  let running = had;
  // What is known of answers can be otherwise only where they are new, and counts only where it runs or would begin.
  const turns = asked.turned === true && ready.turns;
  if ((comes || asked.changed || turns) && (isIn || had?.state === 'open')) {
    const known = comes || asked.changed ? spanFor(ready, asked) : spanTurned(ready, had, asked);
    // Whoever asked counts on the finish: while nothing else says how long it is, it is as long as its row allows.
    const span = known ?? (rule.key === FINISH ? (allowed(asked) ?? (had ? spanOf(had.deadline) : null)) : null);
    if (span === null) running = had?.state === 'open' ? undefined : had;
    else if (!had || (comes && had.state !== 'open'))
      running = {
        deadline: planDeadline(asked.calendar(ready.calendar), asked.now, span),
        state: 'open',
        endedAt: null,
      };
    else if (had.state === 'open' && !isSame(spanOf(had.deadline), span))
      running = { ...had, deadline: replanDeadline(had.deadline, asked.calendar(ready.calendar), span) };
  }
  return running && settled(ready, running, asked);
}

/** The same where only the clock has gone on: it applies or not, and is as long as it was. */
function spanTurned(ready: Ready, had: Running | undefined, asked: CourseAsked): Span | null {
  if (!holds(ready, asked)) return null;
  // What applied already goes on; the finish was as long as its row allows until now.
  return had && ready.rule.key !== FINISH ? spanOf(had.deadline) : spanFor(ready, asked);
}

const isSame = (a: Span, b: Span): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Whether its time stands still at a stage. */
function standsStill({ stands }: DeadlineRule, { stage, phase }: At): boolean {
  switch (stands.on) {
    case 'never':
      return false;
    case 'paused':
      return phase === 'paused';
    case 'stages':
      return stands.stages.includes(stage);
  }
}

function hasCome(rule: DeadlineRule, { at, answered }: CourseAsked): boolean {
  const { ends } = rule;
  switch (ends.on) {
    case 'finished':
      return false;
    case 'answered':
      return answered;
    case 'left':
      return !isWithin(rule, at);
    case 'stages':
      return ends.stages.includes(at.stage);
  }
}

/** A deadline as the stage has it: standing still, going on, over or ended. */
function settled({ rule, calendar }: Ready, running: Running, asked: CourseAsked): Running {
  const { now, at } = asked;
  if (running.state === 'over') return running;
  const state = hasCome(rule, asked) ? 'over' : at.phase === 'finished' ? 'ended' : 'open';
  const deadline =
    state === 'open' && standsStill(rule, at)
      ? pauseDeadline(running.deadline, now)
      : resumeDeadline(running.deadline, asked.calendar(calendar), now);
  if (deadline === running.deadline && state === running.state) return running;
  return { deadline, state, endedAt: state === 'open' ? null : (running.endedAt ?? now) };
}

/** As long as its row of the routing table allows. */
function allowed(asked: CourseAsked): Span | null {
  const row = asked.row();
  return row && { days: row.workingDays };
}

/** Working days as a formula gives them: whole, and as many as can be promised; null where it gives none. */
export const promisedBy = (value: Value): number | null =>
  typeof value === 'number' && Number.isFinite(value) && value >= 0
    ? Math.min(Math.round(value), MOST_WORKING_DAYS)
    : null;

/** Whether a deadline applies: as things are now where that hangs on the clock. */
const holds = ({ applies, turns }: Ready, { slots, slotsNow = slots }: CourseAsked): boolean =>
  applies === null || applies((turns ? slotsNow : slots)(), null) === true;

/** How long a deadline is for a request; null where it does not apply, or nothing says it yet. */
function spanFor(ready: Ready, asked: CourseAsked): Span | null {
  const { calendar, formula } = ready;
  if (!holds(ready, asked)) return null;
  const rule = ready.rule.key === FINISH ? ready.rule : ruleByRow(ready.rule, asked.row()?.deadlines);
  if (rule === null) return null;
  const { length } = rule;
  switch (length.by) {
    case 'routing':
      return allowed(asked);
    case 'days':
      return { days: length.days };
    case 'time':
      return { time: length.time };
    case 'formula': {
      const value = formula(length.formula)(asked.slots(), null);
      if (length.unit === 'days') {
        const days = promisedBy(value);
        return days === null ? null : { days };
      }
      if (typeof value !== 'number' || !Number.isFinite(value) || value < 0) return null;
      return { time: Math.min(Math.round(value * 60), MOST_WORKING_DAYS * 24 * 60) * 60_000 };
    }
    case 'field': {
      const value = own(asked.values, length.field);
      const due = typeof value === 'string' ? dueBy(value, length, asked.calendar(calendar)) : null;
      return due === null ? null : { due };
    }
  }
}

/**
 * When something is due by a date or moment that is written (`YYYY-MM-DD`, `YYYY-MM-DDTHH:MM`), so many days before or
 * after it: on a day, when that closes, or when the last open day before it does; at a moment, then. Null where it is none.
 */
function dueBy(
  written: string,
  { days, counted }: { readonly days: number; readonly counted: 'working' | 'any' },
  calendar: WorkingCalendar,
): number | null {
  const [day = '', clock] = written.split('T');
  const date = dateIn(day);
  if (!date) return null;
  const moved = counted === 'any' ? date.add({ days }) : workingDaysFrom(calendar, date, days);
  if (clock !== undefined) {
    const [first] = instantsOf(`${moved.toString()}T${clock.slice(0, 5)}`, calendar.zone);
    return first ?? moved.toZonedDateTime({ timeZone: calendar.zone, plainTime: clock.slice(0, 5) }).epochMilliseconds;
  }
  const end = endOfDay(calendar, moved.toZonedDateTime({ timeZone: calendar.zone }).epochMilliseconds + 1);
  try {
    return subtractWorkingTime(calendar, end, 0);
  } catch (error) {
    if (error instanceof NeverOpen) return end;
    throw error;
  }
}

const EPOCH = Temporal.PlainDate.from('1970-01-01');

function dateIn(day: string): Temporal.PlainDate | null {
  try {
    return Temporal.PlainDate.from(day);
  } catch {
    return null;
  }
}

/** The day so many open days before (negative) or after another. */
function workingDaysFrom(calendar: WorkingCalendar, from: Temporal.PlainDate, days: number): Temporal.PlainDate {
  const ready = readyCalendar(calendar);
  const step = Math.sign(days);
  let day = EPOCH.until(from, { largestUnit: 'days' }).days;
  let left = Math.abs(days);
  for (let searched = 0; left > 0 && searched <= SEARCH_DAYS; searched += 1) {
    day += step;
    if (ready.isWorkingDay(day)) left -= 1;
  }
  return EPOCH.add({ days: day });
}

/**
 * What a request is due by, epoch ms: the nearest that is open. Where none is, by when it was to be finished, which stays
 * what it is measured against; null where nothing was due.
 */
export function dueOf(running: ReadonlyMap<string, Running>): number | null {
  const open = [...running.values()].flatMap(({ state, deadline }) => (state === 'open' ? [deadline.due] : []));
  return open.length > 0 ? Math.min(...open) : (running.get(FINISH)?.deadline.due ?? null);
}
