import { describe, expect, it } from 'vitest';
import type { ApprovalStep } from '../approval/index.ts';
import { type DeadlineRule, finishRule, type WorkingCalendar } from '../deadline/index.ts';
import { requestScope } from '../register/index.ts';
import { prepareAhead } from './index.ts';

const HOUR = 3_600_000;
const day = [['09:00', '17:00']] as const;
const desk: WorkingCalendar = {
  ...{ key: 'desk', name: 'Desk', zone: 'UTC', holidays: [] },
  week: [day, day, day, day, day, [], []],
};
const never: WorkingCalendar = { ...desk, key: 'never', week: [[], [], [], [], [], [], []] };
const STAGES = [
  { key: 'new', phase: 'arrived' },
  { key: 'deciding', phase: 'arrived', role: 'deciding' },
  { key: 'old', phase: 'arrived', retired: true },
  { key: 'at-work', phase: 'working' },
  { key: 'done', phase: 'finished', role: 'done' },
] as const;
const step = (id: string, more: Partial<ApprovalStep> = {}): ApprovalStep => ({
  ...{ id, label: id, seats: [{ group: 'heads' }], needed: 1, ...more },
});
const fields = [{ key: 'deep', label: 'Deep', type: { kind: 'yes-no' }, source: 'asked' }] as const;
const scope = requestScope(fields);
const at = (moment: string): number => Date.parse(`${moment}:00Z`);

function ahead(steps: readonly ApprovalStep[], deadlines: readonly DeadlineRule[], sent: string, calendar = desk) {
  const approval = { paths: [{ id: 'path', label: '', steps }] };
  const plan = { calendar: calendar.key, leads: 'heads', deadlines };
  return prepareAhead(
    { approval, deadline: plan },
    scope,
  )({
    ...{ at: at(sent), outcome: { path: 'path', workingDays: 2 }, stages: STAGES, values: {} },
    ...{ slots: [false], calendar: () => calendar },
  });
}

describe('the life of a request as it is planned', () => {
  const limit = { within: 6 * HOUR, remind: 2 * HOUR, silence: 'tell' } as const;

  it('has one step after another, each with its time, and is then where requests arrive', () => {
    const found = ahead(
      [step('first', { limit }), step('only-deep', { when: 'deep = true', limit }), step('open')],
      [finishRule(HOUR, 2 * HOUR)],
      '2026-11-23T15:00',
    );
    const [first, deep, open] = found.steps;
    // 2 hours on Monday, 4 on Tuesday; reminded 2 hours before.
    expect(first).toMatchObject({
      ...{ isAsked: true, from: at('2026-11-23T15:00'), until: at('2026-11-24T13:00'), ends: at('2026-11-24T13:00') },
      remind: at('2026-11-24T11:00'),
    });
    expect(deep).toMatchObject({ isAsked: false, ends: at('2026-11-24T13:00') });
    // Without a limit: to the end of the next working day.
    expect(open).toMatchObject({ isAsked: true, from: at('2026-11-24T13:00'), until: null, remind: null });
    expect(new Date(open?.ends ?? 0).toISOString().slice(0, 10)).toBe('2026-11-25');
    expect(found.stages.map(({ key }) => key)).toEqual(['deciding', 'new', 'done']);
    expect(found.stages[1]?.at).toBe(open?.ends);
  });

  it('says what is due when, what rings around it, and what only if it is late', () => {
    const { deadlines, to, stages } = ahead([], [finishRule(HOUR, 2 * HOUR)], '2026-11-23T15:00');
    const [finish] = deadlines;
    const due = finish?.due ?? 0;
    expect(new Date(due).toISOString().slice(0, 10)).toBe('2026-11-25');
    expect(finish?.rings.map(({ key, at: rung, isLate }) => [key, Math.sign(rung - due), isLate])).toEqual([
      ['reminder', -1, false],
      ['escalation', 1, true],
    ]);
    expect([stages.map(({ key }) => key), stages.at(-1)?.at, to >= due]).toEqual([['new', 'done'], due, true]);
  });

  it('tells of deadlines that begin elsewhere, and of none by hours that never come', () => {
    const elsewhere: DeadlineRule = {
      ...{ ...finishRule(HOUR, HOUR), key: 'later', begins: { on: 'stages', stages: ['at-work'] } },
    };
    const whileDecided: DeadlineRule = {
      ...{ ...finishRule(HOUR, HOUR), key: 'early', length: { by: 'time', time: HOUR } },
      ...{ begins: { on: 'stages', stages: ['deciding'] }, ends: { on: 'left' } },
    };
    const found = ahead([step('first', { limit })], [elsewhere, whileDecided], '2026-11-23T10:00');
    expect(found.others.map(({ key }) => key)).toEqual(['later']);
    expect(found.deadlines.map(({ rule, due, over }) => [rule.key, due, over])).toEqual([
      ['early', at('2026-11-23T11:00'), at('2026-11-23T16:00')],
    ]);
    const dark = ahead([step('first', { limit })], [finishRule(HOUR, HOUR)], '2026-11-23T10:00', never);
    expect([dark.deadlines, dark.others.map(({ key }) => key)]).toEqual([[], ['finish']]);
    expect(dark.steps.map(({ until, ends }) => [until, ends])).toEqual([[null, at('2026-11-23T10:00')]]);
  });
});
