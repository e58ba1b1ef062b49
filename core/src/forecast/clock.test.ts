import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { WorkingCalendar } from '../deadline/index.ts';
import { clockOfPeople } from './clock.ts';

const QUARTER = 15 * 60_000;
const DAY = 86_400_000;
const MONDAY = Date.parse('2026-01-05T00:00:00Z');
const HOURS = [
  ['08:00', '12:00'],
  ['13:00', '17:00'],
] as const;
const calendar: WorkingCalendar = {
  ...{ key: 'c', name: 'C', zone: 'UTC', holidays: [{ date: '2026-01-07', name: 'Closed' }] },
  week: [HOURS, HOURS, HOURS, HOURS, HOURS, [], []],
};

/** Whether it is open in the quarter of an hour that begins then, as the calendar reads. */
function isOpen(at: number): boolean {
  const date = new Date(at);
  const hour = date.getUTCHours();
  return (
    date.getUTCDay() % 6 !== 0 &&
    !date.toISOString().startsWith('2026-01-07') &&
    ((hour >= 8 && hour < 12) || (hour >= 13 && hour < 17))
  );
}

const quarter = (most: number) => fc.integer({ min: 0, max: most }).map((n) => MONDAY + n * QUARTER);

it('adds up the time of some people as a reading quarter by quarter of an hour', () => {
  let [gone, besides] = [0, 0];
  fc.assert(
    fc.property(
      fc.array(
        fc.record({ person: fc.constantFrom('a', 'b', 'z'), from: quarter(900), days: fc.integer({ min: 0, max: 5 }) }),
        { maxLength: 4 },
      ),
      fc.tuple(quarter(900), quarter(900)),
      // One of them may work by a roster: whenever they are on duty, also where the calendar is closed.
      fc.option(fc.uniqueArray(fc.nat(200), { maxLength: 12 })),
      (absences, [one, other], shifts) => {
        const duties = (shifts ?? []).toSorted((a, b) => a - b).map((n) => MONDAY + n * 5 * QUARTER);
        const rostered = shifts
          ? [{ person: 'b', duties: duties.map((begins) => ({ from: begins, to: begins + 4 * QUARTER })) }]
          : [];
        const works = (person: string, at: number): boolean =>
          person === 'b' && shifts ? duties.some((begins) => begins <= at && at < begins + 4 * QUARTER) : isOpen(at);
        const away = absences.map(({ person, from, days }) => ({
          person,
          from,
          to: days === 0 ? null : from + days * DAY,
        }));
        const [from, to] = one < other ? [one, other] : [other, one];
        const isAway = (person: string, at: number): boolean =>
          away.some((each) => each.person === person && each.from <= at && (each.to ?? at + 1) > at);
        let slowly = 0;
        for (let at = from; at < to; at += QUARTER) {
          const here = ['a', 'b'].filter((person) => works(person, at) && !isAway(person, at)).length;
          if (isOpen(at) && here < 2) gone += 1;
          if (!isOpen(at) && here > 0) besides += 1;
          slowly += (QUARTER * here) / 2;
        }
        const clock = clockOfPeople(calendar, ['a', 'b'], { away, rostered }, [MONDAY, MONDAY + 12 * DAY]);
        expect(clock.between(from, to)).toBeCloseTo(slowly, 3);
      },
    ),
  );
  expect(Math.min(gone, besides)).toBeGreaterThan(100);
});
