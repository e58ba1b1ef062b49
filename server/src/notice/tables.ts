import { sql } from 'drizzle-orm';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Letters to be sent: written in the transaction that caused them, sent after it. */
export const outbox = sqliteTable(
  'outbox',
  {
    id: text().primaryKey(),
    requestId: text(),
    kind: text().notNull(),
    toName: text().notNull(),
    toAddress: text().notNull(),
    subject: text().notNull(),
    text: text().notNull(),
    html: text().notNull(),
    /** `sending`: handed to the mail server just now; what becomes of it is not known yet. */
    state: text({ enum: ['waiting', 'sending', 'sent', 'failed'] }).notNull(),
    attempts: integer().notNull().default(0),
    nextAttemptAt: integer().notNull(),
    lastError: text(),
    createdAt: integer().notNull(),
    sentAt: integer(),
  },
  (table) => [
    index('outbox_waiting').on(table.state, table.nextAttemptAt),
    index('outbox_unconfirmed').on(table.toAddress, table.createdAt).where(sql`kind in ('confirm', 'go-on')`),
    index('outbox_bodies').on(table.sentAt).where(sql`state = 'sent' and html <> ''`),
  ],
);

/** What the mail stand-in received; the Mailroom shows these. */
export const letters = sqliteTable(
  'letters',
  {
    id: text().primaryKey(),
    messageId: text().notNull().unique(),
    receivedAt: integer().notNull(),
    from: text().notNull(),
    to: text().notNull(),
    subject: text().notNull(),
    text: text().notNull(),
    html: text().notNull(),
    headers: text({ mode: 'json' }).notNull().$type<readonly { name: string; value: string }[]>(),
  },
  (table) => [index('letters_received').on(table.receivedAt)],
);
