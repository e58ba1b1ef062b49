import { DOOR, type DoorDesign, kindOfProof } from '@tolvek/core/door';
import { inPlace } from '@tolvek/core/people';
import { eq } from 'drizzle-orm';
import { changeEach, type Done, makeInForce, renameDesign } from '../design/commands.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { freeName } from '../platform/freeName.ts';
import { doorAddresses, doors } from './tables.ts';

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

/** Whether an address is that of a door, or was: what was printed leads to no other. */
export const isSlugTaken = (db: Reader, slug: string): boolean =>
  db.select({ id: doors.id }).from(doors).where(eq(doors.slug, slug)).get() !== undefined ||
  db.select({ slug: doorAddresses.slug }).from(doorAddresses).where(eq(doorAddresses.slug, slug)).get() !== undefined;

/**
 * Gives a door another address. The one it had leads on to it; or it and all before it lead there no more, and say so.
 * One that it had before can be its own again.
 */
export function moveDoor(
  tx: Transaction,
  { id, slug: from }: { readonly id: string; readonly slug: string },
  { to, leadsOn }: { readonly to: string; readonly leadsOn: boolean },
  { now, viewer }: Done,
): void {
  tx.delete(doorAddresses).where(eq(doorAddresses.slug, to)).run();
  if (!leadsOn) tx.update(doorAddresses).set({ leadsOn: false }).where(eq(doorAddresses.doorId, id)).run();
  tx.insert(doorAddresses).values({ slug: from, doorId: id, leadsOn, endedAt: now }).run();
  tx.update(doors).set({ slug: to }).where(eq(doors.id, id)).run();
  renameDesign(tx, id, to);
  const sendThere = (door: DoorDesign): DoorDesign => (door.instead === from ? { ...door, instead: to } : door);
  changeEach(tx, DOOR, sendThere, '', { now, viewer });
}

/** An address for a door that no other has. */
export const freeSlug = (db: Reader, stem: string): string => freeName(stem, (slug) => isSlugTaken(db, slug));

/** Puts other words in the place of some in the audiences of all doors, as when two records become one person. */
export const renameInDoors = (
  tx: Transaction,
  words: Readonly<Record<string, string>>,
  note: string,
  done: Done,
): void => changeEach(tx, DOOR, (door) => ({ ...door, audience: inPlace(door.audience, words) }), note, done);
