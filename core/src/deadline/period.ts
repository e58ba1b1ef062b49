import { Temporal } from 'temporal-polyfill';

/** A stretch of the calendar of which each begins anew; weeks begin on Monday (ISO 8601). */
export type Period = 'week' | 'month' | 'year';

/** The days (ISO 8601) on which the period of a moment (epoch ms) begins, and the one after it, in a zone (IANA name). */
export function periodAt(period: Period, now: number, zone: string): { readonly from: string; readonly next: string } {
  const today = Temporal.Instant.fromEpochMilliseconds(now).toZonedDateTimeISO(zone).toPlainDate();
  const from =
    period === 'week'
      ? today.subtract({ days: today.dayOfWeek - 1 })
      : today.with(period === 'month' ? { day: 1 } : { day: 1, month: 1 });
  return { from: from.toString(), next: from.add({ [`${period}s`]: 1 }).toString() };
}

/** The moment (epoch ms) at which a day (ISO 8601) begins in a zone (IANA name), some days later. */
export const dayBegins = (day: string, zone: string, later = 0): number =>
  Temporal.PlainDate.from(day).add({ days: later }).toZonedDateTime(zone).epochMilliseconds;
