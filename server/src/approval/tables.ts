import { sql } from 'drizzle-orm';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { requests } from '../request/tables.ts';

/** One time a request is decided on. It may be once more, when it comes round again. */
export const approvalRounds = sqliteTable(
  'approval_rounds',
  {
    id: text().primaryKey(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    state: text({ enum: ['open', 'approved', 'refused', 'withdrawn'] }).notNull(),
    openedAt: integer().notNull(),
    endedAt: integer(),
    /** Who withdrew it, and why; the verdicts are those of its seats. */
    endedBy: text(),
    why: text(),
  },
  (table) => [index('approval_rounds_request').on(table.requestId)],
);

/** The steps of a round, in turn, as its path planned them. */
export const approvalSteps = sqliteTable(
  'approval_steps',
  {
    id: text().primaryKey(),
    roundId: text()
      .notNull()
      .references(() => approvalRounds.id),
    place: integer().notNull(),
    /** Lasting name of the step in its path. */
    key: text().notNull(),
    label: text().notNull(),
    needed: integer().notNull(),
  },
  (table) => [index('approval_steps_round').on(table.roundId, table.place)],
);

/** Who is asked at a step, and what they said. */
export const seats = sqliteTable(
  'seats',
  {
    id: text().primaryKey(),
    stepId: text()
      .notNull()
      .references(() => approvalSteps.id),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    /** Who decides, as one word: the key of a group whose members do, or `@` and the id of one person. */
    holder: text().notNull(),
    state: text({ enum: ['ahead', 'open', 'approved', 'refused', 'closed'] }).notNull(),
    decidedBy: text(),
    decidedAt: integer(),
    /** Where it was decided; null for what was decided before that was kept. */
    way: text({ enum: ['desk', 'link'] }),
    /** Stands for what was in view of whoever decided. */
    seen: text(),
    comment: text(),
  },
  (table) => [
    index('seats_step').on(table.stepId),
    index('seats_request').on(table.requestId),
    index('seats_open').on(table.holder, table.requestId).where(sql`state = 'open'`),
    // Seats of persons, as their words begin: few, and asked for whoever looks at a list.
    index('seats_person').on(table.holder).where(sql`holder >= '@' and holder < 'A'`),
  ],
);
