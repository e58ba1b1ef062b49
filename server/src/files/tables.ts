import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { forms } from '../form/tables.ts';

/**
 * Files that were sent along. Their bytes lie beside the database, by the hash of their content.
 */
export const uploads = sqliteTable(
  'uploads',
  {
    id: text().primaryKey(),
    formId: text()
      .notNull()
      .references(() => forms.id),
    /** The field they were sent for. */
    field: text().notNull(),
    name: text().notNull(),
    media: text().notNull(),
    bytes: integer().notNull(),
    sha256: text().notNull(),
    createdAt: integer().notNull(),
    /** The request that names it; null until one does. */
    requestId: text(),
    /**
     * Who sent it, as limits count: an address, or one of the staff. Empty in what was sent before.
     */
    fromWhere: text().notNull().default(''),
  },
  (table) => [
    index('uploads_request').on(table.requestId),
    index('uploads_hash').on(table.sha256),
    index('uploads_unclaimed').on(table.requestId, table.createdAt),
    index('uploads_from').on(table.fromWhere, table.requestId),
  ],
);

/**
 * Files that came with an email to the desk, until a request has them. Those of an email that is not kept (any more) are
 * taken away.
 */
export const emailFiles = sqliteTable(
  'email_files',
  {
    id: text().primaryKey(),
    emailId: text().notNull(),
    name: text().notNull(),
    media: text().notNull(),
    bytes: integer().notNull(),
    sha256: text().notNull(),
    createdAt: integer().notNull(),
  },
  (table) => [index('email_files_email').on(table.emailId), index('email_files_hash').on(table.sha256)],
);
