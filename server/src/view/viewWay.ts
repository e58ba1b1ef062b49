import { type SQL, sql } from 'drizzle-orm';
import { requests, tallies } from '../request/tables.ts';
import { indexedPage, indexOf, isThere, requestsBy, type ViewIndex } from './viewIndex.ts';
import type { Meant, ViewLook } from './viewLook.ts';
import { idsInOrder } from './viewOrder.ts';
import { idsNear, readsMost, workedBy } from './workedBy.ts';

/** Rows that a shape puts together on the thread that answers; of more it is said that they are more. */
const COUNTED = 20_000;
/** Of whoever works on no more than so many, all that is theirs is looked at: where there is an index, and where there is none. */
const FEW = { besideIndex: 300, alone: 2_000 };

/** How many requests are meant, counted up to so many. */
export function countedOf(
  look: ViewLook,
  where: SQL | undefined,
  { most = COUNTED, from = sql`${requests}` }: { readonly most?: number | undefined; readonly from?: SQL } = {},
): { readonly total: number; readonly more: boolean } {
  const { n } = look.db.get<{ readonly n: number }>(
    sql`select count(*) as n from (select 1 from ${from} where ${where} limit ${most + 1})`,
  );
  return { total: Math.min(n, most), more: n > most };
}

/**
 * The same as far as one comes along an index in so many steps: where few of what stands there are meant, going along all of it takes
 * long.
 */
export function countedAlong(
  look: ViewLook,
  { from, lasting, beside }: Way,
  most: number,
): { readonly total: number; readonly more: boolean } {
  const { looked, n } = look.db.get<{ readonly looked: number; readonly n: number | null }>(
    sql`select count(*) as looked, sum(meant) as n from (select ${beside ?? sql`1`} as meant from ${from} where ${lasting} limit ${STEPS + 1})`,
  );
  const total = n ?? 0;
  return { total: Math.min(total, most), more: looked > STEPS || total > most };
}
/** Rows of an index that a page goes along to count what is meant. */
const STEPS = 5_000;

/** How the requests of a view are found. */
export interface Way extends Meant {
  readonly from: SQL;
  /** The index by which they are, where there is one; `wanted`: by which they could be. */
  readonly index: ViewIndex | null;
  readonly wanted: ViewIndex | null;
}

/** How many requests somebody works on, as the tallies have it. */
const worksOn = ({ db, looking }: ViewLook): number =>
  db
    .select({ n: sql<number>`coalesce(sum(${tallies.n}), 0)` })
    .from(tallies)
    .where(workedBy({ ...looking, along: undefined }, tallies))
    .get()?.n ?? 0;

/** The requests that somebody finds through a view, by the least of what is looked at for it. */
export function wayOf(look: ViewLook, among?: SQL): Way {
  const meant = look.meant(among);
  const wanted = indexOf(look, meant);
  const index = wanted && isThere(look, wanted) ? wanted : null;
  const isFew = !readsMost(look.viewer) && worksOn(look) <= (index ? FEW.besideIndex : FEW.alone);
  if (!isFew) return { ...meant, from: requestsBy(index), index, wanted };
  const near = idsNear({ ...look.looking, along: undefined }, undefined);
  const ids = JSON.stringify(
    look.db
      .all<{ readonly id: string }>(sql`select ${requests.id} as id from ${requests} where ${near}`)
      .map(({ id }) => id),
  );
  // Crossed, so that they are looked up one by one, and no other index is taken (https://sqlite.org/lang_select.html#crossjoin).
  const from = sql`json_each(${ids}) as near cross join ${requests} on ${requests.id} = near.value`;
  return { ...meant, from, index: null, wanted };
}

/** The ids of all that somebody finds through a view, in its order, so many at a time. `among`: only among these. */
export function* idsThrough(look: ViewLook, among: SQL | undefined, most: number): Generator<readonly string[]> {
  const way = wayOf(look, among);
  if (!way.index) {
    const ids = idsInOrder(look, way);
    for (let at = 0; at < ids.length; at += most) yield ids.slice(at, at + most);
    return;
  }
  for (let after: string | null | undefined; after !== null; ) {
    const { page, next } = indexedPage(look, way, way.index, { after, most });
    yield page.map((keys) => String(keys.at(-1)));
    after = next;
  }
}
