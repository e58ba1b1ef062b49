import type { Roster, Shift, Swap } from './roster.ts';

/** A roster in which somebody is called by another id, as when two records become one person. */
export const asOther = (roster: Roster, from: string, to: string): Roster => {
  const other = <Id extends string | null>(id: Id): Id | string => (id === from ? to : id);
  return {
    ...roster,
    shifts: roster.shifts.map((shift) => ({ ...shift, people: shift.people.map(other) })),
    swaps: roster.swaps.flatMap((swap) => {
      const [instead, by] = [other(swap.instead), other(swap.by)];
      // Nobody stands in for themselves.
      return instead !== null && instead === by ? [] : [{ ...swap, instead, by }];
    }),
  };
};

/**
 * A roster without somebody from now on: another has their turns, or those after them come earlier. A shift that nobody
 * else has stays theirs, as a gap that is told. `now`: what the clock of the roster shows.
 */
export function withoutPerson(roster: Roster, leaver: string, taker: string | null, now: string): Roster {
  const shift = (each: Shift): Shift => {
    const people = each.people.flatMap((id) => (id !== leaver ? [id] : taker === null ? [] : [taker]));
    return people.length === 0 ? each : { ...each, people };
  };
  const swap = (each: Swap): readonly Swap[] => {
    if (each.until <= now) return [each];
    // Without a taker, whoever was to be free has it again, and turns that are others’ now are swapped no more.
    if (taker === null) return each.by === leaver ? [] : [each];
    const [instead, by] = [each.instead, each.by].map((id) => (id === leaver ? taker : id)) as [
      Swap['instead'],
      Swap['by'],
    ];
    return instead !== null && instead === by ? [] : [{ ...each, instead, by }];
  };
  return { ...roster, shifts: roster.shifts.map(shift), swaps: roster.swaps.flatMap(swap) };
}
