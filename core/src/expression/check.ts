import { type Said, said } from '@tolvek/words';
import { own } from '../own/index.ts';
import type { ExpressionFinding } from './finding.ts';
import { BUILT_INS, type BuiltIn } from './functions/index.ts';
import { resultOf } from './reckon.ts';
import { distance, type Scope, type ScopeName } from './scope.ts';
import type { Iteration, Node, Place, Test } from './tree.ts';
import { kindOf, kindOfValue, kindSaid, PARTS, type ScopeType, sharedType, type TypeKind } from './types.ts';

/**
 * Checks an expression against what its names stand for. With `wants`, also that the result is of
 * that kind.
 */
export function checkExpression(node: Node, scope: Scope, wants?: TypeKind): readonly ExpressionFinding[] {
  const checker = new Checker(null);
  const kind = kindOf(checker.typeOf(node, scope));
  if (wants && kind !== wants && kind !== 'unknown')
    checker.error(node, said('expressions:gives', { found: kindSaid(kind), wanted: kindSaid(wants) }));
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

  error(at: Place, message: Said): void {
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
          this.error(node.of, isNot(kindOf(type), 'number'));
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
        ? said('expressions:nothingCalledBut', { name: node.name, near: scope.shownAs(near.name) })
        : said('expressions:nothingCalled', { name: node.name }),
    );
    return null;
  }

  private path(node: Node & { kind: 'path' }, of: ScopeType | null): ScopeType | null {
    if (!of) return null;
    if (of.kind === 'list') return { kind: 'list', of: this.path(node, of.of) };
    if (of.kind === 'context') {
      const entry = Object.hasOwn(of.entries, node.name) ? of.entries[node.name] : undefined;
      if (!entry) this.error(node, said('expressions:noEntry', { name: node.name, names: Object.keys(of.entries) }));
      return entry?.type ?? null;
    }
    const parts = PARTS[kindOf(of)];
    if (parts && Object.hasOwn(parts, node.name)) return { kind: 'number', places: 0 };
    const given = { name: node.name, what: kindSaid(kindOf(of)) };
    this.error(
      node,
      parts
        ? said('expressions:noPartBut', { ...given, names: Object.keys(parts) })
        : said('expressions:noPart', given),
    );
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
        said(`expressions:${hintFor(node.op, left, right)}`, {
          sign: node.op,
          left: kindSaid(left),
          right: kindSaid(right),
        }),
      );
      return null;
    }
    const units = [a, b].flatMap((type) => (type?.kind === 'number' && type.unit ? [type.unit] : []));
    if ((node.op === '+' || node.op === '-') && units[0] && units[1] && units[0] !== units[1]) {
      const given = { left: units[0], right: units[1] };
      this.error(node, said(node.op === '+' ? 'expressions:addsUnits' : 'expressions:subtractsUnits', given));
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
      this.error(node.by, said('expressions:isFilter', { found: kindSaid(kind) }));
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
          this.error(iteration.over.list, said('expressions:isLoop', { found: kindSaid(kindOf(list)) }));
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
      const { name: called } = node;
      this.error(
        node,
        called === 'today' || called === 'now'
          ? said('expressions:noBrackets', { name: called })
          : near
            ? said('expressions:noFunctionBut', { name: called, near })
            : said('expressions:noFunction', { name: called }),
      );
      return null;
    }
    this.arguments(node, builtIn, args);
    if (builtIn.needs && !scope.find(builtIn.needs))
      this.error(node, said(NEEDS[builtIn.needs], { name: builtIn.name }));
    return builtIn.gives(args);
  }

  /** `old value(fee)` speaks of what a field was before the change at hand, where there is one. */
  private oldValue(node: Node & { kind: 'call' }, scope: Scope): ScopeType | null {
    const [of, more] = node.args;
    const before = scope.find('before')?.type;
    if (of?.kind !== 'name' || more) this.error(node, said('expressions:oldValueOne'));
    else if (before?.kind !== 'context') this.error(node, said('expressions:oldValueNone'));
    else if (!Object.hasOwn(before.entries, of.name))
      this.error(of, said('expressions:oldValueOther', { name: of.name }));
    else return own(before.entries, of.name)?.type ?? null;
    return null;
  }

  private arguments(node: Node & { kind: 'call' }, builtIn: BuiltIn, args: readonly (ScopeType | null)[]): void {
    const least = builtIn.takes.filter((param) => !param.optional).length;
    const most = builtIn.spreads ? Number.POSITIVE_INFINITY : builtIn.takes.length;
    if (args.length < least || args.length > most) {
      const given = { name: builtIn.name, given: args.length };
      this.error(
        node,
        most === Number.POSITIVE_INFINITY
          ? said('expressions:takesOrMore', { ...given, count: least })
          : least === most
            ? said('expressions:takes', { ...given, count: least })
            : said('expressions:takesUpTo', { ...given, least, count: most }),
      );
      return;
    }
    if (builtIn.spreads) return;
    for (const [index, param] of builtIn.takes.entries()) {
      const [arg, type] = [node.args[index], args[index]];
      if (!arg || !type || param.kinds.includes('unknown') || param.kinds.includes(kindOf(type))) continue;
      this.error(
        arg,
        said('expressions:wrongArgument', {
          found: kindSaid(kindOf(type)),
          name: builtIn.name,
          param: param.name,
          kinds: param.kinds.map(kindSaid),
        }),
      );
    }
  }

  private expect(node: Node, kind: TypeKind, scope: Scope): void {
    const found = kindOf(this.typeOf(node, scope));
    if (found !== kind && found !== 'unknown') this.error(node, isNot(found, kind));
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
      this.error(at, said('expressions:noOrder', { what: kindSaid(kindOf(type)) }));
  }

  private same(a: ScopeType | null, b: ScopeType | null, at: Place, written: Node): void {
    const [left, right] = [kindOf(a), kindOf(b)];
    if (left !== 'unknown' && right !== 'unknown' && left !== right) {
      this.error(at, said('expressions:comparesKinds', { left: kindSaid(left), right: kindSaid(right) }));
      return;
    }
    if (a?.kind === 'number' && b?.kind === 'number' && a.unit && b.unit && a.unit !== b.unit)
      this.error(at, said('expressions:comparesUnits', { left: a.unit, right: b.unit }));
    this.option(a, written);
  }

  /** A choice can only ever equal one of its own options. */
  private option(type: ScopeType | null, written: Node): void {
    if (type?.kind !== 'choice' || type.open || written.kind !== 'literal' || typeof written.value !== 'string') return;
    const { value } = written;
    if (type.options.some((option) => option.key === value)) return;
    const named = type.options.find(
      ({ label }) => typeof label === 'string' && label.toLowerCase() === value.toLowerCase(),
    );
    this.error(
      written,
      named
        ? said('expressions:notAnOptionBut', { label: named.label, key: named.key })
        : said('expressions:notAnOption', { value, keys: type.options.map((option) => `"${option.key}"`) }),
    );
  }
}

const isNot = (found: TypeKind, wanted: TypeKind): Said =>
  said('expressions:is', { found: kindSaid(found), wanted: kindSaid(wanted) });

/** What is said of a function without what it needs. */
const NEEDS = { calendar: 'expressions:needsCalendar', vocabularies: 'expressions:needsVocabularies' } as const;

/** What helps where two kinds can’t be joined. */
function hintFor(op: string, left: TypeKind, right: TypeKind): 'cannotJoin' | 'cannotJoinDays' | 'cannotJoinText' {
  if (right === 'number' && (left === 'date' || left === 'date-time') && (op === '+' || op === '-'))
    return 'cannotJoinDays';
  return left === 'text' && op === '+' ? 'cannotJoinText' : 'cannotJoin';
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
