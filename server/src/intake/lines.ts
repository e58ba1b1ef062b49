import { placesToOffer } from '@tolvek/core/door';
import { eq } from 'drizzle-orm';
import { doorsWithLines, dropLate, type LineRow, lineOf } from '../door/line.ts';
import { type DoorRow, doorById } from '../door/queries.ts';
import { doorLines } from '../door/tables.ts';
import { notifyAddress, notifyPerson } from '../notice/notify.ts';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { type Work, write } from '../platform/work.ts';
import { placesTakenAt } from './admission.ts';

const HOUR = 3_600_000;

/**
 * Offers places that are free to those who wait for one at doors, the first first; whoever let the time of theirs go by has
 * left the line. Returns how many are written to.
 */
export async function runLines(house: House): Promise<number> {
  let offered = 0;
  // Most of the time nothing is to be done: that is read, and no write begun for it.
  for (const id of doorsWithLines(house.db))
    if (isDue(house.db, id, house.clock.now()))
      offered += await patiently(house, () => write(house, (work) => offerAt(work, id)));
  return offered;
}

/** Whether a place can be offered at a door, or one was held for long enough. */
const isDue = (db: Reader, doorId: string, now: number): boolean =>
  lineOf(db, doorId).some(({ heldUntil }) => heldUntil !== null && heldUntil <= now) ||
  nextAt(db, doorById(db, doorId), now).length > 0;

/** Those of the line of a door who can be offered a place now, once whoever was late has left it. */
function nextAt(db: Reader, door: DoorRow | undefined, now: number): readonly LineRow[] {
  if (!door) return [];
  const line = lineOf(db, door.id);
  const held = line.filter(({ heldUntil }) => heldUntil !== null).length;
  const places = placesToOffer(door.design, placesTakenAt(db, door, now), { now, held });
  return line.filter(({ heldUntil }) => heldUntil === null).slice(0, places);
}

function offerAt(work: Work, doorId: string): number {
  const { tx, now } = work;
  dropLate(tx, doorId, now);
  const door = doorById(tx, doorId);
  const next = nextAt(tx, door, now);
  for (const { id, email, personId } of next) {
    const heldUntil = now + (door?.design.waits ?? 0) * HOUR;
    tx.update(doorLines).set({ heldUntil }).where(eq(doorLines.id, id)).run();
    const person = personId === null ? undefined : personById(tx, personId);
    if (person) notifyPerson(work, person, { kind: 'place-free', place: id });
    else notifyAddress(work, email, { kind: 'place-free', place: id });
  }
  return next.length;
}
