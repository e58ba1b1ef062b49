import type { AnswerOf } from '@tolvek/contract';

/** A calendar as it is edited: without its key, which stands in its address. */
export type CalendarDraft = Omit<AnswerOf<'calendar'>['calendar'], 'key'>;
export type Day = CalendarDraft['week'][number];
export type SpecialDay = CalendarDraft['holidays'][number];
export type Week = CalendarDraft['week'];

export const WEEKDAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'] as const;

/** Office hours from Monday to Friday with a gap at noon. */
export const OFFICE_WEEK: Week = (() => {
  const day: Day = [
    ['09:00', '12:30'],
    ['13:30', '17:00'],
  ];
  return [day, day, day, day, day, [], []];
})();

/** A week with one day in the place of another. */
export const withDay = (week: Week, place: number, day: Day): Week =>
  week.map((each, at) => (at === place ? day : each)) as unknown as Week;

/** Special days with some more, by day; what is there already stays. */
export function withDays(days: readonly SpecialDay[], more: readonly SpecialDay[]): readonly SpecialDay[] {
  const known = new Set(days.map(({ date }) => date));
  return [...days, ...more.filter(({ date }) => !known.has(date))].sort((a, b) => (a.date < b.date ? -1 : 1));
}

/** Minutes since midnight of a clock time; NaN while it is none. */
export const minutesOf = (clock: string): number => {
  const found = /^(\d{1,2}):(\d\d)$/.exec(clock);
  return found ? Number(found[1]) * 60 + Number(found[2]) : Number.NaN;
};

/** The next stretch after those of a day: an hour after the last one ends, or the morning of an empty day. */
export function nextStretch(day: Day): readonly [string, string] {
  const last = minutesOf(day.at(-1)?.[1] ?? '');
  if (Number.isNaN(last)) return ['09:00', '17:00'];
  const clock = (minutes: number): string =>
    `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
  const from = Math.min(last + 60, 23 * 60);
  return [clock(from), clock(Math.min(from + 120, 24 * 60))];
}
