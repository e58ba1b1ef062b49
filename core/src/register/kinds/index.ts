import type { ScopeType, Value } from '../../expression/index.ts';
import type { Field, FieldValue, Kind, KindName, RawAnswer } from '../field.ts';
import { choice } from './choice.ts';
import { date } from './date.ts';
import { duration } from './duration.ts';
import { email } from './email.ts';
import type { KindWork, ReadAnswer, StoredForm } from './kind.ts';
import { link } from './link.ts';
import { money, number } from './number.ts';
import { phone } from './phone.ts';
import { longText, text } from './text.ts';
import { yesNo } from './yesNo.ts';

const KINDS: { readonly [K in KindName]: KindWork<K> } = { text, 'long-text': longText, number, money, date, 'yes-no': yesNo, choice, email, phone, link, duration };

const workOf = (type: Kind): KindWork<KindName> => KINDS[type.kind] as KindWork<KindName>;

/** Understands what was typed into a field; `today` is `YYYY-MM-DD` at the desk. */
export const readAnswer = (field: Field, raw: RawAnswer, today: string): ReadAnswer => workOf(field.type).read(raw, field.type, today);

/** A field's value as people read it: `€ 740.00`, `Mon 23 November 2026`, `Yes`. */
export const showValue = (field: Field, value: FieldValue): string => workOf(field.type).show(value, field.type);

/** A field's value as expressions see it; empty is null. Money is seen in major units. */
export const expressionValue = (field: Field, value: FieldValue | undefined): Value => (value === undefined ? null : workOf(field.type).toExpression(value));

/** How a field’s values stand in storage, for conditions that the database decides. */
export const storedForm = (field: Field): StoredForm => workOf(field.type).stored(field.type);

export const scopeTypeOf = (field: Field): ScopeType => workOf(field.type).scopeType(field.type);
