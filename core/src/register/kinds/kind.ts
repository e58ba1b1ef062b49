import type { Words } from '@tolvek/words';
import type { ScopeType, Value } from '../../expression/index.ts';
import type { FieldValue, Kind, KindName, KnownFile, KnownPerson, KnownRequest, RawAnswer } from '../field.ts';
import type { Problem } from '../problem.ts';
import type { Vocabulary } from '../vocabulary.ts';

/** What is wrong in one cell of line items. */
export type WrongCell = Pick<Problem, 'message' | 'fix' | 'why'> & { readonly place: NonNullable<Problem['place']> };

export type ReadAnswer =
  | { readonly state: 'empty' }
  | { readonly state: 'value'; readonly value: FieldValue }
  | {
      readonly state: 'wrong';
      readonly message: Words;
      readonly fix: Words;
      /** For line items: what is wrong in which cell. */
      readonly cells?: readonly WrongCell[];
    };

/** What reading an answer depends on besides its kind. */
export interface Around {
  /** `YYYY-MM-DD` at the desk. */
  readonly today: string;
  /** `YYYY-MM-DDTHH:MM` at the desk. */
  readonly now: string;
  /** Who can be picked. */
  readonly people: readonly KnownPerson[];
  /** Files that were sent along. */
  readonly files: readonly KnownFile[];
  /** The vocabularies its fields take terms from. */
  readonly vocabularies: readonly Vocabulary[];
  /** Requests that references can point to, as far as they are known here. */
  readonly references: readonly KnownRequest[];
}

/**
 * Where nothing is known but what is typed: looking at a default, guessing a kind from a column of
 * a file.
 */
export const NOTHING_AROUND: Around = {
  today: '0000-01-01',
  now: '0000-01-01T00:00',
  people: [],
  files: [],
  vocabularies: [],
  references: [],
};

/**
 * What something is called that a value names by its identity: a person by id, a term by its
 * address, a request by id and the keys of the fields it is shown by. Undefined when it is not
 * known here.
 */
export type NameOf = (id: string, by?: readonly string[]) => string | undefined;

/** Everything a kind of field can do; one file a kind. */
export interface KindWork<K extends KindName> {
  /** Whether its answer is a list. */
  readonly listed?: true;
  /** Understands what was typed. */
  read(raw: RawAnswer, type: Extract<Kind, { kind: K }>, around: Around): ReadAnswer;
  /** The value in one writing for all, for what is stored and searched: the name of a request in lists. */
  show(value: FieldValue, type: Extract<Kind, { kind: K }>, nameOf: NameOf): string;
  /** The value as people read it in their language, where that is another writing. */
  say?(value: FieldValue, type: Extract<Kind, { kind: K }>, nameOf: NameOf): Words;
  /** The value as it would be typed: reading it gives the value back. */
  typed(value: FieldValue, type: Extract<Kind, { kind: K }>): RawAnswer;
  /** The value as expressions see it. */
  toExpression(value: FieldValue, type: Extract<Kind, { kind: K }>): Value;
  /**
   * What an expression gave, as a value of this kind; undefined when it is empty or of another
   * kind.
   */
  fromExpression(value: Value, type: Extract<Kind, { kind: K }>): FieldValue | undefined;
  scopeType(type: Extract<Kind, { kind: K }>): ScopeType;
  /** How a value stands in storage, for conditions that the database decides. */
  stored(type: Extract<Kind, { kind: K }>): StoredForm;
}

/**
 * What of a stored value is compared, and how a value of an expression is written to be compared
 * with it.
 */
export interface StoredForm {
  /** The part of the stored value that counts: an amount’s minor units. */
  readonly part?: string;
  /** Whether the stored form is ordered as the values are. */
  readonly ordered: boolean;
  /** Undefined: a value of another kind, which can’t be compared. */
  readonly written: (value: Value) => string | number | undefined;
}

const asText = (value: Value): string | undefined => (typeof value === 'string' ? value : undefined);

/** Text is stored as it is; its order in the database is another than in expressions. */
export const STORED_TEXT: StoredForm = { ordered: false, written: asText };

/** Stored in a form that the database can’t compare with a value. */
export const STORED_APART: StoredForm = { ordered: false, written: () => undefined };

export const wrong = (message: Words, fix: Words): ReadAnswer => ({ state: 'wrong', message, fix });
export const EMPTY: ReadAnswer = { state: 'empty' };
export const isBlank = (raw: RawAnswer): boolean =>
  raw === null || (typeof raw === 'string' && raw.trim() === '') || (Array.isArray(raw) && raw.length === 0);

/** What kinds share whose value is a text at work and in storage alike. */
export const TEXT_WORK = {
  show: String,
  typed: (value: FieldValue): RawAnswer => String(value),
  toExpression: (value: FieldValue): Value => String(value),
  fromExpression: (value: Value): FieldValue | undefined =>
    typeof value === 'string' && value.trim() !== '' ? value : undefined,
  scopeType: (): ScopeType => ({ kind: 'text' }),
  stored: (): StoredForm => STORED_TEXT,
};
