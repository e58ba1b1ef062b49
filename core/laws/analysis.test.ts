import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Example, implies, overlapOf, verdictOn } from '../src/expression/analyse/index.ts';
import { compile, type Node, printExpression, Scope, type Test, type Value } from '../src/expression/index.ts';
import { often } from './often.ts';

/** A scope so small that every case can be tried. */
const scope = new Scope([
  { name: 'fee', label: 'Fee', type: { kind: 'number', places: 0, least: 0, most: 4 } },
  {
    name: 'from',
    label: 'From',
    type: { kind: 'choice', options: ['corrin', 'merrow', 'other'].map((key) => ({ key, label: key })) },
  },
  { name: 'water', label: 'Water', type: { kind: 'yes-no' } },
]);
const DOMAINS: readonly (readonly Value[])[] = [
  [null, 0, 1, 2, 3, 4],
  [null, 'corrin', 'merrow', 'other'],
  [null, true, false],
];
const CASES = DOMAINS.reduce<readonly (readonly Value[])[]>(
  (cases, values) => cases.flatMap((one) => values.map((value) => [...one, value])),
  [[]],
);

const at = { from: 0, to: 0 };
const literal = (value: number | string | boolean | null): Node => ({ kind: 'literal', value, ...at });
const name = (key: string): Node => ({ kind: 'name', name: key, ...at });
const figure = fc.oneof(fc.integer({ min: -1, max: 5 }), fc.constant(2.5)).map(literal);
const place = fc.constantFrom('corrin', 'merrow', 'other', 'elsewhere').map(literal);
const comparator = fc.constantFrom('=', '!=', '<', '<=', '>', '>=' as const);
const test: fc.Arbitrary<Test> = fc.oneof(
  fc
    .tuple(
      comparator.filter((op) => op !== '=' && op !== '!='),
      figure,
    )
    .map(([op, operand]): Test => ({ kind: 'compare', op, operand, ...at })),
  figure.map((operand): Test => ({ kind: 'equal', operand, ...at })),
  fc
    .tuple(figure, figure, fc.boolean(), fc.boolean())
    .map(([low, high, lowOpen, highOpen]): Test => ({ kind: 'range', low, high, lowOpen, highOpen, ...at })),
);
const atom: fc.Arbitrary<Node> = fc.oneof(
  fc
    .tuple(comparator, figure, fc.boolean())
    .map(
      ([op, to, turned]): Node =>
        turned
          ? { kind: 'compare', op, left: to, right: name('fee'), ...at }
          : { kind: 'compare', op, left: name('fee'), right: to, ...at },
    ),
  fc.tuple(figure, figure).map(([low, high]): Node => ({ kind: 'between', of: name('fee'), low, high, ...at })),
  fc.array(test, { minLength: 1, maxLength: 3 }).map((tests): Node => ({ kind: 'in', of: name('fee'), tests, ...at })),
  fc
    .tuple(fc.constantFrom('=', '!=' as const), place)
    .map(([op, right]): Node => ({ kind: 'compare', op, left: name('from'), right, ...at })),
  fc.array(place, { minLength: 1, maxLength: 2 }).map(
    (places): Node => ({
      kind: 'in',
      of: name('from'),
      tests: places.map((operand): Test => ({ kind: 'equal', operand, ...at })),
      ...at,
    }),
  ),
  fc
    .tuple(fc.constantFrom('fee', 'from', 'water'), fc.constantFrom('=', '!=' as const))
    .map(([key, op]): Node => ({ kind: 'compare', op, left: name(key), right: literal(null), ...at })),
  fc.constant(name('water')),
  fc.boolean().map(literal),
);
const { condition } = fc.letrec<{ condition: Node }>((tie) => ({
  condition: fc.oneof(
    { depthSize: 'medium', withCrossShrink: true },
    atom,
    fc
      .tuple(fc.constantFrom('and', 'or' as const), tie('condition'), tie('condition'))
      .map(([kind, left, right]): Node => ({ kind, left, right, ...at })),
    tie('condition').map((of): Node => ({ kind: 'call', name: 'not', args: [of], ...at })),
  ),
}));

const holds = (node: Node, values: readonly Value[]): boolean => compile(node, scope)(values, null) === true;
/** The values of an example; what it does not name may be anything, so it is left empty. */
const valuesOf = (example: Example): readonly Value[] => scope.names.map((entry) => example.get(entry.name) ?? null);
const RUNS = { numRuns: often(700) };

describe('what is said of a condition', () => {
  it('is what trying every case says: always, never, or sometimes with a case each way', () => {
    const said = new Map<string, number>();
    fc.assert(
      fc.property(condition, (node) => {
        const verdict = verdictOn(node, scope);
        if (!verdict) throw new Error(`Too many cases: ${printExpression(node)}`);
        const holding = CASES.filter((values) => holds(node, values)).length;
        expect([printExpression(node), verdict.kind]).toEqual([
          printExpression(node),
          holding === 0 ? 'never' : holding === CASES.length ? 'always' : 'sometimes',
        ]);
        said.set(verdict.kind, (said.get(verdict.kind) ?? 0) + 1);
        if (verdict.holdsFor)
          expect([printExpression(node), holds(node, valuesOf(verdict.holdsFor))]).toEqual([
            printExpression(node),
            true,
          ]);
        if (verdict.failsFor)
          expect([printExpression(node), holds(node, valuesOf(verdict.failsFor))]).toEqual([
            printExpression(node),
            false,
          ]);
      }),
      RUNS,
    );
    expect([...said.values()].every((times) => times > 20)).toBe(true);
  });

  it('finds that one implies another, or a case where it does not', () => {
    fc.assert(
      fc.property(condition, condition, (one, other) => {
        const answer = implies(one, other, scope);
        const implied = CASES.every((values) => !holds(one, values) || holds(other, values));
        expect(answer?.implied).toBe(implied);
        if (answer && !answer.implied)
          expect([holds(one, valuesOf(answer.unless)), holds(other, valuesOf(answer.unless))]).toEqual([true, false]);
      }),
      RUNS,
    );
  });

  it('finds a case where two hold together, or that there is none', () => {
    fc.assert(
      fc.property(condition, condition, (one, other) => {
        const answer = overlapOf(one, other, scope);
        expect(answer?.never).toBe(!CASES.some((values) => holds(one, values) && holds(other, values)));
        if (answer && !answer.never)
          expect([holds(one, valuesOf(answer.both)), holds(other, valuesOf(answer.both))]).toEqual([true, true]);
      }),
      RUNS,
    );
  });

  it('is nothing where a part is not understood, unless that part does not matter', () => {
    const parsed = (text: string): Node => ({
      kind: 'compare',
      op: '>',
      left: { kind: 'call', name: 'string length', args: [name(text)], ...at },
      right: literal(3),
      ...at,
    });
    const opaque = parsed('from');
    expect(verdictOn(opaque, scope)).toBe(null);
    expect(verdictOn({ kind: 'or', left: opaque, right: literal(true), ...at }, scope)?.kind).toBe('always');
    expect(verdictOn({ kind: 'and', left: opaque, right: literal(false), ...at }, scope)?.kind).toBe('never');
    expect(implies({ kind: 'and', left: opaque, right: name('water'), ...at }, name('water'), scope)).toEqual({
      implied: true,
    });
  });
});
