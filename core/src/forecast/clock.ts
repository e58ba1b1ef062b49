import { type OpenStretch, openBetween, type WorkingCalendar, within, withoutAll } from '../deadline/index.ts';
import type { DeskPast } from './life.ts';

interface Part {
  readonly from: number;
  readonly to: number;
  /** How much of a person's time passes in it: 1 while all are there. */
  readonly share: number;
}

/** Adds up working time between any two moments of a range at once: it is reckoned when it is made. */
export class WorkClock {
  private readonly starts: Float64Array;
  private readonly ends: Float64Array;
  private readonly shares: Float64Array;
  /** Working time before each part, ms. */
  private readonly before: Float64Array;

  constructor(parts: readonly Part[]) {
    const size = parts.length;
    this.starts = new Float64Array(size);
    this.ends = new Float64Array(size);
    this.shares = new Float64Array(size);
    this.before = new Float64Array(size);
    let sum = 0;
    for (const [place, { from, to, share }] of parts.entries()) {
      this.starts[place] = from;
      this.ends[place] = to;
      this.shares[place] = share;
      this.before[place] = sum;
      sum += (to - from) * share;
    }
  }

  /** Working time from the beginning of the range until a moment, ms. */
  until(at: number): number {
    let low = 0;
    let high = this.starts.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.starts[middle] as number) < at) low = middle + 1;
      else high = middle;
    }
    if (low === 0) return 0;
    const part = low - 1;
    const to = Math.min(at, this.ends[part] as number);
    return (this.before[part] as number) + (to - (this.starts[part] as number)) * (this.shares[part] as number);
  }

  between(from: number, to: number): number {
    return this.until(to) - this.until(from);
  }
}

/** The working time of a calendar between two moments. */
export const clockOf = (calendar: WorkingCalendar, from: number, to: number): WorkClock =>
  new WorkClock(openBetween(calendar, from, to).map((open) => ({ ...open, share: 1 })));

/** When somebody works between two moments: on duty where they are rostered, else while a calendar is open; never while away. */
function workedBy(
  person: string,
  calendar: WorkingCalendar,
  { away, rostered = [] }: Staff,
  [from, to]: readonly [number, number],
): readonly OpenStretch[] {
  const duties = rostered.find((each) => each.person === person)?.duties;
  const there = duties?.flatMap((duty) => within(duty, { from, to })) ?? openBetween(calendar, from, to);
  const gone = away.filter((each) => each.person === person);
  return withoutAll(
    there,
    gone.map(({ from: since, to: until }) => ({ from: since, to: until ?? Number.POSITIVE_INFINITY })),
  );
}

/** Who is not there when, and who works by a roster. */
export type Staff = Pick<DeskPast, 'away' | 'rostered'>;

/**
 * The working time of some people: while some of them are away, or not on duty where they work by a roster, so much less of
 * it passes.
 */
export function clockOfPeople(
  calendar: WorkingCalendar,
  people: readonly string[],
  staff: Staff,
  range: readonly [number, number],
): WorkClock {
  const among = new Set(people);
  const turns = [...among]
    .flatMap((person) => workedBy(person, calendar, staff, range))
    .flatMap(({ from, to }) => [
      { at: from, by: 1 },
      { at: to, by: -1 },
    ])
    .sort((a, b) => a.at - b.at);
  const parts: Part[] = [];
  let there = 0;
  for (const [place, { at, by }] of turns.entries()) {
    there += by;
    const to = turns[place + 1]?.at ?? at;
    if (there > 0 && to > at) parts.push({ from: at, to, share: there / among.size });
  }
  return new WorkClock(parts);
}
