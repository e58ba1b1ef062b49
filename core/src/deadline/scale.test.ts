import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scaleOf, type WorkingCalendar } from './index.ts';

const HOUR = 3_600_000;
const WEEKDAY = [
  ['08:00', '12:30'],
  ['13:15', '17:30'],
] as const;
const desk: WorkingCalendar = {
  ...{ key: 'desk', name: 'Desk', zone: 'Europe/Dublin', holidays: [{ date: '2026-11-25', name: 'Storm' }] },
  week: [WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, [], []],
};
// A week in which the clock is put on is among them.
const START = Date.parse('2026-03-23T00:00:00Z');
const moment = fc.integer({ min: 0, max: 24 * 400 }).map((quarters) => START + (quarters * HOUR) / 4);

/** Whether the desk is open at a moment, read off its clock. */
const clock = new Intl.DateTimeFormat('en-GB', {
  ...{ timeZone: 'Europe/Dublin', weekday: 'short', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
});
function isOpenAt(at: number): boolean {
  const shown = Object.fromEntries(clock.formatToParts(at).map(({ type, value }) => [type, value]));
  const time = `${shown.hour}:${shown.minute}`;
  if (shown.weekday === 'Sat' || shown.weekday === 'Sun') return false;
  return (time >= '08:00' && time < '12:30') || (time >= '13:15' && time < '17:30');
}

describe('a scale of working time', () => {
  it('gives every open quarter of an hour the same room, and closed ones none', () => {
    let steps = 0;
    fc.assert(
      fc.property(moment, fc.integer({ min: 1, max: 24 * 12 * 4 }), (from, quarters) => {
        const to = from + (quarters * HOUR) / 4;
        const open = Array.from({ length: quarters }, (_, n) => isOpenAt(from + (n * HOUR) / 4));
        const whole = open.filter(Boolean).length;
        if (whole === 0) return;
        const { place } = scaleOf(desk, from, to);
        let before = 0;
        for (const [n, isOpen] of open.entries()) {
          expect(place(from + (n * HOUR) / 4)).toBeCloseTo(before / whole, 9);
          if (isOpen) before += 1;
          steps += 1;
        }
        expect([place(to), place(from - HOUR), place(to + 99 * HOUR)]).toEqual([1, 0, 1]);
      }),
      { numRuns: 40 },
    );
    expect(steps).toBeGreaterThan(5_000);
  });

  it('marks the days on which something is open where that begins, few enough to be read', () => {
    const from = Date.parse('2026-11-23T10:42:00Z');
    const { days } = scaleOf(desk, from, Date.parse('2026-12-01T17:30:00Z'));
    expect(days.map(({ at }) => new Date(at).toISOString())).toEqual([
      ...['2026-11-24', '2026-11-26', '2026-11-27', '2026-11-30', '2026-12-01'].map((day) => `${day}T08:00:00.000Z`),
    ]);
    expect(days.every(({ place }, n) => place > (days[n - 1]?.place ?? 0))).toBe(true);
    const year = scaleOf(desk, from, from + 365 * 24 * HOUR);
    expect(year.days.length).toBeGreaterThan(5);
    expect(year.days.length).toBeLessThanOrEqual(9);
  });

  it('draws time itself where nothing is open', () => {
    const saturday = Date.parse('2026-11-28T00:00:00Z');
    const { place, days } = scaleOf(desk, saturday, saturday + 20 * HOUR);
    expect([place(saturday + 5 * HOUR), days]).toEqual([0.25, []]);
    expect(scaleOf(desk, saturday, saturday).place(saturday + 1)).toBe(1);
  });
});
