import { said, type Words } from '@tolvek/words';
import { CalendarDate, Duration } from './calendarTime.ts';
import { typeOf } from './check.ts';
import { printExpression } from './print.ts';
import type { Scope } from './scope.ts';
import type { Comparator, Node, Test } from './tree.ts';
import { kindOf, picksOf, type ScopeType } from './types.ts';

/**
 * Conditions as people build them: rows of “field – test – value” in groups of “all of” and “any
 * of”. Rows are a way to write and read an expression, never a second language: what rows can’t
 * show stays text.
 */
export interface RowGroup {
  readonly kind: 'group';
  readonly join: 'all' | 'any';
  readonly parts: readonly (Row | RowGroup)[];
}

export interface Row {
  readonly kind: 'row';
  /** What is asked about, as an expression: `fee`, `requester.outside`. */
  readonly of: string;
  readonly test: RowTest;
  /** As many as the test takes. */
  readonly values: readonly RowValue[];
}

export type RowTest =
  | 'is'
  | 'is not'
  | 'above'
  | 'at least'
  | 'below'
  | 'at most'
  | 'between'
  | 'one of'
  | 'none of'
  | 'contains'
  | 'starts with'
  | 'has'
  | 'has not'
  | 'in the last days'
  | 'in the next days'
  | 'empty'
  | 'filled in';

/**
 * A value of a row. `today` is today and a number of days more, or fewer; `me` is whoever looks,
 * where somebody does.
 */
export type RowValue =
  | { readonly kind: 'plain'; readonly value: number | string | boolean }
  | { readonly kind: 'date'; readonly iso: string }
  | { readonly kind: 'today'; readonly days: number }
  | { readonly kind: 'me' };

const ORDER: readonly RowTest[] = ['is', 'is not', 'above', 'at least', 'below', 'at most', 'between'];

/** Everything rows can ask about: names, and the parts of groups of values, each with its label. */
export function subjectsOf(
  scope: Scope,
): readonly { readonly of: string; readonly label: Words; readonly type: ScopeType }[] {
  return scope.names.flatMap(({ name, label, type }) => {
    if (type?.kind === 'context')
      return Object.entries(type.entries).flatMap(([part, entry]) =>
        testsFor(entry.type).length > 0
          ? [
              {
                of: `${name}.${part}`,
                label: entry.isFull ? entry.label : said('reasons:part', { part: entry.label, whole: label }),
                type: entry.type,
              },
            ]
          : [],
      );
    return type && name !== 'today' && testsFor(type).length > 0 ? [{ of: name, label, type }] : [];
  });
}

/** A first row about something, to be changed: the likeliest test with a value that fits. */
export function firstRow(of: string, scope: Scope, test?: RowTest): Row {
  const type = typeOf(subject(of), scope);
  const chosen = test ?? testsFor(type)[0] ?? 'is';
  const takes = valuesOf(chosen);
  const count = takes === 'many' ? 1 : takes;
  return { kind: 'row', of, test: chosen, values: Array.from({ length: count }, () => firstValue(type, chosen)) };
}

function firstValue(type: ScopeType | null, test: RowTest): RowValue {
  if (test === 'in the last days' || test === 'in the next days') return { kind: 'plain', value: 7 };
  if (type?.kind === 'date') return { kind: 'today', days: 0 };
  if (type?.kind === 'yes-no') return { kind: 'plain', value: true };
  if (type?.kind === 'number') return { kind: 'plain', value: 0 };
  return { kind: 'plain', value: picksOf(type)[0]?.key ?? '' };
}

/** The tests that make sense for a type, the likeliest first. */
export function testsFor(type: ScopeType | null): readonly RowTest[] {
  switch (type?.kind) {
    case 'yes-no':
      return ['is', 'empty', 'filled in'];
    case 'choice':
    case 'person':
      return ['is', 'is not', 'one of', 'none of', 'empty', 'filled in'];
    case 'number':
      return [...ORDER, 'empty', 'filled in'];
    case 'date':
      return [...ORDER, 'in the last days', 'in the next days', 'empty', 'filled in'];
    case 'text':
      return ['is', 'is not', 'contains', 'starts with', 'empty', 'filled in'];
    case 'list':
      return type.of?.kind === 'text' || type.of?.kind === 'choice' ? ['has', 'has not'] : [];
    default:
      return [];
  }
}

/** How many values a test takes; `many` is one or more. */
export function valuesOf(test: RowTest): 0 | 1 | 2 | 'many' {
  switch (test) {
    case 'empty':
    case 'filled in':
      return 0;
    case 'between':
      return 2;
    case 'one of':
    case 'none of':
      return 'many';
    default:
      return 1;
  }
}

const COMPARED: Readonly<Partial<Record<RowTest, Comparator>>> = {
  is: '=',
  'is not': '!=',
  above: '>',
  'at least': '>=',
  below: '<',
  'at most': '<=',
};
const TEST_OF: ReadonlyMap<Comparator, RowTest> = new Map(
  Object.entries(COMPARED).map(([test, op]) => [op, test as RowTest]),
);

const at = { from: 0, to: 0 };
const call = (name: string, ...args: readonly Node[]): Node => ({ kind: 'call', name, args, ...at });
const today: Node = { kind: 'name', name: 'today', ...at };
const days = (count: number): Node => ({ kind: 'moment', value: new Duration(count * 86_400), ...at });
const shifted = (op: '+' | '-', count: number): Node => ({
  kind: 'arithmetic',
  op,
  left: today,
  right: days(count),
  ...at,
});
const todayPlus = (count: number): Node => (count === 0 ? today : shifted(count > 0 ? '+' : '-', Math.abs(count)));

function valueNode(value: RowValue): Node {
  if (value.kind === 'plain') return { kind: 'literal', value: value.value, ...at };
  if (value.kind === 'me') return { kind: 'name', name: 'me', ...at };
  return value.kind === 'today'
    ? todayPlus(value.days)
    : { kind: 'moment', value: CalendarDate.read(value.iso) ?? new CalendarDate(0), ...at };
}

function subject(of: string): Node {
  const [name = '', ...parts] = of.split('.');
  return parts.reduce<Node>((node, part) => ({ kind: 'path', of: node, name: part, ...at }), {
    kind: 'name',
    name,
    ...at,
  });
}

/** What a row asks about, as an expression. */
export const subjectOf = (row: Row): Node => subject(row.of);

function rowNode({ of, test, values }: Row): Node {
  const about = subject(of);
  const [first, second] = values.map(valueNode);
  const op = COMPARED[test];
  const nothing: Node = { kind: 'literal', value: null, ...at };
  if (op) return { kind: 'compare', op, left: about, right: first ?? nothing, ...at };
  const count = values[0]?.kind === 'plain' ? Number(values[0].value) : 0;
  switch (test) {
    case 'between':
      return { kind: 'between', of: about, low: first ?? nothing, high: second ?? nothing, ...at };
    case 'in the last days':
      return { kind: 'between', of: about, low: shifted('-', count), high: today, ...at };
    case 'in the next days':
      return { kind: 'between', of: about, low: today, high: shifted('+', count), ...at };
    case 'contains':
    case 'starts with':
      return call(test, about, first ?? nothing);
    case 'has':
      return call('list contains', about, first ?? nothing);
    case 'has not':
      return call('not', call('list contains', about, first ?? nothing));
    case 'empty':
    case 'filled in':
      return { kind: 'compare', op: test === 'empty' ? '=' : '!=', left: about, right: nothing, ...at };
    default: {
      const among: Node = {
        kind: 'in',
        of: about,
        tests: values.map((value): Test => ({ kind: 'equal', operand: valueNode(value), ...at })),
        ...at,
      };
      return test === 'none of' ? call('not', among) : among;
    }
  }
}

/** The expression that rows stand for; an empty group holds always, as nothing is asked. */
export function expressionOfRows(part: Row | RowGroup): Node {
  if (part.kind === 'row') return rowNode(part);
  const [first, ...rest] = part.parts.map(expressionOfRows);
  if (!first) return { kind: 'literal', value: true, ...at };
  return rest.reduce<Node>((left, right) => ({ kind: part.join === 'all' ? 'and' : 'or', left, right, ...at }), first);
}

/** The rows that say the same as an expression; null when it says more than rows can. */
export function rowsOf(node: Node, scope: Scope): RowGroup | null {
  const part = partOf(node, scope);
  if (!part) return null;
  return part.kind === 'group' ? part : { kind: 'group', join: 'all', parts: [part] };
}

function partOf(node: Node, scope: Scope): Row | RowGroup | null {
  if (node.kind === 'literal' && node.value === true) return { kind: 'group', join: 'all', parts: [] };
  if (node.kind !== 'and' && node.kind !== 'or') return rowOf(node, scope);
  const parts = joined(node, node.kind).map((each) => partOf(each, scope));
  return parts.every((part) => part !== null)
    ? { kind: 'group', join: node.kind === 'and' ? 'all' : 'any', parts }
    : null;
}

const joined = (node: Node, kind: 'and' | 'or'): readonly Node[] =>
  node.kind === kind ? [...joined(node.left, kind), node.right] : [node];

/** The row that says the same as an expression that joins nothing; null when no row does. */
export function rowOf(node: Node, scope: Scope): Row | null {
  const row = shapeOf(node);
  if (!row) return null;
  const type = typeOf(subject(row.of), scope);
  const hasMe = scope.find('me') !== undefined;
  return testsFor(type).includes(row.test) &&
    row.values.every((value) => (value.kind === 'me' ? hasMe && type?.kind === 'person' : fits(value, row.test, type)))
    ? row
    : null;
}

/** A row’s value must be one its editor can show. */
function fits(value: Exclude<RowValue, { kind: 'me' }>, test: RowTest, type: ScopeType | null): boolean {
  if (test === 'in the last days' || test === 'in the next days')
    return value.kind === 'plain' && Number.isInteger(value.value) && Number(value.value) >= 0;
  if (type?.kind === 'date') return value.kind !== 'plain';
  if (value.kind !== 'plain') return false;
  if (type?.kind === 'choice') return type.options.some((option) => option.key === value.value);
  if (type?.kind === 'list' && type.of?.kind === 'choice')
    return picksOf(type).some((pick) => pick.key === value.value);
  const wanted = type?.kind === 'list' ? 'text' : kindOf(type);
  return (
    (wanted === 'number' && typeof value.value === 'number') ||
    (wanted === 'text' && typeof value.value === 'string') ||
    (wanted === 'yes-no' && typeof value.value === 'boolean')
  );
}

function shapeOf(node: Node): Row | null {
  switch (node.kind) {
    case 'name':
    case 'path':
      return row(node, 'is', [{ kind: 'plain', value: true }]);
    case 'compare': {
      if (node.right.kind === 'literal' && node.right.value === null)
        return node.op === '='
          ? row(node.left, 'empty', [])
          : node.op === '!='
            ? row(node.left, 'filled in', [])
            : null;
      return row(node.left, TEST_OF.get(node.op) ?? 'is', [valueIn(node.right)]);
    }
    case 'between': {
      const [low, high] = [valueIn(node.low), valueIn(node.high)];
      if (low?.kind === 'today' && high?.kind === 'today') {
        if (high.days === 0 && low.days < 0)
          return row(node.of, 'in the last days', [{ kind: 'plain', value: -low.days }]);
        if (low.days === 0 && high.days > 0)
          return row(node.of, 'in the next days', [{ kind: 'plain', value: high.days }]);
      }
      return row(node.of, 'between', [low, high]);
    }
    case 'in':
      return row(
        node.of,
        'one of',
        node.tests.map((test) => (test.kind === 'equal' ? valueIn(test.operand) : null)),
      );
    case 'call':
      return callRow(node);
    default:
      return null;
  }
}

function callRow(node: Node & { kind: 'call' }): Row | null {
  const [first, second] = node.args;
  if (node.name === 'not' && first) {
    const inner =
      first.kind === 'in' || (first.kind === 'call' && first.name === 'list contains') ? shapeOf(first) : null;
    return inner && { ...inner, test: inner.test === 'has' ? 'has not' : 'none of' };
  }
  if (!first || !second) return null;
  if (node.name === 'contains' || node.name === 'starts with') return row(first, node.name, [valueIn(second)]);
  return node.name === 'list contains' ? row(first, 'has', [valueIn(second)]) : null;
}

function row(about: Node, test: RowTest, values: readonly (RowValue | null)[]): Row | null {
  const isPlace = about.kind === 'name' || (about.kind === 'path' && about.of.kind === 'name');
  const known = values.flatMap((value) => value ?? []);
  return isPlace && known.length === values.length
    ? { kind: 'row', of: printExpression(about), test, values: known }
    : null;
}

function valueIn(node: Node): RowValue | null {
  if (node.kind === 'literal') return node.value === null ? null : { kind: 'plain', value: node.value };
  if (node.kind === 'moment')
    return node.value instanceof CalendarDate ? { kind: 'date', iso: node.value.toString() } : null;
  if (node.kind === 'name')
    return node.name === 'today' ? { kind: 'today', days: 0 } : node.name === 'me' ? { kind: 'me' } : null;
  if (
    node.kind !== 'arithmetic' ||
    node.left.kind !== 'name' ||
    node.left.name !== 'today' ||
    node.right.kind !== 'moment'
  )
    return null;
  const { value } = node.right;
  if (
    !(value instanceof Duration) ||
    value.seconds <= 0 ||
    value.seconds % 86_400 !== 0 ||
    (node.op !== '+' && node.op !== '-')
  )
    return null;
  return { kind: 'today', days: (value.seconds / 86_400) * (node.op === '+' ? 1 : -1) };
}

/**
 * The tests of a table cell as one row about its column; null when the cell says more. An empty
 * cell is no row at all.
 */
export function rowOfCell(tests: readonly Test[], of: string, scope: Scope): Row | null {
  const about = subject(of);
  const [only] = tests;
  if (tests.length !== 1 || !only) return rowOf({ kind: 'in', of: about, tests, ...at }, scope);
  switch (only.kind) {
    case 'compare':
      return rowOf({ kind: 'compare', op: only.op, left: about, right: only.operand, ...at }, scope);
    case 'equal':
      return rowOf({ kind: 'compare', op: '=', left: about, right: only.operand, ...at }, scope);
    case 'range':
      return only.lowOpen || only.highOpen
        ? null
        : rowOf({ kind: 'between', of: about, low: only.low, high: only.high, ...at }, scope);
    case 'not': {
      const inner = only.tests.length === 1 && only.tests[0]?.kind === 'equal' ? only.tests[0] : null;
      if (inner) return rowOf({ kind: 'compare', op: '!=', left: about, right: inner.operand, ...at }, scope);
      return rowOf(call('not', { kind: 'in', of: about, tests: only.tests, ...at }), scope);
    }
    default:
      return null;
  }
}

/**
 * The tests that a row about a column stands for. A test that a cell has no short form for is
 * written with `?`.
 */
export function cellOfRow(row: Row): readonly Test[] {
  const equal = (operand: Node): Test => ({ kind: 'equal', operand, ...at });
  const [first, second] = row.values.map(valueNode);
  const op = COMPARED[row.test];
  if (row.test === 'is' && first) return [equal(first)];
  if (row.test === 'is not' && first) return [{ kind: 'not', tests: [equal(first)], ...at }];
  if (op && first) return [{ kind: 'compare', op, operand: first, ...at }];
  switch (row.test) {
    case 'between':
      return first && second
        ? [{ kind: 'range', low: first, high: second, lowOpen: false, highOpen: false, ...at }]
        : [];
    case 'one of':
      return row.values.map((value) => equal(valueNode(value)));
    case 'none of':
      return [{ kind: 'not', tests: row.values.map((value) => equal(valueNode(value))), ...at }];
    case 'empty':
      return [equal({ kind: 'literal', value: null, ...at })];
    case 'filled in':
      return [{ kind: 'not', tests: [equal({ kind: 'literal', value: null, ...at })], ...at }];
    default: {
      const node = rowNode({ ...row, of: '?' });
      return [{ kind: 'condition', node: askingInput(node), ...at }];
    }
  }
}

/** The same node about the cell’s own value instead of a name. */
function askingInput(node: Node): Node {
  if (node.kind === 'name' && node.name === '?') return { kind: 'input', ...at };
  if (node.kind === 'call') return { ...node, args: node.args.map(askingInput) };
  return node.kind === 'between' ? { ...node, of: askingInput(node.of) } : node;
}

/** The label of what a row asks about. */
export const labelOfSubject = (of: string, scope: Scope): Words =>
  subjectsOf(scope).find((each) => each.of === of)?.label ?? of;

export const typeOfSubject = (of: string, scope: Scope): ScopeType | null => typeOf(subject(of), scope);
