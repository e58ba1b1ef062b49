import { type Column, getTableName, inArray, type SQL, sql } from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Reader, Transaction } from '../platform/database.ts';
import type { Bytes, Laid, LaidRow } from './laid.ts';
import { followers, history, mergedRequests, requests, ruleRunChanges, ruleRuns, shares } from './tables.ts';

/** What of a table goes with a request that is deleted, and comes back with it. */
export interface LaidPart {
  readonly table: SQLiteTable;
  /** The rows that are of some requests. */
  readonly of: (ids: readonly string[]) => SQL | undefined;
  /** A row as it comes back at a moment (epoch ms): nothing rings or goes out for what was missed. Null: it does not. */
  readonly back?: (row: LaidRow, now: number, db: Reader) => LaidRow | null;
  /** The column that was emptied, where the row itself stayed. */
  readonly column?: string;
}

/** Rows that name a request in a column. */
export const byRequest = (column: Column) => (ids: readonly string[]) => inArray(column, [...ids]);

/** A row with what waits for a moment that is over as something else. */
export const missed =
  (isMissed: (row: LaidRow, now: number) => boolean, instead: LaidRow): NonNullable<LaidPart['back']> =>
  (row, now) =>
    isMissed(row, now) ? { ...row, ...instead } : row;

export const isBefore = (row: LaidRow, column: string, now: number): boolean =>
  typeof row[column] === 'number' && row[column] <= now;

/** Whether a table has a row of an id. */
export const isThere = (db: Reader, table: SQLiteTable, id: LaidRow[string] | undefined): boolean =>
  typeof id === 'string' && db.get(sql`select 1 from ${table} where id = ${id}`) !== undefined;

/** What it claims, points to and is read by is found out anew. */
const OWN: readonly LaidPart[] = [
  { table: requests, of: byRequest(requests.id) },
  ...[history, shares, followers].map((table): LaidPart => ({ table, of: byRequest(table.requestId) })),
  { table: mergedRequests, of: byRequest(mergedRequests.requestId) },
  // A run that is not kept any more can’t be taken back.
  {
    table: ruleRunChanges,
    of: byRequest(ruleRunChanges.requestId),
    back: (row, _now, db) => (isThere(db, ruleRuns, row.run_id) ? row : null),
  },
];

let parts: readonly LaidPart[] = OWN;

/** Says what of areas above goes with requests and comes back, in the order in which it can: whoever knows all areas, once. */
export function laidBy(above: readonly LaidPart[]): void {
  parts = [...OWN, ...above];
}

const isBytes = (value: unknown): value is Bytes => typeof value === 'object' && value !== null && 'base64' in value;

/** Everything there is of a request, or what some parts have of it. */
export const laidOf = (db: Reader, id: string, some: readonly LaidPart[] = parts): Laid =>
  Object.fromEntries(
    some.map(({ table, of, column }) => [
      column === undefined ? getTableName(table) : `${getTableName(table)}.${column}`,
      db
        .all<Record<string, string | number | null | Uint8Array>>(sql`select * from ${table} where ${of([id])}`)
        .map(
          (row): LaidRow =>
            Object.fromEntries(
              Object.entries(row).map(([name, value]) => [
                name,
                value instanceof Uint8Array ? { base64: Buffer.from(value).toString('base64') } : value,
              ]),
            ),
        ),
    ]),
  );

/** The columns that a table has by now. */
const columnsOf = (db: Reader, table: string): ReadonlySet<string> =>
  new Set(db.all<{ readonly name: string }>(sql`select name from pragma_table_info(${table})`).map(({ name }) => name));

/**
 * Puts back what there was of a request. What a later release has no column for is left out; what is there already stays.
 *
 * @throws SqliteError where something is gone that it needs (`SQLITE_CONSTRAINT_FOREIGNKEY`).
 */
export function putBackRows(tx: Transaction, laid: Laid, now: number, some: readonly LaidPart[] = parts): void {
  for (const { table, back, column } of some) {
    const name = getTableName(table);
    if (column !== undefined) {
      for (const row of laid[`${name}.${column}`] ?? [])
        tx.run(sql`update ${table} set ${sql.identifier(column)} = ${row[column]} where id = ${row.id}`);
      continue;
    }
    const known = columnsOf(tx, name);
    for (const was of laid[name] ?? []) {
      const row = back ? back(was, now, tx) : was;
      if (row === null) continue;
      const columns = Object.keys(row).filter((each) => known.has(each));
      const values = columns.map((each) => {
        const value = row[each];
        return sql`${isBytes(value) ? Buffer.from(value.base64, 'base64') : (value ?? null)}`;
      });
      const names = columns.map((each) => sql.identifier(each));
      tx.run(
        sql`insert into ${table} (${sql.join(names, sql`, `)}) values (${sql.join(values, sql`, `)}) on conflict do nothing`,
      );
    }
  }
}
