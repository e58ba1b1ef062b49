import { type Holder, wordOf } from '../people/index.ts';
import type { ApprovalStep, SeatPlan } from './approval.ts';

/** What the house knows of those whom a step can ask. */
export interface Around {
  /** Who is meant for one request; null where nobody is: the field is empty. */
  readonly named: (seat: SeatPlan) => Holder | null;
  /**
   * The ids of those who can decide for a holder. `today`: who is there, or takes the place of who is away; else also who
   * is away and comes back. Nobody who left.
   */
  readonly able: (holder: Holder, when: 'today' | 'sometime') => readonly string[];
  /** Whose request it is: none of them decides on it. */
  readonly whose: readonly (string | null)[];
}

/** A seat of a step for one request. */
export interface Seated {
  readonly planned: SeatPlan;
  /** Null where nobody can decide, and nobody decides instead. */
  readonly holder: Holder | null;
  /** Whether somebody else than planned holds it. */
  readonly isInstead: boolean;
}

/**
 * Who is asked at a step for one request. A seat that nobody can decide at (whoever held it left, is away with nobody in
 * their place, is nobody, asked for it themselves, or is asked at another seat of the step already) is given to the first
 * who can among those who decide instead. Where nobody does, somebody who is away and comes back keeps it; else it is left
 * out as long as enough are asked, and stays without anybody where they are not, for that has to be seen.
 */
export function seatingOf(
  { seats, needed, instead = [] }: Pick<ApprovalStep, 'seats' | 'needed' | 'instead'>,
  around: Around,
): readonly Seated[] {
  const seated = seatedBy(
    seats.map((planned) => [planned, ...instead]),
    around,
  ).map((seat, place): Seated => {
    const planned = seats[place] ?? { group: '' };
    return { planned, holder: seat?.holder ?? null, isInstead: seat !== null && seat.place > 0 };
  });
  return seatsKept(seated, needed, ({ holder }) => holder !== null);
}

/** Some seats without those that nobody holds, as long as enough are asked; so many stay as are missing, to be seen. */
export function seatsKept<S>(seats: readonly S[], needed: number, isHeld: (seat: S) => boolean): readonly S[] {
  const taken = seats.filter(isHeld).length;
  let left = Math.max(0, needed - taken);
  return seats.filter((seat) => isHeld(seat) || left-- > 0);
}

/**
 * Gives each seat to the first of its candidates who can decide beside those of the seats before: today, or else once they
 * are back. `place`: which of them; null where none can.
 */
export function seatedBy(
  seats: readonly (readonly SeatPlan[])[],
  { named, able, whose }: Around,
): readonly ({ readonly holder: Holder; readonly place: number } | null)[] {
  /** Who can at the seats so far: those who are there today, and all. */
  const today: (readonly string[])[] = [];
  const sometime: (readonly string[])[] = [];
  const isOneMore = (taken: readonly (readonly string[])[], can: readonly string[]): boolean =>
    can.length > 0 && mostAtOnce([...taken, can]) > mostAtOnce(taken);
  return seats.map((candidates) => {
    for (const when of ['today', 'sometime'] as const)
      for (const [place, candidate] of candidates.entries()) {
        const holder = named(candidate);
        if (!holder) continue;
        const [now, later] = [othersThan(able(holder, 'today'), whose), othersThan(able(holder, 'sometime'), whose)];
        if (!isOneMore(sometime, later) || (when === 'today' && !isOneMore(today, now))) continue;
        today.push(now);
        sometime.push(later);
        return { holder, place };
      }
    return null;
  });
}

const othersThan = (people: readonly string[], some: readonly (string | null)[]): readonly string[] =>
  people.filter((person) => !some.includes(person));

/** How a step stands: each seat with who holds it and whether it is still open, and who decided at another one. */
export interface StepNow {
  readonly needed: number;
  readonly approved: number;
  /** Those of the open seats; null for one that nobody holds. */
  readonly open: readonly (Holder | null)[];
  readonly decidedBy: readonly string[];
}

/**
 * Whether those who can still decide are too few for a step ever to be approved: everybody at one seat only, nobody on
 * their own request. Then it waits for nobody, and somebody has to be told.
 */
export function waitsForNobody({ needed, approved, open, decidedBy }: StepNow, around: Around): boolean {
  const able = open.map((holder) =>
    holder === null ? [] : othersThan(around.able(holder, 'sometime'), [...around.whose, ...decidedBy]),
  );
  return approved + mostAtOnce(able) < needed;
}

/**
 * At which of some open seats somebody decides who may at several: the one after which most of the others can still be
 * decided at. The first where that says nothing. `mine`: places among `open`.
 *
 * @throws RangeError where there is none.
 */
export function seatToTake(
  mine: readonly number[],
  open: readonly Holder[],
  around: Pick<Around, 'able'>,
  person: string,
): number {
  const [first] = mine;
  if (first === undefined) throw new RangeError('There is no seat to take.');
  // Seats of the same holder are alike.
  if (mine.every((place) => isSameHolder(open[place], open[first]))) return first;
  const leaves = (place: number): number =>
    mostAtOnce(
      open.filter((_, at) => at !== place).map((holder) => othersThan(around.able(holder, 'sometime'), [person])),
    );
  return mine.reduce((best, place) => (leaves(place) > leaves(best) ? place : best), first);
}

const isSameHolder = (one: Holder | undefined, other: Holder | undefined): boolean =>
  one !== undefined && other !== undefined && wordOf(one) === wordOf(other);

/**
 * How many of some seats can be taken at once, by one person each: a largest matching in a bipartite graph, by augmenting
 * paths (H. W. Kuhn, The Hungarian method for the assignment problem, 1955).
 */
export function mostAtOnce(seats: readonly (readonly string[])[]): number {
  const seatOfPerson = new Map<string, number>();
  const find = (seat: number, tried: Set<string>): boolean =>
    (seats[seat] ?? []).some((person) => {
      if (tried.has(person)) return false;
      tried.add(person);
      const other = seatOfPerson.get(person);
      if (other !== undefined && !find(other, tried)) return false;
      seatOfPerson.set(person, seat);
      return true;
    });
  return seats.reduce((count, _, seat) => count + (find(seat, new Set()) ? 1 : 0), 0);
}
