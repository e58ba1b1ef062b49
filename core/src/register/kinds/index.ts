import { said, type Words } from '@tolvek/words';
import type { ScopeType, Value } from '../../expression/index.ts';
import type { Field, FieldValue, Kind, KindName, RawAnswer } from '../field.ts';
import { termByKey } from '../vocabulary.ts';
import { choice } from './choice.ts';
import { choices } from './choices.ts';
import { date } from './date.ts';
import { dateTime } from './dateTime.ts';
import { duration } from './duration.ts';
import { email } from './email.ts';
import { files } from './files.ts';
import { type Around, isBlank, type KindWork, type NameOf, type ReadAnswer, type StoredForm, wrong } from './kind.ts';
import { level } from './level.ts';
import { type ItemsShown, lineItemsOf, rowScope, type StoodLines } from './lineItems.ts';
import { link } from './link.ts';
import { money, number } from './number.ts';
import { people, person } from './person.ts';
import { phone } from './phone.ts';
import { reference, references } from './reference.ts';
import { runningNumber } from './runningNumber.ts';
import { term, terms } from './term.ts';
import { longText, text } from './text.ts';
import { yesNo } from './yesNo.ts';

type Named = Pick<Field, 'type'>;

const workOf = (type: Kind): KindWork<KindName> => KINDS[type.kind] as unknown as KindWork<KindName>;

const lineItems = lineItemsOf((type) => workOf(type));

const KINDS: { readonly [K in KindName]: KindWork<K> } = {
  text,
  'long-text': longText,
  number,
  money,
  date,
  'date-time': dateTime,
  'yes-no': yesNo,
  choice,
  choices,
  level,
  email,
  phone,
  link,
  duration,
  person,
  people,
  term,
  terms,
  reference,
  references,
  'running-number': runningNumber,
  files,
  'line-items': lineItems,
};

/** The names of all kinds. */
export const KIND_NAMES = Object.keys(KINDS) as readonly KindName[];

/**
 * Understands what was typed into a field. One answer where a list is wanted, or a list where one
 * is, is refused.
 */
export function readAnswer(field: Named, raw: RawAnswer, around: Around): ReadAnswer {
  const work = workOf(field.type);
  const isList = Array.isArray(raw);
  if (isList && !work.listed) return wrong(said('answers:oneAnswer'), said('answers:giveOne'));
  if (!isList && (work.listed || (typeof raw === 'object' && raw !== null)) && !isBlank(raw))
    return wrong(said('answers:listOfAnswers'), said('answers:giveList'));
  return work.read(raw, field.type, around);
}

/** Understands lines as somebody changed them who may not change all of their columns. */
export function readLines(
  { type }: { readonly type: Extract<Kind, { kind: 'line-items' }> },
  raw: RawAnswer,
  around: Around,
  stood: StoodLines,
): ReadAnswer {
  if (!Array.isArray(raw) && !isBlank(raw)) return wrong(said('answers:listOfAnswers'), said('answers:giveList'));
  return lineItems.readChanged(raw, type, around, stood);
}

/**
 * What is known by name around an answer: people, terms, and the requests references can point to.
 */
export function namesAround({
  people,
  vocabularies,
  references: known,
}: Pick<Around, 'people' | 'vocabularies' | 'references'>): NameOf {
  const names = new Map(people.map((each) => [each.id, each.name]));
  for (const each of known) names.set(each.id, each.label);
  return (id) => {
    const slash = id.indexOf('/');
    if (slash < 0) return names.get(id);
    const vocabulary = vocabularies.find((each) => each.key === id.slice(0, slash));
    return vocabulary && termByKey(vocabulary, id.slice(slash + 1))?.label;
  };
}

const NOBODY: NameOf = () => undefined;

/**
 * A field's value in one writing for all readers: `€ 740.00`, `Mon 23 November 2026`, `Yes`. People are
 * called as `nameOf` knows them.
 */
export const showValue = (field: Named, value: FieldValue, nameOf: NameOf = NOBODY): string =>
  workOf(field.type).show(value, field.type, nameOf);

/** A field's value as people read it, in their language. */
export function sayValue(field: Named, value: FieldValue, nameOf: NameOf = NOBODY): Words {
  const work = workOf(field.type);
  return (work.say ?? work.show)(value, field.type, nameOf);
}

/** A stored value as it would be typed. */
export const typedForm = (field: Named, value: FieldValue): RawAnswer => workOf(field.type).typed(value, field.type);

/** A field's value as expressions see it; empty is null. Money is seen in major units. */
export const expressionValue = (field: Named, value: FieldValue | undefined): Value =>
  value === undefined ? null : workOf(field.type).toExpression(value, field.type);

/**
 * What an expression gave, as a value of a field: rounded to its places; undefined when it is empty
 * or does not fit.
 */
export const valueFromExpression = (field: Named, value: Value): FieldValue | undefined =>
  value === null ? undefined : workOf(field.type).fromExpression(value, field.type);

/** How a field’s values stand in storage, for conditions that the database decides. */
export const storedForm = (field: Named): StoredForm => workOf(field.type).stored(field.type);

export const scopeTypeOf = (field: Named): ScopeType => workOf(field.type).scopeType(field.type);

/** Line items while they are typed: the computed cells and sums that can be known already. */
export const itemsShown = (
  type: Extract<Kind, { kind: 'line-items' }>,
  raw: RawAnswer,
  around: Around,
  also: readonly string[] = [],
): ItemsShown => lineItems.shownWhile(raw, type, around, also);

/** The names that formulas in the rows of line items may use. */
export const itemScope = (type: Extract<Kind, { kind: 'line-items' }>) => rowScope(type, (each) => workOf(each));
