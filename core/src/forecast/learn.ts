import { Lengths, type Took } from './lengths.ts';
import { type DeskPast, type Life, PLACES, type Place, type Promised, type Stretch } from './life.ts';
import { FINISHED, placeNumber, type Station, Stations } from './stations.ts';

const DAY = 86_400_000;
/** How far back it is learned from, ms. */
export const LEARNS_FROM = 120 * DAY;
/** How far back it is looked how fast a team is now, ms. */
export const LATELY = 7 * DAY;
/** How many of a kind have to be known until they speak for themselves. */
export const ENOUGH = 12;
/** How many requests of its usual pace a team is given in advance: a single one says little of how fast it is now. */
const IN_ADVANCE = 12;
const SLOWEST = 0.2;
const FASTEST = 3;

/**
 * How much a request waits for others at the same station, from 0 (each goes on by itself) to 1 (they share the time);
 * `in turn`: whatever came first has all of it.
 */
export type Sharing = number | 'in turn';
const SHARINGS: readonly Sharing[] = [0, 0.25, 0.5, 0.75, 1, 'in turn'];
/** From where on it is in turn: 0 where any is as likely done next as any other, 1 where it is always the first. */
const IN_TURN = 0.5;
/** Where requests share somebody’s time; those who decide and those it waits for are many. */
const SHARED: readonly Place[] = ['waiting', 'working'];

/** One stretch as it was measured: for each sharing, how much of the station’s time was its own, ms. */
interface Measured {
  readonly life: Life;
  readonly stretch: Stretch;
  readonly station: Station;
  readonly next: number;
  readonly ended: boolean;
  readonly took: readonly number[];
  /** The same from when it was looked how fast the team is now, or from its beginning. */
  readonly lately: readonly number[];
}

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

/** Measures all stretches of all requests, station by station: for each sharing there may be, or for the one that is known. */
function measure({ lives, now }: DeskPast, stations: Stations, known?: Learned['sharing']): readonly Measured[] {
  const at = new Map<Station, { life: Life; place: number; stretch: Stretch }[]>();
  for (const life of lives)
    for (const [place, stretch] of life.stretches.entries()) {
      const station = stations.at(stretch, life);
      const all = at.get(station);
      const one = { life, place, stretch };
      if (all) all.push(one);
      else at.set(station, [one]);
    }
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

/**
 * How requests share time: in turn where it is mostly the first that is done first. Else as explains the past best: by which
 * what is alike took most alike. Lengths are compared by their logarithms, so that it does not matter by how much all of
 * them are longer.
 */
function sharingOf(measured: readonly Measured[], now: number): Learned['sharing'] {
  const best = (place: Place): Sharing => {
    const here = measured.filter(({ stretch }) => stretch.place === place);
    if (turnsOf(here, now) >= IN_TURN) return 'in turn';
    const alike = new Map<string, Measured[]>();
    for (const each of here) {
      if (!each.ended) continue;
      const key = `${each.life.row} ${each.stretch.team}`;
      const group = alike.get(key);
      if (group) group.push(each);
      else alike.set(key, [each]);
    }
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
  const at = new Map<Station, Measured[]>();
  for (const each of measured) {
    const all = at.get(each.station);
    if (all) all.push(each);
    else at.set(each.station, [each]);
  }
  let first = 0;
  let byChance = 0;
  let done = 0;
  for (const all of at.values()) {
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
