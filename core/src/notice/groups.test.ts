import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { enoughFor, groupsIn, isCrossed } from './groups.ts';

describe('a group', () => {
  it('is that of each value of a field, once, or all together', () => {
    expect(groupsIn({ skill: 'winch' }, 'skill')).toEqual(['winch']);
    expect(groupsIn({ skills: ['winch', 'rescue', 'winch'] }, 'skills')).toEqual(['winch', 'rescue']);
    expect([groupsIn({}, 'skill'), groupsIn({ skill: null as never }, 'skill')]).toEqual([[], []]);
    expect([groupsIn({ n: 0, yes: false }, 'n'), groupsIn({ n: 0, yes: false }, 'yes')]).toEqual([[0], [false]]);
    expect([groupsIn({}, null), groupsIn({}, 'toString')]).toEqual([[null], []]);
  });

  it('is told of once each time it becomes too small or too large, however it goes on', () => {
    const on = fc.record({ counts: fc.constantFrom('fewer' as const, 'more' as const), than: fc.nat(5) });
    fc.assert(
      fc.property(on, fc.array(fc.nat(9), { minLength: 1, maxLength: 30 }), (of, counts) => {
        // Somebody who looks at each count, and rings when a lamp goes on.
        let lamp: boolean | null = null;
        let rung = 0;
        for (const count of counts) {
          const shines = of.counts === 'fewer' ? count < of.than : count > of.than;
          if (shines && lamp === false) rung += 1;
          lamp = shines;
        }
        const told = counts.slice(1).filter((count, at) => isCrossed(of, counts[at] ?? 0, count)).length;
        expect(told).toBe(rung);
      }),
    );
  });

  it('is counted no further than makes a difference', () => {
    const on = fc.record({ counts: fc.constantFrom('fewer' as const, 'more' as const), than: fc.nat(5) });
    fc.assert(
      fc.property(on, fc.nat(20), fc.boolean(), fc.boolean(), (of, others, had, has) => {
        const short = Math.min(others, enoughFor(of));
        expect(isCrossed(of, short + Number(had), short + Number(has))).toBe(
          isCrossed(of, others + Number(had), others + Number(has)),
        );
      }),
    );
  });
});
