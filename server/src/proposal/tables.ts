import type { RawAnswers } from '@tolvek/core/register';
import { sql } from 'drizzle-orm';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { designStates } from '../design/tables.ts';
import { doors } from '../door/tables.ts';
import { forms } from '../form/tables.ts';
import { people } from '../people/tables.ts';
import { requests } from '../request/tables.ts';

/** Changes of requests that somebody sent by a form and that count only once they are accepted. */
export const proposals = sqliteTable(
  'proposals',
  {
    id: text().primaryKey(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    /** The form they were sent with, as it was then. */
    formId: text()
      .notNull()
      .references(() => forms.id),
    releaseId: text()
      .notNull()
      .references(() => designStates.id),
    doorId: text()
      .notNull()
      .references(() => doors.id),
    personId: text()
      .notNull()
      .references(() => people.id),
    /** Whether it was sent to them to look at just that. */
    wasSent: integer({ mode: 'boolean' }).notNull(),
    /** What they said: a blank leaves, null takes away. */
    answers: text({ mode: 'json' }).notNull().$type<RawAnswers>(),
    /** Epoch ms, as all moments. */
    at: integer().notNull(),
    state: text({ enum: ['open', 'accepted', 'refused', 'ended'] }).notNull(),
    closedAt: integer(),
    /** Who accepted or refused it; null where whoever sent it took it back. */
    closedBy: text().references(() => people.id),
    reason: text(),
    /** The version of the text of the door that whoever sent it agreed to, and the language they read it in. */
    consent: integer(),
    consentIn: text({ enum: ['en', 'de'] }),
  },
  (table) => [
    index('proposals_request').on(table.requestId, table.at),
    index('proposals_person').on(table.personId).where(sql`state = 'open'`),
  ],
);
