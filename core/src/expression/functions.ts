import * as decimal from './decimal.ts';
import { CalendarDate, Duration, equal, order, type Value } from './value.ts';

/** One built-in function: how it is called, what it does in words, and its work. Arguments of the wrong kind give null. */
export interface BuiltIn {
  readonly name: string;
  readonly takes: readonly [least: number, most: number];
  readonly says: string;
  readonly run: (args: readonly Value[]) => Value;
}

const text =
  (run: (value: string, other: string) => Value) =>
  (args: readonly Value[]): Value => {
    const [a, b = ''] = args;
    return typeof a === 'string' && typeof b === 'string' ? run(a, b) : null;
  };

/** FEEL lets list functions take one list or the values one by one. */
const spread = (args: readonly Value[]): readonly Value[] => (args.length === 1 && Array.isArray(args[0]) ? args[0] : args);

const numbers =
  (run: (values: readonly number[]) => Value) =>
  (args: readonly Value[]): Value => {
    const values = spread(args);
    return values.every((value) => typeof value === 'number') ? run(values as readonly number[]) : null;
  };

const extreme =
  (sign: 1 | -1) =>
  (args: readonly Value[]): Value => {
    const [first = null, ...rest] = spread(args);
    let best: Value = first;
    for (const value of rest) {
      const way = order(value, best);
      if (way === null) return null;
      if (way * sign > 0) best = value;
    }
    return best;
  };

const sum = (values: readonly number[]): number | null => values.reduce<number | null>((total, value) => (total === null ? null : decimal.add(total, value)), 0);

const TABLE: readonly BuiltIn[] = [
  { name: 'not', takes: [1, 1], says: 'the opposite of yes or no', run: ([value]) => (typeof value === 'boolean' ? !value : null) },
  { name: 'contains', takes: [2, 2], says: 'whether a text holds another', run: text((a, b) => a.includes(b)) },
  { name: 'starts with', takes: [2, 2], says: 'whether a text begins with another', run: text((a, b) => a.startsWith(b)) },
  { name: 'ends with', takes: [2, 2], says: 'whether a text ends with another', run: text((a, b) => a.endsWith(b)) },
  { name: 'upper case', takes: [1, 1], says: 'the text in capitals', run: text((a) => a.toUpperCase()) },
  { name: 'lower case', takes: [1, 1], says: 'the text in small letters', run: text((a) => a.toLowerCase()) },
  { name: 'string length', takes: [1, 1], says: 'how many characters a text has', run: text((a) => [...a].length) },
  { name: 'count', takes: [1, 1], says: 'how many items a list has', run: ([list]) => (Array.isArray(list) ? list.length : null) },
  { name: 'sum', takes: [1, 99], says: 'the items added up', run: numbers((values) => (values.length === 0 ? null : sum(values))) },
  { name: 'mean', takes: [1, 99], says: 'the average of the items', run: numbers((values) => (values.length === 0 ? null : decimal.divide(sum(values) ?? 0, values.length))) },
  { name: 'min', takes: [1, 99], says: 'the smallest item', run: extreme(-1) },
  { name: 'max', takes: [1, 99], says: 'the largest item', run: extreme(1) },
  { name: 'abs', takes: [1, 1], says: 'a number without its sign', run: ([value]) => (typeof value === 'number' ? Math.abs(value) : null) },
  { name: 'floor', takes: [1, 1], says: 'a number rounded down', run: ([value]) => (typeof value === 'number' ? Math.floor(value) : null) },
  { name: 'ceiling', takes: [1, 1], says: 'a number rounded up', run: ([value]) => (typeof value === 'number' ? Math.ceil(value) : null) },
  {
    name: 'list contains',
    takes: [2, 2],
    says: 'whether a list has an item',
    run: ([list, item = null]) => (Array.isArray(list) ? list.some((each: Value) => equal(each, item) === true) : null),
  },
  {
    name: 'date',
    takes: [1, 1],
    says: 'a date from a text like 2026-11-23',
    run: ([value]) => (typeof value === 'string' ? CalendarDate.read(value) : value instanceof CalendarDate ? value : null),
  },
  {
    name: 'duration',
    takes: [1, 1],
    says: 'a length of time from a text like P2D',
    run: ([value]) => (typeof value === 'string' ? Duration.read(value) : value instanceof Duration ? value : null),
  },
];

/** The built-in functions by name: those of the FEEL standard that Tolvek carries so far. */
export const BUILT_INS: ReadonlyMap<string, BuiltIn> = new Map(TABLE.map((entry) => [entry.name, entry]));
