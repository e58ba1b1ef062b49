import type { ScopeType, Value } from '../../expression/index.ts';
import type { FieldValue, Kind, KindName, RawAnswer } from '../field.ts';

export type ReadAnswer =
  | { readonly state: 'empty' }
  | { readonly state: 'value'; readonly value: FieldValue }
  | { readonly state: 'wrong'; readonly message: string; readonly fix: string };

/** Everything a kind of field can do; one file a kind. */
export interface KindWork<K extends KindName> {
  /** Understands what was typed. `today` is the date at the desk, `YYYY-MM-DD`. */
  read(raw: RawAnswer, type: Extract<Kind, { kind: K }>, today: string): ReadAnswer;
  /** The value as people read it. */
  show(value: FieldValue, type: Extract<Kind, { kind: K }>): string;
  /** The value as expressions see it. */
  toExpression(value: FieldValue): Value;
  scopeType(type: Extract<Kind, { kind: K }>): ScopeType;
  /** How a value stands in storage, for conditions that the database decides. */
  stored(type: Extract<Kind, { kind: K }>): StoredForm;
}

/** What of a stored value is compared, and how a value of an expression is written to be compared with it. */
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

export const wrong = (message: string, fix: string): ReadAnswer => ({ state: 'wrong', message, fix });
export const EMPTY: ReadAnswer = { state: 'empty' };
export const isBlank = (raw: RawAnswer): boolean => raw === null || (typeof raw === 'string' && raw.trim() === '');
