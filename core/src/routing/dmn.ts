import { type Said, said } from '@tolvek/words';
import type { HandlerRule } from '../assignment/index.ts';
import {
  kindOf,
  namesIn,
  namesRead,
  nodesOfTest,
  parseExpression,
  parseTests,
  type Scope,
  type TypeKind,
  typeOf,
} from '../expression/index.ts';
import { freshKey, isOfEveryObject } from '../own/index.ts';
import { type Priority, priorities } from '../register/index.ts';
import {
  isPromise,
  MOST,
  type RoutingColumn,
  type RoutingOutcome,
  type RoutingRow,
  type RoutingTable,
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
const OUTPUTS = ['team', 'priority', 'working_days', 'approval', 'handler'] as const;
type Output = (typeof OUTPUTS)[number];

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

const outputOf: Readonly<Record<Output, (outcome: RoutingOutcome) => string>> = {
  team: ({ team }) => quoted(team),
  priority: ({ priority }) => quoted(priority),
  working_days: ({ workingDays }) => String(workingDays),
  approval: ({ path }) => quoted(path),
  // What JSON writes is a context of FEEL as well (grammar rules 57 to 59).
  handler: ({ handler }) => (handler ? JSON.stringify(handler) : 'null'),
};

/**
 * A routing table as a decision table with hit policy FIRST: its last row is a rule that asks for nothing. `scope`: what its
 * columns are written in. Ids begin with what they are of, as all ids of a file are apart.
 */
export function dmnOf(table: RoutingTable, name: string, scope: Scope): DmnTable {
  const outcomes = [...table.rows.map(({ outcome }) => outcome), table.otherwise];
  const said = OUTPUTS.filter((each) => each !== 'handler' || outcomes.some(({ handler }) => handler));
  const given = (outcome: RoutingOutcome): readonly string[] => said.map((each) => outputOf[each](outcome));
  return {
    ...{ name, hitPolicy: 'FIRST' },
    inputs: table.columns.map(({ id, label, input }) => {
      const parsed = parseExpression(input);
      const type = parsed.ok ? TYPES[kindOf(typeOf(parsed.value, scope))] : undefined;
      return { id: `input_${id}`, label, text: input, type: type ?? 'Any' };
    }),
    outputs: said.map((each) => ({
      ...{ name: each, label: '', otherwise: '' },
      type: each === 'working_days' ? 'number' : each === 'handler' ? 'Any' : 'string',
      values: each === 'priority' ? priorities.map(quoted).join(', ') : '',
    })),
    rules: [
      ...table.rows.map(({ id, note, cells, outcome }) => ({
        ...{ id: `rule_${id}`, note },
        inputs: table.columns.map((column) => cells[column.id]?.trim() || ANYTHING),
        outputs: given(outcome),
      })),
      {
        ...{ id: LAST, note: '' },
        inputs: table.columns.map(() => ANYTHING),
        outputs: given(table.otherwise),
      },
    ],
  };
}
/** The names that a decision table reads: of each, the first part. */
export function namesOf({ inputs, rules }: DmnTable): readonly string[] {
  const operands = rules.flatMap((rule) =>
    rule.inputs.flatMap((text) => {
      const parsed = parseTests(text);
      return parsed.ok ? parsed.value.flatMap(nodesOfTest) : [];
    }),
  );
  return [...new Set([...inputs.flatMap(({ text }) => namesIn(text)), ...namesRead(operands)])];
}

/** What stands here already, which a file from elsewhere may call by its name. */
export interface DmnGround {
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  readonly fields: readonly { readonly key: string; readonly label: string }[];
  readonly paths: readonly { readonly id: string; readonly label: string }[];
  /** How a handler is found, from the JSON that a file has of it; null where that is anything else. */
  readonly handlerIn: (json: string) => HandlerRule | null;
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

/** A decision table as a routing table. Entries that can’t be read stay as they are, and are found in the draft. */
export function routingOf(dmn: DmnTable, ground: DmnGround): DmnRead {
  const policy = dmn.hitPolicy.trim().toUpperCase() || 'UNIQUE';
  if (!ONE_WAY.includes(policy)) return { ok: false, why: said('workshop:dmnPolicy', { policy }) };
  const end = dmn.rules.at(-1);
  const last = end?.inputs.every(isAnything) ? end : undefined;
  const asking = last ? dmn.rules.slice(0, -1) : dmn.rules;
  const defaults = dmn.outputs.map(({ otherwise }) => otherwise);
  if (dmn.inputs.length > MOST.columns || asking.length > MOST.rows)
    return { ok: false, why: said('workshop:dmnTooLarge', MOST) };
  const meant = dmn.outputs.map((output) => meaningOf(output, dmn));
  if (!meant.some((each) => each !== null)) return { ok: false, why: said('workshop:dmnNoOutput') };
  const notes: Said[] = dmn.outputs.flatMap((output, at) =>
    meant[at] === null ? [said('workshop:dmnOutputLeft', { output: output.label || output.name })] : [],
  );
  const columnKey = keysOf('input_');
  const columns = dmn.inputs.map(
    ({ id, label, text }): RoutingColumn => ({
      id: columnKey(id, label || text),
      label: (label || text).slice(0, MOST.signs),
      input: named(text, ground.fields) ?? text.trim(),
    }),
  );
  // What is left open is as it was here.
  const outcomeOf = (texts: readonly string[], row: Said): RoutingOutcome => {
    let outcome = ground.otherwise;
    for (const [at, output] of meant.entries()) {
      const text = texts[at] ?? '';
      if (output === null || isAnything(text)) continue;
      const read = READ[output](text, ground);
      if (read) outcome = { ...outcome, ...read };
      else notes.push(said('workshop:dmnEntryLeft', { row, output: said(`workshop:dmnOf.${output}`), text }));
    }
    return outcome;
  };
  const otherwise = outcomeOf(last?.outputs ?? defaults, said('routing:lastRow'));
  const rowKey = keysOf('rule_');
  const rows = asking.map(
    (rule, at): RoutingRow => ({
      id: rowKey(rule.id, 'row'),
      note: rule.note.trim().replaceAll(/\s+/g, ' ').slice(0, MOST.signs),
      cells: Object.fromEntries(
        columns.flatMap(({ id }, column) => {
          const text = rule.inputs[column] ?? '';
          return isAnything(text) ? [] : [[id, text.trim()] as const];
        }),
      ),
      outcome: outcomeOf(rule.outputs, said('routing:row', { row: at + 1 })),
    }),
  );
  if (!last && defaults.every(isAnything)) notes.push(said('workshop:dmnNoLast'));
  return { ok: true, table: { columns, rows, otherwise }, notes };
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

const byWord = <Item>(items: readonly Item[], words: (item: Item) => readonly string[], text: string) => {
  const said = literalIn(text);
  if (typeof said !== 'string') return undefined;
  return (
    items.find((item) => words(item).includes(said)) ??
    items.find((item) => words(item).some((word) => plain(word) === plain(said)))
  );
};

/** What each output says of a request; null where it says nothing that is known here. */
const READ: Readonly<Record<Output, (text: string, ground: DmnGround) => Partial<RoutingOutcome> | null>> = {
  team: (text, { groups }) => {
    const group = byWord(groups, ({ key, name }) => [key, name], text);
    return group ? { team: group.key } : null;
  },
  priority: (text) => {
    const priority = byWord<Priority>(priorities, (each) => [each], text);
    return priority ? { priority } : null;
  },
  working_days: (text) => {
    const days = literalIn(text);
    return typeof days === 'number' && isPromise(days) ? { workingDays: days } : null;
  },
  approval: (text, { paths }) => {
    if (literalIn(text) === null) return { path: null };
    const path = byWord(paths, ({ id, label }) => [id, label], text);
    return path ? { path: path.id } : null;
  },
  handler: (text, { handlerIn }) => {
    if (literalIn(text) === null) return { handler: undefined };
    const handler = handlerIn(text);
    return handler ? { handler } : null;
  },
};
