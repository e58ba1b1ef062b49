import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Audience, asEntries, circleBy, type Entry, inOrder, type RuledGroup } from './index.ts';

const KEYS = ['a', 'b', 'c', 'd', 'e'] as const;
const word = fc.constantFrom(...KEYS, '@p', '~contact', '?me.x = 1');
const rule: fc.Arbitrary<Audience> = fc.record({
  in: fc.oneof(
    fc.record({ anyOf: fc.array(word, { maxLength: 3 }) }),
    fc.record({ allOf: fc.array(word, { maxLength: 3 }) }),
  ),
  outOf: fc.array(word, { maxLength: 2 }),
});

describe('groups with rules', () => {
  it('come after all that their rules ask about, by whichever way', () => {
    const seen = { asked: 0, through: 0, refused: 0 };
    fc.assert(
      fc.property(
        fc.dictionary(fc.constantFrom(...KEYS), rule),
        fc.array(fc.tuple(fc.constantFrom(...KEYS), fc.constantFrom(...KEYS)), { maxLength: 4 }),
        (rules, nests) => {
          // As they are set: one after the other, and none that would ask in a circle.
          const kept: RuledGroup[] = [];
          const nested: Entry[] = [];
          const isRound = (group: string, inner: string): boolean =>
            circleBy([...nested, ...kept.flatMap(asEntries)], inner, group).length > 0;
          for (const [group, inner] of nests)
            if (isRound(group, inner)) seen.refused += 1;
            else nested.push({ group, member: { group: inner }, from: null, until: null });
          for (const [key, each] of Object.entries(rules)) {
            const asks = asEntries({ key, rule: each }).flatMap(({ member }) =>
              'group' in member ? [member.group] : [],
            );
            if (asks.some((inner) => isRound(key, inner))) seen.refused += 1;
            else kept.push({ key, rule: each });
          }
          const order = inOrder(kept, nested).map(({ key }) => key);
          expect([...order].sort()).toEqual(kept.map(({ key }) => key).sort());
          // What one hangs on, found by going down as long as anything new comes.
          for (const { key } of kept) {
            const below = new Set<string>();
            for (let before = -1; before < below.size; ) {
              before = below.size;
              for (const { group, member } of [...nested, ...kept.flatMap(asEntries)])
                if ('group' in member && (group === key || below.has(group))) below.add(member.group);
            }
            for (const other of below)
              if (order.includes(other)) {
                expect(order.indexOf(other)).toBeLessThan(order.indexOf(key));
                const isAsked = asEntries({ key, rule: rules[key] as Audience }).some(
                  ({ member }) => 'group' in member && member.group === other,
                );
                seen[isAsked ? 'asked' : 'through'] += 1;
              }
          }
        },
      ),
      { numRuns: 400 },
    );
    expect(Object.entries(seen).filter(([, count]) => count < 10)).toEqual([]);
  });
});
