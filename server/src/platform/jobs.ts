import { forgetUnclaimed } from '../files/commands.ts';
import { DemoClock } from './clock.ts';
import type { House } from './house.ts';
import { storing, troubleOf } from './patience.ts';
import { Problem } from './problem.ts';
import { AT_ONCE, RETENTION } from './retention.ts';
import { settings } from './tables.ts';
import { aTurn } from './turns.ts';

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
async function attemptLong(house: Pick<House, 'troubles'>, job: string, work: () => Promise<void>): Promise<void> {
  try {
    await work();
    house.troubles.passed(job);
  } catch (error) {
    met(house, job, error);
  }
}

/** A piece of the house’s own work that takes many turns, never twice at once. */
export class Job {
  private underWay: Promise<void> | null = null;

  constructor(
    private readonly house: Pick<House, 'troubles'>,
    private readonly name: string,
    private readonly work: () => Promise<void>,
  ) {}

  /** Begins it, unless it is under way. */
  begin(): void {
    this.underWay ??= attemptLong(this.house, this.name, this.work).finally(() => {
      this.underWay = null;
    });
  }

  /** Resolves when it is not under way. */
  async idle(): Promise<void> {
    await this.underWay;
  }
}

function met({ troubles }: Pick<House, 'troubles'>, job: string, error: unknown): void {
  const trouble = troubleOf(error);
  // Whoever waited patiently has told of it already.
  if (error instanceof Problem && error.status === 503) return;
  if (trouble === undefined) troubles.stumbled(job, error);
  else troubles.met(trouble);
}

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
  if (clock instanceof DemoClock) await attemptLong(house, 'the clock', () => storing(house, () => clock.keep()));
  await attemptLong(house, 'keeping the house', () => storing(house, () => beat(house)));
  for (const { what, sweep } of RETENTION)
    await takeAway(house, what, () => db.transaction((tx) => sweep(tx, clock.now()), { behavior: 'immediate' }));
  await takeAway(house, 'files', () => forgetUnclaimed(house, clock.now()));
}

/** Turns in a row that one kind of thing is taken away in, before the next kind. */
const ROUNDS = 20;

/** A little each turn; what is left then goes the next time. */
const takeAway = (house: House, what: string, sweep: () => number): Promise<void> =>
  attemptLong(house, `taking away: ${what}`, async () => {
    for (let round = 0; round < ROUNDS; round += 1) {
      await aTurn('long work');
      if ((await storing(house, sweep)) < AT_ONCE) return;
    }
  });
