import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Field, Values } from './field.ts';
import { askedByMoves, type MovedBy, moveFindings, movesFrom } from './moves.ts';
import type { RequestFacts } from './requestScope.ts';
import type { Move, MoverRelation, Stage } from './stage.ts';
import type { RequestStanding } from './standingScope.ts';

const fields: readonly Field[] = [
  { key: 'badge', label: 'Badge', type: { kind: 'text' }, source: 'desk-only' },
  { key: 'fee', label: 'Fee', type: { kind: 'number', places: 0 }, source: 'asked' },
];
const open: Move = { to: 'done', relations: [], groups: [], filled: [], when: '' };
const stages = (moves?: readonly Move[]): readonly Stage[] => [
  { key: 'arrived', label: 'Arrived', publicLabel: 'We have it', phase: 'arrived', ...(moves ? { moves } : {}) },
  { key: 'deciding', label: 'To be decided', publicLabel: 'Being decided', phase: 'arrived', role: 'deciding' },
  { key: 'in_hand', label: 'In hand', publicLabel: 'In hand', phase: 'working' },
  { key: 'old', label: 'Old', publicLabel: 'Old', phase: 'working', retired: true },
  { key: 'done', label: 'Done', publicLabel: 'Done', phase: 'finished', role: 'done' },
];
const facts = {
  ...{
    requesterIsOutside: false,
    requesterId: null,
    requesterGroups: [],
    profile: { fields: [], values: {} },
    department: '',
    door: 'staff',
  },
  ...{ numbers: {}, calendar: { open: [], closed: [] }, today: '2026-11-26', now: '2026-11-26T09:00' },
  ...{ people: [], vocabularies: [], files: [], references: [] },
} satisfies RequestFacts;
const standing: RequestStanding = {
  ...{ number: 'AC-00001', form: 'access', stage: 'arrived', phase: 'arrived', team: 'lab', handler: 'ada' },
  ...{ priority: 'high', arrived: '2026-11-24T09:00', due: '2026-11-27T17:00', finished: null },
  ...{ age: 600, decision: null, trial: false },
};
const by = (some: Partial<MovedBy> = {}): MovedBy => ({
  ...{ relations: new Set<MoverRelation>(), groups: [], values: {}, facts: () => facts },
  standing: () => standing,
  me: () => ({ person: 'ada', groups: ['lab'], department: '', profile: { fields: [], values: {} } }),
  known: () => ({
    groups: [
      { key: 'lab', label: 'LAB' },
      { key: 'desk', label: 'DESK' },
    ],
  }),
  ...{ open: new Set(['badge', 'fee']), ...some },
});
const from = (moves: readonly Move[] | undefined, some?: Partial<MovedBy>) => {
  const all = stages(moves);
  return movesFrom({ stages: all, fields }, all[0] as Stage, by(some)).map(({ stage, whyNot }) => [stage.key, whyNot]);
};

describe('the ways on from a stage', () => {
  it('leads anywhere where nothing is said, but to what is retired or decided', () => {
    expect(from(undefined)).toEqual([
      ['in_hand', null],
      ['done', null],
    ]);
    expect(from([])).toEqual([]);
    expect(from([{ ...open, to: 'old' }])).toEqual([]);
  });

  it('says who may, what has to be filled in and what has to hold', () => {
    const move = { ...open, relations: ['handler'], groups: ['lab'], filled: ['badge'], when: 'fee > 5' } as const;
    const why = (some: Partial<MovedBy>) => from([move], some)[0]?.[1];
    expect(english(why({}))).toBe('Only these people can do this: its handler or LAB.');
    expect(english(why({ groups: ['lab'] }))).toBe('First fill in “Badge”.');
    const relations = new Set<MoverRelation>(['handler']);
    expect(english(why({ relations, values: { badge: 'x', fee: '5' } }))).toBe(
      'This is possible when this condition is true: Fee is above 5.',
    );
    expect(english(why({ relations, values: { badge: 'x' } }))).toBe(
      'This is possible when this condition is true: Fee is above 5.',
    );
    expect(why({ relations, values: { badge: 'x', fee: '6' } })).toBeNull();
  });

  it('tells nothing of a field that is closed to somebody, whatever it holds', () => {
    const words = 'This depends on a field that not everyone here may read. Ask a coordinator to move the request.';
    for (const move of [
      { ...open, filled: ['badge'] },
      { ...open, when: 'badge = "x"' },
    ])
      for (const values of [{}, { badge: 'x' }] as readonly Values[])
        expect(english(from([move], { values, open: new Set(['fee']) }))).toEqual([['done', words]]);
  });

  it('knows where the request stands and who moves it', () => {
    const holds = (when: string) => from([{ ...open, when }])[0]?.[1] === null;
    for (const when of [
      'request.handler = me.person',
      'list contains(me.groups, request.team)',
      'request.age > duration("PT9H") and request.age < duration("PT11H")',
      'request.due - now > duration("P1D")',
      'request.finished = null and not(request.trial)',
      'request.stage = "arrived" and request.decision = null',
    ])
      expect([when, holds(when)]).toEqual([when, true]);
    expect(holds('request.priority = "low"')).toBe(false);
    expect(english(from([{ ...open, when: 'request.stage = "done"' }])[0]?.[1])).toBe(
      'This is possible when this condition is true: Stage of the request is Done.',
    );
  });

  it('lets through exactly who may, with what is needed: the same as trying each demand by itself', () => {
    const some = <T>(list: readonly T[]) => fc.subarray([...list]);
    const move = fc.record({
      ...{ to: fc.constant('done'), relations: some(['handler', 'team', 'decider'] as const) },
      ...{
        groups: some(['lab', 'desk']),
        filled: some(['badge', 'fee']),
        when: fc.constantFrom('', 'fee > 5', 'fee = null'),
      },
    });
    const standing = fc.record({
      ...{ relations: some(['handler', 'team', 'decider'] as const), groups: some(['lab', 'desk']) },
      ...{ badge: fc.boolean(), fee: fc.constantFrom(null, 1, 9) },
    });
    const seen = { can: 0, cannot: 0 };
    fc.assert(
      fc.property(move, standing, (each, { relations, groups, badge, fee }) => {
        const values = { ...(badge ? { badge: 'x' } : {}), ...(fee === null ? {} : { fee: String(fee) }) };
        const [[, whyNot] = []] = from([each], { relations: new Set(relations), groups, values });
        const who = [...each.relations, ...each.groups];
        const demands = [
          who.length === 0 || who.some((name) => [...relations, ...groups].includes(name as never)),
          !each.filled.includes('badge') || badge,
          !each.filled.includes('fee') || fee !== null,
          each.when === '' || (each.when === 'fee = null' ? fee === null : fee === 9),
        ];
        const can = demands.every(Boolean);
        seen[can ? 'can' : 'cannot'] += 1;
        expect(whyNot === null).toBe(can);
      }),
      { numRuns: 400 },
    );
    console.log('moves that', seen);
    expect(Math.min(seen.can, seen.cannot)).toBeGreaterThan(30);
  });

  it('finds ways that lead nowhere, twice to one stage, to a decision, or ask for what is not there', () => {
    const found = (moves: readonly Move[]) =>
      english(moveFindings({ stages: stages(moves), fields }).map(({ message }) => message));
    expect(found([{ ...open, when: 'fee > 5', filled: ['badge'] }])).toEqual([]);
    expect(english(found([{ ...open, to: 'arrived' }]))).toEqual([
      'From “Arrived”, a move leads nowhere. Choose a stage for it, or remove the move.',
    ]);
    expect(found([open, open])[0]).toBe('From “Arrived”, two moves lead to the same stage. Remove one.');
    expect(found([{ ...open, to: 'deciding' }])[0]).toContain('Decisions and requesters do');
    expect(found([{ ...open, filled: ['gone'] }])[0]).toContain('a field no longer exists');
    expect(found([{ ...open, when: 'fee + 1' }])).toHaveLength(1);
    expect(askedByMoves({ stages: stages([{ ...open, when: 'fee > 5', filled: ['badge'] }]), fields })).toHaveLength(2);
  });
});
