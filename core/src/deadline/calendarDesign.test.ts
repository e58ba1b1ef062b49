import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  CALENDAR,
  type Deadline,
  pauseDeadline,
  planDeadline,
  replanDeadline,
  resumeDeadline,
  type WorkingCalendar,
  workingTimeBetween,
} from './index.ts';

const HOUR = 3_600_000;
const WEEKDAY = [
  ['08:00', '12:30'],
  ['13:15', '17:30'],
] as const;
const desk: WorkingCalendar = {
  ...{ key: 'desk', name: 'Desk', zone: 'Europe/Dublin', holidays: [{ date: '2026-12-25', name: 'Christmas' }] },
  week: [WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, [], []],
};
const START = Date.parse('2026-11-23T10:00:00Z');

/** A deadline that was paused and taken up again at moments after its start, hours apart. */
const lived = fc
  .record({ days: fc.integer({ min: 1, max: 12 }), steps: fc.array(fc.integer({ min: 1, max: 90 }), { maxLength: 5 }) })
  .map(({ days, steps }): Deadline => {
    let at = START;
    return steps.reduce(
      (deadline, hours, index) => {
        at += hours * HOUR;
        return index % 2 === 0 ? pauseDeadline(deadline, at) : resumeDeadline(deadline, desk, at);
      },
      planDeadline(desk, START, days),
    );
  });

describe('a deadline counted by another calendar', () => {
  it('is the same by the same calendar, and never earlier where days are closed', () => {
    const seen = { paused: 0, moved: 0, stayed: 0 };
    fc.assert(
      fc.property(lived, fc.integer({ min: 0, max: 30 }), (deadline, after) => {
        expect(replanDeadline(deadline, desk)).toEqual(deadline);
        if (deadline.pauses.length > 0) seen.paused += 1;
        const date = new Date(START + after * 24 * HOUR).toISOString().slice(0, 10);
        const closed = { ...desk, holidays: [...desk.holidays, { date, name: 'Storm' }] };
        const again = replanDeadline(deadline, closed);
        seen[again.due === deadline.due ? 'stayed' : 'moved'] += 1;
        expect(again.due).toBeGreaterThanOrEqual(deadline.due);
        expect(again.pauses).toEqual(deadline.pauses);
        if (deadline.pauses.length > 0) return;
        // Counted one by one: the first open day is the one it arrived on, then so many more.
        const open: number[] = [];
        for (let day = START; open.length <= deadline.workingDays; day += 24 * HOUR)
          if (workingTimeBetween(closed, day - 10 * HOUR, day + 14 * HOUR) > 0) open.push(day);
        expect(Math.abs(again.due - (open.at(-1) ?? 0))).toBeLessThan(14 * HOUR);
        expect(again).toEqual(planDeadline(closed, START, deadline.workingDays));
      }),
      { numRuns: 300 },
    );
    console.log('deadlines counted by another calendar', seen);
    expect(Math.min(seen.paused, seen.moved, seen.stayed)).toBeGreaterThan(30);
  });
});

describe('a working calendar as a design', () => {
  const wrong = (some: Partial<WorkingCalendar>) => CALENDAR.findings({ ...desk, ...some }, null).map(({ at }) => at);
  it('finds what nothing could be counted by', () => {
    expect(wrong({})).toEqual([]);
    expect(wrong({ week: [[['00:00', '24:00']], [], [], [], [], [], []] })).toEqual([]);
    expect(wrong({ name: ' ' })).toEqual(['name']);
    expect(wrong({ zone: 'Europe/Nowhere' })).toEqual(['zone']);
    expect(wrong({ week: [[], [], [], [], [], [], []] })).toEqual(['week']);
    const day = (...hours: readonly (readonly [string, string])[]) => wrong({ week: [hours, [], [], [], [], [], []] });
    expect(day(['08:00', '25:00'])).toEqual(['week 0']);
    expect(day(['12:00', '08:00'])).toEqual(['week 0']);
    expect(day(['08:00', '12:00'], ['11:00', '13:00'])).toEqual(['week 0']);
    expect(wrong({ holidays: [{ date: '2026-02-30', name: 'No day' }] })).toEqual(['holidays 2026-02-30']);
    expect(wrong({ holidays: [...desk.holidays, ...desk.holidays] })).toEqual(['holidays 2026-12-25']);
  });

  it('says what differs, and puts two people’s days together', () => {
    const storm = { ...desk, holidays: [...desk.holidays, { date: '2026-11-25', name: 'Storm' }] };
    const later = { ...desk, name: 'Long hours', holidays: [...desk.holidays, { date: '2026-11-27', name: 'Move' }] };
    expect(english(CALENDAR.compare(desk, storm).map(({ words }) => words))).toEqual([
      'The closed day 25 Nov 2026, Storm is new.',
    ]);
    const { content, clashes } = CALENDAR.merge(desk, storm, later);
    expect([content.name, content.holidays.map(({ date }) => date), clashes]).toEqual([
      'Long hours',
      expect.arrayContaining(['2026-12-25', '2026-11-25', '2026-11-27']),
      [],
    ]);
  });
});
