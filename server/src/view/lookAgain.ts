import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { inArray, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { rowsShown } from './shownRows.ts';
import { beganLook } from './viewed.ts';
import { beyond, type Key, keysIn, ordersOf, placeIn, readsOf } from './viewOrder.ts';

/**
 * Some requests as they stand in a view by now: those of them that are in it, and whether each comes after the end of what
 * is on the page. What has changed is asked for by itself: nothing else is gone through.
 */
export function lookAgain(
  db: Reader,
  viewer: Viewer,
  { view, picture, only, until }: BodyOf<'lookAgain'>,
  now: number,
): AnswerOf<'lookAgain'> {
  const { look } = beganLook(db, viewer, view, now);
  if (!look) return { rows: [], later: [] };
  const { where } = look.meant(inArray(requests.number, [...only]));
  const { orders, groupAt } = ordersOf(look);
  const after = until === undefined ? sql`0` : beyond(orders, placeIn(until, orders.length));
  const found = db.all<Record<string, Key>>(
    sql`select *, ${after} as later from (select ${readsOf(orders)}, ${requests.number} as number from ${requests} where ${where})`,
  );
  const page = found.map((row) => keysIn(row, orders));
  return {
    rows: rowsShown(look, page, groupAt, picture),
    later: found.flatMap(({ number, later }) => (later === 1 ? [String(number)] : [])),
  };
}
