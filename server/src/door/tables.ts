import type { RawAnswers } from '@tolvek/core/register';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { forms, releases } from '../form/tables.ts';

export const doors = sqliteTable('doors', {
  id: text().primaryKey(),
  formId: text()
    .notNull()
    .references(() => forms.id),
  slug: text().notNull().unique(),
  kind: text({ enum: ['staff', 'outside'] }).notNull(),
  open: integer({ mode: 'boolean' }).notNull(),
  opensAt: integer(),
  closesAt: integer(),
  closedMessage: text().notNull().default(''),
});

/** What came through an outside door and waits for its address to be confirmed. Not a request yet, in no tray. */
export const waitingSubmissions = sqliteTable(
  'waiting_submissions',
  {
    id: text().primaryKey(),
    doorId: text()
      .notNull()
      .references(() => doors.id),
    releaseId: text()
      .notNull()
      .references(() => releases.id),
    name: text().notNull(),
    email: text().notNull(),
    answers: text({ mode: 'json' }).notNull().$type<RawAnswers>(),
    createdAt: integer().notNull(),
    expiresAt: integer().notNull(),
  },
  (table) => [index('waiting_expires').on(table.expiresAt)],
);
