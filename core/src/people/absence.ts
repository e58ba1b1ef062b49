import { type Said, said } from '@tolvek/words';
import { wordOf } from './holders.ts';

/** When somebody is away (ISO 8601, both days included; null until they are back), and who takes their place. */
export interface Absence {
  readonly person: string;
  readonly from: string;
  readonly until: string | null;
  /** Null where nobody does. */
  readonly substitute: string | null;
}

/** The days of an absence: “from 4 December”, “4 December to 8 December”. */
export function absenceInWords({ from, until }: Pick<Absence, 'from' | 'until'>): Said {
  if (until === null) return said('absences:from', { from });
  return until === from ? said('absences:oneDay', { from }) : said('absences:fromUntil', { from, until });
}

/** Whether an absence covers a day (ISO 8601). */
export const lastsOn = ({ from, until }: Pick<Absence, 'from' | 'until'>, day: string): boolean =>
  from <= day && (until === null || day <= until);

/** The absence that counts for somebody on a day; null when they are there. */
export const awayOn = (absences: readonly Absence[], person: string, day: string): Absence | null =>
  absences.find((each) => each.person === person && lastsOn(each, day)) ?? null;

/**
 * Who takes the place of somebody on a day: their substitute; where that one is away as well, whoever
 * takes their place; after these two it ends, and nobody does.
 */
export function standInFor(absences: readonly Absence[], person: string, day: string): string | null {
  const first = awayOn(absences, person, day)?.substitute ?? null;
  if (first === null) return null;
  const firstAway = awayOn(absences, first, day);
  if (!firstAway) return first;
  const second = firstAway.substitute;
  return second === null || second === person || awayOn(absences, second, day) ? null : second;
}

/** Somebody who takes a place at seats that another holds, or all of a group who are away. */
export interface StandIn {
  /** What seats are held by: a person’s word, or the key of a group. */
  readonly holder: string;
  readonly person: string;
}

/**
 * Who takes whose place on a day: for each who is away whoever stands in for them; and at the seats of
 * a group that everybody in it is away from, whoever stands in for one of them. `groups`: the people in
 * each, who can come in.
 */
export function standInsOn(
  absences: readonly Absence[],
  groups: ReadonlyMap<string, readonly string[]>,
  day: string,
): readonly StandIn[] {
  const away = [...new Set(absences.map(({ person }) => person))].filter((each) => awayOn(absences, each, day));
  const takers = new Map(away.map((each) => [each, standInFor(absences, each, day)]));
  const alone = away.flatMap((each): StandIn[] => {
    const person = takers.get(each) ?? null;
    return person === null ? [] : [{ holder: wordOf({ person: each }), person }];
  });
  const empty = [...groups].flatMap(([holder, members]) => {
    if (members.length === 0 || !members.every((each) => takers.has(each))) return [];
    const standing = new Set(members.flatMap((each) => takers.get(each) ?? []));
    return [...standing].map((person): StandIn => ({ holder, person }));
  });
  return [...alone, ...empty];
}
