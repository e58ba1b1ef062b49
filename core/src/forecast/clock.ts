import { openBetween, type WorkingCalendar } from '../deadline/index.ts';
import { type Away, covers } from './life.ts';

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

/**
 * The working time of some people by a calendar: while some of them are away, so much less of it passes.
 */
export function clockOfPeople(
  calendar: WorkingCalendar,
  people: readonly string[],
  away: readonly Away[],
  [from, to]: readonly [number, number],
): WorkClock {
  const among = new Set(people);
  const gone = away.filter(({ person }) => among.has(person));
  const turns = [...new Set(gone.flatMap((each) => [each.from, each.to ?? Number.POSITIVE_INFINITY]))].sort(
    (a, b) => a - b,
  );
  const shareAt = (at: number): number => {
    const absent = new Set(gone.filter((each) => covers(each, at)).map(({ person }) => person));
    return 1 - absent.size / among.size;
  };
  const parts: Part[] = [];
  for (const open of openBetween(calendar, from, to)) {
    let start = open.from;
    for (const turn of turns) {
      if (turn <= start || turn >= open.to) continue;
      parts.push({ from: start, to: turn, share: shareAt(start) });
      start = turn;
    }
    parts.push({ from: start, to: open.to, share: shareAt(start) });
  }
  return new WorkClock(parts);
}
