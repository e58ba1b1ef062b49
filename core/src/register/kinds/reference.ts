import { said } from '@tolvek/words';
import { isList } from '../../expression/index.ts';
import type { FieldValue, ReferenceKind } from '../field.ts';
import { type Around, EMPTY, isBlank, type KindWork, type NameOf, STORED_APART, STORED_TEXT, wrong } from './kind.ts';

const isKnown = (id: unknown, { register }: ReferenceKind, { references }: Around): boolean =>
  references.some((each) => each.id === id && each.register === register);

const named = (id: string, { shows }: ReferenceKind, nameOf: NameOf): string => nameOf(id, shows) ?? '?';

/**
 * Another request, kept by identity. Whether it is offered with the other answers is for
 * `offerTest` to say.
 */
export const reference: KindWork<'reference'> = {
  read: (raw, type, around) => {
    if (isBlank(raw)) return EMPTY;
    return isKnown(raw, type, around)
      ? { state: 'value', value: String(raw) }
      : wrong(said('answers:thingNotOffered'), said('answers:searchAgain'));
  },
  show: (value, type, nameOf) => named(String(value), type, nameOf),
  typed: (value) => String(value),
  toExpression: (value) => String(value),
  fromExpression: (value) => (typeof value === 'string' && value !== '' ? value : undefined),
  scopeType: () => ({ kind: 'text' }),
  stored: () => STORED_TEXT,
};

const idsOf = (value: FieldValue): readonly string[] => value as readonly string[];

/** Several requests, each once, in the order they were chosen. */
export const references: KindWork<'references'> = {
  listed: true,
  read: (raw, type, around) => {
    if (isBlank(raw)) return EMPTY;
    const ids = [...new Set(raw as readonly unknown[])];
    if (!ids.every((id) => isKnown(id, type, around)))
      return wrong(said('answers:oneThingNotOffered'), said('answers:removeAndSearch'));
    const { most = 50 } = type;
    if (ids.length > most)
      return wrong(
        said('answers:tooManyChosen', { most, chosen: ids.length }),
        said('answers:removeSome', { n: ids.length - most }),
      );
    return { state: 'value', value: ids as readonly string[] };
  },
  show: (value, type, nameOf) =>
    idsOf(value)
      .map((id) => named(id, type, nameOf))
      .join(', '),
  typed: idsOf,
  toExpression: idsOf,
  fromExpression: (value) =>
    isList(value) && value.length > 0 && value.every((each) => typeof each === 'string')
      ? (value as readonly string[])
      : undefined,
  scopeType: () => ({ kind: 'list', of: { kind: 'text' } }),
  stored: () => STORED_APART,
};
