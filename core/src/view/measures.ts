import type { ChartStretch, MeasureKind, Total } from './view.ts';

const DAY = 86_400_000;
const at = (day: string): number => Date.parse(`${day}T00:00:00Z`);
const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

/** The first day (ISO 8601) of the stretch that a day is in; weeks begin on Monday (ISO 8601). */
export function beginOf(day: string, stretch: ChartStretch): string {
  switch (stretch) {
    case 'day':
      return day;
    case 'week':
      return dayOf(at(day) - ((new Date(at(day)).getUTCDay() + 6) % 7) * DAY);
    case 'month':
      return `${day.slice(0, 7)}-01`;
    case 'year':
      return `${day.slice(0, 4)}-01-01`;
  }
}

/** The first day of the stretch after one. */
export function nextOf(first: string, stretch: ChartStretch): string {
  switch (stretch) {
    case 'day':
      return dayOf(at(first) + DAY);
    case 'week':
      return dayOf(at(first) + 7 * DAY);
    case 'month':
      return beginOf(dayOf(at(first) + 31 * DAY), 'month');
    case 'year':
      return beginOf(dayOf(at(first) + 366 * DAY), 'year');
  }
}

/** All stretches from that of one day to that of another, by their first days; of more than `most`, the last ones. */
export function stretchesBetween(from: string, to: string, stretch: ChartStretch, most: number): readonly string[] {
  const found: string[] = [];
  for (let first = beginOf(from, stretch); first <= to; first = nextOf(first, stretch)) {
    found.push(first);
    if (found.length > most) found.shift();
  }
  return found;
}

/** What is measured of figures; null where there are none, but for how many and what they add up to. */
export function measured(is: MeasureKind, figures: readonly number[], count: number): number | null {
  if (is === 'count') return count;
  const sum = figures.reduce((all, each) => all + each, 0);
  if (is === 'sum') return sum;
  if (figures.length === 0) return null;
  const sorted = figures.toSorted((a, b) => a - b);
  switch (is) {
    case 'mean':
      return sum / figures.length;
    case 'median': {
      const middle = sorted.length >> 1;
      const upper = sorted[middle] ?? 0;
      return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? 0) + upper) / 2;
    }
    case 'least':
      return sorted[0] ?? null;
    case 'most':
      return sorted.at(-1) ?? null;
  }
}

/**
 * What one row gives to a total: a figure; for a rate, two; for a share, whether it meets the condition. Null where it holds
 * nothing of it, or that can’t be said.
 */
export type Given = number | boolean | readonly [of: number, per: number] | null;

/**
 * A total of the rows that stand together, by what each of them gives. A rate is the sum of what is measured by the sum of
 * what it is measured for, over rows that hold both; a share is a part of one. Null where nothing gives anything.
 */
export function totalled(total: Total, given: readonly Given[]): number | null {
  switch (total.is) {
    case 'rate': {
      const pairs = given.filter((each) => each !== null && typeof each === 'object');
      const per = pairs.reduce((all, [, each]) => all + each, 0);
      return per === 0 ? null : pairs.reduce((all, [each]) => all + each, 0) / per;
    }
    case 'share': {
      const said = given.filter((each) => typeof each === 'boolean');
      return said.length === 0 ? null : said.filter(Boolean).length / said.length;
    }
    default:
      return measured(
        total.is,
        given.filter((each) => typeof each === 'number'),
        given.length,
      );
  }
}

/** How many cells have a figure that is so high: in a column of a matrix, say, who can do something well enough. */
export const enoughIn = (figures: readonly (number | null)[], figure: number): number =>
  figures.filter((each) => each !== null && each >= figure).length;

/** A row as it stands in a chart: the places of its step and its part, and what it holds of what is measured. */
export interface MeasuredAt {
  readonly step: number;
  readonly part: number;
  readonly figure: number | null;
}

/** What is measured of the rows that stand together, each place of a step and a part once, in the order of their first rows. `times`: how many rows are such a one. */
export function measuredTogether(
  is: MeasureKind,
  rows: readonly (MeasuredAt & { readonly times?: number })[],
): readonly (MeasuredAt & { readonly count: number })[] {
  const together = new Map<string, { readonly at: MeasuredAt; count: number; readonly figures: number[] }>();
  for (const row of rows) {
    const key = `${row.step} ${row.part}`;
    const found = together.get(key) ?? { at: row, count: 0, figures: [] };
    const times = row.times ?? 1;
    found.count += times;
    if (row.figure !== null) for (let time = 0; time < times; time += 1) found.figures.push(row.figure);
    together.set(key, found);
  }
  return [...together.values()].map(({ at: { step, part }, count, figures }) => ({
    ...{ step, part, count, figure: measured(is, figures, count) },
  }));
}
