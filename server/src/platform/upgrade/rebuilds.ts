import { allMigrations, type Migration } from './migrations.ts';

/** The migrations up to an early release, whose tables never change any more. */
export const EARLY: readonly Migration[] = allMigrations().slice(0, 11);

/** What another release might have done after it, for tests: one rebuilds a table that others refer to. */
export const REBUILDS: readonly Migration[] = [
  ...EARLY,
  {
    name: 'rebuilt',
    when: 1,
    hash: 'rebuilt',
    statements: [
      "create table people_new (id text primary key not null, kind text not null, name text not null, email text not null unique, role text not null default 'member', active integer not null default 1, does text not null default '', language text not null default 'en')",
      'insert into people_new (id, kind, name, email, role, active, does) select id, kind, name, email, role, active, does from people',
      'drop table people',
      'alter table people_new rename to people',
    ],
    step: (db) => {
      for (const { id, name } of db.prepare('select id, name from people').all() as { id: string; name: string }[])
        db.prepare('update people set does = ? where id = ?').run(name.toUpperCase(), id);
    },
  },
  {
    name: 'column',
    when: 2,
    hash: 'column',
    statements: ['alter table registers add made_at integer not null default 7'],
  },
];
