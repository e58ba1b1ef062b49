import type * as english from './en/index.ts';

type Catalogues = typeof english;
/** A part of the catalogues: the Front desk, emails, findings. */
export type Area = keyof Catalogues;

/** A key without what tells one from several (CLDR plural categories, as i18next writes them). */
type Base<Name> = Name extends `${infer Base}_${'one' | 'other'}` ? Base : Name extends string ? Name : never;

/** Every text there is: its area and its name in it. */
export type Key = { [A in Area]: `${A}:${Base<keyof Catalogues[A]>}` }[Area];

/** A length of working time: whole and half days, or minutes where it is shorter. */
export type Length = { readonly days: number } | { readonly minutes: number };
/** A sum of money: an amount in units of its currency (ISO 4217). */
export interface Money {
  readonly amount: number;
  readonly currency: string;
}

/** A length of time in its parts, each whole. */
export type Stretch = Readonly<Partial<Record<'year' | 'month' | 'day' | 'hour' | 'minute' | 'second', number>>>;

/** A number with at least so many decimals. */
export interface Decimal {
  readonly value: number;
  readonly decimals: number;
}

/** What stands in a text's place for each way of writing it. */
interface Formats {
  readonly number: number;
  /** Epoch ms, or ISO 8601. */
  readonly moment: number | string;
  readonly date: number | string;
  readonly day: number | string;
  /** `23 Nov`. */
  readonly dayMonth: number | string;
  /** `November 2026`. */
  readonly month: number | string;
  /** `2026`. */
  readonly year: number | string;
  readonly clock: number | string;
  readonly length: Length;
  /** The same, shortened. */
  readonly brief: Length;
  readonly money: Money;
  /** The parts of a length of time that are not nothing: `2 days 3 hours`. */
  readonly parts: Stretch;
  readonly decimal: Decimal;
  /** A day with its weekday and year. */
  readonly longDate: number | string;
  readonly longMoment: number | string;
  /** Minutes, in days of 24 hours, hours and minutes. */
  readonly span: number;
  /** Set apart by commas. */
  readonly list: readonly Words[];
  /** Each on a line of its own. */
  readonly lines: readonly Words[];
  /** One straight after the other. */
  readonly joined: readonly Words[];
  /** Bytes. */
  readonly size: number;
  readonly and: readonly Words[];
  readonly or: readonly Words[];
  /** Names, each in the language's quotes, joined by “and”. */
  readonly names: readonly Words[];
  /** With its first letter large. */
  readonly capital: Words;
  /** Whole sentences, one after the other. */
  readonly sentences: readonly Words[];
}

type Trim<S extends string> = S extends ` ${infer R}` ? Trim<R> : S extends `${infer R} ` ? Trim<R> : S;
type Place<S extends string> = S extends `${infer Name},${infer Format}`
  ? { readonly [N in Trim<Name>]: Trim<Format> extends keyof Formats ? Formats[Trim<Format>] : never }
  : Trim<S> extends 'desk'
    ? unknown
    : { readonly [N in Trim<S>]: Trim<S> extends 'count' ? number : Words | number };
export type Places<S> = S extends `${string}{{${infer P}}}${infer Rest}` ? Place<P> & Places<Rest> : unknown;

type TextOf<K extends Key> = K extends `${infer A}:${infer Name}`
  ? A extends Area
    ? Name extends keyof Catalogues[A]
      ? Catalogues[A][Name]
      : `${Name}_other` extends keyof Catalogues[A]
        ? Catalogues[A][`${Name}_other` & keyof Catalogues[A]] & string extends infer T
          ? T extends string
            ? `${T}{{count}}`
            : never
          : never
        : never
    : never
  : never;

/** What a text is given: a value for each of its places. */
export type Given<K extends Key> = Places<TextOf<K>>;
/** Nothing for a text without places. */
export type Params<K extends Key> = unknown extends Given<K> ? [] : [given: Given<K>];

/** What can stand in a place. */
export type Param = string | number | Said | Length | Money | Stretch | Decimal | readonly Words[];

/**
 * A text as a code: which one, and what stands in its places. It is made into words where somebody
 * reads it, in their language.
 */
export interface Said {
  readonly say: string;
  readonly with?: Readonly<Record<string, Param>>;
}

/** What people read: a text of ours as a code, or words that a person wrote. */
export type Words = string | Said;

/**
 * Says a text by its key.
 *
 * @example said('answers:unanswered', { label: 'Berth' })
 */
export const said = <K extends Key>(say: K, ...[given]: Params<K>): Said =>
  given ? { say, with: given as Readonly<Record<string, Param>> } : { say };
