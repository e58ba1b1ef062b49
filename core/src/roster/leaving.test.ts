import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { WorkingCalendar } from '../deadline/index.ts';
import { asOther, dutiesBetween, type Roster, withoutPerson } from './index.ts';

const PEOPLE = ['ana', 'ben', 'cy'] as const;
const HOUR = 3_600_000;
const MONDAY = Date.UTC(2026, 10, 23);
const CALENDAR: WorkingCalendar = {
  ...{ key: 'desk', name: 'Desk', zone: 'UTC', holidays: [] },
  week: [[], [], [], [], [], [], []],
};
const person = fc.constantFrom(...PEOPLE);
const rosters: fc.Arbitrary<Roster> = fc.record({
  ...{ key: fc.constant('boats'), name: fc.constant('Boats'), calendar: fc.constant('desk'), zone: fc.constant('UTC') },
  needed: fc.constant('never' as const),
  shifts: fc.array(
    fc.record({
      ...{ id: fc.uuid(), name: fc.constant(''), since: fc.constant('2026-11-02'), to: fc.constant('18:00') },
      days: fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }),
      from: fc.constantFrom('08:00', '18:00'),
      people: fc.array(person, { minLength: 1, maxLength: 3 }),
      passes: fc.constantFrom({ every: 1, of: 'weeks' } as const, { every: 1, of: 'times' } as const),
    }),
    { minLength: 1, maxLength: 2 },
  ),
  swaps: fc.array(
    fc
      .record({ day: fc.integer({ min: 0, max: 9 }), instead: fc.option(person), by: fc.option(person) })
      .filter(({ instead, by }) => instead !== by)
      .map(({ day, instead, by }) => {
        const date = new Date(MONDAY + day * 24 * HOUR).toISOString().slice(0, 10);
        return { id: `${day} ${instead} ${by}`, from: `${date}T06:00`, until: `${date}T14:00`, note: '', instead, by };
      }),
    { maxLength: 2 },
  ),
});
const on = (roster: Roster, hour: number): readonly string[] => {
  const at = MONDAY + hour * HOUR;
  return [...new Set(dutiesBetween(roster, CALENDAR, at, at + 1).map((duty) => duty.person))].sort();
};
const hours = fc.nat(10 * 24);

it('has one record in the place of another, at every moment', () => {
  let met = 0;
  fc.assert(
    fc.property(rosters, hours, (roster, hour) => {
      const swapsBoth = roster.swaps.some(({ by, instead }) => by === 'ben' || instead === 'ben');
      // Where the two stood in for each other, what was swapped is nothing any more.
      fc.pre(!swapsBoth || !roster.shifts.some(({ people }) => people.includes('ana')));
      const before = on(roster, hour);
      expect(on(asOther(roster, 'ana', 'dee'), hour)).toEqual(before.map((id) => (id === 'ana' ? 'dee' : id)).sort());
      if (before.includes('ana')) met += 1;
      expect(JSON.stringify(asOther(roster, 'ana', 'ben'))).not.toContain('"ana"');
    }),
    { numRuns: 400 },
  );
  expect(met).toBeGreaterThan(20);
});

it('has a taker wherever the leaver would have been from now on, and nobody else moves', () => {
  const met = { taken: 0, alone: 0, other: 0 };
  fc.assert(
    fc.property(rosters, hours, (roster, hour) => {
      const taken = withoutPerson(roster, 'ana', 'dee', '2026-11-23T00:00');
      expect(on(taken, hour)).toEqual(
        on(roster, hour)
          .map((id) => (id === 'ana' ? 'dee' : id))
          .sort(),
      );
      met.taken += Number(on(taken, hour).includes('dee'));
      // Without a taker others have the turns; who has a shift alone keeps it.
      const left = withoutPerson(roster, 'ana', null, '2026-11-23T00:00');
      const isAlone = roster.shifts.some(({ people }) => people.every((id) => id === 'ana'));
      expect(left.shifts.some(({ people }) => people.includes('ana'))).toBe(isAlone);
      expect(left.swaps.some(({ by }) => by === 'ana')).toBe(false);
      met[isAlone ? 'alone' : 'other'] += 1;
    }),
    { numRuns: 400 },
  );
  for (const count of Object.values(met)) expect(count).toBeGreaterThan(20);
  // What is over stays as it was.
  const swap = { id: 's', from: '2026-11-23T06:00', until: '2026-11-23T14:00', instead: null, by: 'ana', note: '' };
  const roster = {
    key: 'r',
    name: '',
    zone: 'UTC',
    calendar: 'desk',
    needed: 'never',
    shifts: [],
    swaps: [swap],
  } as const;
  expect(withoutPerson(roster, 'ana', null, '2026-11-23T14:00').swaps).toEqual([swap]);
});
