import { BoundNames } from './bound.ts';
import { makerOf } from './calendarTime.ts';
import type { Scope } from './scope.ts';
import type { Iteration, Node, Test } from './tree.ts';

/**
 * How tightly a node holds together: what holds less tightly than its place asks for goes into
 * brackets.
 */
const LOOSE = 0;
const OR = 1;
const AND = 2;
const COMPARISON = 3;
const SUM = 4;
const PRODUCT = 5;
const POWER = 6;
const SIGN = 7;
const TIGHT = 8;

/**
 * Writes an expression as text that parses to the same tree. With a scope, names are written by
 * their labels where a label can be written; without, by the keys that are stored.
 */
export const printExpression = (node: Node, scope?: Pick<Scope, 'shownAs'>): string =>
  new Printer(scope).node(node, LOOSE);

/** Writes the tests of a table cell. */
export const printTests = (tests: readonly Test[], scope?: Pick<Scope, 'shownAs'>): string =>
  new Printer(scope).tests(tests);

class Printer {
  private readonly bound = new BoundNames();

  constructor(private readonly scope?: Pick<Scope, 'shownAs'>) {}

  tests(tests: readonly Test[]): string {
    return tests.map((test) => this.test(test)).join(', ');
  }

  private test(test: Test): string {
    switch (test.kind) {
      case 'any':
        return '-';
      case 'compare':
        return `${test.op} ${this.node(test.operand, SUM)}`;
      case 'equal':
        return this.node(test.operand, test.operand.kind === 'range' ? TIGHT : SUM);
      case 'range':
        return this.range(test);
      case 'condition':
        return this.node(test.node, LOOSE);
      case 'not':
        return `not(${this.tests(test.tests)})`;
    }
  }

  /** The text of a node for a place that asks for some tightness. */
  node(node: Node, asked: number): string {
    const [written, holds] = this.shape(node);
    return holds < asked ? `(${written})` : written;
  }

  private shape(node: Node): readonly [text: string, holds: number] {
    switch (node.kind) {
      case 'literal':
        return [literal(node.value), typeof node.value === 'number' && node.value < 0 ? SIGN : TIGHT];
      case 'moment':
        return [`${makerOf(node.value)}("${node.value}")`, TIGHT];
      case 'name':
        return [this.bound.has(node.name) ? node.name : (this.scope?.shownAs(node.name) ?? node.name), TIGHT];
      case 'input':
        return ['?', TIGHT];
      case 'path':
        return [`${this.node(node.of, TIGHT)}.${node.name}`, TIGHT];
      case 'negate':
        return [`-${this.signed(node.of)}`, SIGN];
      case 'arithmetic': {
        const level = node.op === '**' ? POWER : node.op === '*' || node.op === '/' ? PRODUCT : SUM;
        return [`${this.node(node.left, level)} ${node.op} ${this.node(node.right, level + 1)}`, level];
      }
      case 'compare':
        return [`${this.node(node.left, SUM)} ${node.op} ${this.node(node.right, SUM)}`, COMPARISON];
      case 'between':
        return [
          `${this.node(node.of, SUM)} between ${this.node(node.low, SUM)} and ${this.node(node.high, SUM)}`,
          COMPARISON,
        ];
      case 'in':
        // Other readers take what follows a single test into it (`x in (y) and z` as `x in ((y) and
        // z)`); with brackets around the whole, all of them read the same.
        return [
          `${this.node(node.of, SUM)} in (${this.tests(node.tests)})`,
          node.tests.length === 1 ? LOOSE : COMPARISON,
        ];
      case 'and':
        return [`${this.node(node.left, AND)} and ${this.node(node.right, AND + 1)}`, AND];
      case 'or':
        return [`${this.node(node.left, OR)} or ${this.node(node.right, OR + 1)}`, OR];
      case 'if':
        return [
          `if ${this.node(node.test, LOOSE)} then ${this.node(node.whenTrue, LOOSE)} else ${this.node(node.otherwise, LOOSE)}`,
          LOOSE,
        ];
      case 'list':
        // An empty list before an operator can read as the open end of a range.
        return [
          `[${node.items.map((item) => this.node(item, LOOSE)).join(', ')}]`,
          node.items.length === 0 ? LOOSE : TIGHT,
        ];
      case 'range':
        return [this.range(node), TIGHT];
      case 'filter':
        return [`${this.node(node.list, TIGHT)}[${this.bound.withItem(() => this.node(node.by, LOOSE))}]`, TIGHT];
      case 'for':
        return [this.loop('for', node.over, 'return', node.gives), LOOSE];
      case 'some':
      case 'every':
        return [this.loop(node.kind, node.over, 'satisfies', node.test), LOOSE];
      case 'call':
        return [`${node.name}(${node.args.map((arg) => this.node(arg, LOOSE)).join(', ')})`, TIGHT];
    }
  }

  /** What a minus stands before: a digit there would take the minus into its own number. */
  private signed(of: Node): string {
    const written = this.node(of, TIGHT);
    return /^\d/.test(written) ? `(${written})` : written;
  }

  private range({
    low,
    high,
    lowOpen,
    highOpen,
  }: {
    low: Node;
    high: Node;
    lowOpen: boolean;
    highOpen: boolean;
  }): string {
    return `${lowOpen ? '(' : '['}${this.node(low, SUM)}..${this.node(high, SUM)}${highOpen ? ')' : ']'}`;
  }

  private loop(word: string, over: readonly Iteration[], turns: string, body: Node): string {
    return this.bound.within(() => {
      const written = over.map(({ name, over: source }) => {
        const through =
          source.kind === 'list'
            ? this.node(source.list, SUM)
            : `${this.node(source.low, SUM)}..${this.node(source.high, SUM)}`;
        this.bound.bind(name);
        return `${name} in ${through}`;
      });
      return `${word} ${written.join(', ')} ${turns} ${this.node(body, LOOSE)}`;
    });
  }
}

/** A number without an exponent, a text with its quotes. */
function literal(value: number | string | boolean | null): string {
  if (typeof value === 'string') return JSON.stringify(value);
  if (typeof value !== 'number' || !/e/.test(String(value))) return String(value);
  return value.toLocaleString('en-US', { useGrouping: false, maximumFractionDigits: 20, maximumSignificantDigits: 21 });
}
