import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { people } from '../people/tables.ts';

/** Views that are kept; what each shows is a design of the same id, with its id as key. */
export const views = sqliteTable(
  'views',
  {
    id: text().primaryKey(),
    ownerId: text()
      .notNull()
      .references(() => people.id),
    createdAt: integer().notNull(),
    /** When it was taken away: nobody finds it any more; null while it is there. */
    removedAt: integer(),
  },
  (table) => [index('views_owner').on(table.ownerId)],
);

/** Indexes of requests that views are found by: when somebody last looked by one. What they are is in their names, and how they are made in the schema. */
export const viewIndexes = sqliteTable('view_indexes', {
  name: text().primaryKey(),
  usedAt: integer().notNull(),
});
