import { and, asc, eq, ne, type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { SHOWN_COLUMNS, type ShownRow } from './queries.ts';
import { requests } from './tables.ts';

/** Requests that are read at once. */
const PAGE = 50;

/** The requests of a register that are counted: trials are not. */
export const countedIn = (registerId: string, among: 'unfinished' | 'all'): SQL | undefined =>
  and(
    eq(requests.registerId, registerId),
    eq(requests.trial, false),
    among === 'all' ? undefined : ne(requests.phase, 'finished'),
  );

/**
 * Requests one after the other, the oldest first, read a page at a time: however many there are,
 * none waits for all of them. What arrives meanwhile comes at the end.
 */
export function* eachRequest(db: Reader, condition: SQL | undefined): Generator<ShownRow> {
  let beyond: SQL | undefined;
  for (;;) {
    const page: ShownRow[] = db
      .select(SHOWN_COLUMNS)
      .from(requests)
      .where(and(condition, beyond))
      .orderBy(asc(requests.createdAt), asc(requests.id))
      .limit(PAGE)
      .all();
    yield* page;
    const last = page.at(-1);
    if (!last || page.length < PAGE) return;
    beyond = sql`(${requests.createdAt}, ${requests.id}) > (${last.createdAt}, ${last.id})`;
  }
}

/**
 * Requests that are counted by one read: even where each has to be unpacked for it, that takes far less than the two
 * seconds a read may last, and what was written meanwhile can be put in its place.
 */
const STRETCH = 20_000;

/** Conditions that part requests into stretches in the order they arrived: together they are all of them, each once. */
export function* stretchesOf(db: Reader, condition: SQL | undefined, size = STRETCH): Generator<SQL | undefined> {
  const place = sql`(${requests.createdAt}, ${requests.id})`;
  for (let from: SQL | undefined; ; ) {
    const end = db
      .select({ at: requests.createdAt, id: requests.id })
      .from(requests)
      .where(and(condition, from))
      .orderBy(asc(requests.createdAt), asc(requests.id))
      .limit(1)
      .offset(size)
      .get();
    yield and(condition, from, end && sql`${place} < (${end.at}, ${end.id})`);
    if (!end) return;
    from = sql`${place} >= (${end.at}, ${end.id})`;
  }
}
