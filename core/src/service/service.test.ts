import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type WorkingCalendar, workingTimeBetween } from '../deadline/index.ts';
import { Hours } from './hours.ts';
import { isBehind, lineOf, type Served, spreadOf } from './lines.ts';
import { type Course, type Standing, timesOf } from './times.ts';

const HOUR = 3_600_000;
const MONDAY = Date.parse('2026-11-23T00:00:00Z');
const CALENDAR = {
  ...{
    key: 'desk',
    name: 'Desk',
    zone: 'Europe/Berlin',
    holidays: [
      { date: '2026-11-24', name: 'Closed' },
      { date: '2026-11-28', name: 'Open', hours: [['09:00', '11:00']] },
    ],
  },
  week: [
    [
      ['08:00', '12:00'],
      ['13:00', '17:30'],
    ],
    [['08:00', '17:30']],
    [['08:00', '17:30']],
    [],
    [['22:00', '24:00']],
    [],
    [],
  ],
} as unknown as WorkingCalendar;

describe('hours of a calendar', () => {
  it('are those that are counted day by day', () => {
    const span = { min: MONDAY - 20 * 24 * HOUR, max: MONDAY + 40 * 24 * HOUR };
    const hours = new Hours(CALENDAR, span.min, span.max);
    fc.assert(
      fc.property(fc.integer(span), fc.integer(span), (a, b) => {
        const [from, to] = a < b ? [a, b] : [b, a];
        expect(hours.between(from, to)).toBe(workingTimeBetween(CALENDAR, from, to));
        expect(hours.between(to, from)).toBe(0);
      }),
    );
  });
});

const STANDING: Readonly<Record<string, Standing>> = { new: 'works', hand: 'works', waits: 'paused', done: 'over' };
const standing = (stage: string): Standing => STANDING[stage] ?? 'works';
const plain = (from: number, to: number): number => Math.max(0, to - from);

const someCourse = fc
  .record({
    moves: fc.array(fc.tuple(fc.integer({ min: 0, max: 40 }), fc.constantFrom('new', 'hand', 'waits', 'done')), {
      maxLength: 8,
    }),
    answered: fc.option(fc.integer({ min: 0, max: 200 })),
    arrived: fc.integer({ min: 0, max: 50 }),
  })
  .map(({ moves, answered, arrived }): Course => {
    let at = arrived;
    const stages = [{ at, stage: 'new' }, ...moves.map(([after, stage]) => ({ at: (at += after), stage }))];
    const last = stages.at(-1);
    return {
      arrived,
      stages,
      answered: answered === null ? null : arrived + answered,
      finished: last?.stage === 'done' ? last.at : null,
    };
  });

describe('service times', () => {
  it('are what a clock counts that is looked at each moment', () => {
    const NOW = 400;
    let finished = 0;
    fc.assert(
      fc.property(someCourse, (course) => {
        const times = timesOf(course, NOW, plain, standing);
        const counted = { first: 0, finish: 0, paused: 0 };
        for (let at = course.arrived; at < (course.finished ?? NOW); at += 1) {
          const { stage = '' } = course.stages.filter((each) => each.at <= at).at(-1) ?? {};
          if (standing(stage) === 'paused') counted.paused += 1;
          if (standing(stage) !== 'works') continue;
          counted.finish += 1;
          if (course.answered !== null && at < course.answered) counted.first += 1;
        }
        expect(times.paused).toBe(counted.paused);
        expect(times.finish).toBe(course.finished === null ? null : counted.finish);
        expect(times.first).toBe(course.answered === null ? null : counted.first);
        expect([...times.stages.values()].reduce((sum, each) => sum + each, 0)).toBe(counted.finish + counted.paused);
        finished += Number(course.finished !== null);
      }),
    );
    expect(finished).toBeGreaterThan(10);
  });

  it('stand in lines that agree with what is behind each figure', () => {
    const between = { from: 40, to: 120 };
    fc.assert(
      fc.property(fc.array(fc.tuple(someCourse, fc.option(fc.boolean())), { maxLength: 20 }), (some) => {
        const served = some.map(
          ([course, inTime]): Served => ({ course, inTime, standing, times: timesOf(course, 400, plain, standing) }),
        );
        const line = lineOf(served, between);
        for (const figure of ['came', 'went', 'open', 'late'] as const)
          expect(line[figure]).toBe(served.filter((each) => isBehind(each, figure, between)).length);
        expect(line.inTime + line.late).toBeLessThanOrEqual(line.went);
        expect(line.finish === null).toBe(line.went === 0);
      }),
    );
  });

  it('are half, and nine of ten, by their rank', () => {
    expect([spreadOf([]), spreadOf([7]), spreadOf([4, 1])]).toEqual([
      null,
      { median: 7, most: 7 },
      { median: 2.5, most: 4 },
    ]);
    expect(spreadOf([10, 9, 8, 7, 6, 5, 4, 3, 2, 1])).toEqual({ median: 5.5, most: 9 });
  });
});
