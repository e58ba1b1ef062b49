import { Temporal } from 'temporal-polyfill';

/**
 * How a moment reads on the wall clock of a zone. Formatters are costly to make, so each zone's are
 * made once.
 */
class WallClock {
  readonly moment: Intl.DateTimeFormat;
  /** What was read of minutes lately: due moments are few, and shown again and again. */
  readonly minutes = new Map<number, Record<Part, string>>();
  readonly day: Intl.DateTimeFormat;

  constructor(zone: string) {
    const date = { timeZone: zone, weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' } as const;
    this.moment = new Intl.DateTimeFormat('en-GB', { ...date, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
    this.day = new Intl.DateTimeFormat('en-CA', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' });
  }
}

const clocks = new Map<string, WallClock>();

function clockOf(zone: string): WallClock {
  let found = clocks.get(zone);
  if (!found) clocks.set(zone, (found = new WallClock(zone)));
  return found;
}

type Part = 'weekday' | 'day' | 'month' | 'year' | 'hour' | 'minute';

const MINUTES_KEPT = 2_000;
/** Since 1973 every zone is whole minutes from UTC, so that a minute here is one there. */
const WHOLE_MINUTES = Date.UTC(1973, 0);

function partsAt(ms: number, zone: string): Readonly<Record<Part, string>> {
  const { moment, minutes } = clockOf(zone);
  const minute = Math.floor(ms / 60_000);
  const known = minutes.get(minute);
  if (known && ms >= WHOLE_MINUTES) return known;
  const parts: Record<Part, string> = { weekday: '', day: '', month: '', year: '', hour: '', minute: '' };
  for (const { type, value } of moment.formatToParts(ms)) if (type in parts) parts[type as Part] = value;
  if (minutes.size >= MINUTES_KEPT) minutes.clear();
  minutes.set(minute, parts);
  return parts;
}

/** A moment (epoch ms) as people at the desk read it: `Mon 23 Nov, 10:42`. */
export function momentInWords(ms: number, zone: string): string {
  const at = partsAt(ms, zone);
  return `${at.weekday} ${at.day} ${at.month}, ${at.hour}:${at.minute}`;
}

/** The day of a moment (epoch ms) as people read it: `23 Nov 2026`. */
export function dateInWords(ms: number, zone: string): string {
  const at = partsAt(ms, zone);
  return `${at.day} ${at.month} ${at.year}`;
}

/** The weekday and day of the month at a moment (epoch ms): `Mon 23`. */
export function dayInWords(ms: number, zone: string): string {
  const at = partsAt(ms, zone);
  return `${at.weekday} ${at.day}`;
}

/** The date at a moment (epoch ms) in a zone, `YYYY-MM-DD`. */
export const dateAt = (ms: number, zone: string): string => clockOf(zone).day.format(ms);

/** What a wall clock in a zone shows at a moment (epoch ms), to the minute: `2026-11-23T10:42`. */
export function wallClockAt(ms: number, zone: string): string {
  const at = partsAt(ms, zone);
  return `${dateAt(ms, zone)}T${at.hour}:${at.minute}`;
}

/**
 * The moments (epoch ms) at which a clock of a zone shows `YYYY-MM-DDTHH:MM`: one, two where it is put
 * back over it, none where it is put forward past it.
 */
export function instantsOf(wallClock: string, zone: string): readonly number[] {
  const read = Temporal.PlainDateTime.from(wallClock);
  const both = (['earlier', 'later'] as const).map(
    (disambiguation) => read.toZonedDateTime(zone, { disambiguation }).epochMilliseconds,
  );
  return [...new Set(both)].filter((ms) => wallClockAt(ms, zone) === wallClock);
}

/**
 * The moment (epoch ms) at which a clock of a zone shows `HH:MM` on a day, `24:00` the beginning of the next: one that a spring
 * change skips comes as much later, of those that an autumn change repeats the first (Temporal’s “compatible”).
 */
export function instantAt(day: Temporal.PlainDate, clock: string, zone: string): number {
  const isEnd = clock === '24:00';
  const time = Temporal.PlainTime.from(isEnd ? '00:00' : clock);
  return (isEnd ? day.add({ days: 1 }) : day).toZonedDateTime({ timeZone: zone, plainTime: time }).epochMilliseconds;
}

/** Whether a text names a zone of the IANA database. */
export const isZone = (zone: string): boolean => {
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(zone);
    return true;
  } catch {
    return false;
  }
};

/** Whether a text is a day of the calendar, as ISO 8601 writes it: `2026-11-27`. */
export const isDate = (text: string): boolean => {
  try {
    return Temporal.PlainDate.from(text, { overflow: 'reject' }).toString() === text;
  } catch {
    return false;
  }
};
