import { said, type Words } from '@tolvek/words';
import type { RowLength } from '../deadline/index.ts';
import { type Explanation, explainCell, explainComputed, type Scope, type Slots } from '../expression/index.ts';
import { isSame } from '../own/index.ts';
import { type Computations, computedBy, type ReadyFormula, readyFormulas } from './computed.ts';
import { type ReadyCell, readyRows } from './ready.ts';
import {
  allRows,
  type FollowerPlan,
  hitsOf,
  lengthsIn,
  OUTCOME_WORDS,
  OUTCOMES,
  type OutcomeName,
  type RoutingOutcome,
  type RoutingSaid,
  type RoutingTable,
  type SayingRow,
} from './table.ts';

/** Why one row was taken or passed over. */
export interface RowReason {
  /** 1 for the first row; the last row, for everything else, has the number after the others. */
  readonly row: number;
  readonly note: Words;
  /** Whether it holds. */
  readonly won: boolean;
  /**
   * The cells that decided: all tested cells of a row that holds, the failing cells of a row passed over; then from what
   * its formulas were computed.
   */
  readonly cells: readonly Explanation[];
  /** What it said of the request, where each thing is said for itself. */
  readonly says?: readonly OutcomeName[];
}

/** Which rows said what, where that is not the same row for all. */
export type SaidBy = Partial<Readonly<Record<OutcomeName, number>>>;

export interface Routed {
  /** The first row that holds and says something. */
  readonly row: number;
  readonly rowId: string;
  readonly isOtherwise: boolean;
  /** What is said of the request, computed. */
  readonly outcome: RoutingSaid;
  /** What other rows have said, by their places. */
  readonly by: SaidBy;
  /** What of it was computed. */
  readonly computed: Computations;
  readonly reasons: readonly RowReason[];
}

/** The rows by which a request went, by their places in order. */
export const rowsSaying = ({ row, by }: Pick<Routed, 'row' | 'by'>): readonly number[] =>
  [...new Set([row, ...Object.values(by)])].sort((a, b) => a - b);

/** A compiled table: chooses a row, and knows by which names. */
export interface Router {
  (slots: Slots): Routed;
  readonly reads: readonly string[];
  /** What of the requester it reads: the group, the team, fields of the profile. */
  readonly ofRequester: readonly string[];
  /** How long its rows say that deadlines are. */
  readonly lengths: readonly RowLength[];
}

interface Ready {
  readonly row: SayingRow;
  readonly note: Words;
  readonly cells: readonly ReadyCell[];
  readonly formulas: readonly ReadyFormula[];
}

/**
 * Compiles a routing table once. The first row whose every cell holds wins; where each thing is said for itself, the first
 * such row that says it does. A cell that can't be said (an empty field compared with something) does not hold. A cell that
 * can't be read never holds; findings stop such a table’s release.
 */
export function prepareRouting(table: RoutingTable, scope: Scope): Router {
  const cells = readyRows(table, scope);
  const rows = allRows(table).map(
    (row, index): Ready => ({
      ...{ row, note: table.rows[index]?.note ?? said('reasons:everythingElse') },
      ...{ cells: cells[index] ?? [], formulas: readyFormulas(row, scope) },
    }),
  );
  const isEach = hitsOf(table) === 'each';
  const asked = rows.flatMap((row) => [...row.cells, ...row.formulas]);
  const unique = (names: readonly string[]): readonly string[] => [...new Set(names)].sort();
  const sayable = OUTCOMES.filter((name) => rows.some(({ row }) => !row.leaves.includes(name)));
  // Who follows is asked of every row, and of the last one where no other says it.
  const lastTold = isEach ? rows.findLastIndex(({ row }) => (row.outcome.followers ?? []).length > 0) : -1;
  const route = (slots: Slots): Routed => {
    const reasons: RowReason[] = [];
    const saying = new Map<OutcomeName, number>();
    const followers: FollowerPlan[] = [];
    let computed: Computations = {};
    let first = rows.length;
    for (const [index, ready] of rows.entries()) {
      const isLast = index === rows.length - 1;
      const done = isEach ? saying.size === sayable.length : first < rows.length;
      if (done && (index > lastTold || (isLast && followers.length > 0))) break;
      const { held, decided } = tried(ready, slots);
      if (!held) {
        if (!done) reasons.push({ row: index + 1, note: ready.note, won: false, cells: decided });
        continue;
      }
      const says = OUTCOMES.filter((name) => !saying.has(name) && !ready.row.leaves.includes(name));
      if (first === rows.length && says.length > 0) first = index + 1;
      for (const name of says) saying.set(name, index + 1);
      const { followers: more = [] } = ready.row.outcome;
      const follows = isLast && followers.length > 0 ? [] : more;
      followers.push(...follows.filter((each) => !followers.some((other) => isSame(each, other))));
      if ((isLast || done) && says.length === 0 && follows.length === 0) continue;
      const saidBy = ready.formulas.filter(({ name }) => says.includes(name));
      for (const formula of saidBy) computed = { ...computed, ...computedBy(formula, slots) };
      const from = saidBy.map(({ name, node }) => explainComputed(node, OUTCOME_WORDS[name], scope, slots));
      const reason = { row: index + 1, note: ready.note, won: true, cells: [...decided, ...from] };
      reasons.push(isEach ? { ...reason, says } : reason);
    }
    const by: SaidBy = Object.fromEntries([...saying].filter(([, row]) => row !== first));
    return {
      ...{ row: first, rowId: rows[first - 1]?.row.id ?? 'otherwise', isOtherwise: first === rows.length },
      outcome: { ...joined(table, first, by), ...computed, ...(followers.length > 0 ? { followers } : {}) },
      ...{ by, computed, reasons },
    };
  };
  return Object.assign(route, {
    reads: unique(asked.flatMap(({ reads }) => reads)),
    ofRequester: unique(asked.flatMap(({ ofRequester }) => ofRequester)),
    lengths: lengthsIn(table),
  });
}

/** Whether a row holds, and the cells by which it does or does not. */
function tried({ cells }: Ready, slots: Slots): { readonly held: boolean; readonly decided: readonly Explanation[] } {
  const all = cells.map((cell) => {
    const input = cell.column.input(slots, null);
    return { cell, input, result: cell.holds(slots, input) };
  });
  const failing = all.filter((each) => each.result !== true);
  const held = failing.length === 0;
  return { held, decided: (held ? all : failing).map((each) => explainCell(each.cell, each)) };
}

/** What rows say together, without what is computed. */
function joined({ rows, otherwise }: RoutingTable, first: number, by: SaidBy): RoutingSaid {
  const outcomeAt = (row: number): RoutingOutcome => rows[row - 1]?.outcome ?? otherwise;
  const { formulas: _, followers: __, ...said } = outcomeAt(first);
  const others = Object.entries(by).map(([name, row]) => [name, outcomeAt(row)[name as OutcomeName]]);
  return { ...said, ...Object.fromEntries(others) };
}

/** What a request was said by a table, from the rows and what was computed then. Who follows was found at that time. */
export const saidThen = (
  table: RoutingTable,
  { row, by = {}, computed = {} }: { readonly row: number; readonly by?: SaidBy; readonly computed?: Computations },
): RoutingSaid => ({ ...joined(table, row, by), ...computed });
