import type { Term } from '@tolvek/core/register';
import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { designText } from '../platform/designText.ts';

/** Lists of terms that many forms use. */
export const vocabularies = sqliteTable('vocabularies', {
  key: text().primaryKey(),
  name: text().notNull(),
  terms: designText<readonly Term[]>().notNull(),
  version: integer().notNull().default(1),
});
