import { openBetween, type WorkingCalendar } from '../deadline/index.ts';

/** The working time of a calendar between two moments of a span (epoch ms): its days are gone through once, however often it is asked. */
export class Hours {
  private readonly begins: readonly number[];
  private readonly ends: readonly number[];
  /** Working time before each stretch, ms. */
  private readonly before: readonly number[];

  constructor(calendar: WorkingCalendar, from: number, to: number) {
    const open = openBetween(calendar, from, to);
    this.begins = open.map((stretch) => stretch.from);
    this.ends = open.map((stretch) => stretch.to);
    let sum = 0;
    this.before = open.map((stretch) => {
      const begun = sum;
      sum += stretch.to - stretch.from;
      return begun;
    });
  }

  /** Working time from the beginning of the span to a moment, ms. */
  private until(at: number): number {
    // The last stretch that begins before it.
    let [low, high] = [0, this.begins.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.begins[middle] ?? 0) < at) low = middle + 1;
      else high = middle;
    }
    if (low === 0) return 0;
    const begin = this.begins[low - 1] ?? 0;
    return (this.before[low - 1] ?? 0) + Math.min(at, this.ends[low - 1] ?? 0) - begin;
  }

  /** Working time between two moments of the span, ms; 0 where the second is not after the first. */
  between(from: number, to: number): number {
    return to <= from ? 0 : this.until(to) - this.until(from);
  }
}
