import { compare } from '../compare.ts';
import { order, Range, type Ternary, type Value } from '../value.ts';
import { define, type FunctionName } from './builtIn.ts';

/**
 * How points and ranges lie to each other (DMN 1.5, 10.3.4.9). A point is handled as a range closed
 * at both ends. With ends of different kinds, or without an end, the answer can't be said.
 */
const range = define('Ranges');
const YES_NO = { kind: 'yes-no' } as const;
const POINT_OR_RANGE = ['range', 'number', 'text', 'date', 'time', 'date-time', 'duration', 'months'] as const;

const asRange = (value: Value): Range => (value instanceof Range ? value : new Range(value, value, false, false));

/** Answers by the order of the four ends, when each pair of them has one. */
function relate(
  a: Value,
  b: Value,
  answer: (x: Range, y: Range, way: (p: Value, q: Value) => number) => boolean,
): Ternary {
  const [x, y] = [asRange(a), asRange(b)];
  const ends = [x.low, x.high, y.low, y.high];
  if (ends.some((end) => order(end, ends[0] ?? null) === null)) return null;
  return answer(x, y, (p, q) => order(p, q) ?? 0);
}

/** Whether a value lies in a range; an end that is empty, or of another kind, can't be said. */
export function inRange(value: Value, { low, high, lowOpen, highOpen }: Range): Ternary {
  const above = compare(lowOpen ? '>' : '>=', value, low);
  const below = compare(highOpen ? '<' : '<=', value, high);
  return above === false || below === false ? false : above === null || below === null ? null : true;
}

type Lies = (x: Range, y: Range, way: (p: Value, q: Value) => number) => boolean;

const isBefore: Lies = (x, y, way) => way(x.high, y.low) < 0 || (way(x.high, y.low) === 0 && (x.highOpen || y.lowOpen));
const meets: Lies = (x, y, way) => !x.highOpen && !y.lowOpen && way(x.high, y.low) === 0;
const includes: Lies = (x, y, way) => {
  const [low, high] = [way(x.low, y.low), way(x.high, y.high)];
  return (
    (low < 0 || (low === 0 && (!x.lowOpen || y.lowOpen))) && (high > 0 || (high === 0 && (!x.highOpen || y.highOpen)))
  );
};
const overlaps: Lies = (x, y, way) => !isBefore(x, y, way) && !isBefore(y, x, way);
/** Begins first, and ends within the other. */
const overlapsBefore: Lies = (x, y, way) => {
  const [low, high] = [way(x.low, y.low), way(x.high, y.high)];
  const beginsFirst = low < 0 || (low === 0 && !x.lowOpen && y.lowOpen);
  const endsWithin = high < 0 || (high === 0 && (x.highOpen || !y.highOpen));
  return beginsFirst && !isBefore(x, y, way) && endsWithin;
};
const finishes: Lies = (x, y, way) => way(x.high, y.high) === 0 && x.highOpen === y.highOpen && includes(y, x, way);
const starts: Lies = (x, y, way) => way(x.low, y.low) === 0 && x.lowOpen === y.lowOpen && includes(y, x, way);
const coincides: Lies = (x, y, way) =>
  way(x.low, y.low) === 0 && way(x.high, y.high) === 0 && x.lowOpen === y.lowOpen && x.highOpen === y.highOpen;
const turned =
  (lies: Lies): Lies =>
  (x, y, way) =>
    lies(y, x, way);

const lying = (name: FunctionName, lies: Lies, examples: readonly (readonly [string, string])[]) =>
  range({
    name,
    takes: [
      ['one', POINT_OR_RANGE],
      ['other', POINT_OR_RANGE],
    ],
    gives: YES_NO,
    examples,
    run: (a, b) => relate(a, b, lies),
  });

export const RANGE_FUNCTIONS = [
  lying('before', isBefore, [['before([1..5], 6)', 'true']]),
  lying('after', turned(isBefore), [['after(5, [1..5))', 'true']]),
  lying('meets', meets, [['meets([1..5], [5..9])', 'true']]),
  lying('met by', turned(meets), [['met by([5..9], [1..5])', 'true']]),
  lying('overlaps', overlaps, [['overlaps([1..5], [5..9])', 'true']]),
  lying('overlaps before', overlapsBefore, [['overlaps before([1..5], [3..9])', 'true']]),
  lying('overlaps after', turned(overlapsBefore), [['overlaps after([3..9], [1..5])', 'true']]),
  lying('includes', includes, [['includes([1..9], 5)', 'true']]),
  lying('during', turned(includes), [['during(5, [1..9])', 'true']]),
  lying('starts', starts, [['starts([1..3], [1..9])', 'true']]),
  lying('started by', turned(starts), [['started by([1..9], [1..3])', 'true']]),
  lying('finishes', finishes, [['finishes([5..9], [1..9])', 'true']]),
  lying('finished by', turned(finishes), [['finished by([1..9], 9)', 'true']]),
  lying('coincides', coincides, [['coincides([1..5], [1..5])', 'true']]),
];
