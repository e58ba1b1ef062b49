import * as fc from 'fast-check';
import { CalendarDate, ClockTime, DateTime, Duration, Months } from '../src/expression/calendarTime.ts';
import { BUILT_INS } from '../src/expression/functions/index.ts';
import { Scope } from '../src/expression/scope.ts';
import type { Node, Test } from '../src/expression/tree.ts';
import type { ScopeType, TypeKind } from '../src/expression/types.ts';
import type { Temporal, Value } from '../src/expression/value.ts';

/** A scope with names of every kind, for laws that hold for all expressions. */
export const lawScope = new Scope([
  { name: 'n', label: 'Fee in EUR', type: { kind: 'number', places: 2 } },
  { name: 'm', label: 'Places', type: { kind: 'number', places: 0 } },
  { name: 't', label: 'Remark', type: { kind: 'text' } },
  {
    name: 'k',
    label: 'Institute',
    type: { kind: 'choice', options: ['corrin', 'merrow', 'other'].map((key) => ({ key, label: key.toUpperCase() })) },
  },
  { name: 'b', label: 'Works on water', type: { kind: 'yes-no' } },
  { name: 'c', label: 'Escort (if any)', type: { kind: 'yes-no' } },
  { name: 'd', label: 'Arrival', type: { kind: 'date' } },
  { name: 'e', label: 'Departure', type: { kind: 'date' } },
  { name: 'h', label: 'Hour', type: { kind: 'time' } },
  { name: 'w', label: 'Moment', type: { kind: 'date-time' } },
  { name: 'p', label: 'Length', type: { kind: 'duration' } },
  { name: 'y', label: 'Age', type: { kind: 'months' } },
  { name: 'ns', label: 'Figures', type: { kind: 'list', of: { kind: 'number' } } },
  { name: 'ts', label: 'Groups', type: { kind: 'list', of: { kind: 'text' } } },
  {
    name: 'rows',
    label: 'Line items',
    type: {
      kind: 'list',
      of: {
        kind: 'context',
        entries: {
          price: { label: 'Price', type: { kind: 'number' } },
          kept: { label: 'Kept', type: { kind: 'yes-no' } },
        },
      },
    },
  },
  {
    name: 'who',
    label: 'Requester',
    type: {
      kind: 'context',
      entries: {
        outside: { label: 'from outside', type: { kind: 'yes-no' } },
        level: { label: 'level', type: { kind: 'number' } },
      },
    },
  },
]);

const at = { from: 0, to: 0 };
const number = fc.oneof(
  fc.integer({ min: -20, max: 20 }),
  fc.integer({ min: -2_000, max: 2_000 }).map((cents) => cents / 100),
);
const text = fc.constantFrom('', 'a', 'b', 'ab', 'corrin', 'merrow', 'naïve', 'Z', '“q”', 'x y');
const date = fc.integer({ min: 20_000, max: 21_500 }).map((day) => new CalendarDate(day));
const time = fc.integer({ min: 0, max: 86_399 }).map((seconds) => new ClockTime(seconds));
const moment = fc.tuple(date, time).map(([day, clock]) => DateTime.of(day, clock));
const duration = fc.integer({ min: -400_000, max: 400_000 }).map((seconds) => new Duration(seconds));
const months = fc.integer({ min: -30, max: 30 }).map((count) => new Months(count));
const orEmpty = (arbitrary: fc.Arbitrary<Value>): fc.Arbitrary<Value> =>
  fc.oneof({ weight: 5, arbitrary }, { weight: 1, arbitrary: fc.constant(null) });

/** Values for `lawScope`, by slot, some of them empty. */
export const anyValues: fc.Arbitrary<readonly Value[]> = fc.tuple(
  orEmpty(number),
  orEmpty(fc.integer({ min: -5, max: 12 })),
  orEmpty(text),
  orEmpty(fc.constantFrom('corrin', 'merrow', 'other')),
  orEmpty(fc.boolean()),
  orEmpty(fc.boolean()),
  orEmpty(date),
  orEmpty(date),
  orEmpty(time),
  orEmpty(moment),
  orEmpty(duration),
  orEmpty(months),
  orEmpty(fc.array(number, { maxLength: 4 })),
  orEmpty(fc.array(text, { maxLength: 3 })),
  orEmpty(fc.array(fc.record({ price: number, kept: fc.boolean() }), { maxLength: 3 })),
  orEmpty(fc.constant({ open: [true, true, true, true, true, false, false], closed: ['2026-12-25'] })),
  orEmpty(fc.record({ outside: fc.boolean(), level: number })),
);

const literal = (value: number | string | boolean | null): Node => ({ kind: 'literal', value, ...at });
const momentNode = (value: Temporal): Node => ({ kind: 'moment', value, ...at });
const name = (written: string): Node => ({ kind: 'name', name: written, ...at });

interface Local {
  readonly name: string;
  readonly kind: TypeKind;
}

const LEAVES: Readonly<Partial<Record<TypeKind, fc.Arbitrary<Node>>>> = {
  number: fc.oneof(
    number.map((value) => literal(value)),
    fc.constantFrom(name('n'), name('m'), { kind: 'path', of: name('who'), name: 'level', ...at } as Node),
  ),
  text: fc.oneof(text.map(literal), fc.constantFrom(name('t'), name('k'))),
  'yes-no': fc.oneof(
    fc.boolean().map(literal),
    fc.constantFrom(name('b'), name('c'), { kind: 'path', of: name('who'), name: 'outside', ...at } as Node),
  ),
  date: fc.oneof(date.map(momentNode), fc.constantFrom(name('d'), name('e'))),
  time: fc.oneof(time.map(momentNode), fc.constant(name('h'))),
  'date-time': fc.oneof(moment.map(momentNode), fc.constant(name('w'))),
  duration: fc.oneof(duration.map(momentNode), fc.constant(name('p'))),
  months: fc.oneof(months.map(momentNode), fc.constant(name('y'))),
  list: fc.oneof(
    fc.constantFrom(name('ns'), name('ts')),
    fc.array(number.map(literal), { maxLength: 4 }).map((items): Node => ({ kind: 'list', items, ...at })),
  ),
};

const ORDERED: readonly TypeKind[] = ['number', 'text', 'date', 'time', 'date-time', 'duration', 'months'];
const KINDS: readonly TypeKind[] = [...ORDERED, 'yes-no', 'list'];
const comparator = fc.constantFrom('=', '!=', '<', '<=', '>', '>=' as const);

interface Options {
  /** Share of places, in per cent, that hold an expression of another kind than they ask for. */
  readonly wild: number;
  /** Functions that may be called. */
  readonly calls: (name: string) => boolean;
}

/** Expressions of a kind over `lawScope`, whole language. */
export function anyExpression(
  kind: TypeKind,
  options: Options = { wild: 10, calls: () => true },
  depth = 3,
  locals: readonly Local[] = [],
): fc.Arbitrary<Node> {
  const of = (wanted: TypeKind, more: readonly Local[] = locals): fc.Arbitrary<Node> => {
    const right = anyExpression(wanted, options, depth - 1, more);
    if (options.wild === 0) return right;
    return fc.oneof(
      { weight: 100 - options.wild, arbitrary: right },
      {
        weight: options.wild,
        arbitrary: fc
          .constantFrom(...KINDS)
          .chain((other) => anyExpression(other, options, Math.min(depth - 1, 1), more)),
      },
    );
  };
  const leaf = LEAVES[kind] ?? fc.constant(literal(null));
  const bound = locals.filter((local) => local.kind === kind).map((local) => name(local.name));
  const small = bound.length > 0 ? fc.oneof(leaf, fc.constantFrom(...bound)) : leaf;
  if (depth <= 0) return small;
  const more: fc.Arbitrary<Node>[] = [
    small,
    fc
      .tuple(of('yes-no'), of(kind), of(kind))
      .map(([test, whenTrue, otherwise]): Node => ({ kind: 'if', test, whenTrue, otherwise, ...at })),
  ];
  const add = (...arbitraries: fc.Arbitrary<Node>[]): void => void more.push(...arbitraries);
  const arithmetic = (
    ops: readonly ('+' | '-' | '*' | '/' | '**')[],
    left: TypeKind,
    right: TypeKind,
  ): fc.Arbitrary<Node> =>
    fc
      .tuple(fc.constantFrom(...ops), of(left), of(right))
      .map(([op, a, b]): Node => ({ kind: 'arithmetic', op, left: a, right: b, ...at }));
  const fresh = `x${locals.length}`;
  const over = (over: fc.Arbitrary<Node>) =>
    over.map((list) => [{ name: fresh, over: { kind: 'list' as const, list } }]);
  switch (kind) {
    case 'number':
      add(
        arithmetic(['+', '-', '*', '/'], 'number', 'number'),
        of('number').map((node): Node => (node.kind === 'literal' ? node : { kind: 'negate', of: node, ...at })),
      );
      add(
        fc
          .tuple(of('list'), fc.integer({ min: -2, max: 4 }))
          .map(([list, index]): Node => ({ kind: 'filter', list, by: literal(index), ...at })),
      );
      break;
    case 'text':
      add(arithmetic(['+'], 'text', 'text'));
      break;
    case 'date':
      add(arithmetic(['+', '-'], 'date', 'duration'), arithmetic(['+', '-'], 'date', 'months'));
      break;
    case 'duration':
      add(arithmetic(['-'], 'date', 'date'), arithmetic(['+', '-'], 'duration', 'duration'));
      break;
    case 'list':
      add(
        fc.array(of('number'), { maxLength: 3 }).map((items): Node => ({ kind: 'list', items, ...at })),
        fc
          .tuple(over(of('list')), of('number', [...locals, { name: fresh, kind: 'number' }]))
          .map(([loop, gives]): Node => ({ kind: 'for', over: loop, gives, ...at })),
        fc
          .tuple(of('list'), of('yes-no', [...locals, { name: 'item', kind: 'number' }]))
          .map(([list, by]): Node => ({ kind: 'filter', list, by, ...at })),
        fc.constant<Node>({ kind: 'path', of: name('rows'), name: 'price', ...at }),
      );
      break;
    case 'yes-no':
      add(
        fc
          .tuple(fc.constantFrom('and', 'or' as const), of('yes-no'), of('yes-no'))
          .map(([op, left, right]): Node => ({ kind: op, left, right, ...at })),
        fc
          .constantFrom(...ORDERED)
          .chain((each) =>
            fc
              .tuple(comparator, of(each), of(each))
              .map(([op, left, right]): Node => ({ kind: 'compare', op, left, right, ...at })),
          ),
        fc
          .constantFrom<TypeKind>('number', 'date', 'text')
          .chain((each) =>
            fc
              .tuple(of(each), of(each), of(each))
              .map(([node, low, high]): Node => ({ kind: 'between', of: node, low, high, ...at })),
          ),
        fc
          .constantFrom<TypeKind>('number', 'date', 'text')
          .chain((each) =>
            fc
              .tuple(of(each), anyTests(of(each)))
              .map(([node, tests]): Node => ({ kind: 'in', of: node, tests, ...at })),
          ),
        fc
          .tuple(
            fc.constantFrom('some', 'every' as const),
            over(of('list')),
            of('yes-no', [...locals, { name: fresh, kind: 'number' }]),
          )
          .map(([which, loop, test]): Node => ({ kind: which, over: loop, test, ...at })),
      );
      break;
    default:
  }
  const callable = [...BUILT_INS.values()].filter(
    (each) => options.calls(each.name) && givesKind(each.gives([]), kind),
  );
  if (callable.length > 0) {
    add(
      fc.constantFrom(...callable).chain((each) => {
        const args = each.spreads
          ? [of('list')]
          : each.takes
              .filter((param) => !param.optional)
              .map(({ kinds }) =>
                fc.constantFrom(...kinds).chain((wanted) => of(wanted === 'unknown' ? 'number' : wanted)),
              );
        return fc.tuple(...args).map(
          (given): Node => ({
            kind: 'call',
            name: each.name,
            args: (given as Node[]).map((arg) => (isMaker(each.name) && arg.kind === 'literal' ? name('t') : arg)),
            ...at,
          }),
        );
      }),
    );
  }
  return fc.oneof(...more);
}

/** Their literal texts are read with the expression, so that a wrong one is a finding. */
const isMaker = (called: string): boolean => ['date', 'time', 'date and time', 'duration'].includes(called);

const givesKind = (type: ScopeType | null, kind: TypeKind): boolean => (type?.kind ?? 'number') === kind;

/** Tests of a cell, over operands of one kind. */
export function anyTests(operand: fc.Arbitrary<Node>): fc.Arbitrary<readonly Test[]> {
  const test: fc.Arbitrary<Test> = fc.oneof(
    fc
      .tuple(fc.constantFrom('<', '<=', '>', '>=' as const), operand)
      .map(([op, node]): Test => ({ kind: 'compare', op, operand: node, ...at })),
    operand
      .filter((node) => !['compare', 'and', 'or', 'between', 'in', 'some', 'every', 'range'].includes(node.kind))
      .map((node): Test => ({ kind: 'equal', operand: node, ...at })),
    fc
      .tuple(operand, operand, fc.boolean(), fc.boolean())
      .map(([low, high, lowOpen, highOpen]): Test => ({ kind: 'range', low, high, lowOpen, highOpen, ...at })),
  );
  return fc.array(test, { minLength: 1, maxLength: 3 });
}

/** The same tree with every place set to nothing, for comparing shapes. */
export const withoutPlaces = <T>(tree: T): T =>
  JSON.parse(
    JSON.stringify(tree, (key, value) =>
      key === 'from' || key === 'to'
        ? undefined
        : typeof value === 'object' && value !== null && 'day' in value
          ? `day ${value.day}`
          : value,
    ),
  );
