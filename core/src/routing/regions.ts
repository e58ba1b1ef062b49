import type { Budget } from '../budget/index.ts';

/**
 * Cases as bits: for each column a bit for each kind of value that its cells tell apart, all
 * columns behind each other. A box holds the cases whose value is in it in every column.
 */
export type Box = Uint32Array;

/** Where the bits of each column stand. */
export class Layout {
  /** The first word of each column, and the end behind the last. */
  readonly starts: readonly number[];
  readonly words: number;

  /** @param sizes How many kinds of values each column has. */
  constructor(readonly sizes: readonly number[]) {
    const starts = [0];
    for (const size of sizes) starts.push((starts.at(-1) ?? 0) + Math.max(1, Math.ceil(size / 32)));
    this.starts = starts;
    this.words = starts.at(-1) ?? 0;
  }

  /** A box of the cases that `holds` says, for each column and kind of value. */
  box(holds: (column: number, kind: number) => boolean): Box {
    const box = new Uint32Array(this.words);
    for (const [column, size] of this.sizes.entries()) {
      const start = this.starts[column] ?? 0;
      for (let kind = 0; kind < size; kind += 1)
        if (holds(column, kind)) box[start + (kind >>> 5)] = (box[start + (kind >>> 5)] ?? 0) | (1 << (kind & 31));
    }
    return box;
  }

  /** For each column, the first kind of value in a box; -1 where there is none. */
  firstOf(box: Box): readonly number[] {
    return this.sizes.map((size, column) => {
      const start = this.starts[column] ?? 0;
      for (let kind = 0; kind < size; kind += 1)
        if (((box[start + (kind >>> 5)] ?? 0) & (1 << (kind & 31))) !== 0) return kind;
      return -1;
    });
  }

  isNothing(box: Box): boolean {
    return this.firstOf(box).includes(-1);
  }

  /** Whether two boxes have a case in common. */
  meet(a: Box, b: Box): boolean {
    for (let column = 0; column < this.sizes.length; column += 1) {
      const end = this.starts[column + 1] ?? 0;
      let common = 0;
      for (let word = this.starts[column] ?? 0; word < end; word += 1) common |= (a[word] ?? 0) & (b[word] ?? 0);
      if (common === 0) return false;
    }
    return true;
  }
}

/** How a hole lies in a box: not at all, over all of it, or cutting it along some columns. */
type Lies = 'outside' | 'over' | readonly number[];

/**
 * Looks for cases of a box that none of some holes take. Exact: what it finds is there, and where
 * it finds nothing there is nothing, unless the budget was spent.
 *
 * A hole that cuts the box along one column only is cut off at once. Else the box is split along
 * the columns of the hole that cuts along the fewest, and each piece is looked through with the
 * holes that are left in it.
 */
export class Search {
  constructor(
    private readonly layout: Layout,
    private readonly budget: Budget,
  ) {}

  /**
   * Calls `found` with boxes of such cases until it says that is enough. Returns false when spent.
   */
  through(box: Box, holes: readonly Box[], found: (free: Box) => 'go on' | 'enough'): boolean {
    return this.pieces(Uint32Array.from(box), holes, found) !== 'spent';
  }

  private pieces(
    box: Box,
    holes: readonly Box[],
    found: (free: Box) => 'go on' | 'enough',
  ): 'done' | 'enough' | 'spent' {
    const cutting = this.cutOff(box, holes);
    if (cutting === 'spent') return 'spent';
    if (cutting === null) return 'done';
    const [first] = cutting;
    if (!first) return found(box) === 'enough' ? 'enough' : 'done';
    const { hole, along } = cutting.reduce(
      (least, each) => (each.along.length < least.along.length ? each : least),
      first,
    );
    const others = cutting.flatMap((each) => (each.hole === hole ? [] : [each.hole]));
    for (const column of along) {
      const piece = Uint32Array.from(box);
      const end = this.layout.starts[column + 1] ?? 0;
      for (let word = this.layout.starts[column] ?? 0; word < end; word += 1) {
        piece[word] = (piece[word] ?? 0) & ~(hole[word] ?? 0);
        box[word] = (box[word] ?? 0) & (hole[word] ?? 0);
      }
      const ended = this.pieces(piece, others, found);
      if (ended !== 'done') return ended;
    }
    return 'done';
  }

  /**
   * The holes that cut a box along several columns, after those that cut along one are cut off it;
   * null when nothing of the box is left.
   */
  private cutOff(
    box: Box,
    holes: readonly Box[],
  ): readonly { readonly hole: Box; readonly along: readonly number[] }[] | null | 'spent' {
    let left = holes;
    for (;;) {
      const cutting: { hole: Box; along: readonly number[] }[] = [];
      let isSmaller = false;
      for (const hole of left) {
        if (!this.budget.spend()) return 'spent';
        const lies = this.liesIn(box, hole);
        if (lies === 'over') return null;
        if (lies === 'outside') continue;
        const [column] = lies;
        if (lies.length > 1 || column === undefined) cutting.push({ hole, along: lies });
        else {
          isSmaller = true;
          const end = this.layout.starts[column + 1] ?? 0;
          for (let word = this.layout.starts[column] ?? 0; word < end; word += 1)
            box[word] = (box[word] ?? 0) & ~(hole[word] ?? 0);
        }
      }
      if (!isSmaller) return cutting;
      left = cutting.map((each) => each.hole);
    }
  }

  private liesIn(box: Box, hole: Box): Lies {
    const along: number[] = [];
    const { starts, sizes } = this.layout;
    for (let column = 0; column < sizes.length; column += 1) {
      const end = starts[column + 1] ?? 0;
      let common = 0;
      let outside = 0;
      for (let word = starts[column] ?? 0; word < end; word += 1) {
        const here = box[word] ?? 0;
        const there = hole[word] ?? 0;
        common |= here & there;
        outside |= here & ~there;
      }
      if (common === 0) return 'outside';
      if (outside !== 0) along.push(column);
    }
    return along.length === 0 ? 'over' : along;
  }
}
