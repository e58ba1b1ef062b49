import { forgetUnclaimed } from '../files/commands.ts';
import { DemoClock } from './clock.ts';
import type { House } from './house.ts';
import { troubleOf } from './patience.ts';
import { Problem } from './problem.ts';
import { RETENTION } from './retention.ts';
import { settings } from './tables.ts';

/**
 * Does a piece of the house’s own work. Whatever it meets, the application goes on: a locked
 * database or a full disk is told, and so is a mistake of ours; the next turn tries again.
 */
export function attempt(house: Pick<House, 'troubles'>, job: string, work: () => void): void {
  try {
    work();
    house.troubles.passed(job);
  } catch (error) {
    met(house, job, error);
  }
}

/** The same, for work that takes many turns. */
export async function attemptLong(
  house: Pick<House, 'troubles'>,
  job: string,
  work: () => Promise<void>,
): Promise<void> {
  try {
    await work();
    house.troubles.passed(job);
  } catch (error) {
    met(house, job, error);
  }
}

function met({ troubles }: Pick<House, 'troubles'>, job: string, error: unknown): void {
  const trouble = troubleOf(error);
  // Whoever waited patiently has told of it already.
  if (error instanceof Problem && error.status === 503) return;
  if (trouble === undefined) troubles.stumbled(job, error);
  else troubles.met(trouble);
}

/** When the house was kept last. Writing it down shows that the disk takes what is written. */
function beat({ db, clock, troubles }: House): void {
  const value = String(clock.now());
  db.insert(settings)
    .values({ key: 'kept-at', value })
    .onConflictDoUpdate({ target: settings.key, set: { value } })
    .run();
  troubles.stored();
}

/**
 * Keeps the house: writes down where the demo’s clock stands, and takes away what is past keeping.
 */
export function keepHouse(house: House): void {
  const { db, clock } = house;
  if (clock instanceof DemoClock) attempt(house, 'the clock', () => clock.keep());
  attempt(house, 'keeping the house', () => beat(house));
  for (const { what, sweep } of RETENTION)
    attempt(house, `taking away: ${what}`, () =>
      db.transaction((tx) => sweep(tx, clock.now()), { behavior: 'immediate' }),
    );
  attempt(house, 'taking away: files', () => forgetUnclaimed(house, clock.now()));
}
