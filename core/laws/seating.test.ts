import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Around,
  type SeatPlan,
  seatedBy,
  seatingOf,
  seatToTake,
  seatWord,
  waitsForNobody,
  whatNow,
} from '../src/approval/index.ts';
import { type Holder, wordOf } from '../src/people/index.ts';

/** A small desk: who is in which group, who is here, and whom the answers of one request name. */
interface Desk {
  readonly groups: Readonly<Record<string, readonly string[]>>;
  readonly gone: readonly string[];
  readonly away: readonly string[];
  readonly named: Readonly<Record<string, string | null>>;
  readonly whose: readonly string[];
}
const PEOPLE = ['ana', 'ben', 'cy', 'dee'] as const;
const people = fc.subarray([...PEOPLE]);
const desks: fc.Arbitrary<Desk> = fc.record({
  groups: fc.record({ leads: people, deck: people }),
  gone: fc.subarray([...PEOPLE], { maxLength: 2 }),
  away: fc.subarray([...PEOPLE], { maxLength: 2 }),
  named: fc.record({
    ...{ keeper: fc.option(fc.constantFrom(...PEOPLE)), lead: fc.option(fc.constantFrom(...PEOPLE)) },
    watch: fc.option(fc.constantFrom(...PEOPLE)),
  }),
  whose: fc.subarray([...PEOPLE], { maxLength: 1 }),
});

/** Everybody who could say something for a holder, read slowly. */
const canFor = (desk: Desk, holder: Holder, when: 'today' | 'sometime'): readonly string[] =>
  PEOPLE.filter((person) => {
    const is = 'group' in holder ? (desk.groups[holder.group] ?? []).includes(person) : holder.person === person;
    return is && !desk.gone.includes(person) && (when === 'sometime' || !desk.away.includes(person));
  });
const aroundOf = (desk: Desk): Around => ({
  named: (seat) => {
    if ('group' in seat || 'person' in seat) return seat;
    const person = desk.named['field' in seat ? seat.field : 'profile' in seat ? seat.profile : seat.duty] ?? null;
    return person === null ? null : { person };
  },
  able: (holder, when) => canFor(desk, holder, when),
  whose: desk.whose,
});
const seatPlans: fc.Arbitrary<SeatPlan> = fc.oneof(
  fc.constantFrom('leads', 'deck').map((group) => ({ group })),
  fc.constantFrom(...PEOPLE).map((person) => ({ person })),
  fc.constant({ field: 'keeper' }),
  fc.constant({ profile: 'lead' }),
  fc.constant({ duty: 'watch' }),
);
const steps = fc
  .record({
    seats: fc.array(seatPlans, { minLength: 1, maxLength: 3 }),
    instead: fc.array(seatPlans, { maxLength: 2 }),
  })
  .chain(({ seats, instead }) =>
    fc.integer({ min: 1, max: seats.length }).map((needed) => ({ seats, instead, needed })),
  );

/** Whether people can be put on seats, each on one and nobody on their own request: tried in every way. */
function fits(desk: Desk, holders: readonly Holder[], heard: readonly string[] = []): boolean {
  const [first, ...rest] = holders;
  if (!first) return true;
  return canFor(desk, first, 'sometime').some(
    (person) => !heard.includes(person) && !desk.whose.includes(person) && fits(desk, rest, [...heard, person]),
  );
}

/** How many of some seats can be taken today, by one person each: tried in every way. */
function mostToday(desk: Desk, holders: readonly Holder[], heard: readonly string[] = []): number {
  const [first, ...rest] = holders;
  if (!first) return 0;
  const without = mostToday(desk, rest, heard);
  const free = canFor(desk, first, 'today').filter((each) => !heard.includes(each) && !desk.whose.includes(each));
  return Math.max(without, ...free.map((person) => 1 + mostToday(desk, rest, [...heard, person])));
}

/** Whether some `count` of the seats can be taken by different people, tried in every way. */
const someFit = (desk: Desk, holders: readonly (Holder | null)[], count: number, heard: readonly string[]): boolean => {
  if (count <= 0) return true;
  return holders.some((holder, at) => {
    if (holder === null) return false;
    const others = holders.filter((_, each) => each !== at);
    return canFor(desk, holder, 'sometime').some(
      (person) =>
        !heard.includes(person) && !desk.whose.includes(person) && someFit(desk, others, count - 1, [...heard, person]),
    );
  });
};

describe('who is asked at a step', () => {
  it('can decide: each beside all others, nobody on their own, nobody who left; and nobody is missed who could', () => {
    const seen = { planned: 0, instead: 0, left: 0, nobody: 0, waits: 0 };
    fc.assert(
      fc.property(desks, steps, (desk, step) => {
        const around = aroundOf(desk);
        const seated = seatingOf(step, around);
        const holders = seated.flatMap(({ holder }) => (holder === null ? [] : [holder]));
        expect(fits(desk, holders)).toBe(true);
        expect(seated.length).toBeLessThanOrEqual(step.seats.length);
        // No more stay empty than it needs to be seen that too few are asked.
        const empty = seated.length - holders.length;
        expect(empty).toBe(Math.max(0, step.needed - holders.length));
        // A seat stays empty or is left out only where nobody in its turn could sit there beside the others.
        const kept = [...seated];
        const unseated = step.seats.filter((plan) => {
          const at = kept.findIndex(({ planned, holder }) => planned === plan && holder !== null);
          if (at >= 0) kept.splice(at, 1);
          return at < 0;
        });
        for (const plan of unseated)
          for (const candidate of [plan, ...step.instead]) {
            const named = around.named(candidate);
            if (named) expect(fits(desk, [...holders, named])).toBe(false);
          }
        const before: Holder[] = [];
        for (const { holder, planned, isInstead } of seated) {
          if (holder === null) continue;
          const own = around.named(planned);
          if (!isInstead) expect(holder).toEqual(own);
          // Somebody else sits there only where whoever was planned can’t today, beside those before.
          else if (own)
            expect(fits(desk, [...before, own]) && mostToday(desk, [...before, own]) > mostToday(desk, before)).toBe(
              false,
            );
          before.push(holder);
        }
        seen.planned += seated.filter(({ holder, isInstead }) => holder !== null && !isInstead).length;
        seen.instead += seated.filter(({ isInstead }) => isInstead).length;
        seen.nobody += empty;
        seen.left += step.seats.length - seated.length;
        if (holders.some((holder) => canFor(desk, holder, 'today').length === 0)) seen.waits += 1;
      }),
      { numRuns: 1_500 },
    );
    console.log('seats of steps', seen);
    for (const times of Object.values(seen)) expect(times).toBeGreaterThan(50);
  });

  it('is somebody, until too few are left who could bring it to an end: then that is said, and not before', () => {
    const seen = { stuck: 0, goes: 0 };
    const open = fc.array(fc.option(seatPlans.filter((seat) => 'group' in seat || 'person' in seat)), { maxLength: 3 });
    fc.assert(
      fc.property(
        desks,
        open,
        fc.nat(2),
        fc.integer({ min: 1, max: 4 }),
        people,
        (desk, seats, approved, needed, heard) => {
          const holders = seats as readonly (Holder | null)[];
          const stuck = waitsForNobody({ needed, approved, open: holders, decidedBy: heard }, aroundOf(desk));
          expect(stuck).toBe(!someFit(desk, holders, needed - approved, heard));
          seen[stuck ? 'stuck' : 'goes'] += 1;
        },
      ),
      { numRuns: 800 },
    );
    console.log('steps that wait for nobody', seen);
    expect(Math.min(seen.stuck, seen.goes)).toBeGreaterThan(50);
  });

  it('takes, where they may at several, the seat that leaves the others to somebody', () => {
    const seen = { choices: 0, mattered: 0 };
    fc.assert(
      fc.property(
        desks,
        fc.array(seatPlans, { minLength: 2, maxLength: 4 }),
        fc.constantFrom(...PEOPLE),
        (desk, plans, me) => {
          const around = aroundOf(desk);
          const open = plans.flatMap((plan) => around.named(plan) ?? []);
          const mine = open.flatMap((holder, at) => (canFor(desk, holder, 'sometime').includes(me) ? [at] : []));
          if (mine.length === 0) return;
          const took = seatToTake(mine, open, around, me);
          expect(mine).toContain(took);
          const left = (at: number): number => {
            const others = open.filter((_, each) => each !== at);
            let most = 0;
            while (someFit({ ...desk, whose: [] }, others, most + 1, [me]) && most < others.length) most += 1;
            return most;
          };
          const best = Math.max(...mine.map(left));
          if (new Set(mine.map((at) => wordOf(open[at] ?? { group: '' }))).size > 1) {
            expect(left(took)).toBe(best);
            seen.choices += 1;
            if (mine.some((at) => left(at) < best)) seen.mattered += 1;
          }
        },
      ),
      { numRuns: 1_500 },
    );
    console.log('seats to choose between', seen);
    expect(Math.min(seen.choices, seen.mattered)).toBeGreaterThan(20);
  });

  it('is found seat by seat where a step begins later: whoever holds one keeps it while they can', () => {
    const desk: Desk = {
      ...{ groups: { leads: ['ana', 'ben'], deck: ['cy'] }, gone: ['ben'], away: [], whose: ['cy'] },
      named: { keeper: 'dee', lead: null },
    };
    const seats: readonly (readonly SeatPlan[])[] = [
      [{ person: 'ben' }, { field: 'keeper' }],
      [{ group: 'leads' }, { group: 'deck' }],
      [{ group: 'deck' }, { profile: 'lead' }],
    ];
    expect(seatedBy(seats, aroundOf(desk))).toEqual([
      { holder: { person: 'dee' }, place: 1 },
      { holder: { group: 'leads' }, place: 0 },
      null,
    ]);
    expect(seats.flat().map(seatWord)).toEqual(['@ben', '=keeper', 'leads', 'deck', 'deck', '?lead']);
  });
});

describe('a step with limits', () => {
  it('ends as its rule says: refused with one too many against, and by silence whatever was said', () => {
    const of = (verdicts: readonly ('approve' | 'refuse' | null)[], rule: object) =>
      whatNow([{ needed: 2, verdicts, ...rule }]).state;
    expect(of(['refuse', null, null, null], {})).toBe('open');
    expect(of(['refuse', null, null, null], { against: 1 })).toBe('open');
    expect(of(['refuse', 'refuse', null, null], { against: 1 })).toBe('refused');
    expect(of(['refuse', null, null, null], { against: 0 })).toBe('refused');
    expect(of(['approve', 'approve', 'refuse'], { against: 0 })).toBe('refused');
    expect(of([null, 'refuse', null], { silently: 'approved' })).toBe('approved');
    expect(of(['approve', null, null], { silently: 'refused' })).toBe('refused');
  });
});
