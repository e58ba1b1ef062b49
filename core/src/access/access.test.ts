import { said } from '@tolvek/words';
import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { protectionOf } from '../form/index.ts';
import { audienceInWords, belongs, FOR_EVERYONE, NO_REQUEST, PACKAGES, type Viewer } from '../people/index.ts';
import type { Field } from '../register/index.ts';
import {
  type AccessPlan,
  type AccessRule,
  accessTo,
  ORDINARY,
  openFields,
  type Purpose,
  prepareAccess,
  type Reading,
  type Relation,
  type Revealed,
  rulesAmong,
  USUAL_BASE,
  type VisibleValues,
} from './index.ts';

const text = (key: string, source: 'asked' | 'desk-only' = 'asked'): Field => ({
  key,
  label: key.toUpperCase(),
  type: { kind: 'text' },
  source,
});
const fields = [text('visitor'), text('medical'), text('escort', 'desk-only')];
const plan: AccessPlan = {
  rules: [
    {
      id: 'a',
      name: 'Medical stays with safety',
      fields: ['medical'],
      audience: { in: { everyone: true }, outOf: ['safety'], requester: 'out' },
      level: 'hidden',
    },
    {
      id: 'b',
      name: 'Safety reads',
      fields: ['medical'],
      audience: { in: { anyOf: ['safety'] }, outOf: [] },
      level: 'read',
    },
  ],
};
const viewer = (...groups: string[]): Viewer => ({ personId: 'p', kind: 'staff', rights: FOR_EVERYONE, groups });
const desk = { isDesk: true, isRequester: false };
const requester = { isDesk: false, isRequester: true };
const nameOf = () => undefined;
/** How somebody looks at a request that a plan protects. */
const reading = (of: AccessPlan, who: Viewer, relation: Relation, purpose: Purpose = 'sheet'): Reading =>
  prepareAccess(protectionOf(of, { fields, release: null }))({ viewer: who, relation, purpose, at: ORDINARY });
const values = { visitor: 'Jonas', medical: 'secret', escort: 'Nuala' };

describe('the access plan', () => {
  it('opens the medical note to safety and the requester only', () => {
    const level = (who: Viewer, relation: typeof desk) =>
      accessTo(fields[1] as Field, protectionOf(plan, { fields, release: null }), who, relation, ORDINARY).level;
    expect(level(viewer('estates'), desk)).toBe('hidden');
    expect(level({ ...viewer(), rights: PACKAGES.coordinator }, desk)).toBe('hidden');
    expect(level({ ...viewer(), rights: PACKAGES.administrator }, desk)).toBe('hidden');
    expect(level(viewer('safety'), desk)).toBe('read');
    expect(level(viewer(), requester)).toBe('read');
    expect(level(viewer('safety'), { isDesk: false, isRequester: false })).toBe('hidden');
  });

  it('names the rule that decided', () =>
    expect(
      accessTo(fields[1] as Field, protectionOf(plan, { fields, release: null }), viewer(), desk, ORDINARY).rule,
    ).toBe('Medical stays with safety'));

  const rules = fc.array(
    fc.record({
      id: fc.string(),
      name: fc.string(),
      fields: fc.constantFrom('all' as const, ['visitor'], ['medical', 'escort']),
      audience: fc.record({
        in: fc.constantFrom({ everyone: true as const }, { anyOf: ['x'] }, { allOf: ['x', 'y'] }, { anyOf: [] }),
        outOf: fc.constantFrom([], ['y'], ['z']),
      }),
      level: fc.constantFrom('hidden' as const, 'read' as const, 'write' as const),
      overriding: fc.boolean(),
    }),
    { maxLength: 6 },
  );
  const groups = fc.subarray(['x', 'y', 'z']);
  const order = { hidden: 0, read: 1, write: 2 };

  it('never loosens by a further rule that does not override', () => {
    fc.assert(
      fc.property(rules, groups, fc.constantFrom('hidden' as const, 'read' as const), (made, inGroups, level) => {
        const extra: AccessRule = {
          id: 'e',
          name: 'extra',
          fields: 'all',
          audience: { in: { everyone: true }, outOf: [] },
          level,
        };
        for (const field of fields) {
          const before = accessTo(
            field,
            protectionOf({ rules: made }, { fields, release: null }),
            viewer(...inGroups),
            desk,
            ORDINARY,
          ).level;
          const more = protectionOf({ rules: [...made, extra] }, { fields, release: null });
          const after = accessTo(field, more, viewer(...inGroups), desk, ORDINARY).level;
          expect(order[after]).toBeLessThanOrEqual(order[before]);
        }
      }),
    );
  });

  it('does not depend on the order of its rules', () => {
    fc.assert(
      fc.property(rules, groups, (made, inGroups) => {
        for (const field of fields)
          expect(
            accessTo(
              field,
              protectionOf({ rules: [...made].reverse() }, { fields, release: null }),
              viewer(...inGroups),
              desk,
              ORDINARY,
            ).level,
          ).toBe(
            accessTo(
              field,
              protectionOf({ rules: made }, { fields, release: null }),
              viewer(...inGroups),
              desk,
              ORDINARY,
            ).level,
          );
      }),
    );
  });

  it('opens nothing to somebody who has nothing to do with a request', () => {
    fc.assert(
      fc.property(rules, groups, (made, inGroups) => {
        const nothing = { isDesk: false, isRequester: false };
        expect([...reading({ rules: made }, viewer(...inGroups), nothing).readable]).toEqual([]);
      }),
    );
  });

  it('leaves to people who are called in what it says of them, and what its rules say of all', () => {
    const calledIn = { isDesk: false, isRequester: false, calledIn: true };
    const levels = fc.constantFrom('hidden' as const, 'read' as const, 'write' as const);
    const outside = fc.record({
      answers: levels,
      made: fc.constantFrom('hidden' as const, 'read' as const),
      staffOnly: levels,
    });
    const bases = fc.option(outside, { nil: undefined });
    const seen = { rule: 0, plan: 0, locked: 0 };
    fc.assert(
      fc.property(rules, bases, fc.boolean(), (made, said, onlyReads) => {
        const base = { ...USUAL_BASE, ...(said ? { outside: said } : {}) };
        const plan = { rules: made, base };
        const protection = protectionOf(plan, { fields, release: null });
        const who = { ...viewer(), kind: 'contact' as const };
        for (const field of fields) {
          const found = accessTo(field, protection, who, { ...calledIn, onlyReads }, ORDINARY).level;
          // By hand: the strictest rule that means everybody, of the overriding ones where there are any; else the plan.
          const mine = made.filter(
            (rule) => (rule.fields === 'all' || rule.fields.includes(field.key)) && 'everyone' in rule.audience.in,
          );
          const strong = mine.filter(({ overriding }) => overriding);
          const counted = (strong.length > 0 ? strong : mine).map(({ level }) => level);
          const usual = { answers: 'read', made: 'read', staffOnly: 'hidden' } as const;
          const left = (said ?? usual)[
            field.source === 'asked' ? 'answers' : field.source === 'desk-only' ? 'staffOnly' : 'made'
          ];
          const ruled = (['hidden', 'read', 'write'] as const).find((level) => counted.includes(level));
          const want = ruled ?? left;
          seen[ruled ? 'rule' : 'plan'] += 1;
          if (want === 'write' && onlyReads) seen.locked += 1;
          expect(found).toBe(want === 'write' && onlyReads ? 'read' : want);
        }
      }),
    );
    for (const count of Object.values(seen)) expect(count).toBeGreaterThan(0);
  });

  it('says for each viewer what working it out for that one alone says, whoever looked before', () => {
    const seat = fc.record({
      inGroups: groups,
      isDesk: fc.boolean(),
      isRequester: fc.boolean(),
      purpose: fc.constantFrom('sheet' as const, 'letter' as const, 'list' as const),
    });
    fc.assert(
      fc.property(rules, fc.array(seat, { minLength: 1, maxLength: 12 }), (made, seats) => {
        const protection = protectionOf({ rules: made }, { fields, release: null });
        const open = openFields(protection);
        for (const { inGroups, purpose, ...relation } of seats)
          for (const field of fields) {
            const alone = accessTo(field, protection, viewer(...inGroups), relation, ORDINARY);
            const found = prepareAccess(protection)({ viewer: viewer(...inGroups), relation, purpose, at: ORDINARY });
            const stays = purpose === 'letter' && !open.includes(field);
            expect(found.levelOf(field.key).level).toBe(stays ? 'hidden' : alone.level);
            expect(found.readable.has(field.key)).toBe(!stays && alone.level !== 'hidden');
          }
      }),
    );
  });

  it('reveals exactly the readable fields, in the subject too', () => {
    const atDesk = reading(plan, viewer('estates'), desk);
    const seen = atDesk.reveal(values, nameOf);
    expect(seen.fields.map((field) => field.shown)).toEqual(['Jonas', 'Nuala']);
    expect(seen.withheld).toEqual([{ label: 'MEDICAL', rule: 'Medical stays with safety' }]);
    const subject = (text: string) => atDesk.subject({ subject: text, title: 'Form' }, values, nameOf);
    expect(subject('{visitor}, {medical}')).toBe('Jonas');
    expect(subject('{medical}')).toBe('Form');
    expect(atDesk.levelOf('nothing').level).toBe('hidden');
    const own = reading(plan, viewer(), requester, 'following').reveal(values, nameOf);
    expect(own.fields.map((field) => field.key)).toEqual(['visitor', 'medical']);
    expect(own.withheld).toEqual([]);
  });

  it('is the only way to make what may leave the server', () => {
    // @ts-expect-error a value that was not revealed does not fit, so no answer can be built from it
    const forged: Revealed<VisibleValues> = { fields: [], withheld: [] };
    expect(forged.fields).toEqual([]);
  });

  it('keeps restricted fields out of letters even to those who may read them', () => {
    const letter = reading(plan, viewer('safety'), desk, 'letter').reveal(values, nameOf);
    expect(JSON.stringify(letter)).not.toContain('secret');
    expect(letter.fields.map((field) => field.key)).toEqual(['visitor', 'escort']);
  });

  it('keeps hidden values out of explanations and history', () => {
    const atDesk = reading(plan, viewer('estates'), desk);
    const told = atDesk.reason({
      words: said('reasons:quoted', { text: 'MEDICAL is secret' }),
      guarded: said('reasons:nothing'),
      result: true,
      reads: ['medical'],
      parts: [
        {
          words: said('reasons:quoted', { text: 'x secret' }),
          guarded: said('reasons:nothing'),
          result: true,
          reads: ['visitor'],
          parts: [],
        },
      ],
    });
    expect(JSON.stringify(told)).not.toContain('secret');
    expect(told.result).toBe(true);
    const changes = [
      { field: 'medical', before: null, after: 'secret' },
      { field: 'visitor', before: null, after: 'Jonas' },
    ];
    expect(atDesk.changes(changes, nameOf)).toEqual([{ label: 'VISITOR', before: '', after: 'Jonas' }]);
  });
});

test('rules that come along protect no less where other stages are', () => {
  const rule = (level: 'hidden' | 'read' | 'write', exceptions: AccessRule['exceptions']): AccessRule => ({
    ...{ id: 'r', name: 'R', fields: 'all', level, audience: { in: { everyone: true }, outOf: [] } },
    ...(exceptions ? { exceptions } : {}),
  });
  const at = (level: 'hidden' | 'read' | 'none', ...stages: string[]) => ({ id: 'e', level, stages });
  const [closed, opened, part, plain] = rulesAmong(
    [
      rule('write', [at('hidden', 'gone')]),
      rule('hidden', [at('read', 'gone'), { id: 'w', level: 'read', when: 'a = 1' }]),
      rule('read', [at('none', 'here', 'gone')]),
      rule('read', undefined),
    ],
    ['here'],
  );
  expect([closed?.level, closed?.exceptions]).toEqual(['hidden', undefined]);
  expect([opened?.level, opened?.exceptions]).toEqual(['hidden', [{ id: 'w', level: 'read', when: 'a = 1' }]]);
  expect([part?.level, part?.exceptions]).toEqual(['read', [at('none', 'here')]]);
  expect(plain?.level).toBe('read');
});

describe('an audience', () => {
  it('is nobody when it is empty, and out beats in', () => {
    expect(belongs({ in: { anyOf: [] }, outOf: [] }, viewer('x'), NO_REQUEST)).toBe(false);
    expect(belongs({ in: { allOf: [] }, outOf: [] }, viewer('x'), NO_REQUEST)).toBe(false);
    expect(belongs({ in: { anyOf: ['x'] }, outOf: ['x'] }, viewer('x'), NO_REQUEST)).toBe(false);
    expect(belongs({ in: { anyOf: [] }, outOf: [], requester: 'in' }, viewer(), { isRequester: true })).toBe(true);
  });

  it('reads as a sentence', () => {
    expect(
      english(audienceInWords({ in: { everyone: true }, outOf: ['safety'], requester: 'out' }, (group) => group)),
    ).toBe('everyone except safety and the requester');
    expect(english(audienceInWords({ in: { anyOf: ['a', 'b'] }, outOf: [] }, (group) => group))).toBe('a or b');
  });
});
