import type { AnswerOf } from '@tolvek/contract';
import { type Key, type Said, said } from '@tolvek/words';
import type { Logger } from 'pino';
import { iso } from './clock.ts';
import { speechFor } from './words.ts';

/** What can be wrong around the application, while it is itself well. */
export type Trouble = 'locked' | 'full' | 'disk';

/** What is wrong around the application just now, as the contract says it. */
export const troublesIn = ({ troubles }: { readonly troubles: Troubles }): AnswerOf<'health'>['troubles'] =>
  troubles.all.map(({ what, words, since }) => ({ what, words, since: iso(since) }));

/** Something that keeps the application from doing all of its work, and since when. */
export interface Met {
  readonly what: Trouble | 'job';
  readonly words: Said;
  /** Epoch ms of the real clock. */
  readonly since: number;
}

/** What the house does by itself, by the name that people are told. */
type JobName = Extract<Key, `troubles:job.${string}`> extends `troubles:job.${infer Name}` ? Name : never;
/** A job, and which of several that are told of alike. */
export type JobKey = JobName | `${JobName} ${string}`;
const nameOf = (job: JobKey): JobName => job.split(' ')[0] as JobName;

/** How long a lock that was met is told of, when nothing was written since, ms. */
const LOCK_TOLD = 60_000;

/** What is wrong around the application just now: told in `/api/health` and on the Floor. */
export class Troubles {
  private readonly found = new Map<string, Met & { readonly met: number }>();

  constructor(
    private readonly log: Logger,
    private readonly now: () => number = Date.now,
  ) {}

  /** Something was met; said once in the log, however often it is met. */
  met(what: Trouble): void {
    this.put(what, { what, words: said(`troubles:${what}`) });
  }

  /** A job of the house stumbled over something that is our own mistake. */
  stumbled(job: JobKey, error: unknown): void {
    if (!this.found.has(job)) this.log.error({ err: error, job }, 'a job stumbled; it tries again');
    this.put(job, { what: 'job', words: said('troubles:job', { job: said(`troubles:job.${nameOf(job)}`) }) });
  }

  private put(key: JobKey | Trouble, trouble: Omit<Met, 'since'>): void {
    const before = this.found.get(key);
    if (!before && trouble.what !== 'job')
      this.log.error({ trouble: trouble.what }, speechFor({ language: 'en' }).told(trouble.words));
    this.found.set(key, { ...trouble, since: before?.since ?? this.now(), met: this.now() });
  }

  /** It went well again. */
  passed(key: JobKey | Trouble): void {
    if (this.found.delete(key)) this.log.info({ passed: key }, 'all is well again');
  }

  /** A write was stored: neither the lock nor the disk is in the way. */
  stored(): void {
    if (this.found.size === 0) return;
    for (const what of ['locked', 'disk'] as const) this.passed(what);
  }

  /** Something that needs room was stored. What only writes over what stands there shows no room. */
  hadRoom(): void {
    this.passed('full');
  }

  get all(): readonly Met[] {
    return [...this.found.values()].filter((each) => each.what !== 'locked' || this.now() - each.met < LOCK_TOLD);
  }
}
