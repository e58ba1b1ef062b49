import type { AccessRule } from '@tolvek/core/access';
import { ASKING, asking, designOf, type Edition, type FormDesign, type FormRule, partKey } from '@tolvek/core/form';
import type { RequestFacts } from '@tolvek/core/register';
import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { editionAt, type Side, sideOf } from './side.ts';

const edition = (id: string, more: Partial<Edition>): Edition => ({
  ...{ id, name: id, on: true, when: '', audience: { in: { everyone: true }, outOf: [] }, differences: [] },
  ...more,
});
const STAFF = edition('staff', {
  audience: { in: { anyOf: ['boats'] }, outOf: [] },
  differences: [{ does: 'hide', part: 'reason' }],
});
const DONE = edition('done', { stages: ['done'], differences: [{ does: 'lock', part: 'visitor' }] });
const OUTSIDE: FormRule = {
  ...{ id: 'fee', name: '', says: '', when: 'requester.outside', on: true, runs: 'filling', otherwise: [] },
  then: [{ do: 'require', fields: ['fee'] }],
};
const DRAFT: FormDesign = {
  ...designOf(
    { told: english, title: 'Visit', team: 'boats', approvers: 'boats', calendar: 'desk' },
    '{visitor}',
    [
      asking('visitor', 'Visitor', { kind: 'text' }),
      asking('reason', 'Reason', { kind: 'text' }),
      asking('fee', 'Fee', { kind: 'text' }, { required: false }),
    ],
    [],
  ),
  editions: [STAFF, DONE],
};
const who = (groups: readonly string[]): NonNullable<Side['who']> => ({
  facts: {
    ...{ requesterIsOutside: groups.length === 0, requesterId: 'p', requesterGroups: groups, department: '' },
    ...{ profile: { fields: [], values: {} }, door: groups.length === 0 ? 'outside' : 'staff', today: '2026-11-23' },
    ...{ now: '2026-11-23T10:00:00Z', files: [], vocabularies: [], references: [], numbers: {}, people: [] },
  } as unknown as RequestFacts,
  viewer: { personId: 'p', kind: groups.length === 0 ? 'contact' : 'staff', groups, rights: [] },
});
const side = (more: Partial<Side> = {}): Side => ({
  edition: '*',
  who: who(['boats']),
  stage: ASKING,
  as: '',
  ...more,
});
const FORM = { key: 'visit', asking: [] as readonly AccessRule[] };
const keys = (one: Side, form = FORM) => sideOf(DRAFT, form, one).parts.map(partKey);

describe('one side of two', () => {
  it('is in the edition that whoever looks is given at a stage, or in the one that is chosen', () => {
    const at = (more: Partial<Side>) => editionAt(DRAFT, 'visit', side(more))?.id ?? null;
    expect([at({}), at({ who: who([]) }), at({ who: null })]).toEqual(['staff', null, null]);
    expect([at({ who: who([]), stage: 'done', as: 'requester' }), at({ stage: 'done' })]).toEqual(['done', 'staff']);
    expect([at({ edition: '' }), at({ edition: 'done' }), at({ edition: 'gone' })]).toEqual([null, 'done', null]);
  });

  it('has the parts that it is given, and says what is locked there', () => {
    expect(keys(side())).toEqual(['visitor', 'fee']);
    expect(keys(side({ who: who([]) }))).toEqual(['visitor', 'reason', 'fee']);
    const done = sideOf(DRAFT, FORM, side({ who: who([]), stage: 'done' }));
    expect(
      done.rules.some(({ then }) => then.some((each) => each.do === 'lock' && each.fields.includes('visitor'))),
    ).toBe(true);
  });

  it('is what rules and the access plan ask of them, before anything is answered', () => {
    const closed: AccessRule = {
      ...{ id: 'r', name: 'Fees', fields: ['fee'], level: 'hidden', asking: true },
      audience: { in: { anyOf: ['boats'] }, outOf: [] },
    };
    expect(keys(side({ edition: '' }), { ...FORM, asking: [closed] })).toEqual(['visitor', 'reason']);
    // Nobody in particular is asked all of it.
    expect(keys(side({ edition: '', who: null }), { ...FORM, asking: [closed] })).toEqual(['visitor', 'reason', 'fee']);
    const ruled = { ...DRAFT, rules: [OUTSIDE] };
    const required = (one: Side) =>
      sideOf(ruled, FORM, one).parts.flatMap((part) => (part.part === 'question' && part.required ? [part.field] : []));
    expect(required(side({ edition: '' }))).not.toContain('fee');
    expect(required(side({ edition: '', who: who([]) }))).toContain('fee');
  });
});
