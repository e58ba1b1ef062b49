import { type Column, type SQL, sql } from 'drizzle-orm';
import type { Database, Reader } from './database.ts';

/**
 * A query that is built and prepared once per database, for the reads every request makes. A
 * transaction runs on the same connection as its database, so a query prepared for one serves the
 * other.
 *
 * @example const byId = prepared((db) => db.select().from(people).where(eq(people.id, sql.placeholder('id'))).prepare());
 *          byId(tx).get({ id });
 */
export function prepared<Query>(build: (db: Database) => Query): (db: Reader) => Query {
  const built = new WeakMap<object, Query>();
  return (db) => {
    const { session } = db as unknown as { readonly session: object };
    let query = built.get(session);
    if (!query) built.set(session, (query = build(db as Database)));
    return query;
  };
}

/** The same for queries that differ by a few words: each is built once, when it is first asked for. */
export function preparedEach<Words extends readonly string[], Query>(
  build: (...words: Words) => (db: Database) => Query,
): (...words: Words) => (db: Reader) => Query {
  const built = new Map<string, (db: Reader) => Query>();
  return (...words) => {
    const key = words.join(' ');
    let query = built.get(key);
    if (!query) built.set(key, (query = prepared(build(...words))));
    return query;
  };
}

/** Whether a column is one of those that a prepared query is given under a name: as text, by `listed`. */
export const isListed = (column: Column, name: string): SQL =>
  sql`${column} in (select value from json_each(${sql.placeholder(name)}))`;

/** Ids as a prepared query with `isListed` is given them. */
export const listed = (ids: readonly string[]): string => JSON.stringify([...new Set(ids)]);

/** Whether a column is one of some ids, however many. */
export const inList = (column: Column, ids: readonly string[]): SQL =>
  sql`${column} in (select value from json_each(${listed(ids)}))`;
