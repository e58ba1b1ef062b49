import { type Said, said, type Words } from '@tolvek/words';
import {
  checkExpression,
  checkTests,
  parseExpression,
  parseTests,
  type Scope,
  type ScopeType,
  typeOf,
} from '../expression/index.ts';
import { own } from '../own/index.ts';
import { analyseTable } from './analyse.ts';
import { isPromise, type RoutingOutcome, type RoutingTable } from './table.ts';

export interface RoutingFinding {
  readonly severity: 'error' | 'caution';
  /** Row id, `otherwise`, or column id. */
  readonly row: string;
  readonly message: Words;
}

/** What is wrong or doubtful in a routing table. `groups` are the keys of the groups that exist. */
export function routingFindings(
  table: RoutingTable,
  scope: Scope,
  groups: ReadonlySet<string>,
): readonly RoutingFinding[] {
  const found: RoutingFinding[] = [];
  const types = new Map<string, ScopeType | null>();
  for (const column of table.columns) {
    const parsed = parseExpression(column.input);
    const problems = parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings;
    for (const problem of problems)
      found.push({
        severity: 'error',
        row: column.id,
        message: said('routing:columnWrong', { column: column.label, message: problem.message }),
      });
    types.set(column.id, parsed.ok ? typeOf(parsed.value, scope) : null);
  }
  for (const [index, row] of table.rows.entries()) {
    const name = said('routing:row', { row: index + 1 });
    for (const column of table.columns) {
      const parsed = parseTests(own(row.cells, column.id) ?? '');
      const problems = parsed.ok ? checkTests(parsed.value, types.get(column.id) ?? null, scope) : parsed.findings;
      for (const problem of problems)
        found.push({
          severity: 'error',
          row: row.id,
          message: said('routing:cellWrong', { row: name, column: column.label, message: problem.message }),
        });
    }
    found.push(...outcomeFindings(row.outcome, row.id, name, groups));
  }
  found.push(...outcomeFindings(table.otherwise, 'otherwise', said('routing:lastRow'), groups));
  found.push(...neverWinning(table, scope));
  return found;
}

/** Rows that never decide. Cells that can’t be read are not reasoned about. */
function neverWinning(table: RoutingTable, scope: Scope): RoutingFinding[] {
  const numberOf = (id: string): number => table.rows.findIndex((row) => row.id === id) + 1;
  const { neverWin, notLooked } = analyseTable(table, scope);
  const told = neverWin.map(({ row, because }): RoutingFinding => {
    const above = because.map(numberOf);
    const message =
      above.length === 0
        ? said('routing:excludesItself', { row: numberOf(row) })
        : said('routing:neverUsed', { row: numberOf(row), rows: above.map(String) });
    return { severity: 'caution', row, message };
  });
  const [first] = notLooked;
  if (first === undefined) return told;
  const message = said('routing:notLooked', { rows: runsOf(notLooked.map(numberOf)) });
  return [...told, { severity: 'caution', row: first, message }];
}

/** Numbers in order as runs: `3, 7–12`. */
function runsOf(numbers: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const last = runs.at(-1);
    if (last && last[1] === number - 1) last[1] = number;
    else runs.push([number, number]);
  }
  return runs.map(([from, to]) => (from === to ? `${from}` : `${from}–${to}`)).join(', ');
}

function outcomeFindings(
  outcome: RoutingOutcome,
  row: string,
  name: Said,
  groups: ReadonlySet<string>,
): RoutingFinding[] {
  const found: RoutingFinding[] = [];
  if (!groups.has(outcome.team))
    found.push({ severity: 'error', row, message: said('routing:lostTeam', { row: name }) });
  if (!isPromise(outcome.workingDays)) {
    found.push({ severity: 'error', row, message: said('routing:badDays', { row: name }) });
  }
  return found;
}
