import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { requests } from '../request/tables.ts';

export const approvals = sqliteTable(
  'approvals',
  {
    id: text().primaryKey(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    label: text().notNull(),
    group: text().notNull(),
    state: text({ enum: ['waiting', 'approved', 'refused', 'withdrawn'] }).notNull(),
    decidedBy: text(),
    decidedAt: integer(),
    comment: text(),
  },
  (table) => [index('approvals_request').on(table.requestId), index('approvals_waiting').on(table.state, table.group)],
);
