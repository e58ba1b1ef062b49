import type { DutyAsked } from '@tolvek/core/assignment';
import { dateAt } from '@tolvek/core/deadline';
import { grouped } from '@tolvek/core/own';
import { lastsOn } from '@tolvek/core/people';
import { type Gap, gapsBetween, nextOnDuty, onDutyAt, type Presence, ROSTER, type Roster } from '@tolvek/core/roster';
import { calendarOf } from '../calendar/queries.ts';
import { type DesignRow, designByKey, designsOf } from '../design/queries.ts';
import { absencesSince } from '../people/absences.ts';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { deskOf } from '../settings/queries.ts';

/** A roster as a design. It is in force at once, so that its draft is what counts. */
export const rosterByKey = (db: Reader, key: string): DesignRow<Roster> | undefined => designByKey(db, ROSTER, key);

/** All rosters, as they are in force, by name. */
export const allRosters = (db: Reader): readonly Roster[] =>
  designsOf(db, ROSTER)
    .map(({ draft }) => draft)
    .sort((a, b) => a.name.localeCompare(b.name));

/** The rosters that are offered. */
export const rosterNames = (db: Reader): { key: string; name: string }[] =>
  allRosters(db).flatMap(({ key, name, retired }) => (retired ? [] : [{ key, name }]));

/** What a roster is called; its key when there is none any more. */
export const rosterNamed = (db: Reader, key: string): string => rosterByKey(db, key)?.draft.name ?? key;

/** Who is on duty by a roster at a moment (epoch ms), by id: nobody where there is no such roster any more. */
export function onDuty(
  db: Reader,
  { roster: key, orNext }: Pick<DutyAsked, 'roster' | 'orNext'>,
  now: number,
): readonly string[] {
  const roster = rosterByKey(db, key)?.draft;
  if (!roster) return [];
  const calendar = calendarOf(db, roster.calendar);
  const on = onDutyAt(roster, calendar, now);
  return on.length > 0 || !orNext ? on : (nextOnDuty(roster, calendar, now)?.people ?? []);
}

/** Who is here on the days from a moment (epoch ms) on, by the days of the desk. */
export function presenceFrom(db: Reader, from: number): Presence {
  const { zone } = deskOf(db);
  const absent = grouped(absencesSince(db, from, zone), ({ personId }) => personId);
  const gone = new Map<string, boolean>();
  const isGone = (id: string): boolean => {
    let is = gone.get(id);
    if (is === undefined) gone.set(id, (is = personById(db, id)?.active !== true));
    return is;
  };
  return {
    zone,
    isAway: (id, day) =>
      isGone(id) ||
      (absent.get(id) ?? []).some(({ fromDay, untilDay }) => lastsOn({ from: fromDay, until: untilDay }, day)),
  };
}

const DAY = 86_400_000;
/** So many days ahead gaps are findings of what asks a roster. */
const SOON = 14;

/** When nobody will be on duty first within two weeks though somebody has to be (epoch ms); null for never. */
export const nextGap = (
  db: Reader,
  roster: Roster,
  now: number,
  presence: Presence = presenceFrom(db, now),
): Gap | null => gapsBetween(roster, calendarOf(db, roster.calendar), presence, now, now + SOON * DAY)[0] ?? null;

/** Whether somebody is here on the day of a moment. */
export const isHereAt = ({ isAway, zone }: Presence, person: string, at: number): boolean =>
  !isAway(person, dateAt(at, zone));
