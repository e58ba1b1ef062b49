import { type Consent, DOOR, type DoorDesign, doorIn } from '@tolvek/core/door';
import { readIn } from '@tolvek/core/form';
import type { Language } from '@tolvek/words/speech';
import { and, asc, desc, eq, isNull, type SQL, sql } from 'drizzle-orm';
import { type DesignRow, statesOf } from '../design/queries.ts';
import { designs } from '../design/tables.ts';
import { formById, type ReleaseRow, releaseInForce } from '../form/queries.ts';
import { forms } from '../form/tables.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { doorAddresses, doors } from './tables.ts';

/** A way in to a form, as it is in force. */
export interface DoorRow {
  readonly id: string;
  readonly formId: string;
  readonly slug: string;
  readonly kind: 'staff' | 'outside';
  readonly design: DoorDesign;
  readonly version: number;
  /** When the address by which it was found was ended, epoch ms, where it leads here no more; of nothing else said. */
  readonly endedAt?: number;
}

const COLUMNS = {
  ...{ id: doors.id, formId: doors.formId, slug: doors.slug, kind: doors.kind },
  ...{ design: designs.draft, version: designs.version, number: designs.number },
};

type Found = Omit<DoorRow, 'design'> & { readonly design: object; readonly number: number };

/** What is in force of a door is its draft: it is changed at once. */
const rowOf = ({ number: _, ...found }: Found): DoorRow => found as DoorRow;

const doorsInto = prepared((db) =>
  db
    .select(COLUMNS)
    .from(doors)
    .innerJoin(designs, eq(designs.id, doors.id))
    .where(and(eq(doors.formId, sql.placeholder('form')), isNull(doors.removedAt)))
    // Those that were made together, staff first.
    .orderBy(desc(doors.kind), asc(doors.id))
    .prepare(),
);

export const doorsOf = (db: Reader, formId: string): readonly DoorRow[] =>
  doorsInto(db).all({ form: formId }).map(rowOf);

/** One door, whether its form is in use or not. */
const oneDoor = (which: SQL | undefined) =>
  prepared((db) => db.select(COLUMNS).from(doors).innerJoin(designs, eq(designs.id, doors.id)).where(which).prepare());
const doorWithId = oneDoor(eq(doors.id, sql.placeholder('of')));
const doorAtPath = oneDoor(and(eq(doors.slug, sql.placeholder('of')), isNull(doors.removedAt)));

/** A door by its id, even one that was removed. */
export function doorById(db: Reader, id: string): DoorRow | undefined {
  const found: Found | undefined = doorWithId(db).get({ of: id });
  return found && rowOf(found);
}

/** The door that something came by, where it came by one. */
export const doorOf = (db: Reader, { doorId }: { readonly doorId: string | null }): DoorRow | undefined =>
  doorId === null ? undefined : doorById(db, doorId);

/** A door by its address, whether its form is in use or not. */
export function doorAtAddress(db: Reader, slug: string): DoorRow | undefined {
  const found: Found | undefined = doorAtPath(db).get({ of: slug });
  return found && rowOf(found);
}

/** A door as a design of its own, whatever its form. */
export function doorDesign(db: Reader, slug: string): { door: DoorRow; design: DesignRow<DoorDesign> } {
  const found: Found | undefined = doorAtPath(db).get({ of: slug });
  if (!found) throw notFound('door');
  const door = rowOf(found);
  const { id, version, design: draft } = door;
  return { door, design: { ...{ id, version, draft, number: found.number }, kind: DOOR.kind, key: slug } };
}

/** The register that requests of a door come into, whether its form is in use or not. */
export function registerOfDoor(db: Reader, slug: string): string | null {
  const door = doorAtAddress(db, slug);
  return (door && formById(db, door.formId)?.registerId) ?? null;
}

/** Doors of forms that are on the shelf. */
const inUse = (which: 'slug' | 'kind') => {
  const some = prepared((db) =>
    db
      .select({ ...COLUMNS, stoppedAt: forms.stoppedAt })
      .from(doors)
      .innerJoin(designs, eq(designs.id, doors.id))
      .innerJoin(forms, eq(forms.id, doors.formId))
      .where(and(eq(doors[which], sql.placeholder('of')), isNull(doors.removedAt), isNull(forms.deletedAt)))
      .prepare(),
  );
  return (db: Reader, of: string) =>
    some(db)
      .all({ of })
      .map(({ stoppedAt, ...found }) => ({ door: rowOf(found), stoppedAt }));
};
const usedAtPath = inUse('slug');
const usedBy = inUse('kind');

const formerAddress = prepared((db) =>
  db
    .select({ slug: doors.slug, leadsOn: doorAddresses.leadsOn, endedAt: doorAddresses.endedAt })
    .from(doorAddresses)
    .innerJoin(doors, eq(doors.id, doorAddresses.doorId))
    .where(eq(doorAddresses.slug, sql.placeholder('of')))
    .prepare(),
);

/** The door of an address, by the one it has now or had before. */
function usedAt(db: Reader, slug: string) {
  const [found] = usedAtPath(db, slug);
  if (found) return found;
  const former = formerAddress(db).get({ of: slug });
  const [moved] = former ? usedAtPath(db, former.slug) : [];
  if (!former || !moved) return undefined;
  return former.leadsOn ? moved : { ...moved, door: { ...moved.door, endedAt: former.endedAt } };
}

/** The addresses that a door had before, the last first. */
export const formerAddresses = (db: Reader, doorId: string): readonly (typeof doorAddresses.$inferSelect)[] =>
  db
    .select()
    .from(doorAddresses)
    .where(eq(doorAddresses.doorId, doorId))
    .orderBy(desc(doorAddresses.endedAt), asc(doorAddresses.slug))
    .all();

/** A door as it is said in the language that somebody reads, where its form is there in it. */
export const doorRead = (
  door: DoorRow,
  { design }: Pick<ReleaseRow, 'design'>,
  reads: Language | undefined,
): DoorRow => ({
  ...door,
  design: doorIn(door.design, readIn(design, reads)),
});

/**
 * A door, and the release of its form that is in force. `reads`: the language in which what is said at it is read, where its
 * form is there in it.
 *
 * @throws Problem 404 where there is none
 */
export function doorBySlug(
  db: Reader,
  slug: string,
  reads?: Language | undefined,
): { door: DoorRow; release: ReleaseRow } {
  const found = usedAt(db, slug);
  const release = found && releaseInForce(db, found.door.formId);
  if (!found || !release) throw notFound('form');
  const door = doorRead(found.door, release, reads);
  // A form that was stopped takes nothing in, whatever its doors say.
  const open = door.design.open && found.stoppedAt === null;
  return { door: { ...door, design: { ...door.design, open } }, release };
}

/** All doors of forms that are in use. */
export const allDoors = (db: Reader): readonly DoorRow[] =>
  (['staff', 'outside'] as const).flatMap((kind) => usedBy(db, kind).map(({ door }) => door));

/** The doors where somebody can ask: those of forms that are in use. */
export function doorsFor(db: Reader, kind: DoorRow['kind']): readonly DoorRow[] {
  return usedBy(db, kind).flatMap(({ door, stoppedAt }) => (stoppedAt === null ? [door] : []));
}

/** When a door was last closed by hand, epoch ms; null while it is open, or when it has been closed from the start. */
export function shutAt(db: Reader, { id, design }: Pick<DoorRow, 'id' | 'design'>): number | null {
  if (design.open) return null;
  const [first, ...earlier] = statesOf<DoorDesign>(db, { id });
  // Its form was stopped: that is no closing of the door.
  if (first?.content.open) return null;
  let closed = first;
  for (const state of earlier) {
    if (state.content.open) return closed?.at ?? null;
    closed = state;
  }
  return null;
}

/** The text that was agreed to for a request that came by a door, with its version; null where nothing was asked. */
export function agreedText(
  db: Reader,
  {
    doorId,
    consent,
    consentIn,
  }: { readonly doorId: string | null; readonly consent: number | null; readonly consentIn: Language | null },
  spoken: Language | null = null,
): Consent | null {
  if (doorId === null || consent === null) return null;
  const states = statesOf<DoorDesign>(db, { id: doorId });
  const found = states.find(({ content }) => content.consent?.version === consent)?.content;
  // As they read it who agreed, where that is known.
  return (found && doorIn(found, consentIn ?? spoken).consent) ?? { text: '', version: consent };
}
