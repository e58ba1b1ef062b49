import { parser } from '@bpmn-io/lezer-feel';
import type { SyntaxNode } from '@lezer/common';
import type { ExpressionFinding } from './finding.ts';
import type { Arithmetic, Comparator, Node, Test } from './tree.ts';
import { CalendarDate, Duration } from './value.ts';

export type Parsed<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly findings: readonly ExpressionFinding[] };

/** Texts longer than this, or nested deeper, are refused rather than tried. */
export const LIMITS = { length: 4_000, depth: 60 } as const;

class Refused extends Error {
  constructor(
    message: string,
    readonly from: number,
    readonly to: number,
  ) {
    super(message);
  }
}

const expressionParser = parser.configure({ top: 'Expression' });
const testsParser = parser.configure({ top: 'UnaryTests' });

/** Parses FEEL text to an expression; what is wrong comes back as findings with their place. */
export function parseExpression(text: string): Parsed<Node> {
  return read(text, () => new Reader(text).expression(expressionParser.parse(text).topNode));
}

/** Parses a table cell (`> 500`, `"a","b"`, `[1..5]`, `not("x")`, `-`; empty means any). */
export function parseTests(text: string): Parsed<readonly Test[]> {
  if (text.trim() === '') return { ok: true, value: [{ kind: 'any', from: 0, to: 0 }] };
  return read(text, () => new Reader(text).tests(testsParser.parse(text).topNode));
}

function read<T>(text: string, work: () => T): Parsed<T> {
  const refuse = (message: string, from = 0, to = text.length): Parsed<T> => ({
    ok: false,
    findings: [{ severity: 'error', message, from, to }],
  });
  if (text.length > LIMITS.length) return refuse(`This is longer than ${LIMITS.length} characters. Split it into parts.`);
  if (text.trim() === '') return refuse('Nothing is written here yet.');
  try {
    return { ok: true, value: work() };
  } catch (error) {
    if (error instanceof Refused) return refuse(error.message, error.from, error.to);
    throw error;
  }
}

class Reader {
  private depth = 0;

  constructor(private readonly source: string) {}

  expression(top: SyntaxNode): Node {
    const inner = children(top);
    const [first, second] = inner;
    if (!first) throw new Refused('Nothing is written here yet.', 0, this.source.length);
    const broken = findBroken(top);
    if (broken) throw this.unreadable(broken);
    if (second) throw new Refused(`“${this.text(second)}” was not expected here.`, second.from, second.to);
    return this.node(first);
  }

  tests(top: SyntaxNode): readonly Test[] {
    const broken = findBroken(top);
    if (broken) throw this.unreadable(broken);
    const inner = children(top);
    const [first] = inner;
    if (!first) throw new Refused('This cell can’t be read.', 0, this.source.length);
    if (first.name === 'Wildcard') return [{ kind: 'any', ...place(first) }];
    if (first.name === 'not') {
      const list = inner.find((child) => child.name === 'PositiveUnaryTests');
      if (!list) throw this.unreadable(first);
      return [{ kind: 'not', tests: children(list).map((child) => this.test(child)), from: top.from, to: top.to }];
    }
    return children(first).map((child) => this.test(child));
  }

  private test(outer: SyntaxNode): Test {
    const [inner] = children(outer);
    if (!inner) throw this.unreadable(outer);
    if (inner.name !== 'SimplePositiveUnaryTest') {
      const node = this.node(inner);
      const isCondition = node.kind === 'compare' || node.kind === 'and' || node.kind === 'or' || node.kind === 'between' || node.kind === 'in' || mentionsInput(node);
      return isCondition ? { kind: 'condition', node, ...place(inner) } : { kind: 'equal', operand: node, ...place(inner) };
    }
    const parts = children(inner);
    const [head, tail] = parts;
    if (head?.name === 'CompareOp' && tail) return { kind: 'compare', op: this.text(head) as Comparator, operand: this.node(tail), ...place(inner) };
    if (head?.name === 'Interval') return this.range(head);
    throw this.unreadable(inner);
  }

  private range(interval: SyntaxNode): Test {
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
    if (this.depth > LIMITS.depth) throw new Refused(`This is nested more than ${LIMITS.depth} levels deep.`, syntax.from, syntax.to);
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
        if (!Number.isFinite(value)) throw new Refused(`${text} is too large a number.`, at.from, at.to);
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
        return { kind: 'name', name: text.replace(/\s+/g, ' '), ...at };
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
        return { kind: 'path', of: this.node(of), name: this.text(name), ...at };
      }
      case 'ArithmeticExpression': {
        const [a, b, c] = parts;
        if (a?.name === 'ArithOp' && b) return { kind: 'negate', of: this.node(b), ...at };
        if (!a || !b || !c) throw this.unreadable(syntax);
        return { kind: 'arithmetic', op: this.text(b) as Arithmetic, left: this.node(a), right: this.node(c), ...at };
      }
      case 'Comparison':
        return this.comparison(syntax, parts);
      case 'Conjunction':
      case 'Disjunction': {
        const [left, , right] = parts;
        if (!left || !right) throw this.unreadable(syntax);
        return { kind: syntax.name === 'Conjunction' ? 'and' : 'or', left: this.node(left), right: this.node(right), ...at };
      }
      case 'IfExpression': {
        const [test, then, otherwise] = parts.filter((part) => !['if', 'then', 'else'].includes(part.name));
        if (!test || !then || !otherwise) throw this.unreadable(syntax);
        return { kind: 'if', test: this.node(test), whenTrue: this.node(then), otherwise: this.node(otherwise), ...at };
      }
      case 'List':
        return { kind: 'list', items: parts.filter((part) => !['[', ']'].includes(part.name)).map((part) => this.node(part)), ...at };
      case 'FunctionInvocation': {
        const [name] = parts;
        const args = parts.find((part) => part.name === 'PositionalParameters');
        if (!name) throw this.unreadable(syntax);
        return { kind: 'call', name: this.text(name).replace(/\s+/g, ' '), args: args ? children(args).map((arg) => this.node(arg)) : [], ...at };
      }
      default:
        throw new Refused(`“${text}” is not part of the expressions Tolvek knows.`, at.from, at.to);
    }
  }

  private comparison(syntax: SyntaxNode, parts: readonly SyntaxNode[]): Node {
    const at = place(syntax);
    const [left, op, ...rest] = parts;
    if (!left || !op) throw this.unreadable(syntax);
    if (op.name === 'CompareOp') {
      const [right] = rest;
      if (!right) throw this.unreadable(syntax);
      return { kind: 'compare', op: this.text(op) as Comparator, left: this.node(left), right: this.node(right), ...at };
    }
    if (op.name === 'between') {
      const [low, , high] = rest;
      if (!low || !high) throw this.unreadable(syntax);
      return { kind: 'between', of: this.node(left), low: this.node(low), high: this.node(high), ...at };
    }
    const tests = rest.flatMap((part) => (part.name === 'PositiveUnaryTests' ? children(part) : part.name === 'PositiveUnaryTest' ? [part] : []));
    return { kind: 'in', of: this.node(left), tests: tests.map((part) => this.test(part)), ...at };
  }

  /** `date("2026-11-23")`, `duration("P2D")` and the `@"…"` short form. */
  private moment(syntax: SyntaxNode): Node {
    const at = place(syntax);
    const quoted = firstNamed(syntax, 'StringLiteral');
    const maker = firstNamed(syntax, 'DateTimeConstructor');
    if (!quoted) {
      const args = firstNamed(syntax, 'PositionalParameters');
      if (!maker || !args) throw this.unreadable(syntax);
      return { kind: 'call', name: this.text(maker), args: children(args).map((arg) => this.node(arg)), ...at };
    }
    const written = this.string(this.text(quoted), quoted);
    if (CalendarDate.read(written)) return { kind: 'date', iso: written, ...at };
    if (Duration.read(written)) return { kind: 'duration', iso: written, ...at };
    throw new Refused(`“${written}” is neither a date like 2026-11-23 nor a length of time like P2D or PT4H.`, at.from, at.to);
  }

  private string(quoted: string, at: { from: number; to: number }): string {
    try {
      return JSON.parse(quoted.replace(/\n/g, '\\n')) as string;
    } catch {
      throw new Refused('This text has a “\\” that means nothing here.', at.from, at.to);
    }
  }

  private text(syntax: SyntaxNode): string {
    return this.source.slice(syntax.from, syntax.to);
  }

  private unreadable(syntax: SyntaxNode): Refused {
    const { from, to } = syntax;
    if (from === to)
      return new Refused(
        from >= this.source.trimEnd().length ? 'Something is missing at the end.' : `Something is missing before “${this.source.slice(from, from + 12)}”.`,
        from,
        to,
      );
    return new Refused(`“${this.text(syntax)}” can’t be read here.`, from, to);
  }
}

const place = (syntax: { from: number; to: number }): { from: number; to: number } => ({ from: syntax.from, to: syntax.to });

function children(syntax: SyntaxNode): SyntaxNode[] {
  const found: SyntaxNode[] = [];
  for (let child = syntax.firstChild; child; child = child.nextSibling) {
    if (!['LineComment', 'BlockComment', ','].includes(child.name)) found.push(child);
  }
  return found;
}

function firstNamed(syntax: SyntaxNode, name: string): SyntaxNode | null {
  for (let child = syntax.firstChild; child; child = child.nextSibling) {
    if (child.name === name) return child;
    const inner = firstNamed(child, name);
    if (inner) return inner;
  }
  return null;
}

function findBroken(top: SyntaxNode): SyntaxNode | null {
  let broken: SyntaxNode | null = null;
  const cursor = top.cursor();
  do {
    if (cursor.type.isError) broken ??= cursor.node;
  } while (!broken && cursor.next() && cursor.from < top.to + 1);
  return broken;
}

function mentionsInput(node: Node): boolean {
  if (node.kind === 'input') return true;
  if (node.kind === 'call') return node.args.some(mentionsInput);
  if (node.kind === 'path' || node.kind === 'negate') return mentionsInput(node.of);
  return false;
}
