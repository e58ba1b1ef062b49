/** How long something took, in any measure; `ended`: false while it lasts, so that it takes longer than that. */
export interface Took {
  readonly length: number;
  readonly ended: boolean;
  /** What came after it. */
  readonly next: number;
}

/**
 * How long such things take, as far as is known: what still lasts counts as longer than it has lasted. The estimator is that
 * of Kaplan and Meier (1958); beyond all that is known it goes on as if nothing was known of how long it lasts already.
 */
export class Lengths {
  /** Ascending. */
  private readonly lengths: Float64Array;
  /** Share that takes longer than each of them. */
  private readonly longer: Float64Array;
  private readonly nexts: Int8Array;
  /** How long they take on average, for what lasts longer than any of them. */
  private readonly mean: number;
  /** How many have ended. */
  readonly size: number;

  constructor(all: readonly Took[]) {
    const sorted = all.toSorted((a, b) => a.length - b.length || Number(b.ended) - Number(a.ended));
    const ended = sorted.filter((each) => each.ended);
    this.size = ended.length;
    this.lengths = new Float64Array(this.size);
    this.longer = new Float64Array(this.size);
    this.nexts = new Int8Array(this.size);
    let left = 1;
    let place = 0;
    let sum = 0;
    for (const [before, each] of sorted.entries()) {
      sum += each.length;
      if (!each.ended) continue;
      left *= 1 - 1 / (sorted.length - before);
      this.lengths[place] = each.length;
      this.longer[place] = left;
      this.nexts[place] = each.next;
      place += 1;
    }
    // The mean of what takes so long on average: all time it took, by how often it ended.
    this.mean = this.size > 0 ? sum / this.size : 0;
  }

  /** The share that takes longer than a length. */
  longerThan(length: number): number {
    const place = this.first(length) - 1;
    if (place < 0) return 1;
    const beyond = length - (this.lengths[this.size - 1] as number);
    const share = Math.max(this.longer[place] as number, this.least());
    return beyond > 0 && this.mean > 0 ? share * Math.exp(-beyond / this.mean) : share;
  }

  /** A length beyond `already`, and what comes after it, by a chance from 0 to 1. */
  draw(already: number, which: number): { readonly length: number; readonly next: number } {
    const share = already > 0 ? which * this.longerThan(already) : which;
    let low = already > 0 ? this.first(already) : 0;
    let high = this.size;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.longer[middle] as number) <= share) high = middle;
      else low = middle + 1;
    }
    if (low < this.size) return { length: this.lengths[low] as number, next: this.nexts[low] as number };
    const last = Math.max(already, this.size > 0 ? (this.lengths[this.size - 1] as number) : 0);
    const beyond = -Math.log(Math.max(1e-9, share / Math.max(1e-12, this.longerThan(last))));
    // What is left of the chance where only its size has counted.
    const next = this.nexts[Math.floor(((which * 65_536) % 1) * this.size)] ?? 0;
    return { length: last + Math.max(0, beyond) * this.mean, next };
  }

  /** How often it would have ended within a length, if it were taken up again whenever it does. */
  hazard(length: number): number {
    return -Math.log(this.longerThan(length));
  }

  /** The length that half of them take no longer than; null where fewer have ended. */
  get median(): number | null {
    const place = this.longer.findIndex((share) => share <= 0.5);
    return place < 0 ? null : (this.lengths[place] as number);
  }

  /** What is left of all where the last known has ended: never nothing, as there is always longer. */
  private least(): number {
    return 1 / (2 * this.size + 2);
  }

  /** The place of the first that is longer. */
  private first(length: number): number {
    let low = 0;
    let high = this.size;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.lengths[middle] as number) > length) high = middle;
      else low = middle + 1;
    }
    return low;
  }
}
