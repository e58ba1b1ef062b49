import { grouped } from '../own/index.ts';
import type { DeskPast, Life, Place, Stretch } from './life.ts';
import { FINISHED, placeNumber, type Station, type Stations } from './stations.ts';

/** How far back it is looked how fast a team is now, ms. */
export const LATELY = 7 * 86_400_000;

/**
 * How much a request waits for others at the same station, from 0 (each goes on by itself) to 1 (they share the time);
 * `in turn`: whatever came first has all of it.
 */
export type Sharing = number | 'in turn';
export const SHARINGS: readonly Sharing[] = [0, 0.25, 0.5, 0.75, 1, 'in turn'];
/** Where requests share somebody’s time; those who decide and those it waits for are many. */
export const SHARED: readonly Place[] = ['waiting', 'working'];

/** One stretch as it was measured: for each sharing, how much of the station’s time was its own, ms. */
export interface Measured {
  readonly life: Life;
  readonly stretch: Stretch;
  readonly station: Station;
  readonly next: number;
  readonly ended: boolean;
  readonly took: readonly number[];
  /** The same from when it was looked how fast the team is now, or from its beginning. */
  readonly lately: readonly number[];
}

/** Measures all stretches of all requests, station by station: for each sharing there may be, or for the one that is known. */
export function measure(
  { lives, now }: DeskPast,
  stations: Stations,
  known?: Readonly<Record<Place, Sharing>>,
): readonly Measured[] {
  const at = grouped(
    lives.flatMap((life) => life.stretches.map((stretch, place) => ({ life, place, stretch }))),
    ({ life, stretch }) => stations.at(stretch, life),
  );
  return [...at].flatMap(([station, all]) => {
    const sharings = known ? [known[station.place]] : SHARED.includes(station.place) ? SHARINGS : [0];
    const times = timesOf(
      station,
      all.map(({ stretch }) => stretch),
      { now, sharings },
    );
    return all.map(({ life, place, stretch }, one): Measured => {
      const following = life.stretches[place + 1];
      return {
        ...{ life, stretch, station, ended: stretch.to !== null, took: times.took[one] ?? [] },
        ...{ lately: times.lately[one] ?? [], next: following ? placeNumber(following.place) : FINISHED },
      };
    });
  });
}

/**
 * How much of a station’s time each of its stretches has had, for each sharing, in all and of late. Moment by moment at
 * which one comes or goes it is added up what each that is there gets; in turn, the first alone gets it.
 */
function timesOf(
  { clock }: Station,
  stretches: readonly Stretch[],
  { now, sharings }: { readonly now: number; readonly sharings: readonly Sharing[] },
): { readonly took: readonly number[][]; readonly lately: readonly number[][] } {
  const since = now - LATELY;
  const moments = [...new Set([since, ...stretches.flatMap(({ from, to }) => [from, to ?? now])])].sort(
    (a, b) => a - b,
  );
  const order = stretches.map((_, one) => one).sort((a, b) => (stretches[a]?.from ?? 0) - (stretches[b]?.from ?? 0));
  const endOf = (one: number): number => stretches[one]?.to ?? now;
  const turns = stretches.map(() => 0);
  const lateTurns = stretches.map(() => 0);
  const passed = new Map<number, readonly number[]>();
  let sums = sharings.map(() => 0);
  const leaving = stretches.map((_, one) => endOf(one)).sort((a, b) => a - b);
  let come = 0;
  let gone = 0;
  /** The place in the order of the first that is there. */
  let first = 0;
  for (const [place, at] of moments.entries()) {
    passed.set(at, sums);
    while (come < order.length && (stretches[order[come] as number]?.from ?? 0) <= at) come += 1;
    while (gone < leaving.length && (leaving[gone] as number) <= at) gone += 1;
    while (first < come && endOf(order[first] as number) <= at) first += 1;
    const until = moments[place + 1];
    const worked = until === undefined || come <= gone ? 0 : clock.between(at, until);
    if (worked === 0) continue;
    sums = sums.map((sum, each) => {
      const sharing = sharings[each];
      return typeof sharing === 'number' ? sum + worked * (come - gone) ** -sharing : sum;
    });
    const head = order[first] as number;
    turns[head] = (turns[head] as number) + worked;
    if (at >= since) lateTurns[head] = (lateTurns[head] as number) + worked;
  }
  const late = passed.get(since) ?? [];
  const lengths = (from: readonly number[], to: readonly number[], turn: number): number[] =>
    sharings.map((sharing, each) => (sharing === 'in turn' ? turn : Math.max(0, (to[each] ?? 0) - (from[each] ?? 0))));
  const at = (moment: number): readonly number[] => passed.get(moment) ?? [];
  return {
    took: stretches.map(({ from }, one) => lengths(at(from), at(endOf(one)), turns[one] ?? 0)),
    lately: stretches.map(({ from }, one) =>
      lengths(from >= since ? at(from) : late, at(endOf(one)), lateTurns[one] ?? 0),
    ),
  };
}
