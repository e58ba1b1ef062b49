import { CalendarDate } from '@tolvek/core/expression';
import { said } from '@tolvek/words';
import { all } from '@tolvek/words/all';
import { addTexts, LANGUAGES, newTexts, speech } from '@tolvek/words/speech';
import * as fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { speak } from '../wire/words.ts';
import { readDay, readMoment } from './typedDay.ts';

const texts = newTexts('en');
for (const language of LANGUAGES) addTexts(texts, language, all[language]);

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

  it.each(LANGUAGES)('is read back as it is shown, in %s', async (language) => {
    await speak(language);
    const days = fc.integer({ min: 0, max: 20_000 }).map((n) => new CalendarDate(n + 10_000).toString());
    fc.assert(
      fc.property(days, (day) => {
        const { told } = speech(texts, () => ({ language, zone: 'UTC', desk: '' }));
        expect(readDay(told(said('values:date', { day })), TODAY)).toBe(day);
        const moment = `${day}T07:05`;
        expect(readMoment(told(said('values:dateTime', { moment })), `${TODAY}T12:00`)).toBe(moment);
      }),
    );
    await speak('en');
  });

  describe('in German', () => {
    beforeAll(() => speak('de'));
    afterAll(() => speak('en'));
    it.each([
      ['3. Dez', '2026-12-03'],
      ['3. Dezember', '2026-12-03'],
      ['03.12.', '2026-12-03'],
      ['3.12.2026', '2026-12-03'],
      ['morgen', '2026-11-24'],
      ['übermorgen', '2026-11-25'],
      ['Freitag', '2026-11-27'],
      ['in 2 Wochen', '2026-12-07'],
      // Who reads one language may write another.
      ['3 dec', '2026-12-03'],
      ['tomorrow', '2026-11-24'],
      ['irgendwann', null],
      ['3. Dez oder so', null],
    ])('%s', (typed, day) => expect(readDay(typed, TODAY)).toBe(day));
    it.each([
      ['morgen 14:30', '2026-11-24T14:30'],
      ['morgen um 14 Uhr', '2026-11-24T14:00'],
      ['3. Dez', null],
    ])('%s', (typed, moment) => expect(readMoment(typed, `${TODAY}T12:00`)).toBe(moment));
  });

  it('in English, German is understood as well', () => {
    expect(['morgen', '3. Dez', 'Freitag'].map((typed) => readDay(typed, TODAY))).toEqual([
      ...['2026-11-24', '2026-12-03', '2026-11-27'],
    ]);
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
