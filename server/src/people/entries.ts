import type { Entry } from '@tolvek/core/people';
import { isNotNull } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { groupEntries } from './tables.ts';

export type EntryRow = typeof groupEntries.$inferSelect;

/** A way into a group as core knows it. */
export const entryOf = ({ groupKey, personId, memberGroup, fromDay, untilDay }: EntryRow): Entry => ({
  group: groupKey,
  member: memberGroup === null ? { person: personId ?? '' } : { group: memberGroup },
  ...{ from: fromDay, until: untilDay },
});

/** The groups that are in groups, as they stand there. */
export const nestedRows = (db: Reader): readonly EntryRow[] =>
  db.select().from(groupEntries).where(isNotNull(groupEntries.memberGroup)).all();

/** The groups that are in groups, and how. */
export const nestedEntries = (db: Reader): readonly Entry[] => nestedRows(db).map(entryOf);
