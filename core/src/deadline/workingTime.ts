import { type OpenStretch, readyCalendar, SEARCH_DAYS, type WorkingCalendar } from './calendar.ts';

/** Thrown when a calendar has no open hours within ten years, so that no moment can be computed. */
export class NeverOpen extends Error {
  readonly calendar: string;
  constructor({ name }: WorkingCalendar) {
    super(name);
    this.calendar = name;
  }
}

/**
 * The moment (epoch ms) at which `amount` ms of working time have passed since `start`. `amount` is
 * not negative.
 */
export function addWorkingTime(calendar: WorkingCalendar, start: number, amount: number): number {
  const days = readyCalendar(calendar);
  let day = days.dayAt(start);
  let left = amount;
  for (let searched = 0; searched <= SEARCH_DAYS; searched += 1) {
    for (const stretch of days.openOn(day)) {
      const from = Math.max(stretch.from, start);
      const room = stretch.to - from;
      if (room <= 0) continue;
      if (left <= room) return from + left;
      left -= room;
    }
    day += 1;
  }
  throw new NeverOpen(calendar);
}

/**
 * The moment (epoch ms) `amount` ms of working time before `end`; `end` itself moves back to open
 * hours first.
 */
export function subtractWorkingTime(calendar: WorkingCalendar, end: number, amount: number): number {
  const days = readyCalendar(calendar);
  let day = days.dayAt(end);
  let left = amount;
  for (let searched = 0; searched <= SEARCH_DAYS; searched += 1) {
    for (const stretch of [...days.openOn(day)].reverse()) {
      const to = Math.min(stretch.to, end);
      const room = to - stretch.from;
      if (room <= 0) continue;
      if (left <= room) return to - left;
      left -= room;
    }
    day -= 1;
  }
  throw new NeverOpen(calendar);
}

/** Working time between two moments in ms; negative when `to` is before `from`. */
export function workingTimeBetween(calendar: WorkingCalendar, from: number, to: number): number {
  if (to < from) return 0 - workingTimeBetween(calendar, to, from);
  const days = readyCalendar(calendar);
  const last = days.dayAt(to);
  let total = 0;
  for (let day = days.dayAt(from); day <= last; day += 1) {
    for (const stretch of days.openOn(day))
      total += Math.max(0, Math.min(stretch.to, to) - Math.max(stretch.from, from));
  }
  return total;
}

/**
 * The end of the nth working day after the one a request counts as arriving on. A request that
 * comes in after closing, or on a closed day, counts as arriving on the next working day. With 0
 * days it is due at the end of that first day.
 */
export function endOfWorkingDay(calendar: WorkingCalendar, start: number, workingDays: number): number {
  const days = readyCalendar(calendar);
  const arrival = addWorkingTime(calendar, start, 0);
  let day = days.dayAt(arrival);
  let left = workingDays;
  for (let searched = 0; searched <= SEARCH_DAYS; searched += 1) {
    if (left === 0) {
      const end = days.openOn(day).at(-1)?.to;
      if (end !== undefined) return end;
    }
    day += 1;
    if (days.isWorkingDay(day)) left -= 1;
  }
  throw new NeverOpen(calendar);
}

/**
 * When the calendar opens on the working day so many after that of a moment (epoch ms), negative: before it; 0: on that day, or
 * on the one before it where it is closed.
 *
 * @throws NeverOpen where the calendar does not reach as far.
 */
export function opensOn(calendar: WorkingCalendar, moment: number, workingDays: number): number {
  const days = readyCalendar(calendar);
  const step = workingDays > 0 ? 1 : -1;
  let day = days.dayAt(moment);
  let left = Math.abs(workingDays);
  for (let searched = 0; searched <= SEARCH_DAYS; searched += 1) {
    const opens = days.openOn(day)[0]?.from;
    if (left === 0 && opens !== undefined) return opens;
    day += step;
    if (days.isWorkingDay(day) && left > 0) left -= 1;
  }
  throw new NeverOpen(calendar);
}

/** What is reckoned by a calendar; null where that does not reach so far. */
export function reached<T>(reckoned: () => T): T | null {
  try {
    return reckoned();
  } catch (error) {
    if (error instanceof NeverOpen) return null;
    throw error;
  }
}

/**
 * The last ms (epoch) of the day that a moment falls on, by the wall clock of the calendar's zone.
 */
export function endOfDay(calendar: WorkingCalendar, at: number): number {
  const days = readyCalendar(calendar);
  return days.endOf(days.dayAt(at));
}

/** When the calendar is open between two moments (epoch ms), in their order. */
export function openBetween(calendar: WorkingCalendar, from: number, to: number): readonly OpenStretch[] {
  const days = readyCalendar(calendar);
  const open: OpenStretch[] = [];
  for (let day = days.dayAt(from), last = days.dayAt(to); day <= last; day += 1)
    for (const stretch of days.openOn(day)) {
      const part = { from: Math.max(stretch.from, from), to: Math.min(stretch.to, to) };
      if (part.to > part.from) open.push(part);
    }
  return open;
}

/** Whether the calendar is open at a moment. */
export function isOpen(calendar: WorkingCalendar, at: number): boolean {
  const days = readyCalendar(calendar);
  return days.openOn(days.dayAt(at)).some((stretch) => at >= stretch.from && at < stretch.to);
}

/** When the calendar closes for the day it is open in now, or opens next; null when never. */
export function nextChange(
  calendar: WorkingCalendar,
  at: number,
): { readonly open: boolean; readonly at: number } | null {
  const days = readyCalendar(calendar);
  const today = days.openOn(days.dayAt(at));
  if (today.some((stretch) => at >= stretch.from && at < stretch.to)) return { open: true, at: today.at(-1)?.to ?? at };
  return reached(() => ({ open: false, at: addWorkingTime(calendar, at, 1) - 1 }));
}
