import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  mergeTerms,
  type Term,
  termByKey,
  termMeant,
  termPath,
  termsInOrder,
  termsOffered,
  vocabularyProblems,
} from './index.ts';

/**
 * A sound vocabulary: each term under one before it or at the top, merged only into one before it.
 */
const anyTerms: fc.Arbitrary<readonly Term[]> = fc.integer({ min: 1, max: 12 }).chain((count) =>
  fc
    .tuple(
      ...Array.from({ length: count }, (_, index) =>
        fc.record({
          under: fc.integer({ min: -2, max: index - 1 }),
          retired: fc.boolean(),
          merged: fc.integer({ min: -6, max: index - 1 }),
        }),
      ),
    )
    .map((made) => {
      const depth: number[] = [];
      return made.map(({ under, retired, merged }, index): Term => {
        const parent = under >= 0 && (depth[under] ?? 0) < 6 ? under : -1;
        depth.push(parent >= 0 ? (depth[parent] ?? 0) + 1 : 0);
        return {
          key: `t${index}`,
          label: `Term ${index}`,
          ...(parent >= 0 ? { under: `t${parent}` } : {}),
          ...(retired ? { retired } : {}),
          ...(merged >= 0 ? { now: `t${merged}` } : {}),
        };
      });
    }),
);

describe('a vocabulary', () => {
  it('has each term once in its order, after the one it stands under', () => {
    fc.assert(
      fc.property(anyTerms, (terms) => {
        const order = termsInOrder({ terms });
        const at = new Map(order.map(({ term }, index) => [term.key, index]));
        expect([...at.keys()].sort()).toEqual(terms.map((term) => term.key).sort());
        for (const { term, depth } of order) {
          if (term.under !== undefined) expect(at.get(term.under)).toBeLessThan(at.get(term.key) ?? -1);
          expect(termPath({ terms }, term.key)).toHaveLength(depth + 1);
        }
      }),
    );
  });

  it('offers nothing retired or merged, nor anything under such a term', () => {
    fc.assert(
      fc.property(anyTerms, (terms) => {
        const isGone = (term: Term | undefined): boolean =>
          term !== undefined &&
          (term.retired === true || term.now !== undefined || isGone(terms.find((each) => each.key === term.under)));
        expect(
          termsOffered({ terms })
            .map(({ term }) => term.key)
            .sort(),
        ).toEqual(
          terms
            .filter((term) => !isGone(term))
            .map((term) => term.key)
            .sort(),
        );
      }),
    );
  });

  it('is found sound, and a merged term leads to one that stands for itself', () => {
    fc.assert(
      fc.property(anyTerms, (terms) => {
        expect(vocabularyProblems(terms)).toEqual([]);
        for (const term of terms) expect(termByKey({ terms }, term.key)?.now).toBeUndefined();
      }),
    );
  });

  it('understands a word only where one term is meant', () => {
    const terms: readonly Term[] = [
      { key: 'saithe', label: 'Saithe', also: ['Coley'] },
      { key: 'boat', label: 'Boat', also: ['coley'] },
      { key: 'old', label: 'Old name', now: 'saithe' },
    ];
    expect(['SAITHE', ' old  NAME ', 'coley', 'cod'].map((said) => termMeant({ terms }, said)?.key)).toEqual([
      'saithe',
      'saithe',
      undefined,
      undefined,
    ]);
    expect(english(vocabularyProblems(terms))).toEqual([
      { at: 'boat', message: '“coley” is also another word for “Saithe”.', fix: 'Remove it from one of them.' },
    ]);
  });

  it('tells circles, of standing under and of merging', () => {
    const circle: readonly Term[] = [
      { key: 'a', label: 'A', under: 'b' },
      { key: 'b', label: 'B', under: 'a' },
      { key: 'c', label: 'C', now: 'd' },
      { key: 'd', label: 'D', now: 'c' },
    ];
    expect(vocabularyProblems(circle).map((problem) => problem.at)).toEqual(['a', 'b', 'c', 'd']);
    // Reading them ends all the same: what stands in a circle has no place, what leads in one leads
    // somewhere.
    expect(termsInOrder({ terms: circle }).map(({ term }) => term.key)).toEqual(['c', 'd']);
    expect(['c', 'd']).toContain(termByKey({ terms: circle }, 'c')?.key);
  });
});

describe('two changed vocabularies', () => {
  const renamed = (terms: readonly Term[], index: number, label: string): readonly Term[] =>
    terms.map((term, at) => (at === index ? { ...term, label } : term));

  it('are put together term by term', () => {
    fc.assert(
      fc.property(anyTerms, fc.nat(), fc.nat(), (terms, a, b) => {
        const [mine, theirs] = [
          renamed(terms, a % terms.length, 'Mine'),
          [...renamed(terms, b % terms.length, 'Theirs'), { key: 'new', label: 'New' }],
        ];
        const merged = mergeTerms(terms, mine, theirs);
        expect(merged.map((term) => term.key)).toEqual([...terms.map((term) => term.key), 'new']);
        expect(merged[a % terms.length]?.label).toBe('Mine');
        if (a % terms.length !== b % terms.length) expect(merged[b % terms.length]?.label).toBe('Theirs');
      }),
    );
  });

  it('come to what is there when only one changed, and lose what either took away', () => {
    fc.assert(
      fc.property(anyTerms, fc.nat(), (terms, at) => {
        const without = terms.filter((_, index) => index !== at % terms.length);
        expect(mergeTerms(terms, terms, without)).toEqual(without);
        expect(mergeTerms(terms, without, terms)).toEqual(without);
        expect(mergeTerms(terms, terms, terms)).toEqual(terms);
      }),
    );
  });
});
