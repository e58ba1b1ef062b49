import { type DeadlinePlan, dayBegins, type OpenStretch, openBetween, spanOf, union } from '@tolvek/core/deadline';
import {
  type Away,
  type Crew,
  type DeskPast,
  LEARNS_FROM,
  type Life,
  type LifeEvent,
  LOOKS_AHEAD,
  type Rostered,
  stretchesOf,
  type Told,
} from '@tolvek/core/forecast';
import type { FormDesign } from '@tolvek/core/form';
import { grouped } from '@tolvek/core/own';
import { dutiesBetween, peopleOn } from '@tolvek/core/roster';
import { and, asc, desc, eq, gte, inArray, isNotNull, ne, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { approvalRounds } from '../approval/tables.ts';
import { calendarOf } from '../calendar/queries.ts';
import { deadlineIn } from '../deadline/queries.ts';
import { deadlines } from '../deadline/tables.ts';
import { designStates } from '../design/tables.ts';
import { absencesSince } from '../people/absences.ts';
import { membersOf } from '../people/queries.ts';
import { groups, people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import { inList } from '../platform/prepared.ts';
import { allRegisters, holdsThings, type RegisterRow } from '../register/queries.ts';
import { stagesReached } from '../request/stagesReached.ts';
import { history, requests } from '../request/tables.ts';
import { allRosters } from '../roster/queries.ts';
import { deskOf } from '../settings/queries.ts';

/** So many requests that are open are forecast at most: those due first. */
const MOST_OPEN = 5_000;
/** From so many that are finished it is learned at most: those due last. */
const MOST_FINISHED = 4_000;

const COLUMNS = {
  id: requests.id,
  formId: requests.formId,
  releaseId: requests.releaseId,
  plannedBy: requests.plannedBy,
  registerId: requests.registerId,
  team: requests.team,
  handler: requests.handlerId,
  stage: requests.stage,
  routed: requests.routed,
  createdAt: requests.createdAt,
  finishedAt: requests.finishedAt,
};

/** What a release says of how its requests are routed and when they are due. */
interface Planned {
  readonly deadline: DeadlinePlan;
  readonly rows: readonly string[];
}

/** Releases never change. */
const known = new LRUCache<string, Planned>({ max: 500 });

function plannedBy(db: Reader, releaseId: string): Planned | undefined {
  let planned = known.get(releaseId);
  if (!planned) {
    const state = db.select().from(designStates).where(eq(designStates.id, releaseId)).get();
    if (!state) return undefined;
    const { deadline, routing } = state.content as FormDesign;
    planned = { deadline, rows: routing.rows.map(({ id }) => id) };
    known.set(releaseId, planned);
  }
  return planned;
}

/** All that a forecast reads of the desk, at a moment (epoch ms). Things and trials are left out. */
export function pastOf(db: Reader, now: number): DeskPast {
  const registers = new Map(
    allRegisters(db)
      .filter((register) => !holdsThings(register))
      .map((register) => [register.id, register]),
  );
  const rows = requestsOf(db, now).filter(({ registerId }) => registers.has(registerId));
  const ids = rows.map(({ id }) => id);
  const happened = groupedBy(
    db
      .select({ of: history.requestId, at: history.at, data: history.data })
      .from(history)
      .where(and(inList(history.requestId, ids), inArray(history.kind, ['stage', 'handler', 'decision'])))
      .orderBy(asc(history.at), asc(history.id))
      .all(),
  );
  const decided = groupedBy(
    db
      .select({ of: approvalRounds.requestId, from: approvalRounds.openedAt, to: approvalRounds.endedAt })
      .from(approvalRounds)
      .where(inList(approvalRounds.requestId, ids))
      .all(),
  );
  const promised = groupedBy(
    db
      .select()
      .from(deadlines)
      .where(inList(deadlines.requestId, ids))
      .all()
      .map((row) => ({ of: row.requestId, row })),
  );
  const used = new Map<string, Map<string, number>>();
  const lives = rows.flatMap((row): Life[] => {
    const register = registers.get(row.registerId) as RegisterRow;
    const release = plannedBy(db, row.releaseId);
    const plan = plannedBy(db, row.plannedBy ?? row.releaseId)?.deadline;
    if (!release || !plan) return [];
    const life = {
      ...{ id: row.id, form: row.formId, calendar: plan.calendar, arrived: row.createdAt, finished: row.finishedAt },
      row: `${row.formId} ${release.rows[(row.routed?.row ?? 0) - 1] ?? ''}`,
      stretches: stretchesOf({
        ...{ arrived: row.createdAt, finished: row.finishedAt, decided: decided.get(row.id) ?? [] },
        ...toldOf(row, register, happened.get(row.id) ?? []),
        isPaused: (stage) => register.stages.find(({ key }) => key === stage)?.phase === 'paused',
      }),
      promised: (promised.get(row.id) ?? []).flatMap(({ row: deadline }) => {
        const rule = plan.deadlines.find(({ key }) => key === deadline.key);
        if (!rule) return [];
        const { start, due, pauses } = deadline;
        return [
          {
            ...{ key: rule.key, start, due, pauses, calendar: rule.calendar ?? plan.calendar },
            span: spanOf(deadlineIn(deadline)),
            stands: standsWhilePaused(rule.stands, register),
            ends: rule.ends.on === 'finished' ? ('finished' as const) : ('itself' as const),
            over: deadline.state === 'over' ? (deadline.endedAt ?? row.finishedAt) : null,
          },
        ];
      }),
    };
    const ofTeam = used.get(row.team ?? '') ?? new Map<string, number>();
    used.set(row.team ?? '', ofTeam.set(plan.calendar, (ofTeam.get(plan.calendar) ?? 0) + 1));
    return [life];
  });
  const crews = crewsOf(db, used);
  const calendars = new Set([
    ...lives.flatMap(({ calendar, promised: all }) => [calendar, ...all.map((each) => each.calendar)]),
    ...crews.map(({ calendar }) => calendar),
  ]);
  return {
    ...{ now, crews, lives },
    calendars: Object.fromEntries([...calendars].map((key) => [key, calendarOf(db, key)])),
    away: awayFrom(db, now, lives),
    rostered: rosteredIn(db, now, lives),
  };
}

/** What is open, and what was finished of late. Finished requests are found by when they were due, which an index knows. */
function requestsOf(db: Reader, now: number) {
  const open = db
    .select(COLUMNS)
    .from(requests)
    .where(and(ne(requests.phase, 'finished'), eq(requests.trial, false), isNotNull(requests.due)))
    .orderBy(asc(requests.due))
    .limit(MOST_OPEN)
    .all();
  const finished = db
    .select(COLUMNS)
    .from(requests)
    .where(and(eq(requests.phase, 'finished'), eq(requests.trial, false), gte(requests.due, now - LEARNS_FROM)))
    .orderBy(desc(requests.due))
    .limit(MOST_FINISHED)
    .all();
  return [...open, ...finished].sort((a, b) => a.createdAt - b.createdAt || (a.id < b.id ? -1 : 1));
}

/** Rows by the request that they are of. */
const groupedBy = <Row extends { readonly of: string }>(rows: readonly Row[]): ReadonlyMap<string, readonly Row[]> =>
  grouped(rows, (row) => row.of);

/** Who had a request, and where it was when it arrived, from what happened to it. */
function toldOf(
  row: {
    readonly stage: string;
    readonly createdAt: number;
    readonly team: string | null;
    readonly handler: string | null;
  },
  register: RegisterRow,
  happened: readonly { readonly at: number; readonly data: (typeof history.$inferSelect)['data'] }[],
): Pick<Told, 'first' | 'events'> {
  const [began, ...stages] = stagesReached(row, register, happened);
  const teams = happened.flatMap(({ at, data }) =>
    data?.kind === 'team' ? [{ at, from: data.from, to: data.to }] : [],
  );
  const handlers = happened.flatMap(({ at, data }) =>
    data?.kind === 'handler' ? [{ at, from: data.from, to: data.to }] : [],
  );
  const events: readonly LifeEvent[] = [
    ...stages,
    ...teams.map(({ at, to }) => ({ at, team: to })),
    ...handlers.map(({ at, to }) => ({ at, handler: to })),
  ];
  return {
    // Of those at the same moment, as it was told.
    events: events.toSorted((a, b) => a.at - b.at),
    first: {
      stage: began?.stage ?? row.stage,
      team: (teams[0] ? teams[0].from : row.team) ?? '',
      handler: handlers[0] ? handlers[0].from : row.handler,
    },
  };
}

function standsWhilePaused(stands: DeadlinePlan['deadlines'][number]['stands'], register: RegisterRow): boolean {
  if (stands.on !== 'stages') return stands.on === 'paused';
  return register.stages.some(({ key, phase }) => phase === 'paused' && stands.stages.includes(key));
}

/** The teams that requests go to, each with the calendar of most of these. */
function crewsOf(db: Reader, used: ReadonlyMap<string, ReadonlyMap<string, number>>): readonly Crew[] {
  const teams = db.select({ key: groups.key }).from(groups).where(eq(groups.isTeam, true)).all();
  const asked = new Set([...teams.map(({ key }) => key), ...used.keys()].filter((key) => key !== ''));
  return [...asked].sort().flatMap((team): Crew[] => {
    const calendars = [...(used.get(team) ?? [])].sort(([, a], [, b]) => b - a);
    const calendar = calendars[0]?.[0];
    return calendar === undefined ? [] : [{ team, calendar, members: membersOf(db, team).map(({ id }) => id) }];
  });
}

/** When people are not there. Whoever has left is not there from now on: since when is not kept. */
function awayFrom(db: Reader, now: number, lives: readonly Life[]): readonly Away[] {
  const { zone } = deskOf(db);
  const absent = absencesSince(db, now - LEARNS_FROM, zone).map(
    ({ personId, fromDay, untilDay }): Away => ({
      person: personId,
      from: dayBegins(fromDay, zone),
      to: untilDay === null ? null : dayBegins(untilDay, zone, 1),
    }),
  );
  const handlers = new Set(
    lives.flatMap(({ finished, stretches }) => (finished === null ? (stretches.at(-1)?.handler ?? []) : [])),
  );
  const left = db
    .select({ id: people.id })
    .from(people)
    .where(and(inList(people.id, [...handlers]), eq(people.active, false)))
    .all();
  return [...absent, ...left.map(({ id }): Away => ({ person: id, from: now, to: null, left: true }))];
}

/**
 * Who works by rosters alone, and when. Before a roster began they worked as its calendar was open: it says nothing of that
 * time.
 */
function rosteredIn(db: Reader, now: number, lives: readonly Life[]): readonly Rostered[] {
  const [from, to] = [
    lives.reduce((least, { arrived }) => Math.min(least, arrived), now - LEARNS_FROM),
    now + LOOKS_AHEAD,
  ];
  const theirs = new Map<string, OpenStretch[]>();
  for (const roster of allRosters(db)) {
    const [first] = roster.shifts.map(({ since }) => since).sort();
    if (!roster.onlyOnDuty || roster.retired || first === undefined) continue;
    const calendar = calendarOf(db, roster.calendar);
    const began = Math.max(from, dayBegins(first, roster.zone));
    const duties = grouped(began < to ? dutiesBetween(roster, calendar, began, to) : [], ({ person }) => person);
    for (const person of peopleOn(roster)) {
      const before = began > from ? openBetween(calendar, from, Math.min(began, to)) : [];
      theirs.set(person, [...(theirs.get(person) ?? []), ...before, ...(duties.get(person) ?? [])]);
    }
  }
  return [...theirs].map(([person, all]) => ({ person, duties: union(all) }));
}

/** What tells whether anything is otherwise than it was: the last that happened to requests and at the desk. */
export const stateOf = (db: Reader): string =>
  JSON.stringify(
    db.all(
      sql`select (select max(rowid) from history) as a, (select max(rowid) from ground_history) as b, (select max(rowid) from design_states) as c`,
    ),
  );
