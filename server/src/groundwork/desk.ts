import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { VOCABULARY } from '@tolvek/core/register';
import { DESK, DESK_KEY, type DeskSettings, wholeDesk } from '@tolvek/core/settings';
import { and, desc, eq } from 'drizzle-orm';
import { calendarNames } from '../calendar/queries.ts';
import { designByKey, designsOf, statesOf } from '../design/queries.ts';
import { allForms } from '../form/queries.ts';
import { notifyPerson } from '../notice/notify.ts';
import { notices } from '../notice/tables.ts';
import { groundHistoryOf } from '../people/history.ts';
import { countsOfPeople } from '../people/lists.ts';
import { allGroups, namesOf, personById } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound } from '../platform/problem.ts';
import { speakFor } from '../platform/words.ts';
import { write } from '../platform/work.ts';
import { allRegisters } from '../register/queries.ts';
import { nameOf } from '../request/names.ts';
import { changeDesk } from '../settings/commands.ts';

type TestState = AnswerOf<'testEmail'>['state'];

/** What became of a test email: its first failure is told at once, though it is tried again. */
const stateOf = ({ state, lastError }: Pick<typeof notices.$inferSelect, 'state' | 'lastError'>): TestState => {
  if (state === 'sent') return 'sent';
  return state === 'failed' || state === 'dropped' || lastError !== null ? 'failed' : 'waiting';
};

/** How much of the groundwork is laid. */
export function groundworkView(db: Reader): AnswerOf<'groundwork'> {
  const groups = allGroups(db);
  const forms = allForms(db);
  const calendars = calendarNames(db);
  const tested = db
    .select()
    .from(notices)
    .where(eq(notices.kind, 'test'))
    .orderBy(desc(notices.createdAt), desc(notices.id))
    .limit(1)
    .get();
  return {
    counts: {
      ...countsOfPeople(db),
      ...{ groups: groups.length, teams: groups.filter(({ isTeam }) => isTeam).length },
      ...{ calendars: calendars.length, registers: allRegisters(db).length },
      vocabularies: designsOf(db, VOCABULARY).length,
      ...{ forms: forms.length, released: forms.filter(({ release }) => release > 0).length },
    },
    email: tested ? stateOf(tested) : null,
    calendar: calendars[0]?.key ?? null,
  };
}

/** States that are shown. */
const SHOWN = 30;

export function deskSettingsView(db: Reader): AnswerOf<'deskSettings'> {
  const design = designByKey(db, DESK, DESK_KEY);
  if (!design) throw notFound('page');
  const states = statesOf<DeskSettings>(db, design)
    .slice(0, SHOWN + 1)
    .map((state) => ({ ...state, content: wholeDesk(state.content) }));
  const names = namesOf(
    db,
    states.map((state) => state.by),
  );
  return {
    version: design.version,
    desk: wholeDesk(design.draft),
    history: groundHistoryOf(db, 'desk', 'logo', nameOf(db), 'deleted'),
    states: states.slice(0, SHOWN).map(({ number, note, by, at, content }, place) => ({
      ...{ number, note, by: names.get(by) ?? '', at: iso(at), desk: content },
      changes: DESK.compare(states[place + 1]?.content ?? null, content).map(({ words, before, after }) => ({
        ...{ words, before, after },
      })),
    })),
  };
}

/** Puts another state of the desk in force, at once. */
export function putDesk(
  house: House,
  viewer: Viewer,
  { version, desk, note }: BodyOf<'changeDesk'> & { readonly version: number },
): AnswerOf<'changeDesk'> {
  const next = write(house, ({ tx, now }) => changeDesk(tx, { version, desk, note }, { viewer, now }));
  speakFor(desk.sender.address);
  return { version: next };
}

/** Sends somebody an email, to see whether emails go out. */
export const sendTestEmail = (house: House, viewer: Viewer): AnswerOf<'sendTestEmail'> =>
  write(house, (work) => {
    const person = personById(work.tx, viewer.personId);
    if (!person) throw notFound('person');
    return { id: notifyPerson(work, person, { kind: 'test' }) };
  });

/** What became of a test email of somebody’s own. @throws Problem 404 for any other email. */
export function testEmailView(db: Reader, viewer: Viewer, id: string): AnswerOf<'testEmail'> {
  const found = db
    .select()
    .from(notices)
    .where(and(eq(notices.id, id), eq(notices.kind, 'test'), eq(notices.personId, viewer.personId)))
    .get();
  if (!found) throw notFound('email');
  const { toAddress: to, createdAt, lastError, attempts: tries } = found;
  return { state: stateOf(found), to, at: iso(createdAt), error: lastError ?? '', tries };
}
