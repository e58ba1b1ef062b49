import { existsSync, readdirSync, renameSync, rmSync, statfsSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { said } from '@tolvek/words';
import Sqlite from 'better-sqlite3';
import { CannotStart } from '../cannotStart.ts';
import { allMigrations, type Migration } from './migrations.ts';

/** Thrown when a data folder can’t be brought up to date as it is. */
export class CannotUpgrade extends CannotStart {}

export interface UpgradeOptions {
  readonly migrations?: readonly Migration[];
  /** Bytes that are free where a folder lies. */
  readonly free?: (folder: string) => number;
  /** Told before each step, by its name. */
  readonly onStep?: (name: string) => void;
  /** How long to wait for another program that holds the database, ms. */
  readonly patience?: number;
}

/** How often the database has to fit into what is free: its copy, and what is written anew. */
const ROOM = 2.5;

const freeIn = (folder: string): number => {
  const { bavail, bsize } = statfsSync(folder);
  return Number(bavail) * Number(bsize);
};

/** How many migrations a database has been through; 0 for one that is empty. */
export function versionOf(db: Sqlite.Database): number {
  const version = Number(db.pragma('user_version', { simple: true }));
  if (version > 0) return version;
  // Before versions were written down, only what was done was.
  const has = db.prepare("select 1 from sqlite_master where name = '__drizzle_migrations'").get();
  return has ? Number(db.prepare('select count(*) from __drizzle_migrations').pluck().get()) : 0;
}

/** Tells whether the database of a folder has to be brought up to date before it is worked with. */
export function isBehind(folder: string, { migrations = allMigrations(), patience = 0 }: UpgradeOptions = {}): boolean {
  const path = join(folder, 'tolvek.sqlite');
  if (!existsSync(path)) return false;
  const db = new Sqlite(path, { timeout: patience });
  try {
    const version = versionOf(db);
    return version > 0 && version < migrations.length;
  } finally {
    db.close();
  }
}

/**
 * Brings the tables of a folder up to date, all in one commit: killed at any moment, it begins
 * anew at the next start and ends the same. What was there is copied first, beside it, named by the
 * version it has.
 *
 * Rows that refer to a table that is rebuilt would be emptied with it while foreign keys are held,
 * and inside a transaction they can’t be let go of (https://sqlite.org/lang_altertable.html#otheralter):
 * they are let go of before it, and looked through before it ends.
 *
 * @throws CannotUpgrade for data of a newer release, a disk without room, and rows that would be
 *   left pointing to nothing.
 */
export function upgrade(folder: string, options: UpgradeOptions = {}): void {
  const { migrations = allMigrations(), free = freeIn, onStep = () => undefined, patience = 0 } = options;
  const path = join(folder, 'tolvek.sqlite');
  const db = new Sqlite(path, { timeout: patience });
  try {
    const version = versionOf(db);
    if (version > migrations.length)
      throw new CannotUpgrade(said('commands:newerRelease', { folder, version, known: migrations.length }));
    if (version === migrations.length && Number(db.pragma('user_version', { simple: true })) === version) return;
    db.pragma('journal_mode = WAL');
    db.pragma('synchronous = FULL');
    const todo = migrations.slice(version);
    if (version > 0 && todo.length > 0) {
      const wanted = statSync(path).size * ROOM;
      const room = free(folder);
      if (room < wanted) throw new CannotUpgrade(said('commands:noRoom', { folder, wanted, room }));
      dropViewIndexes(db);
      // Nothing is copied for nothing while another program holds the database.
      db.exec('BEGIN IMMEDIATE; ROLLBACK');
      onStep('copy');
      copy(db, folder, version);
    }
    db.pragma('foreign_keys = OFF');
    db.exec('BEGIN IMMEDIATE');
    try {
      db.exec(
        'create table if not exists __drizzle_migrations (id integer primary key autoincrement, hash text not null, created_at numeric)',
      );
      for (const { name, statements, step, hash, when } of todo) {
        onStep(name);
        for (const statement of statements) db.exec(statement);
        step?.(db);
        db.prepare('insert into __drizzle_migrations (hash, created_at) values (?, ?)').run(hash, when);
      }
      if (version > 0 && todo.length > 0) {
        onStep('check');
        check(db, folder);
      }
      db.pragma(`user_version = ${migrations.length}`);
      onStep('commit');
      db.exec('COMMIT');
    } catch (error) {
      if (db.inTransaction) db.exec('ROLLBACK');
      throw error;
    }
    onStep('done');
  } finally {
    db.close();
  }
}

/** Indexes of views go by functions that only the application has; it makes them anew where they are looked by. */
function dropViewIndexes(db: Sqlite.Database): void {
  const names = db.prepare("select name from sqlite_schema where type = 'index' and name glob 'view_*'").pluck().all();
  for (const name of names) db.exec(`drop index "${name}"`);
}

const COPY = /^tolvek-version-\d+\.sqlite(-part)?$/;

/** The whole database as it is, in one file; an older copy gives way to it. */
function copy(db: Sqlite.Database, folder: string, version: number): void {
  const name = `tolvek-version-${version}.sqlite`;
  const part = join(folder, `${name}-part`);
  rmSync(part, { force: true });
  db.prepare('VACUUM INTO ?').run(part);
  renameSync(part, join(folder, name));
  for (const each of readdirSync(folder)) if (COPY.test(each) && each !== name) rmSync(join(folder, each));
}

function check(db: Sqlite.Database, folder: string): void {
  const loose = db.pragma('foreign_key_check') as readonly { table: string; parent: string }[];
  const broken = (db.pragma('integrity_check') as readonly { integrity_check: string }[]).filter(
    (each) => each.integrity_check !== 'ok',
  );
  if (loose.length === 0 && broken.length === 0) return;
  const [first] = loose;
  const reason = first
    ? said('commands:looseRows', { count: loose.length, table: first.table, parent: first.parent })
    : (broken[0]?.integrity_check ?? '');
  throw new CannotUpgrade(said('commands:updateFailed', { folder, reason }));
}
