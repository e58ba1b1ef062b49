import type { Pause } from '@tolvek/core/deadline';
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { requests } from '../request/tables.ts';

/** What a request is due by: one row for each promise. */
export const deadlines = sqliteTable(
  'deadlines',
  {
    id: text().primaryKey(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    /** Lasting name of the promise in its plan. */
    key: text().notNull(),
    /** Epoch ms. */
    start: integer().notNull(),
    due: integer().notNull(),
    /** Working time promised at the start, ms. */
    allowance: integer().notNull(),
    workingDays: integer().notNull(),
    counted: text({ enum: ['days', 'time', 'date'] })
      .notNull()
      .default('days'),
    pauses: text({ mode: 'json' }).notNull().$type<readonly Pause[]>(),
    /** `over`: its own end has come; `ended`: with the request. */
    state: text({ enum: ['open', 'over', 'ended'] }).notNull(),
    /** When it was over or ended, epoch ms; null while it is open, and for what ended before this was kept. */
    endedAt: integer(),
  },
  (table) => [uniqueIndex('deadlines_request').on(table.requestId, table.key)],
);

/** What is to happen at a moment. Done or dropped, a timer stays as a record. */
export const timers = sqliteTable(
  'timers',
  {
    id: text().primaryKey(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    /** The deadline it belongs to; null for one of before deadlines had rows of their own. */
    deadlineId: text().references(() => deadlines.id),
    /** Which ring of the deadline, by key. */
    ring: text('kind').notNull(),
    at: integer().notNull(),
    state: text({ enum: ['waiting', 'done', 'dropped'] }).notNull(),
  },
  (table) => [index('timers_waiting').on(table.state, table.at), index('timers_request').on(table.requestId)],
);
