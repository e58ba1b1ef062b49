import { type SQL, sql } from 'drizzle-orm';
import { SQLiteSyncDialect } from 'drizzle-orm/sqlite-core';

const dialect = new SQLiteSyncDialect({ casing: 'snake_case' });

/** A part of a query as text with all its values in their places, as SQLite has to have what an index is of; null for one that no text can say. */
export function literal(part: SQL | undefined): SQL | null {
  const text = part && textOf(part);
  return text ? sql.raw(text) : null;
}

/** The same text; null where it can’t be the part of an index: there it would have to ask for other rows. */
export function textOf(part: SQL): string | null {
  const text = dialect.sqlToQuery(sql`${part}`.inlineParams()).sql;
  // SQLite reads a text up to its first NUL (https://sqlite.org/nulinstr.html).
  return text.includes('\0') || hasRows(text) ? null : text;
}

/** Parts of a text: those with an even place stand outside of quoted values. */
const partsOf = (text: string): readonly string[] => text.split(/('(?:[^']|'')*')/);
const hasRows = (text: string): boolean =>
  partsOf(text).some((part, place) => place % 2 === 0 && /\bselect\b/i.test(part));

/** A text about the columns of a table as an index of it says it: without the table (https://sqlite.org/lang_createindex.html). */
export const inIndex = (text: string, table: string): string =>
  partsOf(text)
    .map((part, place) => (place % 2 === 0 ? part.replaceAll(`"${table}".`, '') : part))
    .join('');
