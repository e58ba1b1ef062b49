import type { Words } from '@tolvek/words';
import { own } from '../own/index.ts';
import {
  type Field,
  firstFile,
  type KnownRequest,
  type NameOf,
  type OfferCards,
  type RequestFacts,
  sayValue,
  showValue,
  type Values,
} from '../register/index.ts';
import type { Protection } from './protection.ts';
import { openFields } from './restricted.ts';
import type { Revealed } from './revealed.ts';

/** Facts that may be handed to whoever answers: the requests among them as they may know them. */
export interface RevealedFacts extends RequestFacts {
  readonly references: readonly Revealed<KnownRequest>[];
}

/** Names, with requests called by their numbers. */
const byNumber =
  (names: NameOf): NameOf =>
  (id, deeper) =>
    deeper ? names(id, []) : names(id);

/** A request that a reference points to. */
export interface Referred {
  readonly id: string;
  readonly number: string;
  readonly values: Values;
}

/**
 * What a request is called by some of its fields: `Halcyon, 12 m`; by its number where they say
 * nothing. Only fields that the plan hides from nobody of the desk are used. References among them
 * are called by number.
 */
export function labelOf(
  protection: Protection,
  { number, values }: Pick<Referred, 'number' | 'values'>,
  by: readonly string[],
  names: NameOf,
): Revealed<string> {
  const open = openFields(protection);
  const shown = by.flatMap((key) => {
    const field = open.find((each) => each.key === key);
    const value = own(values, key);
    return field && value !== undefined ? [showValue(field, value, byNumber(names))] : [];
  });
  return (shown.join(', ') || number) as Revealed<string>;
}

/**
 * A request as whoever answers a reference may know it: what the reference shows, and what it brings
 * along, of fields that the plan hides from nobody of the desk.
 */
export function revealReferred(
  protection: Protection,
  target: Referred,
  reference: { readonly register: string; readonly shows: readonly string[]; readonly brings: readonly string[] },
  names: NameOf,
): Revealed<KnownRequest> {
  const open = openFields(protection);
  const values = reference.brings.flatMap((key) => {
    const value = open.some((field) => field.key === key) ? own(target.values, key) : undefined;
    return value === undefined ? [] : [[key, value] as const];
  });
  const known: KnownRequest = {
    id: target.id,
    register: reference.register,
    number: target.number,
    label: labelOf(protection, target, reference.shows, names),
    values: Object.fromEntries(values),
  };
  return known as Revealed<KnownRequest>;
}

/** Something of a request as people read it. */
export interface CardFact {
  readonly label: string;
  readonly words: Words;
}

/** What stands on the card of a request that a reference offers. */
export interface OfferCard {
  /** The id of the picture’s file. */
  readonly picture: string | null;
  readonly facts: readonly CardFact[];
  /** What keeps it from being chosen just now; null where it can be. */
  readonly unavailable: readonly CardFact[] | null;
}

/** What a card of a request says, of fields that the plan hides from nobody of the desk. */
export interface CardReading {
  readonly factsOf: (keys: readonly string[]) => readonly CardFact[];
  /** The id of the file of the first picture in a field. */
  readonly pictureIn: (key: string | undefined) => string | null;
}

/**
 * Reads a request for its card. `said`: its fields as they are called in the language of whoever reads it; what is empty
 * says nothing.
 */
export function readForCard(
  protection: Protection,
  { values }: Pick<Referred, 'values'>,
  said: readonly Field[],
  names: NameOf,
): CardReading {
  const open = new Set(openFields(protection).map(({ key }) => key));
  const openValue = (key: string) => (open.has(key) ? own(values, key) : undefined);
  return {
    factsOf: (keys) =>
      keys.flatMap((key) => {
        const field = said.find((each) => each.key === key);
        const value = openValue(key);
        return field && value !== undefined
          ? [{ label: field.label, words: sayValue(field, value, byNumber(names)) }]
          : [];
      }),
    pictureIn: (key) => firstFile(key === undefined ? undefined : openValue(key)),
  };
}

/** A card with what stands on it. `unavailable`: what keeps the request from being chosen; null for nothing. */
export const cardOf = (
  reading: CardReading,
  { picture, facts }: OfferCards,
  unavailable: OfferCard['unavailable'],
): Revealed<OfferCard> =>
  ({ picture: reading.pictureIn(picture), facts: reading.factsOf(facts), unavailable }) as Revealed<OfferCard>;
