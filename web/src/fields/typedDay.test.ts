import { CalendarDate } from '@tolvek/core/expression';
import { dateInWords, momentOfDayInWords } from '@tolvek/core/register';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDay, readMoment } from './typedDay.ts';

/** A Monday. */
const TODAY = '2026-11-23';

describe('a day, as it is typed', () => {
  it.each([
    ['2026-12-03', '2026-12-03'],
    ['3.12.2026', '2026-12-03'],
    ['3.12.', '2026-12-03'],
    ['3/12', '2026-12-03'],
    ['3 Dec', '2026-12-03'],
    ['December 3', '2026-12-03'],
    ['3 Feb', '2027-02-03'],
    ['tomorrow', '2026-11-24'],
    ['friday', '2026-11-27'],
    ['in 2 weeks', '2026-12-07'],
    ['hello', null],
    ['12', null],
    ['14:30', null],
    ['3 Dec or so', null],
    ['3 Dec to 5 Dec', null],
    ['', null],
  ])('%s', (typed, day) => expect(readDay(typed, TODAY)).toBe(day));

  it('is read back as it is shown', () => {
    const days = fc.integer({ min: 0, max: 20_000 }).map((n) => new CalendarDate(n + 10_000).toString());
    fc.assert(
      fc.property(days, (day) => {
        expect(readDay(dateInWords(day), TODAY)).toBe(day);
        expect(readMoment(momentOfDayInWords(`${day}T07:05`), `${TODAY}T12:00`)).toBe(`${day}T07:05`);
      }),
    );
  });
});

describe('a moment, as it is typed', () => {
  it.each([
    ['2026-12-03T08:00', '2026-12-03T08:00'],
    ['3 Dec 8:00', '2026-12-03T08:00'],
    ['tomorrow 14:30', '2026-11-24T14:30'],
    ['3.12.2026 17:05', '2026-12-03T17:05'],
    ['3 Dec', null],
    ['8:00', null],
  ])('%s', (typed, moment) => expect(readMoment(typed, `${TODAY}T12:00`)).toBe(moment));
});

it.each([
  ['3 Oct', '2026-10-03'],
  ['3.12.', '2025-12-03'],
  ['yesterday', '2026-11-22'],
  ['20 Nov 2024', '2024-11-20'],
])('%s is a day that has been where one is asked for', (typed, day) =>
  expect(readDay(typed, '2026-11-23', true)).toBe(day),
);
