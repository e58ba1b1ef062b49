/** So many days are looked at together. */
export const SPANS = ['week', 'month'] as const;
export type Span = (typeof SPANS)[number];

const DAY = 86_400_000;
const at = (day: string): number => Date.parse(`${day}T00:00:00Z`);
const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

/** A day (ISO 8601) so many days later. */
export const daysLater = (day: string, days: number): string => dayOf(at(day) + days * DAY);

/** How many days there are from one to the other. */
export const daysBetween = (from: string, to: string): number => Math.round((at(to) - at(from)) / DAY);

/** The days of the week that a day is in, from Monday on (ISO 8601); or of its month, with the weeks that reach into it whole. */
export function daysOf(span: Span, day: string): readonly string[] {
  const monday = (of: string): string => daysLater(of, -((new Date(at(of)).getUTCDay() + 6) % 7));
  if (span === 'week') return Array.from({ length: 7 }, (_, place) => daysLater(monday(day), place));
  const first = `${day.slice(0, 7)}-01`;
  const last = daysLater(monthLater(first, 1), -1);
  const from = monday(first);
  return Array.from({ length: daysBetween(from, daysLater(monday(last), 7)) }, (_, place) => daysLater(from, place));
}

/** The first day of the month so many months later. */
export function monthLater(day: string, months: number): string {
  const [year = 0, month = 1] = day.split('-').map(Number);
  return dayOf(Date.UTC(year, month - 1 + months, 1));
}

/** What lasts from one day to another, or for one. */
export interface Lasting {
  readonly begins: string;
  readonly ends: string | null;
}

/** Where something stands among days: the place of its first and last day in view, and the row where nothing else is meanwhile. */
export interface Placed<T> {
  readonly item: T;
  readonly from: number;
  readonly to: number;
  readonly row: number;
  /** Whether it begins before, or goes on after, what is in view. */
  readonly isBefore: boolean;
  readonly isAfter: boolean;
}

/** Puts what lasts in rows, so that no two of a row share a day; in the order in which they begin. What is on none of the days is left out. */
export function placed<T extends Lasting>(items: readonly T[], days: readonly string[]): readonly Placed<T>[] {
  const [first = ''] = days;
  const last = days.at(-1) ?? '';
  const taken: number[] = [];
  return items
    .map((item) => {
      const begins = item.begins.slice(0, 10);
      const ends = (item.ends ?? '').slice(0, 10);
      return { item, begins, ends: ends > begins ? ends : begins };
    })
    .filter(({ begins, ends }) => begins <= last && ends >= first)
    .sort((a, b) => (a.item.begins < b.item.begins ? -1 : a.item.begins > b.item.begins ? 1 : 0))
    .map(({ item, begins, ends }) => {
      const from = Math.max(0, daysBetween(first, begins));
      const to = Math.min(days.length - 1, daysBetween(first, ends));
      const free = taken.findIndex((until) => until < from);
      const row = free === -1 ? taken.length : free;
      taken[row] = to;
      return { item, from, to, row, isBefore: begins < first, isAfter: ends > last };
    });
}

/** A day, or a moment on the clock of the desk, so many days later. */
export const movedBy = (moment: string, days: number): string =>
  daysLater(moment.slice(0, 10), days) + moment.slice(10);
