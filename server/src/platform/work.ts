import { accessTurns, type Transaction } from './database.ts';
import type { House } from './house.ts';

/** What a write makes known once it is stored. */
export interface Effects {
  readonly changed: Set<string>;
  /** Whether long work waits to be done now. */
  jobs: boolean;
}

/** One transaction under way, and all that what is done in it depends on. */
export interface Work {
  readonly tx: Transaction;
  /** Epoch ms, the same for all of it. */
  readonly now: number;
  readonly house: House;
  readonly effects: Effects;
  /** Who does it; null when the application does it by itself. */
  readonly actor: string | null;
}

/** The same work, done by somebody. */
export const by = (work: Work, actor: string | null): Work => ({ ...work, actor });

/**
 * One write: everything in one transaction, taken at once so that two writers never read the same
 * old state; what has to be told is told after it is stored.
 */
export function write<T>(house: House, does: (work: Work) => T): T {
  const effects: Effects = { changed: new Set(), jobs: false };
  const now = house.clock.now();
  const turns = accessTurns(house.db);
  const result = house.db.transaction((tx) => does({ tx, now, house, effects, actor: null }), {
    behavior: 'immediate',
  });
  house.troubles.stored();
  house.live.changed(effects.changed);
  if (accessTurns(house.db) !== turns) house.live.accessChanged();
  house.wakeOutbox();
  if (effects.jobs) house.wakeJobs();
  return result;
}
