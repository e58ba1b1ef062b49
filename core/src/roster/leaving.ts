import type { Roster, Shift, Swap } from './roster.ts';

/** A swap in which somebody is called by another id; nothing where they would stand in for themselves. */
function renamed({ instead, by, ...swap }: Swap, from: string, to: string): readonly Swap[] {
  const other = (id: string | null): string | null => (id === from ? to : id);
  const [free, on] = [other(instead), other(by)];
  return free !== null && free === on ? [] : [{ ...swap, instead: free, by: on }];
}

/** A roster in which somebody is called by another id, as when two records become one person. */
export const asOther = (roster: Roster, from: string, to: string): Roster => ({
  ...roster,
  shifts: roster.shifts.map((shift) => ({ ...shift, people: shift.people.map((id) => (id === from ? to : id)) })),
  swaps: roster.swaps.flatMap((swap) => renamed(swap, from, to)),
});

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
    return renamed(each, leaver, taker);
  };
  return { ...roster, shifts: roster.shifts.map(shift), swaps: roster.swaps.flatMap(swap) };
}
