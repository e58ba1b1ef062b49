import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { sql } from 'drizzle-orm';
import { type BetterSQLite3Database, drizzle } from 'drizzle-orm/better-sqlite3';
import { runQuickly } from './rows.ts';
import { addFunctions } from './sqlFunctions.ts';
import { upgrade } from './upgrade/index.ts';

export type Database = BetterSQLite3Database & { $client: Sqlite.Database };
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];
/** Where reading is enough, either will do. */
export type Reader = Database | Transaction;

/**
 * Opens the database of a data folder and brings its tables up to date. A commit is on the disk
 * when it returns (`synchronous=FULL`): what was acknowledged survives a crash.
 */
export function openDatabase(folder: string): Database {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  upgrade(folder, { patience: BUSY_TIMEOUT });
  return connect(folder, BUSY_TIMEOUT);
}

/**
 * A connection to a database whose tables are there. `busyTimeout`: how long it may wait for a
 * lock, ms.
 */
export function connect(folder: string, busyTimeout: number, { readonly = false } = {}): Database {
  const client = new Sqlite(join(folder, 'tolvek.sqlite'), { readonly });
  if (!readonly) client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  client.pragma(`cache_size = -${CACHE}`);
  client.pragma('foreign_keys = ON');
  client.pragma(`busy_timeout = ${busyTimeout}`);
  keepStatements(client);
  addFunctions(client);
  client.function(NOW, { deterministic: false }, () => clocks.get(client)?.now() ?? Date.now());
  if (!readonly) countTurns(client);
  const db = drizzle(client, { casing: 'snake_case' });
  runQuickly(db);
  return db;
}

/** Tables that say who may see and do what, and when what is written in them does. */
const DECIDING = {
  ...{ memberships: '', grants: '', register_grants: '', registers_apart: '', stand_ins: '' },
  people:
    'when new.active is not old.active or new.merged_into is not old.merged_into or new.profile is not old.profile',
  designs: "when new.kind = 'register' and new.number is not old.number",
} as const;

/**
 * Counts on this connection how often something was written that says who may see and do what: whichever way it was
 * written, nobody has to remember to say so.
 */
function countTurns(client: Sqlite.Database): void {
  client.exec('create temp table access_turns (n integer not null); insert into access_turns values (0)');
  for (const [table, when] of Object.entries(DECIDING))
    for (const event of when === '' ? ['insert', 'update', 'delete'] : ['update'])
      client.exec(
        `create temp trigger access_turn_${table}_${event} after ${event} on main.${table} for each row ${when} begin update access_turns set n = n + 1; end`,
      );
}

/** How often it has become otherwise on a connection who may see and do what. */
export const accessTurns = (db: Reader): number =>
  db.get<{ readonly n: number }>(sql`select n from temp.access_turns`).n;

/** What a connection asks for the moment. */
const NOW = 'now_ms';
const clocks = new WeakMap<Sqlite.Database, { readonly now: () => number }>();

/** From now on it is for a connection the moment that a clock says. */
export const runsBy = ({ $client }: Database, clock: { readonly now: () => number }): void =>
  void clocks.set($client, clock);

/** The moment, epoch ms, by the clock that the data runs by. */
export const nowIn = (db: Reader): number => db.get<{ readonly now: number }>(sql`select now_ms() as now`).now;

/** Pages of the database that a connection keeps in memory at most, KB. */
const CACHE = 64 * 1024;

/**
 * How long a statement holds the thread that answers while another program has the database, ms.
 * Short: whoever waits longer for a lock waits off that thread (`patiently`).
 */
const BUSY_TIMEOUT = 50;

const KEPT_STATEMENTS = 500;

/**
 * Keeps compiled statements by their text, so that a query that is built again is not compiled
 * again. The oldest give way.
 */
function keepStatements(client: Sqlite.Database): void {
  const kept = new Map<string, Sqlite.Statement>();
  const prepare = client.prepare.bind(client);
  client.prepare = ((source: string) => {
    let statement = kept.get(source);
    if (!statement) {
      const oldest = kept.size >= KEPT_STATEMENTS ? kept.keys().next().value : undefined;
      if (oldest !== undefined) kept.delete(oldest);
      kept.set(source, (statement = prepare(source)));
    }
    return statement;
  }) as typeof client.prepare;
}
