import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween, daysLater, daysOf, monthLater, movedBy, placed } from './days.ts';

const someDay = fc.integer({ min: 0, max: 20_000 }).map((days) => daysLater('1990-01-01', days));

describe('days', () => {
  it('are those of a week from Monday on, or of a month in whole weeks', () => {
    expect(daysOf('week', '2026-11-26')).toEqual([
      ...['2026-11-23', '2026-11-24', '2026-11-25', '2026-11-26', '2026-11-27', '2026-11-28', '2026-11-29'],
    ]);
    const november = daysOf('month', '2026-11-26');
    expect([november[0], november.at(-1), november.length]).toEqual(['2026-10-26', '2026-12-06', 42]);
    fc.assert(
      fc.property(someDay, (day) => {
        const month = daysOf('month', day);
        expect(month.length % 7).toBe(0);
        expect(new Date(`${month[0]}T00:00:00Z`).getUTCDay()).toBe(1);
        // Every day of the month is there, and a week at each end at most of others.
        const own = month.filter((each) => each.startsWith(day.slice(0, 7)));
        const [year, of] = day.split('-').map(Number) as [number, number];
        expect(own).toHaveLength(new Date(year, of, 0).getDate());
        expect(month.length - own.length).toBeLessThan(13);
      }),
    );
  });

  it('go on over the end of a year, and over a clock change', () => {
    expect([monthLater('2026-11-26', 2), monthLater('2026-01-31', -1)]).toEqual(['2027-01-01', '2025-12-01']);
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect([movedBy('2026-11-26', 6), movedBy('2026-11-26T08:30', -1)]).toEqual(['2026-12-02', '2026-11-25T08:30']);
  });
});

describe('what lasts', () => {
  it('stands in rows in which no two share a day, each where it is and as long as it lasts', () => {
    const item = fc.record({ begins: fc.nat(20), lasts: fc.option(fc.nat(9)), time: fc.constantFrom('', 'T08:00') });
    fc.assert(
      fc.property(fc.array(item, { maxLength: 30 }), (list) => {
        const items = list.map(({ begins, lasts, time }) => ({
          begins: daysLater('2026-11-16', begins) + time,
          ends: lasts === null ? null : daysLater('2026-11-16', begins + lasts),
        }));
        const days = daysOf('week', '2026-11-23');
        const bars = placed(items, days);
        // A slow reading: which of the days each is on.
        const on = ({ begins, ends }: (typeof items)[number]): readonly string[] =>
          days.filter((day) => day >= begins.slice(0, 10) && day <= (ends ?? begins).slice(0, 10));
        expect(new Set(bars.map((bar) => bar.item))).toEqual(new Set(items.filter((each) => on(each).length > 0)));
        const held = new Set<string>();
        for (const { item: each, from, to, row, isBefore, isAfter } of bars) {
          expect(days.slice(from, to + 1)).toEqual(on(each));
          expect([isBefore, isAfter]).toEqual([
            each.begins.slice(0, 10) < '2026-11-23',
            (each.ends ?? each.begins).slice(0, 10) > '2026-11-29',
          ]);
          for (let day = from; day <= to; day += 1) {
            expect(held.has(`${row} ${day}`)).toBe(false);
            held.add(`${row} ${day}`);
          }
        }
      }),
    );
  });
});
