import { own } from '../own/index.ts';
import { type KnownRequest, type NameOf, type RequestFacts, showValue, type Values } from '../register/index.ts';
import type { Protection } from './protection.ts';
import { openFields } from './restricted.ts';
import type { Revealed } from './revealed.ts';

/** Facts that may be handed to whoever answers: the requests among them as they may know them. */
export interface RevealedFacts extends RequestFacts {
  readonly references: readonly Revealed<KnownRequest>[];
}

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
    return field && value !== undefined
      ? [showValue(field, value, (id, deeper) => (deeper ? names(id, []) : names(id)))]
      : [];
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
