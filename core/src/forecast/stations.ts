import { clockOf, clockOfPeople, type WorkClock } from './clock.ts';
import { type Away, type Crew, covers, type DeskPast, type Life, PLACES, type Place, type Stretch } from './life.ts';

/** Where requests are worked through: the queue of a team, somebody's desk, or wherever others have the word. */
export interface Station {
  readonly place: Place;
  /** Whose pace it has; empty where nobody of the desk works at it. */
  readonly team: string;
  /** Who works at it; null for the queue of a team and for others. */
  readonly person: string | null;
  readonly clock: WorkClock;
}

/** All stations of a desk, made when they are asked for. `range`: from when till when their clocks go. */
export class Stations {
  private readonly all = new Map<string, Station>();
  private readonly crewOf = new Map<string, Crew>();
  private readonly crews: ReadonlyMap<string, Crew>;
  private readonly clocks = new Map<string, WorkClock>();
  /** Who is not there all the time that their calendar is open. */
  private readonly apart: ReadonlySet<string>;

  constructor(
    private readonly desk: Pick<DeskPast, 'calendars' | 'crews' | 'away' | 'rostered'>,
    private readonly range: readonly [number, number],
  ) {
    this.crews = new Map(desk.crews.map((crew) => [crew.team, crew]));
    this.apart = new Set([...desk.away, ...(desk.rostered ?? [])].map(({ person }) => person));
    for (const crew of desk.crews)
      for (const person of crew.members) if (!this.crewOf.has(person)) this.crewOf.set(person, crew);
  }

  /** The station at which a request of a life is. */
  at(
    { place, team, handler }: Pick<Stretch, 'place' | 'team' | 'handler'>,
    { calendar }: Pick<Life, 'calendar'>,
  ): Station {
    if (place === 'waiting') return this.named(`waiting ${team}`, () => this.queue(team, calendar));
    if (place === 'working' && handler !== null)
      return this.named(`working ${handler}`, () => this.desks(handler, team, calendar));
    return this.named(`${place} ${calendar}`, () => ({
      ...{ place, team: '', person: null },
      clock: this.clock(calendar),
    }));
  }

  private named(key: string, make: () => Station): Station {
    let station = this.all.get(key);
    if (!station) this.all.set(key, (station = make()));
    return station;
  }

  private queue(team: string, calendar: string): Station {
    const crew = this.crews.get(team);
    const clock = this.peopleClock(crew?.calendar ?? calendar, crew?.members ?? []);
    return { place: 'waiting', team, person: null, clock };
  }

  private desks(person: string, team: string, calendar: string): Station {
    const crew = this.crewOf.get(person);
    const clock = this.peopleClock(crew?.calendar ?? calendar, [person]);
    return { place: 'working', team: crew?.team ?? team, person, clock };
  }

  private peopleClock(calendar: string, people: readonly string[]): WorkClock {
    return people.some((person) => this.apart.has(person))
      ? clockOfPeople(this.calendar(calendar), people, this.desk, this.range)
      : this.clock(calendar);
  }

  /** The time of a calendar: of all who are there whenever it is open, the same. */
  clock(calendar: string): WorkClock {
    let clock = this.clocks.get(calendar);
    if (!clock) this.clocks.set(calendar, (clock = clockOf(this.calendar(calendar), ...this.range)));
    return clock;
  }

  private calendar(key: string) {
    const found = this.desk.calendars[key] ?? Object.values(this.desk.calendars)[0];
    if (!found) throw new Error('There is no working calendar.');
    return found;
  }
}

/** Whether somebody is away at a moment. */
export const isAway = (away: readonly Away[], person: string, at: number): boolean =>
  away.some((each) => each.person === person && covers(each, at));

/** What comes after a stretch, as a number: a place, or the end. */
export const FINISHED = PLACES.length;
export const placeNumber = (place: Place): number => PLACES.indexOf(place);
