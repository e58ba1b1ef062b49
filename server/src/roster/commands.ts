import { wallClockAt } from '@tolvek/core/deadline';
import { asOther, peopleOn, ROSTER, withoutPerson } from '@tolvek/core/roster';
import { and, eq, or } from 'drizzle-orm';
import { changeEach, type Done } from '../design/commands.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { allRosters } from './queries.ts';
import { dutiesTold, dutyOffers } from './tables.ts';

/** Puts one record in the place of another in every roster, and in what is offered. */
export function dutiesAsOther(tx: Transaction, from: string, to: string, note: string, done: Done): void {
  changeEach(tx, ROSTER, (roster) => asOther(roster, from, to), note, done);
  for (const column of ['personId', 'askedId', 'takenBy'] as const)
    tx.update(dutyOffers)
      .set({ [column]: to })
      .where(eq(dutyOffers[column], from))
      .run();
  // Nobody is asked to take over from themselves.
  tx.update(dutyOffers)
    .set({ state: 'withdrawn' })
    .where(and(eq(dutyOffers.state, 'open'), eq(dutyOffers.personId, to), eq(dutyOffers.askedId, to)))
    .run();
}

/** How many rosters somebody is on that leaving would change. */
export const rostersOf = (db: Reader, person: string): number =>
  allRosters(db).filter((roster) => peopleOn(roster).includes(person)).length;

/** Takes somebody out of every roster: another has their turns, where there is one. */
export function leaveRosters(tx: Transaction, leaver: string, taker: string | null, done: Done): void {
  changeEach(
    tx,
    ROSTER,
    (roster) => withoutPerson(roster, leaver, taker, wallClockAt(done.now, roster.zone)),
    '',
    done,
  );
  tx.update(dutyOffers)
    .set({ state: 'withdrawn' })
    .where(and(eq(dutyOffers.state, 'open'), or(eq(dutyOffers.personId, leaver), eq(dutyOffers.askedId, leaver))))
    .run();
}

/** Forgets how far a roster told whoever comes on duty, and takes back what is offered of it where it is there no more. */
export function forgetRoster(tx: Transaction, key: string, isGone: boolean): void {
  tx.delete(dutiesTold).where(eq(dutiesTold.roster, key)).run();
  if (isGone)
    tx.update(dutyOffers)
      .set({ state: 'withdrawn' })
      .where(and(eq(dutyOffers.state, 'open'), eq(dutyOffers.roster, key)))
      .run();
}
