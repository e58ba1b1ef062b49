import type { WorkingCalendar } from '@tolvek/core/deadline';
import { eq, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { calendars } from './tables.ts';

const byKey = prepared((db) =>
  db
    .select({ calendar: calendars.calendar })
    .from(calendars)
    .where(eq(calendars.key, sql.placeholder('key')))
    .prepare(),
);

export function calendarOf(db: Reader, key: string): WorkingCalendar {
  const found = byKey(db).get({ key });
  if (!found) throw new Error(`No working calendar “${key}”.`);
  return found.calendar;
}

export const calendarNames = (db: Reader): { key: string; name: string }[] =>
  db
    .select({ key: calendars.key })
    .from(calendars)
    .all()
    .map(({ key }) => ({ key, name: calendarOf(db, key).name }));
