import {
  type Compiled,
  type CompiledTests,
  checkExpression,
  checkTests,
  compile,
  compileTests,
  type Explanation,
  explainCell,
  type Node,
  namesRead,
  nodesOfTest,
  parseExpression,
  parseTests,
  type Scope,
  type ScopeType,
  type Slots,
} from '../expression/index.ts';
import { analyseTable } from './analyse.ts';
import type { RoutingOutcome, RoutingTable } from './table.ts';

/** Why one row was taken or passed over. */
export interface RowReason {
  /** 1 for the first row; the last row, for everything else, has the number after the others. */
  readonly row: number;
  readonly note: string;
  readonly won: boolean;
  /** The cells that decided: all tested cells of the winner, the failing cells of a row passed over. */
  readonly cells: readonly Explanation[];
}

export interface Routed {
  readonly row: number;
  readonly rowId: string;
  readonly isOtherwise: boolean;
  readonly outcome: RoutingOutcome;
  readonly reasons: readonly RowReason[];
}

interface ReadyCell {
  readonly column: { readonly label: string; readonly node: Node; readonly input: Compiled };
  readonly text: string;
  readonly reads: readonly string[];
  readonly holds: CompiledTests;
}

/**
 * Compiles a routing table once. The first row whose every cell holds wins; a cell that can't be said (an empty field
 * compared with something) does not hold. A cell that can't be read never holds; findings stop such a table's release.
 */
export function prepareRouting(table: RoutingTable, scope: Scope): (slots: Slots) => Routed {
  const columns = table.columns.map((column) => {
    const parsed = parseExpression(column.input);
    const node = parsed.ok ? parsed.value : null;
    return { id: column.id, label: column.label, node, input: node ? compile(node, scope) : () => null };
  });
  const rows = table.rows.map((row) =>
    columns.flatMap((column): ReadyCell[] => {
      const text = row.cells[column.id] ?? '';
      const parsed = parseTests(text);
      if (parsed.ok && parsed.value.every((test) => test.kind === 'any')) return [];
      if (!parsed.ok || !column.node) return [{ column: { ...column, node: NOTHING }, text, reads: [], holds: () => false }];
      const reads = namesRead([column.node, ...parsed.value.flatMap(nodesOfTest)]);
      return [{ column: { ...column, node: column.node }, text, reads, holds: compileTests(parsed.value, scope) }];
    }),
  );

  return (slots) => {
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
      reasons.push({ row: index + 1, note: row.note, won, cells: (won ? decided : failing).map((each) => explainCell(each.cell.column, each.cell, scope, each)) });
      if (won) return { row: index + 1, rowId: row.id, isOtherwise: false, outcome: row.outcome, reasons };
    }
    const last = table.rows.length + 1;
    reasons.push({ row: last, note: 'Everything else', won: true, cells: [] });
    return { row: last, rowId: 'otherwise', isOtherwise: true, outcome: table.otherwise, reasons };
  };
}

const NOTHING: Node = { kind: 'literal', value: null, from: 0, to: 0 };

export interface RoutingFinding {
  readonly severity: 'error' | 'caution';
  /** Row id, `otherwise`, or column id. */
  readonly row: string;
  readonly message: string;
}

/** What is wrong or doubtful in a routing table. `groups` are the keys of the groups that exist. */
export function routingFindings(table: RoutingTable, scope: Scope, groups: ReadonlySet<string>): readonly RoutingFinding[] {
  const found: RoutingFinding[] = [];
  const types = new Map<string, ScopeType | null>();
  for (const column of table.columns) {
    const parsed = parseExpression(column.input);
    const problems = parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings;
    for (const problem of problems) found.push({ severity: 'error', row: column.id, message: `Column “${column.label}”: ${problem.message}` });
    types.set(column.id, parsed.ok ? columnType(parsed.value, scope) : null);
  }
  for (const [index, row] of table.rows.entries()) {
    const name = `Row ${index + 1}`;
    for (const column of table.columns) {
      const parsed = parseTests(row.cells[column.id] ?? '');
      const problems = parsed.ok ? checkTests(parsed.value, types.get(column.id) ?? null, scope) : parsed.findings;
      for (const problem of problems) found.push({ severity: 'error', row: row.id, message: `${name}, ${column.label}: ${problem.message}` });
    }
    found.push(...outcomeFindings(row.outcome, row.id, name, groups));
  }
  found.push(...outcomeFindings(table.otherwise, 'otherwise', 'The last row', groups));
  if (!found.some((finding) => finding.severity === 'error')) found.push(...neverWinning(table, scope));
  return found;
}

/** Rows that never decide. A table with errors is not reasoned about. */
function neverWinning(table: RoutingTable, scope: Scope): RoutingFinding[] {
  const numberOf = (id: string): number => table.rows.findIndex((row) => row.id === id) + 1;
  return analyseTable(table, scope).neverWin.map(({ row, because }) => {
    const above = because.map(numberOf);
    const why =
      above.length === 0
        ? 'its own tests leave nothing to take'
        : `${above.length === 1 ? `row ${above[0]}` : `rows ${above.slice(0, -1).join(', ')} and ${above.at(-1)}`} above it take${above.length === 1 ? 's' : ''} everything it would`;
    return { severity: 'caution', row, message: `Row ${numberOf(row)} can never win: ${why}.` };
  });
}

function outcomeFindings(outcome: RoutingOutcome, row: string, name: string, groups: ReadonlySet<string>): RoutingFinding[] {
  const found: RoutingFinding[] = [];
  if (!groups.has(outcome.team)) found.push({ severity: 'error', row, message: `${name} sends to a team that does not exist.` });
  if (!Number.isInteger(outcome.workingDays) || outcome.workingDays < 0 || outcome.workingDays > 250) {
    found.push({ severity: 'error', row, message: `${name}: working days must be a whole number from 0 to 250.` });
  }
  return found;
}

function columnType(node: Node, scope: Scope): ScopeType | null {
  if (node.kind === 'name') return scope.find(node.name)?.type ?? null;
  if (node.kind === 'path') {
    const of = columnType(node.of, scope);
    return of?.kind === 'context' ? (of.entries[node.name]?.type ?? null) : null;
  }
  return null;
}
