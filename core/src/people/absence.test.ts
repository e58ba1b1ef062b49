import fc from 'fast-check';
import { expect, it } from 'vitest';
import { type Absence, awayOn, standInFor, standInsOn } from './absence.ts';

const PEOPLE = ['p', 'q', 'r', 's', 't'] as const;
const DAYS = ['2026-03-01', '2026-03-02', '2026-03-03', '2026-03-04'] as const;
const person = fc.constantFrom(...PEOPLE);
const day = fc.constantFrom(...DAYS);

/** One absence of each who has one at all, as the commands keep it. */
const absences = fc
  .uniqueArray(
    fc.record({
      person,
      from: day,
      until: fc.option(day, { nil: null }),
      substitute: fc.option(person, { nil: null, freq: 5 }),
    }),
    { selector: (each) => each.person, maxLength: 5 },
  )
  .map((all) => all.filter(({ person: who, substitute }) => substitute !== who));

const number = (of: string): number => Number(of.replaceAll('-', ''));
const isAway = (all: readonly Absence[], who: string, on: string): boolean =>
  all.some(
    ({ person: of, from, until }) =>
      of === who &&
      number(from) <= number(on) &&
      number(on) <= (until === null ? Number.POSITIVE_INFINITY : number(until)),
  );

it('takes the place of whoever is away: the substitute who is there, or theirs; nobody after two', () => {
  const seen = { first: 0, second: 0, nobody: 0, groups: 0 };
  fc.assert(
    fc.property(absences, day, fc.array(fc.subarray([...PEOPLE]), { maxLength: 4 }), (all, on, inGroups) => {
      const substituteOf = (who: string): string | null =>
        all.find((each) => each.person === who && isAway([each], who, on))?.substitute ?? null;
      const takes = (taker: string, who: string): 'first' | 'second' | null => {
        if (!isAway(all, who, on) || isAway(all, taker, on) || taker === who) return null;
        if (substituteOf(who) === taker) return 'first';
        const between = PEOPLE.find((each) => substituteOf(who) === each && isAway(all, each, on));
        return between !== undefined && substituteOf(between) === taker ? 'second' : null;
      };
      for (const who of PEOPLE) {
        expect(awayOn(all, who, on) !== null).toBe(isAway(all, who, on));
        const taker = standInFor(all, who, on);
        expect(PEOPLE.filter((each) => takes(each, who))).toEqual(taker === null ? [] : [taker]);
        if (isAway(all, who, on)) seen[taker === null ? 'nobody' : (takes(taker, who) ?? 'nobody')] += 1;
      }
      const groups = new Map(inGroups.map((members, place) => [`g${place}`, members]));
      const wanted = [
        ...PEOPLE.flatMap((who) => PEOPLE.flatMap((each) => (takes(each, who) ? [`@${who} ${each}`] : []))),
        ...[...groups].flatMap(([key, members]) =>
          members.length > 0 && members.every((each) => isAway(all, each, on))
            ? PEOPLE.filter((each) => members.some((who) => takes(each, who))).map((each) => `${key} ${each}`)
            : [],
        ),
      ];
      const found = standInsOn(all, groups, on).map(({ holder, person: taker }) => `${holder} ${taker}`);
      expect([...found].sort()).toEqual([...wanted].sort());
      seen.groups += wanted.filter((each) => each.startsWith('g')).length;
    }),
    { numRuns: 2_000 },
  );
  console.log('places of who is away', seen);
  for (const [what, times] of Object.entries(seen)) expect([what, times > 20]).toEqual([what, true]);
});
