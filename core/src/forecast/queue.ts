/** What is to end at a station, the nearest first: a binary heap over two lists of numbers, used again in every run. */
export class Queue {
  private readonly ends: number[] = [];
  private readonly whose: number[] = [];

  get size(): number {
    return this.ends.length;
  }

  /** By when the nearest ends; infinite for none. */
  get nearest(): number {
    return this.ends[0] ?? Number.POSITIVE_INFINITY;
  }

  clear(): void {
    this.ends.length = 0;
    this.whose.length = 0;
  }

  add(end: number, of: number): void {
    const { ends, whose } = this;
    let place = ends.length;
    ends.push(end);
    whose.push(of);
    while (place > 0) {
      const above = (place - 1) >> 1;
      if ((ends[above] as number) <= end) break;
      ends[place] = ends[above] as number;
      whose[place] = whose[above] as number;
      place = above;
    }
    ends[place] = end;
    whose[place] = of;
  }

  /** Takes the nearest out, and says whose it is. */
  take(): number {
    const { ends, whose } = this;
    const taken = whose[0] as number;
    const end = ends.pop() as number;
    const of = whose.pop() as number;
    const size = ends.length;
    let place = 0;
    for (let below = 1; below < size; below = 2 * place + 1) {
      if (below + 1 < size && (ends[below + 1] as number) < (ends[below] as number)) below += 1;
      if ((ends[below] as number) >= end) break;
      ends[place] = ends[below] as number;
      whose[place] = whose[below] as number;
      place = below;
    }
    if (size > 0) {
      ends[place] = end;
      whose[place] = of;
    }
    return taken;
  }
}
