import type { ExpressionFinding } from './finding.ts';
import { BUILT_INS } from './functions.ts';
import type { Scope, ScopeType } from './scope.ts';
import type { Node, Place, Test } from './tree.ts';

type Kind = 'text' | 'number' | 'date' | 'yes-no' | 'duration' | 'list' | 'context' | 'unknown';

const WORDS: Record<Kind, string> = {
  text: 'text',
  number: 'a number',
  date: 'a date',
  'yes-no': 'yes or no',
  duration: 'a length of time',
  list: 'a list',
  context: 'a group of values',
  unknown: 'a value',
};

/** Checks an expression against what its names stand for. With `wants`, also that the result is of that kind. */
export function checkExpression(node: Node, scope: Scope, wants?: 'yes-no' | 'number' | 'text' | 'date'): readonly ExpressionFinding[] {
  const checker = new Checker(scope, null);
  const type = checker.typeOf(node);
  if (wants && kindOf(type) !== wants && kindOf(type) !== 'unknown') {
    checker.error(node, `This gives ${WORDS[kindOf(type)]}, but ${WORDS[wants]} is needed here.`);
  }
  return checker.findings;
}

/** Checks the tests of a table cell against the type of its column. */
export function checkTests(tests: readonly Test[], column: ScopeType | null, scope: Scope): readonly ExpressionFinding[] {
  const checker = new Checker(scope, column);
  for (const test of tests) checker.test(test, column);
  return checker.findings;
}

function kindOf(type: ScopeType | null): Kind {
  if (!type) return 'unknown';
  return type.kind === 'choice' ? 'text' : type.kind;
}

class Checker {
  readonly findings: ExpressionFinding[] = [];

  constructor(
    private readonly scope: Scope,
    private readonly column: ScopeType | null,
  ) {}

  error(at: Place, message: string): void {
    this.findings.push({ severity: 'error', message, from: at.from, to: at.to });
  }

  typeOf(node: Node): ScopeType | null {
    switch (node.kind) {
      case 'literal':
        if (node.value === null) return null;
        return { kind: typeof node.value === 'number' ? 'number' : typeof node.value === 'boolean' ? 'yes-no' : 'text' };
      case 'date':
        return { kind: 'date' };
      case 'duration':
        return { kind: 'duration' };
      case 'input':
        return this.column;
      case 'name':
        return this.named(node);
      case 'path':
        return this.path(node);
      case 'negate':
        this.expect(node.of, 'number');
        return { kind: 'number' };
      case 'arithmetic':
        return this.arithmetic(node);
      case 'compare':
        this.comparable(node.left, node.right, node);
        return { kind: 'yes-no' };
      case 'between':
        this.comparable(node.of, node.low, node.low);
        this.comparable(node.of, node.high, node.high);
        return { kind: 'yes-no' };
      case 'in': {
        const type = this.typeOf(node.of);
        for (const test of node.tests) this.test(test, type);
        return { kind: 'yes-no' };
      }
      case 'and':
      case 'or':
        this.expect(node.left, 'yes-no');
        this.expect(node.right, 'yes-no');
        return { kind: 'yes-no' };
      case 'if': {
        this.expect(node.test, 'yes-no');
        const then = this.typeOf(node.whenTrue);
        const otherwise = this.typeOf(node.otherwise);
        return kindOf(then) === kindOf(otherwise) ? then : (then ?? otherwise);
      }
      case 'list': {
        const types = node.items.map((item) => this.typeOf(item));
        const [first = null] = types;
        return first ? { kind: 'list', of: first } : null;
      }
      case 'call':
        return this.call(node);
    }
  }

  test(test: Test, column: ScopeType | null): void {
    switch (test.kind) {
      case 'any':
        return;
      case 'compare':
      case 'equal':
        this.same(column, this.typeOf(test.operand), test, test.operand);
        return;
      case 'range':
        this.same(column, this.typeOf(test.low), test.low, test.low);
        this.same(column, this.typeOf(test.high), test.high, test.high);
        return;
      case 'condition':
        this.expect(test.node, 'yes-no');
        return;
      case 'not':
        for (const inner of test.tests) this.test(inner, column);
    }
  }

  private named(node: Node & { kind: 'name' }): ScopeType | null {
    const found = this.scope.find(node.name);
    if (found) return found.type;
    const near = this.scope.nearest(node.name);
    this.error(node, near ? `There is nothing called “${node.name}” here. Did you mean ${near.name} (${near.label})?` : `There is nothing called “${node.name}” here.`);
    return null;
  }

  private path(node: Node & { kind: 'path' }): ScopeType | null {
    const of = this.typeOf(node.of);
    if (of?.kind !== 'context') {
      if (of) this.error(node, `${WORDS[kindOf(of)]} has no part called “${node.name}”.`);
      return null;
    }
    const entry = Object.hasOwn(of.entries, node.name) ? of.entries[node.name] : undefined;
    if (!entry) this.error(node, `There is no “${node.name}” here; there is ${Object.keys(of.entries).join(', ')}.`);
    return entry?.type ?? null;
  }

  private arithmetic(node: Node & { kind: 'arithmetic' }): ScopeType | null {
    const left = kindOf(this.typeOf(node.left));
    const right = kindOf(this.typeOf(node.right));
    if (left === 'unknown' || right === 'unknown') return null;
    const both = `${left} ${node.op} ${right}`;
    if (left === 'number' && right === 'number') return { kind: 'number' };
    if (both === 'text + text') return { kind: 'text' };
    if (both === 'date - date' || both === 'duration + duration' || both === 'duration - duration') return { kind: 'duration' };
    if (both === 'date + duration' || both === 'date - duration' || both === 'duration + date') return { kind: 'date' };
    this.error(node, `${WORDS[left]} and ${WORDS[right]} can’t be joined by “${node.op}”.`);
    return null;
  }

  private call(node: Node & { kind: 'call' }): ScopeType | null {
    const args = node.args.map((arg) => this.typeOf(arg));
    const builtIn = BUILT_INS.get(node.name);
    if (!builtIn) {
      this.error(node, `There is no function called “${node.name}”.`);
      return null;
    }
    const [least, most] = builtIn.takes;
    if (args.length < least || args.length > most) {
      this.error(node, `${node.name} takes ${least === most ? least : `${least} or more`} value${most === 1 ? '' : 's'}, not ${args.length}.`);
    }
    if (node.name === 'date') return { kind: 'date' };
    if (node.name === 'duration') return { kind: 'duration' };
    if (['not', 'contains', 'starts with', 'ends with', 'list contains'].includes(node.name)) return { kind: 'yes-no' };
    if (['upper case', 'lower case'].includes(node.name)) return { kind: 'text' };
    if (node.name === 'min' || node.name === 'max') return args.length === 1 && args[0]?.kind === 'list' ? args[0].of : (args[0] ?? null);
    return { kind: 'number' };
  }

  private expect(node: Node, kind: Kind): void {
    const found = kindOf(this.typeOf(node));
    if (found !== kind && found !== 'unknown') this.error(node, `This is ${WORDS[found]}, but ${WORDS[kind]} is needed here.`);
  }

  private comparable(left: Node, right: Node, at: Place): void {
    const a = this.typeOf(left);
    const b = this.typeOf(right);
    this.same(a, b, at, right);
    this.option(b, left);
  }

  private same(a: ScopeType | null, b: ScopeType | null, at: Place, written: Node): void {
    const [left, right] = [kindOf(a), kindOf(b)];
    if (left !== 'unknown' && right !== 'unknown' && left !== right) {
      this.error(at, `This compares ${WORDS[left]} with ${WORDS[right]}, which can never be equal.`);
      return;
    }
    this.option(a, written);
  }

  /** A choice can only ever equal one of its own options. */
  private option(type: ScopeType | null, written: Node): void {
    if (type?.kind !== 'choice' || written.kind !== 'literal' || typeof written.value !== 'string') return;
    if (type.options.some((option) => option.key === written.value)) return;
    const named = type.options.find((option) => option.label.toLowerCase() === String(written.value).toLowerCase());
    this.error(
      written,
      `“${written.value}” is not among the options; ${named ? `“${named.label}” is written "${named.key}"` : `they are ${type.options.map((option) => `"${option.key}"`).join(', ')}`}.`,
    );
  }
}
