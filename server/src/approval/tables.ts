import type { TimeLimit } from '@tolvek/core/approval';
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
    /** The stage it was at before, to which it goes back when it is approved; null for the first. */
    fromStage: text(),
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
    /** More against than so many refuse it at once; null where that counts for nothing. */
    against: integer(),
    /** Who decides in place of somebody who can’t, in order, as words. */
    instead: text({ mode: 'json' }).$type<readonly string[]>(),
    /** Until when it is decided, as planned; null: however long it takes. */
    limit: text({ mode: 'json' }).$type<TimeLimit>(),
    /** When it is over; null while it is ahead, stands still or has no end. Epoch ms. */
    dueAt: integer(),
    /** When somebody is reminded next, or silence means something; null when nothing rings any more. Epoch ms. */
    ringAt: integer(),
    /** Since when nobody can decide at it who could bring it to an end; null while somebody can. Epoch ms. */
    nobodySince: integer(),
    /** Working time that was left when it was returned for more, ms. */
    left: integer(),
    /** What came of silence; null where those who were asked decided. */
    silently: text({ enum: ['approved', 'refused'] }),
  },
  (table) => [
    index('approval_steps_round').on(table.roundId, table.place),
    index('approval_steps_ring').on(table.ringAt).where(sql`ring_at is not null`),
    index('approval_steps_nobody').on(table.nobodySince).where(sql`nobody_since is not null`),
  ],
);

/** What was in view of somebody who decided: no values, for these are shown by the access plan in force. */
export interface SeatRead {
  readonly version: number;
  readonly fields: readonly string[];
}

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
    /** Who decides, as one word: the key of a group whose members do, or `@` and the id of one person; `!` where nobody can. */
    holder: text().notNull(),
    /** Who was planned to, as one word of a plan, and who did before it went to somebody else; null where that is not kept. */
    planned: text(),
    insteadOf: text(),
    state: text({ enum: ['ahead', 'open', 'approved', 'refused', 'closed'] }).notNull(),
    decidedBy: text(),
    decidedAt: integer(),
    /** Where it was decided; null for what was decided before that was kept. */
    way: text({ enum: ['desk', 'link'] }),
    /** Stands for what was in view of whoever decided. */
    seen: text(),
    /** What that was: of which version of the request, and the keys of the fields; null for what was decided before that was kept. */
    read: text({ mode: 'json' }).$type<SeatRead>(),
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
