import { FINISH, type Hearer, type Ring, type RingAct, ruleOf } from '@tolvek/core/deadline';
import { RECIPES } from '@tolvek/core/form';
import { requestScope } from '@tolvek/core/register';
import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  actOf,
  actWord,
  addRing,
  addRule,
  editRing,
  editRule,
  firstLength,
  freshDeadline,
  hearerOf,
  hearerWord,
  KINDS,
  leadsAre,
  moveRule,
  onSide,
  removeRing,
  removeRule,
  sideOf,
} from './deadlineEdits.ts';
import { deadlineInSentences } from './deadlineSentences.ts';

const [recipe] = RECIPES;
const form = (() => {
  if (!recipe) throw new Error('There is no recipe.');
  return recipe.make({ told: english, title: 'Nets', team: 'boats', approvers: 'leads', calendar: 'desk' });
})();
const beginning = { name: 'New', stage: 'in_hand', field: 'needed_by' };
const keysOf = (design: typeof form) => design.deadline.deadlines.map(({ key }) => key);
const names = {
  group: (key: string) => `the group ${key}`,
  person: (id: string) => `the person ${id}`,
  stage: (key: string) => `stage ${key}`,
  path: (id: string) => `path ${id}`,
  field: (key: string) => `field ${key}`,
  roster: (key: string) => `roster ${key}`,
};

describe('the deadlines of a draft', () => {
  it('have keys of their own however they are added, moved and removed, and the finish always stays', () => {
    const done = { added: 0, moved: 0, removed: 0 };
    const edit = fc.oneof(
      fc.constantFrom(...KINDS).map((kind) => (design: typeof form) => {
        done.added += 1;
        return addRule(design, kind, beginning);
      }),
      fc.tuple(fc.nat(6), fc.constantFrom(-1 as const, 1 as const)).map(([at, way]) => (design: typeof form) => {
        done.moved += 1;
        const keys = keysOf(design);
        const next = moveRule(design, keys[at % keys.length] ?? '', way);
        expect([...keysOf(next)].sort()).toEqual([...keys].sort());
        expect(next.deadline.deadlines.every((rule) => !('id' in rule))).toBe(true);
        return next;
      }),
      fc.nat(6).map((at) => (design: typeof form) => {
        done.removed += 1;
        const keys = keysOf(design);
        return removeRule(design, keys[at % keys.length] ?? '');
      }),
    );
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 10 }), (edits) => {
        const design = edits.reduce((draft, each) => each(draft), form);
        const keys = keysOf(design);
        expect(new Set(keys).size).toBe(keys.length);
        expect(keys).toContain(FINISH);
        expect(keys).not.toContain(freshDeadline(design));
      }),
    );
    expect(Math.min(...Object.values(done))).toBeGreaterThan(30);
  });

  it('say nothing that they do not mean: an empty condition or calendar, and an end that can’t come', () => {
    const [staged, key] = [addRule(form, 'stage', beginning), 'deadline'];
    const ruleIn = (design: typeof form) => design.deadline.deadlines.find((rule) => rule.key === key);
    expect(ruleIn(staged)?.ends).toEqual({ on: 'left' });
    expect(ruleIn(editRule(staged, key, { begins: { on: 'arrival' } }))?.ends).toEqual({ on: 'finished' });
    const emptied = ruleIn(editRule(staged, key, { when: ' ', calendar: '' }));
    expect([emptied && 'when' in emptied, emptied && 'calendar' in emptied]).toEqual([false, false]);
    expect(leadsAre(form, 'duty').deadline.leads).toBe('duty');
    expect((['routing', 'days', 'time', 'formula', 'field'] as const).map((by) => firstLength(by, 'day').by)).toEqual([
      ...['routing', 'days', 'time', 'formula', 'field'],
    ]);
  });

  it('ring at times that are added, changed and removed one by one; once when nothing is said', () => {
    const twice = addRing(addRing(form, FINISH), FINISH);
    const ringsOf = (design: typeof form) => design.deadline.deadlines[0]?.rings ?? [];
    expect(ringsOf(twice).map(({ key }) => key)).toEqual(['reminder', 'escalation', 'ring', 'ring_2']);
    const again = editRing(twice, FINISH, 'ring', { again: 60_000, at: 0 });
    expect(ringsOf(again)[2]).toMatchObject({ at: 0, again: 60_000 });
    const once = editRing(again, FINISH, 'ring', { again: undefined });
    expect('again' in (ringsOf(once)[2] ?? {})).toBe(false);
    expect(ringsOf(removeRing(once, FINISH, 'reminder')).map(({ key }) => key)).toEqual([
      ...['escalation', 'ring', 'ring_2'],
    ]);
  });

  it('name who is told and what is done by words that mean the same again', () => {
    const hearers: readonly Hearer[] = [
      ...(['working', 'team', 'leads', 'requester', 'deciding'] as const),
      ...[{ group: 'boats' }, { person: 'p1' }, { field: 'keeper' }, { duty: 'watch' }],
    ];
    for (const hearer of hearers) expect(hearerOf(hearerWord(hearer))).toEqual(hearer);
    const acts: readonly RingAct[] = [
      ...(['high', 'normal', 'low'] as const).map((to) => ({ do: 'priority' as const, to })),
      ...[
        { do: 'team' as const, team: 'boats' },
        { do: 'stage' as const, stage: 'in_hand' },
      ],
      { do: 'decide', path: 'path' },
    ];
    for (const act of acts) expect(actOf(actWord(act))).toEqual(act);
  });
});

describe('when a deadline rings', () => {
  const ring = (more: Partial<Ring>): Ring => ({ key: 'one', at: 0, tells: [], does: [], ...more });

  it('is before, at or after the due moment, in hours or in working days, and says one of the two', () => {
    expect(
      [{ at: -1 }, { at: 0 }, { at: 1 }, { days: -1 }, { days: 0 }, { days: 1 }].map((each) => sideOf(ring(each))),
    ).toEqual([...['before', 'at', 'after', 'before', 'before', 'after']]);
    expect([onSide({ hours: 5 }, 'before'), onSide({ hours: 5 }, 'after')]).toEqual([
      { at: -5, days: undefined },
      { at: 5, days: undefined },
    ]);
    // There is no morning of the day itself after it was due.
    expect([onSide({ days: 3 }, 'before'), onSide({ days: 0 }, 'before'), onSide({ days: 0 }, 'after')]).toEqual([
      ...[
        { at: 0, days: -3 },
        { at: 0, days: 0 },
        { at: 0, days: 1 },
      ],
    ]);
    for (const side of ['before', 'after'] as const)
      for (const length of [{ hours: 2 }, { days: 2 }]) expect(sideOf(ring(onSide(length, side)))).toBe(side);
  });

  it('forgets the days where it is in hours again', () => {
    const OWN = keysOf(addRule(form, KINDS[0], beginning)).find((key) => !keysOf(form).includes(key)) ?? '';
    const added = addRing(addRule(form, KINDS[0], beginning), OWN);
    const [last] = ruleOf(added.deadline, OWN)?.rings.slice(-1) ?? [];
    const inDays = editRing(added, OWN, last?.key ?? '', onSide({ days: 2 }, 'before'));
    const again = editRing(inDays, OWN, last?.key ?? '', onSide({ hours: 60 }, 'after'));
    const rings = (design: typeof form) => ruleOf(design.deadline, OWN)?.rings.at(-1);
    expect([rings(inDays)?.days, rings(again)?.at, 'days' in (rings(again) ?? {})]).toEqual([-2, 60, false]);
  });
});

describe('a deadline in sentences', () => {
  const sentences = (design: typeof form) =>
    design.deadline.deadlines.map((rule) =>
      english(deadlineInSentences(rule, { names, scope: requestScope(design.fields), calendar: (key) => key })),
    );

  it('says how long it is, until when, and what happens on the way', () => {
    const all = KINDS.reduce((draft, kind) => addRule(draft, kind, { ...beginning, name: kind }), form);
    const told = editRing(
      editRule(all, 'deadline_4', { calendar: 'bench', stands: { on: 'never' } }),
      'deadline_4',
      'ring',
      {
        ...{ at: 3_600_000, again: 2 * 3_600_000, tells: [{ group: 'boats' }] },
        does: [
          { do: 'priority', to: 'high' },
          { do: 'stage', stage: 'in_hand' },
        ],
      },
    );
    expect(sentences(told)).toEqual([
      [
        'From arrival: as many working days as the routing table says. Time stops in paused stages.',
        '4 hours of working time before: email to the handler, or the team.',
        'When it is due: email to the leads and the handler, or the team.',
      ],
      [
        'From arrival: 4 hours of working time. Over with our first message to the requester. Time stops in paused stages.',
        '1 hour of working time before: email to the handler, or the team.',
        'When it is due: email to the leads.',
      ],
      [
        'From stage in_hand: 5 working days. Over when the stage is left.',
        'When it is due: email to the handler, or the team.',
      ],
      [
        'Due by the date in “field needed_by”. Over when the request is finished.',
        '8 hours of working time before: email to the handler, or the team.',
      ],
      [
        'From arrival: 5 working days. Over when the request is finished. Counts by “bench”.',
        '1 hour of working time after: email to the group boats, high priority and moves to “stage in_hand”. Again every 2 hours of working time.',
      ],
    ]);
  });
});
