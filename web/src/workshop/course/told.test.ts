import { finishRule, type RingNames } from '@tolvek/core/deadline';
import type { Ahead } from '@tolvek/core/intake';
import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { heardIn } from './told.ts';

const HOUR = 3_600_000;
const NAMES: RingNames = {
  ...{ group: (key) => `team ${key}`, person: (id) => id, stage: (key) => key, path: (id) => id, field: (key) => key },
  roster: (key) => key,
};
const OUTCOME = { team: 'boats', priority: 'normal', workingDays: 2, path: 'path' } as const;
const finish = {
  ...{ rule: finishRule(2 * HOUR, HOUR), from: 0, due: 10 * HOUR, over: null },
  rings: [
    { key: 'reminder', at: 8 * HOUR, isLate: false },
    { key: 'escalation', at: 11 * HOUR, isLate: true },
  ],
};
const step = {
  ...{ step: { id: 'a', label: 'Leads', seats: [], needed: 1, limit: { within: 4 * HOUR, silence: 'pass' as const } } },
  ...{ isAsked: true, from: 0, until: 4 * HOUR, ends: 4 * HOUR, remind: 3 * HOUR },
};
const life = (more: Partial<Ahead>): Ahead => ({
  ...{ from: 0, to: 11 * HOUR, steps: [], deadlines: [finish], others: [] },
  stages: [
    { key: 'new', at: 0 },
    { key: 'done', at: 10 * HOUR },
  ],
  ...more,
});
const told = (ahead: Ahead, outcome: Parameters<typeof heardIn>[1] = OUTCOME): readonly string[] =>
  heardIn(ahead, outcome, NAMES).map(
    ({ at, what, only }) => `${at / HOUR} ${english(what)}${only ? ` (${only})` : ''}`,
  );

describe('who hears of what', () => {
  it('is the requester and the team at once where nobody decides, then what rings', () => {
    expect(told(life({}))).toEqual([
      '0 Email to the requester: we have the request',
      '0 Email to team boats: a new request',
      '8 To be finished: email to the handler, or the team',
      '10 Email to the requester: finished',
      '11 To be finished: email to the leads and the handler, or the team (late)',
    ]);
    expect(told(life({}), { ...OUTCOME, handler: { ways: ['turns'] } as never })[1]).toContain('A handler is chosen');
  });

  it('is whoever decides first, with what their silence means; a reminder meanwhile goes to them', () => {
    const early = { ...finish, rings: [{ key: 'reminder', at: 2 * HOUR, isLate: false }] };
    expect(told(life({ steps: [step, { ...step, isAsked: false }], deadlines: [early] }))).toEqual([
      '0 Email to the requester: we have the request',
      '0 Email to those who decide: Leads',
      '2 To be finished: email to those who decide',
      '3 Email to those who have said nothing: Leads (silent)',
      '4 Leads: the next people are asked instead (silent)',
      '4 Email to the requester: approved',
      '4 Email to team boats: a new request',
      '10 Email to the requester: finished',
    ]);
  });
});
