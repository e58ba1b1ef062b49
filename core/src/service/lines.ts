import { measured } from '../view/index.ts';
import { type Course, type Standing, stageAt, type Times } from './times.ts';

/** A request with what it took, and whether it was in time: null where nothing says so, or that may not be told. */
export interface Served {
  readonly course: Course;
  readonly times: Times;
  readonly inTime: boolean | null;
  readonly standing: (stage: string) => Standing;
}

/** From one moment to before another, epoch ms. */
export interface Between {
  readonly from: number;
  readonly to: number;
}

/** What requests are put together by. */
export const SERVED_BY = ['form', 'team', 'row', 'handler', 'week', 'month'] as const;

/** What can be behind a figure of a line. */
export const BEHIND = ['came', 'went', 'open', 'late'] as const;
export type Behind = (typeof BEHIND)[number];

/** Half of some figures are at most `median`, nine of ten at most `most` (nearest rank). */
export interface Spread {
  readonly median: number;
  readonly most: number;
}

/** What became of some requests in a stretch of time. */
export interface Line {
  readonly came: number;
  readonly went: number;
  /** At its end. */
  readonly open: number;
  readonly inTime: number;
  readonly late: number;
  /** Of those that were finished; working time, ms. */
  readonly first: Spread | null;
  readonly finish: Spread | null;
  /** How long they stood still on average, ms. */
  readonly paused: number | null;
  /** The median in each stage, of those that were in it, ms. */
  readonly stages: ReadonlyMap<string, { readonly median: number; readonly count: number }>;
}

const isIn = (at: number | null, { from, to }: Between): boolean => at !== null && at >= from && at < to;

/** Whether a request is behind a figure: at the end of a stretch, open is what has come and is not over. */
export function isBehind({ course, inTime, standing }: Served, figure: Behind, between: Between): boolean {
  switch (figure) {
    case 'came':
      return isIn(course.arrived, between);
    case 'went':
      return isIn(course.finished, between);
    case 'late':
      return isIn(course.finished, between) && inTime === false;
    case 'open': {
      const stage = stageAt(course, between.to - 1);
      return stage !== undefined && standing(stage) !== 'over';
    }
  }
}

/** Half and nine of ten of some figures; null of none. */
export function spreadOf(figures: readonly number[]): Spread | null {
  const median = measured('median', figures, figures.length);
  if (median === null) return null;
  const sorted = figures.toSorted((a, b) => a - b);
  return { median, most: sorted[Math.ceil(sorted.length * 0.9) - 1] ?? median };
}

/** What became of some requests in a stretch of time. */
export function lineOf(some: readonly Served[], between: Between): Line {
  const of = (figure: Behind): readonly Served[] => some.filter((each) => isBehind(each, figure, between));
  const went = of('went');
  const each = new Map<string, number[]>();
  for (const { times } of went)
    for (const [stage, time] of times.stages) {
      const found = each.get(stage);
      if (found) found.push(time);
      else each.set(stage, [time]);
    }
  return {
    ...{ came: of('came').length, went: went.length, open: of('open').length },
    ...{ inTime: went.filter(({ inTime }) => inTime === true).length, late: of('late').length },
    first: spreadOf(went.flatMap(({ times }) => times.first ?? [])),
    finish: spreadOf(went.flatMap(({ times }) => times.finish ?? [])),
    paused: measured(
      'mean',
      went.map(({ times }) => times.paused),
      went.length,
    ),
    stages: new Map(
      [...each].map(([stage, times]) => [stage, { median: spreadOf(times)?.median ?? 0, count: times.length }]),
    ),
  };
}
