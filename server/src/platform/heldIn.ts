import { type Field, type ItemColumn, storedForm } from '@tolvek/core/register';
import { type SQL, sql } from 'drizzle-orm';
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core';

/** What a field holds in a stored document, as what counts of it: a number or a text; null where it holds nothing. */
export function heldIn(document: SQL | SQLiteColumn, field: Pick<Field | ItemColumn, 'key' | 'type'>): SQL {
  const { part } = storedForm(field);
  return sql`json_extract(${document}, ${`$."${field.key}"${part ? `.${part}` : ''}`})`;
}
