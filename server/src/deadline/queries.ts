import type { WorkingCalendar } from '@tolvek/core/deadline';
import { eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { calendars } from './tables.ts';

const kept = new Map<string, WorkingCalendar>();

/** A working calendar. The same content gives the same object, so that what core made ready for it is used again. */
export function calendarOf(db: Reader, key: string): WorkingCalendar {
  const row = db.select().from(calendars).where(eq(calendars.key, key)).get();
  if (!row) throw new Error(`No working calendar “${key}”.`);
  const content = JSON.stringify(row.calendar);
  let found = kept.get(content);
  if (!found) kept.set(content, (found = row.calendar));
  return found;
}
