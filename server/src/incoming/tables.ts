import type { HeldWhy } from '@tolvek/core/incoming';
import { sql } from 'drizzle-orm';
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

/** Emails that came to the desk, and what became of them. */
export const incomingEmails = sqliteTable(
  'incoming_emails',
  {
    id: text().primaryKey(),
    /** By what its sender names it; of its content where they name it by nothing. A second copy is not taken. */
    messageId: text().notNull(),
    receivedAt: integer().notNull(),
    fromName: text().notNull(),
    /** In small letters. */
    fromAddress: text().notNull(),
    subject: text().notNull(),
    /** What is new in it; empty once it is part of a request. */
    text: text().notNull(),
    /** All that it says, with what it answers; empty once it is part of a request. */
    whole: text().notNull(),
    /** Names of files that could not be taken. */
    leftOut: text({ mode: 'json' }).notNull().$type<readonly string[]>(),
    /**
     * `taken`: it is part of a request, by itself or by somebody; `held`: somebody has to say what becomes of it; `aside`:
     * a program wrote it, or somebody laid it aside.
     */
    state: text({ enum: ['taken', 'held', 'aside'] }).notNull(),
    why: text().$type<HeldWhy>(),
    /** What it is part of, or seems to be about. */
    requestId: text(),
    /** Who said what becomes of it, and when; null where it went by itself. */
    settledBy: text(),
    settledAt: integer(),
  },
  (table) => [
    uniqueIndex('incoming_once').on(table.fromAddress, table.messageId),
    index('incoming_held').on(table.receivedAt).where(sql`state = 'held'`),
    index('incoming_state').on(table.state, table.receivedAt),
    index('incoming_request').on(table.requestId).where(sql`request_id is not null`),
  ],
);
