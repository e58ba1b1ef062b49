import { sql } from 'drizzle-orm';
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { forms } from '../form/tables.ts';
import { people } from '../people/tables.ts';
import { requests } from '../request/tables.ts';

/** Mailings of forms; what each is set to is a design of the same id, with its id as key. */
export const mailings = sqliteTable(
  'mailings',
  {
    id: text().primaryKey(),
    formId: text()
      .notNull()
      .references(() => forms.id),
    /** The register, by key, whose requests it waits for to come to a stage; null where it does not. */
    awaits: text(),
    /** When it was removed: nothing goes out any more; what was answered stays. */
    removedAt: integer(),
  },
  (table) => [index('mailings_form').on(table.formId), index('mailings_awaits').on(table.awaits)],
);

/** The times a mailing goes out, or went. */
export const goings = sqliteTable(
  'goings',
  {
    id: text().primaryKey(),
    mailingId: text()
      .notNull()
      .references(() => mailings.id),
    /** Epoch ms, as all moments. */
    at: integer().notNull(),
    /** Who sent it; null: it went by itself. */
    by: text(),
    /** The request that came to a stage. */
    requestId: text().references(() => requests.id),
    /** The day on which the period began that it is about, ISO 8601. */
    period: text(),
    /** Whether it goes only to those who were not sent it before. */
    onlyNew: integer({ mode: 'boolean' }).notNull().default(false),
    /** `missed`: the desk stood still until another one was due as well. */
    state: text({ enum: ['waiting', 'done', 'dropped', 'missed'] }).notNull(),
    /** How many it could not be sent to. */
    notSent: integer().notNull().default(0),
  },
  (table) => [
    index('goings_waiting').on(table.at).where(sql`state = 'waiting'`),
    index('goings_mailing').on(table.mailingId, table.at),
    index('goings_request').on(table.requestId).where(sql`request_id is not null`),
  ],
);

/** A form that somebody has to fill in because it was sent to them. */
export const owedForms = sqliteTable(
  'owed_forms',
  {
    id: text().primaryKey(),
    mailingId: text()
      .notNull()
      .references(() => mailings.id),
    goingId: text()
      .notNull()
      .references(() => goings.id),
    personId: text()
      .notNull()
      .references(() => people.id),
    /** Whom, or which request, it is about. */
    aboutPersonId: text().references(() => people.id),
    aboutRequestId: text().references(() => requests.id),
    /** What it is about as one word, empty for nothing: so that nobody is asked twice by one going. */
    topic: text().notNull().default(''),
    /** The field that says so; null where it is about nothing. */
    field: text(),
    sentAt: integer().notNull(),
    due: integer(),
    /** When they are reminded next; null: not again. */
    remindAt: integer(),
    state: text({ enum: ['open', 'done', 'passed', 'ended'] }).notNull(),
    /** When it was answered, passed on or ended. */
    closedAt: integer(),
    /** The request that its answer became; null once that is deleted. */
    answerId: text().references(() => requests.id),
    /** Who passed it on to them. */
    passedBy: text().references(() => people.id),
  },
  (table) => [
    uniqueIndex('owed_once').on(table.goingId, table.personId, table.topic),
    index('owed_person').on(table.personId, table.state),
    index('owed_remind').on(table.remindAt).where(sql`state = 'open' and remind_at is not null`),
    index('owed_mailing').on(table.mailingId, table.state),
    index('owed_about').on(table.aboutRequestId).where(sql`about_request_id is not null`),
    index('owed_answer').on(table.answerId).where(sql`answer_id is not null`),
  ],
);
