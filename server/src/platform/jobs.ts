import type { House } from './house.ts';
import { troubleOf } from './patience.ts';
import { Problem } from './problem.ts';
import type { JobKey } from './troubles.ts';

/**
 * Does a piece of the house’s own work. Whatever it meets, the application goes on: a locked
 * database or a full disk is told, and so is a mistake of ours; the next turn tries again.
 */
export function attempt(house: Pick<House, 'troubles'>, job: JobKey, work: () => void): void {
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
  job: JobKey,
  work: () => Promise<void>,
): Promise<void> {
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
    private readonly name: JobKey,
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

function met({ troubles }: Pick<House, 'troubles'>, job: JobKey, error: unknown): void {
  const trouble = troubleOf(error);
  // Whoever waited patiently has told of it already.
  if (error instanceof Problem && error.status === 503) return;
  if (trouble === undefined) troubles.stumbled(job, error);
  else troubles.met(trouble);
}
