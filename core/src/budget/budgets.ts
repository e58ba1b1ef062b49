/**
 * How much work one call may make, as counted steps: never as time, which another machine measures
 * otherwise. Whatever is beyond is said, with what to do.
 */
export const BUDGETS = {
  /** Steps of an analysis of a routing table: one is a comparison of two rows over all columns. */
  analysis: {
    /** For one row, to find out whether it can ever win. */
    row: 150_000,
    /** For the whole table. */
    table: 3_000_000,
    /** Pairs of rows compared for what both take. */
    pairs: 50_000,
  },
  /** Steps of reasoning about conditions: one is a look at two groups of cases. */
  reasoning: {
    /** About one condition, or two against each other. */
    one: 40_000,
    /** About all rules of a form together. */
    form: 200_000,
  },
  /**
   * Steps of one evaluation of an expression: a turn of a loop, or an item that a function looks
   * at.
   */
  evaluation: 1_200_000,
  /** Sheets that are taken in. */
  sheet: {
    /** Rows taken in as requests at once. */
    rows: 500,
    /** Rows taken in as people at once. */
    people: 2_000,
    cells: 200_000,
    /** Bytes of the file as it is, and unpacked: a small file can hold a large one. */
    bytes: 20_000_000,
    unpacked: 60_000_000,
  },
} as const;

/** Counts steps down to nothing. */
export class Budget {
  private readonly whole: Budget | undefined;

  constructor(
    private left: number,
    whole?: Budget,
  ) {
    this.whole = whole;
  }

  /** Whether there is enough left for some steps; they are spent then. */
  spend(steps = 1): boolean {
    this.left -= steps;
    return this.left >= 0 && (this.whole?.spend(steps) ?? true);
  }

  /** A budget for a part of the work: its steps are spent of the whole as well. */
  part(steps: number): Budget {
    return new Budget(steps, this);
  }

  get isSpent(): boolean {
    return this.left < 0;
  }
}
