import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { minutesOf, nextStretch, OFFICE_WEEK, type SpecialDay, withDay, withDays } from './calendarDraft.ts';

describe('a calendar that is edited', () => {
  it('offers hours after those of a day, within the day', () => {
    expect(nextStretch([])).toEqual(['09:00', '17:00']);
    expect(nextStretch([['08:00', '12:00']])).toEqual(['13:00', '15:00']);
    const clock = fc
      .integer({ min: 0, max: 1_380 })
      .map(
        (minutes) => `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`,
      );
    fc.assert(
      fc.property(clock, (until) => {
        const [from, to] = nextStretch([['00:00', until]]).map(minutesOf) as [number, number];
        expect(from).toBeLessThan(to);
        expect(to).toBeLessThanOrEqual(1_440);
        if (minutesOf(until) <= 1_320) expect(from).toBeGreaterThan(minutesOf(until));
      }),
    );
  });

  it('takes days in by their date, each once, and leaves what was there', () => {
    const mine: readonly SpecialDay[] = [{ date: '2026-12-24', name: 'Half day', hours: [['09:00', '12:00']] }];
    const brought = [
      { date: '2026-12-25', name: 'Christmas Day' },
      { date: '2026-12-24', name: 'Christmas Eve' },
      { date: '2026-01-01', name: 'New Year’s Day' },
    ];
    expect(withDays(mine, brought).map(({ date, name }) => [date, name])).toEqual([
      ['2026-01-01', 'New Year’s Day'],
      ['2026-12-24', 'Half day'],
      ['2026-12-25', 'Christmas Day'],
    ]);
    expect(withDays(withDays(mine, brought), brought)).toEqual(withDays(mine, brought));
  });

  it('changes one day of the week', () => {
    const week = withDay(OFFICE_WEEK, 5, [['07:00', '13:00']]);
    expect(week.map((day) => day.length)).toEqual([2, 2, 2, 2, 2, 1, 0]);
    expect(OFFICE_WEEK[5]).toEqual([]);
  });
});
