import fc from 'fast-check';
import { expect, test } from 'vitest';
import { protectionOf } from '../form/index.ts';
import { FOR_EVERYONE, PACKAGES, type Right, type Viewer } from '../people/index.ts';
import type { Field } from '../register/index.ts';
import { type AccessRule, type AskedAlike, accessTo, gather, planEffect, relationTo } from './index.ts';

const PEOPLE = 20;
const REQUESTS = 500;
const GROUPS = ['g0', 'g1', 'g2', 'g3', 'g4'];
const FIELDS = Array.from({ length: 60 }, (_, n): Field => {
  const field = { key: `f${n}`, label: `F${n}`, type: { kind: 'text' } } as const;
  if (n === 58) return { ...field, source: 'computed', formula: 'f0 + f1' };
  return { ...field, source: n % 3 === 0 ? 'desk-only' : 'asked' };
});

const groups = fc.subarray(GROUPS, { maxLength: 3 });
const rules = fc
  .array(
    fc.record({
      fields: fc.oneof(
        fc.constant('all' as const),
        fc.array(
          fc.nat({ max: 59 }).map((n) => `f${n}`),
          { minLength: 1, maxLength: 20 },
        ),
      ),
      in: fc.oneof(
        fc.constant({ everyone: true as const }),
        groups.map((anyOf) => ({ anyOf })),
        groups.map((allOf) => ({ allOf })),
      ),
      outOf: fc.subarray(GROUPS, { maxLength: 1 }),
      requester: fc.constantFrom(undefined, 'in' as const, 'out' as const),
      level: fc.constantFrom('hidden' as const, 'read' as const, 'write' as const),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((made) =>
    made.map(
      ({ in: inside, outOf, requester, ...rule }, n): AccessRule => ({
        ...{ ...rule, id: `${n}`, name: `${n}` },
        audience: { in: inside, outOf, ...(requester ? { requester } : {}) },
      }),
    ),
  );
const viewers = fc.array(
  fc.record({
    kind: fc.constantFrom('staff' as const, 'staff' as const, 'contact' as const),
    rights: fc.constantFrom<readonly Right[]>(FOR_EVERYONE, PACKAGES.coordinator, ['read:all'], []),
    groups,
  }),
  { minLength: PEOPLE, maxLength: PEOPLE },
);
const who = fc.nat({ max: PEOPLE + 5 }).map((n) => `p${n}`);
const requests = fc.array(
  fc.record({
    release: fc.constantFrom('one', 'two'),
    requesterId: fc.option(who),
    handlerId: fc.option(who),
    team: fc.option(fc.constantFrom(...GROUPS)),
    deciders: fc.array(
      fc.oneof(
        fc.constantFrom(...GROUPS),
        who.map((id) => `@${id}`),
      ),
      { maxLength: 2 },
    ),
  }),
  { minLength: REQUESTS, maxLength: REQUESTS },
);

test('what a plan would change is what each request says for each person, read one by one', () => {
  const counts = { changes: 0, people: 0, nobody: 0 };
  fc.assert(
    fc.property(rules, rules, viewers, requests, (before, after, made, asked) => {
      const people = made.map((each, n): Viewer => ({ ...each, personId: `p${n}` }));
      // What came by one release has all fields, by the other only half of them.
      const fields = (release: string) => (release === 'one' ? FIELDS : FIELDS.slice(0, 30));
      const known = new Map(
        ['one', 'two'].map((release) => [
          release,
          [before, after].map((of) => protectionOf({ rules: of }, { fields: fields(release), release: null })),
        ]),
      );
      const of = (release: string) =>
        known.get(release) as [ReturnType<typeof protectionOf>, ReturnType<typeof protectionOf>];
      const all = asked.map((each): AskedAlike => ({ ...each, n: 1 }));
      const told = planEffect(
        people.map((viewer) => ({ personId: viewer.personId, groups: viewer.groups, viewer: () => viewer })),
        gather({ register: 'r', deskGroups: ['g4'] }, all),
        of,
      );
      for (const viewer of people) {
        const wanted = new Map<string, number>();
        for (const request of all) {
          const relation = relationTo({ ...request, register: 'r', deskGroups: ['g4'] }, { ...viewer });
          if (!relation.isDesk && !relation.isRequester) continue;
          const [was, is] = of(request.release);
          for (const field of fields(request.release)) {
            const [had, has] = [
              accessTo(field, was, viewer, relation).level,
              accessTo(field, is, viewer, relation).level,
            ];
            if (had === has) continue;
            const key = `${field.key} ${had} ${has}`;
            wanted.set(key, (wanted.get(key) ?? 0) + 1);
          }
        }
        const found = told.find(({ personId }) => personId === viewer.personId)?.changes ?? [];
        expect([
          viewer.personId,
          found.map(({ field, before: had, after: has, requests: n }) => [`${field.key} ${had} ${has}`, n]).sort(),
        ]).toEqual([viewer.personId, [...wanted].sort()]);
        counts.changes += wanted.size;
        counts[wanted.size > 0 ? 'people' : 'nobody'] += 1;
      }
    }),
    { numRuns: 6 },
  );
  console.log('what plans would change:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(5);
}, 60_000);
