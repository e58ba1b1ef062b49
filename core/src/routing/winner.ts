import {
  cellSet,
  type Domain,
  domainOf,
  isWhole,
  rankOf,
  type Scope,
  type ScopeType,
  type Slots,
  type Value,
  type ValueSet,
} from '../expression/index.ts';
import { type ReadyCell, readyRows } from './ready.ts';
import type { RoutingTable } from './table.ts';

/** Bits of a word: rows are kept as bits, the first row lowest. */
const WORD = 31;

interface ColumnIndex {
  readonly input: ReadyCell['column']['input'];
  /** The rows whose cell takes a value, as words of bits. */
  readonly takers: (value: Value) => Int32Array;
}

/**
 * Which row wins, without the reasons: its number from 1, one more than there are rows for the last
 * row. For many requests at once: for each column, every value finds the rows that take it in one
 * step, and the lowest row common to all columns wins. Cells that need more than their own column
 * are tried when it is their row’s turn. The answer is that of `prepareRouting`.
 */
export function prepareWinner(table: RoutingTable, scope: Scope): (slots: Slots) => number {
  const rows = readyRows(table, scope);
  const words = Math.max(1, Math.ceil(rows.length / WORD));
  const tried: ReadyCell[][] = rows.map(() => []);
  const columns = [...new Set(rows.flat().map((cell) => cell.column))].map((column): ColumnIndex => {
    const domain = looseDomain(column.type);
    const sets = rows.map((cells, row): ValueSet | null => {
      const cell = cells.find((each) => each.column === column);
      if (!cell || !domain) {
        if (cell) tried[row]?.push(cell);
        return null;
      }
      const set = cell.tests.length > 0 ? cellSet(cell.tests, domain, scope) : null;
      if (!set) tried[row]?.push(cell);
      return set && !isWhole(set) ? set : null;
    });
    return { input: column.input, takers: takersOf(domain, sets, words) };
  });
  const all = bitsOf(
    rows.map(() => true),
    words,
  );

  return (slots) => {
    for (let word = 0; word < words; word += 1) {
      let left = all[word] ?? 0;
      for (let index = 0; left !== 0 && index < columns.length; index += 1) {
        const column = columns[index];
        if (column) left &= column.takers(column.input(slots, null))[word] ?? 0;
      }
      while (left !== 0) {
        const row = word * WORD + 31 - Math.clz32(left & -left);
        if (holdsAll(tried[row] ?? [], slots)) return row + 1;
        left &= left - 1;
      }
    }
    return rows.length + 1;
  };
}

function holdsAll(cells: readonly ReadyCell[], slots: Slots): boolean {
  for (const cell of cells) if (cell.holds(slots, cell.column.input(slots, null)) !== true) return false;
  return true;
}

function bitsOf(rows: readonly boolean[], words: number): Int32Array {
  const bits = new Int32Array(words);
  rows.forEach((taken, row) => {
    const word = Math.floor(row / WORD);
    if (taken) bits[word] = (bits[word] ?? 0) | (1 << (row % WORD));
  });
  return bits;
}

/** For one column: from a value to the rows that take it. A cell that is null takes anything. */
function takersOf(
  domain: Domain | null,
  sets: readonly (ValueSet | null)[],
  words: number,
): (value: Value) => Int32Array {
  const taking = (holds: (set: ValueSet) => boolean): Int32Array =>
    bitsOf(
      sets.map((set) => set === null || holds(set)),
      words,
    );
  const stranger = taking(() => false);
  const empty = taking((set) => set.empty);
  if (domain?.kind === 'ordered') {
    const ends = [
      ...new Set(
        sets.flatMap((set) => (set?.kind === 'ordered' ? set.intervals.flatMap(({ from, to }) => [from, to]) : [])),
      ),
    ]
      .filter(Number.isFinite)
      .sort((a, b) => a - b);
    const at = (rank: number): Int32Array =>
      taking(
        (set) =>
          set.kind === 'ordered' &&
          set.intervals.some(
            (each) =>
              (each.from < rank || (each.from === rank && !each.fromOpen)) &&
              (each.to > rank || (each.to === rank && !each.toOpen)),
          ),
      );
    const points = ends.map(at);
    const gaps = Array.from({ length: ends.length + 1 }, (_, index) => at(betweenEnds(ends[index - 1], ends[index])));
    const kind = domain.value(0);
    return (value) => {
      if (value === null) return empty;
      const rank =
        typeof value === 'number'
          ? typeof kind === 'number'
            ? value
            : null
          : typeof kind === 'object' && kind !== null && value.constructor === kind.constructor
            ? rankOf(value)
            : null;
      if (rank === null) return stranger;
      let [low, high] = [0, ends.length];
      while (low < high) {
        const middle = (low + high) >> 1;
        if ((ends[middle] ?? 0) < rank) low = middle + 1;
        else high = middle;
      }
      return (ends[low] === rank ? points[low] : gaps[low]) ?? stranger;
    };
  }
  const named = new Map<Value, Int32Array>();
  if (domain?.kind === 'listed')
    for (const each of domain.values)
      named.set(
        each,
        taking((set) => set.kind === 'listed' && set.values.has(each)),
      );
  const texts = new Set(sets.flatMap((set) => (set?.kind === 'text' ? [...set.texts] : [])));
  for (const text of texts)
    named.set(
      text,
      taking((set) => set.kind === 'text' && set.texts.has(text) !== set.others),
    );
  named.set(null, empty);
  const unnamed = domain?.kind === 'text' ? taking((set) => set.kind === 'text' && set.others) : stranger;
  return (value) => named.get(value) ?? (typeof value === 'string' ? unnamed : stranger);
}

function betweenEnds(before: number | undefined, after: number | undefined): number {
  if (before === undefined) return after === undefined ? 0 : after - 1;
  return after === undefined ? before + 1 : (before + after) / 2;
}

/**
 * The domain of a column for values as they really come: any number, any text, whatever a field’s
 * settings say today.
 */
function looseDomain(type: ScopeType | null): Domain | null {
  if (type?.kind === 'choice' || type?.kind === 'text') return { kind: 'text' };
  const domain = domainOf(type);
  return domain?.kind === 'ordered'
    ? { ...domain, step: null, least: Number.NEGATIVE_INFINITY, most: Number.POSITIVE_INFINITY }
    : domain;
}
