import type { WorkingCalendar } from '@tolvek/core/deadline';
import { sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { designText } from '../platform/designText.ts';

export const calendars = sqliteTable('calendars', {
  key: text().primaryKey(),
  calendar: designText<WorkingCalendar>().notNull(),
});
