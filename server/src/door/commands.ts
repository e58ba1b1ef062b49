import { DOOR, type DoorDesign, kindOfProof } from '@tolvek/core/door';
import { inPlace } from '@tolvek/core/people';
import { eq } from 'drizzle-orm';
import { changeEach, type Done, makeInForce } from '../design/commands.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { freeName } from '../platform/freeName.ts';
import { doors } from './tables.ts';

/** Makes a door of a form, in force at once; it leads nowhere until the form is released. Returns its id. */
export function makeDoor(
  tx: Transaction,
  { formId, slug, design }: { readonly formId: string; readonly slug: string; readonly design: DoorDesign },
  done: Done,
): string {
  const id = makeInForce(tx, DOOR, { key: slug, content: design, note: '' }, done);
  tx.insert(doors)
    .values({ id, formId, slug, kind: kindOfProof(design.proof) })
    .run();
  return id;
}

export const isSlugTaken = (db: Reader, slug: string): boolean =>
  db.select({ id: doors.id }).from(doors).where(eq(doors.slug, slug)).get() !== undefined;

/** An address for a door that no other has. */
export const freeSlug = (db: Reader, stem: string): string => freeName(stem, (slug) => isSlugTaken(db, slug));

/** Puts other words in the place of some in the audiences of all doors, as when two records become one person. */
export const renameInDoors = (
  tx: Transaction,
  words: Readonly<Record<string, string>>,
  note: string,
  done: Done,
): void => changeEach(tx, DOOR, (door) => ({ ...door, audience: inPlace(door.audience, words) }), note, done);
