import { type Edition, type Opening, whoGets } from '@tolvek/core/form';
import { type Figure, figure, interleaved } from './figure.ts';

const PEOPLE = 5_000;
const EDITIONS = 12;
const GROUPS = 40;

const group = (n: number): string => `g${n % GROUPS}`;
const CONDITIONS = ['me.site = "pier"', 'me.badge = true'];

const editions = Array.from({ length: EDITIONS }, (_, n): Edition => {
  const words = [group(n * 3), group(n * 7 + 1), group(n * 11 + 2), ...(n % 5 === 0 ? [`?${CONDITIONS[n % 2]}`] : [])];
  return {
    ...{ id: `e${n}`, name: `Edition ${n}`, on: n !== 7, differences: [] },
    audience: { in: n % 4 === 1 ? { allOf: words.slice(0, 2) } : { anyOf: words }, outOf: [group(n * 5 + 4)] },
    when: n % 3 === 2 ? 'today > date("2026-01-01")' : '',
    ...(n % 6 === 3 ? { stages: ['deciding', 'done'] } : {}),
  };
});
/** Each is in some groups, and meets a condition or none. */
const openingsOf = (size: number): readonly Opening[] =>
  Array.from({ length: size }, (_, n) => ({
    who: {
      ...{ personId: `p${n}`, kind: n % 3 === 0 ? 'contact' : 'staff' },
      groups: [group(n), group(n * 7 + 3), group(n * 13 + 5)],
      meets: n % 9 === 0 ? [CONDITIONS[n % 2] ?? ''] : [],
    },
    ...{ stands: { isRequester: true }, stage: '~asking', holds: () => n % 4 !== 0 },
  }));

/** The same by hand, for these editions alone: who is given which, and one word for why each other one is not. */
function byHand(openings: readonly Opening[]): number {
  const rows = editions.map(({ on, audience, when, stages }) => ({
    ...{ on, when, stages, all: 'allOf' in audience.in, outOf: audience.outOf },
    words: 'anyOf' in audience.in ? audience.in.anyOf : 'allOf' in audience.in ? audience.in.allOf : [],
  }));
  const told: { readonly at: number; readonly why: readonly { readonly is: string; readonly by: unknown }[] }[] = [];
  for (const { who, stage, holds } of openings) {
    const is = (word: string): boolean =>
      word.startsWith('?') ? (who.meets?.includes(word.slice(1)) ?? false) : who.groups.includes(word);
    let at = -1;
    const why = rows.map(({ on, words, all, outOf, when, stages }, index) => {
      if (!on) return { is: 'off', by: null };
      const missing = all ? words.filter((word) => !is(word)) : words;
      const by = all ? (missing.length === 0 ? words[0] : undefined) : words.find(is);
      if (by === undefined) return { is: 'not-in', by: missing };
      const out = outOf.find(is);
      if (out !== undefined) return { is: 'out', by: out };
      if (stages && !stages.includes(stage)) return { is: 'stage', by: null };
      if (when !== '' && !holds(when)) return { is: 'condition', by: null };
      if (at < 0) at = index;
      return { is: 'fits', by };
    });
    told.push({ at, why });
  }
  return told.filter(({ at }) => at >= 0).length;
}

/** Who gets what of a form’s editions, with why the others are not given: beside 150 ms, and beside a loop by hand. */
export async function measureEditions(): Promise<readonly Figure[]> {
  const openings = openingsOf(PEOPLE);
  const took = (of: readonly Opening[]): number => {
    const before = performance.now();
    const { given } = whoGets(editions, of);
    const passed = performance.now() - before;
    if (!given.some(({ at }) => at >= 0)) throw new Error('Nobody is given an edition.');
    return passed;
  };
  const hand = (of: readonly Opening[]): number => {
    const before = performance.now();
    const n = byHand(of);
    const passed = performance.now() - before;
    if (n !== whoGets(editions, of).given.filter(({ at }) => at >= 0).length) throw new Error('They do not agree.');
    return passed;
  };
  const name = `who gets what, ${PEOPLE} people × ${EDITIONS} editions, ms`;
  const beside = await interleaved(
    `${name} beside a loop by hand`,
    3,
    () => took(openings),
    () => hand(openings),
  );
  // 10,000 and 1,000,000 pairs of a person and an edition.
  const [few, many] = [openingsOf(834), openingsOf(83_334)];
  const [small, large] = [[1, 2, 3].map(() => took(few)), [1, 2, 3].map(() => took(many))];
  return [
    beside,
    figure(
      `${name} beside 150`,
      [1, 2, 3, 4, 5].map(() => took(openings)),
      [150],
      1,
    ),
    figure(`who gets what, ms, from 10000 to 1000000 pairs`, large, small, 150),
  ];
}
