import type { AnswerOf } from '@tolvek/contract';
import * as fc from 'fast-check';
import { expect, it } from 'vitest';
import { coverageOf, matrixOf } from './skillMatrix.ts';

type Person = AnswerOf<'skills'>['people'][number];
const SKILLS = ['winch', 'diving', 'rescue'].map((key) => ({ key }));
const held = fc.record({
  number: fc.nat(99).map((n) => `SK-${n}`),
  skill: fc.constantFrom('winch', 'diving', 'gone'),
  level: fc.option(fc.integer({ min: 1, max: 5 })),
  checked: fc.option(fc.constantFrom('2024-01-31', '2026-01-31', '2026-11-01')),
});
const people: fc.Arbitrary<readonly Person[]> = fc
  .array(fc.array(held, { maxLength: 5 }), { maxLength: 5 })
  .map((all) => all.map((each, n) => ({ id: `p${n}`, name: `Person ${n}`, teams: [], held: each })));

it('shows of each skill the best that somebody has, and counts those who are good enough and checked in time', () => {
  const met = { filled: 0, empty: 0, able: 0 };
  fc.assert(
    fc.property(people, fc.integer({ min: 0, max: 5 }), fc.constantFrom(null, 1, 12), (some, least, months) => {
      const today = '2026-11-30';
      const since = months === null ? '' : months === 1 ? '2026-10-30' : '2025-11-30';
      for (const { person, cells } of matrixOf(some, SKILLS)) {
        for (const [place, cell] of cells.entries()) {
          const all = person.held.filter(({ skill }) => skill === SKILLS[place]?.key);
          met[cell ? 'filled' : 'empty'] += 1;
          expect(cell === null).toBe(all.length === 0);
          for (const each of cell ? all : []) {
            expect((cell?.level ?? 0) >= (each.level ?? 0)).toBe(true);
            if ((cell?.level ?? 0) === (each.level ?? 0))
              expect((cell?.checked ?? '') >= (each.checked ?? '')).toBe(true);
          }
        }
      }
      const able = coverageOf(some, 'winch', { least, months, today });
      met.able += able.length;
      expect(able).toEqual(
        some
          .filter((person) =>
            person.held.some(
              ({ skill, level, checked }) =>
                skill === 'winch' &&
                (level ?? 99) >= least &&
                (months === null || (checked ?? '') >= since) &&
                (months === null || checked !== null),
            ),
          )
          .map(({ name }) => name),
      );
    }),
    { numRuns: 400 },
  );
  expect(Math.min(...Object.values(met))).toBeGreaterThan(100);
});
