import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { belongs, PACKAGES } from '../people/index.ts';
import { type AccessRule, classesOf, classInWords, mayAsk, ORDINARY, wordsTold } from './index.ts';
import { protect } from './protect.ts';

const GROUPS = ['a', 'b', 'c', 'd'] as const;
const subsets = Array.from({ length: 2 ** GROUPS.length }, (_, bits) =>
  GROUPS.filter((_group, place) => (bits >> place) % 2 === 1),
);
const audience = fc.record(
  {
    in: fc.oneof(
      fc.constant({ everyone: true as const }),
      fc.subarray([...GROUPS]).map((anyOf) => ({ anyOf })),
      fc.subarray([...GROUPS]).map((allOf) => ({ allOf })),
    ),
    outOf: fc.subarray([...GROUPS]),
    requester: fc.constantFrom('in' as const, 'out' as const),
  },
  { requiredKeys: ['in', 'outOf'] },
);
const rules = fc.array(
  audience.map((each): AccessRule => ({ id: 'r', name: 'r', fields: ['x'], audience: each, level: 'hidden' })),
  { maxLength: 5 },
);

describe('the kinds of viewer a plan tells apart', () => {
  it('are each way in which its rules hold for somebody, each once', () => {
    fc.assert(
      fc.property(rules, (made) => {
        const holds = (groups: readonly string[], isRequester: boolean): string =>
          made.map((rule) => Number(belongs(rule.audience, { groups }, { isRequester }))).join('');
        // Everybody there could be, one by one.
        const all = [true, false].flatMap((isDesk) =>
          [true, false].flatMap((isRequester) =>
            // Who neither works on it nor asked is called in from outside.
            subsets.map((groups) => `${isDesk} ${isRequester} ${holds(groups, isRequester)}`),
          ),
        );
        const classes = classesOf({ rules: made }) ?? [];
        const told = classes.map(
          ({ groups, relation }) => `${relation.isDesk} ${relation.isRequester} ${holds(groups, relation.isRequester)}`,
        );
        expect([...told].sort()).toEqual([...new Set(all)].sort());
        for (const { relation } of classes)
          expect(relation.calledIn ?? false).toBe(!relation.isDesk && !relation.isRequester);
        // Each stands for its kind with as few groups as anybody of it has.
        for (const [index, { groups, relation }] of classes.entries()) {
          const alike = subsets.filter(
            (each) => `${relation.isDesk} ${relation.isRequester} ${holds(each, relation.isRequester)}` === told[index],
          );
          expect(groups).toHaveLength(Math.min(...alike.map((each) => each.length)));
        }
      }),
    );
  });

  it('are not told apart one by one when there are thousands of them', () => {
    const many = Array.from(
      { length: 14 },
      (_, index): AccessRule => ({
        id: `r${index}`,
        name: '',
        fields: ['x'],
        audience: { in: { anyOf: [`g${index}`] }, outOf: [] },
        level: 'hidden',
      }),
    );
    expect(classesOf({ rules: many })).toBe(null);
    expect(classesOf({ rules: many.slice(0, 5) })).toHaveLength(4 * 2 ** 5);
  });

  it('are said by the groups that rules about a field name', () => {
    const rule = (fields: readonly string[] | 'all', group: string): AccessRule => ({
      id: group,
      name: group,
      fields,
      audience: { in: { everyone: true }, outOf: [group] },
      level: 'hidden',
    });
    const plan = { rules: [rule(['x'], 'a'), rule(['y'], 'b'), rule('all', 'c')] };
    expect(wordsTold(plan, ['x'])).toEqual(['a', 'c']);
    const at = { ...ORDINARY, exceptional: [] };
    const said = (isDesk: boolean, isRequester: boolean, groups: readonly string[]): string =>
      english(
        classInWords({ groups, relation: { isDesk, isRequester }, at }, wordsTold(plan, ['x']), (group) =>
          group.toUpperCase(),
        ),
      );
    expect(said(true, false, [])).toBe('staff of the desk not in A or C');
    expect(said(false, true, ['a'])).toBe('the requester in A not in C');
    expect(said(true, true, ['a', 'c'])).toBe('staff of the desk, the requester in A and C');
  });
});

describe('asking something of many requests', () => {
  const closed = (requester: 'in' | 'out'): AccessRule => ({
    id: 'c',
    name: 'Closed',
    fields: ['note'],
    audience: { in: { anyOf: [] }, outOf: ['safety'], requester },
    level: 'hidden',
  });
  const fields = ['note', 'open'].map((key) => ({
    key,
    label: key,
    type: { kind: 'text' } as const,
    source: 'asked' as const,
  }));
  const viewer = { personId: 'p', kind: 'staff', rights: PACKAGES.coordinator, groups: [] } as const;

  it('is decided by the plan: what is hidden is as unknown as what does not exist', () => {
    const plan = {
      rules: [{ ...closed('out'), audience: { ...closed('out').audience, in: { everyone: true as const } } }],
    };
    const protection = protect(fields, plan, []);
    expect(mayAsk(['open', 'note', 'nothing', 'today'], protection, viewer)).toEqual({
      unknown: ['note', 'nothing'],
      own: false,
    });
    expect(mayAsk(['open', 'requester'], protection, viewer)).toEqual({ unknown: [], own: true });
    expect(mayAsk(['note'], protection, { ...viewer, groups: ['safety'] })).toEqual({ unknown: [], own: true });
  });

  it('leaves one’s own requests out where the plan hides a field from who asked', () => {
    expect(mayAsk(['note'], protect(fields, { rules: [closed('in')] }, []), viewer)).toEqual({
      unknown: [],
      own: false,
    });
  });
});
