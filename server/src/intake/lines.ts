import { placesToOffer } from '@tolvek/core/door';
import { eq } from 'drizzle-orm';
import { doorsWithLines, dropLate, lineOf } from '../door/line.ts';
import { doorById } from '../door/queries.ts';
import { doorLines } from '../door/tables.ts';
import { notifyAddress, notifyPerson } from '../notice/notify.ts';
import { personById } from '../people/queries.ts';
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
  for (const id of doorsWithLines(house.db))
    offered += await patiently(house, () => write(house, (work) => offerAt(work, id)));
  return offered;
}

function offerAt(work: Work, doorId: string): number {
  const { tx, now } = work;
  dropLate(tx, doorId, now);
  const door = doorById(tx, doorId);
  if (!door) return 0;
  const line = lineOf(tx, doorId);
  const held = line.filter(({ heldUntil }) => heldUntil !== null).length;
  const places = placesToOffer(door.design, placesTakenAt(tx, door, now), { now, held });
  const next = line.filter(({ heldUntil }) => heldUntil === null).slice(0, places);
  for (const { id, email, personId } of next) {
    const heldUntil = now + (door.design.waits ?? 0) * HOUR;
    tx.update(doorLines).set({ heldUntil }).where(eq(doorLines.id, id)).run();
    const person = personId === null ? undefined : personById(tx, personId);
    if (person) notifyPerson(work, person, { kind: 'place-free', place: id });
    else notifyAddress(work, email, { kind: 'place-free', place: id });
  }
  return next.length;
}
