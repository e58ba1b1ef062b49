import type { WorkingCalendar } from './calendar.ts';
import { addWorkingTime, endOfDay, reached, workingTimeBetween } from './workingTime.ts';

/** A day on a scale: where its working time begins. */
export interface DayMark {
  /** Epoch ms. */
  readonly at: number;
  readonly place: number;
}

/** A stretch of time as people draw it who count working time: closed hours take no room. */
export interface Scale {
  readonly from: number;
  readonly to: number;
  /** From 0 at its beginning to 1 at its end; what lies outside is at an end. */
  readonly place: (at: number) => number;
  /** The days on which something is open, in order; not more than so many as can be read. */
  readonly days: readonly DayMark[];
}

/** So many days are marked at most; of more, every second, third and so on. */
const MOST_MARKS = 9;
/** So many days are looked at for marks. */
const MOST_DAYS = 800;

/**
 * A scale of working time between two moments (epoch ms). Where nothing is open between them, time itself is drawn.
 */
export function scaleOf(calendar: WorkingCalendar, from: number, to: number): Scale {
  const end = Math.max(to, from + 1);
  const whole = workingTimeBetween(calendar, from, end);
  const clamped = (part: number): number => Math.min(1, Math.max(0, part));
  const place = (at: number): number => {
    if (at <= from) return 0;
    return whole > 0
      ? clamped(workingTimeBetween(calendar, from, Math.min(at, end)) / whole)
      : clamped((at - from) / (end - from));
  };
  const starts = daysBetween(calendar, from, end);
  const step = Math.max(1, Math.ceil(starts.length / MOST_MARKS));
  return {
    ...{ from, to: end, place },
    days: starts.filter((_, index) => index % step === 0).map((at) => ({ at, place: place(at) })),
  };
}

/** When working time begins on each day after the one of a moment, up to another. */
function daysBetween(calendar: WorkingCalendar, from: number, to: number): readonly number[] {
  const found: number[] = [];
  for (let at = from; found.length < MOST_DAYS; found.push(at)) {
    const opens = opensFrom(calendar, endOfDay(calendar, at) + 1);
    if (opens === null || opens >= to) break;
    at = opens;
  }
  return found;
}

/** The first open moment from one on; null where none comes. */
const opensFrom = (calendar: WorkingCalendar, at: number): number | null =>
  reached(() => addWorkingTime(calendar, at, 1) - 1);
