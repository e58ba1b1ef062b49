import { BUDGETS, Budget } from '../../budget/index.ts';
import { typeOf } from '../check.ts';
import { compile } from '../compile.ts';
import { printExpression } from '../print.ts';
import type { Scope } from '../scope.ts';
import type { Comparator, Node, Test } from '../tree.ts';
import { namesRead } from '../tree.ts';
import type { Value } from '../value.ts';
import {
  between,
  both,
  type Domain,
  domainOf,
  either,
  filled,
  isNothing,
  nothingIn,
  onlyEmpty,
  rankOf,
  sampleOf,
  setOfOne,
  type ValueSet,
  wholeOf,
  withEmpty,
  without,
} from './sets.ts';

/**
 * Cases: for each thing that is asked about, the values it may have. What is not named may have
 * any.
 */
export type Box = ReadonlyMap<string, ValueSet>;
/** Cases put together: any of the boxes. */
export type Region = readonly Box[];

/** More boxes than this are not followed: the answer is then “can’t be said”. */
const MOST_BOXES = 2_000;

class TooMany extends Error {}

/** Steps of reasoning; more than there are end it with “can’t be said”. */
const spend = (budget: Budget): void => {
  if (!budget.spend()) throw new TooMany();
};

/** A case as an example: what each field would be. */
export type Example = ReadonlyMap<string, Value>;

/**
 * Where a condition holds and where it does not; in the rest it can’t be said. Null when there are
 * too many cases to follow.
 */
export interface Outcome {
  readonly holds: Region;
  readonly fails: Region;
  /**
   * Whether every part of it was understood; otherwise parts count as answers that may come out
   * either way.
   */
  readonly exact: boolean;
}

const oneBudget = (): Budget => new Budget(BUDGETS.reasoning.one);

const EVERYWHERE: Region = [new Map()];
const NOWHERE: Region = [];

function meet(a: Box, b: Box): Box | null {
  const result = new Map(a);
  for (const [key, set] of b) {
    const known = result.get(key);
    const common = known ? both(known, set) : set;
    if (isNothing(common)) return null;
    result.set(key, common);
  }
  return result;
}

/** What lies in both regions. */
export function intersection(a: Region, b: Region, budget: Budget): Region {
  const boxes: Box[] = [];
  for (const x of a) {
    for (const y of b) {
      spend(budget);
      const box = meet(x, y);
      if (box) boxes.push(box);
      if (boxes.length > MOST_BOXES) throw new TooMany();
    }
  }
  return boxes;
}

/** What lies in the first region and not in the second. */
export function difference(a: Region, b: Region, budget: Budget): Region {
  let left = a;
  for (const hole of b) {
    const next = left.flatMap((box) => {
      spend(budget);
      return boxWithout(box, hole);
    });
    if (next.length > MOST_BOXES) throw new TooMany();
    left = next;
  }
  return left;
}

/** A box without another, cut along one field after the other. */
function boxWithout(box: Box, hole: Box): Region {
  if (!meet(box, hole)) return [box];
  const pieces: Box[] = [];
  let rest = new Map(box);
  for (const [key, set] of hole) {
    const known = rest.get(key) ?? wholeOf(set.domain);
    const outside = without(known, set);
    if (!isNothing(outside)) pieces.push(new Map(rest).set(key, outside));
    rest = new Map(rest).set(key, both(known, set));
  }
  return pieces;
}

const union = (a: Region, b: Region): Region => {
  if (a.length + b.length > MOST_BOXES) throw new TooMany();
  return [...a, ...b];
};

interface Sets {
  readonly holds: ValueSet;
  readonly fails: ValueSet;
}

/** The outcome of a condition over what it reads; null when there are too many cases. */
export function outcomeOf(node: Node, scope: Scope, budget = oneBudget()): Outcome | null {
  const reasoner = new Reasoner(scope, budget);
  try {
    const { holds, fails } = reasoner.condition(node);
    return { holds, fails, exact: reasoner.exact };
  } catch (error) {
    if (error instanceof TooMany) return null;
    throw error;
  }
}

class Reasoner {
  exact = true;

  constructor(
    private readonly scope: Scope,
    private readonly budget: Budget = oneBudget(),
  ) {}

  condition(node: Node): { holds: Region; fails: Region } {
    switch (node.kind) {
      case 'literal':
        return {
          holds: node.value === true ? EVERYWHERE : NOWHERE,
          fails: node.value === false ? EVERYWHERE : NOWHERE,
        };
      case 'and':
      case 'or': {
        const [a, b] = [this.condition(node.left), this.condition(node.right)];
        return node.kind === 'and'
          ? { holds: intersection(a.holds, b.holds, this.budget), fails: union(a.fails, b.fails) }
          : { holds: union(a.holds, b.holds), fails: intersection(a.fails, b.fails, this.budget) };
      }
      case 'call': {
        const [only] = node.args;
        if (node.name !== 'not' || !only) return this.unknown(node);
        const { holds, fails } = this.condition(only);
        return { holds: fails, fails: holds };
      }
      case 'name':
      case 'path': {
        const domain = this.domain(node);
        return domain
          ? this.about(node, { holds: setOfOne(domain, true), fails: setOfOne(domain, false) })
          : this.unknown(node);
      }
      case 'compare':
        return this.compared(node) ?? this.unknown(node);
      case 'between': {
        const [low, high] = [this.constant(node.low), this.constant(node.high)];
        const domain = this.domain(node.of);
        if (domain?.kind !== 'ordered' || !low || !high) return this.unknown(node);
        const [above, below] = [comparison(domain, '>=', low.value), comparison(domain, '<=', high.value)];
        return this.about(node.of, { holds: both(above.holds, below.holds), fails: either(above.fails, below.fails) });
      }
      case 'in': {
        const domain = this.domain(node.of);
        const sets = domain && this.tests(node.tests, domain);
        return sets ? this.about(node.of, sets) : this.unknown(node);
      }
      default:
        return this.unknown(node);
    }
  }

  /**
   * Where the tests of a cell hold and fail; null when one of them needs more than the cell’s own
   * value.
   */
  tests(tests: readonly Test[], domain: Domain): Sets | null {
    let result: Sets | null = null;
    for (const test of tests) {
      const sets = this.test(test, domain);
      if (!sets) return null;
      result = result ? { holds: either(result.holds, sets.holds), fails: both(result.fails, sets.fails) } : sets;
    }
    return result;
  }

  private test(test: Test, domain: Domain): Sets | null {
    switch (test.kind) {
      case 'any':
        return { holds: wholeOf(domain), fails: nothingIn(domain) };
      case 'compare': {
        const operand = this.constant(test.operand);
        return operand && (domain.kind === 'ordered' || test.op === '=' || test.op === '!=')
          ? comparison(domain, test.op, operand.value)
          : null;
      }
      case 'equal': {
        const operand = this.constant(test.operand);
        if (!operand) return null;
        const values = Array.isArray(operand.value) ? (operand.value as readonly Value[]) : [operand.value];
        const [first = null, ...rest] = values.map((value) => comparison(domain, '=', value));
        return (
          first && rest.reduce((a, b) => ({ holds: either(a.holds, b.holds), fails: both(a.fails, b.fails) }), first)
        );
      }
      case 'range': {
        const [low, high] = [this.constant(test.low), this.constant(test.high)];
        if (!low || !high || domain.kind !== 'ordered') return null;
        const [above, below] = [
          comparison(domain, test.lowOpen ? '>' : '>=', low.value),
          comparison(domain, test.highOpen ? '<' : '<=', high.value),
        ];
        return { holds: both(above.holds, below.holds), fails: either(above.fails, below.fails) };
      }
      case 'condition':
        return null;
      case 'not': {
        const inner = this.tests(test.tests, domain);
        return inner && { holds: inner.fails, fails: inner.holds };
      }
    }
  }

  private compared(node: Node & { kind: 'compare' }): { holds: Region; fails: Region } | null {
    const [left, right] = [this.constant(node.left), this.constant(node.right)];
    const turned = left && !right;
    const [of, to, op] = turned ? [node.right, left, TURNED[node.op]] : [node.left, right, node.op];
    const domain = to && this.domain(of);
    if (!domain || !to || (domain.kind !== 'ordered' && op !== '=' && op !== '!=')) return null;
    return this.about(of, comparison(domain, op, to.value));
  }

  /** A field, or a part of something: what reasoning can be about. */
  private domain(node: Node): Domain | null {
    return node.kind === 'name' || node.kind === 'path' ? domainOf(typeOf(node, this.scope)) : null;
  }

  /** The value of a node that reads nothing. */
  private constant(node: Node): { readonly value: Value } | null {
    return namesRead([node]).length === 0 && !readsInput(node) ? { value: compile(node, this.scope)([], null) } : null;
  }

  private about(node: Node, { holds, fails }: Sets): { holds: Region; fails: Region } {
    const key = printExpression(node);
    const region = (set: ValueSet): Region => (isNothing(set) ? NOWHERE : [new Map([[key, set]])]);
    return { holds: region(holds), fails: region(fails) };
  }

  /** A part that is not understood may come out yes, no or neither, the same wherever it stands. */
  private unknown(node: Node): { holds: Region; fails: Region } {
    const value = this.constant(node);
    if (value)
      return this.condition({
        kind: 'literal',
        value: value.value === true ? true : value.value === false ? false : null,
        from: 0,
        to: 0,
      });
    this.exact = false;
    const domain: Domain = { kind: 'listed', values: [true, false] };
    return this.about(node, { holds: setOfOne(domain, true), fails: setOfOne(domain, false) });
  }
}

const TURNED: Readonly<Record<Comparator, Comparator>> = {
  '=': '=',
  '!=': '!=',
  '<': '>',
  '<=': '>=',
  '>': '<',
  '>=': '<=',
};

const readsInput = (node: Node): boolean => printExpression(node).includes('?');

/**
 * Where `value op to` holds and fails, for every value of a domain; the same rules as `compare`.
 */
function comparison(domain: Domain, op: Comparator, to: Value): Sets {
  const [all, none] = [filled(domain), nothingIn(domain)];
  if (op === '!=') {
    const { holds, fails } = comparison(domain, '=', to);
    return { holds: fails, fails: holds };
  }
  if (op === '=') {
    if (to === null) return { holds: onlyEmpty(domain), fails: all };
    const same = setOfOne(domain, to);
    // A value of another kind is never equal, but that can’t be said either; only empty is plainly
    // different.
    if (!isOfDomain(domain, to)) return { holds: none, fails: onlyEmpty(domain) };
    return { holds: same, fails: withEmpty(without(all, same), true) };
  }
  const rank = rankOf(to);
  if (domain.kind !== 'ordered' || rank === null || !isOfDomain(domain, to)) return { holds: none, fails: none };
  const [low, high] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  const holds =
    op === '<'
      ? between(domain, low, rank, false, true)
      : op === '<='
        ? between(domain, low, rank, false, false)
        : op === '>'
          ? between(domain, rank, high, true, false)
          : between(domain, rank, high, false, false);
  return { holds, fails: without(all, holds) };
}

function isOfDomain(domain: Domain, value: Value): boolean {
  if (domain.kind === 'text') return typeof value === 'string';
  if (domain.kind === 'listed') return typeof value === typeof domain.values[0];
  const sample = domain.value(0);
  return typeof value === 'object' && value !== null
    ? value.constructor === (sample as object).constructor
    : typeof value === typeof sample;
}

const exampleOf = (box: Box): Example => new Map([...box].map(([key, set]) => [key, sampleOf(set) ?? null]));

/**
 * What can be said of a condition by itself. `null`: too many cases, or parts that are not
 * understood.
 */
export interface Verdict {
  readonly kind: 'always' | 'never' | 'sometimes';
  /** For “sometimes”, a case where it holds and one where it does not. */
  readonly holdsFor?: Example;
  readonly failsFor?: Example;
}

/** Whether a condition holds in every case, in none, or in some. */
export function verdictOn(node: Node, scope: Scope, budget = oneBudget()): Verdict | null {
  return followed(() => {
    const outcome = outcomeOf(node, scope, budget);
    if (!outcome) return null;
    const [holding] = outcome.holds;
    if (!holding) return { kind: 'never' };
    const [failing] = difference(EVERYWHERE, outcome.holds, budget);
    if (!failing) return { kind: 'always' };
    return outcome.exact ? { kind: 'sometimes', holdsFor: exampleOf(holding), failsFor: exampleOf(failing) } : null;
  });
}

/**
 * Whether one condition holds wherever another does; if not, a case to show it. Null: can’t be
 * said.
 */
export function implies(
  one: Node,
  other: Node,
  scope: Scope,
): { readonly implied: true } | { readonly implied: false; readonly unless: Example } | null {
  return followed(() => {
    const [a, b] = [outcomeOf(one, scope), outcomeOf(other, scope)];
    if (!a || !b) return null;
    const [left] = difference(a.holds, b.holds, oneBudget());
    if (!left) return { implied: true };
    return a.exact && b.exact ? { implied: false, unless: exampleOf(left) } : null;
  });
}

/** A case where both conditions hold; `never` when there is none. Null: can’t be said. */
export function overlapOf(
  one: Node,
  other: Node,
  scope: Scope,
): { readonly never: true } | { readonly never: false; readonly both: Example } | null {
  return followed(() => {
    const [a, b] = [outcomeOf(one, scope), outcomeOf(other, scope)];
    if (!a || !b) return null;
    const [common] = intersection(a.holds, b.holds, oneBudget());
    if (!common) return { never: true };
    return a.exact && b.exact ? { never: false, both: exampleOf(common) } : null;
  });
}

/**
 * Whether two conditions can hold in one case, by what is known of each: the first case found ends
 * the look. Null: can’t be said, or not within the budget.
 */
export function canBothHold(one: Outcome, other: Outcome, budget: Budget): boolean | null {
  return followed(() => {
    for (const a of one.holds)
      for (const b of other.holds) {
        spend(budget);
        if (meet(a, b)) return true;
      }
    return false;
  });
}

function followed<T>(work: () => T | null): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooMany) return null;
    throw error;
  }
}

/**
 * Where the tests of a cell hold, of all values of its column; null when a test needs more than the
 * column’s own value.
 */
export function cellSet(tests: readonly Test[], domain: Domain, scope: Scope): ValueSet | null {
  return new Reasoner(scope).tests(tests, domain)?.holds ?? null;
}
