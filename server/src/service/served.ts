import type { QueryOf } from '@tolvek/contract';
import { dayBegins, FINISH } from '@tolvek/core/deadline';
import { grouped } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import { type Between, type Course, Hours, type Served, type Standing, timesOf } from '@tolvek/core/service';
import { and, asc, desc, eq, gte, inArray, isNull, lt, or, sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { deadlines } from '../deadline/tables.ts';
import { planningOf, releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { inList } from '../platform/prepared.ts';
import { holdsThings, type RegisterRow, registersOnce } from '../register/queries.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { stagesReached } from '../request/stagesReached.ts';
import { history, requests } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { lookedAtBy } from '../view/nameable.ts';
import { tellingOf } from '../view/telling.ts';
import { lookingAt, workedBy } from '../view/workedBy.ts';

/** Requests that are looked at, the newest first. */
const LOOKED_AT = 20_000;

type Asked = Pick<QueryOf<'serviceTimes'>, 'from' | 'to' | 'of'>;

/** A request as it was served, with what it is put together by. */
export interface ServedRow extends Served {
  readonly id: string;
  readonly registerId: string;
  readonly formId: string;
  readonly team: string | null;
  readonly handlerId: string | null;
  /** The id of the row of its table; empty where that may not be known, or there is none. */
  readonly row: string;
  readonly isTold: boolean;
  /** The calendar that its time is counted by, by key. */
  readonly calendar: string;
}

/** Requests as they were served, as far as somebody reads them. */
export interface LookedAt {
  readonly rows: readonly ServedRow[];
  readonly unread: number;
  readonly isAll: boolean;
  readonly registers: readonly RegisterRow[];
  readonly between: Between;
  readonly zone: string;
}

/** When whoever asked first heard more than that it had come: words, a decision, or its end. */
function answeredAt(happened: readonly Happened[], finished: number | null): number | null {
  const first = happened.find(({ data }) => {
    if (data?.kind === 'said') return data.to === 'requester' && !data.byRequester;
    return data?.kind === 'returned' || (data?.kind === 'decided' && /^(approved|refused)$/.test(data.leadsTo));
  });
  return first?.at ?? finished;
}

type Happened = Pick<typeof history.$inferSelect, 'at' | 'data'>;

/** What a stage means for whoever works at it. */
export function standingIn({
  stages,
}: {
  readonly stages: readonly Pick<RegisterRow['stages'][number], 'key' | 'phase'>[];
}): (stage: string) => Standing {
  const phases = new Map(stages.map(({ key, phase }) => [key, phase]));
  return (stage) => {
    const phase = phases.get(stage);
    return phase === 'paused' ? 'paused' : phase === 'finished' ? 'over' : 'works';
  };
}

/** The requests that came, went or were open in some days, as somebody reads them. */
export function servedIn(db: Reader, now: number, viewer: Viewer, { from, to, of = '' }: Asked): LookedAt {
  const { zone } = deskOf(db);
  const between = { from: dayBegins(from, zone), to: dayBegins(to, zone, 1) };
  const looking = lookingAt(db, viewer);
  const readable = lookedAtBy(looking).filter((register) => !holdsThings(register));
  const registers = readable.filter(({ key }) => of === '' || key === of);
  const found: ShownRow[] = db
    .select(SHOWN_COLUMNS)
    .from(requests)
    .where(
      and(
        eq(requests.trial, false),
        // What was merged into another is no work of its own.
        sql`${requests.id} not in (select request_id from merged_requests)`,
        inArray(
          requests.registerId,
          registers.map(({ id }) => id),
        ),
        lt(requests.createdAt, between.to),
        or(isNull(requests.finishedAt), gte(requests.finishedAt, between.from)),
        workedBy({ ...looking, along: undefined }, requests),
      ),
    )
    .orderBy(desc(requests.createdAt), desc(requests.id))
    .limit(LOOKED_AT)
    .all();
  const once = registersOnce(db, looking.registers);
  const opened = found.map((request) => openRequest(db, request, viewer, 'list', { registers: once }));
  const read = opened.filter((open) => open.may('history'));
  const ids = read.map(({ request }) => request.id);
  const happened = grouped(
    db
      .select({ of: history.requestId, at: history.at, data: history.data })
      .from(history)
      .where(and(inList(history.requestId, ids), inArray(history.kind, ['stage', 'decision', 'comment'])))
      .orderBy(asc(history.at), asc(history.id))
      .all(),
    (each) => each.of,
  );
  const due = new Map(
    db
      .select({ of: deadlines.requestId, due: deadlines.due })
      .from(deadlines)
      .where(and(inList(deadlines.requestId, ids), eq(deadlines.key, FINISH)))
      .all()
      .map((each) => [each.of, each.due]),
  );
  const first = read.reduce((least, { request }) => Math.min(least, request.createdAt), between.from);
  const hours = new Map<string, Hours>();
  const hoursOf = (key: string): Hours => {
    const known = hours.get(key) ?? new Hours(calendarOf(db, key), first, now);
    hours.set(key, known);
    return known;
  };
  const standings = new Map(registers.map((register) => [register.id, standingIn(register)]));
  const rows = read.map((open): ServedRow => {
    const { request, register } = open;
    const standing = standings.get(register.id) ?? standingIn(register);
    const of = happened.get(request.id) ?? [];
    const course: Course = {
      arrived: request.createdAt,
      finished: request.finishedAt,
      answered: answeredAt(of, request.finishedAt),
      stages: stagesReached(request, register, of),
    };
    const { calendar } = planningOf(db, request).release.design.deadline;
    const counted = hoursOf(calendar);
    const isTold = isToldTo(db, open);
    const promised = due.get(request.id);
    const isDone = request.finishedAt !== null && promised !== undefined && isTold;
    return {
      ...{ id: request.id, registerId: register.id, formId: request.formId, team: request.team },
      ...{ handlerId: request.handlerId, course, standing, isTold, calendar },
      times: timesOf(course, now, (a, b) => counted.between(a, b), standing),
      inTime: isDone ? (request.finishedAt ?? 0) <= promised : null,
      row: isTold ? rowOf(db, request) : '',
    };
  });
  return {
    rows,
    unread: opened.length - read.length,
    isAll: found.length < LOOKED_AT,
    registers: readable,
    between,
    zone,
  };
}

/** Whether somebody may know if a request is in time, and by which row it went. */
export const isToldTo = (db: Reader, { request, reading }: OpenRequest<ShownRow>): boolean =>
  tellingOf(db, request, FINISH).every((sink) => reading.mayHear(sink));

/** The row of its table that a request went by, by the id it has there. */
function rowOf(db: Reader, { id, releaseId }: ShownRow): string {
  const routed = db.select({ routed: requests.routed }).from(requests).where(eq(requests.id, id)).get()?.routed;
  const place = routed?.row ?? 0;
  return place > 0 ? (releaseById(db, releaseId).release.design.routing.rows[place - 1]?.id ?? '') : '';
}
