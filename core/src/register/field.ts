/** An amount in whole minor units (cents) of an ISO 4217 currency. */
export interface Money {
  readonly minor: number;
  readonly currency: string;
}

/** A stored value. Choice stores the option's key; date stores `YYYY-MM-DD`; a duration ISO 8601 (`PT1H35M`); empty is the absence of the key. */
export type FieldValue = string | number | boolean | Money;
export type Values = Readonly<Record<string, FieldValue>>;

export interface ChoiceOption {
  /** Never changes once made; rules and routing name the option by it. */
  readonly key: string;
  readonly label: string;
  readonly help?: string;
  /** Kept on old requests, no longer offered. */
  readonly retired?: boolean;
}

export type Kind =
  | { readonly kind: 'text'; readonly most?: number }
  | { readonly kind: 'long-text'; readonly most?: number }
  | { readonly kind: 'number'; readonly places: number; readonly least?: number; readonly most?: number; readonly unit?: string }
  | { readonly kind: 'money'; readonly currency: string; readonly least?: number; readonly most?: number }
  | { readonly kind: 'date'; readonly notBeforeToday?: boolean; readonly notBefore?: string }
  | { readonly kind: 'yes-no' }
  | { readonly kind: 'email' }
  | { readonly kind: 'phone' }
  | { readonly kind: 'link' }
  /** `most`: minutes. */
  | { readonly kind: 'duration'; readonly most?: number }
  | { readonly kind: 'choice'; readonly options: readonly ChoiceOption[] };

export type KindName = Kind['kind'];

/** A named, typed value of a register. The key is its lasting identity; the label may change at any time. */
export interface Field {
  readonly key: string;
  readonly label: string;
  readonly type: Kind;
  /** Asked on a form, or filled in by the desk only (never on a form). */
  readonly source: 'asked' | 'desk-only';
}

/** What a requester typed, before it is read: kept as it was until it can be understood. */
export type RawAnswer = string | number | boolean | null;
export type RawAnswers = Readonly<Record<string, RawAnswer>>;
