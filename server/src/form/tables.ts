import { sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { designs } from '../design/tables.ts';

/** Which register a form fills; the form itself is a design of the same id. */
export const forms = sqliteTable('forms', {
  id: text()
    .primaryKey()
    .references(() => designs.id),
  registerId: text().notNull(),
});
