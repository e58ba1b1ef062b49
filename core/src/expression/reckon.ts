import { CalendarDate, ClockTime, DateTime, Duration, Months } from './calendarTime.ts';
import * as decimal from './decimal.ts';
import { LIMITS } from './limits.ts';
import type { Arithmetic } from './tree.ts';
import type { TypeKind } from './types.ts';
import type { Value } from './value.ts';

const DAY = 86_400;
const MOST_SECONDS = 1e12;

const lasting = (seconds: number | null): Duration | null =>
  seconds !== null && Math.abs(seconds) <= MOST_SECONDS ? new Duration(Math.trunc(seconds) + 0) : null;
const months = (count: number | null): Months | null =>
  count !== null && Math.abs(count) <= 120_000 ? new Months(Math.trunc(count) + 0) : null;

/**
 * What arithmetic on two kinds gives; kinds that are not here can't be joined (DMN 1.5, tables 45
 * to 51).
 */
const RESULTS: Readonly<Record<string, TypeKind>> = {
  'text + text': 'text',
  'date - date': 'duration',
  'date-time - date-time': 'duration',
  'date-time - date': 'duration',
  'date - date-time': 'duration',
  'time - time': 'duration',
  'duration + duration': 'duration',
  'duration - duration': 'duration',
  'duration * number': 'duration',
  'number * duration': 'duration',
  'duration / number': 'duration',
  'duration / duration': 'number',
  'months + months': 'months',
  'months - months': 'months',
  'months * number': 'months',
  'number * months': 'months',
  'months / number': 'months',
  'months / months': 'number',
  'date + duration': 'date',
  'duration + date': 'date',
  'date - duration': 'date',
  'date + months': 'date',
  'months + date': 'date',
  'date - months': 'date',
  'date-time + duration': 'date-time',
  'duration + date-time': 'date-time',
  'date-time - duration': 'date-time',
  'date-time + months': 'date-time',
  'months + date-time': 'date-time',
  'date-time - months': 'date-time',
  'time + duration': 'time',
  'duration + time': 'time',
  'time - duration': 'time',
};

/** The kind that arithmetic on two kinds gives; null when they can't be joined. */
export function resultOf(op: Arithmetic, left: TypeKind, right: TypeKind): TypeKind | null {
  if (left === 'number' && right === 'number') return 'number';
  return RESULTS[`${left} ${op} ${right}`] ?? null;
}

/** Arithmetic on two values; kinds that can't be joined give empty. */
export function reckon(op: Arithmetic, a: Value, b: Value): Value {
  if (typeof a === 'number' && typeof b === 'number') return numbers(op, a, b);
  if (typeof a === 'string' && typeof b === 'string')
    return op === '+' && a.length + b.length <= LIMITS.text ? a + b : null;
  switch (op) {
    case '+':
      return plus(a, b) ?? plus(b, a);
    case '-':
      return b instanceof Duration
        ? plus(a, new Duration(0 - b.seconds))
        : b instanceof Months
          ? plus(a, new Months(0 - b.months))
          : between(a, b);
    case '*':
      return times(a, b) ?? times(b, a);
    case '/':
      return shared(a, b);
    case '**':
      return null;
  }
}

function numbers(op: Arithmetic, a: number, b: number): number | null {
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

/** A date moves by whole days: what is left of a day in the length of time is dropped. */
function plus(a: Value, b: Value): Value {
  if (b instanceof Duration) {
    if (a instanceof CalendarDate) return a.plusDays(Math.floor(b.seconds / DAY));
    if (a instanceof DateTime) return a.plus(b.seconds);
    if (a instanceof ClockTime) return new ClockTime((((a.seconds + b.seconds) % DAY) + DAY) % DAY);
    return a instanceof Duration ? lasting(a.seconds + b.seconds) : null;
  }
  if (b instanceof Months) {
    if (a instanceof CalendarDate || a instanceof DateTime) return a.plusMonths(b.months);
    return a instanceof Months ? months(a.months + b.months) : null;
  }
  return null;
}

const secondsAt = (value: Value): number | null =>
  value instanceof CalendarDate ? value.day * DAY : value instanceof DateTime ? value.seconds : null;

function between(a: Value, b: Value): Value {
  if (a instanceof ClockTime && b instanceof ClockTime) return new Duration(a.seconds - b.seconds);
  const [left, right] = [secondsAt(a), secondsAt(b)];
  return left === null || right === null ? null : lasting(left - right);
}

function times(a: Value, b: Value): Value {
  if (typeof b !== 'number') return null;
  if (a instanceof Duration) return lasting(decimal.multiply(a.seconds, b));
  return a instanceof Months ? months(decimal.multiply(a.months, b)) : null;
}

function shared(a: Value, b: Value): Value {
  if (a instanceof Duration)
    return typeof b === 'number'
      ? lasting(decimal.divide(a.seconds, b))
      : b instanceof Duration
        ? decimal.divide(a.seconds, b.seconds)
        : null;
  if (a instanceof Months)
    return typeof b === 'number'
      ? months(decimal.divide(a.months, b))
      : b instanceof Months
        ? decimal.divide(a.months, b.months)
        : null;
  return null;
}

/** A number or a length of time with its sign turned. */
export function negated(value: Value): Value {
  if (typeof value === 'number') return 0 - value;
  if (value instanceof Duration) return new Duration(0 - value.seconds);
  return value instanceof Months ? new Months(0 - value.months) : null;
}
