import type { FormDesign } from '@tolvek/core/form';
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { designText } from '../platform/designText.ts';

export const forms = sqliteTable('forms', {
  id: text().primaryKey(),
  key: text().notNull().unique(),
  registerId: text().notNull(),
  draft: designText<FormDesign>().notNull(),
  version: integer().notNull().default(1),
  /** The release in force; 0 when there is none yet. */
  release: integer().notNull().default(0),
});

/** Frozen states of a form: rows are only ever added. */
export const releases = sqliteTable(
  'releases',
  {
    id: text().primaryKey(),
    formId: text()
      .notNull()
      .references(() => forms.id),
    number: integer().notNull(),
    design: designText<FormDesign>().notNull(),
    note: text().notNull(),
    releasedBy: text().notNull(),
    releasedAt: integer().notNull(),
  },
  (table) => [uniqueIndex('releases_number').on(table.formId, table.number)],
);

/** What drafts were: one state for each stretch of work by one person. */
export const draftStates = sqliteTable(
  'draft_states',
  {
    id: text().primaryKey(),
    formId: text()
      .notNull()
      .references(() => forms.id),
    draft: text({ mode: 'json' }).notNull().$type<FormDesign>(),
    version: integer().notNull(),
    changedBy: text().notNull(),
    /** Epoch ms of the last change of the stretch. */
    changedAt: integer().notNull(),
  },
  (table) => [index('draft_states_form').on(table.formId, table.changedAt)],
);
