import { type Length, type Said, said } from '@tolvek/words';
import type { WorkingCalendar } from './calendar.ts';
import { type DeadlineRule, ringsBefore } from './plan.ts';
import {
  addWorkingTime,
  endOfWorkingDay,
  opensOn,
  reached,
  subtractWorkingTime,
  workingTimeBetween,
} from './workingTime.ts';

export interface Pause {
  readonly from: number;
  /** Null while it lasts. */
  readonly to: number | null;
}

/** A promised moment; all moments are epoch ms. */
export interface Deadline {
  readonly start: number;
  readonly due: number;
  /** Working time promised at the start, ms; of a date, how far it was away then. */
  readonly allowance: number;
  /** 0 unless it is counted in days. */
  readonly workingDays: number;
  /** What makes it so long: so many working days, so much working time, or a date, which does not move. */
  readonly counted: 'days' | 'time' | 'date';
  readonly pauses: readonly Pause[];
}

/** How long a deadline is, once it is known: `days` and `time` (ms) of working time, or when it is due (epoch ms). */
export type Span = { readonly days: number } | { readonly time: number } | { readonly due: number };

/** A deadline as it is planned for a request, by its lasting name. */
export interface PlannedDeadline {
  readonly key: string;
  readonly deadline: Deadline;
}

export interface Timer {
  /** Key of the ring. */
  readonly ring: string;
  readonly at: number;
}

/**
 * The longest length that makes sense in a plan, ms of working time: 400 days around the clock. A
 * calendar with an hour a week does not get there in ten years; then nobody is reminded.
 */
export const LONGEST_LENGTH = 400 * 24 * 3_600_000;

/**
 * The deadline for a request that arrived at `start`, allowed a number of working days, or as long as is said.
 *
 * @throws NeverOpen where the calendar does not reach that far.
 */
export function planDeadline(calendar: WorkingCalendar, start: number, length: number | Span): Deadline {
  const span = typeof length === 'number' ? { days: length } : length;
  const counted = 'days' in span ? 'days' : 'time' in span ? 'time' : 'date';
  const due =
    'days' in span
      ? endOfWorkingDay(calendar, start, span.days)
      : 'time' in span
        ? addWorkingTime(calendar, start, span.time)
        : span.due;
  const allowance = 'time' in span ? span.time : workingTimeBetween(calendar, start, due);
  return { start, due, workingDays: 'days' in span ? span.days : 0, counted, allowance, pauses: [] };
}

/** What a deadline was planned with. */
export const spanOf = ({ counted, workingDays, allowance, due }: Deadline): Span =>
  counted === 'days' ? { days: workingDays } : counted === 'time' ? { time: allowance } : { due };

const NOTHING_RUNG: ReadonlyMap<string, number> = new Map();

/**
 * When what rings. What would ring before the start is left out; what rang rings again only where that is said.
 * `rung`: when each ring rang last (epoch ms), by its key.
 */
export function timersFor(
  deadline: Deadline,
  { rings }: Pick<DeadlineRule, 'rings'>,
  calendar: WorkingCalendar,
  rung: ReadonlyMap<string, number> = NOTHING_RUNG,
): readonly Timer[] {
  if (isPaused(deadline)) return [];
  return rings.flatMap((each): readonly Timer[] => {
    const { key: ring, at: off, days, again } = each;
    const last = rung.get(ring);
    if (last !== undefined && again === undefined) return [];
    const at = reached(() => {
      // It is due when a day ends: that moment is of the day.
      const first =
        days === undefined ? around(calendar, deadline.due, off) : opensOn(calendar, deadline.due - 1, days);
      if (again === undefined) return first > deadline.start || !ringsBefore(each) ? first : null;
      const from = Math.max(last ?? 0, first > deadline.start ? 0 : deadline.start);
      return from < first ? first : addWorkingTime(calendar, from, again);
    });
    return at === null ? [] : [{ ring, at }];
  });
}

/** The moment so much working time (ms) before (negative) or after another; the other itself for none. */
const around = (calendar: WorkingCalendar, moment: number, off: number): number =>
  off === 0 ? moment : off < 0 ? subtractWorkingTime(calendar, moment, -off) : addWorkingTime(calendar, moment, off);

export const isPaused = (deadline: Deadline): boolean => deadline.pauses.at(-1)?.to === null;

/** The clock stops at `at`. A deadline that is paused already stays as it is, and a date does not move. */
export function pauseDeadline(deadline: Deadline, at: number): Deadline {
  return isPaused(deadline) || deadline.counted === 'date'
    ? deadline
    : { ...deadline, pauses: [...deadline.pauses, { from: at, to: null }] };
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
 * A deadline as another calendar or another length has it: counted from its start, with all its pauses. By the calendar
 * and as long as it was, it is the same.
 */
export function replanDeadline(deadline: Deadline, calendar: WorkingCalendar, span: Span = spanOf(deadline)): Deadline {
  let again = planDeadline(calendar, deadline.start, span);
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

/** Draws the fuse at a moment; for one that has ended, at the moment it did. */
export function fuseAt(
  deadline: Deadline,
  rule: Pick<DeadlineRule, 'rings'>,
  calendar: WorkingCalendar,
  now: number,
  finished: number | null,
): Fuse {
  const at = finished ?? now;
  const paused = isPaused(deadline) && finished === null;
  const stop = paused ? (deadline.pauses.at(-1)?.from ?? at) : at;
  const left = workingTimeBetween(calendar, stop, deadline.due);
  // Of what rings again, the first time.
  const before = rule.rings.flatMap(({ again: _, ...ring }) => (ringsBefore(ring) ? [ring] : []));
  const ticks = timersFor(deadline, { rings: before }, calendar).map((timer) => timer.at);
  /** From the last that rings before it is due. */
  const soon = ticks.length === 0 ? null : Math.max(...ticks);
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
          : soon !== null && now >= soon
            ? 'soon'
            : 'calm';
  return { state, burned, ticks: ticks.map(share), words: fuseWords(state, left, calendar), left };
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
