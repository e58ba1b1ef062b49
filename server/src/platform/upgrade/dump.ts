import { join } from 'node:path';
import Sqlite from 'better-sqlite3';

/** Everything in the database of a folder, its version, tables and rows: for tests that compare two. */
export function dump(folder: string): string {
  const db = new Sqlite(join(folder, 'tolvek.sqlite'));
  const tables = db.prepare("select name, sql from sqlite_master where type = 'table' order by name").all() as {
    name: string;
    sql: string;
  }[];
  const rows = tables.map(({ name, sql }) => [name, sql, db.prepare(`select * from "${name}"`).raw().all()]);
  const version = db.pragma('user_version', { simple: true });
  db.close();
  return JSON.stringify([version, rows]);
}
