import type { RawAnswers } from '@tolvek/core/register';
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { designStates } from '../design/tables.ts';
import { forms } from '../form/tables.ts';

/** Ways in to a form, none or several; what each is set to is a design of the same id, with its slug as key. */
export const doors = sqliteTable('doors', {
  id: text().primaryKey(),
  formId: text()
    .notNull()
    .references(() => forms.id),
  slug: text().notNull().unique(),
  /** As its proof says, for good: conditions about old requests know it. */
  kind: text({ enum: ['staff', 'outside'] }).notNull(),
  /** When it was removed: it leads nowhere any more; what came by it stays. */
  removedAt: integer(),
});

/**
 * What came through an outside door and waits for its address to be confirmed. Not a request yet,
 * in no tray.
 */
export const waitingSubmissions = sqliteTable(
  'waiting_submissions',
  {
    id: text().primaryKey(),
    doorId: text()
      .notNull()
      .references(() => doors.id),
    releaseId: text()
      .notNull()
      .references(() => designStates.id),
    name: text().notNull(),
    email: text().notNull(),
    answers: text({ mode: 'json' }).notNull().$type<RawAnswers>(),
    createdAt: integer().notNull(),
    expiresAt: integer().notNull(),
    /** What the form was read in. */
    language: text({ enum: ['en', 'de'] }),
    /** The link of whoever sent it, by which they see what became of it and correct the address. */
    sentLink: text(),
    /** The version of the text that its sender agreed to, where the door asks for that. */
    consent: integer(),
    /** Who was signed in and has to prove it once more. */
    personId: text(),
    /** The request that it is already, where only whose it is waits. */
    requestId: text(),
    /** What of theirs they mean, where the form changes what is there: its id, or `another`. */
    entry: text(),
  },
  (table) => [index('waiting_expires').on(table.expiresAt)],
);

/**
 * What somebody began to type at a door and has not sent: for one of the staff on any device, from
 * outside by a link. Nobody else reads it.
 */
export const keptAnswers = sqliteTable(
  'kept_answers',
  {
    id: text().primaryKey(),
    doorId: text()
      .notNull()
      .references(() => doors.id),
    /** One of the staff; null from outside. */
    personId: text(),
    /** From outside: where the link was sent. */
    email: text(),
    name: text().notNull().default(''),
    answers: text({ mode: 'json' }).notNull().$type<RawAnswers>(),
    /** From outside: what the form was read in. */
    language: text({ enum: ['en', 'de'] }),
    /** When it was typed, by the clock of the device, epoch ms: the newer of two devices counts. */
    typedAt: integer().notNull(),
    /** When it was first kept, by the clock of the desk: who was filling in when the door closed has some time left. */
    beganAt: integer(),
    expiresAt: integer().notNull(),
    /** The owed form it answers, by id; empty for none. */
    owed: text().notNull().default(''),
  },
  (table) => [
    uniqueIndex('kept_person').on(table.doorId, table.personId, table.owed),
    index('kept_expires').on(table.expiresAt),
  ],
);

/** Addresses that doors had before: they lead on to the door, or say that it has another one; none is given to another door. */
export const doorAddresses = sqliteTable(
  'door_addresses',
  {
    slug: text().primaryKey(),
    doorId: text()
      .notNull()
      .references(() => doors.id),
    leadsOn: integer({ mode: 'boolean' }).notNull(),
    endedAt: integer().notNull(),
  },
  (table) => [index('door_addresses_door').on(table.doorId)],
);

/** Work of devices that was handed in, by its signature: none of it counts twice. Kept as long as it would count. */
export const spentWork = sqliteTable(
  'spent_work',
  { signature: text().primaryKey(), expiresAt: integer().notNull() },
  (table) => [index('spent_work_expires').on(table.expiresAt)],
);

/** Who waits at a door for a place, the first who came first; whoever has sent, left or let their time go by stands here no longer. */
export const doorLines = sqliteTable(
  'door_lines',
  {
    id: text().primaryKey(),
    doorId: text()
      .notNull()
      .references(() => doors.id),
    /** Who is known; null from outside. */
    personId: text(),
    name: text().notNull(),
    /** In small letters. */
    email: text().notNull(),
    /** What they read. */
    language: text({ enum: ['en', 'de'] }),
    since: integer().notNull(),
    /** Until when a place is held for them, epoch ms; null while they wait for one. */
    heldUntil: integer(),
  },
  (table) => [
    uniqueIndex('door_lines_who').on(table.doorId, table.email),
    index('door_lines_since').on(table.doorId, table.since),
    index('door_lines_person').on(table.personId),
  ],
);
