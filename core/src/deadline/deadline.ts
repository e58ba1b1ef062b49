import { type Length, type Said, said } from '@tolvek/words';
import type { WorkingCalendar } from './calendar.ts';
import { addWorkingTime, endOfWorkingDay, NeverOpen, subtractWorkingTime, workingTimeBetween } from './workingTime.ts';

/** How a form keeps time. Lengths are ms of working time. */
export interface DeadlinePlan {
  /** Key of the working calendar. */
  readonly calendar: string;
  readonly remindBefore: number;
  readonly escalateAfter: number;
  /** Key of the group told when a deadline has passed. */
  readonly escalateTo: string;
}

export interface Pause {
  readonly from: number;
  /** Null while it lasts. */
  readonly to: number | null;
}

/** A promised moment; all moments are epoch ms. */
export interface Deadline {
  readonly start: number;
  readonly due: number;
  /** Working time promised at the start, ms. */
  readonly allowance: number;
  readonly workingDays: number;
  readonly pauses: readonly Pause[];
}

/** What a request has until when to be finished; other deadlines have keys of their own. */
export const FINISH = 'finish';

/** A deadline as it is planned for a request, by its lasting name. */
export interface PlannedDeadline {
  readonly key: string;
  readonly deadline: Deadline;
}

export interface Timer {
  readonly kind: 'reminder' | 'escalation';
  readonly at: number;
}

/**
 * The longest length that makes sense in a plan, ms of working time: 400 days around the clock. A
 * calendar with an hour a week does not get there in ten years; then nobody is reminded.
 */
export const LONGEST_LENGTH = 400 * 24 * 3_600_000;

/** The deadline for a request that arrived at `start`, allowed a number of working days. */
export function planDeadline(calendar: WorkingCalendar, start: number, workingDays: number): Deadline {
  const due = endOfWorkingDay(calendar, start, workingDays);
  return { start, due, workingDays, allowance: workingTimeBetween(calendar, start, due), pauses: [] };
}

/** When to remind and escalate. A reminder that would stand before the start is left out. */
export function timersFor(deadline: Deadline, plan: DeadlinePlan, calendar: WorkingCalendar): readonly Timer[] {
  if (isPaused(deadline)) return [];
  const remind = reached(() => subtractWorkingTime(calendar, deadline.due, plan.remindBefore));
  const escalate = reached(() =>
    plan.escalateAfter === 0 ? deadline.due : addWorkingTime(calendar, deadline.due, plan.escalateAfter),
  );
  return [
    ...(remind !== null && remind > deadline.start ? [{ kind: 'reminder' as const, at: remind }] : []),
    ...(escalate !== null ? [{ kind: 'escalation' as const, at: escalate }] : []),
  ];
}

/** A moment, or null when no calendar reaches it. */
function reached(moment: () => number): number | null {
  try {
    return moment();
  } catch (error) {
    if (error instanceof NeverOpen) return null;
    throw error;
  }
}

export const isPaused = (deadline: Deadline): boolean => deadline.pauses.at(-1)?.to === null;

/** The clock stops at `at`. A deadline that is paused already stays as it is. */
export function pauseDeadline(deadline: Deadline, at: number): Deadline {
  return isPaused(deadline) ? deadline : { ...deadline, pauses: [...deadline.pauses, { from: at, to: null }] };
}

/**
 * The clock goes on at `at`: what working time was left at the pause is left now. Past its time, it
 * stays past.
 */
export function resumeDeadline(deadline: Deadline, calendar: WorkingCalendar, at: number): Deadline {
  const last = deadline.pauses.at(-1);
  if (!last || last.to !== null) return deadline;
  const left = workingTimeBetween(calendar, last.from, deadline.due);
  const due = left > 0 ? addWorkingTime(calendar, at, left) : deadline.due;
  return { ...deadline, due, pauses: [...deadline.pauses.slice(0, -1), { from: last.from, to: at }] };
}

/**
 * A deadline as another calendar has it: counted from its start, with all its pauses. By the calendar it
 * was counted with, it is the same.
 */
export function replanDeadline(deadline: Deadline, calendar: WorkingCalendar): Deadline {
  let again = planDeadline(calendar, deadline.start, deadline.workingDays);
  for (const { from, to } of deadline.pauses) {
    again = pauseDeadline(again, from);
    if (to !== null) again = resumeDeadline(again, calendar, to);
  }
  return again;
}

/**
 * The picture of a deadline: shares of its length from 0 (start) to 1 (due), and the time left in
 * words.
 */
export interface Fuse {
  readonly state: 'calm' | 'soon' | 'late' | 'paused' | 'done';
  readonly burned: readonly { readonly from: number; readonly to: number }[];
  readonly ticks: readonly number[];
  readonly words: Said;
  /** ms of working time left; negative when late. */
  readonly left: number;
}

/** Draws the fuse at a moment; for a finished request, at the moment it was finished. */
export function fuseAt(
  deadline: Deadline,
  plan: DeadlinePlan,
  calendar: WorkingCalendar,
  now: number,
  finished: number | null,
): Fuse {
  const at = finished ?? now;
  const paused = isPaused(deadline) && finished === null;
  const stop = paused ? (deadline.pauses.at(-1)?.from ?? at) : at;
  const left = workingTimeBetween(calendar, stop, deadline.due);
  const timers = timersFor(deadline, plan, calendar);
  const reminder = timers.find((timer) => timer.kind === 'reminder');
  const length = Math.max(1, workingTimeBetween(calendar, deadline.start, deadline.due));
  const share = (moment: number): number =>
    Math.min(1, Math.max(0, workingTimeBetween(calendar, deadline.start, moment) / length));
  const burned: { from: number; to: number }[] = [];
  let from = deadline.start;
  for (const pause of deadline.pauses) {
    if (pause.from > from) burned.push({ from: share(from), to: share(Math.min(pause.from, at)) });
    from = pause.to ?? Number.POSITIVE_INFINITY;
  }
  if (at > from) burned.push({ from: share(from), to: share(at) });
  const state =
    finished !== null
      ? 'done'
      : paused
        ? 'paused'
        : left < 0 || now > deadline.due
          ? 'late'
          : reminder && now >= reminder.at
            ? 'soon'
            : 'calm';
  return { state, burned, ticks: reminder ? [share(reminder.at)] : [], words: fuseWords(state, left, calendar), left };
}

/** What a requester may count on; null where there is nothing to say. `due`: epoch ms. */
export function promiseInWords(
  state: { readonly finished: boolean; readonly paused: boolean; readonly late: boolean },
  due: number | null,
): Said | null {
  if (state.finished) return null;
  if (state.paused) return said('deadlines:paused');
  if (due === null) return state.late ? said('deadlines:weAreLateNoDate') : null;
  return said(state.late ? 'deadlines:weAreLate' : 'deadlines:planned', { due });
}

function fuseWords(state: Fuse['state'], left: number, calendar: WorkingCalendar): Said {
  const length = lengthOf(Math.abs(left), calendar);
  switch (state) {
    case 'done':
      return left < 0 ? said('deadlines:finishedLate', { length }) : said('deadlines:finishedInTime');
    case 'paused':
      return said('deadlines:pausedLeft', { length });
    case 'late':
      return left === 0 ? said('deadlines:overdueNow') : said('deadlines:overdue', { length });
    case 'soon':
    case 'calm':
      return said('deadlines:left', { length });
  }
}

/**
 * A length of working time (ms) as people count it: in minutes, or in whole and half days when it is more
 * than two full days of the calendar.
 */
export function lengthOf(ms: number, calendar: WorkingCalendar): Length {
  const minutes = Math.round(ms / 60_000);
  const day = fullDayMinutes(calendar);
  return day > 0 && minutes >= 2 * day ? { days: Math.round((minutes / day) * 2) / 2 } : { minutes };
}

const minutesOf = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5));
/** By the week of a calendar: asked for in each row of a page. */
const fullDays = new WeakMap<WorkingCalendar['week'], number>();

function fullDayMinutes({ week }: WorkingCalendar): number {
  let most = fullDays.get(week);
  if (most === undefined) {
    const lengths = week.map((day) => day.reduce((all, [from, to]) => all + minutesOf(to) - minutesOf(from), 0));
    fullDays.set(week, (most = Math.max(...lengths)));
  }
  return most;
}
