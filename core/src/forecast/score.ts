import { addWorkingTime, reached, workingTimeBetween } from '../deadline/index.ts';
import { LOOKS_AHEAD, runsFor } from './forecast.ts';
import { type Learned, learn, stationsOf } from './learn.ts';
import { asOf, type DeskPast, type Life } from './life.ts';
import { dueAt } from './outlook.ts';
import { ownOutlooks } from './own.ts';
import { Runs } from './runs.ts';

const DAY = 86_400_000;
/** Each of so many days past is forecast as it would have been then. */
export const SCORED_DAYS = 30;
const SEED = 7;
const MOST_RUNS = 100;
/** So many forecasts are made at most: where more is open, of fewer days. */
const MOST_FORECAST = 60_000;
/** Forecasts that lie in the same tenth are counted together. */
const BANDS = 10;

/** How forecasts of past days were, against what happened. Scores after Brier (1950): 0 is always right, 1 always wrong. */
export interface Score {
  /** How many promises were forecast, each on every day on which it was open and not late yet. */
  readonly forecasts: number;
  /** Of how many days. */
  readonly days: number;
  /** How many of these were late in the end. */
  readonly late: number;
  readonly score: number;
  /** What comes of saying that nothing is ever late. */
  readonly noneLate: number;
  /** What comes of saying that each takes as long as half of those by its row. */
  readonly asUsual: number;
  /** For each tenth of what was said: how often, how likely it was said to be on average, and how many were late. */
  readonly bands: readonly { readonly count: number; readonly said: number; readonly late: number }[];
}

/** One promise as it was forecast on a past day, and what became of it. */
export interface Scored {
  readonly id: string;
  readonly key: string;
  /** How many days ago. */
  readonly back: number;
  readonly chance: number;
  /** Whether it was late in the end. */
  readonly late: boolean;
  /** Whether it would be by taking as long as half of those by its row. */
  readonly usual: boolean;
}

/** Forecasts past days from what was known on each of them, and looks what became of it. */
export function forecastPast(desk: DeskPast): readonly Scored[] {
  const first = pastAt(desk, desk.now - SCORED_DAYS * DAY);
  const stations = stationsOf(desk, desk.now + LOOKS_AHEAD);
  const { sharing } = learn(first, stations);
  const outcomes = new Map(desk.lives.map((life) => [life.id, life]));
  const scored: Scored[] = [];
  const open = desk.lives.filter(({ finished }) => finished === null).length;
  const every = Math.ceil((open * SCORED_DAYS) / MOST_FORECAST);
  for (let back = SCORED_DAYS; back >= 1; back -= Math.max(1, every)) {
    const then = pastAt(desk, desk.now - back * DAY);
    if (then.lives.every(({ finished }) => finished !== null)) continue;
    const until = then.now + LOOKS_AHEAD;
    const learned = learn(then, stations, sharing);
    const runs = new Runs(then, learned, until);
    const medians = mediansAt(then);
    const times = Math.min(MOST_RUNS, runsFor(runs.size));
    const outlooks = [...runs.run({ runs: times, seed: SEED + back }), ...ownOutlooks(then, learned, until)];
    for (const { id, key, chance, isLate } of outlooks) {
      const life = outcomes.get(id);
      const late = life ? outcome(life, key, desk) : null;
      if (!life || late === null || chance === null || isLate) continue;
      scored.push({ id, key, back, chance, late, usual: isUsuallyLate(life, key, then, { medians, learned }) });
    }
  }
  return scored;
}

/** How right some forecasts were. */
export function scoreOf(scored: readonly Scored[]): Score {
  const bands = Array.from({ length: BANDS }, () => ({ count: 0, said: 0, late: 0 }));
  const sums = { score: 0, noneLate: 0, asUsual: 0 };
  for (const { chance, late, usual } of scored) {
    const was = Number(late);
    const band = bands[Math.min(BANDS - 1, Math.floor(chance * BANDS))];
    if (band) {
      band.count += 1;
      band.said += chance;
      band.late += was;
    }
    sums.score += (chance - was) ** 2;
    sums.noneLate += was;
    sums.asUsual += (Number(usual) - was) ** 2;
  }
  const per = (sum: number): number => (scored.length > 0 ? sum / scored.length : 0);
  return {
    ...{ forecasts: scored.length, days: new Set(scored.map(({ back }) => back)).size, late: sums.noneLate },
    ...{ score: per(sums.score), noneLate: per(sums.noneLate), asUsual: per(sums.asUsual) },
    bands: bands.map(({ count, said, late }) => ({ count, said: count > 0 ? said / count : 0, late })),
  };
}

/** What was known of a desk at a moment. */
const pastAt = (desk: DeskPast, at: number): DeskPast => ({
  ...desk,
  now: at,
  lives: desk.lives.flatMap((life) => asOf(life, at) ?? []),
});

/** Whether a promise was late in the end; null where that is open. */
function outcome({ promised, finished }: Life, key: string, { calendars, now }: DeskPast): boolean | null {
  const found = promised.find((each) => each.key === key);
  const calendar = found && calendars[found.calendar];
  if (!found || !calendar) return null;
  const end = found.over ?? finished;
  const { due, isLate } = dueAt(found, calendar, end ?? now);
  if (end !== null) return end > due;
  return isLate ? true : null;
}

/** How much working time half of those by a row took at most, ms, as far as is known. */
function mediansAt({ lives, calendars }: DeskPast): ReadonlyMap<string, number> {
  const took = new Map<string, number[]>();
  for (const { row, calendar: key, arrived, finished } of lives) {
    const calendar = calendars[key];
    if (finished === null || !calendar) continue;
    const all = took.get(row) ?? [];
    all.push(workingTimeBetween(calendar, arrived, finished));
    took.set(row, all);
  }
  return new Map([...took].map(([row, all]) => [row, all.toSorted((a, b) => a - b)[Math.floor(all.length / 2)] ?? 0]));
}

function isUsuallyLate(
  life: Life,
  key: string,
  then: DeskPast,
  { medians, learned }: { readonly medians: ReadonlyMap<string, number>; readonly learned: Learned },
): boolean {
  const known = asOf(life, then.now)?.promised.find((each) => each.key === key);
  const by = known && then.calendars[known.calendar];
  if (!known || !by) return false;
  const isOwn = known.ends === 'itself';
  const calendar = isOwn ? by : then.calendars[life.calendar];
  const median = isOwn ? learned.own(life, key)?.median : medians.get(life.row);
  if (!calendar || median === undefined || median === null) return false;
  const ends = reached(() => addWorkingTime(calendar, isOwn ? known.start : life.arrived, median));
  return ends !== null && ends > dueAt(known, by, then.now).due;
}
