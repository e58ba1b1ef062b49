import {
  both,
  cellSet,
  type Domain,
  domainOf,
  isNothing,
  isWhole,
  type Part,
  parseExpression,
  parseTests,
  partition,
  printExpression,
  type Scope,
  sampleOf,
  typeOf,
  type Value,
  type ValueSet,
  wholeOf,
} from '../expression/index.ts';
import type { RoutingTable } from './table.ts';

/** What a column is about, and the values it would have in a worked example. */
export interface WorkedCase {
  readonly values: readonly { readonly column: string; readonly value: Value }[];
}

export interface RowOverlap {
  /** Row ids, the earlier row first: it wins where both hold. */
  readonly first: string;
  readonly second: string;
  readonly at: WorkedCase;
}

/**
 * What follows from the rows of a table together. Rows whose cells need more than their own
 * column’s value count as taking anything or nothing.
 */
export interface TableAnalysis {
  /**
   * Rows that never decide, each with the earlier rows that take what it would; with none, its own
   * cells leave nothing.
   */
  readonly neverWin: readonly { readonly row: string; readonly because: readonly string[] }[];
  readonly overlaps: readonly RowOverlap[];
  /** Cases that no row takes, so that the last row decides. */
  readonly uncovered: readonly WorkedCase[];
  /** False when there were more cases than could be followed: then only what was found is said. */
  readonly complete: boolean;
}

/** States followed, worked cases told and overlaps told at most. */
const MOST = { states: 200_000, cases: 5, overlaps: 200 } as const;

interface Column {
  readonly label: string;
  readonly domain: Domain;
}

interface Row {
  readonly id: string;
  readonly cells: readonly ValueSet[];
  /** Whether the row takes all of its cells’ values, or only some that can’t be told here. */
  readonly exact: boolean;
}

/**
 * Analyses a table with “first row wins”: rows that never win, rows that overlap, and cases left to
 * the last row.
 */
export function analyseTable(table: RoutingTable, scope: Scope): TableAnalysis {
  const byId = columnsOf(table, scope);
  const columns = [...new Set(byId.values())];
  const rows = table.rows.map((row) => rowOf(table, row, byId, columns, scope));
  const walk = new Walk(columns, rows);
  walk.from(0, (1n << BigInt(rows.length)) - 1n, []);
  return {
    neverWin: walk.complete
      ? rows.flatMap((row, index) =>
          walk.canWin.has(index)
            ? []
            : [
                {
                  row: row.id,
                  because: rows.slice(0, index).flatMap((earlier) => (commonOf(earlier, row) ? [earlier.id] : [])),
                },
              ],
        )
      : rows.flatMap((row) => (row.cells.some(isNothing) ? [{ row: row.id, because: [] }] : [])),
    overlaps: overlapsOf(rows, columns),
    uncovered: walk.uncovered,
    complete: walk.complete,
  };
}

/**
 * By column id, what its cells are about; two columns about the same thing are one. Columns that
 * can’t be reasoned about are left out.
 */
function columnsOf(table: RoutingTable, scope: Scope): ReadonlyMap<string, Column> {
  const byInput = new Map<string, Column>();
  const byId = new Map<string, Column>();
  for (const { id, label, input } of table.columns) {
    const parsed = parseExpression(input);
    const domain = parsed.ok ? domainOf(typeOf(parsed.value, scope)) : null;
    if (!parsed.ok || !domain) continue;
    const key = printExpression(parsed.value);
    const column = byInput.get(key) ?? { label, domain };
    byInput.set(key, column);
    byId.set(id, column);
  }
  return byId;
}

function rowOf(
  table: RoutingTable,
  row: RoutingTable['rows'][number],
  byId: ReadonlyMap<string, Column>,
  columns: readonly Column[],
  scope: Scope,
): Row {
  let exact = true;
  const cells = new Map<Column, ValueSet>();
  for (const { id } of table.columns) {
    const tests = parseTests(row.cells[id] ?? '');
    if (tests.ok && tests.value.every((test) => test.kind === 'any')) continue;
    const column = byId.get(id);
    const set = column && tests.ok ? cellSet(tests.value, column.domain, scope) : null;
    if (!column || !set) {
      exact = false;
      continue;
    }
    const before = cells.get(column);
    cells.set(column, before ? both(before, set) : set);
  }
  return { id: row.id, exact, cells: columns.map((column) => cells.get(column) ?? wholeOf(column.domain)) };
}

/** Goes through all cases, column by column, as a tree whose equal branches are followed once. */
class Walk {
  readonly canWin = new Set<number>();
  readonly uncovered: WorkedCase[] = [];
  complete = true;
  /** Rows still open, for each column, that were followed from there. */
  private readonly seen: readonly Set<bigint>[];
  private states = 0;
  private readonly classes: readonly (readonly Part[])[];
  /**
   * The columns in the order they are followed: those that tell the fewest values apart first, so
   * that branches meet early.
   */
  private readonly order: readonly number[];
  /** For each column on, the rows that take anything from there. */
  private readonly takesAll: readonly bigint[];
  private readonly inexact: bigint;

  constructor(
    private readonly columns: readonly Column[],
    rows: readonly Row[],
  ) {
    const parts = columns.map((column, index) =>
      partition(
        column.domain,
        rows.map((row) => row.cells[index] ?? wholeOf(column.domain)),
      ),
    );
    const count = (index: number): number => parts[index]?.length ?? 0;
    this.order = columns.map((_, index) => index).sort((a, b) => count(a) - count(b));
    this.classes = this.order.map((index) => parts[index] ?? []);
    this.seen = Array.from({ length: columns.length + 1 }, () => new Set<bigint>());
    const bits = (holds: (row: Row) => boolean): bigint =>
      rows.reduce((set, row, index) => (holds(row) ? set | (1n << BigInt(index)) : set), 0n);
    this.takesAll = Array.from({ length: columns.length + 1 }, (_, from) =>
      bits(
        (row) => row.exact && this.order.slice(from).every((index) => !row.cells[index] || isWhole(row.cells[index])),
      ),
    );
    this.inexact = bits((row) => !row.exact);
  }

  from(column: number, rows: bigint, path: readonly Value[]): void {
    if (!this.complete) return;
    // Nothing after a row that takes all of the rest can matter.
    const decided = rows & (this.takesAll[column] ?? 0n);
    const open = decided === 0n ? rows : rows & (((decided & -decided) << 1n) - 1n);
    const seen = this.seen[column];
    if (seen?.has(open)) return;
    seen?.add(open);
    this.states += 1;
    if (this.states > MOST.states) {
      this.complete = false;
      return;
    }
    const classes = this.classes[column];
    if (open === 0n || !classes || (decided !== 0n && open === (decided & -decided))) this.end(open, path);
    else for (const { members, sample } of classes) this.from(column + 1, open & members, [...path, sample]);
  }

  /**
   * One case: its first row for certain wins; rows before it that may or may not hold can win too.
   */
  private end(rows: bigint, path: readonly Value[]): void {
    let left = rows;
    while (left !== 0n) {
      const lowest = left & -left;
      this.canWin.add(lowest.toString(2).length - 1);
      if ((lowest & this.inexact) === 0n) return;
      left &= ~lowest;
    }
    if (rows === 0n && this.uncovered.length < MOST.cases) this.uncovered.push(this.caseOf(path));
  }

  private caseOf(path: readonly Value[]): WorkedCase {
    return {
      values: this.columns.map(({ label }, index) => ({
        column: label,
        value: path[this.order.indexOf(index)] ?? null,
      })),
    };
  }
}

/** What two rows both take, column by column; null when there is nothing. */
function commonOf(a: Row, b: Row): readonly ValueSet[] | null {
  const common: ValueSet[] = [];
  for (const [index, cell] of a.cells.entries()) {
    const other = b.cells[index];
    const shared = other ? (cell === other ? cell : both(cell, other)) : cell;
    if (isNothing(shared)) return null;
    common.push(shared);
  }
  return common;
}

function overlapsOf(rows: readonly Row[], columns: readonly Column[]): readonly RowOverlap[] {
  const found: RowOverlap[] = [];
  for (const [index, second] of rows.entries()) {
    for (const first of rows.slice(0, index)) {
      const common = first.exact && second.exact ? commonOf(first, second) : null;
      if (!common) continue;
      found.push({
        first: first.id,
        second: second.id,
        at: {
          values: common.map((set, place) => ({ column: columns[place]?.label ?? '', value: sampleOf(set) ?? null })),
        },
      });
      if (found.length >= MOST.overlaps) return found;
    }
  }
  return found;
}
