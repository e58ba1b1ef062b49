import type { Words } from '@tolvek/words';
import type { Field, FieldValue } from '../register/index.ts';

declare const revealed: unique symbol;

/**
 * What a reading of a request made, and nothing else makes: whatever leaves the server with field
 * values in it must carry it.
 */
export type Revealed<T> = T & { readonly [revealed]: true };

/** What may be done with a column of lines. Columns that are not named may not be read. */
export interface VisibleColumn {
  readonly key: string;
  readonly writable: boolean;
  /** Why staff who may change other columns can’t change this one. */
  readonly why?: Words;
}

/** Lines of which not all columns are alike to somebody. */
export interface VisibleLines {
  readonly columns: readonly VisibleColumn[];
  readonly mayAdd: boolean;
  readonly mayRemove: boolean;
}

export interface VisibleField {
  readonly key: string;
  readonly label: string;
  readonly value: FieldValue | null;
  readonly shown: Words;
  readonly writable: boolean;
  readonly source: Field['source'];
  /** Why staff who may change others can’t change this one. */
  readonly why?: Words;
  /** What may be done with lines, where not the same may be done with all of their columns. */
  readonly lines?: VisibleLines;
}

export interface VisibleValues {
  readonly fields: readonly VisibleField[];
  /** Named for the desk, so that nobody wonders; requesters are not told what they can't see. */
  readonly withheld: readonly { readonly label: string; readonly rule: Words }[];
}

export interface VisibleReason {
  readonly words: Words;
  readonly result: boolean | null;
  readonly parts: readonly VisibleReason[];
}

export interface ValueChange {
  readonly field: string;
  readonly before: FieldValue | null;
  readonly after: FieldValue | null;
}

export interface VisibleChange {
  readonly label: string;
  readonly before: Words;
  readonly after: Words;
}
