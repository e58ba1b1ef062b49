import { desc, eq, sql } from 'drizzle-orm';
import { type ReleaseRow, releaseInForce } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { doors } from './tables.ts';

const doorsInto = prepared((db) =>
  db
    .select()
    .from(doors)
    .where(eq(doors.formId, sql.placeholder('form')))
    .orderBy(desc(doors.kind))
    .prepare(),
);

export const doorsOf = (db: Reader, formId: string): readonly (typeof doors.$inferSelect)[] =>
  doorsInto(db).all({ form: formId });

export type DoorRow = typeof doors.$inferSelect;

export function doorBySlug(db: Reader, slug: string): { door: DoorRow; release: ReleaseRow } {
  const door = db.select().from(doors).where(eq(doors.slug, slug)).get();
  const release = door && releaseInForce(db, door.formId);
  if (!door || !release) throw notFound('This form');
  return { door, release };
}
