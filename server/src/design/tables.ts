import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { designText } from '../platform/designText.ts';

/** What coordinators set, of every kind: a draft, and the number of the state that is in force. */
export const designs = sqliteTable(
  'designs',
  {
    id: text().primaryKey(),
    kind: text().notNull(),
    /** Lasting, and one for each design of a kind. */
    key: text().notNull(),
    draft: designText<object>().notNull(),
    version: integer().notNull().default(1),
    /** The state in force; 0 when there is none yet. */
    number: integer().notNull().default(0),
  },
  (table) => [uniqueIndex('designs_key').on(table.kind, table.key)],
);

/**
 * States of designs that were in force, numbered: rows are only ever added. Below zero: a draft as
 * it was tried, taken away with what came of it.
 */
export const designStates = sqliteTable(
  'design_states',
  {
    id: text().primaryKey(),
    designId: text()
      .notNull()
      .references(() => designs.id),
    number: integer().notNull(),
    content: designText<object>().notNull(),
    /** Why, in the words of whoever did it. */
    note: text().notNull(),
    by: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [uniqueIndex('design_states_number').on(table.designId, table.number)],
);

/** What drafts were: one state for each stretch of work by one person. */
export const draftStates = sqliteTable(
  'draft_states',
  {
    id: text().primaryKey(),
    designId: text()
      .notNull()
      .references(() => designs.id),
    draft: text({ mode: 'json' }).notNull().$type<object>(),
    version: integer().notNull(),
    changedBy: text().notNull(),
    /** Epoch ms of the last change of the stretch. */
    changedAt: integer().notNull(),
  },
  (table) => [index('draft_states_design').on(table.designId, table.changedAt)],
);
