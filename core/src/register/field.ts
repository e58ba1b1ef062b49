import type { Translations } from '../design/index.ts';

/** An amount in whole minor units (cents) of an ISO 4217 currency. */
export interface Money {
  readonly minor: number;
  readonly currency: string;
}

/**
 * What one thing can be. Choice stores the option's key, or the words that were said instead, a
 * person their id; a date is `YYYY-MM-DD`, a moment `YYYY-MM-DDTHH:MM`, a length of
 * time its minutes.
 */
export type Single = string | number | boolean | Money;
/** One row of line items, by column. */
export type ItemRow = Readonly<Record<string, Single>>;
/**
 * A stored value; several choices or people are a list, line items a list of rows. Empty is the
 * absence of the key.
 */
export type FieldValue = Single | readonly string[] | readonly ItemRow[];
export type Values = Readonly<Record<string, FieldValue>>;

export interface ChoiceOption {
  /** Never changes once made; rules and routing name the option by it. */
  readonly key: string;
  readonly label: string;
  readonly help?: string;
  readonly colour?: OptionColour;
  /** Kept on old requests, no longer offered. */
  readonly retired?: boolean;
}

/** The small palette a coordinator gives colours from; the words always stand beside. */
export const OPTION_COLOURS = ['sea', 'moss', 'sand', 'clay', 'heather', 'slate'] as const;
export type OptionColour = (typeof OPTION_COLOURS)[number];

/** One step of an ordered scale. */
export interface Level {
  /**
   * What conditions compare, and what is stored: rising with the scale, with room between for a
   * level that comes later.
   */
  readonly worth: number;
  readonly label: string;
  readonly help?: string;
  readonly retired?: boolean;
}

/** Kinds whose value is one thing, so that they can stand in a row of line items. */
export type SingleKind =
  | { readonly kind: 'text'; readonly most?: number }
  | { readonly kind: 'long-text'; readonly most?: number }
  | {
      readonly kind: 'number';
      readonly places: number;
      readonly least?: number;
      readonly most?: number;
      readonly unit?: string;
    }
  | { readonly kind: 'money'; readonly currency: string; readonly least?: number; readonly most?: number }
  | { readonly kind: 'date'; readonly notBeforeToday?: boolean; readonly notBefore?: string }
  | { readonly kind: 'date-time'; readonly notBeforeNow?: boolean; readonly notBefore?: string }
  | { readonly kind: 'yes-no' }
  | { readonly kind: 'email' }
  | { readonly kind: 'phone' }
  | { readonly kind: 'link' }
  /** `most`: minutes. */
  | { readonly kind: 'duration'; readonly most?: number }
  /** `other`: something else may be said, in words. */
  | { readonly kind: 'choice'; readonly options: readonly ChoiceOption[]; readonly other?: boolean }
  | { readonly kind: 'level'; readonly levels: readonly Level[] }
  /** One term of a vocabulary; `under`: only those below this one. */
  | { readonly kind: 'term'; readonly vocabulary: string; readonly under?: string };

/** A column of line items: asked in each row, or computed from the others of its row. */
export interface ItemColumn {
  readonly key: string;
  readonly label: string;
  readonly type: SingleKind;
  readonly required: boolean;
  /** FEEL over the columns of the row; such a column is never asked. */
  readonly formula?: string;
}

export type Kind =
  | SingleKind
  /** `least` and `most`: how many may be chosen. */
  | {
      readonly kind: 'choices';
      readonly options: readonly ChoiceOption[];
      readonly other?: boolean;
      readonly least?: number;
      readonly most?: number;
    }
  /** Staff in any of these groups; all staff when none is named. */
  | { readonly kind: 'person'; readonly from: readonly string[] }
  | { readonly kind: 'people'; readonly from: readonly string[]; readonly most?: number }
  /** `mostBytes`: of each file. */
  | { readonly kind: 'terms'; readonly vocabulary: string; readonly under?: string; readonly most?: number }
  | ({ readonly kind: 'reference' } & ReferenceKind)
  | ({ readonly kind: 'references'; readonly most?: number } & ReferenceKind)
  /**
   * Given out when a request arrives, each once: the prefix with `{year}` filled in, and figures,
   * at least so many.
   */
  | { readonly kind: 'running-number'; readonly prefix: string; readonly digits: number }
  | { readonly kind: 'files'; readonly only: FileGroup; readonly most?: number; readonly mostBytes?: number }
  | {
      readonly kind: 'line-items';
      readonly columns: readonly ItemColumn[];
      readonly least?: number;
      readonly most?: number;
    };

/** What a reference points to, and who is offered what. */
export interface ReferenceKind {
  /** The key of the register whose requests are offered. */
  readonly register: string;
  /** The fields of that register it is shown and found by, besides its number. */
  readonly shows: readonly string[];
  /** Which are offered: all, those not finished, those finished, or one’s own. */
  readonly among: 'all' | 'unfinished' | 'finished' | 'mine';
  /**
   * FEEL that has to hold for what is offered, over `it` (the other request’s fields) and the names
   * of the form.
   */
  readonly offered?: string;
  /** Whoever asks chooses by cards with these on them, instead of looking by name. */
  readonly cards?: OfferCards;
}

/** What stands on the cards of what a reference offers, besides what it is called. */
export interface OfferCards {
  /** The field of that register with the picture, one for files; none where it is not said. */
  readonly picture?: string;
  /** Fields of that register, in order. */
  readonly facts: readonly string[];
  /** What the condition does not offer just now: on a grey card with the reason, or not there. */
  readonly unavailable: 'grey' | 'absent';
}

/** Which files a field takes. */
export type FileGroup = 'any' | 'pictures' | 'documents';

export type KindName = Kind['kind'];

/** What stands in a field before anybody has answered. */
export type Preset =
  | { readonly from: 'fixed'; readonly value: RawAnswer }
  /** Today and so many days more, or fewer. */
  | { readonly from: 'today'; readonly plus: number }
  | { readonly from: 'now' }
  /** Who asks, when they are known. */
  | { readonly from: 'me' }
  /** The team of who asks, by name. */
  | { readonly from: 'department' }
  | { readonly from: 'field'; readonly field: string }
  | { readonly from: 'formula'; readonly formula: string };

/**
 * Where a value comes from: asked on a form, filled in by the desk only (never on a form), computed
 * from other fields, given out by the house (running numbers), or carried along by a reference.
 */
export type Source =
  | { readonly source: 'asked' | 'desk-only'; readonly preset?: Preset }
  | { readonly source: 'computed'; readonly formula: string }
  | { readonly source: 'given' }
  /**
   * Brought along from the request that a reference points to: as it is now, or as it was when it
   * was pointed to.
   */
  | { readonly source: 'carried'; readonly reference: string; readonly field: string; readonly live: boolean };

/**
 * A named, typed value of a register. The key is its lasting identity; the label may change at any
 * time.
 */
export type Field = {
  readonly key: string;
  readonly label: string;
  /** What requesters read in place of the label; the label when nothing is said. */
  readonly called?: string | undefined;
  readonly type: Kind;
  /** What it is called, its options and columns in other languages. */
  readonly translations?: Translations | undefined;
} & Source;

/** A field that somebody fills in. */
export type FilledField = Extract<Field, { source: 'asked' | 'desk-only' }>;
export type CarriedField = Extract<Field, { source: 'carried' }>;
export const isFilled = (field: Field): field is FilledField =>
  field.source === 'asked' || field.source === 'desk-only';

export type RawSingle = string | number | boolean | null;
export type RawRow = Readonly<Record<string, RawSingle>>;
/** What a requester typed, before it is read: kept as it was until it can be understood. */
export type RawAnswer = RawSingle | readonly string[] | readonly RawRow[];
export type RawAnswers = Readonly<Record<string, RawAnswer>>;

/** A file that was sent along with answers. */
export interface KnownFile {
  /** Its identity and name: `0198…/plan.pdf`. */
  readonly ref: string;
  readonly bytes: number;
  /** By content, not by name. */
  readonly media: string;
}

/** Somebody who can be picked. */
export interface KnownPerson {
  readonly id: string;
  readonly name: string;
  /** Where others who can be picked have the same name: what tells them apart. */
  readonly email?: string | undefined;
  readonly groups: readonly string[];
}

/** A request that a reference can point to, as far as whoever answers may know it. */
export interface KnownRequest {
  readonly id: string;
  /** The key of its register. */
  readonly register: string;
  readonly number: string;
  /** What it is called where it is picked: what the reference shows of it. */
  readonly label: string;
  /** What references carry along from it, by the keys of its own fields. */
  readonly values: Values;
}
