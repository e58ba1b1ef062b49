import { and, desc, eq, isNull, type SQL, sql } from 'drizzle-orm';
import { type ReleaseRow, releaseInForce } from '../form/queries.ts';
import { forms } from '../form/tables.ts';
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
  const [found] = inUse(db, eq(doors.slug, slug));
  const release = found && releaseInForce(db, found.door.formId);
  if (!found || !release) throw notFound('This form');
  // A form that was stopped takes nothing in, whatever its doors say.
  return { door: { ...found.door, open: found.door.open && found.stoppedAt === null }, release };
}

/** Doors of forms that are on the shelf. */
const inUse = (db: Reader, which: SQL) =>
  db
    .select({ door: doors, stoppedAt: forms.stoppedAt })
    .from(doors)
    .innerJoin(forms, eq(forms.id, doors.formId))
    .where(and(which, isNull(forms.deletedAt)))
    .all();

/** The doors where somebody can ask: those of forms that are in use. */
export function doorsFor(db: Reader, kind: DoorRow['kind']): readonly DoorRow[] {
  return inUse(db, eq(doors.kind, kind)).flatMap(({ door, stoppedAt }) => (stoppedAt === null ? [door] : []));
}
