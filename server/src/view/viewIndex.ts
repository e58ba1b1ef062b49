import { createHash } from 'node:crypto';
import { canSum } from '@tolvek/core/view';
import { type SQL, sql } from 'drizzle-orm';
import { inIndex, textOf } from '../platform/literal.ts';
import { prepared } from '../platform/prepared.ts';
import { requests } from '../request/tables.ts';
import type { Meant, ViewLook } from './viewLook.ts';
import { type Key, keyAt, type OrderKey, ordersOf, placeIn, placeOf, type ViewPage } from './viewOrder.ts';

/** How the names of indexes of views begin: all of these are ours. */
export const VIEW_INDEX = 'view_';

/** What is put in order by functions and data that another version of Node has otherwise stands in an index of its own. */
const MADE_BY = `${process.versions.unicode} ${process.versions.tz}`;

/** What stands in place of nothing in an index: after all numbers and texts (https://sqlite.org/datatype3.html#sort_order). */
const NOTHING = Buffer.alloc(0);

/** An index of the rows of a view in its order: what it is called, and how it is made. */
export interface ViewIndex {
  readonly name: string;
  readonly make: string;
  /** The ids of the registers whose requests it is of. */
  readonly registers: readonly string[];
}

/** What stands in an index for a key: what is nothing stands last, whichever way the others go. */
export const heldBy = ({ read, down, isHeld }: OrderKey): SQL => (down || isHeld ? read : sql`ifnull(${read}, x'')`);

/** The same as it is put in order by. */
export const orderedBy = (key: OrderKey): SQL => (key.down ? sql`${heldBy(key)} desc` : heldBy(key));

/** Columns that say who works on a request, so that whoever works on little goes through the index alone. */
const WORKED = [requests.registerId, requests.team, requests.handlerId, requests.deciders] as const;

/**
 * The index that a look would be found by, whether it is there or not: of the rows that are so whoever looks, in the order
 * of the view, with what its columns add up. Null where there can be none: its order is another for others, or goes by
 * what stands elsewhere.
 */
export function indexOf(look: ViewLook, { lasting }: Pick<Meant, 'lasting'>): ViewIndex | null {
  const { view } = look;
  const ordered = [...view.groups, ...view.orders.map(({ of }) => of)];
  if (!lasting || !ordered.every((subject) => look.isOpen(subject))) return null;
  const sums = view.columns.flatMap(({ of }) => (canSum(of, look.given.fields) && look.isOpen(of) ? [of] : []));
  const texts = [
    ...ordersOf(look).orders.map((key) => textOf(orderedBy(key))),
    ...sums.map((of) => textOf(look.subject(of)?.is ?? sql`null`)),
    ...WORKED.map((column) => textOf(sql`${column}`)),
  ];
  const where = textOf(lasting);
  if (where === null || texts.includes(null)) return null;
  const columns = [...new Set(texts)].map((text) => inIndex(text ?? '', 'requests'));
  const of = `"requests" (${columns.join(', ')}) where ${inIndex(where, 'requests')}`;
  const name = `${VIEW_INDEX}${createHash('sha256').update(`${MADE_BY} ${of}`).digest('hex').slice(0, 20)}`;
  const make = textOf(sql`create index if not exists ${sql.identifier(name)} on ${sql.raw(of)}`) ?? '';
  return { name, make, registers: look.given.registers.map(({ id }) => id) };
}

const named = prepared((db) =>
  db
    .select({ name: sql<string>`name` })
    .from(sql`sqlite_schema`)
    .where(sql`type = 'index' and name = ${sql.placeholder('name')}`)
    .prepare(),
);

/** Whether an index is there. */
export const isThere = (look: Pick<ViewLook, 'db'>, { name }: ViewIndex): boolean =>
  named(look.db).get({ name }) !== undefined;

/** The requests, found by an index where there is one. */
export const requestsBy = (index: ViewIndex | null): SQL =>
  index ? sql`${requests} indexed by ${sql.identifier(index.name)}` : sql`${requests}`;

/** What groups rows, as it stands in an index: what puts a group in its place, then what it is. */
export const groupsIn = (look: ViewLook): readonly OrderKey[] => {
  const { orders, groupAt } = ordersOf(look);
  return orders.slice(0, groupAt.length * 2);
};

/** The key that stands in a row of an index. */
export const keyIn = (held: Key | Buffer | undefined): Key =>
  held === undefined || Buffer.isBuffer(held) ? null : held;

const isKey = (key: OrderKey, value: Key): SQL =>
  key.down && value === null ? sql`${key.read} is null` : sql`${heldBy(key)} = ${value ?? NOTHING}`;

/** What comes after a value by one key alone, in one stretch of the index or two. */
function beyondKey(key: OrderKey, value: Key): readonly SQL[] {
  if (!key.down) return value === null ? [] : [sql`${heldBy(key)} > ${value}`];
  return value === null ? [] : [sql`${key.read} < ${value}`, sql`${key.read} is null`];
}

/**
 * A page as `keyedPage` finds it, by an index: what comes after a row is the stretch that is alike by all keys but the
 * last, then by all but the last two, and so on, each found where it begins.
 */
export function indexedPage(
  look: ViewLook,
  { where }: Pick<Meant, 'where'>,
  index: ViewIndex,
  { after, most }: { readonly after?: string | undefined; readonly most: number },
): ViewPage {
  const { orders, groupAt } = ordersOf(look);
  const reads = sql.join(
    orders.map((key, place) => sql`${heldBy(key)} as ${keyAt(place)}`),
    sql`, `,
  );
  // What is alike in a stretch puts nothing in order there: named all the same, it would have SQLite sort what it finds in order.
  const orderFrom = (depth: number): SQL => sql.join(orders.slice(depth).map(orderedBy), sql`, `);
  const found: (readonly Key[])[] = [];
  const from = after === undefined ? null : placeIn(after, orders.length);
  const stretches: readonly { readonly only: SQL; readonly depth: number }[] = from
    ? orders
        .map((key, depth) => {
          const alike = orders.slice(0, depth).map((each, place) => isKey(each, from[place] ?? null));
          return beyondKey(key, from[depth] ?? null).map((each) => ({
            only: sql.join([...alike, each], sql` and `),
            depth,
          }));
        })
        .toReversed()
        .flat()
    : [{ only: sql`1`, depth: 0 }];
  for (const { only, depth } of stretches) {
    const rows = look.db.all<Record<string, Key | Buffer>>(
      sql`select ${reads} from ${requestsBy(index)} where ${where} and ${only} order by ${orderFrom(depth)} limit ${most + 1 - found.length}`,
    );
    for (const row of rows) found.push(orders.map((_, place) => keyIn(row[`k${place}`])));
    if (found.length > most) break;
  }
  const page = found.slice(0, most);
  return { page, next: found.length > most ? placeOf(page.at(-1)) : null, groupAt };
}
