import { describe, expect, it } from 'vitest';
import { type Node, parseExpression, printExpression, type Test } from '../src/expression/index.ts';

/**
 * How tightly each operator binds, as the standard’s grammar orders its rules (OMG DMN 1.5,
 * 10.3.1.2, rules 1–5: disjunction, conjunction, comparison, arithmetic); written down here by
 * hand. The grammar’s shared parser reads `in` otherwise, and so does every reader made with it:
 * agreement with one of them shows nothing.
 */
const BINDS: Readonly<Record<string, number>> = {
  or: 1,
  and: 2,
  '=': 3,
  '!=': 3,
  '<': 3,
  '>=': 3,
  'between 1 and': 3,
  in: 3,
  'in >': 3,
  '+': 4,
  '-': 4,
  '*': 5,
  '/': 5,
  '**': 6,
};
const OPERATORS = Object.keys(BINDS);
const OPERANDS = ['a', 'b', 'c', 'd'] as const;

/** A tree as text: `(or a (in b c))`. */
type Shape = string | readonly [operator: string, left: Shape, right: Shape];
const said = (shape: Shape): string =>
  typeof shape === 'string' ? shape : `(${shape[0]} ${said(shape[1])} ${said(shape[2])})`;

/** Splits at the operator that binds least; of several alike, at the last. */
function byTable(operands: readonly string[], operators: readonly string[]): Shape {
  if (operators.length === 0) return operands[0] ?? '';
  const weakest = Math.min(...operators.map((operator) => BINDS[operator] ?? 0));
  const at = operators.findLastIndex((operator) => BINDS[operator] === weakest);
  return [
    operators[at] ?? '',
    byTable(operands.slice(0, at + 1), operators.slice(0, at)),
    byTable(operands.slice(at + 1), operators.slice(at + 1)),
  ];
}

/** Every way to put brackets: all trees over the operators in their order. */
function allTrees(operands: readonly string[], operators: readonly string[]): readonly Shape[] {
  if (operators.length === 0) return [operands[0] ?? ''];
  return operators.flatMap((operator, at) =>
    allTrees(operands.slice(0, at + 1), operators.slice(0, at)).flatMap((left) =>
      allTrees(operands.slice(at + 1), operators.slice(at + 1)).map((right): Shape => [operator, left, right]),
    ),
  );
}

const bracketed = (shape: Shape): string =>
  typeof shape === 'string' ? shape : `(${bracketed(shape[1])} ${shape[0]} ${bracketed(shape[2])})`;

/** A node as the same text, read off by hand. */
function shapeOf(node: Node): Shape {
  switch (node.kind) {
    case 'name':
      return node.name;
    case 'and':
    case 'or':
      return [node.kind, shapeOf(node.left), shapeOf(node.right)];
    case 'compare':
    case 'arithmetic':
      return [node.op, shapeOf(node.left), shapeOf(node.right)];
    case 'between':
      return [`between ${printExpression(node.low)} and`, shapeOf(node.of), shapeOf(node.high)];
    case 'in': {
      const [test, more] = node.tests;
      if (!test || more) throw new Error('one test was written');
      return [test.kind === 'compare' ? `in ${test.op}` : 'in', shapeOf(node.of), shapeOfTest(test)];
    }
    default:
      throw new Error(`no ${node.kind} was written`);
  }
}

function shapeOfTest(test: Test): Shape {
  if (test.kind === 'condition') return shapeOf(test.node);
  if (test.kind === 'equal' || test.kind === 'compare') return shapeOf(test.operand);
  throw new Error(`no test “${test.kind}” was written`);
}

const read = (text: string): string => {
  const parsed = parseExpression(text);
  return parsed.ok ? said(shapeOf(parsed.value)) : `${text}: ${parsed.findings[0]?.message}`;
};

const triples = OPERATORS.flatMap((first) =>
  OPERATORS.flatMap((second) => OPERATORS.map((third) => [first, second, third] as const)),
);
const written = ([first, second, third]: readonly [string, string, string]): string =>
  `a ${first} b ${second} c ${third} d`;

describe('operators', () => {
  it('bind as the table says, in every triple of them, without brackets', () => {
    const wrong = triples.flatMap((triple) => {
      const wanted = said(byTable(OPERANDS, triple));
      const got = read(written(triple));
      return got === wanted ? [] : [`${written(triple)}: ${got}, not ${wanted}`];
    });
    expect(triples).toHaveLength(OPERATORS.length ** 3);
    expect(wrong.slice(0, 20)).toEqual([]);
    expect(wrong).toHaveLength(0);
  });

  it('are held apart by brackets in every way, and printed so that they read back', () => {
    let looked = 0;
    const wrong: string[] = [];
    for (const triple of triples) {
      for (const tree of allTrees(OPERANDS, triple)) {
        looked += 1;
        const text = bracketed(tree).slice(1, -1);
        const parsed = parseExpression(text);
        if (!parsed.ok || said(shapeOf(parsed.value)) !== said(tree)) wrong.push(text);
        else if (read(printExpression(parsed.value)) !== said(tree)) wrong.push(`printed: ${text}`);
      }
    }
    // Five trees over each triple.
    expect(looked).toBe(triples.length * 5);
    expect(wrong.slice(0, 20)).toEqual([]);
  });

  it('of a list or a range after “in” leave what follows alone', () => {
    const alike: readonly (readonly [string, string])[] = [
      ['a in [1, 2] or b', '(a in ([1, 2])) or b'],
      ['5 in [1..3] and b', '(5 in ([1..3])) and b'],
      ['a or b in [1, 2] and c', 'a or ((b in ([1, 2])) and c)'],
      ['a and b in (1, 2) or c', '(a and (b in (1, 2))) or c'],
      ['a in (> 5) and b', '(a in (> 5)) and b'],
      ['a in > 5 and b', '(a in (> 5)) and b'],
      ['a in [1, 2] or b in [3] and c', '(a in ([1, 2])) or ((b in ([3])) and c)'],
      ['not(a in [1, 2] or b)', 'not((a in ([1, 2])) or b)'],
      ['if a in [1] or b then 1 else 2', 'if (a in ([1])) or b then 1 else 2'],
      ['some x in [1, 2] satisfies x in [1] or b', 'some x in [1, 2] satisfies ((x in ([1])) or b)'],
      ['[1, 2][item in [1] or b]', '[1, 2][(item in ([1])) or b]'],
    ];
    for (const [bare, clear] of alike) {
      const [one, other] = [parseExpression(bare), parseExpression(clear)];
      expect([bare, one.ok && printExpression(one.value)]).toEqual([bare, other.ok && printExpression(other.value)]);
    }
  });
});
