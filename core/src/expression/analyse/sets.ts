import { CalendarDate, ClockTime, DateTime, Duration, Months } from '../calendarTime.ts';
import { roundTo, subtract } from '../decimal.ts';
import type { ScopeType } from '../types.ts';
import type { Value } from '../value.ts';

/** All that a field can hold, as far as reasoning needs it. What is not known holds anything. */
export type Domain =
  | {
      readonly kind: 'ordered';
      readonly step: number | null;
      readonly least: number;
      readonly most: number;
      readonly value: (rank: number) => Value;
    }
  | { readonly kind: 'listed'; readonly values: readonly (string | boolean)[] }
  | { readonly kind: 'text' };

/** An interval of ranks; an end that is infinite is open. */
interface Interval {
  readonly from: number;
  readonly to: number;
  readonly fromOpen: boolean;
  readonly toOpen: boolean;
}

/** A set of values of one domain. `empty` says whether the field left empty is in it. */
export type ValueSet =
  | {
      readonly kind: 'ordered';
      readonly domain: Domain & { kind: 'ordered' };
      readonly intervals: readonly Interval[];
      readonly empty: boolean;
    }
  | {
      readonly kind: 'listed';
      readonly domain: Domain & { kind: 'listed' };
      readonly values: ReadonlySet<string | boolean>;
      readonly empty: boolean;
    }
  /** Texts that are listed, or all but those listed. */
  | {
      readonly kind: 'text';
      readonly domain: Domain & { kind: 'text' };
      readonly texts: ReadonlySet<string>;
      readonly others: boolean;
      readonly empty: boolean;
    };

const ANY_NUMBER = { least: Number.NEGATIVE_INFINITY, most: Number.POSITIVE_INFINITY };

/** The domain of a type; null when nothing can be reasoned about its values. */
export function domainOf(type: ScopeType | null): Domain | null {
  switch (type?.kind) {
    case 'number':
      return {
        kind: 'ordered',
        step: type.places === undefined ? null : 10 ** -type.places,
        least: type.least ?? ANY_NUMBER.least,
        most: type.most ?? ANY_NUMBER.most,
        value: (rank) => rank,
      };
    case 'date':
      return { kind: 'ordered', step: 1, ...ANY_NUMBER, value: (rank) => new CalendarDate(rank) };
    case 'time':
      return { kind: 'ordered', step: 1, least: 0, most: 86_399, value: (rank) => new ClockTime(rank) };
    case 'date-time':
      return { kind: 'ordered', step: 1, ...ANY_NUMBER, value: (rank) => new DateTime(rank) };
    case 'duration':
      return { kind: 'ordered', step: 1, ...ANY_NUMBER, value: (rank) => new Duration(rank) };
    case 'months':
      return { kind: 'ordered', step: 1, ...ANY_NUMBER, value: (rank) => new Months(rank) };
    case 'choice':
      return type.open ? { kind: 'text' } : { kind: 'listed', values: type.options.map((option) => option.key) };
    case 'yes-no':
      return { kind: 'listed', values: [true, false] };
    case 'text':
    case 'person':
      return { kind: 'text' };
    default:
      return null;
  }
}

/** The rank of a value in an ordered domain; null for a value of another kind. */
export function rankOf(value: Value): number | null {
  if (typeof value === 'number') return value;
  if (value instanceof CalendarDate) return value.day;
  if (value instanceof Months) return value.months;
  return value instanceof ClockTime || value instanceof DateTime || value instanceof Duration ? value.seconds : null;
}

/** Everything in a domain, and empty. */
export function wholeOf(domain: Domain): ValueSet {
  switch (domain.kind) {
    case 'ordered':
      return {
        kind: 'ordered',
        domain,
        intervals: tidy([{ from: domain.least, to: domain.most, fromOpen: false, toOpen: false }], domain),
        empty: true,
      };
    case 'listed':
      return { kind: 'listed', domain, values: new Set(domain.values), empty: true };
    case 'text':
      return { kind: 'text', domain, texts: new Set(), others: true, empty: true };
  }
}

export const onlyEmpty = (domain: Domain): ValueSet => complement(filled(domain));

/** Nothing of a domain, not even empty. */
export const nothingIn = (domain: Domain): ValueSet => complement(wholeOf(domain));

/** Everything in a domain but empty. */
export const filled = (domain: Domain): ValueSet => withEmpty(wholeOf(domain), false);

export const withEmpty = (set: ValueSet, empty: boolean): ValueSet => ({ ...set, empty });

/** The values of a domain equal to one; none when it is not in the domain. */
export function setOfOne(domain: Domain, value: Value): ValueSet {
  switch (domain.kind) {
    case 'ordered': {
      const rank = rankOf(value);
      return between(domain, rank ?? Number.NaN, rank ?? Number.NaN, false, false);
    }
    case 'listed':
      return { kind: 'listed', domain, values: new Set(domain.values.filter((each) => each === value)), empty: false };
    case 'text':
      return {
        kind: 'text',
        domain,
        texts: new Set(typeof value === 'string' ? [value] : []),
        others: false,
        empty: false,
      };
  }
}

/** The values between two ranks, never empty; an infinite end is no end. */
export function between(
  domain: Domain & { kind: 'ordered' },
  from: number,
  to: number,
  fromOpen: boolean,
  toOpen: boolean,
): ValueSet {
  const within = {
    kind: 'ordered' as const,
    domain,
    intervals: tidy([{ from, to, fromOpen, toOpen }], domain),
    empty: false,
  };
  return both(within, filled(domain));
}

/**
 * Whole steps are what lies on the domain’s grid, so `> 5` of whole numbers begins at 6. Intervals
 * with nothing in them go.
 */
const tidy = (intervals: readonly Interval[], domain: Domain & { kind: 'ordered' }): readonly Interval[] => {
  const { step } = domain;
  return proper(step === null ? intervals : intervals.map((interval) => onGrid(interval, step)));
};

/** Intervals with something in them, in order. */
const proper = (intervals: readonly Interval[]): readonly Interval[] =>
  intervals
    .filter(({ from, to, fromOpen, toOpen }) => from < to || (from === to && !fromOpen && !toOpen))
    .sort((a, b) => a.from - b.from || Number(a.fromOpen) - Number(b.fromOpen));

function onGrid({ from, to, fromOpen, toOpen }: Interval, step: number): Interval {
  const places = Math.max(0, Math.round(-Math.log10(step)));
  const up = (rank: number): number => roundTo(rank, places, 'ceiling') ?? rank;
  const down = (rank: number): number => roundTo(rank, places, 'floor') ?? rank;
  const first = !Number.isFinite(from)
    ? from
    : fromOpen && up(from) === from
      ? (subtract(from, -step) ?? from)
      : up(from);
  const last = !Number.isFinite(to) ? to : toOpen && down(to) === to ? (subtract(to, step) ?? to) : down(to);
  return { from: first, to: last, fromOpen: false, toOpen: false };
}

/** What is in both sets. Sets of different domains have nothing in common. */
export function both(a: ValueSet, b: ValueSet): ValueSet {
  const empty = a.empty && b.empty;
  if (a.kind === 'ordered' && b.kind === 'ordered') {
    const intervals: Interval[] = [];
    for (const x of a.intervals) {
      for (const y of b.intervals) {
        const [low, high] = [
          x.from > y.from || (x.from === y.from && x.fromOpen) ? x : y,
          x.to < y.to || (x.to === y.to && x.toOpen) ? x : y,
        ];
        intervals.push({ from: low.from, fromOpen: low.fromOpen, to: high.to, toOpen: high.toOpen });
      }
    }
    // What is common to intervals on the grid is on it too.
    return { ...a, intervals: proper(intervals), empty };
  }
  if (a.kind === 'listed' && b.kind === 'listed')
    return { ...a, values: new Set([...a.values].filter((value) => b.values.has(value))), empty };
  if (a.kind === 'text' && b.kind === 'text') {
    if (a.others && b.others) return { ...a, texts: new Set([...a.texts, ...b.texts]), others: true, empty };
    const [some, other] = a.others ? [b, a] : [a, b];
    return {
      ...a,
      texts: new Set([...some.texts].filter((text) => other.texts.has(text) !== other.others)),
      others: false,
      empty,
    };
  }
  return withEmpty({ ...a, ...nothingOf(a) } as ValueSet, empty);
}

function nothingOf(set: ValueSet): Partial<ValueSet> {
  if (set.kind === 'ordered') return { intervals: [] };
  return set.kind === 'listed' ? { values: new Set() } : { texts: new Set(), others: false };
}

/** What is in the domain but not in the set; empty too, when the set has it not. */
export function complement(set: ValueSet): ValueSet {
  const empty = !set.empty;
  if (set.kind === 'listed')
    return { ...set, values: new Set(set.domain.values.filter((value) => !set.values.has(value))), empty };
  if (set.kind === 'text') return { ...set, others: !set.others, empty };
  const gaps: Interval[] = [];
  let from = set.domain.least;
  let fromOpen = false;
  for (const each of set.intervals) {
    gaps.push({ from, fromOpen, to: each.from, toOpen: !each.fromOpen });
    [from, fromOpen] = [each.to, !each.toOpen];
  }
  gaps.push({ from, fromOpen, to: set.domain.most, toOpen: false });
  const last = set.intervals.at(-1);
  if (last && last.to === Number.POSITIVE_INFINITY) gaps.pop();
  if (set.intervals[0]?.from === Number.NEGATIVE_INFINITY) gaps.shift();
  return { ...set, intervals: tidy(gaps, set.domain), empty };
}

export const without = (a: ValueSet, b: ValueSet): ValueSet => both(a, complement(b));
export const either = (a: ValueSet, b: ValueSet): ValueSet => complement(both(complement(a), complement(b)));

/** Whether nothing at all is in a set. */
export function isNothing(set: ValueSet): boolean {
  if (set.empty) return false;
  if (set.kind === 'ordered') return set.intervals.length === 0;
  return set.kind === 'listed' ? set.values.size === 0 : !set.others && set.texts.size === 0;
}

/** Whether a set holds its whole domain, empty included. */
export const isWhole = (set: ValueSet): boolean => isNothing(complement(set));

/**
 * Some value of a set: a plain one where there is a choice, empty only when there is nothing else.
 * Undefined: nothing is in it.
 */
export function sampleOf(set: ValueSet): Value | undefined {
  const found = filledSample(set);
  return found !== undefined ? found : set.empty ? null : undefined;
}

function filledSample(set: ValueSet): Value | undefined {
  if (set.kind === 'listed') return [...set.values][0];
  if (set.kind === 'text') {
    if (!set.others) return [...set.texts][0];
    for (let n = 1; ; n += 1)
      if (!set.texts.has(n === 1 ? 'some text' : `some text ${n}`)) return n === 1 ? 'some text' : `some text ${n}`;
  }
  const [interval] = set.intervals;
  return interval && set.domain.value(rankWithin(interval, set.domain.step));
}

function rankWithin({ from, to, fromOpen, toOpen }: Interval, step: number | null): number {
  const by = step ?? 1;
  if (from === Number.NEGATIVE_INFINITY)
    return to === Number.POSITIVE_INFINITY ? 0 : toOpen ? (subtract(to, by) ?? to) : to;
  if (!fromOpen) return from;
  const next = subtract(from, -by) ?? from;
  return next < to || (next === to && !toOpen) ? next : (from + to) / 2;
}

/** Values of a domain that belong to the same sets: one of them, and the places of those sets. */
export interface Part {
  readonly sample: Value;
  /** A bit for each set, 32 to a word. */
  readonly members: Uint32Array;
}

/** Whether the values of a part belong to the set at a place. */
export const isMember = ({ members }: Part, set: number): boolean =>
  ((members[set >>> 5] ?? 0) & (1 << (set & 31))) !== 0;

/**
 * Cuts a domain where any of the sets begins or ends, and puts together what belongs to the same
 * sets.
 */
export function partition(domain: Domain, sets: readonly ValueSet[]): readonly Part[] {
  const parts = new Map<string, Part>();
  const words = Math.max(1, Math.ceil(sets.length / 32));
  const add = (sample: Value, members: Uint32Array): void => {
    const key = members.join();
    if (!parts.has(key)) parts.set(key, { sample, members });
  };
  const membersOf = (holds: (set: ValueSet) => boolean): Uint32Array => {
    const members = new Uint32Array(words);
    for (const [index, set] of sets.entries()) if (holds(set)) mark(members, index);
    return members;
  };
  if (domain.kind === 'ordered')
    for (const { piece, members } of orderedParts(domain, sets, words))
      add(domain.value(rankWithin(piece, domain.step)), members);
  if (domain.kind === 'listed')
    for (const value of domain.values)
      add(
        value,
        membersOf((set) => set.kind === 'listed' && set.values.has(value)),
      );
  if (domain.kind === 'text') {
    const named = new Set(sets.flatMap((set) => (set.kind === 'text' ? [...set.texts] : [])));
    for (const text of named)
      add(
        text,
        membersOf((set) => set.kind === 'text' && set.texts.has(text) !== set.others),
      );
    const unnamed = filledSample({ kind: 'text', domain, texts: named, others: true, empty: false }) ?? '';
    add(
      unnamed,
      membersOf((set) => set.kind === 'text' && set.others),
    );
  }
  add(
    null,
    membersOf((set) => set.empty),
  );
  return [...parts.values()];
}

const mark = (members: Uint32Array, set: number): void => {
  members[set >>> 5] = (members[set >>> 5] ?? 0) | (1 << (set & 31));
};

/**
 * The pieces of an ordered domain, each with the sets it lies in: an interval covers a run of them.
 */
function orderedParts(
  domain: Domain & { kind: 'ordered' },
  sets: readonly ValueSet[],
  words: number,
): readonly { piece: Interval; members: Uint32Array }[] {
  const found = piecesOf(domain, sets).map((piece) => ({ piece, members: new Uint32Array(words) }));
  for (const [index, set] of sets.entries()) {
    if (set.kind !== 'ordered') continue;
    for (const interval of set.intervals) {
      let [low, high] = [0, found.length];
      // The first piece that does not lie wholly before the interval.
      while (low < high) {
        const middle = (low + high) >>> 1;
        const piece = found[middle]?.piece;
        if (piece && (piece.to < interval.from || (piece.to === interval.from && interval.fromOpen))) low = middle + 1;
        else high = middle;
      }
      for (let at = low; at < found.length; at += 1) {
        const part = found[at];
        if (!part || part.piece.from > interval.to) break;
        if (covers(interval, part.piece)) mark(part.members, index);
      }
    }
  }
  return found;
}

/**
 * The smallest intervals between all ends: each lies wholly inside or wholly outside of every set.
 */
function piecesOf(domain: Domain & { kind: 'ordered' }, sets: readonly ValueSet[]): readonly Interval[] {
  const ends = new Set<number>([domain.least, domain.most]);
  for (const set of sets) if (set.kind === 'ordered') for (const { from, to } of set.intervals) ends.add(from).add(to);
  const sorted = [...ends].sort((a, b) => a - b);
  return tidy(
    sorted.flatMap((end, index) => {
      const next = sorted[index + 1];
      const point = { from: end, to: end, fromOpen: false, toOpen: false };
      return [
        ...(Number.isFinite(end) ? [point] : []),
        ...(next === undefined ? [] : [{ from: end, to: next, fromOpen: true, toOpen: true }]),
      ];
    }),
    domain,
  );
}

const covers = (interval: Interval, piece: Interval): boolean =>
  (interval.from < piece.from || (interval.from === piece.from && (!interval.fromOpen || piece.fromOpen))) &&
  (interval.to > piece.to || (interval.to === piece.to && (!interval.toOpen || piece.toOpen)));
