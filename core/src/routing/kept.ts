import type { Slots } from '../expression/index.ts';
import { isSame } from '../own/index.ts';
import { type Field, profileWith, type RequestFacts, requestSlots, type Values } from '../register/index.ts';
import type { Computations } from './computed.ts';
import type { Routed, Router, SaidBy } from './route.ts';

/** Facts besides fields that a table can read, as far as they are kept. */
const FACTS = {
  requester: ['requesterIsOutside', 'requesterId', 'requesterGroups', 'department'],
  door: ['door'],
  today: ['today'],
  now: ['now'],
} as const satisfies Readonly<Record<string, readonly (keyof RequestFacts)[]>>;

type KeptFacts = Partial<Pick<RequestFacts, (typeof FACTS)[keyof typeof FACTS][number]>> & {
  /** What stood in the profile fields of the requester that it reads. */
  readonly profile?: Values;
};

/** Which row a request went by, and what its table read then. */
export interface KeptRouting {
  /** 1 for the first row; one more than there are rows for the last one. */
  readonly row: number;
  /** What other rows have said, and what of it was computed; left out where there is nothing. */
  readonly by?: SaidBy;
  readonly computed?: Computations;
  /**
   * What the table read; null where that would have been too long to keep. Values can be found in the
   * history then, facts can’t.
   */
  readonly values: Values | null;
  readonly facts: KeptFacts | null;
}

/** Bytes that are kept of what a table read at most, with the row, as JSON in UTF-8. */
export const LONGEST_KEPT = 300;

/** What is kept of a routing: the row, and what the table reads of the request, as far as that is short. */
export function keptRouting(
  { row, by, computed }: Routed,
  { reads, ofRequester }: Pick<Router, 'reads' | 'ofRequester'>,
  values: Values,
  facts: RequestFacts,
): KeptRouting {
  const keys = reads.flatMap((name): readonly (keyof RequestFacts)[] =>
    Object.hasOwn(FACTS, name) ? FACTS[name as keyof typeof FACTS] : [],
  );
  const { values: profile } = profileWith(facts.profile, new Set(ofRequester));
  const said = {
    row,
    ...(Object.keys(by).length > 0 ? { by } : {}),
    ...(Object.keys(computed).length > 0 ? { computed } : {}),
  };
  const all: KeptRouting = {
    ...said,
    values: Object.fromEntries(Object.entries(values).filter(([key]) => reads.includes(key))),
    facts: {
      ...Object.fromEntries(keys.map((key) => [key, facts[key]])),
      ...(Object.keys(profile).length > 0 ? { profile } : {}),
    },
  };
  const fits = (kept: KeptRouting): boolean => new TextEncoder().encode(JSON.stringify(kept)).length <= LONGEST_KEPT;
  return [all, { ...all, values: null }].find(fits) ?? { ...said, values: null, facts: null };
}

/**
 * A routing with its reasons, from what was kept of it. `arrived`: the values it arrived with, where
 * they were too long to keep; `facts`: those of now, for what is not kept (the calendar, vocabularies,
 * what references point to). Null where the table would choose another row by these: what was so then
 * can’t be told any more.
 */
export function routedAgain(
  route: Router,
  kept: KeptRouting,
  fields: readonly Field[],
  arrived: () => Values,
  facts: RequestFacts,
): Routed | null {
  const profile = { ...facts.profile, values: kept.facts ? (kept.facts.profile ?? {}) : facts.profile.values };
  const slots: Slots = requestSlots(fields, kept.values ?? arrived(), { ...facts, ...kept.facts, profile });
  const routed = route(slots);
  const { row, by = {}, computed = {} } = kept;
  return routed.row === row && isSame(routed.by, by) && isSame(routed.computed, computed) ? routed : null;
}
