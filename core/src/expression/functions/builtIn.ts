import type { Key } from '@tolvek/words';
import type { CalendarDate, ClockTime, DateTime, Duration, Months } from '../calendarTime.ts';
import type { ScopeType, TypeKind } from '../types.ts';
import type { Context, Range, Value } from '../value.ts';

/** What a kind of value is in TypeScript. `any` takes everything, empty included. */
interface ValueOfKind {
  text: string;
  number: number;
  'yes-no': boolean;
  date: CalendarDate;
  time: ClockTime;
  'date-time': DateTime;
  duration: Duration;
  months: Months;
  range: Range;
  list: readonly Value[];
  context: Context;
  unknown: Value;
}

export interface Param {
  readonly name: string;
  /** One kind, or several that will do. `unknown`: anything, empty included. */
  readonly kinds: readonly TypeKind[];
  readonly optional?: true;
}

/** What a function can need besides what it is given. */
export type NeededName = 'calendar' | 'vocabularies';

export type Group = 'Text' | 'Numbers' | 'Yes and no' | 'Lists' | 'Dates and times' | 'Ranges' | 'Tolvek’s own';

/** A function by name: what it gives is told by the catalogues, so that none is without a text. */
export type FunctionName = Extract<Key, `functions:${string}`> extends `functions:${infer Name}` ? Name : never;

/**
 * One function: how it is called and its work. Given a value of another kind
 * it gives empty.
 */
export interface BuiltIn {
  readonly name: FunctionName;
  readonly group: Group;
  readonly takes: readonly Param[];
  /** Takes one list, or its items one by one; `takes` then holds the kinds of an item. */
  readonly spreads: boolean;
  /**
   * A name of the scope whose value comes before the others: the working calendar, the
   * vocabularies. Without it the function gives empty.
   */
  readonly needs?: NeededName;
  readonly gives: (args: readonly (ScopeType | null)[]) => ScopeType | null;
  /** Each a call and what it gives, both as expressions; tested, and printed in the reference. */
  readonly examples: readonly (readonly [call: string, gives: string])[];
  readonly run: (...args: never[]) => Value;
}

type Takes = readonly (readonly [name: string, kind: TypeKind | readonly TypeKind[]])[];
type KindsOf<P> = P extends readonly [string, infer K] ? (K extends readonly TypeKind[] ? K[number] : K) : never;
type Needs = { readonly needs?: NeededName };
type ArgsOf<T extends Takes> = {
  [I in keyof T]: T[I] extends readonly [`${string}?`, unknown]
    ? ValueOfKind[KindsOf<T[I]> & TypeKind] | undefined
    : ValueOfKind[KindsOf<T[I]> & TypeKind];
};

interface Definition<T extends Takes, N extends Needs['needs'] = undefined> {
  readonly name: FunctionName;
  readonly takes: T;
  readonly gives: ScopeType | ((args: readonly (ScopeType | null)[]) => ScopeType | null);
  readonly examples: BuiltIn['examples'];
  readonly needs?: N;
  readonly run: (...args: N extends NeededName ? [Context, ...ArgsOf<T>] : ArgsOf<T>) => Value;
}

const paramsOf = (takes: Takes): readonly Param[] =>
  takes.map(([name, kinds]) => ({
    name: name.replace(/\?$/, ''),
    kinds: typeof kinds === 'string' ? [kinds] : kinds,
    ...(name.endsWith('?') ? { optional: true as const } : {}),
  }));

/** Defines functions of a group. A parameter named with `?` at its end may be left out. */
export function define(group: Group) {
  return <const T extends Takes, const N extends Needs['needs'] = undefined>({
    takes,
    gives,
    needs,
    ...rest
  }: Definition<T, N>): BuiltIn => ({
    ...rest,
    ...(needs ? { needs } : {}),
    group,
    takes: paramsOf(takes),
    spreads: false,
    gives: typeof gives === 'function' ? gives : () => gives,
    run: rest.run as unknown as BuiltIn['run'],
  });
}

/** Defines a function that takes one list, or the items one by one, all of one kind. */
export function defineSpread(
  group: Group,
  definition: Omit<Definition<Takes>, 'takes' | 'run'> & {
    readonly item: TypeKind;
    readonly run: (items: readonly Value[]) => Value;
  },
): BuiltIn {
  const { item, gives, run, ...rest } = definition;
  return {
    ...rest,
    group,
    takes: paramsOf([['items', item]]),
    spreads: true,
    gives: typeof gives === 'function' ? gives : () => gives,
    run: run as unknown as BuiltIn['run'],
  };
}
