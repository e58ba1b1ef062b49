import { type Said, said, type Words } from '@tolvek/words';
import { CalendarDate, ClockTime, DateTime, Duration, Months } from './calendarTime.ts';
import { isContext, isList, Range, type Value } from './value.ts';

export interface ContextEntry {
  readonly label: Words;
  /** Its label says what it is a part of. */
  readonly isFull?: true;
  readonly type: ScopeType;
}

/** Something to pick: its key, and what people read. */
export interface Pick {
  readonly key: string;
  readonly label: Words;
}

/** What a name or an expression can stand for. */
export type ScopeType =
  | { readonly kind: 'text' | 'date' | 'time' | 'date-time' | 'yes-no' | 'duration' | 'months' }
  /**
   * `places`: decimal places it can have, for reasoning about what lies between two numbers.
   * `unit`: what it counts (`EUR`, `m`). `names`: the only numbers it can be and what each is
   * called, for the steps of a scale.
   */
  | {
      readonly kind: 'number';
      readonly places?: number;
      readonly least?: number;
      readonly most?: number;
      readonly unit?: string;
      readonly names?: readonly Pick[];
    }
  /** `open`: something else may be said instead, so that it can be any text. */
  | {
      readonly kind: 'choice';
      readonly options: readonly Pick[];
      readonly open?: boolean;
    }
  /** A person by id; `people` are those to pick from and to call by name. */
  | { readonly kind: 'person'; readonly people: readonly Pick[] }
  | { readonly kind: 'range'; readonly of: ScopeType | null }
  | { readonly kind: 'list'; readonly of: ScopeType | null }
  | { readonly kind: 'context'; readonly entries: Readonly<Record<string, ContextEntry>> };

/** Kinds of values as checks tell them apart: a choice is a text at work, and so is a person. */
export type TypeKind = Exclude<ScopeType['kind'], 'choice' | 'person'> | 'unknown';

/** What a kind is called. */
export const kindSaid = (kind: TypeKind): Said => said(`kinds:${kind}`);

export const kindOf = (type: ScopeType | null): TypeKind =>
  !type ? 'unknown' : type.kind === 'choice' || type.kind === 'person' ? 'text' : type.kind;

/**
 * The type that two have in common; nothing is known when they differ, or when nothing is known of
 * one.
 */
export function sharedType(a: ScopeType | null, b: ScopeType | null): ScopeType | null {
  if (!a || !b || kindOf(a) !== kindOf(b)) return null;
  if (a.kind === 'list' && b.kind === 'list') return { kind: 'list', of: sharedType(a.of, b.of) };
  if (a.kind === 'context' || b.kind === 'context') return a === b ? a : null;
  if (a.kind === 'person' || b.kind === 'person') return a.kind === b.kind ? a : { kind: 'text' };
  return a.kind === 'choice' || (a.kind === 'number' && a !== b)
    ? b.kind === 'number'
      ? { kind: 'number' }
      : a === b
        ? a
        : { kind: 'text' }
    : a;
}

/**
 * What a value of a type may be picked from, with the words for each; nothing for types that are
 * not picked.
 */
export function picksOf(type: ScopeType | null): readonly Pick[] {
  if (type?.kind === 'list') return picksOf(type.of);
  if (type?.kind === 'number') return type.names ?? [];
  return type?.kind === 'choice' ? type.options : type?.kind === 'person' ? type.people : [];
}

/** Whether a value is of a kind. Empty is of none. */
export function isOfKind(value: Value, kind: TypeKind): boolean {
  switch (kind) {
    case 'text':
      return typeof value === 'string';
    case 'number':
      return typeof value === 'number';
    case 'yes-no':
      return typeof value === 'boolean';
    case 'date':
      return value instanceof CalendarDate;
    case 'time':
      return value instanceof ClockTime;
    case 'date-time':
      return value instanceof DateTime;
    case 'duration':
      return value instanceof Duration;
    case 'months':
      return value instanceof Months;
    case 'range':
      return value instanceof Range;
    case 'list':
      return isList(value);
    case 'context':
      return isContext(value);
    case 'unknown':
      return true;
  }
}

/** The kind of a value. */
export function kindOfValue(value: Value): TypeKind {
  const kinds: readonly TypeKind[] = [
    'text',
    'number',
    'yes-no',
    'date',
    'time',
    'date-time',
    'duration',
    'months',
    'range',
    'list',
    'context',
  ];
  return kinds.find((kind) => isOfKind(value, kind)) ?? 'unknown';
}

/**
 * The parts that dates, times and lengths of time have, by the name after the dot (DMN 1.5, table
 * 65).
 */
export const PARTS: Readonly<Partial<Record<TypeKind, Readonly<Record<string, (value: never) => number>>>>> = {
  date: {
    year: (d: CalendarDate) => d.year,
    month: (d: CalendarDate) => d.month,
    day: (d: CalendarDate) => d.dayOfMonth,
    weekday: (d: CalendarDate) => d.weekday,
  },
  time: { hour: (t: ClockTime) => t.hour, minute: (t: ClockTime) => t.minute, second: (t: ClockTime) => t.second },
  'date-time': {
    year: (m: DateTime) => m.date.year,
    month: (m: DateTime) => m.date.month,
    day: (m: DateTime) => m.date.dayOfMonth,
    weekday: (m: DateTime) => m.date.weekday,
    hour: (m: DateTime) => m.time.hour,
    minute: (m: DateTime) => m.time.minute,
    second: (m: DateTime) => m.time.second,
  },
  duration: {
    days: (d: Duration) => d.parts.days,
    hours: (d: Duration) => d.parts.hours,
    minutes: (d: Duration) => d.parts.minutes,
    seconds: (d: Duration) => d.parts.seconds,
  },
  months: { years: (m: Months) => Math.trunc(m.months / 12), months: (m: Months) => m.months % 12 },
};
