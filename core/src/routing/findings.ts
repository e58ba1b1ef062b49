import { type Said, said, type Words } from '@tolvek/words';
import { FINISH, LONGEST_LENGTH } from '../deadline/index.ts';
import {
  checkExpression,
  checkTests,
  kindOf,
  parseExpression,
  parseTests,
  type Scope,
  type ScopeType,
  typeOf,
} from '../expression/index.ts';
import { own } from '../own/index.ts';
import { priorities } from '../register/index.ts';
import { analyseTable, type TableAnalysis } from './analyse.ts';
import { resultsOf } from './computed.ts';
import {
  allRows,
  type ComputedName,
  formulasOf,
  hitsOf,
  isPromise,
  OUTCOME_WORDS,
  OUTCOMES,
  type RoutingTable,
  type SayingRow,
} from './table.ts';

export interface RoutingFinding {
  readonly severity: 'error' | 'caution';
  /** Row id, `otherwise`, or column id. */
  readonly row: string;
  readonly message: Words;
}

/** What exists that a table can name, by keys; stages are not held against anything where they are not said. */
export interface RoutingGround {
  readonly groups: ReadonlySet<string>;
  readonly paths: ReadonlySet<string>;
  readonly stages?: ReadonlySet<string> | undefined;
  /** What deadlines are called, by their keys; likewise. */
  readonly deadlines?: ReadonlyMap<string, Words> | undefined;
}

/** What is wrong or doubtful in a routing table. */
export function routingFindings(table: RoutingTable, scope: Scope, ground: RoutingGround): readonly RoutingFinding[] {
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
  }
  for (const [index, row] of allRows(table).entries()) {
    const name = index < table.rows.length ? said('routing:row', { row: index + 1 }) : said('routing:lastRow');
    found.push(
      ...outcomeFindings(row, name, ground),
      ...formulaFindings(row, name, scope, ground),
      ...lengthFindings(row, name, scope, ground),
    );
  }
  const analysis = analyseTable(table, scope);
  const numberOf = (id: string): number => table.rows.findIndex((row) => row.id === id) + 1;
  found.push(...neverWinning(analysis, numberOf));
  if (hitsOf(table) === 'only') found.push(...holdingTogether(analysis, numberOf));
  return found;
}

/** Rows that never decide, or never say something. Cells that can’t be read are not reasoned about. */
function neverWinning(
  { neverWin, neverSay, notLooked }: TableAnalysis,
  numberOf: (id: string) => number,
): RoutingFinding[] {
  const above = (because: readonly string[]): readonly string[] =>
    because
      .map(numberOf)
      .sort((a, b) => a - b)
      .map(String);
  const told = [
    ...neverWin.map(({ row, because }): RoutingFinding => {
      const message =
        because.length === 0
          ? said('routing:excludesItself', { row: numberOf(row) })
          : said('routing:neverUsed', { row: numberOf(row), rows: above(because) });
      return { severity: 'caution', row, message };
    }),
    ...neverSay.map(({ row, names, because }): RoutingFinding => {
      const given = { row: numberOf(row), rows: above(because), what: names.map((name) => OUTCOME_WORDS[name]) };
      return { severity: 'caution', row, message: said('routing:neverSays', given) };
    }),
  ];
  const [first] = notLooked;
  if (first === undefined) return told;
  const message = said('routing:notLooked', { rows: runsOf(notLooked.map(numberOf)) });
  return [...told, { severity: 'caution', row: first, message }];
}

/** Rows of which only one may hold, and which hold together, or may. */
function holdingTogether(
  { overlaps, unsure, notCompared }: TableAnalysis,
  numberOf: (id: string) => number,
): RoutingFinding[] {
  const seconds = [...new Set(overlaps.map(({ second }) => second))];
  const together = seconds.map((row): RoutingFinding => {
    const rows = overlaps.flatMap(({ first, second }) => (second === row ? [String(numberOf(first))] : []));
    return { severity: 'error', row, message: said('routing:holdsTogether', { row: numberOf(row), rows }) };
  });
  const doubtful = [...new Set([...unsure, ...notCompared])].sort((a, b) => numberOf(a) - numberOf(b));
  const [first] = doubtful;
  if (first === undefined) return together;
  const message = said('routing:mayHoldTogether', { rows: runsOf(doubtful.map(numberOf)) });
  return [...together, { severity: 'caution', row: first, message }];
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
  { id: row, outcome, leaves }: SayingRow,
  name: Said,
  { groups, stages }: RoutingGround,
): RoutingFinding[] {
  const found: RoutingFinding[] = [];
  const add = (severity: RoutingFinding['severity'], message: Said): void =>
    void found.push({ severity, row, message });
  if (!leaves.includes('team') && !groups.has(outcome.team)) add('error', said('routing:lostTeam', { row: name }));
  if (!leaves.includes('workingDays') && !isPromise(outcome.workingDays))
    add('error', said('routing:badDays', { row: name }));
  if (!leaves.includes('stage') && outcome.stage !== undefined && stages && !stages.has(outcome.stage))
    add('error', said('routing:lostStage', { row: name }));
  if (OUTCOMES.every((each) => leaves.includes(each)) && (outcome.followers ?? []).length === 0)
    add('caution', said('routing:saysNothing', { row: name }));
  return found;
}

/** What is wrong in what a row says of deadlines. */
function lengthFindings(
  { id: row, outcome: { deadlines = [] } }: SayingRow,
  name: Said,
  scope: Scope,
  ground: RoutingGround,
): RoutingFinding[] {
  return deadlines.flatMap(({ deadline: key, length }, at): RoutingFinding[] => {
    const error = (message: Said): RoutingFinding => ({ severity: 'error', row, message });
    const deadline = ground.deadlines?.get(key);
    if (key === FINISH) return [error(said('routing:lengthOfFinish', { row: name }))];
    if (ground.deadlines && deadline === undefined) return [error(said('routing:lostDeadline', { row: name }))];
    const what = deadline ?? key;
    if (deadlines.findIndex((each) => each.deadline === key) < at)
      return [error(said('routing:lengthTwice', { row: name, what }))];
    if (length?.by === 'time' && (length.time === 0 || length.time > LONGEST_LENGTH))
      return [error(said('routing:lengthTooLong', { row: name, what }))];
    if (length?.by !== 'formula') return [];
    const parsed = parseExpression(length.formula);
    const problems = parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings;
    if (!parsed.ok || problems.length > 0)
      return problems.map(({ message }) => error(said('routing:formulaWrong', { row: name, what, message })));
    const kind = kindOf(typeOf(parsed.value, scope));
    return kind === 'number' || kind === 'unknown' ? [] : [error(said('routing:lengthNoNumber', { row: name, what }))];
  });
}

/** What is wrong in formulas: what they come to is written out in them, so that all of it is known before. */
function formulaFindings(
  row: SayingRow,
  name: Said,
  scope: Scope,
  { groups, paths, stages }: RoutingGround,
): RoutingFinding[] {
  const there: Readonly<Record<Exclude<ComputedName, 'workingDays'>, ReadonlySet<string> | undefined>> = {
    ...{ team: groups, path: paths, stage: stages, priority: new Set(priorities) },
  };
  return formulasOf(row).flatMap(([of, text]) => {
    const what = OUTCOME_WORDS[of];
    const error = (message: Said): RoutingFinding => ({ severity: 'error', row: row.id, message });
    const parsed = parseExpression(text);
    const problems = parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings;
    if (!parsed.ok || problems.length > 0)
      return problems.map(({ message }) => error(said('routing:formulaWrong', { row: name, what, message })));
    if (of === 'workingDays') {
      const kind = kindOf(typeOf(parsed.value, scope));
      return kind === 'number' || kind === 'unknown' ? [] : [error(said('routing:formulaNoNumber', { row: name }))];
    }
    const { texts, isOpen } = resultsOf(parsed.value, scope);
    if (isOpen) return [error(said('routing:formulaOpen', { row: name, what }))];
    const known = there[of];
    return [...texts]
      .filter((each) => known && !known.has(each))
      .map((each) => error(said('routing:formulaLost', { row: name, what, result: each })));
  });
}
