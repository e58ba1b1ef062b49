import type { AnswerOf } from '@tolvek/contract';
import { wallClockAt } from '@tolvek/core/deadline';
import type { Viewer } from '@tolvek/core/people';
import type { CalendarShape, ViewDesign } from '@tolvek/core/view';
import { and, type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { columnsOf } from './board.ts';
import { rowsOf } from './ledger.ts';
import { shownBy } from './shownRows.ts';
import { beganLook } from './viewed.ts';
import type { ViewLook } from './viewLook.ts';
import type { Key } from './viewOrder.ts';
import { countedOf } from './viewWay.ts';

/** What stands in the days that are looked at, at most; and beside them, without a day. */
const BARS = 500;
const UNDATED = 30;

interface Days {
  readonly first: string;
  readonly last: string;
}

/** What somebody sees of a view as a calendar: what begins, ends or lasts in some days (ISO dates), and what stands on none. */
export function lookAtCalendar(
  db: Reader,
  viewer: Viewer,
  { view, shape, first, last }: Days & { readonly view: ViewDesign; readonly shape: CalendarShape },
  now: number,
): AnswerOf<'lookAtCalendar'> {
  const groups = shape.lines === null ? [] : [shape.lines];
  const { look, ...said } = beganLook(db, viewer, { ...view, groups, shapes: [shape] }, now, view);
  const start = look?.subject(shape.from);
  const nothing = { ...{ bars: [], lines: [], undated: { rows: [], count: 0 } }, more: false, isAll: true };
  if (!look || !start) return { ...nothing, ...said };
  const { where, isAll } = look.meant();
  const end = (shape.to === null ? null : look.subject(shape.to)) ?? { is: sql`null`, order: sql`null` };
  const line = look.groups()[0]?.is ?? sql`null`;
  const isThere = and(where, sql`${start.is} <= ${last}`, sql`max(${start.is}, coalesce(${end.is}, '')) >= ${first}`);
  const found = db.all<Record<'id' | 'begins' | 'ends' | 'line', Key>>(
    sql`select ${requests.id} as id, ${start.order} as begins, ${end.order} as ends, ${line} as line from ${requests} where ${isThere} order by begins, ${requests.number} limit ${BARS + 1}`,
  );
  const { zone } = deskOf(db);
  const clock = (moment: Key | undefined): string | null =>
    typeof moment === 'number' ? wallClockAt(moment, zone) : (moment ?? null);
  const bars = found.slice(0, BARS);
  const lines = shape.lines === null ? [] : columnsOf(look, shape.lines, where);
  return {
    bars: seen(
      look,
      bars.map(({ id }) => String(id)),
    ).map((row, at) => ({
      ...row,
      begins: clock(bars[at]?.begins) ?? '',
      ends: clock(bars[at]?.ends),
      line: lines.findIndex(({ value }) => value === (bars[at]?.line ?? null)),
    })),
    lines: lines.map(({ value, label }) => ({ value, label })),
    undated: undatedIn(look, and(where, sql`${start.is} is null`)),
    more: found.length > BARS,
    ...{ isAll, ...said },
  };
}

const seen = (look: ViewLook, ids: readonly string[]) => shownBy(look, rowsOf(look.db, ids));

function undatedIn(look: ViewLook, where: SQL | undefined): AnswerOf<'lookAtCalendar'>['undated'] {
  const some = look.db.all<{ readonly id: string }>(
    sql`select ${requests.id} as id from ${requests} where ${where} order by ${requests.createdAt} desc, ${requests.id} limit ${UNDATED}`,
  );
  return {
    rows: seen(
      look,
      some.map(({ id }) => id),
    ),
    count: countedOf(look, where).total,
  };
}
