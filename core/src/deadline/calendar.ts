import { Temporal } from 'temporal-polyfill';
import { instantAt } from './wallClock.ts';

/** From–to in local time, `HH:MM`, the end not included; within a day and in order. */
export type OpenHours = readonly [from: string, to: string];

/** The hours and days that count. `week` starts on Monday. */
export interface WorkingCalendar {
  readonly key: string;
  readonly name: string;
  /** IANA zone, such as `Europe/Dublin`. */
  readonly zone: string;
  readonly week: readonly [
    readonly OpenHours[],
    readonly OpenHours[],
    readonly OpenHours[],
    readonly OpenHours[],
    readonly OpenHours[],
    readonly OpenHours[],
    readonly OpenHours[],
  ];
  /** Days unlike others, `YYYY-MM-DD`: closed, or open for hours of their own. */
  readonly holidays: readonly SpecialDay[];
  /** Offered nowhere any more; what counts by it goes on. */
  readonly retired?: boolean | undefined;
}

/** A day unlike others: closed, or open for hours of its own. */
export interface SpecialDay {
  readonly date: string;
  readonly name: string;
  readonly hours?: readonly OpenHours[] | undefined;
}

/** Whether a day unlike others is closed. */
export const isClosedDay = ({ hours }: SpecialDay): boolean => (hours ?? []).length === 0;

/**
 * The days of a calendar that count, for reckoning in working days: open weekdays, Monday first,
 * closed dates, and dates that are open whatever their weekday.
 */
export function workingWeek(calendar: WorkingCalendar): {
  readonly open: boolean[];
  readonly closed: string[];
  readonly opened?: string[];
} {
  const days = (isClosed: boolean): string[] =>
    calendar.holidays.filter((day) => isClosedDay(day) === isClosed).map(({ date }) => date);
  const opened = days(false);
  return {
    open: calendar.week.map((hours) => hours.length > 0),
    closed: days(true),
    ...(opened.length > 0 ? { opened } : {}),
  };
}

/** An open stretch as epoch milliseconds, the end not included. */
export interface OpenStretch {
  readonly from: number;
  readonly to: number;
}

/** How many days ahead or back a calendar is searched before it counts as never open. */
export const SEARCH_DAYS = 3_700;

const ready = new WeakMap<WorkingCalendar, ReadyCalendar>();

/** The calendar made ready for computing; kept for as long as the calendar itself. */
export function readyCalendar(calendar: WorkingCalendar): ReadyCalendar {
  let found = ready.get(calendar);
  if (!found) ready.set(calendar, (found = new ReadyCalendar(calendar)));
  return found;
}

const DAY = 86_400_000;

/**
 * Days are counted from 1970-01-01. What Temporal says of a day is kept, so that reckoning over
 * many days only adds numbers.
 */
class ReadyCalendar {
  private readonly special: ReadonlyMap<string, readonly OpenHours[]>;
  private readonly days = new Map<number, readonly OpenStretch[]>();
  private readonly midnights = new Map<number, number>();

  constructor(private readonly calendar: WorkingCalendar) {
    this.special = new Map(calendar.holidays.map(({ date, hours = [] }) => [date, hours]));
  }

  /** The calendar's day at a moment. */
  dayAt(ms: number): number {
    let day = Math.floor(ms / DAY);
    while (ms < this.midnight(day)) day -= 1;
    while (ms >= this.midnight(day + 1)) day += 1;
    return day;
  }

  /** The last ms of a day in the calendar's zone. */
  endOf(day: number): number {
    return this.midnight(day + 1) - 1;
  }

  isWorkingDay(day: number): boolean {
    return this.openOn(day).length > 0;
  }

  /**
   * The open stretches of a day as instants. Clock times that a spring change skips move forward
   * with the clock, those an autumn change repeats are taken the first time (Temporal's
   * “compatible”), so a day may count an hour more or less.
   */
  openOn(day: number): readonly OpenStretch[] {
    let stretches = this.days.get(day);
    if (!stretches) {
      const date = dateOf(day);
      const { zone } = this.calendar;
      const hours = this.special.get(date.toString()) ?? this.calendar.week[date.dayOfWeek - 1] ?? [];
      stretches = hours
        .map(([from, to]) => ({ from: instantAt(date, from, zone), to: instantAt(date, to, zone) }))
        .filter((stretch) => stretch.to > stretch.from);
      this.days.set(day, stretches);
    }
    return stretches;
  }

  /** The first moment of a day in the calendar's zone. */
  private midnight(day: number): number {
    let at = this.midnights.get(day);
    if (at === undefined) {
      at = dateOf(day).toZonedDateTime({ timeZone: this.calendar.zone }).epochMilliseconds;
      this.midnights.set(day, at);
    }
    return at;
  }
}

const EPOCH = Temporal.PlainDate.from('1970-01-01');
const dateOf = (day: number): Temporal.PlainDate => EPOCH.add({ days: day });
