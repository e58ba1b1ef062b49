import Sqlite from 'better-sqlite3';
import { eq, gt, sql } from 'drizzle-orm';
import { type BetterSQLite3Database, drizzle } from 'drizzle-orm/better-sqlite3';
import { blob, integer, real, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { beforeAll, expect, it } from 'vitest';
import { runQuickly } from './rows.ts';

const boats = sqliteTable('boats', {
  id: text().primaryKey(),
  length: real(),
  isAfloat: integer({ mode: 'boolean' }),
  since: integer({ mode: 'timestamp_ms' }),
  gear: text({ mode: 'json' }).$type<readonly string[]>(),
  picture: blob({ mode: 'buffer' }),
});
const trips = sqliteTable('trips', { id: text().primaryKey(), boatId: text(), hours: integer() });

const client = new Sqlite(':memory:');
const asTheLibraryDoes = drizzle(client, { casing: 'snake_case' });
const quickly = drizzle(client, { casing: 'snake_case' });
runQuickly(quickly);

beforeAll(() => {
  client.exec(
    'create table boats (id text primary key, length real, is_afloat integer, since integer, gear text, picture blob); create table trips (id text primary key, boat_id text, hours integer)',
  );
  const [since, picture] = [new Date('2026-10-05T08:00:00Z'), Buffer.from([1, 2, 3])];
  quickly
    .insert(boats)
    .values([
      { id: 'tern', length: 9.5, isAfloat: true, since, gear: ['net', 'winch'], picture },
      { id: 'wren', length: null, isAfloat: null, since: null, gear: null, picture: null },
    ])
    .run();
  quickly
    .insert(trips)
    .values([
      { id: '1', boatId: 'tern', hours: 4 },
      { id: '2', boatId: null, hours: null },
    ])
    .run();
});

type Asked = (db: BetterSQLite3Database) => unknown;
const QUERIES: Record<string, Asked> = {
  'whole rows of each kind of column': (db) => db.select().from(boats).all(),
  'some columns under other names': (db) => db.select({ name: boats.id, has: boats.gear }).from(boats).all(),
  'what SQL gives, with a reader of its own and without': (db) =>
    db
      .select({
        n: sql<number>`count(*)`,
        read: sql<string>`max(length)`.mapWith((value) => `${value} m`),
        named: sql<number>`sum(is_afloat)`.as('afloat'),
      })
      .from(boats)
      .get(),
  'tables that are joined, each an object, empty where there is none': (db) =>
    db.select().from(trips).leftJoin(boats, eq(boats.id, trips.boatId)).all(),
  'columns of tables that are joined': (db) =>
    db.select({ trip: trips.id, since: boats.since }).from(trips).leftJoin(boats, eq(boats.id, trips.boatId)).get(),
  'a row that is not there': (db) => db.select().from(boats).where(eq(boats.id, 'none')).get(),
  'what is given under names': (db) =>
    db
      .select()
      .from(trips)
      .where(gt(trips.hours, sql.placeholder('hours')))
      .prepare()
      .all({ hours: 3 }),
  'a subquery': (db) => {
    const long = db.select({ id: boats.id, gear: boats.gear }).from(boats).as('long');
    return db.select({ gear: long.gear }).from(long).all();
  },
  'what is given under names, as its column stores it': (db) => {
    const insert = db
      .insert(boats)
      .values({ id: sql.placeholder('id'), isAfloat: sql.placeholder('is'), gear: sql.placeholder('gear') })
      .prepare();
    insert.run({ id: 'gull', is: true, gear: ['oars'] });
    const found = db.select().from(boats).where(eq(boats.id, 'gull')).get();
    return [found, db.delete(boats).where(eq(boats.id, 'gull')).run().changes];
  },
  'values alone': (db) => db.select({ id: trips.id, hours: trips.hours }).from(trips).values(),
  'what a change returns': (db) =>
    db.update(trips).set({ hours: 5 }).where(eq(trips.id, '1')).returning({ id: trips.id, hours: trips.hours }).get(),
};

it.each(Object.entries(QUERIES))('rows are read as the library reads them: %s', (_, asked) => {
  expect(asked(quickly)).toEqual(asked(asTheLibraryDoes));
});

it('a name that nothing is given for is told', () => {
  const query = quickly
    .select()
    .from(trips)
    .where(eq(trips.id, sql.placeholder('id')))
    .prepare();
  expect(() => query.get({})).toThrow('id');
});
