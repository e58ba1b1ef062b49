import { filterNames, iterationType, typeOf } from './check.ts';
import { compare } from './compare.ts';
import { BUILT_INS, type BuiltIn } from './functions/index.ts';
import { indexOf } from './functions/lists.ts';
import { inRange } from './functions/ranges.ts';
import { LIMITS } from './limits.ts';
import { negated, reckon } from './reckon.ts';
import type { Scope } from './scope.ts';
import { type Comparator, chainOf, type Iteration, type Node, type Test } from './tree.ts';
import { isOfKind, kindOf, kindOfValue, PARTS, type TypeKind } from './types.ts';
import { equal, isContext, isList, Range, type Ternary, type Value } from './value.ts';

/** The values of a scope's names, by slot. A table cell adds its column's value as `input`. */
export type Slots = readonly Value[];
export type Compiled = (slots: Slots, input: Value) => Value;
export type CompiledTests = (slots: Slots, input: Value) => Ternary;

/**
 * Compiles an expression once to closures. A name outside the scope is null; evaluation never
 * throws and always ends.
 */
export function compile(node: Node, scope: Scope): Compiled {
  const compiler = new Compiler();
  return compiler.bounded(compiler.node(node, scope));
}

/** Compiles the tests of one cell: it holds when any of them holds. */
export function compileTests(tests: readonly Test[], scope: Scope): CompiledTests {
  const compiler = new Compiler();
  return compiler.bounded(compiler.tests(tests, scope));
}

const truth = (value: Value): Ternary => (typeof value === 'boolean' ? value : null);
const both = (a: Ternary, b: Ternary): Ternary =>
  a === false || b === false ? false : a === true && b === true ? true : null;
const either = (a: Ternary, b: Ternary): Ternary =>
  a === true || b === true ? true : a === false && b === false ? false : null;
const NOTHING: Compiled = () => null;

/**
 * Turns the nodes of one expression into closures. What loops bind lives in `locals`, one place for
 * each depth: the language has no recursion, so a place is never needed twice at once. `steps`
 * counts what all loops and functions of one evaluation did.
 */
class Compiler {
  private readonly locals: Value[] = [];
  private steps = 0;
  private counts = false;

  /**
   * Starts the count of steps anew for each evaluation, where anything counts at all; too many
   * steps give empty.
   */
  bounded<T extends Value>(run: (slots: Slots, input: Value) => T): (slots: Slots, input: Value) => T | null {
    if (!this.counts) return run;
    return (slots, input) => {
      this.steps = 0;
      const result = run(slots, input);
      // A compiled expression is kept for long, and must not keep anybody’s answers.
      this.locals.length = 0;
      return this.steps > LIMITS.steps ? null : result;
    };
  }

  node(node: Node, scope: Scope): Compiled {
    switch (node.kind) {
      case 'literal':
      case 'moment': {
        const { value } = node;
        return () => value;
      }
      case 'input':
        return (_, input) => input;
      case 'name':
        return this.name(node.name, scope);
      case 'path': {
        const of = this.node(node.of, scope);
        const { name } = node;
        this.counts = true;
        return (slots, input) => {
          const whole = of(slots, input);
          return !isList(whole) || this.affords(whole) ? part(whole, name) : null;
        };
      }
      case 'negate': {
        const of = this.node(node.of, scope);
        return (slots, input) => negated(of(slots, input));
      }
      case 'arithmetic': {
        const [left, right] = [this.node(node.left, scope), this.node(node.right, scope)];
        const { op } = node;
        return (slots, input) => reckon(op, left(slots, input), right(slots, input));
      }
      case 'compare':
        return this.compare(node, scope);
      case 'between': {
        const of = this.node(node.of, scope);
        const within = this.within(node, '>=', '<=', scope);
        return (slots, input) => within(slots, input, of(slots, input));
      }
      case 'in': {
        const of = this.node(node.of, scope);
        const tests = this.tests(node.tests, scope);
        return (slots, input) => tests(slots, of(slots, input));
      }
      case 'and':
        return conjunction(chainOf(node, 'and').map((each) => this.node(each, scope)));
      case 'or':
        return disjunction(chainOf(node, 'or').map((each) => this.node(each, scope)));
      case 'if': {
        const [test, then, otherwise] = [
          this.node(node.test, scope),
          this.node(node.whenTrue, scope),
          this.node(node.otherwise, scope),
        ];
        return (slots, input) => (test(slots, input) === true ? then(slots, input) : otherwise(slots, input));
      }
      case 'list': {
        const items = node.items.map((item) => this.node(item, scope));
        return (slots, input) => items.map((item) => item(slots, input));
      }
      case 'range': {
        const [low, high] = [this.node(node.low, scope), this.node(node.high, scope)];
        const { lowOpen, highOpen } = node;
        return (slots, input) => new Range(low(slots, input), high(slots, input), lowOpen, highOpen);
      }
      case 'filter':
        return this.filter(node, scope);
      case 'for': {
        const gives: { current: Compiled } = { current: NOTHING };
        const run = this.loop(node.over, scope, (inner) => (gives.current = this.node(node.gives, inner)));
        return (slots, input) => {
          const items: Value[] = [];
          const went = run(slots, input, () => {
            items.push(gives.current(slots, input));
            return true;
          });
          return went ? items : null;
        };
      }
      case 'some':
      case 'every':
        return this.quantified(node, scope);
      case 'call':
        return this.call(node, scope);
    }
  }

  private name(name: string, scope: Scope): Compiled {
    const place = scope.placeOf(name);
    if (!place) return NOTHING;
    const { index } = place;
    if (place.kind === 'slot') return (slots) => slots[index] ?? null;
    const { locals } = this;
    return () => locals[index] ?? null;
  }

  private compare({ op, left, right }: Node & { kind: 'compare' }, scope: Scope): Compiled {
    const of = this.node(left, scope);
    if (right.kind === 'literal' && right.value !== null) {
      const place = left.kind === 'name' ? scope.placeOf(left.name) : undefined;
      if (place?.kind === 'slot') return slotComparedWith(place.index, op, right.value);
      const against = comparedWith(op, right.value);
      return (slots, input) => against(slots, of(slots, input));
    }
    const to = this.node(right, scope);
    this.counts = true;
    return (slots, input) => {
      const [a, b] = [of(slots, input), to(slots, input)];
      return this.affords(a) && this.affords(b) ? compare(op, a, b) : null;
    };
  }

  /**
   * Counts what it costs to look at a value as a whole; false when too much was looked at already.
   */
  private affords(value: Value): boolean {
    if (typeof value === 'string') this.steps += value.length >>> 4;
    else if (typeof value === 'object' && value !== null) this.steps += weightOf(value, LIMITS.steps - this.steps);
    return this.steps <= LIMITS.steps;
  }

  /**
   * Between two ends; ends that are numbers are what most tables are made of, so they take the
   * shortest way.
   */
  private within(
    ends: { low: Node; high: Node },
    above: Comparator,
    below: Comparator,
    scope: Scope,
  ): (slots: Slots, input: Value, value: Value) => Ternary {
    const [low, high] = [numberOf(ends.low), numberOf(ends.high)];
    if (low !== null && high !== null) {
      const [lowIn, highIn] = [above === '>=', below === '<='];
      return (_slots, _input, value) =>
        typeof value === 'number'
          ? (lowIn ? value >= low : value > low) && (highIn ? value <= high : value < high)
          : null;
    }
    const [from, to] = [this.node(ends.low, scope), this.node(ends.high, scope)];
    return (slots, input, value) =>
      both(compare(above, value, from(slots, input)), compare(below, value, to(slots, input)));
  }

  tests(tests: readonly Test[], scope: Scope): CompiledTests {
    const texts = tests.flatMap((test) =>
      test.kind === 'equal' && test.operand.kind === 'literal' && typeof test.operand.value === 'string'
        ? [test.operand.value]
        : [],
    );
    if (tests.length > 1 && texts.length === tests.length) {
      const among = new Set<Value>(texts);
      return (_, input) => (typeof input === 'string' || input === null ? among.has(input) : null);
    }
    const compiled = tests.map((test) => this.test(test, scope));
    const [only] = compiled;
    if (compiled.length === 1 && only) return only;
    return (slots, input) => {
      let result: Ternary = false;
      for (const test of compiled) {
        result = either(result, test(slots, input));
        if (result === true) return true;
      }
      return result;
    };
  }

  private test(test: Test, scope: Scope): CompiledTests {
    switch (test.kind) {
      case 'any':
        return () => true;
      case 'compare': {
        const { op, operand } = test;
        if (operand.kind === 'literal' && operand.value !== null) return comparedWith(op, operand.value);
        const to = this.node(operand, scope);
        return (slots, input) => compare(op, input, to(slots, input));
      }
      case 'equal': {
        const { operand } = test;
        if (operand.kind === 'literal' && operand.value !== null) return comparedWith('=', operand.value);
        const to = this.node(operand, scope);
        this.counts = true;
        return (slots, input) => {
          const among = to(slots, input);
          return this.affords(among) ? belongsTo(input, among) : null;
        };
      }
      case 'range': {
        const within = this.within(test, test.lowOpen ? '>' : '>=', test.highOpen ? '<' : '<=', scope);
        return (slots, input) => within(slots, input, input);
      }
      case 'condition': {
        const condition = this.node(test.node, scope);
        return (slots, input) => truth(condition(slots, input));
      }
      case 'not': {
        const inner = this.tests(test.tests, scope);
        return (slots, input) => {
          const value = inner(slots, input);
          return value === null ? null : !value;
        };
      }
    }
  }

  /**
   * `list[3]` takes an item, `list[price > 10]` keeps those it holds for; a single value counts as
   * a list of one.
   */
  private filter(node: Node & { kind: 'filter' }, scope: Scope): Compiled {
    this.counts = true;
    const list = this.node(node.list, scope);
    const inner = scope.within(filterNames(typeOf(node.list, scope)));
    const at = scope.depth;
    const entries = inner.depth - at - 1;
    const names = Array.from({ length: entries }, (_, index) => inner.localAt(at + 1 + index));
    const by = this.node(node.by, inner);
    const enter = (item: Value): void => {
      this.locals[at] = item;
      names.forEach((name, index) => {
        this.locals[at + 1 + index] = isContext(item) ? part(item, name) : null;
      });
    };
    const kind = kindOf(typeOf(node.by, inner));
    return (slots, input) => {
      const found = list(slots, input);
      const items = isList(found) ? found : found === null ? [] : [found];
      if (kind !== 'yes-no') {
        enter(null);
        const place = by(slots, input);
        if (typeof place === 'number' || kind === 'number') {
          const index = typeof place === 'number' ? indexOf(place, items.length) : null;
          return index === null ? null : (items[index] ?? null);
        }
      }
      const kept: Value[] = [];
      for (const item of items) {
        this.steps += LIMITS.turn;
        if (this.steps > LIMITS.steps) return null;
        enter(item);
        if (by(slots, input) === true) kept.push(item);
      }
      return kept;
    };
  }

  private quantified(node: Node & { kind: 'some' | 'every' }, scope: Scope): Compiled {
    const test: { current: Compiled } = { current: NOTHING };
    const run = this.loop(node.over, scope, (inner) => (test.current = this.node(node.test, inner)));
    const decisive = node.kind === 'some';
    return (slots, input) => {
      let result: Ternary = !decisive;
      const went = run(slots, input, () => {
        const value = truth(test.current(slots, input));
        if (value === decisive) result = decisive;
        else if (value === null) result = null;
        return value !== decisive;
      });
      return went ? result : null;
    };
  }

  /**
   * Runs `each` for every combination, the last name turning fastest, until it says no. False when
   * what is gone through is no list, or the turns are used up: then nothing can be said.
   */
  private loop(
    over: readonly Iteration[],
    scope: Scope,
    body: (inner: Scope) => unknown,
  ): (slots: Slots, input: Value, each: () => boolean) => boolean {
    this.counts = true;
    let inner = scope;
    const steps = over.map((iteration) => {
      const source = this.source(iteration, inner);
      const at = inner.depth;
      inner = inner.within([{ name: iteration.name, label: iteration.name, type: iterationType(iteration, inner) }]);
      return { source, at };
    });
    body(inner);
    return (slots, input, each) => {
      let going = true;
      const go = (level: number): boolean => {
        const step = steps[level];
        if (!step) {
          going = each();
          return true;
        }
        const items = step.source(slots, input);
        if (!items) return false;
        for (const item of items) {
          this.steps += LIMITS.turn;
          if (this.steps > LIMITS.steps) return false;
          this.locals[step.at] = item;
          if (!go(level + 1)) return false;
          if (!going) return true;
        }
        return true;
      };
      return go(0);
    };
  }

  private source({ over }: Iteration, scope: Scope): (slots: Slots, input: Value) => Iterable<Value> | null {
    if (over.kind === 'list') {
      const list = this.node(over.list, scope);
      return (slots, input) => {
        const items = list(slots, input);
        if (items instanceof Range && typeof items.low === 'number' && typeof items.high === 'number')
          return wholeNumbers(items.low, items.high);
        return isList(items) ? items : null;
      };
    }
    const [low, high] = [this.node(over.low, scope), this.node(over.high, scope)];
    return (slots, input) => {
      const [from, to] = [low(slots, input), high(slots, input)];
      return typeof from === 'number' && typeof to === 'number' ? wholeNumbers(from, to) : null;
    };
  }

  /** `old value(fee)`: what a field was before the change at hand. */
  private oldValue(node: Node & { kind: 'call' }, scope: Scope): Compiled {
    const [of] = node.args;
    const before = this.name('before', scope);
    return of?.kind === 'name' ? (slots, input) => part(before(slots, input), of.name) : NOTHING;
  }

  private call(node: Node & { kind: 'call' }, scope: Scope): Compiled {
    if (node.name === 'old value') return this.oldValue(node, scope);
    const builtIn = BUILT_INS.get(node.name);
    if (!builtIn) return NOTHING;
    const args = node.args.map((arg) => this.node(arg, scope));
    const [of] = args;
    if (node.name === 'not' && of && args.length === 1) {
      return (slots, input) => {
        const value = of(slots, input);
        return typeof value === 'boolean' ? !value : null;
      };
    }
    this.counts = true;
    const affords = (value: Value): boolean => this.affords(value);
    if (builtIn.spreads) return spreading(builtIn, args, affords);
    const { takes } = builtIn;
    const least = takes.filter((param) => !param.optional).length;
    if (args.length < least || args.length > takes.length) return NOTHING;
    const fits = takes.map(({ kinds }) => fitting(kinds));
    const run = builtIn.run as (...given: readonly Value[]) => Value;
    if (builtIn.needs) {
      const needed = this.name(builtIn.needs, scope);
      return (slots, input) => {
        const [at, given] = [needed(slots, input), args.map((arg) => arg(slots, input))];
        return isContext(at) && given.every((value, index) => (fits[index]?.(value) ?? false) && affords(value))
          ? small(run(at, ...given))
          : null;
      };
    }
    const [first = NOTHING, second = NOTHING] = args;
    const [firstFits = () => true, secondFits = () => true] = fits;
    if (args.length === 1) {
      return (slots, input) => {
        const a = first(slots, input);
        return firstFits(a) && affords(a) ? small(run(a)) : null;
      };
    }
    if (args.length === 2) {
      return (slots, input) => {
        const [a, b] = [first(slots, input), second(slots, input)];
        return firstFits(a) && secondFits(b) && affords(a) && affords(b) ? small(run(a, b)) : null;
      };
    }
    return (slots, input) => {
      const given = args.map((arg) => arg(slots, input));
      return given.every((value, index) => (fits[index]?.(value) ?? false) && affords(value))
        ? small(run(...given))
        : null;
    };
  }
}

const fitting = (kinds: readonly TypeKind[]): ((value: Value) => boolean) => {
  const [only = 'unknown'] = kinds;
  return kinds.length === 1 ? (value) => isOfKind(value, only) : (value) => kinds.some((kind) => isOfKind(value, kind));
};

/** Functions of many values take one list, or the values one by one. */
function spreading(builtIn: BuiltIn, args: readonly Compiled[], affords: (value: Value) => boolean): Compiled {
  const run = builtIn.run as unknown as (items: readonly Value[]) => Value;
  const [first = NOTHING] = args;
  if (args.length === 1) {
    return (slots, input) => {
      const value = first(slots, input);
      return affords(value) ? run(isList(value) ? value : [value]) : null;
    };
  }
  if (args.length === 0) return NOTHING;
  return (slots, input) => {
    const items = args.map((arg) => arg(slots, input));
    return items.every(affords) ? run(items) : null;
  };
}

/** How many items a value holds, those within others too; no more than a little beyond `most`. */
function weightOf(value: Value, most: number): number {
  if (!isList(value)) return 0;
  let weight = value.length;
  for (let at = 0; at < value.length && weight <= most; at += 1) {
    const item = value[at] ?? null;
    if (isList(item)) weight += weightOf(item, most - weight);
    else if (typeof item === 'string') weight += item.length >>> 4;
    else if (isContext(item)) weight += Object.keys(item).length;
  }
  return weight;
}

/** An answer of bounded size: what is larger is empty. */
function small(value: Value): Value {
  if (typeof value === 'string') return value.length > LIMITS.text ? null : value;
  return isList(value) && value.length > LIMITS.items ? null : value;
}

/** Whole steps from one number to another, downwards when the second is smaller. */
function* wholeNumbers(from: number, to: number): Iterable<number> {
  const by = from <= to ? 1 : -1;
  for (let value = from; by > 0 ? value <= to : value >= to; value += by) yield value;
}

/** A comparison with a value that is known beforehand; not with null. */
function comparedWith(op: Comparator, to: number | string | boolean): CompiledTests {
  const kind = typeof to;
  if (op === '=') return (_, value) => (value === to ? true : value === null || typeof value === kind ? false : null);
  if (op === '!=') return (_, value) => (value === to ? false : value === null || typeof value === kind ? true : null);
  if (typeof to !== 'number') return (_, value) => compare(op, value, to);
  switch (op) {
    case '<':
      return (_, value) => (typeof value === 'number' ? value < to : null);
    case '<=':
      return (_, value) => (typeof value === 'number' ? value <= to : null);
    case '>':
      return (_, value) => (typeof value === 'number' ? value > to : null);
    case '>=':
      return (_, value) => (typeof value === 'number' ? value >= to : null);
  }
}

/**
 * The same for a name’s own value: most conditions are made of these, so they are spared the call
 * that reads it.
 */
function slotComparedWith(slot: number, op: Comparator, to: number | string | boolean): Compiled {
  const kind = typeof to;
  if (op === '=') {
    return (slots) => {
      const value = slots[slot] ?? null;
      return value === to ? true : value === null || typeof value === kind ? false : null;
    };
  }
  const against = comparedWith(op, to);
  if (typeof to !== 'number') return (slots) => against(slots, slots[slot] ?? null);
  switch (op) {
    case '<':
      return (slots) => {
        const value = slots[slot];
        return typeof value === 'number' ? value < to : null;
      };
    case '>':
      return (slots) => {
        const value = slots[slot];
        return typeof value === 'number' ? value > to : null;
      };
    default:
      return (slots) => against(slots, slots[slot] ?? null);
  }
}

/** The number a node is written as; null for any other node. */
const numberOf = (node: Node): number | null =>
  node.kind === 'literal' && typeof node.value === 'number' ? node.value : null;

/**
 * All yes; no as soon as one is no. Two parts at a time: what rules are made of is short, and goes
 * without a loop.
 */
function conjunction(parts: readonly Compiled[]): Compiled {
  const [a = NOTHING, b = NOTHING, c = NOTHING, ...more] = parts;
  if (parts.length === 2) {
    return (slots, input) => {
      const p = a(slots, input);
      if (p === false) return false;
      const q = b(slots, input);
      return q === false ? false : p === true && q === true ? true : null;
    };
  }
  const last = more.length === 0 ? c : conjunction([c, ...more]);
  return (slots, input) => {
    const p = a(slots, input);
    if (p === false) return false;
    const q = b(slots, input);
    if (q === false) return false;
    const r = last(slots, input);
    return r === false ? false : p === true && q === true && r === true ? true : null;
  };
}

/** Some yes; yes as soon as one is yes. */
function disjunction(parts: readonly Compiled[]): Compiled {
  return (slots, input) => {
    let result: Ternary = false;
    for (let index = 0; index < parts.length; index += 1) {
      const value = parts[index]?.(slots, input) ?? null;
      if (value === true) return true;
      if (value !== false) result = null;
    }
    return result;
  };
}

/** `x in y`: equal to it, an item of it, or within it. */
function belongsTo(value: Value, to: Value): Ternary {
  if (to instanceof Range && !(value instanceof Range)) return inRange(value, to);
  if (isList(to) && !isList(value))
    return to.some((item) => (item instanceof Range ? inRange(value, item) : equal(item, value)) === true);
  return equal(value, to);
}

/** `of.name`: an entry, a part of a date or length of time, or of every item of a list. */
function part(value: Value, name: string): Value {
  if (typeof value !== 'object' || value === null) return null;
  if (isList(value)) return value.map((item) => part(item, name));
  if (isContext(value)) return Object.hasOwn(value, name) ? (value[name] ?? null) : null;
  const parts = PARTS[kindOfValue(value)];
  return parts && Object.hasOwn(parts, name) ? (parts[name]?.(value as never) ?? null) : null;
}
