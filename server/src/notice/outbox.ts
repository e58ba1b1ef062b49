import { setTimeout as pause } from 'node:timers/promises';
import { and, eq, gt, lte, or, type SQL, sql } from 'drizzle-orm';
import { changing } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { troubleOf } from '../platform/patience.ts';
import { A_COMMIT, aTurn } from '../platform/turns.ts';
import { LEFT, notices } from './tables.ts';

const MINUTE = 60_000;
/** Waits between tries; after the last one a notice counts as failed, and the Floor says so. */
export const BACK_OFF = [0.5 * MINUTE, 2 * MINUTE, 10 * MINUTE, 30 * MINUTE, 2 * 60 * MINUTE, 8 * 60 * MINUTE] as const;
export const LONGEST_WAIT = Math.max(...BACK_OFF);
/** How long what is under way may still take when the application stops, ms. */
const LAST_WAIT = 5_000;

export type Notice = typeof notices.$inferSelect;
export type Posting = Pick<House, 'db' | 'clock' | 'config' | 'log' | 'troubles'>;

/** When to look (epoch ms), and how far ahead a wait can reach that a clock that had jumped ahead did not leave. */
export interface Due {
  readonly now: number;
  readonly late: number;
}

/** What becomes of a notice when it is about to go. */
export type Settled = Partial<Notice> & Pick<Notice, 'state'>;

/** A way by which notices leave the house. */
export interface Way {
  /** Which of the notices that are left go by it. */
  readonly ours: SQL;
  readonly someDue: (db: Reader, due: Due) => boolean;
  /** Those that are next, a few at a time; none when nothing is due. */
  readonly next: (db: Reader, due: Due) => readonly Notice[];
  /** Whether something is to be made ready for it first, and that. */
  readonly prepares?: {
    readonly isTime: (db: Reader, now: number) => boolean;
    readonly does: (tx: Transaction, now: number) => void;
  };
  /** Words a notice when it goes, or says why it does not. */
  readonly settled: (tx: Transaction, notice: Notice, now: number) => Settled;
  /** Sends one; resolves with what became of it, and never rejects. */
  readonly send: (notice: Notice) => Promise<Notice>;
  /** Told what became of one, in the write that stores it. */
  readonly stored?: (tx: Transaction, outcome: Notice) => void;
  readonly close: () => void;
}

/** Stores what has become of a notice, and what it says once it is worded. */
const becoming = changing(notices, ['cause', 'state', 'why', 'attempts', 'nextAttemptAt', 'lastError', 'sentAt']);
const saying = changing(notices, ['subject', 'said', 'toName', 'toAddress']);

/** Notices that go by one way and are due. A clock that had jumped ahead left waits that no longer mean anything: those are due as well. */
export const dueBy = (ours: SQL): SQL =>
  and(
    LEFT,
    ours,
    eq(notices.state, 'waiting'),
    or(lte(notices.nextAttemptAt, sql.placeholder('now')), gt(notices.nextAttemptAt, sql.placeholder('late'))),
  ) as SQL;

/** A notice that went: what it was caused by is kept no longer. */
export const gone = (notice: Notice, now: number): Notice => ({
  ...notice,
  ...{ state: 'sent', sentAt: now, attempts: notice.attempts + 1, lastError: null, cause: null },
});

/** A notice that could not go: it is tried again after its wait, or counts as failed after the last. */
export function notGone(notice: Notice, lastError: string, now: number, atLeast = 0): Notice {
  const attempts = notice.attempts + 1;
  const wait = BACK_OFF[attempts - 1];
  return wait === undefined
    ? { ...notice, state: 'failed', attempts, lastError }
    : { ...notice, state: 'waiting', attempts, lastError, nextAttemptAt: now + Math.max(wait, atLeast) };
}

/**
 * Sends the notices that wait to leave by one way, oldest first. Each is marked as being sent before it goes, and its outcome
 * is stored before others go: no way out can promise “once”, so each goes at least once, always under the same id, by which
 * the receiving side can drop a copy.
 */
export class Outbox {
  private running: Promise<void> | null = null;
  private again = false;
  private closed = false;
  /** Notices that were under way when the application ended last are looked for once. */
  private recovered = false;
  /** What became of notices, not stored yet. */
  private outcomes: readonly Notice[] = [];

  constructor(
    private readonly house: Posting,
    private readonly way: Way,
  ) {}

  /** Starts a round, or lets the running one look once more. */
  wake(): void {
    if (this.closed) return;
    this.again = true;
    this.running ??= this.rounds()
      .catch((error: unknown) => this.closed || this.house.troubles.stumbled('outbox', error))
      .then(() => {
        this.running = null;
        if (this.again) this.wake();
      });
  }

  /** Resolves when nothing is being sent. */
  async idle(): Promise<void> {
    while (this.running) await this.running;
  }

  /** Ends after what is under way, or after five seconds: what is left goes at the next start. */
  async close(): Promise<void> {
    this.closed = true;
    this.again = false;
    const waited = new AbortController();
    await Promise.race([this.idle(), pause(LAST_WAIT, undefined, { signal: waited.signal }).catch(() => undefined)]);
    waited.abort();
    this.way.close();
  }

  private async rounds(): Promise<void> {
    while (this.again && !this.closed) {
      this.again = false;
      for (let taken = await this.take(); taken.length > 0; taken = await this.take())
        this.outcomes = await Promise.all(taken.map((notice) => this.way.send(notice)));
      this.house.troubles.passed('outbox');
    }
  }

  /**
   * Stores what became of the last notices and marks the next as being sent, in one write. Where
   * nothing can be stored, nothing more is sent: it is tried again until it can.
   */
  private async take(): Promise<readonly Notice[]> {
    // Whoever caused a notice is answered first.
    await aTurn('what can wait');
    for (let wait = 50; ; wait = Math.min(2_000, wait * 2)) {
      try {
        const taken = this.mark();
        // Only now: what was looked for in a write that failed has to be looked for again.
        this.recovered = true;
        if (taken.length > 0 || this.outcomes.length > 0) this.house.troubles.stored();
        this.outcomes = [];
        return taken;
      } catch (error) {
        const trouble = troubleOf(error);
        if (trouble === undefined) throw error;
        this.house.troubles.met(trouble);
        if (this.closed) return [];
        await pause(wait);
      }
    }
  }

  private mark(): readonly Notice[] {
    const { db, clock } = this.house;
    const { ours, prepares, stored, someDue, next } = this.way;
    const now = clock.now();
    const at = { now, late: now + LONGEST_WAIT };
    const nothingToStore = this.outcomes.length === 0 && this.recovered;
    const readies = !this.closed && prepares?.isTime(db, now) === true;
    if (nothingToStore && (this.closed || (!readies && !someDue(db, at)))) return [];
    return db.transaction(
      (tx) => {
        for (const outcome of this.outcomes) {
          becoming(tx, outcome);
          stored?.(tx, outcome);
        }
        if (!this.recovered)
          tx.update(notices)
            .set({ state: 'waiting', nextAttemptAt: now })
            .where(and(LEFT, eq(notices.state, 'sending'), ours))
            .run();
        if (this.closed) return [];
        if (readies) prepares?.does(tx, now);
        for (;;) {
          const due = next(tx, at);
          const going = this.asManyAsFit(tx, due, now);
          // What had nothing left to tell made way for others.
          if (going.length > 0 || due.length === 0) return going;
        }
      },
      { behavior: 'immediate' },
    );
  }

  /** As many of some notices as are worded within a commit, at least one that goes where one of them does. */
  private asManyAsFit(tx: Transaction, due: readonly Notice[], now: number): readonly Notice[] {
    const began = performance.now();
    const going: Notice[] = [];
    for (const notice of due) {
      const marked = this.ready(tx, notice, now);
      if (marked) going.push(marked);
      if (going.length > 0 && performance.now() - began >= A_COMMIT) break;
    }
    return going;
  }

  /** Marks a notice as being sent, worded when it goes for the first time; null when it does not go. */
  private ready(tx: Transaction, notice: Notice, now: number): Notice | null {
    const settled = this.settled(tx, notice, now);
    const marked = { ...notice, ...settled };
    becoming(tx, marked);
    if (settled.said) saying(tx, marked);
    return settled.state === 'sending' ? marked : null;
  }

  private settled(tx: Transaction, notice: Notice, now: number): Settled {
    try {
      return this.way.settled(tx, notice, now);
    } catch (error) {
      // One that can’t be worded holds up no other.
      this.house.log.error({ notice: notice.id, err: error }, 'a notice could not be worded');
      return { state: 'failed', lastError: error instanceof Error ? error.message : String(error) };
    }
  }
}
