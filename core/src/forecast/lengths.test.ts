import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Lengths, type Took } from './lengths.ts';

const tooks = fc.array(
  fc.record({ length: fc.integer({ min: 1, max: 40 }), ended: fc.boolean(), next: fc.integer({ min: 0, max: 4 }) }),
  { minLength: 1, maxLength: 30 },
);

/** The estimate by its definition: for each length at which one ended, the share of those there who did not. */
function byDefinition(all: readonly Took[], length: number): number {
  const lengths = [...new Set(all.filter(({ ended }) => ended).map((each) => each.length))];
  return lengths
    .filter((each) => each <= length)
    .reduce((share, at) => {
      const there = all.filter((each) => each.length >= at).length;
      const ended = all.filter((each) => each.length === at && each.ended).length;
      return share * (1 - ended / there);
    }, 1);
}

describe('lengths', () => {
  it('are estimated as by the definition, as far as one is known that took so long', () => {
    let lasting = 0;
    fc.assert(
      fc.property(tooks, fc.integer({ min: 0, max: 40 }), (all, length) => {
        const most = Math.max(0, ...all.filter(({ ended }) => ended).map((each) => each.length));
        const share = byDefinition(all, length);
        if (length > most || share === 0) return;
        lasting += all.some((each) => !each.ended && each.length <= length) ? 1 : 0;
        expect(new Lengths(all).longerThan(length)).toBeCloseTo(share, 9);
      }),
    );
    expect(lasting).toBeGreaterThan(5);
  });

  it('are drawn so that as many take longer as have', () => {
    fc.assert(
      fc.property(tooks, fc.integer({ min: 0, max: 40 }), (all, already) => {
        const lengths = new Lengths(all);
        if (lengths.size === 0) return;
        const some = Array.from({ length: 400 }, (_, place) => lengths.draw(already, (place + 0.5) / 400));
        for (const { length, next } of some) {
          expect(length).toBeGreaterThanOrEqual(already);
          // What comes after it came after one that is known.
          expect(all.some((each) => each.ended && each.next === next)).toBe(true);
        }
        for (const each of all.filter(({ ended, length }) => ended && length > already)) {
          const longer = some.filter(({ length }) => length > each.length).length / 400;
          const known = byDefinition(all, each.length) / byDefinition(all, already);
          expect(Math.abs(longer - known)).toBeLessThan(0.01);
        }
      }),
    );
  });

  it('go on beyond all that is known, longer the longer it lasts already', () => {
    const lengths = new Lengths([2, 4, 6].map((length) => ({ length, ended: true, next: 1 })));
    expect(lengths.draw(10, 0.5).length).toBeCloseTo(10 + 4 * Math.LN2, 9);
    expect(lengths.longerThan(14)).toBeLessThan(lengths.longerThan(10));
    expect(lengths.longerThan(6)).toBeGreaterThan(0);
  });
});
