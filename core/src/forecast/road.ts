import type { Change } from './change.ts';
import { clockOf, type WorkClock } from './clock.ts';
import type { Learned } from './learn.ts';
import type { Lengths } from './lengths.ts';
import { type Away, covers, type DeskPast, type Life, PLACES, type Place } from './life.ts';
import type { Sharing } from './measure.ts';
import { placeNumber, type Station } from './stations.ts';

/** How finely a run goes through working time, ms: in the days next to come, and later. */
const STEP = 30 * 60_000;
const LATER_STEP = 4 * STEP;
const NEXT = 5 * 86_400_000;

/** Where and how a request can go on: its stations by the number of the place, how long it takes there, and its team. */
export interface Way {
  /** Of the place where somebody has it in hand, none: that is at whoever has it. */
  readonly stations: readonly number[];
  readonly lengths: readonly Lengths[];
  readonly crew: readonly number[];
  /** Who stands for a team of nobody. */
  readonly nobody: number;
}

/** The working time ahead of a desk in steps, and all places where requests are worked through, numbered. */
export class Road {
  readonly from: readonly number[];
  readonly to: readonly number[];
  readonly stations: Station[] = [];
  /** How much of each step a station is open, ms. */
  readonly open: Float64Array[] = [];
  readonly speeds: number[] = [];
  /** How much of its time each gets at a station, by how many are there. */
  readonly parts: Float64Array[] = [];
  readonly inTurn: boolean[] = [];
  private readonly places = new Map<Station, number>();
  private readonly people = new Map<string, number>();
  private readonly ways = new Map<string, Way>();
  /** People by their numbers: their stations, and when they are away. */
  readonly desks: number[] = [];
  private readonly away: (readonly Away[])[] = [];
  readonly clocks: ReadonlyMap<string, WorkClock>;

  constructor(
    private readonly desk: DeskPast,
    private readonly learned: Learned,
    readonly until: number,
    also: readonly { readonly from: number; readonly to: number }[],
  ) {
    this.clocks = new Map(
      Object.entries(desk.calendars).map(([key, calendar]) => [key, clockOf(calendar, desk.now, until)]),
    );
    const clocks = [...this.clocks.values()];
    const steps: { from: number; to: number }[] = [];
    for (let from = desk.now; from < until; ) {
      const length = from < desk.now + NEXT ? STEP : LATER_STEP;
      const to = Math.min(until, (Math.floor(from / length) + 1) * length);
      const isOpen =
        clocks.some((clock) => clock.between(from, to) > 0) || also.some((each) => each.from < to && each.to > from);
      if (isOpen) steps.push({ from, to });
      from = to;
    }
    this.from = steps.map((step) => step.from);
    this.to = steps.map((step) => step.to);
  }

  wayOf(life: Life, team: string): Way {
    const key = JSON.stringify([life.row, life.calendar, team]);
    let way = this.ways.get(key);
    if (!way) this.ways.set(key, (way = this.newWay(life, team)));
    return way;
  }

  private newWay(life: Life, team: string): Way {
    const crew = this.desk.crews.find((each) => each.team === team);
    return {
      stations: PLACES.map((place) => (place === 'working' ? -1 : this.station(place, life, team, null))),
      lengths: PLACES.map((place) => this.learned.lengths(place, life, team)),
      crew: (crew?.members ?? []).map((person) => this.person(person, life, team)),
      nobody: this.person(`!${team}`, life, team),
    };
  }

  /** The number of somebody who may have requests in hand. */
  person(id: string, life: Life, team: string): number {
    let number = this.people.get(id);
    if (number === undefined) {
      number = this.desks.length;
      this.people.set(id, number);
      this.desks.push(this.station('working', life, team, id));
      this.away.push(this.desk.away.filter(({ person }) => person === id));
    }
    return number;
  }

  numberOf = (person: string): number => this.people.get(person) ?? -1;

  isAway(person: number, at: number): boolean {
    return this.away[person]?.some((each) => covers(each, at)) ?? false;
  }

  private station(place: Place, life: Life, team: string, handler: string | null): number {
    const station = this.learned.stations.at({ place, team, handler }, life);
    let at = this.places.get(station);
    if (at === undefined) {
      this.places.set(station, (at = this.stations.length));
      this.stations.push(station);
      this.open.push(Float64Array.from(this.from, (from, step) => station.clock.between(from, this.to[step] ?? from)));
      this.speeds.push(this.learned.pace(place, station.team).is);
      const sharing = this.learned.sharing[place];
      this.parts.push(partsOf(sharing));
      this.inTurn.push(sharing === 'in turn');
    }
    return at;
  }

  /** How much of each step stations are open with something changed. */
  openWith(change: Change | undefined): readonly Float64Array[] {
    if (change?.do !== 'longer') return this.open;
    return this.open.map((open, number) => {
      const { team, person } = this.stations[number] as Station;
      const isThere = team === change.team && !(person !== null && this.isAway(this.numberOf(person), change.from));
      if (!isThere) return open;
      return open.map((time, step) => {
        const more = Math.min(this.to[step] ?? 0, change.to) - Math.max(this.from[step] ?? 0, change.from);
        return more > time ? more : time;
      });
    });
  }
}

/** So many at a station are told apart. */
export const MANY = 512;
const parts = new Map<Sharing, Float64Array>();

/** Which part of somebody’s time each of so many gets. */
function partsOf(sharing: Sharing): Float64Array {
  let found = parts.get(sharing);
  if (!found) {
    found = Float64Array.from({ length: MANY }, (_, count) =>
      sharing === 'in turn' || count === 0 ? 1 : count ** -sharing,
    );
    parts.set(sharing, found);
  }
  return found;
}

export const WORKING = placeNumber('working');
export const PAUSED = placeNumber('paused');
export const DECIDING = placeNumber('deciding');
