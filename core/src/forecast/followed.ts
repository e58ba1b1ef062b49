import type { WorkClock } from './clock.ts';
import type { Learned } from './learn.ts';
import type { DeskPast, Life } from './life.ts';
import { type Due, dueAt } from './outlook.ts';
import type { Road, Way } from './road.ts';
import { placeNumber } from './stations.ts';

const WEEK = 7 * 86_400_000;
/** From so many weeks back the requests of the weeks to come are taken. */
const WEEKS = 4;

/** A request that runs go through. */
export interface Followed {
  readonly id: string;
  readonly form: string;
  readonly team: string;
  readonly place: number;
  /** The number of whoever has it in hand, or had; -1 for nobody. */
  readonly handler: number;
  readonly had: number;
  readonly way: Way;
  /** The first of its promises, as they are numbered. */
  readonly first: number;
  readonly dues: readonly (Due & { readonly clock: WorkClock })[];
}

/** All that is open at a desk, in the order in which it came to where it is: so it has its turns. */
export function followedOf({ lives, calendars, now }: DeskPast, learned: Learned, road: Road): readonly Followed[] {
  const since = ({ stretches }: Life): number => stretches.at(-1)?.from ?? 0;
  const open = lives.filter(({ finished }) => finished === null).sort((a, b) => since(a) - since(b));
  let first = 0;
  return open.flatMap((life): readonly Followed[] => {
    const stretch = life.stretches.at(-1);
    if (!stretch) return [];
    const { place, team, handler } = stretch;
    const dues = life.promised.flatMap((each) => {
      const calendar = calendars[each.calendar];
      const clock = road.clocks.get(each.calendar);
      return calendar && clock && each.ends === 'finished' ? [{ ...dueAt(each, calendar, now), clock }] : [];
    });
    const followed: Followed = {
      ...{ id: life.id, form: life.form, team, place: placeNumber(place), way: road.wayOf(life, team), dues, first },
      handler: handler === null ? -1 : road.person(handler, life, team),
      had: learned.had.get(life.id) ?? 0,
    };
    first += dues.length;
    return [followed];
  });
}

/** A request that arrives some time after the beginning of a week, as another did. */
export interface Arriving {
  readonly after: number;
  readonly of: Followed;
}

/** What arrived in each of the last weeks, in its order: so it may be in those to come. */
export function weeksOf({ lives, now }: DeskPast, road: Road): readonly (readonly Arriving[])[] {
  const like = (life: Life): Followed => {
    const { place = 'waiting', team = '' } = life.stretches[0] ?? {};
    const way = road.wayOf(life, team);
    return { id: '', form: life.form, team, place: placeNumber(place), way, dues: [], first: 0, handler: -1, had: 0 };
  };
  return Array.from({ length: WEEKS }, (_, week) =>
    lives
      .flatMap((life): readonly Arriving[] => {
        const after = life.arrived - (now - (week + 1) * WEEK);
        return after > 0 && after <= WEEK ? [{ after, of: like(life) }] : [];
      })
      .sort((a, b) => a.after - b.after),
  );
}
