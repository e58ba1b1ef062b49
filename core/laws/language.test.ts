import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  checkExpression,
  compile,
  kindOf,
  parseExpression,
  parseTests,
  printExpression,
  printTests,
  Scope,
  typeOf,
} from '../src/expression/index.ts';
import { isOfKind, type TypeKind } from '../src/expression/types.ts';
import { anyExpression, anyTests, anyValues, lawScope, withoutPlaces } from './anyExpression.ts';
import { often } from './often.ts';

const anyKind = fc.constantFrom<TypeKind>('yes-no', 'number', 'text', 'date', 'list', 'duration');
const anyTree = anyKind.chain((kind) => anyExpression(kind));
const RUNS = { numRuns: often(600) };

describe('every expression', () => {
  it('is written so that it reads back as the same tree, by keys and by labels', () => {
    fc.assert(
      fc.property(anyTree, fc.boolean(), (tree, byLabels) => {
        const text = printExpression(tree, byLabels ? lawScope : undefined);
        const back = parseExpression(text, lawScope);
        expect(back.ok ? withoutPlaces(back.value) : [text, back.findings]).toEqual(withoutPlaces(tree));
      }),
      RUNS,
    );
  });

  it('ends with a value and never throws, whatever it is given', () => {
    fc.assert(
      fc.property(anyTree, anyValues, (tree, values) => {
        expect(compile(tree, lawScope)(values, null)).not.toBe(undefined);
      }),
      RUNS,
    );
  });

  it('that has no findings gives what its type says, or empty', () => {
    let known = 0;
    fc.assert(
      fc.property(
        anyKind.chain((kind) => anyExpression(kind, { wild: 0, calls: () => true })),
        anyValues,
        (tree, values) => {
          if (checkExpression(tree, lawScope).length > 0) return;
          const kind = kindOf(typeOf(tree, lawScope));
          const value = compile(tree, lawScope)(values, null);
          if (value !== null && kind !== 'unknown') {
            known += 1;
            expect([printExpression(tree), isOfKind(value, kind)]).toEqual([printExpression(tree), true]);
          }
        },
      ),
      { numRuns: often(1_000) },
    );
    expect(known).toBeGreaterThan(often(500));
  });

  it('means the same after every label was changed', () => {
    const renamed = new Scope(lawScope.names.map((entry, index) => ({ ...entry, label: `Renamed ${index}` })));
    fc.assert(
      fc.property(anyTree, anyValues, (tree, values) => {
        const stored = printExpression(tree);
        const shown = printExpression(tree, renamed);
        const back = parseExpression(shown, renamed);
        if (!back.ok) throw new Error(shown);
        expect(printExpression(back.value)).toBe(stored);
        expect(compile(back.value, renamed)(values, null)).toEqual(compile(tree, lawScope)(values, null));
      }),
      { numRuns: often(300) },
    );
  });
});

describe('every table cell', () => {
  it('is written so that it reads back as the same tests', () => {
    const operand = anyExpression('number', { wild: 0, calls: () => false }, 1);
    fc.assert(
      fc.property(anyTests(operand), (tests) => {
        const back = parseTests(printTests(tests));
        expect(back.ok ? withoutPlaces(back.value) : [printTests(tests), back.findings]).toEqual(withoutPlaces(tests));
      }),
      RUNS,
    );
  });
});
