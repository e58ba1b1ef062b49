import type { Term } from '@tolvek/core/register';
import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Lists of terms that many forms use. */
export const vocabularies = sqliteTable('vocabularies', {
  key: text().primaryKey(),
  name: text().notNull(),
  terms: text({ mode: 'json' }).notNull().$type<readonly Term[]>(),
  version: integer().notNull().default(1),
});
