import fc from 'fast-check';
import { expect, test } from 'vitest';
import { protectionOf } from '../form/index.ts';
import type { Audience, Viewer } from '../people/index.ts';
import type { Field } from '../register/index.ts';
import { type AccessLevel, type AccessRule, levelChanges, openedBy, type PlanRules, ruleChanges } from './index.ts';

const FIELDS: readonly Field[] = [
  { key: 'a', label: 'A', type: { kind: 'text' }, source: 'asked' },
  { key: 'b', label: 'B', type: { kind: 'text' }, source: 'desk-only' },
  { key: 'c', label: 'C', type: { kind: 'text' }, source: 'asked' },
];
const GROUPS = ['x', 'y', 'z'];
const RANK = { hidden: 0, read: 1, write: 2 };

const audience: fc.Arbitrary<Audience> = fc
  .record({
    in: fc.oneof(
      fc.constant({ everyone: true as const }),
      fc.subarray(GROUPS).map((anyOf) => ({ anyOf })),
      fc.subarray(GROUPS).map((allOf) => ({ allOf })),
    ),
    outOf: fc.subarray(GROUPS, { maxLength: 1 }),
    requester: fc.constantFrom(undefined, 'in' as const, 'out' as const),
  })
  .map(({ requester, ...rest }) => (requester ? { ...rest, requester } : rest));
const rules: fc.Arbitrary<readonly AccessRule[]> = fc
  .array(
    fc.record({
      fields: fc.oneof(fc.constant('all' as const), fc.subarray(['a', 'b', 'c'], { minLength: 1 })),
      audience,
      level: fc.constantFrom<AccessLevel>('hidden', 'read', 'write'),
      overriding: fc.boolean(),
    }),
    { maxLength: 4 },
  )
  .map((made) => made.map((each, index) => ({ ...each, id: `r${index}`, name: `R${index}` })));

/** The level of a field for somebody, read slowly out of the published words: out first, then the strictest, then the base. */
function slowly(
  of: readonly AccessRule[],
  field: Field,
  groups: readonly string[],
  isDesk: boolean,
  isOwn: boolean,
): AccessLevel {
  const holds = of.filter(({ fields, audience: { in: inside, outOf, requester } }) => {
    if (fields !== 'all' && !fields.includes(field.key)) return false;
    if (outOf.filter((group) => groups.includes(group)).length > 0) return false;
    if (isOwn && requester === 'in') return true;
    if (isOwn && requester === 'out') return false;
    if ('everyone' in inside) return true;
    if ('anyOf' in inside) return inside.anyOf.filter((group) => groups.includes(group)).length > 0;
    return inside.allOf.length > 0 && inside.allOf.filter((group) => !groups.includes(group)).length === 0;
  });
  const strong = holds.filter(({ overriding }) => overriding === true);
  const levels = (strong.length > 0 ? strong : holds).map(({ level }) => level);
  if (levels.includes('hidden')) return 'hidden';
  if (levels.includes('read')) return 'read';
  if (levels.includes('write')) return 'write';
  if (isDesk) return 'write';
  return field.source === 'asked' ? 'read' : 'hidden';
}

const everyGroups = Array.from({ length: 8 }, (_, bits) => GROUPS.filter((__, index) => (bits >> index) % 2 === 1));
const RELATIONS = [
  [true, false],
  [false, true],
  [true, true],
] as const;

test('what a plan changes, and what it opens, is what a slow reading of both finds for everybody there could be', () => {
  const counts = { opened: 0, closed: 0, same: 0 };
  fc.assert(
    fc.property(rules, rules, (before, after) => {
      const opens = new Map<string, number>();
      const protection = (of: readonly AccessRule[]) => protectionOf({ rules: of }, { fields: FIELDS, release: null });
      const [was, is] = [protection(before), protection(after)];
      for (const groups of everyGroups)
        for (const [isDesk, isRequester] of RELATIONS) {
          const viewer: Viewer = { personId: 'p', kind: 'staff', rights: [], groups };
          const changes = levelChanges(was, is, viewer, { isDesk, isRequester });
          for (const field of FIELDS) {
            const [had, has] = [before, after].map((of) => slowly(of, field, groups, isDesk, isRequester)) as [
              AccessLevel,
              AccessLevel,
            ];
            const told = changes.find((each) => each.field === field);
            expect([field.key, groups, told?.before ?? had, told?.after ?? had]).toEqual([field.key, groups, had, has]);
            if (RANK[has] > RANK[had]) opens.set(field.key, Math.max(opens.get(field.key) ?? 0, RANK[has]));
            counts[RANK[has] > RANK[had] ? 'opened' : has === had ? 'same' : 'closed'] += 1;
          }
        }
      const found = openedBy({ rules: before }, { rules: after }, FIELDS);
      expect([...found].map(([key, level]) => [key, RANK[level]]).sort()).toEqual([...opens].sort());
    }),
    { numRuns: 300 },
  );
  console.log('levels of two plans:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(500);
});

test('where kinds of viewer are too many to be told apart, whatever a changed rule names counts as opened', () => {
  const many = Array.from(
    { length: 16 },
    (_, n): AccessRule => ({
      ...{ id: `${n}`, name: `${n}`, fields: ['a'], level: 'hidden' },
      audience: { in: { anyOf: [`g${n}`] }, outOf: [] },
    }),
  );
  expect([...openedBy({ rules: many }, { rules: [...many].reverse() }, FIELDS)]).toEqual([['a', 'write']]);
});

test('what became of rules is told by their names', () => {
  const rule = (id: string, more: Partial<AccessRule> = {}): AccessRule => ({
    ...{ id, name: id.toUpperCase(), fields: 'all', level: 'read' },
    audience: { in: { everyone: true }, outOf: [] },
    ...more,
  });
  const before: PlanRules = {
    rules: [rule('stays'), rule('changes'), rule('goes'), rule('rests')],
    resting: [rule('wakes')],
  };
  const after: PlanRules = {
    rules: [rule('stays'), rule('changes', { level: 'hidden' }), rule('wakes'), rule('comes')],
    resting: [rule('rests')],
  };
  expect(ruleChanges(before, after)).toEqual({
    ...{ added: ['COMES'], changed: ['CHANGES'], removed: ['GOES'] },
    ...{ switchedOff: ['RESTS'], switchedOn: ['WAKES'] },
  });
});
