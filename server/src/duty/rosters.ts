import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { FORM, freshKey } from '@tolvek/core/form';
import { calledApart, toldApart, type Viewer } from '@tolvek/core/people';
import { onDutyAt, peopleOn, ROSTER, type Roster } from '@tolvek/core/roster';
import { said } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import { allCalendars, calendarOf } from '../calendar/queries.ts';
import { changeAtOnce, makeInForce } from '../design/commands.ts';
import { type DesignRow, designsOf, referringTo, statesOf } from '../design/queries.ts';
import { absencesSince } from '../people/absences.ts';
import { namesOf, personById } from '../people/queries.ts';
import { people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { forgetRoster } from '../roster/commands.ts';
import { allRosters, nextGap, presenceFrom, rosterByKey } from '../roster/queries.ts';
import { deskOf } from '../settings/queries.ts';

type Plan = BodyOf<'createRoster'>['roster'];

const known = (db: Reader, key: string): DesignRow<Roster> => {
  const roster = rosterByKey(db, key);
  if (!roster) throw notFound('roster');
  return roster;
};

/** Titles of the forms that ask who is on duty by a roster. */
const askedBy = (db: Reader, key: string): readonly string[] => {
  const forms = referringTo(db, FORM, { kind: 'roster', key });
  return [...new Map(forms.map((form) => [form.key, form.title])).values()];
};

/** All rosters by name, with who is on duty now, and what a roster can name. */
export function rostersView(db: Reader, now: number): AnswerOf<'rosters'> {
  const { zone } = deskOf(db);
  const presence = presenceFrom(db, now);
  const staff = db.select().from(people).where(eq(people.kind, 'staff')).all();
  return {
    rosters: allRosters(db).map((roster) => {
      const on = onDutyAt(roster, calendarOf(db, roster.calendar), now);
      const gap = nextGap(db, roster, now, presence);
      const names = namesOf(db, on);
      return {
        ...{ key: roster.key, name: roster.name, retired: roster.retired ?? false },
        on: on.map((id) => names.get(id) ?? ''),
        gap: gap && iso(gap.from),
      };
    }),
    calendars: allCalendars(db),
    zone,
    people: toldApart(staff)
      .map((person) => ({ id: person.id, name: calledApart(person), active: person.active }))
      .sort((a, b) => a.name.localeCompare(b.name)),
    away: absencesSince(db, now, zone).map(({ personId, fromDay, untilDay }) => ({
      ...{ person: personId, from: fromDay, until: untilDay },
    })),
  };
}

/** A roster, what asks it, and what it was. */
export function rosterView(db: Reader, key: string): AnswerOf<'roster'> {
  const { id, version, draft } = known(db, key);
  const states = statesOf<Roster>(db, { id });
  const names = namesOf(
    db,
    states.map(({ by }) => by),
  );
  return {
    ...{ key, version, roster: draft, askedBy: [...askedBy(db, key)] },
    states: states.map(({ number, note, by, at, content }) => ({
      ...{ number, note, by: names.get(by) ?? '', at: iso(at), roster: content },
    })),
  };
}

/** @throws Problem 422 for a roster by which nobody could be on duty, and for people who are not of the staff */
function refuseUnsound(db: Reader, roster: Roster): void {
  const found = ROSTER.findings(roster, {
    calendars: allCalendars(db).map(({ key }) => key),
    gone: peopleOn(roster).filter((id) => personById(db, id)?.active !== true),
  });
  const problems = found.flatMap(({ severity, at, message }) =>
    severity === 'error' ? [{ field: at, message, fix: said('workshopErrors:correctIt') }] : [],
  );
  const isStaff = (id: string): boolean => personById(db, id)?.kind === 'staff';
  const strangers = [
    ...roster.shifts.flatMap(({ id, people: those }) => (those.every(isStaff) ? [] : [`shifts ${id} people`])),
    ...roster.swaps.flatMap(({ id, by, instead }) =>
      [by, instead].every((each) => each === null || isStaff(each)) ? [] : [`swaps ${id} by`],
    ),
  ].map((field) => ({ field, message: said('rosters:noPerson'), fix: said('rosters:choosePerson') }));
  const all = [...problems, ...strangers];
  if (all.length > 0) throw wrongFields(all);
}

/** Makes a roster, in force at once. @throws Problem 422 where it says nothing that could be followed. */
export const createRoster = (
  house: House,
  viewer: Viewer,
  { roster }: BodyOf<'createRoster'>,
  sentKey: string,
): AnswerOf<'createRoster'> =>
  write(house, ({ tx, now }) =>
    once(tx, { key: sentKey, scope: `roster ${viewer.personId}`, content: roster, now }, () => {
      const key = freshKey(roster.name, new Set(designsOf(tx, ROSTER).map((each) => each.key)));
      const content = { ...roster, key };
      refuseUnsound(tx, content);
      makeInForce(tx, ROSTER, { key, content, note: '' }, { viewer, now });
      return { key };
    }),
  );

/** @throws Problem 422 for a roster that would be retired while a form asks it. */
function refuseInUse(db: Reader, { key, retired }: Pick<Roster, 'key' | 'retired'>): void {
  const [form] = retired ? askedBy(db, key) : [];
  if (form !== undefined)
    throw wrongFields([
      { field: 'retired', message: said('rosters:inUse', { form }), fix: said('rosters:askAnother') },
    ]);
}

/**
 * Puts another state of a roster in force, at once: whoever is asked for from now on is asked by it.
 *
 * @throws Problem 404, 412 when somebody was faster, 422 where it says nothing that could be followed.
 */
export const changeRoster = (
  house: House,
  viewer: Viewer,
  {
    key,
    version,
    roster,
    note,
  }: { readonly key: string; readonly version: number; readonly roster: Plan; readonly note: string },
): AnswerOf<'changeRoster'> =>
  write(house, ({ tx, now }) => {
    const design = known(tx, key);
    if (design.version !== version) throw staleVersion();
    const content = { ...roster, key };
    refuseUnsound(tx, content);
    refuseInUse(tx, content);
    // Switched on again, it begins with what begins then.
    if (content.retired || !(content.tells || content.handsOver)) forgetRoster(tx, key, content.retired === true);
    return { version: changeAtOnce(tx, design, { version, content, note: note.trim() }, { viewer, now }) };
  });
