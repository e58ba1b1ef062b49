import { setTimeout as pause } from 'node:timers/promises';
import { aTurn } from './turns.ts';

/**
 * Only one writes to the database at a time. While a thread of ours does, whoever else wants to
 * write waits here, without holding up the thread that answers by trying.
 */
export class Gate {
  private held: Promise<unknown> | null = null;

  /** Whether nobody holds it just now. */
  get isOpen(): boolean {
    return this.held === null;
  }

  /** Resolves when nobody holds it, or after so many ms; those who waited go on one by one. */
  async open(most: number): Promise<void> {
    if (this.isOpen) return;
    const until = performance.now() + most;
    while (this.held && performance.now() < until) {
      const waited = new AbortController();
      await Promise.race([
        this.held,
        pause(until - performance.now(), undefined, { signal: waited.signal }).catch(() => undefined),
      ]);
      waited.abort();
      await aTurn('caller');
    }
  }

  /** Holds it while some work is done; those who want to hold it take turns. */
  async holding<T>(work: () => Promise<T>): Promise<T> {
    while (this.held) await this.held;
    const done = work();
    this.held = done
      .catch(() => undefined)
      .then(() => {
        this.held = null;
      });
    return done;
  }
}
