import { type AnswerOf, type TrayKey, trayKeys } from '@tolvek/contract';
import {
  addWorkingTime,
  calendarFor,
  dateAt,
  deadlineName,
  endOfDay,
  FINISH,
  fuseAt,
  hangsOn,
  ruleOf,
  type WorkingCalendar,
} from '@tolvek/core/deadline';
import { seatsHeldBy, type Viewer } from '@tolvek/core/people';
import {
  and,
  asc,
  type Column,
  count,
  desc,
  eq,
  gte,
  inArray,
  like,
  lt,
  ne,
  or,
  Placeholder,
  type SQL,
  sql,
} from 'drizzle-orm';
import { seats } from '../approval/tables.ts';
import { calendarOf } from '../calendar/queries.ts';
import { ruleFor } from '../deadline/follow.ts';
import { deadlineIn, nearestOf } from '../deadline/queries.ts';
import { releaseById } from '../form/queries.ts';
import { groupNames, namesOf } from '../people/queries.ts';
import { people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { isListed, listed, prepared, preparedEach } from '../platform/prepared.ts';
import { holdsThings, registersOnce, stageOf } from '../register/queries.ts';
import { followedBy } from '../request/followers.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { readCount, readFrom } from '../request/readings.ts';
import { sharedWith } from '../request/shares.ts';
import { dues, requests, tallies } from '../request/tables.ts';
import { mayKnowDeadline } from './deadlines.ts';
import { keptBy } from './keptBy.ts';
import { type Place, readPlace } from './place.ts';
import { readOnce } from './readOnce.ts';
import { stageView } from './sheet.ts';
import { idsNear, type Looking, lookingAt, readsMost, type Worked, workedBy, worksOnAll } from './workedBy.ts';

const PAGE = 50;

/**
 * Requests the viewer is of the desk for, and those they read by what stands in them. Trial requests are looked at one by
 * one; no tray, count or find has them.
 */
function deskCondition(looking: Looking): SQL | undefined {
  const worked = workedBy(looking, requests);
  const along = worked && looking.along;
  return and(eq(requests.trial, false), along ? or(worked, sql`${requests.id} in ${along}`) : worked);
}

/** What of that is read by what stands in it alone: no tally has it by whom it is. Trials are read so by nobody. */
const onlyAlong = (looking: Looking, along: SQL): SQL | undefined =>
  and(sql`${requests.id} in ${along}`, sql`not coalesce(${workedBy(looking, requests) ?? sql`1`}, 0)`);

/** What belongs in a tray, besides being for the viewer to see. */
function trayCondition({ db, viewer }: Looking, tray: TrayKey, now: number): SQL | undefined {
  switch (tray) {
    case 'deciding':
      return and(
        // Few wait for a decision: the look begins with them.
        sql`${requests.id} in (select request_id from seats where state = 'open' and ${inArray(seats.holder, [...seatsHeldBy(viewer)])})`,
        sql`${requests.requesterId} is not ${viewer.personId}`,
        sql`${requests.onBehalfId} is not ${viewer.personId}`,
      );
    case 'undecided':
      return sql`${requests.id} in (select request_id from approval_rounds where id in (select round_id from approval_steps where nobody_since is not null))`;
    case 'shared':
      return sql`${requests.id} in ${sharedWith(db, viewer)}`;
    case 'proposed':
      return sql`${requests.id} in (select request_id from proposals where state = 'open' and person_id <> ${viewer.personId})`;
    case 'followed':
      return sql`${requests.id} in ${followedBy(viewer.personId)}`;
    case 'late':
      return and(inArray(requests.phase, ['arrived', 'working']), lt(requests.due, now));
    default:
      return tallied(tray, viewer, requests);
  }
}

type ById = 'deciding' | 'undecided' | 'shared' | 'followed' | 'proposed';
const BY_ID: ReadonlySet<string> = new Set<ById>(['deciding', 'undecided', 'shared', 'followed', 'proposed']);

/** Trays of what is found by ids that are few, and not by what is tallied. */
const isById = (tray: TrayKey): tray is ById => BY_ID.has(tray);

type Tallied = Exclude<TrayKey, ById | 'late'>;

/** Trays that hold things and requests alike. */
const isMixed = (tray: TrayKey): boolean => tray !== 'deciding' && tray !== 'undecided' && isById(tray);

/** Trays that are there only while something is in them. */
const comesAndGoes = (tray: TrayKey): boolean => tray === 'things' || tray === 'undecided' || isMixed(tray);

/** Whose a tray is, for its conditions: a viewer, or by the names that a prepared query is given them under. */
interface Whose {
  readonly personId: string | Placeholder;
  readonly groups: readonly string[] | Placeholder;
}
const byName: Whose = { personId: sql.placeholder('person'), groups: sql.placeholder('groups') };

const isAmong = (column: Column, groups: Whose['groups']): SQL =>
  groups instanceof Placeholder ? isListed(column, groups.name) : inArray(column, [...groups]);

/** Trays that what is tallied tells apart. */
function tallied(tray: Tallied, viewer: Whose, of: typeof requests | typeof tallies): SQL | undefined {
  const unfinished = ne(of.phase, 'finished');
  switch (tray) {
    case 'arrived':
    case 'paused':
      return eq(of.phase, tray);
    case 'mine':
      return and(eq(of.handlerId, viewer.personId), unfinished);
    case 'team':
      return and(isAmong(of.team, viewer.groups), unfinished);
    case 'all':
    case 'things':
      return undefined;
  }
}

/** Things have a tray of their own, and stand in no other. */
const apart = (tray: TrayKey, isThing: SQL): SQL | undefined =>
  isMixed(tray) ? undefined : tray === 'things' ? isThing : sql`not ${isThing}`;

function thingsKept({ registers }: Looking, of: Pick<Worked, 'registerId'>): (tray: TrayKey) => SQL | undefined {
  const isThing = inArray(of.registerId, idsOfThings(registers));
  return (tray) => apart(tray, isThing);
}

const idsOfThings = (registers: Looking['registers']): string[] => registers.filter(holdsThings).map(({ id }) => id);

const COUNTED: readonly Tallied[] = ['arrived', 'mine', 'team', 'paused', 'all', 'things'];

export function traysOf(db: Reader, viewer: Viewer, now: number): Pick<AnswerOf<'trays'>, 'trays' | 'horizon'> {
  const looking = lookingAt(db, viewer);
  const days = horizonDays(db, now);
  // What is due at the very end of a day belongs to it.
  const [late = 0, ...upTo] = dueBefore(looking, [now, ...days.map(({ to }) => to + 1)]);
  const counts = new Map<TrayKey, number>([
    ...countsOf(looking, COUNTED),
    ['deciding', countOne(db, conditionOf(looking, 'deciding', now))],
    ['undecided', countOne(db, conditionOf(looking, 'undecided', now))],
    ['late', late],
    ['shared', countOne(db, conditionOf(looking, 'shared', now))],
    ['followed', countOne(db, conditionOf(looking, 'followed', now))],
    ['proposed', countOne(db, conditionOf(looking, 'proposed', now))],
  ]);
  const trays = trayKeys.map((key) => ({ key, count: counts.get(key) ?? 0 }));
  return {
    trays: trays.filter(({ key, count: n }) => !comesAndGoes(key) || n > 0),
    horizon: days.map(({ day, today }, at) => ({
      ...{ day, today },
      count: (upTo[at] ?? 0) - (upTo[at - 1] ?? 0),
      state: at === 0 ? 'late' : at === 1 ? 'soon' : 'calm',
    })),
  };
}

/** Everything that stands in a tray of the viewer. */
function conditionOf(looking: Looking, tray: TrayKey, now: number): SQL | undefined {
  const there = inTray(looking, tray, now);
  // What is followed is read as what is worked on, or as what is shared.
  if (tray === 'followed') return and(or(deskCondition(looking), isShared(looking)), there);
  // Whoever is asked for a decision works on it, in their own place or in that of another.
  return tray === 'shared' || (tray === 'deciding' && looking.viewer.standsIn)
    ? and(eq(requests.trial, false), there)
    : and(deskCondition(looking), there);
}

/** All requests that a viewer may come to by looking for them. */
export const readInLists = (looking: Looking): SQL | undefined => or(deskCondition(looking), isShared(looking));

/** Whether somebody works on so little that all of it is gone through. */
export function isFewFor(looking: Looking): boolean {
  const mine = countsOf(looking, ['all', 'things']);
  return isFew(looking, 'all', (mine.get('all') ?? 0) + (mine.get('things') ?? 0));
}

const isShared = ({ db, viewer }: Looking): SQL | undefined =>
  and(eq(requests.trial, false), sql`${requests.id} in ${sharedWith(db, viewer)}`);

/** What stands in a tray and is shared with the viewer. */
const sharedIn = (looking: Looking, tray: TrayKey, now: number): SQL | undefined =>
  and(conditionOf(looking, 'shared', now), inTray(looking, tray, now));

const inTray = (looking: Looking, tray: TrayKey, now: number): SQL | undefined =>
  and(thingsKept(looking, requests)(tray), trayCondition(looking, tray, now));

const countOne = (db: Reader, condition: SQL | undefined): number =>
  db.select({ n: count() }).from(requests).where(condition).get()?.n ?? 0;

/** How many requests stand in trays, added up from tallies in one go. */
function countsOf<T extends (typeof COUNTED)[number]>(looking: Looking, trays: readonly T[]): ReadonlyMap<T, number> {
  const kept = thingsKept(looking, tallies);
  const sums = Object.fromEntries(
    trays.map((tray) => {
      const condition = and(kept(tray), tallied(tray, looking.viewer, tallies)) ?? sql`1`;
      return [tray, sql<number | null>`sum(iif(${condition}, ${tallies.n}, 0))`];
    }),
  );
  const row = looking.db.select(sums).from(tallies).where(workedBy(looking, tallies)).get();
  const { along } = looking;
  const besides = along && !worksOnAll(looking.viewer) ? alongIn(looking, along, trays) : {};
  return new Map(trays.map((tray, place) => [tray, Number(row?.[tray] ?? 0) + Number(besides[place] ?? 0)]));
}

/** How many requests that are read by what stands in them alone are in some trays, by their places. */
function alongIn(
  looking: Looking,
  along: SQL,
  trays: readonly (typeof COUNTED)[number][],
): Readonly<Record<number, number | null>> {
  const kept = thingsKept(looking, requests);
  const each = trays.map(
    (tray) => [and(kept(tray), tallied(tray, looking.viewer, requests)) ?? sql`1`, sql`1`] as const,
  );
  return looking.db.select(sums(each)).from(requests).where(onlyAlong(looking, along)).get() ?? {};
}

const HOUR = 3_600_000;

/**
 * How many requests that a viewer works on, and that are worked on, are due before each of some
 * moments: whole hours are added up from what is kept of them, the rest of an hour is counted.
 */
function dueBefore(looking: Looking, moments: readonly number[]): readonly number[] {
  const { db } = looking;
  const ranges = moments.map((moment) => {
    const hour = Math.floor(moment / HOUR);
    return { hour, from: hour * HOUR, to: moment };
  });
  const latest = Math.max(...ranges.map(({ hour }) => hour));
  const whole = db
    .select(sums(ranges.map(({ hour }) => [sql`${dues.hour} < ${hour}`, sql`${dues.n}`])))
    .from(dues)
    .where(and(lt(dues.hour, latest), workedBy(looking, dues)))
    .get();
  const besides =
    looking.along && !worksOnAll(looking.viewer)
      ? db
          .select(sums(ranges.map(({ from }) => [sql`${requests.due} < ${from}`, sql`1`])))
          .from(requests)
          .where(and(onlyAlong(looking, looking.along), inArray(requests.phase, ['arrived', 'working'])))
          .get()
      : undefined;
  const within = ranges.map(({ from, to }) => sql`(${requests.due} >= ${from} and ${requests.due} < ${to})`);
  const rest = db
    .select(sums(within.map((range) => [range, sql`1`])))
    .from(requests)
    // Few are due in these parts of hours: the look begins with them.
    .where(
      and(
        or(...within),
        sql`phase <> 'finished'`,
        inArray(sql`+${requests.phase}`, ['arrived', 'working']),
        deskCondition(looking),
      ),
    )
    .get();
  return moments.map((_, at) => Number(whole?.[at] ?? 0) + Number(besides?.[at] ?? 0) + Number(rest?.[at] ?? 0));
}

/** Sums of something over the rows of which something is so, by their places. */
const sums = (each: readonly (readonly [where: SQL, of: SQL])[]): Record<number, SQL<number | null>> =>
  Object.fromEntries(each.map(([where, of], at) => [at, sql<number | null>`sum(iif(${where}, ${of}, 0))`]));

const anyRelease = prepared((db) => db.select({ id: requests.releaseId }).from(requests).limit(1).prepare());

interface HorizonDay {
  /** `YYYY-MM-DD`; null for what is overdue. */
  readonly day: string | null;
  readonly today: boolean;
  readonly to: number;
}
const MINUTE = 60_000;
/** By a calendar as it was read: the same for as long as a minute lasts. */
const horizons = new WeakMap<WorkingCalendar, { readonly minute: number; readonly days: readonly HorizonDay[] }>();

/** What is late, then the next five working days: which day, and until when it lasts. */
function horizonDays(db: Reader, now: number): readonly HorizonDay[] {
  const first = anyRelease(db).get();
  if (!first) return [];
  const calendar = calendarOf(db, releaseById(db, first.id).release.design.deadline.calendar);
  const minute = Math.floor(now / MINUTE);
  let known = horizons.get(calendar);
  if (known?.minute !== minute) horizons.set(calendar, (known = { minute, days: daysFrom(calendar, now) }));
  return [{ day: null, today: false, to: now }, ...known.days];
}

function daysFrom(calendar: WorkingCalendar, now: number): readonly HorizonDay[] {
  const days: HorizonDay[] = [];
  let cursor = addWorkingTime(calendar, now, 0);
  for (let day = 0; day < 5; day += 1) {
    const to = endOfDay(calendar, cursor);
    const day = dateAt(cursor, calendar.zone);
    days.push({ day, today: day === dateAt(now, calendar.zone), to });
    cursor = addWorkingTime(calendar, to, 0);
  }
  return days;
}

const isNewestFirst = (tray: TrayKey): boolean => tray === 'all' || tray === 'things' || isMixed(tray);

const orderIn = (tray: TrayKey): readonly [SQL, SQL] =>
  isNewestFirst(tray)
    ? [sql`${requests.createdAt} desc`, sql`${requests.id} desc`]
    : [asc(requests.due), asc(requests.id)];

/** What comes after a place in that order. */
const beyond = (tray: TrayKey, { at, id }: Place | Readonly<Record<keyof Place, Placeholder>>): SQL =>
  isNewestFirst(tray)
    ? sql`(${requests.createdAt}, ${requests.id}) < (${at}, ${id})`
    : sql`(${requests.due}, ${requests.id}) > (${at}, ${id})`;

/**
 * For who works on all there is, the conditions of a tray differ in nothing but what they compare with: they are built
 * once.
 */
const inTrayOfAll = (tray: Tallied, of: typeof requests | typeof tallies): SQL | undefined =>
  and(apart(tray, isListed(of.registerId, 'things')), tallied(tray, byName, of));

const pageOfAll = preparedEach(
  (tray: Tallied, from: 'start' | 'place') => (db) =>
    db
      .select(SHOWN_COLUMNS)
      .from(requests)
      .where(
        and(
          eq(requests.trial, false),
          inTrayOfAll(tray, requests),
          from === 'place' ? beyond(tray, { at: sql.placeholder('at'), id: sql.placeholder('id') }) : undefined,
        ),
      )
      .orderBy(...orderIn(tray))
      .limit(PAGE + 1)
      .prepare(),
);

const countOfAll = preparedEach(
  (tray: Tallied) => (db) =>
    db.select({ n: sql<number>`coalesce(sum(n), 0)` }).from(tallies).where(inTrayOfAll(tray, tallies)).prepare(),
);

/**
 * A page of the ledger, the earliest deadline first; `after` is the place the page before ended at. `most`: rows of it, a
 * page at most.
 */
export function ledgerOf(
  db: Reader,
  viewer: Viewer,
  query: { tray: TrayKey; after?: string | undefined; find?: string | undefined },
  now: number,
  most = PAGE,
): AnswerOf<'ledger'> {
  const looking = lookingAt(db, viewer);
  const { tray } = query;
  const words = query.find?.trim() ?? '';
  const place = query.after ? readPlace(query.after) : null;
  const found = rowsIn(looking, { tray, words, place }, now);
  const { rows, total, newest } = found;
  const page = rows.slice(0, most);
  const last = page.at(-1);
  const shared = sharedBy(looking, page, found.along);
  return {
    rows: page.map((row) => rowOf(viewer, row, shared, now)),
    next: rows.length > most && last ? `${isNewestFirst(tray) ? last.createdAt : last.due}.${last.id}` : null,
    total,
    newest,
  };
}

/** By the shortest way to them. */
function rowsIn(looking: Looking, asked: Asked, now: number): Listed {
  const { tray, words, place } = asked;
  const isAll = worksOnAll(looking.viewer);
  if (words === '' && !isById(tray) && tray !== 'late' && isAll) return rowsOfAll(looking, tray, place);
  if (words === '' && (tray === 'all' || tray === 'things') && looking.along && !isAll)
    return rowsOfBoth(looking, tray, place, now);
  return rowsFor(looking, asked, now);
}

interface Asked {
  readonly tray: TrayKey;
  readonly words: string;
  readonly place: Place | null;
}

/** The rows of a page and one more, and how many there are in all. */
interface Listed {
  readonly rows: readonly ShownRow[];
  readonly total: number;
  /** Whether only the newest were looked through. */
  readonly newest: boolean;
  /** The ids of those of them that are read by what stands in them, where that is known. */
  readonly along?: ReadonlySet<string>;
}

function rowsOfAll({ db, viewer, registers }: Looking, tray: Tallied, place: Place | null): Listed {
  const things = listed(idsOfThings(registers));
  const given = { things, person: viewer.personId, groups: listed(viewer.groups) };
  return {
    rows: pageOfAll(tray, place ? 'place' : 'start')(db).all({ ...given, ...place }),
    total: countOfAll(tray)(db).get(given)?.n ?? 0,
    newest: false,
  };
}

const withIds = prepared((db) => db.select(SHOWN_COLUMNS).from(requests).where(isListed(requests.id, 'ids')).prepare());

/** The rows of some requests, in the order of their ids. */
export function rowsOf(db: Reader, ids: readonly string[]): readonly ShownRow[] {
  const rows = withIds(db).all({ ids: listed(ids) });
  const known = new Map(rows.map((row) => [row.id, row]));
  return ids.flatMap((id) => known.get(id) ?? []);
}

/**
 * A page of all that somebody works on and of what they read by what stands in it: each is found in the order of the page
 * by itself, and the two are put together.
 */
function rowsOfBoth(looking: Looking, tray: 'all' | 'things', place: Place | null, now: number): Listed {
  const { db, registers } = looking;
  const things = new Set(idsOfThings(registers));
  const readers = looking.readers.filter(({ register }) => things.has(register) === (tray === 'things'));
  const alone = { ...looking, along: undefined, readers: [] };
  const worked = countsOf(alone, [tray]).get(tray) ?? 0;
  const theirs = worked > 0 ? rowsFor(alone, { tray, words: '', place }, now).rows : [];
  const along = readFrom(db, readers, place, PAGE + 1);
  const known = new Map(theirs.map((row) => [row.id, row]));
  const page = [...theirs, ...along.filter(({ id }) => !known.has(id))]
    .sort((a, b) => b.createdAt - a.createdAt || (a.id < b.id ? 1 : -1))
    .slice(0, PAGE + 1)
    .map(({ id }) => id);
  for (const row of rowsOf(
    db,
    page.filter((id) => !known.has(id)),
  ))
    known.set(row.id, row);
  return {
    rows: page.flatMap((id) => known.get(id) ?? []),
    total: worked > 0 ? (countsOf(looking, [tray]).get(tray) ?? 0) : readCount(db, readers),
    newest: false,
    along: new Set(along.map(({ id }) => id)),
  };
}

function rowsFor(looking: Looking, { tray, words, place }: Asked, now: number): Listed {
  const { db } = looking;
  const found = words ? foundBy(looking, words) : null;
  const base = and(
    // Whoever looks for something finds what is shared with them as well.
    found && tray !== 'shared'
      ? or(conditionOf(looking, tray, now), sharedIn(looking, tray, now))
      : conditionOf(looking, tray, now),
    found ? sql`${requests.id} in (select value from json_each(${JSON.stringify(found.ids)}))` : undefined,
  );
  const [sort, tie] = orderIn(tray);
  // What is found is few: it is put in order, and not looked for in the order of all there is.
  const order = found ? sql`+${sort}` : sort;
  const total =
    words || isById(tray)
      ? countOne(db, base)
      : tray === 'late'
        ? (dueBefore(looking, [now])[0] ?? 0)
        : (countsOf(looking, [tray]).get(tray) ?? 0);
  const wanted = and(base, place ? beyond(tray, place) : undefined);
  const isSparse = !found && !isById(tray) && isFew(looking, tray, total);
  const near = isSparse ? and(wanted, idsNear(looking, inTray(looking, tray, now))) : wanted;
  // Only the ids are put in order, and those of the page are read: what an index holds is told by it alone.
  const ids = db
    .all<{ readonly id: string }>(
      sql`select id from requests where ${near} order by ${order}, ${tie} limit ${PAGE + 1}`,
    )
    .map(({ id }) => id);
  return { rows: rowsOf(db, ids), total, newest: found?.isAll === false };
}

const counted = prepared((db) =>
  db
    .select({
      all: sql<number>`coalesce(sum(n), 0)`,
      unfinished: sql<number>`coalesce(sum(iif(phase <> 'finished', n, 0)), 0)`,
    })
    .from(tallies)
    .prepare(),
);

/**
 * Whether a viewer works on so little that finding all of it by indexes takes less than going through a tray in its
 * order until a page is full: the rarer theirs are, the longer that way.
 */
function isFew(looking: Looking, tray: TrayKey, mine: number): boolean {
  if (readsMost(looking.viewer)) return false;
  const there = counted(looking.db).get();
  const among = (tray === 'all' || tray === 'things' ? there?.all : there?.unfinished) ?? 0;
  const worked = tray === 'all' ? mine : (countsOf(looking, ['all']).get('all') ?? 0);
  return worked < Math.min(among, (PAGE * among) / Math.max(1, mine));
}

/** Requests that are looked through for words, the newest first. */
const LOOKED_THROUGH = 500;
/** Of each register’s numbers fewer: there are several, and a few figures fit many. */
const NUMBERS = PAGE;

const byRange = prepared((db) =>
  db
    .select({ id: requests.id })
    .from(requests)
    .where(and(gte(requests.number, sql.placeholder('from')), lt(requests.number, sql.placeholder('to'))))
    .orderBy(desc(requests.number))
    .limit(NUMBERS)
    .prepare(),
);
/** People who are looked through for a name. */
const NAMED = 50;

const called = prepared((db) =>
  db
    .select({ id: people.id })
    .from(people)
    .where(like(people.name, sql.placeholder('name')))
    .orderBy(asc(people.name))
    .limit(NAMED)
    .prepare(),
);
const byRequester = prepared((db) =>
  db
    .select({ id: requests.id })
    .from(requests)
    .where(eq(requests.requesterId, sql.placeholder('person')))
    .orderBy(desc(requests.createdAt))
    .limit(sql.placeholder('most'))
    .prepare(),
);

const numbersFrom = (db: Reader, from: string) => byRange(db).all({ from, to: `${from}\uffff` });

/** How the numbers begin that are meant: with their letters, or of any register. */
function beginsOf(registers: Looking['registers'], words: string): readonly string[] {
  const text = words.toUpperCase();
  const [, letters = '', figures] = /^([A-Z]*)-?(\d+)$/.exec(text) ?? [];
  if (figures === undefined) return /^[A-Z]/.test(text) ? [text] : [];
  return registers
    .filter(({ prefix }) => letters === '' || prefix === letters)
    .flatMap(({ prefix }) => [...new Set([`${prefix}-${figures}`, `${prefix}-${figures.padStart(5, '0')}`])]);
}

/** Ids of requests whose number a text is, or the beginning of it, that the viewer may come to. */
export function numberedAs(looking: Looking, text: string): readonly string[] {
  const { db, registers } = looking;
  if (!/^[a-z]{0,6}-?\d+$/i.test(text)) return [];
  const ids = beginsOf(registers, text).flatMap((from) => numbersFrom(db, from).map(({ id }) => id));
  return ids.length === 0
    ? []
    : db
        .select({ id: requests.id })
        .from(requests)
        .where(and(inArray(requests.id, ids), readInLists(looking)))
        .orderBy(desc(requests.createdAt))
        .all()
        .map(({ id }) => id);
}

/**
 * Finds by how a number begins, with its letters or without, or by requester: facts that everybody
 * of the desk may read. Fields are not searched here.
 */
function foundBy(
  { db, registers }: Looking,
  words: string,
): { readonly ids: readonly string[]; readonly isAll: boolean } {
  let isAll = true;
  const upTo = <T>(most: number, found: readonly T[]): readonly T[] => {
    isAll &&= found.length < most;
    return found;
  };
  const numbered = beginsOf(registers, words).flatMap((from) => upTo(NUMBERS, numbersFrom(db, from)));
  const persons = upTo(NAMED, called(db).all({ name: `%${words.replace(/[%_]/g, '')}%` }));
  const most = Math.ceil(LOOKED_THROUGH / persons.length);
  // Person by person, as each one’s are in this order already.
  const asked = persons.flatMap(({ id }) => upTo(most, byRequester(db).all({ person: id, most })));
  return { ids: [...new Set([...numbered, ...asked].map(({ id }) => id))], isAll };
}

/** What the rows of a page have in common, read once for all of them. */
export const sharedBy = (
  { db, registers, along }: Looking,
  page: readonly ShownRow[],
  known?: ReadonlySet<string>,
) => ({
  db,
  /** Which of them are read by what stands in them. */
  along: known ?? (along && readAmong(db, along, page)),
  names: namesOf(
    db,
    page.flatMap((row) => [row.requesterId ?? [], row.handlerId ?? []].flat()),
  ),
  teams: groupNames(db),
  deadlines: nearestOf(
    db,
    page.map((row) => row.id),
  ),
  // The names are of people in fields, besides those every row names.
  ...readOnce(db, registersOnce(db, registers)),
});

/** The ids of some requests that somebody reads by what stands in them. */
const readAmong = (db: Reader, along: SQL, page: readonly ShownRow[]): ReadonlySet<string> =>
  new Set(
    db
      .all<{ readonly id: string }>(
        sql`select value as id from json_each(${listed(page.map(({ id }) => id))}) where value in ${along}`,
      )
      .map(({ id }) => id),
  );

const rowOf = (
  viewer: Viewer,
  row: ShownRow,
  shared: ReturnType<typeof sharedBy>,
  now: number,
): AnswerOf<'ledger'>['rows'][number] => openedRow(viewer, row, shared, now).row;

/** A row of the ledger, and the request it is of, opened for whoever looks at it in a list. */
export function openedRow(
  viewer: Viewer,
  row: ShownRow,
  { names, teams, deadlines, along, ...shared }: ReturnType<typeof sharedBy>,
  now: number,
): { readonly open: OpenRequest<ShownRow>; readonly row: AnswerOf<'ledger'>['rows'][number] } {
  const register = shared.registers.byId(row.registerId);
  const { design } = shared.form(row.releaseId);
  const open = openRequest(shared.db, row, viewer, 'list', {
    registers: shared.registers,
    ...(along ? { along } : {}),
    names: (id, by) => names.get(id) ?? shared.nameOf(id, by),
  });
  const next = deadlines.get(row.id);
  const plan = shared.form(row.plannedBy ?? row.releaseId).design.deadline;
  const rule = next && ruleOf(plan, next.key);
  // What is due next can tell of an answer: whoever may not know that is told nothing of it.
  const isKnown =
    rule === undefined || !hangsOn(ruleFor(shared.db, row, rule).rule) || mayKnowDeadline(shared.db, open, rule);
  const told = {
    ...{ number: row.number, version: row.version },
    subject: open.subject,
    requester: names.get(row.requesterId ?? '') ?? row.claim?.name ?? '',
    form: design.title,
    stage: stageView(stageOf(register, row.stage)),
    team: keptBy(row, register, teams),
    handler: row.handlerId ? (names.get(row.handlerId) ?? null) : null,
    priority: row.priority,
    thing: holdsThings(register),
    fuse:
      next && rule && isKnown
        ? fuseAt(deadlineIn(next), rule, shared.calendarBy(calendarFor(plan, rule)), now, row.finishedAt)
        : null,
    dueFor: rule && isKnown && rule.key !== FINISH ? deadlineName(rule) : null,
    due: row.due === null || !isKnown ? null : iso(row.due),
    updatedAt: iso(row.updatedAt),
  };
  return { open, row: told };
}
