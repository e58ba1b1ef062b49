/** How a request went, as far as its service times hang on it; moments are epoch ms. */
export interface Course {
  readonly arrived: number;
  readonly finished: number | null;
  /** When whoever asked first heard more than that it had come; null where they have not. */
  readonly answered: number | null;
  /** The stages it came to, in their order, from the one it arrived in. */
  readonly stages: readonly { readonly at: number; readonly stage: string }[];
}

/** What a stage means for whoever works: time in one that stands still, or is over, is nobody’s. */
export type Standing = 'works' | 'paused' | 'over';

/** The service times of a request: working time, ms. */
export interface Times {
  /** To the first answer, and to the end; null where that has not come. Pauses are left out. */
  readonly first: number | null;
  readonly finish: number | null;
  readonly paused: number;
  /** In each stage that it was in, but for those that are over. */
  readonly stages: ReadonlyMap<string, number>;
}

/** The stage that a request is at, at a moment; undefined before it arrived. */
export const stageAt = ({ stages }: Pick<Course, 'stages'>, at: number): string | undefined =>
  stages.findLast((each) => each.at <= at)?.stage;

/**
 * What a request took. `now`: until when what is not over goes on; `worked`: the working time between two moments, ms.
 */
export function timesOf(
  { finished, answered, stages }: Course,
  now: number,
  worked: (from: number, to: number) => number,
  standing: (stage: string) => Standing,
): Times {
  const end = finished ?? now;
  const each = new Map<string, number>();
  let [first, finish, paused] = [0, 0, 0];
  for (const [place, { at, stage }] of stages.entries()) {
    const until = Math.min(stages[place + 1]?.at ?? end, end);
    const is = standing(stage);
    if (is === 'over' || until <= at) continue;
    const time = worked(at, until);
    each.set(stage, (each.get(stage) ?? 0) + time);
    if (is === 'paused') paused += time;
    else {
      finish += time;
      if (answered !== null) first += worked(at, Math.min(until, answered));
    }
  }
  return { first: answered === null ? null : first, finish: finished === null ? null : finish, paused, stages: each };
}
