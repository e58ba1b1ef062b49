import fc from 'fast-check';
import { expect, it } from 'vitest';
import { AtWork } from './atWork.ts';

it('knows who changes what, as a list of all that was ever said tells it', () => {
  const counts = { others: 0, gone: 0, expired: 0 };
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          after: fc.integer({ min: 0, max: 30_000 }),
          request: fc.constantFrom('r1', 'r2'),
          person: fc.constantFrom('p1', 'p2', 'p3'),
          fields: fc.subarray(['a', 'b']),
        }),
        { maxLength: 30 },
      ),
      (said) => {
        const work = new AtWork();
        const heard: { at: number; request: string; person: string; fields: readonly string[] }[] = [];
        let now = 1_000;
        for (const { after, request, person, fields } of said) {
          now += after;
          // The last word of each, if it was said in the last three quarters of a minute.
          const lastOf = (whose: string) => heard.findLast((each) => each.request === request && each.person === whose);
          const standing = (whose: string): readonly string[] => {
            const last = lastOf(whose);
            if (!last || last.fields.length === 0) return [];
            if (now - last.at >= 45_000) counts.expired += 1;
            return now - last.at < 45_000 ? last.fields : [];
          };
          const was = standing(person);
          expect(work.say(request, { person, fields }, now)).toBe(was.join() !== fields.join());
          heard.push({ at: now, request, person, fields });
          if (fields.length === 0) counts.gone += 1;
          const others = ['p1', 'p2', 'p3'].filter((each) => each !== person && standing(each).length > 0);
          counts.others += others.length;
          const told = work.others(request, person, now);
          expect(told.map((each) => each.person).sort()).toEqual(others);
          for (const each of told) expect(each.fields).toEqual(standing(each.person));
        }
      },
    ),
    { numRuns: 300 },
  );
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(50);
});
