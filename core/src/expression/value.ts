import { CalendarDate, ClockTime, DateTime, Duration, Months } from './calendarTime.ts';

/**
 * A stretch between two values of one kind, as a value: `[1..5]`. An end that is null is without
 * limit.
 */
export class Range {
  constructor(
    readonly low: Value,
    readonly high: Value,
    readonly lowOpen: boolean,
    readonly highOpen: boolean,
  ) {}
}

/** Values that are ordered by one number each. */
export type Temporal = CalendarDate | ClockTime | DateTime | Duration | Months;
export interface Context {
  readonly [key: string]: Value;
}
/** What an expression can hold. Empty is null, as in FEEL. */
export type Value = null | boolean | number | string | Temporal | Range | readonly Value[] | Context;

/**
 * True, false, or null for "cannot be said", after FEEL's three-valued logic (DMN 1.5, 10.3.2.8).
 */
export type Ternary = boolean | null;

export const isList = (value: Value): value is readonly Value[] => Array.isArray(value);

/** The number a temporal value is ordered by; null for anything else. */
function rank(value: object): number | null {
  if (value instanceof CalendarDate) return value.day;
  if (value instanceof Months) return value.months;
  return value instanceof DateTime || value instanceof ClockTime || value instanceof Duration ? value.seconds : null;
}

export const isTemporal = (value: Value): value is Temporal =>
  typeof value === 'object' && value !== null && rank(value) !== null;

export const isContext = (value: Value): value is Context =>
  typeof value === 'object' &&
  value !== null &&
  !Array.isArray(value) &&
  !(value instanceof Range) &&
  rank(value) === null;

/** FEEL equality: null equals only null; values of different kinds can't be said (null). */
export function equal(a: Value, b: Value): Ternary {
  if (a === null || b === null) return a === b;
  if (typeof a !== 'object' || typeof b !== 'object') return typeof a === typeof b ? a === b : null;
  if (isList(a) || isList(b))
    return isList(a) && isList(b)
      ? a.length === b.length && a.every((item, i) => equal(item, b[i] ?? null) === true)
      : null;
  if (a instanceof Range || b instanceof Range) {
    if (!(a instanceof Range && b instanceof Range)) return null;
    return (
      a.lowOpen === b.lowOpen &&
      a.highOpen === b.highOpen &&
      equal(a.low, b.low) === true &&
      equal(a.high, b.high) === true
    );
  }
  const [left, right] = [rank(a), rank(b)];
  if (left !== null || right !== null) return a.constructor === b.constructor ? left === right : null;
  const [one, other] = [a as Context, b as Context];
  const keys = Object.keys(one);
  return (
    keys.length === Object.keys(other).length &&
    keys.every((key) => Object.hasOwn(other, key) && equal(one[key] ?? null, other[key] ?? null) === true)
  );
}

/** A text that two values share exactly when they are equal. */
export function identityOf(value: Value): string {
  if (typeof value === 'number') return `n${value + 0}`;
  if (typeof value === 'string') return JSON.stringify(value);
  if (typeof value !== 'object' || value === null) return String(value);
  if (isList(value)) return `[${value.map(identityOf).join()}]`;
  if (value instanceof Range)
    return `${value.lowOpen ? '(' : '['}${identityOf(value.low)}..${identityOf(value.high)}${value.highOpen ? ')' : ']'}r`;
  const at = rank(value);
  if (at !== null) return `${kindOfTemporal(value)}${at}`;
  const entries = Object.entries(value as Context).sort(([a], [b]) => (a < b ? -1 : 1));
  return `{${entries.map(([key, each]) => `${JSON.stringify(key)}:${identityOf(each ?? null)}`).join()}}`;
}

const kindOfTemporal = (value: object): string =>
  value instanceof CalendarDate
    ? 'd'
    : value instanceof ClockTime
      ? 'c'
      : value instanceof DateTime
        ? 'm'
        : value instanceof Months
          ? 'y'
          : 'l';

/** Order of two values of one kind: negative, zero or positive; null when they have no order. */
export function order(a: Value, b: Value): number | null {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  if (typeof a === 'string' && typeof b === 'string') return a < b ? -1 : a > b ? 1 : 0;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null || a.constructor !== b.constructor)
    return null;
  const [left, right] = [rank(a), rank(b)];
  return left === null || right === null ? null : left - right;
}
