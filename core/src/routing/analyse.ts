import { BUDGETS, Budget } from '../budget/index.ts';
import {
  both,
  cellSet,
  type Domain,
  domainOf,
  isMember,
  isNothing,
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
import { own } from '../own/index.ts';
import { type Box, Layout, Search } from './regions.ts';
import { hitsOf, leftBy, OUTCOMES, type OutcomeName, type RoutingTable } from './table.ts';

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
  /** What rows never say though they decide otherwise, where each thing is said for itself. */
  readonly neverSay: readonly {
    readonly row: string;
    readonly names: readonly OutcomeName[];
    readonly because: readonly string[];
  }[];
  readonly overlaps: readonly RowOverlap[];
  /** Cases that no row takes, so that the last row decides. */
  readonly uncovered: readonly WorkedCase[];
  /** Rows that could not be looked through whether they ever win: there were too many cases. */
  readonly notLooked: readonly string[];
  /** Rows that were not held against those above them for what both take. */
  readonly notCompared: readonly string[];
  /** Rows whose cells need more than their own column’s value: what they take can’t be told here. */
  readonly unsure: readonly string[];
  /** Whether every case was followed; otherwise only what was found is said. */
  readonly complete: boolean;
}

/** Steps for one row, for the whole table, and for pairs of rows. */
type AnalysisBudgets = Readonly<Record<keyof typeof BUDGETS.analysis, number>>;

/** Worked cases told and overlaps told at most. */
const MOST = { cases: 5, overlaps: 200 } as const;

interface Column {
  readonly label: string;
  readonly domain: Domain;
}

interface Row {
  readonly id: string;
  readonly cells: readonly ValueSet[];
  /** Whether the row takes all of its cells’ values, or only some that can’t be told here. */
  readonly exact: boolean;
  /** What it says. */
  readonly says: readonly OutcomeName[];
  /** Whether it says something that no row before it can say instead. */
  readonly collects: boolean;
}

/**
 * Analyses a table: rows that never win, rows that overlap, and cases left to
 * the last row.
 */
export function analyseTable(
  table: RoutingTable,
  scope: Scope,
  budgets: AnalysisBudgets = BUDGETS.analysis,
): TableAnalysis {
  const byId = columnsOf(table, scope);
  const columns = [...new Set(byId.values())];
  const rows = table.rows.map((row) => rowOf(table, row, byId, columns, scope));
  const boxes = new Boxes(columns, rows);
  const whole = new Budget(budgets.table);
  const { neverWin, neverSay, notLooked } = rowsThatNeverWin(rows, boxes, whole, budgets.row);
  const uncovered: WorkedCase[] = [];
  const looked = new Search(boxes.layout, whole.part(budgets.row)).through(
    boxes.everything,
    // A row that may take a case is no reason to say that none does.
    boxes.rows,
    (free) => {
      uncovered.push(boxes.caseIn(free));
      return uncovered.length < MOST.cases ? 'go on' : 'enough';
    },
  );
  return {
    ...{ neverWin, neverSay },
    ...overlapsOf(rows, boxes, columns, new Budget(budgets.pairs)),
    uncovered,
    notLooked,
    unsure: rows.flatMap(({ id, exact }) => (exact ? [] : [id])),
    complete: notLooked.length === 0 && looked,
  };
}

/**
 * Rows that earlier rows leave nothing to: of a row nothing is left where those that surely hold and say the same take all
 * of it.
 */
function rowsThatNeverWin(
  rows: readonly Row[],
  boxes: Boxes,
  whole: Budget,
  each: number,
): Pick<TableAnalysis, 'neverWin' | 'neverSay' | 'notLooked'> {
  const neverWin: { row: string; because: readonly string[] }[] = [];
  const neverSay: { row: string; names: readonly OutcomeName[]; because: readonly string[] }[] = [];
  const notLooked: string[] = [];
  for (const [index, row] of rows.entries()) {
    const box = boxes.rows[index];
    if (!box || boxes.layout.isNothing(box)) {
      neverWin.push({ row: row.id, because: [] });
      continue;
    }
    const earlier = rows.flatMap((other, at) => {
      const taken = boxes.rows[at];
      return at < index && other.exact && taken && boxes.layout.meet(taken, box) ? [{ other, taken }] : [];
    });
    const taken = alikeIn(row.says, (name) => earlier.filter(({ other }) => other.says.includes(name))).map(
      ({ names, before }) => {
        let isLeft = false;
        const looked = new Search(boxes.layout, whole.part(each)).through(
          box,
          before.map((one) => one.taken),
          () => {
            isLeft = true;
            return 'enough';
          },
        );
        return {
          names,
          because: before.map(({ other }) => other.id),
          is: isLeft ? 'left' : looked ? 'taken' : 'unknown',
        };
      },
    );
    const never = taken.filter(({ is }) => is === 'taken');
    const because = [...new Set(never.flatMap((one) => one.because))];
    if (taken.some(({ is }) => is === 'unknown')) notLooked.push(row.id);
    else if (taken.length > 0 && never.length === taken.length && !row.collects)
      neverWin.push({ row: row.id, because });
    else if (never.length > 0) neverSay.push({ row: row.id, names: never.flatMap(({ names }) => names), because });
  }
  return { neverWin, neverSay, notLooked };
}

/** Names for which the same comes before, together. */
function alikeIn<Before>(
  names: readonly OutcomeName[],
  beforeOf: (name: OutcomeName) => readonly Before[],
): readonly { readonly names: readonly OutcomeName[]; readonly before: readonly Before[] }[] {
  const alike: { names: OutcomeName[]; before: readonly Before[] }[] = [];
  for (const name of names) {
    const before = beforeOf(name);
    const same = alike.find(
      (each) => each.before.length === before.length && each.before.every((one, at) => one === before[at]),
    );
    if (same) same.names.push(name);
    else alike.push({ names: [name], before });
  }
  return alike;
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
    const tests = parseTests(own(row.cells, id) ?? '');
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
  const left = leftBy(table, row);
  const says = OUTCOMES.filter((name) => !left.includes(name));
  const collects = hitsOf(table) === 'each' && (row.outcome.followers ?? []).length > 0;
  return {
    id: row.id,
    exact,
    says,
    collects,
    cells: columns.map((column) => cells.get(column) ?? wholeOf(column.domain)),
  };
}

/** The rows as boxes of bits, and a value for each kind of case. */
class Boxes {
  readonly layout: Layout;
  readonly rows: readonly Box[];
  private readonly parts: readonly (readonly Part[])[];

  constructor(
    private readonly columns: readonly Column[],
    rows: readonly Row[],
  ) {
    this.parts = columns.map((column, index) =>
      partition(
        column.domain,
        rows.map((row) => row.cells[index] ?? wholeOf(column.domain)),
      ),
    );
    this.layout = new Layout(this.parts.map((parts) => parts.length));
    this.rows = rows.map((_, row) =>
      this.layout.box((column, kind) => {
        const part = this.parts[column]?.[kind];
        return part !== undefined && isMember(part, row);
      }),
    );
  }

  get everything(): Box {
    return this.layout.box(() => true);
  }

  caseIn(box: Box): WorkedCase {
    const kinds = this.layout.firstOf(box);
    return {
      values: this.columns.map(({ label }, index) => ({
        column: label,
        value: this.parts[index]?.[kinds[index] ?? 0]?.sample ?? null,
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

function overlapsOf(
  rows: readonly Row[],
  boxes: Boxes,
  columns: readonly Column[],
  budget: Budget,
): Pick<TableAnalysis, 'overlaps' | 'notCompared'> {
  const overlaps: RowOverlap[] = [];
  for (const [index, second] of rows.entries()) {
    for (const [place, first] of rows.slice(0, index).entries()) {
      if (!budget.spend()) return { overlaps, notCompared: rows.slice(index).map((row) => row.id) };
      const [a, b] = [boxes.rows[place], boxes.rows[index]];
      const isShared = first.exact && second.exact && a && b && boxes.layout.meet(a, b);
      const common = isShared ? commonOf(first, second) : null;
      if (!common) continue;
      overlaps.push({
        first: first.id,
        second: second.id,
        at: {
          values: common.map((set, column) => ({ column: columns[column]?.label ?? '', value: sampleOf(set) ?? null })),
        },
      });
      if (overlaps.length >= MOST.overlaps) return { overlaps, notCompared: [] };
    }
  }
  return { overlaps, notCompared: [] };
}
