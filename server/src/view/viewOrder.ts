import { refused } from '@tolvek/words';
import { type SQL, sql } from 'drizzle-orm';
import { Problem } from '../platform/problem.ts';
import { requests } from '../request/tables.ts';
import type { ViewLook } from './viewLook.ts';

export type Key = string | number | null;
/** What rows are put in order by. */
export interface OrderKey {
  readonly read: SQL;
  readonly down: boolean;
  /** Whether every row holds it. */
  readonly isHeld?: boolean;
}

export const keyAt = (place: number): SQL => sql.raw(`k${place}`);

/** What comes after a row in an order, by the row’s keys; what is empty is last. */
export function beyond(orders: readonly OrderKey[], keys: readonly Key[], place = 0): SQL {
  const [order, value] = [orders[place], keys[place]];
  if (!order) return sql`0`;
  const key = keyAt(place);
  const further = order.down ? sql`${key} < ${value}` : sql`${key} > ${value}`;
  const after = value === null || value === undefined ? sql`0` : sql`(${further} or ${key} is null)`;
  return sql`(${after} or (${key} is ${value ?? null} and ${beyond(orders, keys, place + 1)}))`;
}

/** Where a page of a view ended, as an address says it. @throws Problem 400 for one that says nothing */
export function placeIn(after: string, length: number): readonly Key[] {
  try {
    const keys: unknown = JSON.parse(Buffer.from(after, 'base64url').toString());
    const isKey = (key: unknown): key is Key => key === null || typeof key === 'string' || typeof key === 'number';
    if (Array.isArray(keys) && keys.length === length && keys.every(isKey)) return keys;
  } catch {
    // Said below.
  }
  throw new Problem(400, 'not-understood', refused('noSuchPage'));
}

/** The keys by which rows of a view are put in order: its groups, its orders, and which came last; and where what groups them stands. */
export function ordersOf(look: ViewLook): {
  readonly orders: readonly OrderKey[];
  readonly groupAt: readonly number[];
} {
  const groups = look.groups();
  const keys = [
    ...groups.flatMap(({ is, order, down }) => [
      { read: order, down },
      { read: is, down: false },
    ]),
    ...look.view.orders.flatMap(({ of, down }) => {
      const found = look.subject(of);
      return found ? [{ read: found.order, down }] : [];
    }),
    { read: sql`${requests.createdAt}`, down: true, isHeld: true },
    { read: sql`${requests.id}`, down: false, isHeld: true },
  ];
  return { orders: keys, groupAt: groups.map((_, place) => place * 2 + 1) };
}

/** A page of a view: the keys of its rows, the last of each being its id, where the next goes on, and which keys group them. */
export interface ViewPage {
  readonly page: readonly (readonly Key[])[];
  /** Null after the last. */
  readonly next: string | null;
  readonly groupAt: readonly number[];
}

/** Where a page ended, as an address says it. */
export const placeOf = (keys: readonly Key[] | undefined): string | null =>
  keys ? Buffer.from(JSON.stringify(keys)).toString('base64url') : null;

/** What is read of each row to put it in order, and its keys in what was read. */
export const readsOf = (orders: readonly OrderKey[]): SQL =>
  sql.join(
    orders.map(({ read }, place) => sql`${read} as ${keyAt(place)}`),
    sql`, `,
  );
export const keysIn = (row: Readonly<Record<string, Key>>, orders: readonly OrderKey[]): readonly Key[] =>
  orders.map((_, place) => row[`k${place}`] ?? null);

/** By what keys rows that were read are put in order: what is nothing stands last. */
const orderOf = (orders: readonly OrderKey[]): SQL =>
  sql.join(
    orders.flatMap(({ down }, place) => [
      sql`${keyAt(place)} is null`,
      down ? sql`${keyAt(place)} desc` : keyAt(place),
    ]),
    sql`, `,
  );

/** The requests that are meant, and what they are found among. */
interface Found {
  readonly where: SQL | undefined;
  readonly from: SQL;
}

/** The ids of all that is meant, put in order once. */
export function idsInOrder(look: ViewLook, { where, from }: Found): readonly string[] {
  const { orders } = ordersOf(look);
  return look.db
    .all<{ readonly id: string }>(
      sql`select ${keyAt(orders.length - 1)} as id from (select ${readsOf(orders)} from ${from} where ${where}) order by ${orderOf(orders)}`,
    )
    .map(({ id }) => id);
}

/** A page of the requests that are meant, put in order for it. */
export function keyedPage(
  look: ViewLook,
  { where, from: among }: Found,
  { after, most }: { readonly after?: string | undefined; readonly most: number },
): ViewPage {
  const { orders, groupAt } = ordersOf(look);
  const from = after === undefined ? sql`1` : beyond(orders, placeIn(after, orders.length));
  const keyed = look.db.all<Record<string, Key>>(
    sql`select * from (select ${readsOf(orders)} from ${among} where ${where}) where ${from} order by ${orderOf(orders)} limit ${most + 1}`,
  );
  const page = keyed.slice(0, most).map((row) => keysIn(row, orders));
  return { page, next: keyed.length > most ? placeOf(page.at(-1)) : null, groupAt };
}
