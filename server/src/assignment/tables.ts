import { integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { people } from '../people/tables.ts';

/** When a rule gave somebody a request of a team last. */
export const handlerTurns = sqliteTable(
  'handler_turns',
  {
    team: text().notNull(),
    personId: text()
      .notNull()
      .references(() => people.id),
    /** Epoch ms. */
    at: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.team, table.personId] })],
);
