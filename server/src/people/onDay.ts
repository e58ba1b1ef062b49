import { dateAt } from '@tolvek/core/deadline';
import { type Access, type AuditLine, accessAt, type GroundChange } from '@tolvek/core/people';
import { desc, eq, gt, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { deskOf } from '../settings/queries.ts';
import { entryOf } from './entries.ts';
import { differingRegisters, grantsIn } from './given.ts';
import { groundHistory, groupEntries, people } from './tables.ts';

const accessNow = (db: Reader): Access => ({
  staff: new Map(
    db
      .select({ id: people.id, active: people.active })
      .from(people)
      .where(eq(people.kind, 'staff'))
      .all()
      .map(({ id, active }) => [id, active]),
  ),
  entries: db.select().from(groupEntries).all().map(entryOf),
  grants: grantsIn(db, null),
  registers: [...differingRegisters(db).values()],
});

const DAY = 86_400_000;

/** What people could do at the end of a day, by the clock of the desk, and what was set of that on the day and since, the newest first. */
export function accessOn(db: Reader, day: string) {
  const { zone } = deskOf(db);
  // Whatever the zone: a day before its date begins in UTC, it had not begun.
  const since = Date.parse(`${day}T00:00:00Z`) - DAY;
  const lines = db
    .select()
    .from(groundHistory)
    .where(gt(groundHistory.at, since))
    .orderBy(desc(groundHistory.at), desc(groundHistory.id))
    .all()
    // What was set of the desk itself settles nobody’s rights.
    .flatMap(({ about, ...line }) =>
      about === 'desk' ? [] : [{ ...line, about, change: line.change as GroundChange }],
    );
  const later = lines.filter(({ at }) => dateAt(at, zone) > day);
  return { access: accessAt(accessNow(db), later satisfies readonly AuditLine[], 0), lines };
}

/** The moment since which it is written down who is in which group and may do what, epoch ms; null where nothing is yet. */
export const writtenSince = (db: Reader): number | null =>
  db
    .select({ at: sql<number | null>`min(${groundHistory.at})` })
    .from(groundHistory)
    .get()?.at ?? null;
