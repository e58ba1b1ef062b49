/** What came of all runs, for each request that is followed and each of its promises. */
export class Tally {
  private readonly late: Uint32Array;
  private readonly ends: readonly Float64Array[];

  constructor(
    followed: number,
    promises: number,
    readonly runs: number,
  ) {
    this.late = new Uint32Array(promises);
    this.ends = Array.from({ length: followed }, () => new Float64Array(runs).fill(Number.POSITIVE_INFINITY));
  }

  addLate(promise: number): void {
    this.late[promise] = (this.late[promise] as number) + 1;
  }

  /** The share of runs in which a promise was not kept. */
  chanceOf(promise: number): number {
    return (this.late[promise] as number) / this.runs;
  }

  finished(request: number, run: number, at: number): void {
    (this.ends[request] as Float64Array)[run] = at;
  }

  /** By when one in ten, half and nine in ten of the runs have finished a request, epoch ms; null for never. */
  finishOf(request: number): {
    readonly early: number | null;
    readonly likely: number | null;
    readonly late: number | null;
  } {
    const ends = (this.ends[request] as Float64Array).toSorted();
    const at = (share: number): number | null => {
      const end = ends[Math.min(this.runs - 1, Math.floor(share * this.runs))] as number;
      return Number.isFinite(end) ? end : null;
    };
    return { early: at(0.1), likely: at(0.5), late: at(0.9) };
  }
}
