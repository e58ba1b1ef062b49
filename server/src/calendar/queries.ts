import { CALENDAR, type WorkingCalendar } from '@tolvek/core/deadline';
import { type DesignRow, designByKey, designsOf } from '../design/queries.ts';
import type { Reader } from '../platform/database.ts';

/** A working calendar as a design. It is in force at once, so that its draft is what counts. */
export const calendarByKey = (db: Reader, key: string): DesignRow<WorkingCalendar> | undefined =>
  designByKey(db, CALENDAR, key);

export function calendarOf(db: Reader, key: string): WorkingCalendar {
  const found = calendarByKey(db, key);
  if (!found) throw new Error(`No working calendar “${key}”.`);
  return found.draft;
}

/** What a calendar is called; its key when there is none any more. */
export const calendarNamed = (db: Reader, key: string): string => calendarByKey(db, key)?.draft.name ?? key;

/** All calendars, as they are in force. */
export const allCalendars = (db: Reader): WorkingCalendar[] =>
  designsOf<WorkingCalendar>(db, CALENDAR).map(({ draft }) => draft);

/** The calendars that are offered. */
export const calendarNames = (db: Reader): { key: string; name: string }[] =>
  designsOf(db, CALENDAR).flatMap(({ key, draft }) => (draft.retired ? [] : [{ key, name: draft.name }]));
