import { grouped } from '../own/index.ts';
import { Lengths, type Took } from './lengths.ts';
import { type DeskPast, type Life, PLACES, type Place, type Promised } from './life.ts';
import { LATELY, type Measured, measure, SHARED, SHARINGS, type Sharing } from './measure.ts';
import { FINISHED, Stations } from './stations.ts';

const DAY = 86_400_000;
/** How far back it is learned from, ms. */
export const LEARNS_FROM = 120 * DAY;
/** How many of a kind have to be known until they speak for themselves. */
export const ENOUGH = 12;
/** How many requests of its usual pace a team is given in advance: a single one says little of how fast it is now. */
const IN_ADVANCE = 12;
const SLOWEST = 0.2;
const FASTEST = 3;

/** From where on it is in turn: 0 where any is as likely done next as any other, 1 where it is always the first. */
const IN_TURN = 0.5;

/** What is known of how long things take at a desk. */
export interface Learned {
  readonly stations: Stations;
  readonly sharing: Readonly<Record<Place, Sharing>>;
  /** How long a stretch takes, in ms of its station’s time that are its own. */
  readonly lengths: (place: Place, life: Pick<Life, 'row'>, team: string) => Lengths;
  /** How long a promise with an end of its own takes, in ms of working time; by form and key. */
  readonly own: (life: Pick<Life, 'form'>, key: string) => Lengths | null;
  /** How fast a team is now, where 1 is as ever. */
  readonly pace: (place: Place, team: string) => Pace;
  /** How much of its station’s time an open request has had at the place where it is, by id; ms. */
  readonly had: ReadonlyMap<string, number>;
  /** How many requests that have ended it was learned from. */
  readonly from: number;
}

/** How fast a team is now, and what that is reckoned from: how many it got done of late, and would usually have. */
export interface Pace {
  readonly is: number;
  readonly did: number;
  readonly usually: number;
}

const AS_EVER: Pace = { is: 1, did: 0, usually: 0 };

/** All places of a desk, for whatever is learned of it. `until`: till when their clocks are to go, epoch ms. */
export function stationsOf(desk: DeskPast, until: number): Stations {
  const begins = desk.lives.reduce((least, { arrived }) => Math.min(least, arrived), desk.now - LEARNS_FROM);
  return new Stations(desk, [begins, until]);
}

/** Learns from all that is known of a desk at its moment. `sharing`: as it was learned before; from the same past when nothing is said. */
export function learn(desk: DeskPast, stations: Stations, sharing?: Learned['sharing']): Learned {
  const since = desk.now - LEARNS_FROM;
  const measured = measure(desk, stations, sharing);
  const known = sharing ?? sharingOf(measured, desk.now);
  const at = (place: Place): number => (sharing ? 0 : SHARINGS.indexOf(known[place]));
  const own = (each: Measured): number => each.took[at(each.stretch.place)] ?? 0;

  const groups = new Map<string, Took[]>();
  for (const each of measured) {
    if ((each.stretch.to ?? desk.now) < since) continue;
    const took: Took = { length: own(each), ended: each.ended, next: each.next };
    for (const key of kindsOf(each.stretch.place, each.life, each.stretch.team)) {
      const group = groups.get(key);
      if (group) group.push(took);
      else groups.set(key, [took]);
    }
  }
  // What is like nothing is asked of few: the wide groups are made ready only when they are.
  const ready = new Map<string, Lengths>();
  const readyFor = (key: string): Lengths | undefined => {
    const all = groups.get(key);
    let found = ready.get(key);
    if (!found && all) ready.set(key, (found = new Lengths(all)));
    return found;
  };
  const nothing = new Lengths([{ length: 8 * 3_600_000, ended: true, next: FINISHED }]);
  const lengths: Learned['lengths'] = (place, life, team) => {
    let some: Lengths | undefined;
    for (const key of kindsOf(place, life, team)) {
      const found = readyFor(key);
      if (found && found.size >= ENOUGH) return found;
      if (found && found.size > 0) some = found;
    }
    return some ?? nothing;
  };
  const owns = ownLengths(desk, stations, since);
  const paces = pacesOf(measured, desk.now, lengths, at);
  return {
    ...{ stations, sharing: known, lengths },
    own: ({ form }, key) => owns.get(`${form} ${key}`) ?? null,
    pace: (place, team) => paces.get(`${place} ${team}`) ?? AS_EVER,
    had: new Map(measured.flatMap((each) => (each.ended ? [] : [[each.life.id, own(each)] as const]))),
    from: desk.lives.filter(({ finished }) => finished !== null && finished >= since).length,
  };
}

/** Working time that a promise with an end of its own has had until a moment, without where it stood still; ms. */
export function hadBy({ start, pauses, calendar, stands }: Promised, at: number, stations: Stations): number {
  const clock = stations.clock(calendar);
  const still = stands ? pauses : [];
  return still.reduce(
    (sum, { from, to }) => sum - clock.between(Math.min(from, at), Math.min(to ?? at, at)),
    clock.between(start, at),
  );
}

/** How long promises with ends of their own took, by form and key. One that ended with its request took until then. */
function ownLengths({ lives, now }: DeskPast, stations: Stations, since: number): ReadonlyMap<string, Lengths> {
  const all = new Map<string, Took[]>();
  for (const { form, promised, finished } of lives)
    for (const each of promised) {
      const end = each.over ?? finished;
      if (each.ends !== 'itself' || (end ?? now) < since) continue;
      const key = `${form} ${each.key}`;
      const took = { length: hadBy(each, end ?? now, stations), ended: end !== null, next: 0 };
      const group = all.get(key);
      if (group) group.push(took);
      else all.set(key, [took]);
    }
  return new Map([...all].map(([key, some]) => [key, new Lengths(some)]));
}

/** By what a stretch is like others, the narrowest first. */
const kindsOf = (place: Place, { row }: Pick<Life, 'row'>, team: string): readonly string[] => [
  `${place} row ${row}`,
  `${place} team ${team}`,
  place,
];

/**
 * How requests share time: in turn where it is mostly the first that is done first. Else as explains the past best: by which
 * what is alike took most alike. Lengths are compared by their logarithms, so that it does not matter by how much all of
 * them are longer.
 */
function sharingOf(measured: readonly Measured[], now: number): Learned['sharing'] {
  const best = (place: Place): Sharing => {
    const here = measured.filter(({ stretch }) => stretch.place === place);
    if (turnsOf(here, now) >= IN_TURN) return 'in turn';
    const ended = here.filter((each) => each.ended);
    const alike = grouped(ended, ({ life, stretch }) => `${life.row} ${stretch.team}`);
    const groups = [...alike.values()].filter(({ length }) => length >= ENOUGH);
    const spread = (sharing: number): number =>
      groups.reduce(
        (sum, group) => sum + spreadOf(group.map(({ took }) => Math.log(60_000 + (took[sharing] ?? 0)))),
        0,
      );
    const spreads = SHARINGS.map((each, sharing) => (each === 'in turn' ? Number.POSITIVE_INFINITY : spread(sharing)));
    return groups.length === 0 ? 0.5 : (SHARINGS[spreads.indexOf(Math.min(...spreads))] ?? 0.5);
  };
  return Object.fromEntries(
    PLACES.map((place) => [place, SHARED.includes(place) ? best(place) : 0]),
  ) as unknown as Learned['sharing'];
}

/** How far it is the first to come that is done first where several are: 0 as often as by chance, 1 always. */
function turnsOf(measured: readonly Measured[], now: number): number {
  let first = 0;
  let byChance = 0;
  let done = 0;
  for (const all of grouped(measured, ({ station }) => station).values()) {
    const order = all.toSorted((a, b) => a.stretch.from - b.stretch.from);
    const ends = all.filter(({ ended }) => ended).sort((a, b) => (a.stretch.to ?? now) - (b.stretch.to ?? now));
    let there: Measured[] = [];
    let next = 0;
    for (const one of ends) {
      const end = one.stretch.to ?? now;
      for (let each = order[next]; each && each.stretch.from < end; each = order[++next]) there.push(each);
      there = there.filter(({ stretch }) => (stretch.to ?? now) >= end);
      if (there.length < 2) continue;
      done += 1;
      byChance += 1 / there.length;
      first += there[0] === one ? 1 : 0;
    }
  }
  return done < ENOUGH ? 0 : (first - byChance) / (done - byChance);
}

/** The sum of the squares of how far numbers are from their mean. */
function spreadOf(numbers: readonly number[]): number {
  const mean = numbers.reduce((sum, each) => sum + each, 0) / numbers.length;
  return numbers.reduce((sum, each) => sum + (each - mean) ** 2, 0);
}

/**
 * How fast teams are now: how many stretches ended of late, beside how many usually would have in the time that they had.
 * Both are drawn towards each other by a few, so that little is not much.
 */
function pacesOf(
  measured: readonly Measured[],
  now: number,
  lengths: Learned['lengths'],
  at: (place: Place) => number,
): ReadonlyMap<string, Pace> {
  const found = new Map<string, { did: number; usually: number }>();
  for (const { stretch, life, station, took, lately, ended } of measured) {
    if (!SHARED.includes(stretch.place) || (stretch.to ?? now) <= now - LATELY) continue;
    const key = `${stretch.place} ${station.team}`;
    const pace = found.get(key) ?? { did: 0, usually: 0 };
    const known = lengths(stretch.place, life, stretch.team);
    const whole = took[at(stretch.place)] ?? 0;
    pace.usually += known.hazard(whole) - known.hazard(whole - (lately[at(stretch.place)] ?? 0));
    pace.did += ended ? 1 : 0;
    found.set(key, pace);
  }
  return new Map(
    [...found].map(([key, { did, usually }]) => [
      key,
      { is: Math.min(FASTEST, Math.max(SLOWEST, (did + IN_ADVANCE) / (usually + IN_ADVANCE))), did, usually },
    ]),
  );
}
