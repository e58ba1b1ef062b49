import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/**
 * What requests are found by stands in `found`, an FTS5 table without content of its own: a row for each place of each
 * request that holds something. Its number is that of the request and that of the place, the first being all of them together (`rowsFrom` in `keepWords.ts`). The words
 * there lead to requests that are read anew: nobody is told by the index alone. `found_words` (fts5vocab) has the words that stand there.
 */

/** Requests whose words have to be looked at anew. */
export const findDue = sqliteTable('find_due', { requestId: text().primaryKey() });

/** Requests that are found by their words, those that came later by higher numbers. */
export const findable = sqliteTable('findable', {
  n: integer().primaryKey({ autoIncrement: true }),
  requestId: text().notNull().unique(),
  /** Stands for its words: as long as it is the same, they are. */
  hash: text().notNull(),
});

/** Where words stand: keys of fields and of columns of lines, whatever register they are in, and places that every request has. */
export const findPlaces = sqliteTable('find_places', {
  id: integer().primaryKey(),
  key: text().notNull().unique(),
});
