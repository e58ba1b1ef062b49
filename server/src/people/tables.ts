import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Staff and contacts in one table; staff sign in with the account of the same id. */
export const people = sqliteTable('people', {
  id: text().primaryKey(),
  kind: text({ enum: ['staff', 'contact'] }).notNull(),
  name: text().notNull(),
  /** In small letters. */
  email: text().notNull().unique(),
  role: text({ enum: ['administrator', 'coordinator', 'member'] })
    .notNull()
    .default('member'),
  active: integer({ mode: 'boolean' }).notNull().default(true),
  /** What they do at the station, shown where the demo offers them for sign-in. */
  does: text().notNull().default(''),
  /** What pages and emails are read in; null until it is known. */
  language: text({ enum: ['en', 'de'] }),
});

export const groups = sqliteTable('groups', {
  key: text().primaryKey(),
  name: text().notNull(),
  isTeam: integer({ mode: 'boolean' }).notNull().default(false),
});

export const memberships = sqliteTable(
  'memberships',
  {
    groupKey: text()
      .notNull()
      .references(() => groups.key),
    personId: text()
      .notNull()
      .references(() => people.id),
  },
  (table) => [
    primaryKey({ columns: [table.groupKey, table.personId] }),
    // Asked for at every call: which groups who calls belongs to.
    index('memberships_person').on(table.personId, table.groupKey),
  ],
);
