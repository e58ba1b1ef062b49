import type { AnswerOf, QueryOf } from '@tolvek/contract';
import { dayBegins, lengthOf } from '@tolvek/core/deadline';
import { grouped } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import { type Behind, type Between, isBehind, type Line, lineOf } from '@tolvek/core/service';
import { beginOf, nextOf, stretchesBetween } from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { calendarOf } from '../calendar/queries.ts';
import { formById, releaseInForce } from '../form/queries.ts';
import { groupNames, personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { openRequest } from '../request/open.ts';
import { rowsOf } from '../view/ledger.ts';
import { type LookedAt, type ServedRow, servedIn } from './served.ts';

/** Lines, and rows behind a figure, at most. */
const LINES = 60;
const ROWS = 200;

type Asked = QueryOf<'serviceTimes'>;
type Told = AnswerOf<'serviceTimes'>;
/** Requests as they were served in some days. */
type Served = Pick<LookedAt, 'rows' | 'between' | 'zone'>;

/** Days of which no more lines than are told begin before the last: of a span of centuries not every week is gone through. */
function later(from: string, to: string): string {
  const first = new Date(Date.parse(to) - LINES * 31 * 24 * 3_600_000).toISOString().slice(0, 10);
  return first > from ? first : from;
}

/** Rows that are put together, with the stretch they are looked at in. */
interface Group {
  readonly key: string;
  readonly label: Words;
  readonly rows: readonly ServedRow[];
  readonly between: Between;
}

/** The rows as they are put together. */
function groupsOf(db: Reader, { rows, between, zone }: Served, { by: is = 'form', from, to }: Asked): readonly Group[] {
  if (is === 'week' || is === 'month')
    return stretchesBetween(later(from, to), to, is, LINES).map((first) => ({
      key: first,
      label: said(`views:stretch.${is}`, { day: first }),
      rows,
      between: {
        from: Math.max(between.from, dayBegins(beginOf(first, is), zone)),
        to: Math.min(between.to, dayBegins(nextOf(first, is), zone)),
      },
    }));
  const teams = groupNames(db);
  const keyOf = ({ registerId, formId, team, handlerId, row }: ServedRow): string => {
    switch (is) {
      case 'form':
        return formId;
      case 'team':
        return team ?? '';
      case 'handler':
        return handlerId ?? '';
      case 'row':
        return row === '' ? '' : `${registerId} ${formId} ${row}`;
    }
  };
  const called = (key: string): Words => {
    switch (is) {
      case 'form':
        return releaseInForce(db, key)?.design.title ?? formById(db, key)?.draft.title ?? '';
      case 'team':
        return teams.get(key) ?? '';
      case 'handler':
        return personNamed(db, key === '' ? null : key);
      case 'row': {
        const [, form = '', row = ''] = key.split(' ');
        const design = releaseInForce(db, form)?.design;
        const place = design?.routing.rows.findIndex(({ id }) => id === row) ?? -1;
        if (!design || place === -1) return key === '' ? '' : said('service:formerRow');
        const note = design.routing.rows[place]?.note ?? '';
        return said(note === '' ? 'service:row' : 'service:rowNoted', { form: design.title, row: place + 1, note });
      }
    }
  };
  return [...grouped(rows, keyOf)]
    .map(([key, some]) => ({ key, label: called(key), rows: some, between }))
    .sort((a, b) => b.rows.length - a.rows.length)
    .slice(0, LINES);
}

type Lengths = (ms: number) => ReturnType<typeof lengthOf>;

/** How lengths are told: in days of the calendar that most of them are counted by. */
function lengthsOf(db: Reader, rows: readonly ServedRow[]): Lengths {
  const by = [...grouped(rows, ({ calendar }) => calendar)].sort(([, a], [, b]) => b.length - a.length);
  const most = by[0] && calendarOf(db, by[0][0]);
  return (ms) => (most ? lengthOf(ms, most) : { minutes: Math.round(ms / 60_000) });
}

/** A line as it is told: lengths in days of a calendar, stages by what they are called in their register. */
function lineTold(
  group: Pick<Group, 'key' | 'label'>,
  line: Line,
  length: Lengths,
  stagesNamed: readonly StageNamed[] = [],
) {
  const spread = (of: Line['first']) => of && { median: length(of.median), most: length(of.most) };
  const { came, went, open, inTime, late, first, finish, paused, stages } = line;
  return {
    ...{ key: group.key, label: group.label, came, went, open, inTime, late },
    ...{ first: spread(first), finish: spread(finish), paused: paused === null ? null : length(paused) },
    stages: stagesNamed.flatMap(({ key, label }) => {
      const found = stages.get(key);
      return found ? [{ label, median: length(found.median), count: found.count }] : [];
    }),
  };
}

type StageNamed = Pick<RegisterRow['stages'][number], 'key' | 'label'>;

/** What is told of requests as they were served. `stages`: those of the one register that is looked at. */
export function timesTold(
  db: Reader,
  served: Served,
  asked: Asked,
  stages?: readonly StageNamed[],
): Pick<Told, 'all' | 'lines' | 'untold'> {
  const { rows, between } = served;
  const length = lengthsOf(db, rows);
  const told = (group: Group) => lineTold(group, lineOf(group.rows, group.between), length, stages);
  return {
    all: told({ key: '', label: '', rows, between }),
    lines: groupsOf(db, served, asked).map(told),
    untold: rows.filter(({ isTold }) => !isTold).length,
  };
}

/** How long requests took that somebody reads, in some days, put together as they ask. */
export function serviceTimes(db: Reader, now: number, viewer: Viewer, asked: Asked): Told {
  const { unread, isAll, registers, ...served } = servedIn(db, now, viewer, asked);
  const register = registers.find(({ key }) => key === asked.of);
  return {
    ...timesTold(db, served, asked, register?.stages),
    ...{ unread, isAll },
    registers: registers.map(({ key, name }) => ({ key, name })),
  };
}

/** The requests behind a figure, the latest first. */
export function servedRows(
  db: Reader,
  now: number,
  viewer: Viewer,
  { line, figure, ...asked }: Asked & { readonly line?: string | undefined; readonly figure: Behind },
): AnswerOf<'servedRows'> {
  const looked = servedIn(db, now, viewer, asked);
  const { rows, between } = line === undefined ? looked : behindLine(db, looked, asked, line);
  const found = rows.filter((each) => isBehind(each, figure, between));
  const told = lengthsOf(db, looked.rows);
  const length = (ms: number | null) => (ms === null ? null : told(ms));
  const shown = found.slice(0, ROWS);
  const ids = shown.map(({ id }) => id);
  const known = new Map(rowsOf(db, ids).map((request) => [request.id, request]));
  return {
    rows: shown.flatMap(({ id, times, inTime }) => {
      const request = known.get(id);
      if (!request) return [];
      const { subject } = openRequest(db, request, viewer, 'list');
      return [
        {
          ...{ number: request.number, subject, arrived: iso(request.createdAt) },
          finished: request.finishedAt === null ? null : iso(request.finishedAt),
          ...{ first: length(times.first), finish: length(times.finish), paused: told(times.paused) },
          inTime,
        },
      ];
    }),
    total: found.length,
  };
}

const behindLine = (db: Reader, looked: Served, asked: Asked, line: string): Pick<Group, 'rows' | 'between'> =>
  groupsOf(db, looked, asked).find(({ key }) => key === line) ?? { rows: [], between: looked.between };
