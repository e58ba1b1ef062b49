/**
 * Days, clock times and moments as expressions see them: wall-clock values of the desk, without a
 * zone.
 */

const DAY_SECONDS = 86_400;
const DAY_MS = 86_400_000;
export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;
export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;

const two = (n: number): string => String(n).padStart(2, '0');

/** A calendar date without zone, ordered by its day number (days since 1970-01-01). */
export class CalendarDate {
  constructor(readonly day: number) {}

  /** Reads `YYYY-MM-DD`; null when it is not a date that exists (2026-02-30). */
  static read(iso: string): CalendarDate | null {
    const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
    return match ? CalendarDate.of(Number(match[1]), Number(match[2]), Number(match[3])) : null;
  }

  /** A date from its parts (month and day from 1); null when there is no such date. */
  static of(year: number, month: number, day: number): CalendarDate | null {
    if (![year, month, day].every(Number.isInteger) || year < 0 || year > 9999) return null;
    const ms = new Date(0).setUTCFullYear(year, month - 1, day);
    const back = new Date(ms);
    if (back.getUTCMonth() !== month - 1 || back.getUTCDate() !== day) return null;
    return new CalendarDate(ms / DAY_MS);
  }

  private get utc(): Date {
    return new Date(this.day * DAY_MS);
  }

  get year(): number {
    return this.utc.getUTCFullYear();
  }

  /** 1 to 12. */
  get month(): number {
    return this.utc.getUTCMonth() + 1;
  }

  get dayOfMonth(): number {
    return this.utc.getUTCDate();
  }

  /** 1 for Monday to 7 for Sunday (ISO 8601). */
  get weekday(): number {
    return this.utc.getUTCDay() || 7;
  }

  /**
   * The date a number of months later; a day the month has not becomes its last (31 January + 1
   * month: 28 February).
   */
  plusMonths(months: number): CalendarDate | null {
    const index = this.year * 12 + this.month - 1 + months;
    const [year, month] = [Math.floor(index / 12), (((index % 12) + 12) % 12) + 1];
    const last = new Date(Date.UTC(year, month, 0)).getUTCDate();
    return CalendarDate.of(year, month, Math.min(this.dayOfMonth, last));
  }

  plusDays(days: number): CalendarDate | null {
    const date = new CalendarDate(this.day + days);
    return Number.isFinite(date.day) && date.year >= 0 && date.year <= 9999 ? date : null;
  }

  /** As people read it: `Mon 23 November 2026`. */
  get words(): string {
    return `${WEEKDAYS[this.weekday - 1]?.slice(0, 3)} ${this.dayOfMonth} ${MONTHS[this.month - 1]} ${this.year}`;
  }

  toString(): string {
    return `${String(this.year).padStart(4, '0')}-${two(this.month)}-${two(this.dayOfMonth)}`;
  }
}

/** A clock time, in whole seconds since midnight. */
export class ClockTime {
  constructor(readonly seconds: number) {}

  /** Reads `10:42` or `10:42:30`. */
  static read(iso: string): ClockTime | null {
    const match = /^(\d{2}):(\d{2})(?::(\d{2}))?$/.exec(iso);
    return match ? ClockTime.of(Number(match[1]), Number(match[2]), Number(match[3] ?? 0)) : null;
  }

  static of(hour: number, minute: number, second: number): ClockTime | null {
    const fits =
      [hour, minute, second].every((part) => Number.isInteger(part) && part >= 0) &&
      hour < 24 &&
      minute < 60 &&
      second < 60;
    return fits ? new ClockTime(hour * 3600 + minute * 60 + second) : null;
  }

  get hour(): number {
    return Math.floor(this.seconds / 3600);
  }

  get minute(): number {
    return Math.floor(this.seconds / 60) % 60;
  }

  get second(): number {
    return this.seconds % 60;
  }

  toString(): string {
    return `${two(this.hour)}:${two(this.minute)}:${two(this.second)}`;
  }
}

/** A date and a clock time together, in seconds since 1970-01-01 on the desk's wall clock. */
export class DateTime {
  constructor(readonly seconds: number) {}

  /** Reads `2026-11-23T10:42` with or without seconds. */
  static read(iso: string): DateTime | null {
    const [day = '', clock = '', more] = iso.split('T');
    const [date, time] = [CalendarDate.read(day), ClockTime.read(clock)];
    return date && time && more === undefined ? DateTime.of(date, time) : null;
  }

  static of(date: CalendarDate, time: ClockTime): DateTime {
    return new DateTime(date.day * DAY_SECONDS + time.seconds);
  }

  get date(): CalendarDate {
    return new CalendarDate(Math.floor(this.seconds / DAY_SECONDS));
  }

  get time(): ClockTime {
    return new ClockTime(this.seconds - this.date.day * DAY_SECONDS);
  }

  plus(seconds: number): DateTime | null {
    const moment = new DateTime(this.seconds + seconds);
    return moment.date.plusDays(0) ? moment : null;
  }

  plusMonths(months: number): DateTime | null {
    const date = this.date.plusMonths(months);
    return date && DateTime.of(date, this.time);
  }

  toString(): string {
    return `${this.date}T${this.time}`;
  }
}

/** An exact length of time in seconds: FEEL's days-and-time duration. */
export class Duration {
  constructor(readonly seconds: number) {}

  /**
   * Reads `P1DT2H30M10S` (days and smaller; a month has no fixed length and is read by `Months`).
   */
  static read(iso: string): Duration | null {
    const match = /^(-)?P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/.exec(iso);
    if (!match || iso.endsWith('P') || iso.endsWith('T')) return null;
    const [, sign, d = '0', h = '0', m = '0', s = '0'] = match;
    const seconds = Number(d) * DAY_SECONDS + Number(h) * 3600 + Number(m) * 60 + Number(s);
    return Number.isSafeInteger(seconds) ? new Duration(sign ? 0 - seconds : seconds) : null;
  }

  /** Days, hours, minutes and seconds, all with the sign of the whole. */
  get parts(): { readonly days: number; readonly hours: number; readonly minutes: number; readonly seconds: number } {
    const [whole, sign] = [Math.abs(this.seconds), this.seconds < 0 ? -1 : 1];
    const signed = (n: number): number => (n === 0 ? 0 : n * sign);
    return {
      days: signed(Math.floor(whole / DAY_SECONDS)),
      hours: signed(Math.floor(whole / 3600) % 24),
      minutes: signed(Math.floor(whole / 60) % 60),
      seconds: signed(whole % 60),
    };
  }

  toString(): string {
    const { days, hours, minutes, seconds } = new Duration(Math.abs(this.seconds)).parts;
    const time = `${hours ? `${hours}H` : ''}${minutes ? `${minutes}M` : ''}${seconds || (!days && !hours && !minutes) ? `${seconds}S` : ''}`;
    return `${this.seconds < 0 ? '-' : ''}P${days ? `${days}D` : ''}${time ? `T${time}` : ''}`;
  }
}

/**
 * A length of time in whole months: FEEL's years-and-months duration. It can't be compared with one
 * in seconds.
 */
export class Months {
  constructor(readonly months: number) {}

  /** Reads `P1Y2M`, `P3M` or `P2Y`. */
  static read(iso: string): Months | null {
    const match = /^(-)?P(?:(\d+)Y)?(?:(\d+)M)?$/.exec(iso);
    if (!match || iso.endsWith('P')) return null;
    const months = Number(match[2] ?? 0) * 12 + Number(match[3] ?? 0);
    return Number.isSafeInteger(months) ? new Months(match[1] ? 0 - months : months) : null;
  }

  toString(): string {
    const whole = Math.abs(this.months);
    const [years, months] = [Math.floor(whole / 12), whole % 12];
    return `${this.months < 0 ? '-' : ''}P${years ? `${years}Y` : ''}${months || !years ? `${months}M` : ''}`;
  }
}

/**
 * The function that makes a value of its kind from a text: `date`, `time`, `date and time` or
 * `duration`.
 */
export function makerOf(
  value: CalendarDate | ClockTime | DateTime | Duration | Months,
): 'date' | 'time' | 'date and time' | 'duration' {
  if (value instanceof CalendarDate) return 'date';
  if (value instanceof ClockTime) return 'time';
  return value instanceof DateTime ? 'date and time' : 'duration';
}
