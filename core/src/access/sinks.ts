import type { Said } from '@tolvek/words';
/**
 * What guards a place where something is made from fields and somebody reads it.
 *
 * - `release`: the form is not released while it tells somebody what they may not read; a way that
 *   opens later, by a change of the plan, is withheld from them.
 * - `reading`: it is made anew for each reader, out of what that reader may read.
 * - `asking`: `mayAsk` is asked before anything is looked at.
 */
export type Guard = 'release' | 'reading' | 'asking';

/**
 * Every kind of place where something is made from fields, and its guard. Whoever adds a kind has
 * to say here what guards it.
 */
export const SINKS = {
  preset: 'release',
  set: 'release',
  clear: 'release',
  lock: 'release',
  show: 'release',
  hide: 'release',
  jump: 'release',
  require: 'release',
  limit: 'release',
  warn: 'release',
  refuse: 'release',
  /** What limits the offer of a reference, by the fields of the form. */
  offer: 'release',
  /** The same by the fields of what is offered, and what the reference shows and brings along. */
  brought: 'release',
  /** A limit that another field sets: “not before the arrival”. */
  order: 'release',
  unique: 'release',
  /** Team, priority, stage and due date, and the reasons shown of them. */
  routing: 'release',
  /** Who is asked to decide, where that hangs on the answers. */
  step: 'release',
  /** Whether something is due, and when, where that hangs on the answers. */
  deadline: 'release',
  instruction: 'release',
  computed: 'reading',
  carried: 'reading',
  /** What a request is called. */
  called: 'reading',
  /** The subject of a letter that begins on a form: the form, or the request’s number. */
  mail: 'reading',
  letter: 'reading',
  /** Columns of sheets of rows. */
  rows: 'reading',
  trial: 'asking',
  dryRun: 'asking',
  count: 'asking',
} as const satisfies Readonly<Record<string, Guard>>;

export type SinkKind = keyof typeof SINKS;

/** Who reads what is made. */
export type Readers =
  /** Whoever may read a field. */
  | { readonly who: 'field'; readonly field: string }
  /** Whoever changes a field: it is told at it, but nothing is put into it. */
  | { readonly who: 'touching'; readonly field: string }
  /** Everybody who works on requests. */
  | { readonly who: 'desk' }
  /** Those of them who may change some field. */
  | { readonly who: 'changers' }
  /** Whoever fills the form in: they know what they typed. */
  | { readonly who: 'asker' }
  /** Also whoever has nothing to do with the request. */
  | { readonly who: 'anybody' };

/** A field that is read: for its value, or only for whether something holds. */
export interface Read {
  readonly field: string;
  readonly how: 'value' | 'verdict';
}

/** A place where something is made from fields. */
export interface Sink {
  readonly kind: SinkKind;
  /** Its lasting name within its form: `clear rule-1 escort`. */
  readonly id: string;
  /** The expressions that make it: a disclosure is of these, and of no others. */
  readonly text: string;
  /** What it does with a field, as a sentence without its end: `rule “Copy” puts it into “Escort”`. */
  readonly says: (it: string, how: Read['how']) => Said;
  readonly readers: Readers;
  readonly reads: readonly Read[];
}
