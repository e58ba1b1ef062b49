import { Temporal } from 'temporal-polyfill';

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
  /** Closed days, `YYYY-MM-DD`. */
  readonly holidays: readonly { readonly date: string; readonly name: string }[];
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

class ReadyCalendar {
  private readonly holidays: ReadonlySet<string>;
  private readonly days = new Map<string, readonly OpenStretch[]>();

  constructor(private readonly calendar: WorkingCalendar) {
    this.holidays = new Set(calendar.holidays.map((holiday) => holiday.date));
  }

  dateAt(ms: number): Temporal.PlainDate {
    return Temporal.Instant.fromEpochMilliseconds(ms).toZonedDateTimeISO(this.calendar.zone).toPlainDate();
  }

  isWorkingDay(date: Temporal.PlainDate): boolean {
    return this.openOn(date).length > 0;
  }

  /**
   * The open stretches of a date as instants. Clock times that a spring change skips move forward with the clock, those
   * an autumn change repeats are taken the first time (Temporal's “compatible”), so a day may count an hour more or less.
   */
  openOn(date: Temporal.PlainDate): readonly OpenStretch[] {
    const key = date.toString();
    let stretches = this.days.get(key);
    if (!stretches) {
      const hours = this.holidays.has(key) ? [] : (this.calendar.week[date.dayOfWeek - 1] ?? []);
      stretches = hours.map(([from, to]) => ({ from: this.instant(date, from), to: this.instant(date, to) })).filter((stretch) => stretch.to > stretch.from);
      this.days.set(key, stretches);
    }
    return stretches;
  }

  private instant(date: Temporal.PlainDate, clock: string): number {
    const day = clock === '24:00' ? date.add({ days: 1 }) : date;
    const time = Temporal.PlainTime.from(clock === '24:00' ? '00:00' : clock);
    return day.toZonedDateTime({ timeZone: this.calendar.zone, plainTime: time }).epochMilliseconds;
  }
}
