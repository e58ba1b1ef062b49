import { eq } from 'drizzle-orm';
import type { Database } from './database.ts';
import { settings } from './tables.ts';

/** Where “now” comes from. Moments are epoch ms. */
export interface Clock {
  now(): number;
}

export const systemClock: Clock = { now: () => Date.now() };

const KEY = 'demo-now';

/** Whether the demo made this data: it writes down where its clock stands. */
export const isDemoData = (db: Database): boolean =>
  db.select().from(settings).where(eq(settings.key, KEY)).get() !== undefined;

/**
 * The demo’s clock: runs like any other, stands still while the application is off, and can be
 * moved forward.
 */
export class DemoClock implements Clock {
  private offset: number;

  constructor(
    private readonly db: Database,
    startAt: number,
  ) {
    const kept = db.select().from(settings).where(eq(settings.key, KEY)).get();
    this.offset = (kept ? Number(kept.value) : startAt) - Date.now();
    if (!kept) this.keep();
  }

  now(): number {
    return Date.now() + this.offset;
  }

  advance(ms: number): void {
    this.offset += ms;
    this.keep();
  }

  /** Writes down where the clock stands, so that the next start goes on from here. */
  keep(): void {
    const value = String(this.now());
    this.db
      .insert(settings)
      .values({ key: KEY, value })
      .onConflictDoUpdate({ target: settings.key, set: { value } })
      .run();
  }
}

export const iso = (ms: number): string => new Date(ms).toISOString();
