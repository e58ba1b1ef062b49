import { type Column, eq, getTableColumns, type SQL, sql } from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Reader, Transaction } from './database.ts';
import { prepared } from './prepared.ts';

/** What a prepared statement is given under a name, stored as its column stores it; nothing as NULL. */
const given = (name: string, column: Column): SQL =>
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

/** Changes some columns of a row by its id, by one statement that is built and prepared once. */
export function changing<
  Rows extends SQLiteTable & { readonly id: Column },
  Name extends keyof Rows['$inferSelect'] & string,
>(
  table: Rows,
  names: readonly Name[],
): (tx: Transaction, row: { readonly id: string } & Readonly<Pick<Rows['$inferSelect'], Name>>) => void {
  const columns = getTableColumns(table) as Readonly<Record<string, Column>>;
  const changed = Object.fromEntries(names.map((name) => [name, columns[name] as Column]));
  const statement = prepared((db: Reader) =>
    db
      .update(table)
      .set(givenAll(changed) as Partial<Rows['$inferInsert']>)
      .where(eq(table.id, sql.placeholder('id')))
      .prepare(),
  );
  return (tx, row) => void statement(tx).run(row);
}
