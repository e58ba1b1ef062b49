import type { WorkingCalendar } from '@tolvek/core/deadline';
import { eq, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { calendars } from './tables.ts';

const kept = new Map<string, WorkingCalendar>();

/** The calendar as it is written: the text itself tells whether it is one that was met before. */
const written = prepared((db) =>
  db
    .select({ text: sql<string>`${calendars.calendar}` })
    .from(calendars)
    .where(eq(calendars.key, sql.placeholder('key')))
    .prepare(),
);

/**
 * A working calendar. The same content gives the same object, so that what core made ready for it
 * is used again.
 */
export function calendarOf(db: Reader, key: string): WorkingCalendar {
  const text = written(db).get({ key })?.text;
  if (!text) throw new Error(`No working calendar “${key}”.`);
  let found = kept.get(text);
  if (!found) kept.set(text, (found = JSON.parse(text) as WorkingCalendar));
  return found;
}

export const calendarNames = (db: Reader): { key: string; name: string }[] =>
  db
    .select({ key: calendars.key })
    .from(calendars)
    .all()
    .map(({ key }) => ({ key, name: calendarOf(db, key).name }));
