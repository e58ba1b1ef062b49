import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circleBy, type Entry, groupsOn, waysInto } from './groups.ts';

const DAYS = ['2026-03-01', '2026-03-02', '2026-03-03', '2026-03-04', '2026-03-05'] as const;
const day = fc.constantFrom(...DAYS);
const border = fc.option(day, { nil: null, freq: 2 });
const group = fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f');
const person = fc.constantFrom('p', 'q', 'r');

const entry: fc.Arbitrary<Entry> = fc.record({
  group,
  member: fc.oneof(
    person.map((id) => ({ person: id })),
    group.map((key) => ({ group: key })),
  ),
  from: border,
  until: border,
});

const reaches = (entries: readonly Entry[], inner: string, outer: string): boolean =>
  entries.some(
    ({ group: over, member }) =>
      'group' in member && member.group === inner && (over === outer || reaches(entries, over, outer)),
  );

/** Entries without a circle: each is added only if its groups do not hold each other already. */
const nested = fc.array(entry, { maxLength: 25 }).map((all) => {
  const kept: Entry[] = [];
  for (const next of all) {
    const inner = 'group' in next.member ? next.member.group : null;
    if (inner === null || (inner !== next.group && !reaches(kept, next.group, inner))) kept.push(next);
  }
  return kept;
});

/** The slow reading: somebody is in a group when an entry of it names them, or a group that they are in. */
function isIn(entries: readonly Entry[], who: string, key: string, on: string): boolean {
  return entries.some((each) => {
    if (each.group !== key) return false;
    if (each.from !== null && Date.parse(each.from) > Date.parse(on)) return false;
    if (each.until !== null && Date.parse(each.until) < Date.parse(on)) return false;
    return 'person' in each.member ? each.member.person === who : isIn(entries, who, each.member.group, on);
  });
}

describe('groups in groups, from one day to another', () => {
  it('hold whom a slow reading of the entries finds in them', () => {
    const seen = { in: 0, deep: 0, out: 0 };
    fc.assert(
      fc.property(nested, person, day, (entries, who, on) => {
        const found = groupsOn(entries, who, on);
        for (const key of ['a', 'b', 'c', 'd', 'e', 'f']) {
          const wanted = isIn(entries, who, key, on);
          expect(found.has(key)).toBe(wanted);
          seen[wanted ? 'in' : 'out'] += 1;
          if (wanted && waysInto(entries, { person: who, group: key, day: on }).every((way) => way.groups.length > 1))
            seen.deep += 1;
        }
      }),
      { numRuns: 600 },
    );
    expect(Math.min(seen.in, seen.deep, seen.out)).toBeGreaterThan(30);
  });

  it('say by which way: each part counts on that day, and the way’s days are those on which all of it does', () => {
    let told = 0;
    fc.assert(
      fc.property(nested, person, group, day, (entries, who, key, on) => {
        const ways = waysInto(entries, { person: who, group: key, day: on });
        expect(ways.length > 0).toBe(isIn(entries, who, key, on));
        for (const { groups, since, until } of ways) {
          told += 1;
          expect(groups.at(-1)).toBe(key);
          expect(since === null || since <= on).toBe(true);
          expect(until === null || until >= on).toBe(true);
          for (const each of DAYS)
            if ((since === null || each >= since) && (until === null || each <= until))
              expect(isIn(entries, who, key, each)).toBe(true);
        }
      }),
      { numRuns: 1_500 },
    );
    expect(told).toBeGreaterThan(80);
  });

  it('make no circle: one that would come is told from end to end', () => {
    const seen = { circle: 0, none: 0 };
    fc.assert(
      fc.property(nested, group, group, (entries, inner, outer) => {
        const circle = circleBy(entries, inner, outer);
        expect(circle.length > 0).toBe(inner === outer || reaches(entries, outer, inner));
        seen[circle.length > 0 ? 'circle' : 'none'] += 1;
        if (circle.length === 0) return;
        expect([circle[0], circle.at(-1)]).toEqual([inner, outer]);
        for (const [place, key] of circle.slice(0, -1).entries())
          expect(
            entries.some(
              ({ group: over, member }) => over === key && 'group' in member && member.group === circle[place + 1],
            ),
          ).toBe(true);
      }),
      { numRuns: 500 },
    );
    expect(Math.min(seen.circle, seen.none)).toBeGreaterThan(40);
  });

  it('end where they began, should there be a circle all the same', () => {
    const circle: readonly Entry[] = [
      { group: 'a', member: { group: 'b' }, from: null, until: null },
      { group: 'b', member: { group: 'a' }, from: null, until: null },
      { group: 'a', member: { person: 'p' }, from: null, until: null },
    ];
    expect([...groupsOn(circle, 'p', '2026-03-01')].sort()).toEqual(['a', 'b']);
    expect(waysInto(circle, { person: 'p', group: 'b', day: '2026-03-01' })).toHaveLength(1);
  });
});
