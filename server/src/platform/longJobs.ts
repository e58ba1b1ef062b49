import { setTimeout as pause } from 'node:timers/promises';
import { and, asc, eq, sql } from 'drizzle-orm';
import { changing } from './adding.ts';
import type { Reader, Transaction } from './database.ts';
import type { House } from './house.ts';
import { Job } from './jobs.ts';
import { newId } from './newId.ts';
import { patiently } from './patience.ts';
import { prepared } from './prepared.ts';
import { notFound, Problem } from './problem.ts';
import { jobs } from './tables.ts';
import { type Work, write } from './work.ts';

export type JobRow = typeof jobs.$inferSelect;

/** A job as its work sees it. */
export interface Doing<About> {
  readonly about: About;
  /** Who began it. */
  readonly by: string;
  /** What was found before a restart. */
  readonly before: object | null;
  /**
   * One write of the job: does some of its things, counts them and keeps what was found so far, all of
   * it or nothing.
   *
   * @throws JobStopped when somebody stopped it: what was done before stays.
   */
  step(things: number, does: (work: Work) => object): Promise<void>;
}

/** The work of one kind of jobs. After a restart it begins anew: what was done already is passed over. */
export type JobWork = (house: House, doing: Doing<never>) => Promise<void>;

/** Ends the work of a job that somebody stopped, or leaves it for the next start. */
class JobStopped extends Error {}

const LEFT = sql`state in ('waiting', 'running')`;

const stateOf = prepared((db) =>
  db
    .select({ state: jobs.state, looked: jobs.looked })
    .from(jobs)
    .where(eq(jobs.id, sql.placeholder('id')))
    .prepare(),
);
const foundSoFar = changing(jobs, ['looked', 'result']);

/** What a job that has ended was about is not kept: rows of a sheet may hold anything. */
const OVER = {};

/** Notes that long work is to be done; whoever does it is woken by `house.wakeJobs` after the commit. */
export function addJob(
  tx: Transaction,
  job: Pick<JobRow, 'kind' | 'about' | 'by' | 'of'> & { readonly now: number },
): string {
  const { now, ...rest } = job;
  const id = newId();
  tx.insert(jobs)
    .values({ ...rest, id, state: 'waiting', createdAt: now })
    .run();
  return id;
}

const waitingFor = prepared((db) =>
  db
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(LEFT, eq(jobs.state, 'waiting'), eq(jobs.kind, sql.placeholder('kind'))))
    .limit(1)
    .prepare(),
);

/** The same, unless work of its kind waits already. */
export function addJobOnce(tx: Transaction, job: Parameters<typeof addJob>[1]): void {
  if (!waitingFor(tx).get({ kind: job.kind })) addJob(tx, job);
}

/** A job for whoever began it. @throws Problem 404 for anybody else’s. */
export function jobOf(db: Reader, personId: string, id: string): JobRow {
  const job = db.select().from(jobs).where(eq(jobs.id, id)).get();
  if (job?.by !== personId) throw notFound('work');
  return job;
}

/** Whether a job has come to its end, in one way or another. */
export const isEnded = ({ state }: Pick<JobRow, 'state'>): boolean => state !== 'waiting' && state !== 'running';

/** How long a caller waits for work that may be short, ms; what takes longer is looked for again. */
const A_WHILE = 2_000;
const A_LOOK = 10;

/** A job as it ended, or as it is after a while. */
export async function afterAWhile(db: Reader, personId: string, id: string): Promise<JobRow> {
  const until = performance.now() + A_WHILE;
  // What it is about may be large: it is not read at each look.
  for (;;) {
    const now = stateOf(db).get({ id });
    if (!now || isEnded(now) || performance.now() >= until) return jobOf(db, personId, id);
    await pause(A_LOOK);
  }
}

/** Stops a job: what it did stays done, the rest is left as it is. One that has ended stays as it ended. */
export function stopJob(house: House, personId: string, id: string): void {
  write(house, ({ tx, now }) => {
    jobOf(tx, personId, id);
    tx.update(jobs)
      .set({ state: 'stopped', endedAt: now, about: OVER })
      .where(and(eq(jobs.id, id), LEFT))
      .run();
  });
}

/** Does the jobs there are, one after the other, the oldest first. */
export class Jobs {
  private readonly job: Job;
  private again = false;
  private closed = false;

  constructor(
    private readonly house: House,
    private readonly kinds: Readonly<Record<string, JobWork>>,
  ) {
    this.job = new Job(house, 'longWork', () => this.rounds());
  }

  /** Begins, or lets the round that is under way look once more. */
  begin(): void {
    this.again = true;
    this.job.begin();
  }

  /** Begins nothing more; what is under way ends after its next step and goes on after the next start. */
  close(): void {
    this.closed = true;
  }

  /** Resolves when no job is left. */
  idle(): Promise<void> {
    return this.job.idle();
  }

  private async rounds(): Promise<void> {
    while (this.again && !this.closed) {
      this.again = false;
      for (let next = this.next(); next && !this.closed; next = this.next()) await this.one(next);
    }
  }

  private next(): JobRow | undefined {
    return this.house.db.select().from(jobs).where(LEFT).orderBy(asc(jobs.createdAt), asc(jobs.id)).limit(1).get();
  }

  private async one({ id, kind, about, by, result }: JobRow): Promise<void> {
    const { house } = this;
    const set = (values: Partial<JobRow>): Promise<unknown> =>
      patiently(house, () =>
        write(house, ({ tx }) =>
          tx
            .update(jobs)
            .set(values)
            .where(and(eq(jobs.id, id), LEFT))
            .run(),
        ),
      );
    await set({ state: 'running', looked: 0 });
    const step: Doing<never>['step'] = async (things, does) => {
      if (this.closed) throw new JobStopped();
      await patiently(house, () =>
        write(house, (work) => {
          const now = stateOf(work.tx).get({ id });
          if (now?.state !== 'running') throw new JobStopped();
          const found = does(work);
          foundSoFar(work.tx, { id, looked: now.looked + things, result: found });
        }),
      );
    };
    try {
      const work = this.kinds[kind];
      if (!work) throw new Error(`Nobody knows how to do “${kind}”.`);
      await work(house, { about: about as never, by, before: result, step });
      await set({ state: 'done', endedAt: house.clock.now(), about: OVER });
    } catch (error) {
      if (error instanceof JobStopped) return;
      // A full or locked disk is waited for: it goes on when it is looked at next.
      if (error instanceof Problem && error.status === 503) throw error;
      // A mistake of ours ends this job and no other.
      house.log.error({ job: id, kind, err: error }, 'long work failed');
      await set({ state: 'failed', endedAt: house.clock.now(), about: OVER });
    }
  }
}
