import { own } from '../own/index.ts';
import type { ExpressionFinding } from './finding.ts';
import { BUILT_INS, type BuiltIn } from './functions/index.ts';
import { resultOf } from './reckon.ts';
import { distance, type Scope, type ScopeName } from './scope.ts';
import type { Iteration, Node, Place, Test } from './tree.ts';
import { KIND_WORDS, kindOf, kindOfValue, PARTS, type ScopeType, sharedType, type TypeKind } from './types.ts';

/**
 * Checks an expression against what its names stand for. With `wants`, also that the result is of
 * that kind.
 */
export function checkExpression(node: Node, scope: Scope, wants?: TypeKind): readonly ExpressionFinding[] {
  const checker = new Checker(null);
  const kind = kindOf(checker.typeOf(node, scope));
  if (wants && kind !== wants && kind !== 'unknown')
    checker.error(node, `This gives ${KIND_WORDS[kind]}, but ${KIND_WORDS[wants]} is needed here.`);
  return checker.findings;
}

/** Checks the tests of a table cell against the type of its column. */
export function checkTests(
  tests: readonly Test[],
  column: ScopeType | null,
  scope: Scope,
): readonly ExpressionFinding[] {
  const checker = new Checker(column);
  for (const test of tests) checker.test(test, column, scope);
  return checker.findings;
}

/** What an expression gives, as far as it can be known beforehand; `column` is the type of `?`. */
export const typeOf = (node: Node, scope: Scope, column: ScopeType | null = null): ScopeType | null =>
  new Checker(column).typeOf(node, scope);

/** What a function can need, in words. */
const NEEDED_WORDS = { calendar: 'a working calendar', vocabularies: 'the vocabularies' } as const;

const YES_NO: ScopeType = { kind: 'yes-no' };

/** Kinds that have an order. */
const ORDERED: ReadonlySet<TypeKind> = new Set([
  'text',
  'number',
  'date',
  'time',
  'date-time',
  'duration',
  'months',
  'unknown',
]);

class Checker {
  readonly findings: ExpressionFinding[] = [];

  constructor(private readonly column: ScopeType | null) {}

  error(at: Place, message: string): void {
    this.findings.push({ severity: 'error', message, from: at.from, to: at.to });
  }

  typeOf(node: Node, scope: Scope): ScopeType | null {
    switch (node.kind) {
      case 'literal':
        if (node.value === null) return null;
        return {
          kind: typeof node.value === 'number' ? 'number' : typeof node.value === 'boolean' ? 'yes-no' : 'text',
        };
      case 'moment':
        return { kind: kindOfValue(node.value) } as ScopeType;
      case 'input':
        return this.column;
      case 'name':
        return this.name(node, scope);
      case 'path':
        return this.path(node, this.typeOf(node.of, scope));
      case 'negate': {
        const type = this.typeOf(node.of, scope);
        if (!['number', 'duration', 'months', 'unknown'].includes(kindOf(type)))
          this.error(node.of, `This is ${KIND_WORDS[kindOf(type)]}, but ${KIND_WORDS.number} is needed here.`);
        return type;
      }
      case 'arithmetic':
        return this.arithmetic(node, scope);
      case 'compare':
        this.comparable(node.left, node.right, node, scope, node.op === '=' || node.op === '!=');
        return YES_NO;
      case 'between':
        this.between(node, scope);
        return YES_NO;
      case 'in': {
        const type = this.typeOf(node.of, scope);
        for (const test of node.tests) this.test(test, type, scope);
        return YES_NO;
      }
      case 'and':
      case 'or':
        this.expect(node.left, 'yes-no', scope);
        this.expect(node.right, 'yes-no', scope);
        return YES_NO;
      case 'if': {
        this.expect(node.test, 'yes-no', scope);
        const [then, otherwise] = [this.typeOf(node.whenTrue, scope), this.typeOf(node.otherwise, scope)];
        return isEmpty(node.whenTrue) ? otherwise : isEmpty(node.otherwise) ? then : sharedType(then, otherwise);
      }
      case 'list':
        return this.list(node, scope);
      case 'range': {
        const [low, high] = [this.typeOf(node.low, scope), this.typeOf(node.high, scope)];
        this.same(low, high, node, node.high);
        return { kind: 'range', of: low ?? high };
      }
      case 'filter':
        return this.filter(node, scope);
      case 'for':
        return { kind: 'list', of: this.typeOf(node.gives, this.loop(node.over, scope)) };
      case 'some':
      case 'every':
        this.expect(node.test, 'yes-no', this.loop(node.over, scope));
        return YES_NO;
      case 'call':
        return this.call(node, scope);
    }
  }

  test(test: Test, of: ScopeType | null, scope: Scope): void {
    switch (test.kind) {
      case 'any':
        return;
      case 'compare':
        this.ordered(test.operand, of, test.op === '=' || test.op === '!=');
        this.same(of, this.typeOf(test.operand, scope), test, test.operand);
        return;
      case 'equal': {
        const type = this.typeOf(test.operand, scope);
        const item =
          type?.kind === 'list' && of?.kind !== 'list'
            ? type.of
            : type?.kind === 'range' && of?.kind !== 'range'
              ? type.of
              : type;
        if (test.operand.kind === 'list' && of?.kind === 'choice')
          for (const each of test.operand.items) this.option(of, each);
        this.same(of, item, test, test.operand);
        return;
      }
      case 'range':
        this.ordered(test.low, of, false);
        this.same(of, this.typeOf(test.low, scope), test.low, test.low);
        this.same(of, this.typeOf(test.high, scope), test.high, test.high);
        return;
      case 'condition':
        this.expect(test.node, 'yes-no', scope);
        return;
      case 'not':
        for (const each of test.tests) this.test(each, of, scope);
    }
  }

  private list(node: Node & { kind: 'list' }, scope: Scope): ScopeType {
    const types = node.items.filter((item) => !isEmpty(item)).map((item) => this.typeOf(item, scope));
    const [first = null] = types;
    return { kind: 'list', of: types.reduce(sharedType, first) };
  }

  private name(node: Node & { kind: 'name' }, scope: Scope): ScopeType | null {
    const found = scope.find(node.name);
    if (found) return found.type;
    const near = scope.nearest(node.name);
    this.error(
      node,
      near
        ? `There is nothing called “${node.name}” here. Did you mean ${near.name} (${near.label})?`
        : `There is nothing called “${node.name}” here.`,
    );
    return null;
  }

  private path(node: Node & { kind: 'path' }, of: ScopeType | null): ScopeType | null {
    if (!of) return null;
    if (of.kind === 'list') return { kind: 'list', of: this.path(node, of.of) };
    if (of.kind === 'context') {
      const entry = Object.hasOwn(of.entries, node.name) ? of.entries[node.name] : undefined;
      if (!entry) this.error(node, `There is no “${node.name}” here; there is ${Object.keys(of.entries).join(', ')}.`);
      return entry?.type ?? null;
    }
    const parts = PARTS[kindOf(of)];
    if (parts && Object.hasOwn(parts, node.name)) return { kind: 'number', places: 0 };
    const has = parts ? `; it has ${Object.keys(parts).join(', ')}` : '';
    const what = KIND_WORDS[kindOf(of)];
    this.error(node, `${what[0]?.toUpperCase()}${what.slice(1)} has no part called “${node.name}”${has}.`);
    return null;
  }

  private arithmetic(node: Node & { kind: 'arithmetic' }, scope: Scope): ScopeType | null {
    const [a, b] = [this.typeOf(node.left, scope), this.typeOf(node.right, scope)];
    const [left, right] = [kindOf(a), kindOf(b)];
    if (left === 'unknown' || right === 'unknown') return null;
    const result = resultOf(node.op, left, right);
    if (!result) {
      this.error(
        node,
        `${capital(KIND_WORDS[left])} and ${KIND_WORDS[right]} can’t be joined by “${node.op}”.${hintFor(node.op, left, right)}`,
      );
      return null;
    }
    const units = [a, b].flatMap((type) => (type?.kind === 'number' && type.unit ? [type.unit] : []));
    if ((node.op === '+' || node.op === '-') && units[0] && units[1] && units[0] !== units[1]) {
      this.error(
        node,
        `This ${node.op === '+' ? 'adds' : 'takes'} ${units[1]} ${node.op === '+' ? 'to' : 'from'} ${units[0]}.`,
      );
    }
    return result === 'number'
      ? { kind: 'number', ...(units[0] && units.length === 1 && node.op !== '**' ? { unit: units[0] } : {}) }
      : ({ kind: result } as ScopeType);
  }

  private filter(node: Node & { kind: 'filter' }, scope: Scope): ScopeType | null {
    const list = this.typeOf(node.list, scope);
    const by = this.typeOf(node.by, scope.within(filterNames(list)));
    const kind = kindOf(by);
    if (kind !== 'yes-no' && kind !== 'number' && kind !== 'unknown')
      this.error(node.by, `This is ${KIND_WORDS[kind]}, but a condition, or the number of an item, is needed here.`);
    const of = list?.kind === 'list' ? list.of : list;
    return kind === 'number' ? of : kind === 'yes-no' ? { kind: 'list', of } : null;
  }

  private loop(over: readonly Iteration[], scope: Scope): Scope {
    let inner = scope;
    for (const iteration of over) {
      let type: ScopeType | null = { kind: 'number' };
      if (iteration.over.kind === 'list') {
        const list = this.typeOf(iteration.over.list, inner);
        if (list && list.kind !== 'list' && list.kind !== 'range')
          this.error(
            iteration.over.list,
            `This is ${KIND_WORDS[kindOf(list)]}, but ${KIND_WORDS.list} is needed to go through.`,
          );
        type = itemOf(list);
      } else {
        this.expect(iteration.over.low, 'number', inner);
        this.expect(iteration.over.high, 'number', inner);
      }
      inner = inner.within([{ name: iteration.name, label: iteration.name, type }]);
    }
    return inner;
  }

  private call(node: Node & { kind: 'call' }, scope: Scope): ScopeType | null {
    const args = node.args.map((arg) => this.typeOf(arg, scope));
    if (node.name === 'old value') return this.oldValue(node, scope);
    const builtIn = BUILT_INS.get(node.name);
    if (!builtIn) {
      const near = [...BUILT_INS.keys()].find((name) => distance(name, node.name.toLowerCase()) <= 2);
      const hint =
        node.name === 'today' || node.name === 'now'
          ? ` Write ${node.name} without brackets.`
          : near
            ? ` Did you mean ${near}?`
            : '';
      this.error(node, `There is no function called “${node.name}”.${hint}`);
      return null;
    }
    this.arguments(node, builtIn, args);
    if (builtIn.needs && !scope.find(builtIn.needs))
      this.error(node, `${builtIn.name} needs ${NEEDED_WORDS[builtIn.needs]}, and there is none here.`);
    return builtIn.gives(args);
  }

  /** `old value(fee)` speaks of what a field was before the change at hand, where there is one. */
  private oldValue(node: Node & { kind: 'call' }, scope: Scope): ScopeType | null {
    const [of, more] = node.args;
    const before = scope.find('before')?.type;
    if (of?.kind !== 'name' || more) this.error(node, 'old value takes one field, like old value(fee).');
    else if (before?.kind !== 'context') this.error(node, 'There is no old value here: nothing is being changed.');
    else if (!Object.hasOwn(before.entries, of.name)) this.error(of, `There is no old value of “${of.name}”.`);
    else return own(before.entries, of.name)?.type ?? null;
    return null;
  }

  private arguments(node: Node & { kind: 'call' }, builtIn: BuiltIn, args: readonly (ScopeType | null)[]): void {
    const least = builtIn.takes.filter((param) => !param.optional).length;
    const most = builtIn.spreads ? Number.POSITIVE_INFINITY : builtIn.takes.length;
    if (args.length < least || args.length > most) {
      const range =
        most === Number.POSITIVE_INFINITY ? `${least} or more` : least === most ? `${least}` : `${least} to ${most}`;
      this.error(node, `${builtIn.name} takes ${range} value${range === '1' ? '' : 's'}, not ${args.length}.`);
      return;
    }
    if (builtIn.spreads) return;
    for (const [index, param] of builtIn.takes.entries()) {
      const [arg, type] = [node.args[index], args[index]];
      if (!arg || !type || param.kinds.includes('unknown') || param.kinds.includes(kindOf(type))) continue;
      this.error(
        arg,
        `This is ${KIND_WORDS[kindOf(type)]}, but ${builtIn.name} needs ${param.kinds.map((kind) => KIND_WORDS[kind]).join(' or ')} for its ${param.name}.`,
      );
    }
  }

  private expect(node: Node, kind: TypeKind, scope: Scope): void {
    const found = kindOf(this.typeOf(node, scope));
    if (found !== kind && found !== 'unknown')
      this.error(node, `This is ${KIND_WORDS[found]}, but ${KIND_WORDS[kind]} is needed here.`);
  }

  /**
   * Each part is looked at once: looking at one twice at every level would take twice as long with
   * each level of nesting.
   */
  private between(node: Node & { kind: 'between' }, scope: Scope): void {
    const of = this.typeOf(node.of, scope);
    for (const end of [node.low, node.high]) {
      const type = this.typeOf(end, scope);
      const before = this.findings.length;
      this.same(of, type, end, end);
      if (this.findings.length === before) this.ordered(node.of, of, false);
    }
  }

  private comparable(left: Node, right: Node, at: Place, scope: Scope, forEquality: boolean): void {
    const [a, b] = [this.typeOf(left, scope), this.typeOf(right, scope)];
    const before = this.findings.length;
    this.same(a, b, at, right);
    this.option(b, left);
    if (this.findings.length === before) this.ordered(left, a, forEquality);
  }

  /** `<` and its kin need values that have an order. */
  private ordered(at: Place, type: ScopeType | null, forEquality: boolean): void {
    if (!forEquality && !ORDERED.has(kindOf(type)))
      this.error(at, `${capital(KIND_WORDS[kindOf(type)])} has no order: only = and != make sense here.`);
  }

  private same(a: ScopeType | null, b: ScopeType | null, at: Place, written: Node): void {
    const [left, right] = [kindOf(a), kindOf(b)];
    if (left !== 'unknown' && right !== 'unknown' && left !== right) {
      this.error(at, `This compares ${KIND_WORDS[left]} with ${KIND_WORDS[right]}, which can never be equal.`);
      return;
    }
    if (a?.kind === 'number' && b?.kind === 'number' && a.unit && b.unit && a.unit !== b.unit)
      this.error(at, `This compares ${a.unit} with ${b.unit}.`);
    this.option(a, written);
  }

  /** A choice can only ever equal one of its own options. */
  private option(type: ScopeType | null, written: Node): void {
    if (type?.kind !== 'choice' || type.open || written.kind !== 'literal' || typeof written.value !== 'string') return;
    const { value } = written;
    if (type.options.some((option) => option.key === value)) return;
    const named = type.options.find((option) => option.label.toLowerCase() === value.toLowerCase());
    this.error(
      written,
      `“${value}” is not among the options; ${named ? `“${named.label}” is written "${named.key}"` : `they are ${type.options.map((option) => `"${option.key}"`).join(', ')}`}.`,
    );
  }
}

const capital = (words: string): string => `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`;

function hintFor(op: string, left: TypeKind, right: TypeKind): string {
  if (right === 'number' && (left === 'date' || left === 'date-time') && (op === '+' || op === '-'))
    return ' Days are written duration("P2D").';
  return left === 'text' && op === '+' ? ' Turn the other side into text with string(…).' : '';
}

const isEmpty = (node: Node): boolean => node.kind === 'literal' && node.value === null;

/** The type of a name that goes through something. */
export function iterationType({ over }: Iteration, scope: Scope): ScopeType | null {
  if (over.kind === 'steps') return { kind: 'number' };
  return itemOf(typeOf(over.list, scope));
}

/** The type of what is gone through, one by one. */
const itemOf = (type: ScopeType | null): ScopeType | null =>
  type?.kind === 'list' || type?.kind === 'range' ? type.of : null;

/** What a filter binds for each item: `item`, and the item's own entries by their names. */
export function filterNames(list: ScopeType | null): readonly ScopeName[] {
  const of = list?.kind === 'list' ? list.of : list;
  const entries = of?.kind === 'context' ? Object.entries(of.entries).map(([name, entry]) => ({ name, ...entry })) : [];
  return [{ name: 'item', label: 'item', type: of }, ...entries];
}
