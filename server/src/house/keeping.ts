import { dropEmailFiles, forgetUnclaimed } from '../files/commands.ts';
import { filesOfNoEmail } from '../incoming/queries.ts';
import { DemoClock } from '../platform/clock.ts';
import type { House } from '../platform/house.ts';
import { attemptLong } from '../platform/jobs.ts';
import { AT_ONCE } from '../platform/kept.ts';
import { patiently } from '../platform/patience.ts';
import { settings } from '../platform/tables.ts';
import { aTurn } from '../platform/turns.ts';
import { keepViewIndexes } from '../view/viewIndexes.ts';
import { RETENTION } from './retention.ts';

/** What has to find room before a full disk counts as having room again, bytes. */
const ROOM = 65_536;

/**
 * When the house was kept last. Writing it down shows that the disk takes what is written; after it
 * was full, something larger shows that there is room.
 */
function beat({ db, clock, troubles }: House): void {
  const wasFull = troubles.all.some((each) => each.what === 'full');
  const keptAt = (value: string): void => {
    const set = { value };
    db.insert(settings).values({ key: 'kept-at', value }).onConflictDoUpdate({ target: settings.key, set }).run();
  };
  if (wasFull) keptAt(`${clock.now()}${' '.repeat(ROOM)}`);
  keptAt(String(clock.now()));
  troubles.stored();
  if (wasFull) troubles.hadRoom();
}

/**
 * Keeps the house: writes down where the demo’s clock stands, and takes away what is past keeping.
 */
export async function keepHouse(house: House): Promise<void> {
  const { db, clock } = house;
  if (clock instanceof DemoClock) await attemptLong(house, 'clock', () => patiently(house, () => clock.keep()));
  await attemptLong(house, 'keeping', () => patiently(house, () => beat(house)));
  await attemptLong(house, 'keeping indexes of views', () => keepViewIndexes(house));
  for (const { what, sweep } of RETENTION)
    await takeAway(house, what, () => db.transaction((tx) => sweep(tx, clock.now()), { behavior: 'immediate' }));
  await takeAway(house, 'files', () => forgetUnclaimed(house, clock.now()));
  await takeAway(house, 'files of emails', () => dropEmailFiles(house, filesOfNoEmail(clock.now())));
}

/** Turns in a row that one kind of thing is taken away in, before the next kind. */
const ROUNDS = 20;

/** A little each turn; what is left then goes the next time. */
const takeAway = (house: House, what: string, sweep: () => number): Promise<void> =>
  attemptLong(house, `keeping ${what}`, async () => {
    for (let round = 0; round < ROUNDS; round += 1) {
      await aTurn('long work');
      if ((await patiently(house, sweep)) < AT_ONCE) return;
    }
  });
