import * as decimal from './decimal.ts';
import { BUILT_INS } from './functions.ts';
import type { Scope } from './scope.ts';
import type { Arithmetic, Comparator, Node, Test } from './tree.ts';
import { CalendarDate, Duration, equal, order, type Ternary, type Value } from './value.ts';

/** The values of a scope's names, by slot. A table cell adds its column's value as `input`. */
export type Slots = readonly Value[];
export type Compiled = (slots: Slots, input: Value) => Value;
export type CompiledTests = (slots: Slots, input: Value) => Ternary;

/** Compiles an expression once to closures. A name outside the scope is null; evaluation never throws. */
export function compile(node: Node, scope: Scope): Compiled {
  switch (node.kind) {
    case 'literal': {
      const { value } = node;
      return () => value;
    }
    case 'date': {
      const value = CalendarDate.read(node.iso);
      return () => value;
    }
    case 'duration': {
      const value = Duration.read(node.iso);
      return () => value;
    }
    case 'input':
      return (_, input) => input;
    case 'name': {
      const slot = scope.slotOf(node.name);
      return slot === undefined ? () => null : (slots) => slots[slot] ?? null;
    }
    case 'path': {
      const of = compile(node.of, scope);
      const { name } = node;
      return (slots, input) => part(of(slots, input), name);
    }
    case 'negate': {
      const of = compile(node.of, scope);
      return (slots, input) => {
        const value = of(slots, input);
        return typeof value === 'number' ? -value : null;
      };
    }
    case 'arithmetic': {
      const [left, right] = [compile(node.left, scope), compile(node.right, scope)];
      const { op } = node;
      return (slots, input) => reckon(op, left(slots, input), right(slots, input));
    }
    case 'compare': {
      const [left, right] = [compile(node.left, scope), compile(node.right, scope)];
      const { op } = node;
      return (slots, input) => compare(op, left(slots, input), right(slots, input));
    }
    case 'between': {
      const [of, low, high] = [compile(node.of, scope), compile(node.low, scope), compile(node.high, scope)];
      return (slots, input) => {
        const value = of(slots, input);
        return both(compare('>=', value, low(slots, input)), compare('<=', value, high(slots, input)));
      };
    }
    case 'in': {
      const of = compile(node.of, scope);
      const tests = compileTests(node.tests, scope);
      return (slots, input) => tests(slots, of(slots, input));
    }
    case 'and': {
      const [left, right] = [compile(node.left, scope), compile(node.right, scope)];
      return (slots, input) => {
        const first = truth(left(slots, input));
        return first === false ? false : both(first, truth(right(slots, input)));
      };
    }
    case 'or': {
      const [left, right] = [compile(node.left, scope), compile(node.right, scope)];
      return (slots, input) => {
        const first = truth(left(slots, input));
        return first === true ? true : either(first, truth(right(slots, input)));
      };
    }
    case 'if': {
      const [test, then, otherwise] = [compile(node.test, scope), compile(node.whenTrue, scope), compile(node.otherwise, scope)];
      return (slots, input) => (test(slots, input) === true ? then(slots, input) : otherwise(slots, input));
    }
    case 'list': {
      const items = node.items.map((item) => compile(item, scope));
      return (slots, input) => items.map((item) => item(slots, input));
    }
    case 'call': {
      const args = node.args.map((arg) => compile(arg, scope));
      const run = BUILT_INS.get(node.name)?.run;
      return run ? (slots, input) => run(args.map((arg) => arg(slots, input))) : () => null;
    }
  }
}

/** Compiles the tests of one cell: it holds when any of them holds. */
export function compileTests(tests: readonly Test[], scope: Scope): CompiledTests {
  const compiled = tests.map((test) => compileTest(test, scope));
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

function compileTest(test: Test, scope: Scope): CompiledTests {
  switch (test.kind) {
    case 'any':
      return () => true;
    case 'compare': {
      const to = compile(test.operand, scope);
      const { op } = test;
      return (slots, input) => compare(op, input, to(slots, input));
    }
    case 'equal': {
      const to = compile(test.operand, scope);
      return (slots, input) => {
        const value = to(slots, input);
        return Array.isArray(value) && !Array.isArray(input) ? value.some((item: Value) => equal(item, input) === true) : equal(input, value);
      };
    }
    case 'range': {
      const [low, high] = [compile(test.low, scope), compile(test.high, scope)];
      const [above, below] = [test.lowOpen ? '>' : '>=', test.highOpen ? '<' : '<='] as const;
      return (slots, input) => both(compare(above, input, low(slots, input)), compare(below, input, high(slots, input)));
    }
    case 'condition': {
      const condition = compile(test.node, scope);
      return (slots, input) => truth(condition(slots, input));
    }
    case 'not': {
      const inner = compileTests(test.tests, scope);
      return (slots, input) => {
        const value = inner(slots, input);
        return value === null ? null : !value;
      };
    }
  }
}

const truth = (value: Value): Ternary => (typeof value === 'boolean' ? value : null);
const both = (a: Ternary, b: Ternary): Ternary => (a === false || b === false ? false : a === true && b === true ? true : null);
const either = (a: Ternary, b: Ternary): Ternary => (a === true || b === true ? true : a === false && b === false ? false : null);

function part(value: Value, name: string): Value {
  if (typeof value !== 'object' || value === null || Array.isArray(value) || value instanceof CalendarDate || value instanceof Duration) return null;
  const context = value as { readonly [key: string]: Value };
  return Object.hasOwn(context, name) ? (context[name] ?? null) : null;
}

/** One comparison; with nothing to compare the answer can't be said, except for `=` and `!=` with empty. */
export function compare(op: Comparator, a: Value, b: Value): Ternary {
  if (op === '=') return equal(a, b);
  if (op === '!=') {
    const same = equal(a, b);
    return same === null ? null : !same;
  }
  const way = order(a, b);
  if (way === null) return null;
  switch (op) {
    case '<':
      return way < 0;
    case '<=':
      return way <= 0;
    case '>':
      return way > 0;
    case '>=':
      return way >= 0;
  }
}

function reckon(op: Arithmetic, a: Value, b: Value): Value {
  if (typeof a === 'number' && typeof b === 'number') {
    switch (op) {
      case '+':
        return decimal.add(a, b);
      case '-':
        return decimal.subtract(a, b);
      case '*':
        return decimal.multiply(a, b);
      case '/':
        return decimal.divide(a, b);
      case '**':
        return decimal.power(a, b);
    }
  }
  if (op === '+') {
    if (typeof a === 'string' && typeof b === 'string') return a + b;
    if (a instanceof CalendarDate && b instanceof Duration) return new CalendarDate(a.day + Math.floor(b.seconds / 86_400));
    if (a instanceof Duration && b instanceof CalendarDate) return new CalendarDate(b.day + Math.floor(a.seconds / 86_400));
    if (a instanceof Duration && b instanceof Duration) return new Duration(a.seconds + b.seconds);
  }
  if (op === '-') {
    if (a instanceof CalendarDate && b instanceof CalendarDate) return new Duration((a.day - b.day) * 86_400);
    if (a instanceof CalendarDate && b instanceof Duration) return new CalendarDate(a.day - Math.floor(b.seconds / 86_400));
    if (a instanceof Duration && b instanceof Duration) return new Duration(a.seconds - b.seconds);
  }
  return null;
}
