import { Duration, Months } from '../calendarTime.ts';
import * as decimal from '../decimal.ts';
import { type ScopeType, sharedType } from '../types.ts';
import { equal, identityOf, isList, order, type Ternary, type Value } from '../value.ts';
import { define, defineSpread } from './builtIn.ts';

const list = define('Lists');
const NUMBER = { kind: 'number' } as const;
const COUNT = { kind: 'number', places: 0, least: 0 } as const;
const YES_NO = { kind: 'yes-no' } as const;

const itemType = (type: ScopeType | null | undefined): ScopeType | null =>
  type?.kind === 'list' ? type.of : (type ?? null);
const sameList = ([of = null]: readonly (ScopeType | null)[]): ScopeType => ({ kind: 'list', of: itemType(of) });
/** A list that gets items of another list, or one item more. */
const joinedList = ([of, more]: readonly (ScopeType | null)[]): ScopeType => ({
  kind: 'list',
  of: sharedType(itemType(of), itemType(more)),
});

function total(items: readonly Value[]): Value {
  const [first] = items;
  if (first instanceof Duration)
    return items.every((item) => item instanceof Duration)
      ? new Duration(items.reduce((sum, item) => sum + (item as Duration).seconds, 0))
      : null;
  if (first instanceof Months)
    return items.every((item) => item instanceof Months)
      ? new Months(items.reduce((sum, item) => sum + (item as Months).months, 0))
      : null;
  let sum: number | null = items.length === 0 ? null : 0;
  for (const item of items) sum = typeof item === 'number' && sum !== null ? decimal.add(sum, item) : null;
  return sum;
}

const numbersOf = (items: readonly Value[]): number[] | null =>
  items.length > 0 && items.every((item) => typeof item === 'number') ? ([...items] as number[]) : null;

function extreme(items: readonly Value[], sign: 1 | -1): Value {
  const [first = null, ...rest] = items;
  // A single value must be comparable too: it is held against itself.
  if (order(first, first) === null) return null;
  let best: Value = first;
  for (const item of rest) {
    const way = order(item, best);
    if (way === null) return null;
    if (way * sign > 0) best = item;
  }
  return best;
}

const holdsItem = (items: readonly Value[], item: Value): boolean => items.some((each) => equal(each, item) === true);

/** Each item once, the first of those that are equal: one look at each, however many there are. */
function distinct(items: readonly Value[]): readonly Value[] {
  const kept = new Map<string, Value>();
  for (const item of items) {
    const key = identityOf(item);
    if (!kept.has(key)) kept.set(key, item);
  }
  return [...kept.values()];
}

const joined = (lists: readonly Value[]): readonly Value[] =>
  lists.flatMap((each) => (isList(each) ? [...each] : [each]));

const flat = (items: readonly Value[]): readonly Value[] =>
  items.flatMap((item) => (isList(item) ? flat(item) : [item]));

/** All yes: no as soon as one is no; can't be said when one is neither (DMN 1.5, table 76). */
function quantified(items: readonly Value[], decisive: boolean): Ternary {
  let result: Ternary = !decisive;
  for (const item of items) {
    if (item === decisive) return decisive;
    if (typeof item !== 'boolean') result = null;
  }
  return result;
}

/**
 * The index from 0 of a place counted from 1, or from the end with a minus; null when there is no
 * such place.
 */
export function indexOf(place: number, length: number): number | null {
  if (!Number.isInteger(place) || place === 0) return null;
  const index = place > 0 ? place - 1 : length + place;
  return index >= 0 && index < length ? index : null;
}

export const LIST_FUNCTIONS = [
  list({
    name: 'count',
    takes: [['list', 'list']],
    gives: COUNT,
    examples: [['count([1, 2, 3])', '3']],
    run: (items) => items.length,
  }),
  list({
    name: 'list contains',
    takes: [
      ['list', 'list'],
      ['item', 'unknown'],
    ],
    gives: YES_NO,
    examples: [['list contains(["a", "b"], "b")', 'true']],
    run: holdsItem,
  }),
  defineSpread('Lists', {
    name: 'sum',
    item: 'unknown',
    gives: ([first]) => itemType(first),
    examples: [['sum([0.1, 0.2])', '0.3']],
    run: total,
  }),
  defineSpread('Lists', {
    name: 'mean',
    item: 'unknown',
    gives: NUMBER,
    examples: [['mean(1, 2, 4.5)', '2.5']],
    run: (items) => {
      const [sum, values] = [total(items), numbersOf(items)];
      return typeof sum === 'number' && values ? decimal.divide(sum, values.length) : null;
    },
  }),
  defineSpread('Lists', {
    name: 'median',
    item: 'unknown',
    gives: NUMBER,
    examples: [['median([8, 1, 3, 2])', '2.5']],
    run: (items) => {
      const sorted = numbersOf(items)?.sort((a, b) => a - b);
      if (!sorted) return null;
      const [low = 0, high = 0] = [
        sorted[Math.floor((sorted.length - 1) / 2)],
        sorted[Math.ceil((sorted.length - 1) / 2)],
      ];
      return decimal.divide(decimal.add(low, high) ?? 0, 2);
    },
  }),
  defineSpread('Lists', {
    name: 'product',
    item: 'unknown',
    gives: NUMBER,
    examples: [['product([2, 3, 4])', '24']],
    run: (items) =>
      numbersOf(items)?.reduce<number | null>(
        (result, value) => (result === null ? null : decimal.multiply(result, value)),
        1,
      ) ?? null,
  }),
  defineSpread('Lists', {
    name: 'min',
    item: 'unknown',
    gives: ([first]) => itemType(first),
    examples: [['min(3, 9, 4)', '3']],
    run: (items) => extreme(items, -1),
  }),
  defineSpread('Lists', {
    name: 'max',
    item: 'unknown',
    gives: ([first]) => itemType(first),
    examples: [['max([date("2026-11-23"), date("2026-12-01")])', 'date("2026-12-01")']],
    run: (items) => extreme(items, 1),
  }),
  defineSpread('Lists', {
    name: 'all',
    item: 'unknown',
    gives: YES_NO,
    examples: [['all([true, false])', 'false']],
    run: (items) => quantified(items, false),
  }),
  defineSpread('Lists', {
    name: 'any',
    item: 'unknown',
    gives: YES_NO,
    examples: [['any([true, false])', 'true']],
    run: (items) => quantified(items, true),
  }),
  list({
    name: 'sublist',
    takes: [
      ['list', 'list'],
      ['start', 'number'],
      ['length?', 'number'],
    ],
    gives: sameList,
    examples: [['sublist([4, 5, 6], 2)', '[5, 6]']],
    run: (items, start, length) => {
      const from = indexOf(start, items.length);
      return from === null
        ? null
        : items.slice(from, length === undefined ? undefined : from + Math.max(0, Math.trunc(length)));
    },
  }),
  list({
    name: 'append',
    takes: [
      ['list', 'list'],
      ['item', 'unknown'],
    ],
    gives: joinedList,
    examples: [['append([1], 2)', '[1, 2]']],
    run: (items, item) => [...items, item],
  }),
  list({
    name: 'concatenate',
    takes: [
      ['list', 'list'],
      ['other', 'list'],
    ],
    gives: joinedList,
    examples: [['concatenate([1, 2], [2, 3])', '[1, 2, 2, 3]']],
    run: (items, other) => [...items, ...other],
  }),
  list({
    name: 'union',
    takes: [
      ['list', 'list'],
      ['other', 'list'],
    ],
    gives: joinedList,
    examples: [['union([1, 2], [2, 3])', '[1, 2, 3]']],
    run: (items, other) => distinct(joined([items, other])),
  }),
  list({
    name: 'distinct values',
    takes: [['list', 'list']],
    gives: sameList,
    examples: [['distinct values([1, 2, 1])', '[1, 2]']],
    run: distinct,
  }),
  list({
    name: 'reverse',
    takes: [['list', 'list']],
    gives: sameList,
    examples: [['reverse([1, 2])', '[2, 1]']],
    run: (items) => [...items].reverse(),
  }),
  list({
    name: 'insert before',
    takes: [
      ['list', 'list'],
      ['place', 'number'],
      ['item', 'unknown'],
    ],
    gives: ([of, , item]) => joinedList([of ?? null, item ?? null]),
    examples: [['insert before([1, 3], 2, 2)', '[1, 2, 3]']],
    run: (items, place, item) => {
      const at = indexOf(place, items.length);
      return at === null ? null : [...items.slice(0, at), item, ...items.slice(at)];
    },
  }),
  list({
    name: 'remove',
    takes: [
      ['list', 'list'],
      ['place', 'number'],
    ],
    gives: sameList,
    examples: [['remove([1, 2, 3], 2)', '[1, 3]']],
    run: (items, place) => {
      const at = indexOf(place, items.length);
      return at === null ? null : items.filter((_, index) => index !== at);
    },
  }),
  list({
    name: 'index of',
    takes: [
      ['list', 'list'],
      ['item', 'unknown'],
    ],
    gives: { kind: 'list', of: COUNT },
    examples: [['index of([1, 2, 1], 1)', '[1, 3]']],
    run: (items, item) => items.flatMap((each, index) => (equal(each, item) === true ? [index + 1] : [])),
  }),
  list({
    name: 'flatten',
    takes: [['list', 'list']],
    gives: { kind: 'list', of: null },
    examples: [['flatten([[1, [2]], 3])', '[1, 2, 3]']],
    run: flat,
  }),
];
