import { parser, trackVariables } from '@bpmn-io/lezer-feel';
import type { SyntaxNode, Tree } from '@lezer/common';
import { type Said, said } from '@tolvek/words';
import { BoundNames } from './bound.ts';
import { CalendarDate, ClockTime, DateTime, Duration, Months, makerOf } from './calendarTime.ts';
import type { ExpressionFinding } from './finding.ts';
import { LIMITS } from './limits.ts';
import { chainIn, joined } from './operators.ts';
import type { Scope } from './scope.ts';
import { childrenIn as children } from './syntax.ts';
import {
  type Arithmetic,
  type Comparator,
  childrenOf,
  type Iteration,
  type Node,
  nodesOfTest,
  type Test,
} from './tree.ts';
import type { Temporal } from './value.ts';

export type Parsed<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly findings: readonly ExpressionFinding[] };

type Top = 'Expression' | 'UnaryTests';
const plain = {
  Expression: parser.configure({ top: 'Expression' }),
  UnaryTests: parser.configure({ top: 'UnaryTests' }),
};
const knowing = new WeakMap<Scope, typeof plain>();

/**
 * The grammar's parser; with a scope, one that knows its labels, so that `Fee in EUR` is one name.
 */
function treeOf(text: string, top: Top, scope?: Scope): Tree {
  if (!scope) return plain[top].parse(text);
  let parsers = knowing.get(scope);
  if (!parsers) {
    const contextTracker = trackVariables(Object.fromEntries(scope.written.map((name) => [name, null])));
    parsers = {
      Expression: plain.Expression.configure({ contextTracker }),
      UnaryTests: plain.UnaryTests.configure({ contextTracker }),
    };
    knowing.set(scope, parsers);
  }
  return parsers[top].parse(text);
}

class Refused extends Error {
  constructor(
    readonly words: Said,
    readonly from: number,
    readonly to: number,
  ) {
    super(words.say);
  }
}

/**
 * Parses FEEL text to an expression; what is wrong comes back as findings with their place. With a
 * scope, names may be written by their labels and come back as keys.
 */
export function parseExpression(text: string, scope?: Scope): Parsed<Node> {
  return read(text, () => new Reader(text, scope).expression(treeOf(text, 'Expression', scope).topNode));
}

/** Parses a table cell (`> 500`, `"a","b"`, `[1..5]`, `not("x")`, `-`; empty means any). */
export function parseTests(text: string, scope?: Scope): Parsed<readonly Test[]> {
  if (text.trim() === '') return { ok: true, value: [{ kind: 'any', from: 0, to: 0 }] };
  return read(text, () => new Reader(text, scope).tests(treeOf(text, 'UnaryTests', scope).topNode));
}

function read<T>(text: string, work: () => T): Parsed<T> {
  const refuse = (message: Said, from = 0, to = text.length): Parsed<T> => ({
    ok: false,
    findings: [{ severity: 'error', message, from, to }],
  });
  if (text.length > LIMITS.length) return refuse(said('expressions:tooLong', { count: LIMITS.length }));
  if (text.trim() === '') return refuse(said('expressions:empty'));
  const brace = braceIn(text);
  if (brace !== null) return refuse(said('expressions:braces'), brace, brace + 1);
  try {
    return { ok: true, value: work() };
  } catch (error) {
    if (error instanceof Refused) return refuse(error.words, error.from, error.to);
    throw error;
  }
}

/**
 * The place of a brace outside of texts. The grammar takes long over many of them, so they are
 * refused before it is asked.
 */
function braceIn(text: string): number | null {
  const bare = text.replace(/"(?:[^"\\]|\\.)*"/g, (quoted) => '"'.repeat(quoted.length));
  const place = bare.search(/[{}]/);
  return place < 0 ? null : place;
}

class Reader {
  private depth = 0;
  private readonly bound = new BoundNames();

  constructor(
    private readonly source: string,
    private readonly scope?: Scope,
  ) {}

  expression(top: SyntaxNode): Node {
    const inner = children(top);
    const [first, second] = inner;
    if (!first) throw new Refused(said('expressions:empty'), 0, this.source.length);
    const broken = findBroken(top);
    if (broken) throw this.unreadable(broken);
    if (second) throw new Refused(said('expressions:unexpected', { text: this.text(second) }), second.from, second.to);
    return this.node(first);
  }

  tests(top: SyntaxNode): readonly Test[] {
    const broken = findBroken(top);
    if (broken) throw this.unreadable(broken);
    const inner = children(top);
    const [first] = inner;
    if (!first) throw new Refused(said('expressions:cellUnreadable'), 0, this.source.length);
    if (first.name === 'Wildcard') return [{ kind: 'any', ...place(first) }];
    if (first.name === 'not') {
      const list = inner.find((child) => child.name === 'PositiveUnaryTests');
      if (!list) throw this.unreadable(first);
      return [{ kind: 'not', tests: children(list).map((child) => this.test(child)), from: top.from, to: top.to }];
    }
    return children(first).map((child) => this.test(child));
  }

  private test(outer: SyntaxNode): Test {
    // After “in” without brackets, and after what was given back to its operators, the test itself.
    const written = outer.name === 'PositiveUnaryTest' ? children(outer)[0] : outer;
    if (!written) throw this.unreadable(outer);
    // One test in brackets, as in `x in (> 5)`, reads as an expression in brackets.
    const bracketed =
      written.name === 'ParenthesizedExpression'
        ? children(written).find((part) => part.name === 'SimplePositiveUnaryTest')
        : undefined;
    const inner = bracketed ?? written;
    if (inner.name !== 'SimplePositiveUnaryTest') {
      const node = this.node(inner);
      if (node.kind === 'range') return node;
      return isCondition(node)
        ? { kind: 'condition', node, ...place(inner) }
        : { kind: 'equal', operand: node, ...place(inner) };
    }
    const parts = children(inner);
    const [head, tail] = parts;
    if (head?.name === 'CompareOp' && tail) return this.compared(head, tail);
    if (head?.name === 'Interval') return this.range(head);
    throw this.unreadable(inner);
  }

  private range(interval: SyntaxNode): Extract<Node, { kind: 'range' }> {
    const ends = children(interval).filter((child) => !['[', ']', '(', ')', '..'].includes(child.name));
    const [low, high] = ends;
    if (!low || !high) throw this.unreadable(interval);
    const written = this.text(interval);
    return {
      kind: 'range',
      low: this.node(low),
      high: this.node(high),
      lowOpen: !written.startsWith('['),
      highOpen: !written.endsWith(']'),
      ...place(interval),
    };
  }

  private node(syntax: SyntaxNode): Node {
    this.depth += 1;
    if (this.depth > LIMITS.depth) throw this.tooDeep(syntax);
    const node = this.shape(syntax);
    this.depth -= 1;
    return node;
  }

  private shape(syntax: SyntaxNode): Node {
    const at = place(syntax);
    const parts = children(syntax);
    const text = this.text(syntax);
    switch (syntax.name) {
      case 'NumericLiteral': {
        const value = Number(text.replace(/\s/g, ''));
        if (!Number.isFinite(value)) throw new Refused(said('expressions:numberTooLarge', { text }), at.from, at.to);
        return { kind: 'literal', value, ...at };
      }
      case 'StringLiteral':
        return { kind: 'literal', value: this.string(text, at), ...at };
      case 'BooleanLiteral':
        return { kind: 'literal', value: text === 'true', ...at };
      case 'null':
        return { kind: 'literal', value: null, ...at };
      case 'DateTimeLiteral':
        return this.moment(syntax);
      case 'VariableName':
        return { kind: 'name', name: this.keyOf(text), ...at };
      case '?':
        return { kind: 'input', ...at };
      case 'ParenthesizedExpression': {
        const inner = parts.find((part) => part.name !== '(' && part.name !== ')');
        if (!inner) throw this.unreadable(syntax);
        return this.node(inner);
      }
      case 'PathExpression': {
        const name = parts.at(-1);
        const of = parts[0];
        if (!of || name?.name !== 'PathName') throw this.unreadable(syntax);
        return { kind: 'path', of: this.node(of), name: tidy(this.text(name)), ...at };
      }
      case 'ArithmeticExpression': {
        const [a, b, c] = parts;
        if (a?.name === 'ArithOp' && b) return this.negated(this.node(b), at);
        if (!a || !b || !c) throw this.unreadable(syntax);
        return { kind: 'arithmetic', op: this.text(b) as Arithmetic, left: this.node(a), right: this.node(c), ...at };
      }
      case 'Comparison':
      case 'Conjunction':
      case 'Disjunction':
        return this.chain(syntax);
      case 'IfExpression': {
        const [test, then, otherwise] = parts.filter((part) => !['if', 'then', 'else'].includes(part.name));
        if (!test || !then || !otherwise) throw this.unreadable(syntax);
        return { kind: 'if', test: this.node(test), whenTrue: this.node(then), otherwise: this.node(otherwise), ...at };
      }
      case 'List':
        return {
          kind: 'list',
          items: parts.filter((part) => !['[', ']'].includes(part.name)).map((part) => this.node(part)),
          ...at,
        };
      case 'FunctionInvocation': {
        const [name] = parts;
        const args = parts.find((part) => part.name === 'PositionalParameters');
        if (!name) throw this.unreadable(syntax);
        const named = parts.find((part) => part.name === 'NamedParameters');
        if (named) throw new Refused(said('expressions:namedValues'), named.from, named.to);
        return {
          kind: 'call',
          name: tidy(this.text(name)),
          args: args ? children(args).map((arg) => this.node(arg)) : [],
          ...at,
        };
      }
      case 'SimplePositiveUnaryTest': {
        const [interval] = parts;
        if (interval?.name !== 'Interval') throw this.unreadable(syntax);
        return this.range(interval);
      }
      case 'FilterExpression': {
        const [list, by] = parts.filter((part) => !['[', ']'].includes(part.name));
        if (!list || !by) throw this.unreadable(syntax);
        const over = this.node(list);
        return { kind: 'filter', list: over, by: this.bound.withItem(() => this.node(by)), ...at };
      }
      case 'ForExpression': {
        const gives = parts.at(-1);
        if (!gives) throw this.unreadable(syntax);
        return this.loop(syntax, (over) => ({ kind: 'for', over, gives: this.node(gives), ...at }));
      }
      case 'QuantifiedExpression': {
        const [which] = parts;
        const test = parts.at(-1);
        if (!which || !test) throw this.unreadable(syntax);
        const kind = which.name === 'every' ? 'every' : 'some';
        return this.loop(syntax, (over) => ({ kind, over, test: this.node(test), ...at }));
      }
      default:
        throw new Refused(said('expressions:notKnown', { text }), at.from, at.to);
    }
  }

  /** Operands joined by `or`, `and` and comparisons. */
  private chain(syntax: SyntaxNode): Node {
    const chain = chainIn(syntax);
    if (!chain) throw this.unreadable(syntax);
    type Part = { readonly node: Node; readonly from: number; readonly to: number; readonly height: number };
    return joined<Part>(
      chain,
      (operand) => ({ node: this.node(operand), ...place(operand), height: 0 }),
      (left, link, right) => {
        const height = Math.max(left.height, right?.height ?? 0) + 1;
        if (this.depth + height > LIMITS.depth) throw this.tooDeep(syntax);
        const from = left.from;
        switch (link.kind) {
          case 'in': {
            const tests = link.sign
              ? link.tests.map((operand): Test => this.compared(link.sign as SyntaxNode, operand))
              : link.tests.map((test) => this.test(test));
            const to = (link.tests.at(-1) ?? syntax).to;
            return { node: { kind: 'in', of: left.node, tests, from, to }, from, to, height };
          }
          case 'between': {
            const [low, high, to] = [this.node(link.low), this.node(link.high), link.high.to];
            return { node: { kind: 'between', of: left.node, low, high, from, to }, from, to, height };
          }
          default: {
            if (!right) throw this.unreadable(syntax);
            const both = { left: left.node, right: right.node, from, to: right.to };
            const node: Node =
              link.kind === 'compare'
                ? { kind: 'compare', op: this.text(link.sign) as Comparator, ...both }
                : { kind: link.kind, ...both };
            return { node, from, to: right.to, height };
          }
        }
      },
    ).node;
  }

  private compared(sign: SyntaxNode, operand: SyntaxNode): Test {
    const node = this.node(operand);
    return { kind: 'compare', op: this.text(sign) as Comparator, operand: node, from: sign.from, to: operand.to };
  }

  /** `date("2026-11-23")`, `duration("P2D")` and the `@"…"` short form. */
  private moment(syntax: SyntaxNode): Node {
    const at = place(syntax);
    const [maker, given] = [
      children(syntax).find((part) => part.name === 'DateTimeConstructor'),
      children(syntax).find((part) => part.name === 'PositionalParameters'),
    ];
    const args = given ? children(given) : [];
    const [only] = children(syntax).find((part) => part.name === 'AtLiteral')
      ? children(children(syntax)[0] ?? syntax)
      : args;
    const quoted = only?.name === 'StringLiteral' && args.length < 2 ? only : null;
    if (!quoted) {
      if (!maker || !given) throw this.unreadable(syntax);
      return { kind: 'call', name: tidy(this.text(maker)), args: args.map((arg) => this.node(arg)), ...at };
    }
    const written = this.string(this.text(quoted), quoted);
    const value = readMoment(written);
    const wanted = maker && tidy(this.text(maker));
    if (value && (!maker || wanted === makerOf(value))) return { kind: 'moment', value, ...at };
    const example = (wanted && EXAMPLES[wanted]) || '2026-11-23, 10:42:00, P2D, PT4H';
    const hasZone = /T\d.*(Z|[+-]\d\d:?\d\d|@)/.test(written);
    throw new Refused(
      said(hasZone ? 'expressions:momentZone' : 'expressions:moment', { text: written, example }),
      at.from,
      at.to,
    );
  }

  /**
   * The iterations of a loop, each knowing the names of those before it, and what is made with all
   * of them known.
   */
  private loop(syntax: SyntaxNode, make: (over: readonly Iteration[]) => Node): Node {
    const list = children(syntax).find((part) => part.name === 'InExpressions');
    if (!list) throw this.unreadable(syntax);
    return this.bound.within(() => make(children(list).map((part) => this.iteration(part))));
  }

  private iteration(part: SyntaxNode): Iteration {
    const [name, , context] = children(part);
    const ends = context ? children(context).filter((end) => end.name !== '..') : [];
    const [first, last] = ends;
    if (!name || !first) throw this.unreadable(part);
    const kept = tidy(this.text(name));
    const interval = first.name === 'SimplePositiveUnaryTest' ? children(first)[0] : undefined;
    const range = interval?.name === 'Interval' ? this.range(interval) : null;
    const read: Iteration['over'] = last
      ? { kind: 'steps', low: this.node(first), high: this.node(last) }
      : range && !range.lowOpen && !range.highOpen
        ? { kind: 'steps', low: range.low, high: range.high }
        : { kind: 'list', list: this.node(first) };
    this.bound.bind(kept);
    return { name: kept, over: read };
  }

  /**
   * The key a written name stands for: a loop's own name, a key of the scope, or the key behind a
   * label.
   */
  private keyOf(written: string): string {
    const name = tidy(written);
    return this.bound.has(name) ? name : (this.scope?.keyOf(name) ?? name);
  }

  /** A minus before a number is part of the number. */
  private negated(of: Node, at: { from: number; to: number }): Node {
    return of.kind === 'literal' && typeof of.value === 'number' && of.value > 0
      ? { ...of, value: -of.value, ...at }
      : { kind: 'negate', of, ...at };
  }

  private string(quoted: string, at: { from: number; to: number }): string {
    try {
      return JSON.parse(quoted.replace(/\n/g, '\\n')) as string;
    } catch {
      throw new Refused(said('expressions:backslash'), at.from, at.to);
    }
  }

  private text(syntax: SyntaxNode): string {
    return this.source.slice(syntax.from, syntax.to);
  }

  private tooDeep({ from, to }: SyntaxNode): Refused {
    return new Refused(said('expressions:tooDeep', { count: LIMITS.depth }), from, to);
  }

  private unreadable(syntax: SyntaxNode): Refused {
    const { from, to } = syntax;
    if (from === to)
      return new Refused(
        from >= this.source.trimEnd().length
          ? said('expressions:missingAtEnd')
          : said('expressions:missingBefore', { text: this.source.slice(from, from + 12) }),
        from,
        to,
      );
    return new Refused(said('expressions:unreadable', { text: this.text(syntax) }), from, to);
  }
}

/** Makers of dates and times by name, each with an example of the text it reads. */
const EXAMPLES: Readonly<Record<string, string>> = {
  date: '2026-11-23',
  time: '10:42:00',
  'date and time': '2026-11-23T10:42:00',
  duration: 'P2D, PT4H30M, P6M',
};

/** The date, time or length of time that a text writes; null when it is none. */
const readMoment = (text: string): Temporal | null =>
  CalendarDate.read(text) ?? DateTime.read(text) ?? ClockTime.read(text) ?? Months.read(text) ?? Duration.read(text);

const tidy = (written: string): string => written.replace(/\s+/g, ' ').trim();

const place = (syntax: { from: number; to: number }): { from: number; to: number } => ({
  from: syntax.from,
  to: syntax.to,
});

function findBroken(top: SyntaxNode): SyntaxNode | null {
  let broken: SyntaxNode | null = null;
  const cursor = top.cursor();
  do {
    if (cursor.type.isError) broken ??= cursor.node;
  } while (!broken && cursor.next() && cursor.from < top.to + 1);
  return broken;
}

const YES_OR_NO = new Set<Node['kind']>(['compare', 'and', 'or', 'between', 'in', 'some', 'every']);

/** Whether a cell is true or false by itself, instead of a value to be equal to. */
const isCondition = (node: Node): boolean => YES_OR_NO.has(node.kind) || mentionsInput(node);

const mentionsInput = (node: Node): boolean =>
  node.kind === 'input' ||
  childrenOf(node).some(mentionsInput) ||
  (node.kind === 'in' && node.tests.some((test) => nodesOfTest(test).some(mentionsInput)));
