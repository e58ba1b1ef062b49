import fc from 'fast-check';
import { expect, it } from 'vitest';
import { canDo, isFresh, type SkillHeld } from './index.ts';

const DAY = 86_400_000;
const day = (n: number): string => new Date(Date.UTC(2024, 0, 1) + n * DAY).toISOString().slice(0, 10);
const days = fc.nat(1_200).map(day);

/** The same day so many months before, counted on fingers; the last of its month where there is none. */
function monthsBefore(written: string, months: number): string {
  let [year = 0, month = 0] = written.split('-').map(Number);
  for (let n = 0; n < months; n += 1) {
    month -= 1;
    if (month === 0) [year, month] = [year - 1, 12];
  }
  for (let date = Number(written.slice(8)); ; date -= 1) {
    const found = new Date(Date.UTC(year, month - 1, date));
    if (found.getUTCMonth() === month - 1) return found.toISOString().slice(0, 10);
  }
}

it('counts a check as long as it is not older than so many months, to the day', () => {
  const met = { fresh: 0, stale: 0 };
  fc.assert(
    fc.property(days, days, fc.integer({ min: 1, max: 30 }), (checked, today, months) => {
      const is = checked >= monthsBefore(today, months);
      expect(isFresh(checked, months, today)).toBe(is);
      met[is ? 'fresh' : 'stale'] += 1;
    }),
    { numRuns: 2_000 },
  );
  expect(Math.min(met.fresh, met.stale)).toBeGreaterThan(100);
  expect([isFresh('2026-02-28', 1, '2026-03-31'), isFresh('2026-02-27', 1, '2026-03-31')]).toEqual([true, false]);
  expect(isFresh(null, 600, '2026-11-30')).toBe(false);
});

it('is at its level by one entry, and checked in time by the same', () => {
  const skill = { skill: 'winch', checked: '2026-10-01', level: 3 } satisfies SkillHeld;
  const asked = { skill: 'winch', least: 3, months: 12 };
  const can = (held: readonly SkillHeld[], more: Partial<typeof asked> = {}): boolean =>
    canDo(held, { ...asked, ...more }, '2026-11-30');
  expect([can([skill]), can([{ ...skill, level: 2 }]), can([{ ...skill, checked: '2025-11-29' }])]).toEqual([
    true,
    false,
    false,
  ]);
  // A high level of long ago and a low one of today are no high level of today.
  expect(
    can([
      { ...skill, checked: '2020-01-01' },
      { ...skill, level: 1 },
    ]),
  ).toBe(false);
  expect([can([{ ...skill, level: null }]), can([{ ...skill, skill: 'diving' }]), can([])]).toEqual([
    true,
    false,
    false,
  ]);
  expect(canDo([{ ...skill, checked: null }], { skill: 'winch', least: 3 }, '2026-11-30')).toBe(true);
});
