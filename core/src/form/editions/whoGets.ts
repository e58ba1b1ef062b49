import type { Edition } from '../design.ts';
import { chooseEdition, type Opening, type Verdict } from './choose.ts';

/** What becomes of one opening. */
export interface Given {
  /** The place of the edition in the list; -1: the form as it is. */
  readonly at: number;
  readonly verdicts: readonly Verdict[];
  /** The id of the edition they are given by the other list; null: the form as it is. */
  readonly was: string | null;
}

/** What becomes of an edition, over all openings. */
export interface Taken {
  readonly gets: number;
  /** Those who would be given it if none before fitted, and who are given it. */
  readonly fits: number;
  /** The places of the openings that only whom it leaves out keeps from it. */
  readonly caught: readonly number[];
  /** Those whom it leads elsewhere if they answer so. */
  readonly byAnswers: number;
}

export interface WhoGets {
  readonly given: readonly Given[];
  /** By the places of the editions. */
  readonly taken: readonly Taken[];
}

/**
 * Who is given which edition, with what came of each of the others. `before`: another list of editions to hold it
 * against, as the release in force has them. It takes time in proportion to openings × editions.
 */
export function whoGets(
  editions: readonly Edition[],
  openings: readonly Opening[],
  before: readonly Edition[] = editions,
): WhoGets {
  const gets = editions.map(() => 0);
  const fits = editions.map(() => 0);
  const byAnswers = editions.map(() => 0);
  const caught = editions.map((): number[] => []);
  // Whoever is left out of everyone is meant to be.
  const tells = editions.map(({ audience }) => !('everyone' in audience.in));
  const given = openings.map((opening, place): Given => {
    const { edition, verdicts } = chooseEdition(editions, opening);
    const at = edition === null ? -1 : editions.indexOf(edition);
    if (at >= 0) gets[at] = (gets[at] ?? 0) + 1;
    for (const [index, verdict] of verdicts.entries()) {
      if (verdict.is === 'fits') fits[index] = (fits[index] ?? 0) + 1;
      if (verdict.is === 'answers' && (at < 0 || index < at)) byAnswers[index] = (byAnswers[index] ?? 0) + 1;
      if (verdict.is === 'out' && tells[index]) caught[index]?.push(place);
    }
    const was = before === editions ? edition : chooseEdition(before, opening).edition;
    return { at, verdicts, was: was?.id ?? null };
  });
  return {
    given,
    taken: editions.map((_, index) => ({
      ...{ gets: gets[index] ?? 0, fits: fits[index] ?? 0, caught: caught[index] ?? [] },
      byAnswers: byAnswers[index] ?? 0,
    })),
  };
}
