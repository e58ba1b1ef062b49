import type { Resource } from '@tolvek/core/directory';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { groups, people } from '../people/tables.ts';
import { bearerColumns } from '../platform/bearers.ts';

/** What directories prove themselves by. The token itself is kept nowhere. */
export const directoryTokens = sqliteTable('directory_tokens', bearerColumns());

/** People whom a directory keeps in step, with what it says of them. */
export const directoryUsers = sqliteTable(
  'directory_users',
  {
    personId: text()
      .primaryKey()
      .references(() => people.id),
    /** In small letters. */
    userName: text().notNull().unique(),
    externalId: text(),
    /** What was sent, in the names of the schema. */
    resource: text({ mode: 'json' }).notNull().$type<Resource>(),
    /** What of it could not be read into fields of profiles: the keys of the fields and what was sent. */
    unread: text({ mode: 'json' }).notNull().$type<Readonly<Record<string, string>>>().default({}),
    /** Epoch ms. */
    createdAt: integer().notNull(),
    changedAt: integer().notNull(),
  },
  (table) => [index('directory_users_external').on(table.externalId)],
);

/** Groups that a directory keeps in step. */
export const directoryGroups = sqliteTable(
  'directory_groups',
  {
    groupKey: text()
      .primaryKey()
      .references(() => groups.key),
    externalId: text(),
    /** Epoch ms. */
    createdAt: integer().notNull(),
    changedAt: integer().notNull(),
  },
  (table) => [index('directory_groups_external').on(table.externalId)],
);
