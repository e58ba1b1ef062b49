import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { CALENDAR, calendarFor, calendarsOf, dueOf, ruleOf, type WorkingCalendar } from '@tolvek/core/deadline';
import { FORM, type FormDesign, freshKey } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { calendarByKey, calendarOf } from '../calendar/queries.ts';
import { countedAnew } from '../deadline/follow.ts';
import { deadlinesOf } from '../deadline/queries.ts';
import { holdTimers, ringAtOnce } from '../deadline/timers.ts';
import { changeAtOnce, makeInForce } from '../design/commands.ts';
import { type DesignRow, designsOf, statesOf } from '../design/queries.ts';
import { designStates, designs } from '../design/tables.ts';
import { planningOf, releaseById } from '../form/queries.ts';
import { namesOf } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, staleVersion, wrongFields } from '../platform/problem.ts';
import { inTurns } from '../platform/turns.ts';
import { by, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { eachRequest } from '../request/eachRequest.ts';
import { openRequest } from '../request/open.ts';
import type { ShownRow } from '../request/queries.ts';
import { requests, UNFINISHED } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';

/** So many requests are shown that a change would move. */
const SHOWN = 30;

/** Whether deadlines of a form count by a calendar. */
const countsBy = ({ deadline }: Pick<FormDesign, 'deadline'>, key: string): boolean =>
  calendarsOf(deadline).includes(key);

function known(db: Reader, key: string): DesignRow<WorkingCalendar> {
  const calendar = calendarByKey(db, key);
  if (!calendar) throw notFound('calendar');
  return calendar;
}

/** A working calendar, what counts by it, and what it was. */
export function calendarView(db: Reader, key: string): AnswerOf<'calendar'> {
  const { id, version, draft } = known(db, key);
  const states = statesOf<WorkingCalendar>(db, { id });
  const names = namesOf(
    db,
    states.map(({ by: person }) => person),
  );
  return {
    ...{ key, version, calendar: draft },
    countedBy: designsOf(db, FORM).flatMap(({ draft: form }) => (countsBy(form, key) ? [form.title] : [])),
    states: states.map(({ number, note, by: person, at, content }) => ({
      ...{ number, note, by: names.get(person) ?? '', at: iso(at), calendar: content },
    })),
  };
}

/** All working calendars by name, and how many forms count by each. */
export function calendarsView(db: Reader): AnswerOf<'calendars'> {
  const forms = designsOf(db, FORM);
  const calendars = designsOf(db, CALENDAR).map(({ key, draft: { name, zone, retired = false } }) => ({
    ...{ key, name, zone, retired },
    forms: forms.filter(({ draft }) => countsBy(draft, key)).length,
  }));
  return { calendars: calendars.sort((a, b) => a.name.localeCompare(b.name)) };
}

/** Makes a working calendar, in force at once. @throws Problem 422 when nothing could be counted by it. */
export const createCalendar = (
  house: House,
  viewer: Viewer,
  { calendar }: BodyOf<'createCalendar'>,
  sentKey: string,
): AnswerOf<'createCalendar'> =>
  write(house, ({ tx, now }) =>
    once(tx, { key: sentKey, scope: `calendar ${viewer.personId}`, content: calendar, now }, () => {
      const key = freshKey(calendar.name, new Set(designsOf(tx, CALENDAR).map((each) => each.key)));
      const content = withKey(key, calendar);
      refuseUnsound(content);
      makeInForce(tx, CALENDAR, { key, content, note: '' }, { viewer, now });
      return { key };
    }),
  );

/** Releases whose deadlines are counted by a calendar. */
const releasesBy = (db: Reader, key: string): readonly string[] =>
  db
    .select({ id: designStates.id })
    .from(designStates)
    .innerJoin(designs, eq(designs.id, designStates.designId))
    .where(eq(designs.kind, FORM.kind))
    .all()
    .flatMap(({ id }) => (countsBy(releaseById(db, id).release.design, key) ? [id] : []));

interface Counted {
  readonly request: ShownRow;
  /** What it would be due by; null where nothing of it moves. */
  readonly to: number | null;
  /** How many reminders and messages to leads would go out at once. */
  readonly rings: number;
}

/** The requests whose deadlines count by a calendar, as another state of it would have them. */
function* countedBy(db: Reader, calendar: WorkingCalendar, now: number): Generator<Counted> {
  const releases = releasesBy(db, calendar.key);
  for (const request of eachRequest(
    db,
    and(
      inArray(sql`coalesce(${requests.plannedBy}, ${requests.releaseId})`, [...releases]),
      inArray(requests.phase, UNFINISHED),
    ),
  )) {
    const is = countedAnew(db, request, now, (by) => (by === calendar.key ? calendar : calendarOf(db, by)));
    const plan = planningOf(db, request).release.design.deadline;
    let rings = 0;
    let moves = false;
    for (const row of deadlinesOf(db, request.id)) {
      const [rule, again] = [ruleOf(plan, row.key), is.get(row.key)];
      if (row.state !== 'open' || !rule || !again || again.deadline.due === row.due) continue;
      moves = true;
      const counts = calendarFor(plan, rule) === calendar.key ? calendar : calendarOf(db, calendarFor(plan, rule));
      rings += ringAtOnce(db, row, again.deadline, { rule, calendar: counts, now });
    }
    yield { request, rings, to: moves ? dueOf(is) : null };
  }
}

const withKey = (key: string, calendar: BodyOf<'tryCalendar'>['calendar']): WorkingCalendar => ({ ...calendar, key });

function refuseUnsound(calendar: WorkingCalendar): void {
  const found = CALENDAR.findings(calendar, null);
  if (found.length > 0)
    throw wrongFields(found.map(({ at, message }) => ({ field: at, message, fix: said('workshopErrors:correctIt') })));
}

/** @throws Problem 422 for a calendar that would be retired while something is to count by it. */
function refuseInUse(db: Reader, { key, retired }: WorkingCalendar): void {
  if (!retired) return;
  const isOfForm = designsOf(db, FORM).some(({ draft }) => countsBy(draft, key));
  const isOfDesk = deskOf(db).calendar === key;
  const others = designsOf(db, CALENDAR).some((each) => each.key !== key && !each.draft.retired);
  if (isOfForm || isOfDesk || !others)
    throw wrongFields([
      {
        ...{ field: 'retired', message: said('workshopErrors:calendarInUse') },
        fix: said('workshopErrors:otherCalendar'),
      },
    ]);
}

/**
 * What another state of a calendar would do to the requests that are there: how many deadlines move,
 * which become late and which are late no more. Trials count nowhere. Keeps nothing.
 *
 * @throws Problem 422 when nothing could be counted by it.
 */
export async function calendarEffects(
  db: Reader,
  viewer: Viewer,
  key: string,
  input: BodyOf<'tryCalendar'>,
  now: number,
): Promise<AnswerOf<'tryCalendar'>> {
  known(db, key);
  const calendar = withKey(key, input.calendar);
  refuseUnsound(calendar);
  let [moved, late, inTime, ringing] = [0, 0, 0, 0];
  const shown: AnswerOf<'tryCalendar'>['requests'] = [];
  for await (const { request, to, rings } of inTurns(countedBy(db, calendar, now))) {
    if (to === null || request.trial) continue;
    ringing += rings;
    const from = request.due ?? to;
    moved += 1;
    if (from >= now && to < now) late += 1;
    if (from < now && to >= now) inTime += 1;
    if (shown.length >= SHOWN) continue;
    const { subject } = openRequest(db, request, viewer, 'counting');
    shown.push({ number: request.number, subject, from: iso(from), to: iso(to) });
  }
  return { moved, late, inTime, rings: ringing, requests: shown };
}

/**
 * Puts another state of a calendar in force, at once: what is open is counted by it from now on, with
 * a line in each history.
 *
 * @throws Problem 412 when somebody was faster, 422 when nothing could be counted by it.
 */
export function settleCalendar(
  house: House,
  viewer: Viewer,
  input: BodyOf<'changeCalendar'> & { readonly key: string; readonly version: number },
): AnswerOf<'changeCalendar'> {
  return write(house, (work) => {
    const { tx, now } = work;
    const design = known(tx, input.key);
    if (design.version !== input.version) throw staleVersion();
    const calendar = withKey(input.key, input.calendar);
    refuseUnsound(calendar);
    refuseInUse(tx, calendar);
    const moving = [...countedBy(tx, calendar, now)].filter(({ to }) => to !== null);
    const change = { version: design.version, content: calendar, note: input.note.trim() };
    const version = changeAtOnce(tx, design, change, { viewer, now });
    for (const { request, to } of moving)
      changeRequest(by(work, viewer.personId), request, { kind: 'due', from: request.due, to, calendar: input.key });
    if (input.hold) for (const { request } of moving) holdTimers(tx, request.id, now);
    return { version, moved: moving.filter(({ request }) => !request.trial).length };
  });
}
