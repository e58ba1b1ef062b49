import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { bearerColumns } from '../platform/bearers.ts';

/** What programs prove themselves by. The key itself is kept nowhere. */
export const programKeys = sqliteTable(
  'program_keys',
  {
    ...bearerColumns(),
    /** Key of the program. */
    program: text().notNull(),
  },
  (table) => [index('program_keys_program').on(table.program, table.madeAt)],
);

/** Which of its secrets what a program is told is signed with; the secrets themselves are kept nowhere. */
export const programSecrets = sqliteTable('program_secrets', {
  /** Key of the program. */
  program: text().primaryKey(),
  /** The first is 1. */
  no: integer().notNull(),
  /** When it took the place of the one before, epoch ms. */
  renewedAt: integer().notNull(),
});

/** What the stand-in for other programs received; the Mailroom shows these. */
export const toldPrograms = sqliteTable(
  'told_programs',
  {
    id: text().primaryKey(),
    /** Epoch ms. */
    receivedAt: integer().notNull(),
    /** Where it was sent to. */
    path: text().notNull(),
    headers: text({ mode: 'json' }).notNull().$type<readonly { name: string; value: string }[]>(),
    body: text().notNull(),
    /** What was answered. */
    status: integer().notNull(),
  },
  (table) => [index('told_programs_received').on(table.receivedAt)],
);
