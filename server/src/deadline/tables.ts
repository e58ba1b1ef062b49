import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { requests } from '../request/tables.ts';

/** What is to happen at a moment. Done or dropped, a timer stays as a record. */
export const timers = sqliteTable(
  'timers',
  {
    id: text().primaryKey(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    kind: text({ enum: ['reminder', 'escalation'] }).notNull(),
    at: integer().notNull(),
    state: text({ enum: ['waiting', 'done', 'dropped'] }).notNull(),
  },
  (table) => [index('timers_waiting').on(table.state, table.at), index('timers_request').on(table.requestId)],
);
