import { type Said, said } from '@tolvek/words';
import type { HandlerRule } from '../assignment/index.ts';
import type { RowLength } from '../deadline/index.ts';
import {
  kindOf,
  type Node,
  namesIn,
  namesRead,
  nodesOfTest,
  parseExpression,
  parseTests,
  printExpression,
  type Scope,
  type TypeKind,
  typeOf,
} from '../expression/index.ts';
import { freshKey, isOfEveryObject } from '../own/index.ts';
import { type Priority, priorities } from '../register/index.ts';
import { withResults } from './computed.ts';
import {
  allRows,
  type ComputedName,
  type FollowerPlan,
  type Hits,
  hitsOf,
  isComputed,
  isPromise,
  LEAVABLE,
  MOST,
  OUTCOMES,
  type OutcomeName,
  type RoutingColumn,
  type RoutingOutcome,
  type RoutingRow,
  type RoutingTable,
  type SayingRow,
} from './table.ts';

/** A decision table as DMN 1.5 (8.3) has it, without its XML. Texts are FEEL. */
export interface DmnTable {
  readonly name: string;
  /** As the file says it: `FIRST`, `UNIQUE` …; the standard’s own is `UNIQUE` when nothing is said. */
  readonly hitPolicy: string;
  readonly inputs: readonly DmnInput[];
  readonly outputs: readonly DmnOutput[];
  readonly rules: readonly DmnRule[];
}
export interface DmnInput {
  readonly id: string;
  readonly label: string;
  /** The expression whose value the entries test. */
  readonly text: string;
  /** A built-in type (DMN 1.5, 10.3.2.3); empty when nothing is said. */
  readonly type: string;
}
export interface DmnOutput {
  /** Empty where there is one output alone. */
  readonly name: string;
  readonly label: string;
  readonly type: string;
  /** The values it can have, as unary tests; empty for any. */
  readonly values: string;
  /** What it is where no rule holds; empty when nothing is said. */
  readonly otherwise: string;
}
export interface DmnRule {
  readonly id: string;
  readonly note: string;
  /** Unary tests, in the order of the inputs. */
  readonly inputs: readonly string[];
  /** Expressions, in the order of the outputs. */
  readonly outputs: readonly string[];
}

/** What a routing table says of each request, as the outputs of a decision table are called. */
const OUTPUTS = ['team', 'priority', 'working_days', 'approval', 'handler', 'stage', 'deadlines', 'followers'] as const;
type Output = (typeof OUTPUTS)[number];

/** What each is here; followers are said beside all of them. */
const NAME: Readonly<Record<Exclude<Output, 'followers'>, OutcomeName>> = {
  ...{ team: 'team', priority: 'priority', working_days: 'workingDays', approval: 'path' },
  ...{ handler: 'handler', stage: 'stage', deadlines: 'deadlines' },
};
const nameOf = (output: Output): OutcomeName | null => (output === 'followers' ? null : NAME[output]);
const outputNamed = (name: OutcomeName): Output => OUTPUTS.find((each) => nameOf(each) === name) ?? 'followers';

const TYPES: Readonly<Partial<Record<TypeKind, string>>> = {
  text: 'string',
  number: 'number',
  'yes-no': 'boolean',
  date: 'date',
  time: 'time',
  'date-time': 'date and time',
  duration: 'days and time duration',
  months: 'years and months duration',
};
const ANYTHING = '-';
/** The rule for everything else: no id of a row has a dot in it. */
const LAST = 'rule.everything-else';
const isAnything = (text: string): boolean => text.trim() === '' || text.trim() === ANYTHING;

/** Text as FEEL writes it: as JSON does, signs by signs (DMN 1.5, grammar rule 35). */
const quoted = (value: string | null): string => (value === null ? 'null' : JSON.stringify(value));

const plainOutput: Readonly<Record<Output, (outcome: RoutingOutcome) => string>> = {
  team: ({ team }) => quoted(team),
  priority: ({ priority }) => quoted(priority),
  working_days: ({ workingDays }) => String(workingDays),
  approval: ({ path }) => quoted(path),
  // What JSON writes is a context or a list of FEEL as well (grammar rules 57 to 59).
  handler: ({ handler }) => (handler ? JSON.stringify(handler) : 'null'),
  stage: ({ stage }) => quoted(stage ?? null),
  deadlines: ({ deadlines = [] }) => (deadlines.length > 0 ? JSON.stringify(deadlines) : 'null'),
  followers: ({ followers = [] }) => (followers.length > 0 ? JSON.stringify(followers) : 'null'),
};

/** A formula beside what counts where it says nothing, as one expression. */
const guarded = (formula: string, plain: string): string => `if (${formula}) = null then ${plain} else (${formula})`;

function outputOf(output: Output, outcome: RoutingOutcome): string {
  const name = nameOf(output);
  const formula = isComputed(name) ? outcome.formulas?.[name] : undefined;
  const plain = plainOutput[output](outcome);
  return formula === undefined ? plain : guarded(formula, plain);
}

/** What is written as JSON. */
const IN_JSON: readonly Output[] = ['handler', 'deadlines', 'followers'];

/** What stands for nothing where it is said of no row. */
const MAY_LACK: readonly Output[] = ['handler', 'stage', 'deadlines', 'followers'];

/**
 * A routing table as decision tables (DMN 1.5, 8.2.10). One with hit policy FIRST, whose last row is a rule that asks for
 * nothing; one with UNIQUE, whose last row is what its outputs are otherwise, where only one row may hold; or where each
 * thing is said for itself, one with FIRST for all that the same rows say, and one with COLLECT for who follows. `scope`:
 * what its columns are written in. Ids begin with what they are of, as all ids of a file are apart.
 */
export function dmnOf(table: RoutingTable, name: string, scope: Scope): readonly DmnTable[] {
  const rows = allRows(table);
  const hits = hitsOf(table);
  const isSaid = (output: Output): boolean =>
    !MAY_LACK.includes(output) || rows.some(({ outcome }) => outputOf(output, outcome) !== 'null');
  if (hits !== 'each') {
    const policy = hits === 'only' ? 'UNIQUE' : 'FIRST';
    return [written({ table, name, scope }, OUTPUTS.filter(isSaid), rows, { policy, suffix: () => '' })];
  }
  const groups: { readonly names: OutcomeName[]; readonly rows: readonly SayingRow[] }[] = [];
  for (const each of OUTCOMES) {
    // How long deadlines are has a last row in a file, though it says nothing of them here.
    const saying = rows.filter(({ id, leaves }) => !leaves.includes(each) || id === 'otherwise');
    if (!isSaid(outputNamed(each)) && each === 'deadlines') continue;
    const same = groups.find(
      (group) => group.rows.map(({ id }) => id).join(' ') === saying.map(({ id }) => id).join(' '),
    );
    if (same) same.names.push(each);
    else groups.push({ names: [each], rows: saying });
  }
  const parts = [
    ...groups.map((group) => ({ outputs: group.names.map(outputNamed), policy: 'FIRST', rows: group.rows })),
    ...(isSaid('followers')
      ? [
          {
            ...{ outputs: ['followers'] as const, policy: 'COLLECT' },
            rows: rows.filter(({ id, outcome }) => id === 'otherwise' || (outcome.followers ?? []).length > 0),
          },
        ]
      : []),
  ];
  const place = new Map(rows.map(({ id }, at) => [id, at + 1]));
  return parts.map(({ outputs, policy, rows: some }, at) =>
    written({ table, name: `${name}: ${outputs.join(', ')}`, scope }, outputs, some, {
      policy,
      // By its place, a row that stands in several tables is found again where it was.
      suffix: (id) => (id === null ? `.${at + 1}` : `.${at + 1}.${place.get(id) ?? 0}`),
    }),
  );
}

function written(
  { table, name, scope }: { readonly table: RoutingTable; readonly name: string; readonly scope: Scope },
  outputs: readonly Output[],
  rows: readonly SayingRow[],
  { policy, suffix }: { readonly policy: string; readonly suffix: (row: string | null) => string },
): DmnTable {
  const byId = new Map(table.rows.map((row) => [row.id, row]));
  const hasRule = policy === 'FIRST';
  return {
    ...{ name, hitPolicy: policy },
    inputs: table.columns.map(({ id, label, input }) => {
      const parsed = parseExpression(input);
      const type = parsed.ok ? TYPES[kindOf(typeOf(parsed.value, scope))] : undefined;
      return { id: `input_${id}${suffix(null)}`, label, text: input, type: type ?? 'Any' };
    }),
    outputs: outputs.map((each) => ({
      ...{ name: each, label: '', otherwise: hasRule ? '' : outputOf(each, table.otherwise) },
      type: each === 'working_days' ? 'number' : IN_JSON.includes(each) ? 'Any' : 'string',
      values: each === 'priority' ? priorities.map(quoted).join(', ') : '',
    })),
    rules: rows.flatMap(({ id, outcome }): DmnRule[] => {
      const row = byId.get(id);
      if (!row && !hasRule) return [];
      return [
        {
          ...{ id: row ? `rule_${id}${suffix(id)}` : `${LAST}${suffix(null)}`, note: row?.note ?? '' },
          inputs: table.columns.map((column) => row?.cells[column.id]?.trim() || ANYTHING),
          outputs: outputs.map((each) => outputOf(each, outcome)),
        },
      ];
    }),
  };
}
/** The names that a decision table reads: of each, the first part. */
export function namesOf({ inputs, outputs, rules }: DmnTable): readonly string[] {
  const operands = rules.flatMap((rule) =>
    rule.inputs.flatMap((text) => {
      const parsed = parseTests(text);
      return parsed.ok ? parsed.value.flatMap(nodesOfTest) : [];
    }),
  );
  const results = [...rules.flatMap((rule) => rule.outputs), ...outputs.map(({ otherwise }) => otherwise)];
  return [
    ...new Set([
      ...inputs.flatMap(({ text }) => namesIn(text)),
      ...namesRead(operands),
      ...results.flatMap((text) => namesIn(text)),
    ]),
  ];
}

/** What stands here already, which a file from elsewhere may call by its name. */
export interface DmnGround {
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  readonly fields: readonly { readonly key: string; readonly label: string }[];
  readonly paths: readonly { readonly id: string; readonly label: string }[];
  readonly stages: readonly { readonly key: string; readonly label: string }[];
  /** How a handler is found, from the JSON that a file has of it; null where that is anything else. */
  readonly handlerIn: (json: string) => HandlerRule | null;
  /** Who follows, likewise. */
  readonly followersIn: (json: string) => readonly FollowerPlan[] | null;
  /** How long deadlines are, likewise. */
  readonly deadlinesIn: (json: string) => readonly RowLength[] | null;
  /** What a rule leaves open, and what is not in the file, is as it was here. */
  readonly otherwise: RoutingOutcome;
}

/** A decision table as a routing table, with what was not taken over as it stands; or why it can’t be one. */
export type DmnRead =
  | { readonly ok: true; readonly table: RoutingTable; readonly notes: readonly Said[] }
  | { readonly ok: false; readonly why: Said };

/**
 * The hit policies by which a request goes one way that the first rule that holds gives as well: of UNIQUE no two hold, of ANY
 * all that hold say the same (DMN 1.5, 8.2.10).
 */
const ONE_WAY = ['FIRST', 'UNIQUE', 'ANY'];

/** A decision table with what its outputs mean here. */
interface Meant {
  readonly dmn: DmnTable;
  readonly policy: string;
  readonly outputs: readonly (Output | null)[];
  readonly asking: readonly DmnRule[];
  /** The rule for everything else, or what the outputs are otherwise. */
  readonly last: readonly string[];
  readonly hasLast: boolean;
}

function meant(dmn: DmnTable): Meant {
  const policy = dmn.hitPolicy.trim().toUpperCase() || 'UNIQUE';
  const defaults = dmn.outputs.map(({ otherwise }) => otherwise);
  const end = dmn.rules.at(-1);
  // Where what is otherwise is said besides, or every rule counts, one that asks for nothing is a rule like others.
  const isLast = policy !== 'COLLECT' && (policy !== 'UNIQUE' || defaults.every(isAnything));
  const last = isLast && end?.inputs.every(isAnything) ? end : undefined;
  return {
    ...{ dmn, policy },
    outputs: dmn.outputs.map((output) => meaningOf(output, dmn)),
    asking: last ? dmn.rules.slice(0, -1) : dmn.rules,
    last: last?.outputs ?? defaults,
    hasLast: last !== undefined || !defaults.every(isAnything),
  };
}

/** Why decision tables can’t be a routing table together. */
function whyNot(all: readonly Meant[]): Said | null {
  // Who follows can be gathered from several rules.
  for (const { policy, outputs } of all)
    if (!ONE_WAY.includes(policy) && !(policy === 'COLLECT' && outputs.every((each) => each === 'followers')))
      return said('workshop:dmnPolicy', { policy });
  const rows = all.reduce((count, { asking }) => count + asking.length, 0);
  if (rows > MOST.rows || all.some(({ dmn }) => dmn.inputs.length > MOST.columns))
    return said('workshop:dmnTooLarge', MOST);
  const known = all.flatMap(({ outputs }) => outputs.filter((each) => each !== null));
  if (known.length === 0) return said('workshop:dmnNoOutput');
  return new Set(known).size < known.length && all.length > 1 ? said('workshop:dmnTwice') : null;
}

/**
 * A decision table as a routing table, or several as one in which each thing is said for itself. Entries that can’t be read
 * stay as they are, and are found in the draft.
 */
export function routingOf(dmns: readonly DmnTable[], ground: DmnGround): DmnRead {
  const all = dmns.map(meant);
  const why = whyNot(all);
  if (why) return { ok: false, why };
  const notes: Said[] = all.flatMap(({ dmn, outputs }) =>
    dmn.outputs.flatMap((output, at) =>
      outputs[at] === null ? [said('workshop:dmnOutputLeft', { output: output.label || output.name })] : [],
    ),
  );
  const isEach = all.length > 1 || all.some(({ policy }) => policy === 'COLLECT');
  const { columns, columnOf } = columnsIn(all, ground);
  // What is left open is as it was here.
  const read = (start: RoutingOutcome, { outputs }: Meant, texts: readonly string[], row: Said): RoutingOutcome => {
    let outcome = start;
    for (const [at, output] of outputs.entries()) {
      const text = texts[at] ?? '';
      if (output === null || isAnything(text)) continue;
      const found = entryIn(output, text, ground);
      if (found) outcome = withSaid(outcome, found);
      else notes.push(said('workshop:dmnEntryLeft', { row, output: said(`workshop:dmnOf.${output}`), text }));
    }
    return outcome;
  };
  let { otherwise } = ground;
  for (const each of all) otherwise = read(otherwise, each, each.last, said('routing:lastRow'));
  // Who follows and by which formula is told by a table, or by none: a row has none of its own by chance.
  const { formulas: _, followers: __, deadlines: ___, ...bare } = ground.otherwise;
  const rowKey = keysOf('rule_');
  const found = new Map<string, { readonly place: number; readonly row: RoutingRow; readonly says: Set<Output> }>();
  for (const each of all)
    for (const rule of each.asking) {
      const { own, place } = placedAt(rule.id);
      const before = isEach && place !== null ? found.get(own) : undefined;
      const number = before ? before.place : (place ?? found.size + 1);
      const outcome = read(before?.row.outcome ?? bare, each, rule.outputs, said('routing:row', { row: number }));
      const outputs = each.outputs.filter((output) => output !== null);
      if (before) {
        for (const output of outputs) before.says.add(output);
        found.set(own, { ...before, row: { ...before.row, outcome } });
        continue;
      }
      const row: RoutingRow = {
        id: rowKey(own, 'row'),
        note: rule.note.trim().replaceAll(/\s+/g, ' ').slice(0, MOST.signs),
        cells: Object.fromEntries(
          each.dmn.inputs.flatMap((input, at) => {
            const text = rule.inputs[at] ?? '';
            return isAnything(text) ? [] : [[columnOf(input), text.trim()] as const];
          }),
        ),
        outcome,
      };
      found.set(place === null ? `${found.size} ${own}` : own, { place: number, row, says: new Set(outputs) });
    }
  const rows = [...found.values()]
    .toSorted((a, b) => a.place - b.place)
    .map(({ row, says }) => (isEach ? leaving(row, says) : row));
  if (all.some(({ hasLast }) => !hasLast)) notes.push(said('workshop:dmnNoLast'));
  const hits: Hits = isEach ? 'each' : all[0]?.policy === 'UNIQUE' ? 'only' : 'first';
  return { ok: true, table: { ...(hits === 'first' ? {} : { hits }), columns, rows, otherwise }, notes };
}

function leaving(row: RoutingRow, says: ReadonlySet<Output>): RoutingRow {
  const leaves = LEAVABLE.filter((name) => !says.has(outputNamed(name)));
  return leaves.length > 0 ? { ...row, leaves } : row;
}

/** The id of a rule that was made here, and its place among the rows where it stands in several tables. */
function placedAt(id: string): { readonly own: string; readonly place: number | null } {
  const [, own, place] = /^(rule_[^.]*)\.\d+\.(\d+)$/.exec(id) ?? [];
  return own === undefined ? { own: id, place: null } : { own, place: Number(place) };
}

/** The columns that tables have together: one that stands in several is one. */
function columnsIn(
  all: readonly Meant[],
  ground: DmnGround,
): {
  readonly columns: readonly RoutingColumn[];
  readonly columnOf: (input: DmnInput) => string;
} {
  const columnKey = keysOf('input_');
  const columns: RoutingColumn[] = [];
  const keys = new Map<DmnInput, string>();
  for (const { dmn } of all) {
    const taken = new Set<string>();
    for (const asked of dmn.inputs) {
      const { id, label, text } = asked;
      const input = named(text, ground.fields) ?? text.trim();
      const same =
        all.length > 1 ? columns.find((column) => column.input === input && !taken.has(column.id)) : undefined;
      const column = same ?? {
        id: columnKey(id.replace(/\.\d+$/, ''), label || text),
        label: (label || text).slice(0, MOST.signs),
        input,
      };
      if (!same) columns.push(column);
      taken.add(column.id);
      keys.set(asked, column.id);
    }
  }
  return { columns, columnOf: (input) => keys.get(input) ?? '' };
}

const plain = (words: string): string =>
  words
    .normalize('NFKC')
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, '');

/** How outputs are called elsewhere. */
const CALLED: Readonly<Record<Output, readonly string[]>> = {
  team: ['team', 'group'],
  priority: ['priority'],
  working_days: ['workingdays', 'days'],
  approval: ['approval', 'approvalpath', 'path'],
  handler: ['handler'],
  stage: ['stage'],
  deadlines: ['deadlines'],
  followers: ['followers'],
};

/** What an output means here; one that stands alone goes by the name of its table. */
function meaningOf({ name, label }: DmnOutput, { name: of, outputs }: DmnTable): Output | null {
  const words = [name, label, ...(outputs.length === 1 ? [of] : [])].map(plain);
  return OUTPUTS.find((output) => CALLED[output].some((each) => words.includes(each))) ?? null;
}

/** Gives keys that are apart: the one behind an id of a file that was made here, else one from a label. */
function keysOf(prefix: string): (id: string, label: string) => string {
  const taken = new Set<string>();
  return (id, label) => {
    const own = id.startsWith(prefix) ? id.slice(prefix.length) : '';
    const isKey = /^[a-z][a-z0-9_-]{0,63}$/.test(own) && !isOfEveryObject(own) && !taken.has(own);
    const key = isKey ? own : freshKey(label, taken);
    taken.add(key);
    return key;
  };
}

/** The field that is called so; undefined where none is, or it is a key already. */
const named = (text: string, fields: DmnGround['fields']): string | undefined =>
  fields.some(({ key }) => key === text.trim())
    ? undefined
    : fields.find(({ label }) => label.trim().toLowerCase() === text.trim().toLowerCase())?.key;

type Literal = string | number | boolean | null;

/** The value of an entry that is one; undefined for anything that has to be computed. */
function literalIn(text: string): Literal | undefined {
  const parsed = parseExpression(text);
  return parsed.ok && parsed.value.kind === 'literal' ? parsed.value.value : undefined;
}

const called = <Item>(items: readonly Item[], words: (item: Item) => readonly string[], said: string) =>
  items.find((item) => words(item).includes(said)) ??
  items.find((item) => words(item).some((word) => plain(word) === plain(said)));

/** What of this house a text means, by its key. */
const KEY_OF: Readonly<
  Record<Exclude<ComputedName, 'workingDays'>, (said: string, ground: DmnGround) => string | undefined>
> = {
  team: (said, { groups }) => called(groups, ({ key, name }) => [key, name], said)?.key,
  priority: (said) => called(priorities, (each) => [each], said),
  path: (said, { paths }) => called(paths, ({ id, label }) => [id, label], said)?.id,
  stage: (said, { stages }) => called(stages, ({ key, label }) => [key, label], said)?.key,
};

const isPriority = (key: string): key is Priority => priorities.some((each) => each === key);

/** What an entry says of a request; null where it says nothing that is known here. */
function entryIn(output: Output, text: string, ground: DmnGround): Partial<RoutingOutcome> | null {
  const name = nameOf(output);
  const value = literalIn(text);
  if (name === null) {
    if (value === null) return { followers: undefined };
    const followers = ground.followersIn(text);
    return followers ? { followers: followers.length > 0 ? followers : undefined } : null;
  }
  if (name === 'handler') {
    if (value === null) return { handler: undefined };
    const handler = ground.handlerIn(text);
    return handler ? { handler } : null;
  }
  if (name === 'deadlines') {
    if (value === null) return { deadlines: undefined };
    const deadlines = ground.deadlinesIn(text);
    return deadlines ? { deadlines: deadlines.length > 0 ? deadlines : undefined } : null;
  }
  if (value === undefined) return formulaIn(name, text, ground);
  if (value === null) return name === 'path' ? { path: null } : name === 'stage' ? { stage: undefined } : null;
  if (name === 'workingDays') return typeof value === 'number' && isPromise(value) ? { workingDays: value } : null;
  const key = typeof value === 'string' ? KEY_OF[name](value, ground) : undefined;
  if (key === undefined) return null;
  return name === 'priority' ? (isPriority(key) ? { priority: key } : null) : { [name]: key };
}

/** An entry that is computed: with what counts where it says nothing, if it was written here. */
function formulaIn(name: ComputedName, text: string, ground: DmnGround): Partial<RoutingOutcome> | null {
  const parsed = parseExpression(text);
  if (!parsed.ok) return null;
  const [formula, plainText] = guardedIn(parsed.value) ?? [text.trim(), null];
  const called =
    name === 'workingDays' ? formula : withResults(formula, (result) => KEY_OF[name](result, ground) ?? result);
  const beside = plainText === null ? {} : (entryIn(outputNamed(name), plainText, ground) ?? {});
  return { ...beside, formulas: { [name]: called } };
}

/** The formula of an expression as it is written here beside what counts where it says nothing; null for any other. */
function guardedIn(node: Node): readonly [formula: string, plain: string] | null {
  if (node.kind !== 'if' || node.test.kind !== 'compare' || node.whenTrue.kind !== 'literal') return null;
  const formula = printExpression(node.test.left);
  const plainText = printExpression(node.whenTrue);
  const again = parseExpression(guarded(formula, plainText));
  return again.ok && printExpression(again.value) === printExpression(node) ? [formula, plainText] : null;
}

/** An outcome that says something besides. */
const withSaid = (outcome: RoutingOutcome, { formulas, ...more }: Partial<RoutingOutcome>): RoutingOutcome => ({
  ...outcome,
  ...more,
  ...(formulas ? { formulas: { ...outcome.formulas, ...formulas } } : {}),
});
