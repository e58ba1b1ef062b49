import type { AnswerOf, TrayKey } from '@tolvek/contract';
import { relationTo, reveal, revealSubject } from '@tolvek/core/access';
import { addWorkingTime, dateAt, dayInWords, endOfDay, fuseAt } from '@tolvek/core/deadline';
import type { Viewer } from '@tolvek/core/people';
import type { NameOf } from '@tolvek/core/register';
import { and, asc, count, eq, gt, inArray, like, lt, ne, notInArray, or, type SQL, sql } from 'drizzle-orm';
import { calendarOf } from '../deadline/queries.ts';
import { releaseById } from '../form/queries.ts';
import { groupNames, namesOf } from '../people/queries.ts';
import { people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import { Problem } from '../platform/problem.ts';
import { nameOf } from './names.ts';
import { holdsThings, partiesIn, registerById, SHOWN_COLUMNS, type ShownRow, stageOf } from './queries.ts';
import { iso, stageView } from './sheet.ts';
import { registers, requests } from './tables.ts';

const PAGE = 50;

/**
 * Requests the viewer is of the desk for. Trial requests are looked at one by one; no tray, count
 * or find has them.
 */
const deskCondition = (db: Reader, viewer: Viewer): SQL | undefined =>
  and(eq(requests.trial, false), workedBy(db, viewer));

/** `relationTo` of core, asked of SQLite. Undefined: all. */
function workedBy(db: Reader, viewer: Viewer): SQL | undefined {
  if (viewer.kind !== 'staff') return sql`0`;
  if (viewer.role !== 'member') return undefined;
  const groups = [...viewer.groups];
  const worked = db
    .select({ id: registers.id, deskGroups: registers.deskGroups })
    .from(registers)
    .all()
    .filter((register) => register.deskGroups.some((group) => groups.includes(group)));
  return or(
    eq(requests.handlerId, viewer.personId),
    groups.length > 0 ? inArray(requests.team, groups) : undefined,
    groups.length > 0 ? inArray(requests.approverGroup, groups) : undefined,
    worked.length > 0
      ? inArray(
          requests.registerId,
          worked.map((register) => register.id),
        )
      : undefined,
  );
}

const unfinished = ne(requests.phase, 'finished');

/** What belongs in a tray, besides being for the viewer to see. */
function trayCondition(tray: TrayKey, viewer: Viewer, now: number): SQL | undefined {
  const groups = viewer.groups.length > 0 ? [...viewer.groups] : [''];
  switch (tray) {
    case 'arrived':
      return eq(requests.phase, 'arrived');
    case 'mine':
      return and(eq(requests.handlerId, viewer.personId), unfinished);
    case 'team':
      return and(inArray(requests.team, groups), unfinished);
    case 'deciding':
      return and(
        inArray(requests.approverGroup, groups),
        sql`exists (select 1 from approvals a where a.request_id = ${requests.id} and a.state = 'waiting')`,
        ne(requests.requesterId, viewer.personId),
      );
    case 'paused':
      return eq(requests.phase, 'paused');
    case 'late':
      return and(inArray(requests.phase, ['arrived', 'working']), lt(requests.due, now));
    case 'all':
    case 'things':
      return undefined;
  }
}

/** Things have a tray of their own, and stand in no other. */
function thingsKept(db: Reader): (tray: TrayKey) => SQL | undefined {
  const ids = db
    .select({ id: registers.id, stages: registers.stages })
    .from(registers)
    .all()
    .filter(holdsThings)
    .map((register) => register.id);
  if (ids.length === 0) return (tray) => (tray === 'things' ? sql`0` : undefined);
  return (tray) => (tray === 'things' ? inArray(requests.registerId, ids) : notInArray(requests.registerId, ids));
}

const LABELS: Record<TrayKey, string> = {
  arrived: 'Arrived',
  mine: 'Mine',
  team: 'My team',
  deciding: 'My decision',
  paused: 'Paused',
  late: 'Late',
  all: 'All requests',
  things: 'Things we keep',
};

export function traysOf(db: Reader, viewer: Viewer, now: number): Pick<AnswerOf<'trays'>, 'trays' | 'horizon'> {
  const mine = deskCondition(db, viewer);
  const kept = thingsKept(db);
  const tally = (tray: TrayKey): number =>
    db
      .select({ n: count() })
      .from(requests)
      .where(and(mine, kept(tray), trayCondition(tray, viewer, now)))
      .get()?.n ?? 0;
  const keys: TrayKey[] = ['arrived', 'mine', 'team', 'deciding', 'paused', 'late', 'all', 'things'];
  const trays = keys.map((key) => ({ key, label: LABELS[key], count: tally(key) }));
  return { trays: trays.filter((tray) => tray.key !== 'things' || tray.count > 0), horizon: horizonOf(db, mine, now) };
}

/**
 * How many unfinished requests are due on each of the next five working days; what is late counts
 * first.
 */
function horizonOf(db: Reader, mine: SQL | undefined, now: number): AnswerOf<'trays'>['horizon'] {
  const [first] = db.select({ releaseId: requests.releaseId }).from(requests).limit(1).all();
  if (!first) return [];
  const calendar = calendarOf(db, releaseById(db, first.releaseId).release.design.deadline.calendar);
  const tally = (from: number, to: number): number =>
    db
      .select({ n: count() })
      .from(requests)
      .where(
        and(mine, inArray(requests.phase, ['arrived', 'working']), gt(requests.due, from), lt(requests.due, to + 1)),
      )
      .get()?.n ?? 0;
  const bars: AnswerOf<'trays'>['horizon'] = [{ label: 'Late', count: tally(0, now), state: 'late' }];
  let from = now;
  let cursor = addWorkingTime(calendar, now, 0);
  for (let day = 0; day < 5; day += 1) {
    const date = dateAt(cursor, calendar.zone);
    const to = endOfDay(calendar, cursor);
    const name = date === dateAt(now, calendar.zone) ? 'Today' : dayInWords(cursor, calendar.zone);
    bars.push({ label: name, count: tally(from, to), state: day === 0 ? 'soon' : 'calm' });
    from = to;
    cursor = addWorkingTime(calendar, to, 0);
  }
  return bars;
}

/**
 * A page of the ledger, the earliest deadline first; `after` is the place the page before ended at.
 */
export function ledgerOf(
  db: Reader,
  viewer: Viewer,
  query: { tray: TrayKey; after?: string | undefined; find?: string | undefined },
  now: number,
): AnswerOf<'ledger'> {
  const base = and(
    deskCondition(db, viewer),
    thingsKept(db)(query.tray),
    trayCondition(query.tray, viewer, now),
    findCondition(query.find),
  );
  const newestFirst = query.tray === 'all' || query.tray === 'things';
  const place = query.after ? readPlace(query.after) : null;
  const [sort, tie] = newestFirst
    ? [sql`${requests.createdAt} desc`, sql`${requests.id} desc`]
    : [asc(requests.due), asc(requests.id)];
  const beyond = place
    ? newestFirst
      ? sql`(${requests.createdAt}, ${requests.id}) < (${place.at}, ${place.id})`
      : sql`(${requests.due}, ${requests.id}) > (${place.at}, ${place.id})`
    : undefined;
  const found = db
    .select(SHOWN_COLUMNS)
    .from(requests)
    .where(and(base, beyond))
    .orderBy(sort, tie)
    .limit(PAGE + 1)
    .all();
  const page = found.slice(0, PAGE);
  const last = page.at(-1);
  const shared = sharedBy(db, page);
  return {
    rows: page.map((row) => rowOf(viewer, row, shared, now)),
    next: found.length > PAGE && last ? `${newestFirst ? last.createdAt : last.due}.${last.id}` : null,
    total: db.select({ n: count() }).from(requests).where(base).get()?.n ?? 0,
  };
}

/**
 * Finds by request number or requester: facts that everybody of the desk may read. Fields are not
 * searched here.
 */
function findCondition(find: string | undefined): SQL | undefined {
  const words = find?.trim();
  if (!words) return undefined;
  const pattern = `%${words.replace(/[%_]/g, '')}%`;
  return or(
    like(requests.number, pattern),
    sql`exists (select 1 from ${people} where ${people.id} = ${requests.requesterId} and ${people.name} like ${pattern})`,
  );
}

function readPlace(after: string): { at: number; id: string } {
  const [at = '', id = ''] = after.split('.');
  if (!/^\d+$/.test(at) || id === '')
    throw new Problem(
      400,
      'not-understood',
      'Not understood',
      'The place to go on from can’t be read. Start from the first page.',
    );
  return { at: Number(at), id };
}

/** What the rows of a page have in common, read once for all of them. */
function sharedBy(db: Reader, page: readonly ShownRow[]) {
  const people = page.flatMap((row) => [row.requesterId, ...(row.handlerId ? [row.handlerId] : [])]);
  const register = eachOnce((id) => registerById(db, id));
  return {
    names: namesOf(db, people),
    teams: groupNames(db),
    // People in fields, besides those every row names.
    nameOf: eachNameOnce(nameOf(db)),
    register,
    form: eachOnce((releaseId) => {
      const { release } = releaseById(db, releaseId);
      return { design: release.design, calendar: calendarOf(db, release.design.deadline.calendar) };
    }),
  };
}

/** Remembers what was found for a key. */
function eachOnce<T>(find: (key: string) => T): (key: string) => T {
  const found = new Map<string, T>();
  return (key) => {
    const known = found.get(key) ?? find(key);
    found.set(key, known);
    return known;
  };
}

/** Remembers what something is called, by each way it is shown. */
function eachNameOnce(find: NameOf): NameOf {
  const found = new Map<string, string | undefined>();
  return (id, by) => {
    const key = by ? `${id} ${by.join(' ')}` : id;
    if (!found.has(key)) found.set(key, find(id, by));
    return found.get(key);
  };
}

function rowOf(
  viewer: Viewer,
  row: ShownRow,
  { names, teams, ...shared }: ReturnType<typeof sharedBy>,
  now: number,
): AnswerOf<'ledger'>['rows'][number] {
  const register = shared.register(row.registerId);
  const { design, calendar } = shared.form(row.releaseId);
  const relation = relationTo(partiesIn(row, register), viewer);
  const named = register.fields.filter((field) => design.subject.includes(`{${field.key}}`));
  const visible = reveal({
    fields: register.fields,
    only: named,
    values: row.values,
    plan: register.access,
    viewer,
    relation,
    nameOf: (id, by) => names.get(id) ?? shared.nameOf(id, by),
  });
  return {
    number: row.number,
    subject: revealSubject(design.subject, visible, design.title),
    requester: names.get(row.requesterId) ?? '',
    form: design.title,
    stage: stageView(stageOf(register, row.stage)),
    team: teams.get(row.team) ?? row.team,
    handler: row.handlerId ? (names.get(row.handlerId) ?? null) : null,
    priority: row.priority,
    thing: holdsThings(register),
    fuse: fuseAt(row.deadline, design.deadline, calendar, now, row.finishedAt),
    due: iso(row.due),
    updatedAt: iso(row.updatedAt),
  };
}
