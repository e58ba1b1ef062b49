import { said, type Words } from '@tolvek/words';
import { type Explanation, explainCell, type Scope, type Slots } from '../expression/index.ts';
import { readyRows } from './ready.ts';
import type { RoutingOutcome, RoutingTable } from './table.ts';

/** Why one row was taken or passed over. */
export interface RowReason {
  /** 1 for the first row; the last row, for everything else, has the number after the others. */
  readonly row: number;
  readonly note: Words;
  readonly won: boolean;
  /**
   * The cells that decided: all tested cells of the winner, the failing cells of a row passed over.
   */
  readonly cells: readonly Explanation[];
}

export interface Routed {
  readonly row: number;
  readonly rowId: string;
  readonly isOtherwise: boolean;
  readonly outcome: RoutingOutcome;
  readonly reasons: readonly RowReason[];
}

/** A compiled table: chooses a row, and knows by which names. */
export interface Router {
  (slots: Slots): Routed;
  readonly reads: readonly string[];
  /** What of the requester it reads: the group, the team, fields of the profile. */
  readonly ofRequester: readonly string[];
}

/**
 * Compiles a routing table once. The first row whose every cell holds wins; a cell that can't be
 * said (an empty field compared with something) does not hold. A cell that can't be read never
 * holds; findings stop such a table's release.
 */
export function prepareRouting(table: RoutingTable, scope: Scope): Router {
  const rows = readyRows(table, scope);
  const reads = [...new Set(rows.flat().flatMap((cell) => cell.reads))].sort();
  const ofRequester = [...new Set(rows.flat().flatMap((cell) => cell.ofRequester))].sort();
  const route = (slots: Slots): Routed => {
    const reasons: RowReason[] = [];
    for (const [index, cells] of rows.entries()) {
      const row = table.rows[index];
      if (!row) break;
      const decided = cells.map((cell) => {
        const input = cell.column.input(slots, null);
        return { cell, input, result: cell.holds(slots, input) };
      });
      const failing = decided.filter((each) => each.result !== true);
      const won = failing.length === 0;
      reasons.push({
        row: index + 1,
        note: row.note,
        won,
        cells: (won ? decided : failing).map((each) => explainCell(each.cell, each)),
      });
      if (won) return { row: index + 1, rowId: row.id, isOtherwise: false, outcome: row.outcome, reasons };
    }
    const last = table.rows.length + 1;
    reasons.push({ row: last, note: said('reasons:everythingElse'), won: true, cells: [] });
    return { row: last, rowId: 'otherwise', isOtherwise: true, outcome: table.otherwise, reasons };
  };
  return Object.assign(route, { reads, ofRequester });
}
