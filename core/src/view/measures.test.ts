import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Field } from '../register/index.ts';
import { conditionFor } from './conditionFor.ts';
import { beginOf, enoughIn, measured, nextOf, stretchesBetween, totalled } from './measures.ts';
import { STRETCHES } from './view.ts';

const someDay = fc
  .integer({ min: 0, max: 30_000 })
  .map((days) => new Date(Date.UTC(1980, 0, 1 + days)).toISOString().slice(0, 10));

describe('stretches of time', () => {
  it('follow one another without a gap, and each day is in one of them', () => {
    fc.assert(
      fc.property(someDay, fc.constantFrom(...STRETCHES), (day, stretch) => {
        const first = beginOf(day, stretch);
        const next = nextOf(first, stretch);
        expect([first <= day, day < next]).toEqual([true, true]);
        expect([beginOf(first, stretch), beginOf(next, stretch)]).toEqual([first, next]);
        const before = new Date(Date.parse(next) - 86_400_000).toISOString().slice(0, 10);
        expect(beginOf(before, stretch)).toBe(first);
      }),
    );
    expect(beginOf('2026-11-29', 'week')).toBe('2026-11-23');
    expect([nextOf('2026-12-01', 'month'), nextOf('2028-01-01', 'year')]).toEqual(['2027-01-01', '2029-01-01']);
  });

  it('are all there are from one day to another, or the last of them', () => {
    expect(stretchesBetween('2026-11-20', '2026-12-08', 'week', 9)).toEqual([
      ...['2026-11-16', '2026-11-23', '2026-11-30', '2026-12-07'],
    ]);
    expect(stretchesBetween('2026-01-31', '2026-12-08', 'month', 2)).toEqual(['2026-11-01', '2026-12-01']);
    expect(stretchesBetween('2026-12-08', '2026-12-01', 'day', 5)).toEqual([]);
  });
});

describe('what is measured', () => {
  it('is null of no figures, but for how many and their sum', () => {
    const all = ['count', 'sum', 'mean', 'median', 'least', 'most'] as const;
    expect(all.map((is) => measured(is, [], 3))).toEqual([3, 0, null, null, null, null]);
    expect(all.map((is) => measured(is, [4, 1, 10], 5))).toEqual([5, 15, 5, 4, 1, 10]);
    expect(measured('median', [4, 1, 10, 5], 4)).toBe(4.5);
  });
});

describe('a total', () => {
  it('is a rate over what holds both, or the share of those of which it can be said', () => {
    const rate = { is: 'rate', of: 'cost', per: 'hours' } as const;
    const share = { is: 'share', when: 'cost > 3', word: 'dear' } as const;
    expect(totalled(rate, [[10, 2], null, [20, 4]])).toBe(5);
    expect([totalled(rate, []), totalled(rate, [null, [10, 0]])]).toEqual([null, null]);
    expect(totalled(share, [true, false, null, true])).toBeCloseTo(2 / 3);
    expect([totalled(share, [null]), totalled(share, [false])]).toEqual([null, 0]);
    expect(totalled({ is: 'count', of: null }, [0, 0, 0])).toBe(3);
    expect(totalled({ is: 'mean', of: 'cost' }, [2, null, 6])).toBe(4);
  });
});

describe('what is enough', () => {
  it('is a figure as high as is wanted, of those there are', () => {
    expect([enoughIn([3, null, 5, 2], 3), enoughIn([], 0), enoughIn([null, 0], 0)]).toEqual([2, 0, 1]);
  });
});

describe('the condition of a figure', () => {
  it('is written by what the field holds', () => {
    const field = (key: string, kind: string): Field => ({ key, label: key, type: { kind } }) as unknown as Field;
    const fields = [field('area', 'choice'), field('level', 'level'), field('paid', 'yes-no')];
    const days = [field('on', 'date'), field('at', 'date-time')];
    const said = (subject: string, value: string | number | null, each?: 'week' | 'month'): string =>
      conditionFor(subject, value, [...fields, ...days], each);
    expect(said('area', 'a "b" \\')).toBe('area = "a \\"b\\" \\\\"');
    expect([said('level', 20), said('paid', 1), said('paid', 0)]).toEqual([
      'level = 20',
      'paid = true',
      'paid = false',
    ]);
    expect([said('area', null), said('request.stage', 'done')]).toEqual(['area = null', 'request.stage = "done"']);
    expect(said('on', '2026-11-23', 'week')).toBe('on >= date("2026-11-23") and on < date("2026-11-30")');
    expect(said('at', '2026-12-01', 'month')).toBe(
      'at >= date and time("2026-12-01T00:00:00") and at < date and time("2027-01-01T00:00:00")',
    );
  });
});
