import { said, type Words } from '@tolvek/words';
import { isList, type Value } from '../../expression/index.ts';
import type { FieldValue } from '../field.ts';
import { type Around, EMPTY, isBlank, type KindWork, type NameOf, STORED_APART, STORED_TEXT, wrong } from './kind.ts';

/** Whether somebody may be picked: known here, and in one of the groups where groups are named. */
const mayBePicked = (id: string, from: readonly string[], { people }: Around): boolean =>
  people.some((each) => each.id === id && (from.length === 0 || each.groups.some((group) => from.includes(group))));

const named = (id: string, nameOf: NameOf): string => nameOf(id) ?? '?';
const called = (id: string, nameOf: NameOf): Words => nameOf(id) ?? said('answers:unknownPerson');

/** One person, kept by identity: a new name reaches every request. */
export const person: KindWork<'person'> = {
  read: (raw, type, around) => {
    if (isBlank(raw)) return EMPTY;
    const id = typeof raw === 'string' ? raw : '';
    return mayBePicked(id, type.from, around)
      ? { state: 'value', value: id }
      : wrong(said('answers:personNotOffered'), said('answers:choosePerson'));
  },
  show: (value, _, nameOf) => named(String(value), nameOf),
  say: (value, _, nameOf) => called(String(value), nameOf),
  typed: (value) => String(value),
  toExpression: (value) => String(value),
  fromExpression: (value) => (typeof value === 'string' && value !== '' ? value : undefined),
  scopeType: () => ({ kind: 'person', people: [] }),
  stored: () => STORED_TEXT,
};

const idsOf = (value: FieldValue): readonly string[] => value as readonly string[];

/** Several people, each once, in the order they were chosen. */
export const people: KindWork<'people'> = {
  listed: true,
  read: (raw, type, around) => {
    if (isBlank(raw)) return EMPTY;
    const ids = [...new Set(raw as readonly unknown[])].filter((id) => typeof id === 'string');
    if (ids.length < new Set(raw as readonly unknown[]).size || !ids.every((id) => mayBePicked(id, type.from, around)))
      return wrong(said('answers:personsNotOffered'), said('answers:choosePersons'));
    const { most = 50 } = type;
    if (ids.length > most)
      return wrong(
        said('answers:tooManyChosen', { most, chosen: ids.length }),
        said('answers:removeSome', { n: ids.length - most }),
      );
    return { state: 'value', value: ids };
  },
  show: (value, _, nameOf) =>
    idsOf(value)
      .map((id) => named(id, nameOf))
      .join(', '),
  say: (value, _, nameOf) => said('values:list', { items: idsOf(value).map((id) => called(id, nameOf)) }),
  typed: idsOf,
  toExpression: (value): Value => idsOf(value),
  fromExpression: (value) =>
    isList(value) && value.length > 0 && value.every((each) => typeof each === 'string')
      ? (value as readonly string[])
      : undefined,
  scopeType: () => ({ kind: 'list', of: { kind: 'person', people: [] } }),
  stored: () => STORED_APART,
};
