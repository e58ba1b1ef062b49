import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type AccessRule, levelChanges, openedBy, type PlanRules, ruleChanges } from '../src/access/index.ts';
import { protectionOf } from '../src/form/index.ts';
import type { Field } from '../src/register/index.ts';
import { anyBase, anyLook, anyPlaced, anyRules, everyLook, slowLevel, takenBy } from './anyPlan.ts';
import { often } from './often.ts';

const FIELDS: readonly Field[] = [
  { key: 'a', label: 'A', type: { kind: 'text' }, source: 'asked' },
  { key: 'b', label: 'B', type: { kind: 'text' }, source: 'desk-only' },
  { key: 'c', label: 'C', type: { kind: 'text' }, source: 'asked' },
];
const RANK = { hidden: 0, read: 1, write: 2 };

/** Rules that tell few kinds apart, so that everybody there could be can be gone through. */
const rules = anyRules(
  FIELDS.map(({ key }) => key),
  { words: ['x', '@p1', '~handler'] },
);
const looks = everyLook(['working', 'browsing', 'taking-out']).filter(
  ({ groups, as }) => groups.every((each) => each === 'x') && as.every((each) => each === 'handler'),
);
const builders = looks.flatMap((look) => (look.isDesk && !look.isRequester ? [{ ...look, builds: true }] : []));
const placed = anyPlaced(FIELDS.map(({ key }) => key));

test('what a plan opens, and how far, is what a slow reading of both finds for everybody there could be, in all that could be', () => {
  const counts = { opened: 0, closed: 0, same: 0 };
  fc.assert(
    fc.property(rules, rules, anyBase, anyBase, placed, placed, (before, after, from, to, stood, stand) => {
      const opens = new Map<string, number>();
      for (const look of [...looks, ...builders])
        for (const field of FIELDS) {
          const [had, has] = [slowLevel(before, field, look, from, stood), slowLevel(after, field, look, to, stand)];
          if (RANK[has] > RANK[had]) opens.set(field.key, Math.max(opens.get(field.key) ?? 0, RANK[has]));
          counts[RANK[has] > RANK[had] ? 'opened' : has === had ? 'same' : 'closed'] += 1;
        }
      // Rules may also name what else is done with a request than what is gone through here.
      const only = (of: readonly AccessRule[]) =>
        of.every(({ exceptions = [] }) =>
          exceptions.every(({ activities = [] }) =>
            activities.every((each) => each === 'working' || each === 'taking-out'),
          ),
        );
      fc.pre(only(before) && only(after));
      const found = openedBy(
        { rules: before, ...(from ? { base: from } : {}), ...(stood ? { placed: stood } : {}) },
        { rules: after, ...(to ? { base: to } : {}), ...(stand ? { placed: stand } : {}) },
        FIELDS,
      );
      expect([...found].map(([key, level]) => [key, RANK[level]]).sort()).toEqual([...opens].sort());
    }),
    { numRuns: often(12) },
  );
  console.log('what plans open:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(500);
});

test('what changes for somebody on a request is what a slow reading of both plans says', () => {
  const counts = { gained: 0, lost: 0, same: 0 };
  fc.assert(
    fc.property(anyRules(['a', 'b', 'c']), anyRules(['a', 'b', 'c']), anyLook, (before, after, look) => {
      const protection = (of: readonly AccessRule[]) => protectionOf({ rules: of }, { fields: FIELDS, release: null });
      const { viewer, relation, at } = takenBy({ ...look, builds: false });
      const seen = { ...look, activity: 'working' as const };
      const changes = levelChanges(protection(before), protection(after), viewer, relation, at);
      for (const field of FIELDS) {
        const [had, has] = [slowLevel(before, field, seen), slowLevel(after, field, seen)];
        const told = changes.find((each) => each.field === field);
        expect([field.key, told?.before ?? had, told?.after ?? had]).toEqual([field.key, had, has]);
        counts[had === has ? 'same' : RANK[has] > RANK[had] ? 'gained' : 'lost'] += 1;
      }
    }),
    { numRuns: often(2_000) },
  );
  console.log('levels of two plans:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(300));
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
