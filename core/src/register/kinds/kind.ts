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
}

export const wrong = (message: string, fix: string): ReadAnswer => ({ state: 'wrong', message, fix });
export const EMPTY: ReadAnswer = { state: 'empty' };
export const isBlank = (raw: RawAnswer): boolean => raw === null || (typeof raw === 'string' && raw.trim() === '');
