import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { type AccessPlan, USUAL_BASE } from '../../access/index.ts';
import type { ApprovalPath, ApprovalStep } from '../../approval/index.ts';
import { type Field, requestScope } from '../../register/index.ts';
import type { FormDesign } from '../design.ts';
import { blankDesign } from '../recipes/index.ts';
import { approvalFindings } from './approval.ts';

const HOUR = 3_600_000;
const blank = blankDesign({ told: english, title: 'Any', team: 'desk', approvers: 'leads', calendar: 'desk' });
const fields: readonly Field[] = [
  { key: 'keeper', label: 'Keeper', type: { kind: 'person', from: [] }, source: 'asked' },
  { key: 'sum', label: 'Sum', type: { kind: 'number', places: 0 }, source: 'asked' },
];
const step = (more: Partial<ApprovalStep>): ApprovalStep => ({
  ...{ id: 'one', label: 'One', seats: [{ group: 'leads' }], needed: 1 },
  ...more,
});
const withPaths = (...paths: readonly ApprovalPath[]): FormDesign => ({
  ...{ ...blank, fields, approval: { paths } },
  routing: { ...blank.routing, otherwise: { ...blank.routing.otherwise, path: 'path' } },
});
const path = (steps: readonly ApprovalStep[], more: Partial<ApprovalPath> = {}): ApprovalPath => ({
  ...{ id: 'path', label: 'Path', steps },
  ...more,
});

/** What is found in a draft, each with its weight, at a desk with two leads, one on deck, and an empty yard. */
function found(design: FormDesign, plan: AccessPlan = { rules: [] }): readonly string[] {
  const said: string[] = [];
  const groups = new Map([
    ['leads', 'Leads'],
    ['deck', 'Deck'],
    ['yard', 'Yard'],
  ]);
  approvalFindings(
    design,
    {
      ...{ scope: requestScope(fields), groups, strangers: ['gone'] },
      members: { leads: ['ana', 'ben'], deck: ['ana'], yard: [] },
      rosters: { watch: { name: 'Watch', gap: null }, night: { name: 'Night', gap: '2026-11-28T18:00:00.000Z' } },
      ...{ outsiders: [{ key: 'nuala', label: 'Nuala Reedbank', groups: ['yard'] }], plan },
      profile: [{ key: 'lead', label: 'Lead', type: { kind: 'person', from: [] }, of: 'staff' }],
    },
    (severity, page, at, message) => void said.push(`${severity} ${page} ${at}: ${english(message)}`),
  );
  return said;
}
const inStep = (more: Partial<ApprovalStep>): readonly string[] => found(withPaths(path([step(more)])));
const begins = (text: string) => [expect.stringMatching(new RegExp(`^(error|caution) approval step: ${text}`))];

describe('what is wrong in how a form is decided', () => {
  it('is nothing where somebody can decide at each step, by whatever way they are named', () => {
    expect(inStep({})).toEqual([]);
    expect(inStep({ seats: [{ group: 'leads' }, { group: 'leads' }], needed: 2 })).toEqual([]);
    expect(inStep({ seats: [{ field: 'keeper' }], instead: [{ group: 'leads' }] })).toEqual([]);
    expect(inStep({ seats: [{ profile: 'lead' }, { group: 'leads' }], needed: 1 })).toEqual([]);
    expect(inStep({ seats: [{ duty: 'watch' }], instead: [{ group: 'leads' }] })).toEqual([]);
    const limit = { within: 8 * HOUR, remind: HOUR, silence: 'pass' } as const;
    expect(inStep({ limit, instead: [{ person: 'cy' }] })).toEqual([]);
  });

  it.each<readonly [string, Partial<ApprovalStep>, string]>([
    [
      'a roster that is gone',
      { seats: [{ duty: 'gone' }], instead: [{ group: 'leads' }] },
      'The approval step “One” asks who is on duty by a roster that does not exist',
    ],
    [
      'a roster with a gap',
      { seats: [{ duty: 'night' }], instead: [{ group: 'leads' }] },
      'Nobody is on duty by “Night” at',
    ],
    ['a name', { label: ' ' }, 'An approval step has no name'],
    ['who is gone', { seats: [{ person: 'gone' }] }, 'The approval step “One” asks a person'],
    ['who is gone, instead', { instead: [{ person: 'gone' }] }, 'The approval step “One” asks a person'],
    ['a group', { seats: [{ group: 'crew' }] }, 'The approval step “One” asks a group that does not exist'],
    ['a field for a person', { seats: [{ field: 'sum' }] }, 'The approval step “One” asks whoever a field names'],
    ['a field of profiles', { instead: [{ profile: 'boss' }] }, 'The approval step “One” asks whoever a field names'],
    ['as many as it needs', { needed: 2 }, 'The approval step “One” needs more approvals'],
    ['a condition', { when: 'sum >' }, 'When the approval step “One” is asked'],
    ['members', { seats: [{ group: 'yard' }] }, 'Too few people could decide at the approval step “One” today'],
    [
      'different people',
      { seats: [{ group: 'deck' }, { person: 'ana' }], needed: 2 },
      'Too few people could decide at the approval step “One” today',
    ],
    ['a time', { limit: { within: 401 * 24 * HOUR, silence: 'tell' } }, 'The approval step “One” may take more than'],
    [
      'a reminder in time',
      { limit: { within: HOUR, remind: HOUR, silence: 'tell' } },
      'The approval step “One” would remind people before they are asked',
    ],
    [
      'somebody who is asked after silence',
      { limit: { within: HOUR, silence: 'pass' } },
      'When nobody answers, the approval step “One” asks somebody else, and nobody is named',
    ],
  ])('is that a step lacks %s', (_, more, text) => expect(inStep(more)).toEqual(expect.arrayContaining(begins(text))));

  it('is doubtful where somebody from outside would decide on what they may not read', () => {
    const asks = withPaths(path([step({ seats: [{ person: 'nuala' }] })]));
    const says = begins(
      'The approval step “One” asks Nuala Reedbank from outside, and the access plan shows them nothing',
    );
    const rule = { id: 'a', name: 'A', level: 'hidden' } as const;
    const everybody = { in: { everyone: true }, outOf: [] } as const;
    expect(found(asks)).toEqual([]);
    expect(found(asks, { rules: [{ ...rule, fields: 'all', audience: everybody }] })).toEqual(says);
    // Of a group that is told by name, and as who decides, they read what is opened to them.
    for (const outOf of [['yard'], ['~decider'], ['~contact']])
      expect(found(asks, { rules: [{ ...rule, fields: 'all', audience: { ...everybody, outOf } }] })).toEqual([]);
    const outside = { answers: 'hidden', made: 'hidden', staffOnly: 'hidden' } as const;
    expect(found(asks, { rules: [], base: { ...USUAL_BASE, outside } })).toEqual(says);
    expect(found(withPaths(path([step({})])), { rules: [], base: { ...USUAL_BASE, outside } })).toEqual([]);
  });

  it('is doubtful where an answer alone names who decides, a path is asked only sometimes, or no row chooses it', () => {
    expect(inStep({ seats: [{ field: 'keeper' }] })).toEqual(
      begins('The approval step “One” asks whom an answer names. Where it names nobody'),
    );
    const sometimes = path([step({ when: 'sum > 5' })]);
    expect(found(withPaths(sometimes))).toEqual(begins('Every approval step is asked only sometimes'));
    const other = path([step({ id: 'two' })], { id: 'other', label: '' });
    expect(found(withPaths(sometimes, other))).toEqual([
      ...begins('Every step of the approval path “Path” is asked only sometimes'),
      ...begins('No row of the routing table chooses the approval path “One”'),
    ]);
  });

  it('is a row or a button that names a path which is not there, and a field which is not', () => {
    const lost = withPaths(path([step({})], { id: 'other' }));
    expect(found(lost)).toEqual([
      'error routing otherwise: This row names an approval path that does not exist. Choose another path.',
    ]);
    expect(found(withPaths(path([step({})], { again: ['depth'] })))).toEqual(
      begins('The approval path “Path” asks again when a field changes that does not exist'),
    );
  });
});
