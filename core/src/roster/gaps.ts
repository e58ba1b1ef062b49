import {
  dateAt,
  dayBegins,
  type OpenStretch,
  openBetween,
  union,
  type WorkingCalendar,
  withoutAll,
} from '../deadline/index.ts';
import { dutiesBetween } from './duties.ts';
import type { Duty, Roster } from './roster.ts';

/** Who is not there, and the days by which that is told. */
export interface Presence {
  /** IANA zone of the days. */
  readonly zone: string;
  /** Whether somebody is not here on a day (`YYYY-MM-DD`): away, or gone for good. */
  readonly isAway: (person: string, day: string) => boolean;
}

/** A time (epoch ms) when nobody is on duty though somebody has to be, and who would be who is not here then. */
export interface Gap extends OpenStretch {
  readonly away: readonly string[];
}

/** Duties without the times in which whoever has them is missed by a gap: nobody is told to be on duty who is not here. */
export const heldDuties = <Of extends OpenStretch & { readonly person: string }>(
  duties: readonly Of[],
  gaps: readonly Gap[],
): readonly Of[] =>
  duties.flatMap((duty) =>
    withoutAll(
      [duty],
      gaps.filter(({ away }) => away.includes(duty.person)),
    ).map(({ from, to }) => ({ ...duty, from, to })),
  );

/** Duties cut where a day begins: whether somebody is here changes only there. */
function byDay(duty: Duty, zone: string): readonly Duty[] {
  const parts: Duty[] = [];
  for (let { from } = duty; from < duty.to; ) {
    const to = Math.min(duty.to, dayBegins(dateAt(from, zone), zone, 1));
    parts.push({ ...duty, from, to });
    from = to;
  }
  return parts;
}

/** When somebody has to be on duty between two moments (epoch ms). */
const neededIn = ({ needed }: Roster, calendar: WorkingCalendar, from: number, to: number): readonly OpenStretch[] =>
  needed === 'never' ? [] : needed === 'always' ? [{ from, to }] : openBetween(calendar, from, to);

/**
 * When nobody is on duty between two moments (epoch ms) though somebody has to be: no shift says who, or whoever it says is
 * not here. In their order; a time in which somebody would be there is told apart from one in which nobody would.
 */
export function gapsBetween(
  roster: Roster,
  calendar: WorkingCalendar,
  { zone, isAway }: Presence,
  from: number,
  to: number,
): readonly Gap[] {
  const duties = dutiesBetween(roster, calendar, from, to).flatMap((duty) => byDay(duty, zone));
  const isThere = ({ person, from: begins }: Duty): boolean => !isAway(person, dateAt(begins, zone));
  const held = union(duties.filter(isThere));
  const missed = duties.filter((duty) => !isThere(duty));
  const open = withoutAll(union(neededIn(roster, calendar, from, to)), held);
  // Cut where whoever is missed changes, so that each gap says who is.
  const cuts = [...new Set(missed.flatMap((duty) => [duty.from, duty.to]))].sort((a, b) => a - b);
  const gaps: Gap[] = [];
  for (const stretch of open) {
    const edges = [stretch.from, ...cuts.filter((cut) => cut > stretch.from && cut < stretch.to), stretch.to];
    for (const [place, begins] of edges.slice(0, -1).entries()) {
      const away = [
        ...new Set(missed.flatMap((duty) => (duty.from <= begins && duty.to > begins ? [duty.person] : []))),
      ].sort();
      const ends = edges[place + 1] ?? begins;
      const last = gaps.at(-1);
      // A gap goes on over midnight where the same people are missed.
      if (last && last.to === begins && `${last.away}` === `${away}`) gaps[gaps.length - 1] = { ...last, to: ends };
      else gaps.push({ from: begins, to: ends, away });
    }
  }
  return gaps;
}
