import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { designs } from '../design/tables.ts';

/** Which register a form fills; the form itself is a design of the same id. */
export const forms = sqliteTable('forms', {
  id: text()
    .primaryKey()
    .references(() => designs.id),
  registerId: text().notNull(),
  /** Epoch ms since when nobody can ask by it; null while it is in use. */
  stoppedAt: integer(),
  /** Epoch ms since when it is gone from the shelf; its requests stay. */
  deletedAt: integer(),
});
