import { type Column, getTableColumns, type SQL, sql } from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Reader, Transaction } from './database.ts';
import { prepared } from './prepared.ts';

/** What a prepared statement is given under a name, stored as its column stores it; nothing as NULL. */
export const given = (name: string, column: Column): SQL =>
  sql`${sql.param(sql.placeholder(name), {
    mapToDriverValue: (value: unknown) =>
      value === null || value === undefined ? null : column.mapToDriverValue(value),
  })}`;

/** All of some columns of a table as a prepared statement is given them, each under its name. */
export const givenAll = (columns: Readonly<Record<string, Column>>): Record<string, SQL> =>
  Object.fromEntries(Object.entries(columns).map(([name, column]) => [name, given(name, column)]));

/**
 * Adds rows to a table, each by one statement that is built and prepared once: for the tables that
 * nearly every write adds to. What a row leaves out is as the table has it when nothing is said.
 *
 * @example const addTimer = adding(timers);
 *          addTimer(tx, { id, requestId, kind, at, state: 'waiting' });
 */
export function adding<Rows extends SQLiteTable>(table: Rows): (tx: Transaction, row: Rows['$inferInsert']) => void {
  const columns = getTableColumns(table);
  const unsaid = Object.fromEntries(Object.entries(columns).map(([name, column]) => [name, column.default ?? null]));
  const values = givenAll(columns);
  const statement = prepared((db: Reader) =>
    db
      .insert(table)
      .values(values as Rows['$inferInsert'])
      .prepare(),
  );
  return (tx, row) => void statement(tx).run({ ...unsaid, ...row });
}
