import type { ReportDesign } from '@tolvek/core/report';
import type { Words } from '@tolvek/words';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { packedJson } from '../notice/packed.ts';
import { people } from '../people/tables.ts';
import type { KeptPart } from './kept.ts';

/** Reports that are kept; what each tells is a design of the same id, with its id as key. */
export const reports = sqliteTable(
  'reports',
  {
    id: text().primaryKey(),
    ownerId: text()
      .notNull()
      .references(() => people.id),
    createdAt: integer().notNull(),
    /** When it was taken away: nobody finds it any more; null while it is there. */
    removedAt: integer(),
    /** Until when was looked whether a copy is to go out, epoch ms. */
    sentUntil: integer().notNull(),
  },
  (table) => [index('reports_owner').on(table.ownerId)],
);

const kept = packedJson<readonly KeptPart[]>();

/** What reports told of some days, as whoever froze it read it then. */
export const reportCopies = sqliteTable(
  'report_copies',
  {
    id: text().primaryKey(),
    reportId: text()
      .notNull()
      .references(() => reports.id),
    from: text().notNull(),
    to: text().notNull(),
    frozenAt: integer().notNull(),
    byId: text()
      .notNull()
      .references(() => people.id),
    /** The report as it was. */
    report: text({ mode: 'json' }).$type<ReportDesign>().notNull(),
    kept: kept().notNull(),
    /** To how many people it went. */
    sent: integer().notNull(),
    removedAt: integer(),
  },
  (table) => [index('report_copies_report').on(table.reportId, table.frozenAt)],
);

/** What was said of single requests in frozen tables: it goes with them. */
export const reportCopyRows = sqliteTable(
  'report_copy_rows',
  {
    copyId: text()
      .notNull()
      .references(() => reportCopies.id),
    part: integer().notNull(),
    place: integer().notNull(),
    requestId: text().notNull(),
    cells: text({ mode: 'json' }).$type<readonly Words[]>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.copyId, table.part, table.place] }),
    index('report_copy_rows_request').on(table.requestId),
  ],
);
