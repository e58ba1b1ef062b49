import { said } from '@tolvek/words';
import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addWorkingTime,
  endOfDay,
  endOfWorkingDay,
  finishRule,
  fuseAt,
  isOpen,
  lengthOf,
  NeverOpen,
  opensOn,
  pauseDeadline,
  planDeadline,
  resumeDeadline,
  ringInWords,
  ringsBefore,
  subtractWorkingTime,
  timersFor,
  type WorkingCalendar,
  wallClockAt,
  workingTimeBetween,
} from './index.ts';

const HOUR = 3_600_000;
const WEEKDAY = [
  ['08:00', '12:30'],
  ['13:15', '17:30'],
] as const;
const desk: WorkingCalendar = {
  key: 'desk',
  name: 'Desk',
  zone: 'Europe/Dublin',
  week: [WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, [], []],
  holidays: [{ date: '2026-12-25', name: 'Christmas' }],
};
const night: WorkingCalendar = {
  ...desk,
  name: 'Night watch',
  week: [
    [['00:00', '24:00']],
    [['00:00', '24:00']],
    [['00:00', '24:00']],
    [['00:00', '24:00']],
    [['00:00', '24:00']],
    [['00:00', '24:00']],
    [['00:00', '24:00']],
  ],
  holidays: [],
};
const plan = finishRule(4 * HOUR, 0);
const at = (iso: string): number => Date.parse(iso);
/** Moments over four years, so that clock changes, holidays and leap days are among them. */
const moments = fc
  .integer({ min: at('2025-01-01T00:00:00Z') / 1000, max: at('2028-12-31T00:00:00Z') / 1000 })
  .map((seconds) => seconds * 1000);
const lengths = fc.integer({ min: 0, max: 200 * 60 }).map((minutes) => minutes * 60_000);

describe('working time', () => {
  it('is added and measured the same: from start to start + n there are n', () => {
    fc.assert(
      fc.property(moments, lengths, (start, amount) => {
        expect(workingTimeBetween(desk, start, addWorkingTime(desk, start, amount))).toBe(amount);
      }),
    );
  });

  it('is taken back the way it was added', () => {
    fc.assert(
      fc.property(moments, lengths, (end, amount) => {
        expect(workingTimeBetween(desk, subtractWorkingTime(desk, end, amount), end)).toBe(amount);
      }),
    );
  });

  it('adds up: a to b and b to c is a to c', () => {
    fc.assert(
      fc.property(moments, moments, moments, (a, b, c) => {
        expect(workingTimeBetween(desk, a, b) + workingTimeBetween(desk, b, c)).toBe(workingTimeBetween(desk, a, c));
      }),
      { numRuns: 30 },
    );
  });

  it('agrees with counting every open minute', () => {
    fc.assert(
      fc.property(moments, fc.integer({ min: 0, max: 10 * 24 * 60 }), (start, minutes) => {
        const from = start - (start % 60_000);
        let open = 0;
        for (let minute = 0; minute < minutes; minute += 1) if (isOpen(desk, from + minute * 60_000)) open += 1;
        expect(workingTimeBetween(desk, from, from + minutes * 60_000)).toBe(open * 60_000);
      }),
      { numRuns: 12 },
    );
  });

  it('counts the lost and the repeated hour when the clocks change', () => {
    // In Dublin the clocks go forward on 29 March 2026 at 01:00 and back on 25 October at 02:00.
    expect(workingTimeBetween(night, at('2026-03-29T00:00:00Z'), at('2026-03-29T23:00:00Z'))).toBe(23 * HOUR);
    expect(workingTimeBetween(night, at('2026-10-24T23:00:00Z'), at('2026-10-26T00:00:00Z'))).toBe(25 * HOUR);
    // The desk opens at 08:00 by the wall clock on both sides of the change.
    expect(isOpen(desk, at('2026-03-27T08:00:00Z'))).toBe(true);
    expect(isOpen(desk, at('2026-03-30T07:00:00Z'))).toBe(true);
    expect(isOpen(desk, at('2026-03-30T06:59:00Z'))).toBe(false);
  });

  it('opens on the working day so many before or after another, as a reading day by day', () => {
    const met = { before: 0, same: 0, after: 0 };
    fc.assert(
      fc.property(moments, fc.integer({ min: -12, max: 12 }), (moment, days) => {
        const day = (ms: number): string => wallClockAt(ms, desk.zone).slice(0, 10);
        /** The first minute of a day in which it is open, an eighth of an hour after the other. */
        const opening = (of: string): number | null => {
          for (let at = Date.parse(`${of}T00:00:00Z`) - 3 * HOUR; day(at) <= of; at += HOUR / 8)
            if (day(at) === of && isOpen(desk, at)) return at;
          return null;
        };
        let of = day(moment);
        let left = Math.abs(days);
        for (;;) {
          const opens = opening(of);
          if (left === 0 && opens !== null) {
            expect(opensOn(desk, moment, days)).toBe(opens);
            met[days < 0 ? 'before' : days === 0 ? 'same' : 'after'] += 1;
            return;
          }
          of = new Date(Date.parse(`${of}T12:00:00Z`) + (days > 0 ? 24 : -24) * HOUR).toISOString().slice(0, 10);
          if (opening(of) !== null && left > 0) left -= 1;
        }
      }),
      { numRuns: 60 },
    );
    expect(Math.min(...Object.values(met))).toBeGreaterThan(1);
  });

  it('rings on the morning of a working day before or after it is due, and of that day itself', () => {
    // Due on Friday evening, as its day ends.
    const deadline = planDeadline(desk, at('2026-11-23T09:00:00Z'), { days: 4 });
    const rings = [-3, 0, 1].map((days) => ({ key: `${days}`, at: 0, days, tells: [], does: [] }));
    expect(
      timersFor(deadline, { rings }, desk).map(({ ring, at: when }) => [ring, new Date(when).toISOString()]),
    ).toEqual([
      ['-3', '2026-11-24T08:00:00.000Z'],
      ['0', '2026-11-27T08:00:00.000Z'],
      ['1', '2026-11-30T08:00:00.000Z'],
    ]);
    expect(rings.map(ringsBefore)).toEqual([true, true, false]);
    expect(rings.map((ring) => english(ringInWords(ring)))).toEqual([
      'in the morning, 3 working days before',
      'in the morning of the day it is due',
      'in the morning, 1 working day after',
    ]);
    // What would have been before it began reminds of nothing.
    expect(
      timersFor(deadline, { rings: [{ ...rings[0], key: 'far', at: 0, days: -9, tells: [], does: [] }] }, desk),
    ).toEqual([]);
  });

  it('leaves out lunch, nights, weekends and holidays', () => {
    expect(addWorkingTime(desk, at('2026-11-23T12:00:00Z'), HOUR)).toBe(at('2026-11-23T13:45:00Z'));
    expect(addWorkingTime(desk, at('2026-11-27T17:00:00Z'), HOUR)).toBe(at('2026-11-30T08:30:00Z'));
    expect(endOfWorkingDay(desk, at('2026-12-24T10:00:00Z'), 1)).toBe(at('2026-12-28T17:30:00Z'));
  });

  it('counts a request that comes after closing as arriving on the next working day', () => {
    expect(endOfWorkingDay(desk, at('2026-11-23T10:42:00Z'), 2)).toBe(at('2026-11-25T17:30:00Z'));
    expect(endOfWorkingDay(desk, at('2026-11-27T18:00:00Z'), 2)).toBe(at('2026-12-02T17:30:00Z'));
    expect(endOfWorkingDay(desk, at('2026-11-28T10:00:00Z'), 0)).toBe(at('2026-11-30T17:30:00Z'));
  });

  it('ends a day by the wall clock, also when the clocks change', () => {
    expect(endOfDay(desk, at('2026-11-23T10:42:00Z'))).toBe(at('2026-11-23T23:59:59.999Z'));
    expect(endOfDay(desk, at('2026-03-29T00:30:00Z'))).toBe(at('2026-03-29T22:59:59.999Z'));
    expect(endOfDay(desk, at('2026-10-25T00:30:00Z'))).toBe(at('2026-10-25T23:59:59.999Z'));
  });

  it('says so when a calendar never opens', () => {
    expect(() =>
      addWorkingTime({ ...desk, week: [[], [], [], [], [], [], []] }, at('2026-11-23T10:00:00Z'), HOUR),
    ).toThrow(NeverOpen);
  });
});

describe('a deadline', () => {
  const start = at('2026-11-23T10:42:00Z');
  const deadline = planDeadline(desk, start, 2);

  it('keeps what was left through any pause', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 0, max: 400 }), (before, length) => {
        const pausedAt = start + before * HOUR;
        const resumedAt = pausedAt + length * HOUR;
        const resumed = resumeDeadline(pauseDeadline(deadline, pausedAt), desk, resumedAt);
        expect(workingTimeBetween(desk, resumedAt, resumed.due)).toBe(workingTimeBetween(desk, pausedAt, deadline.due));
      }),
    );
  });

  it('reminds before and escalates at its end, and not while it is paused', () => {
    const [reminder, escalation] = timersFor(deadline, plan, desk);
    expect(reminder).toEqual({ ring: 'reminder', at: at('2026-11-25T13:30:00Z') });
    expect(escalation).toEqual({ ring: 'escalation', at: deadline.due });
    expect(timersFor(pauseDeadline(deadline, start + HOUR), plan, desk)).toEqual([]);
  });

  it('leaves out a reminder that would stand before the start', () => {
    const tight = planDeadline(desk, at('2026-11-23T15:00:00Z'), 0);
    expect(timersFor(tight, plan, desk).map((timer) => timer.ring)).toEqual(['escalation']);
  });

  it('draws its fuse: burned, paused, late, done', () => {
    expect(english(fuseAt(deadline, plan, desk, start, null))).toMatchObject({
      state: 'calm',
      burned: [],
      words: '2.5 days left',
    });
    expect(english(fuseAt(deadline, plan, desk, at('2026-11-25T14:00:00Z'), null))).toMatchObject({
      state: 'soon',
      words: '3 hrs 30 mins left',
    });
    expect(english(fuseAt(deadline, plan, desk, at('2026-11-26T09:00:00Z'), null))).toMatchObject({
      state: 'late',
      words: '1 hr overdue',
    });
    expect(
      english(
        fuseAt(pauseDeadline(deadline, at('2026-11-25T15:30:00Z')), plan, desk, at('2026-11-27T09:00:00Z'), null),
      ),
    ).toMatchObject({ state: 'paused', words: 'paused, 2 hrs left' });
    expect(english(fuseAt(deadline, plan, desk, at('2026-11-30T09:00:00Z'), at('2026-11-24T09:00:00Z')))).toMatchObject(
      {
        state: 'done',
        words: 'finished in time',
      },
    );
  });

  it('tells lengths as people do', () => {
    expect(
      [40 * 60_000, 2 * HOUR + 10 * 60_000, 9 * HOUR, 3 * 8.75 * HOUR].map((ms) =>
        english(said('deadlines:left', { length: lengthOf(ms, desk) })),
      ),
    ).toEqual(['40 mins left', '2 hrs 10 mins left', '9 hrs left', '3 days left']);
  });
});
