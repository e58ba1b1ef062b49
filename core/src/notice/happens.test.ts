import { describe, expect, it } from 'vitest';
import type { Happening } from '../request/index.ts';
import type { Occasion } from '../telling/index.ts';
import { departureAt, heardBy, isAbout, writtenWith } from './index.ts';

const HOUR = 3_600_000;
const arrived: Happening = { kind: 'arrived', through: { by: 'door', kind: 'staff' }, release: 1 };
const values = (field: string, why: 'changed' | 'rule' | 'day' = 'changed'): Happening =>
  ({ kind: 'values', why, rule: 'r', changes: [{ field, before: 'a', after: 'b' }] }) as Happening;
const said = (more: object): Happening =>
  ({ kind: 'said', text: 'Hello', to: 'desk', byRequester: false, ...more }) as Happening;
const decided = (leadsTo: string): Happening =>
  ({ kind: 'decided', step: 's', verdict: 'approve', comment: 'Fine', leadsTo }) as unknown as Happening;

/** What happens, and every occasion that it is, at the stage it leads to. */
const CASES: readonly (readonly [Happening, readonly string[]])[] = [
  [arrived, ['arrived', 'stage in_hand', 'becomes']],
  [{ kind: 'arrived', through: { by: 'sheet of rows' }, release: 1 }, []],
  [{ kind: 'arrived', through: { by: 'trial' }, release: 1 }, []],
  [values('reason'), ['changed', 'changed reason', 'becomes']],
  [values('fee'), ['changed', 'becomes']],
  [values('reason', 'day'), ['changed', 'changed reason', 'becomes']],
  [values('reason', 'rule'), []],
  [{ kind: 'stage', from: 'arrived', to: 'in_hand' }, ['stage', 'stage in_hand']],
  [{ kind: 'team', from: 'a', to: 'b' }, ['team']],
  [{ kind: 'priority', from: 'low', to: 'high' }, ['priority']],
  [{ kind: 'handler', from: null, to: 'p' }, ['handler']],
  [{ kind: 'handler', from: 'p', to: null }, []],
  [decided('approved'), ['stage', 'stage in_hand', 'decided approved', 'decided']],
  [decided('refused'), ['stage', 'stage in_hand', 'decided']],
  [said({ byRequester: true }), ['message', 'message requester']],
  [said({ to: 'requester' }), ['message', 'message desk']],
  [said({}), []],
  [{ kind: 'rang', timer: 'reminder' }, ['ring']],
  [{ kind: 'rang', timer: 'reminder', deadline: 'other' }, []],
  [{ kind: 'claimed', of: 'p' }, ['becomes']],
];
const OCCASIONS: Readonly<Record<string, Occasion>> = {
  arrived: { is: 'arrived' },
  changed: { is: 'changed', fields: [] },
  'changed reason': { is: 'changed', fields: ['reason', 'visitor'] },
  stage: { is: 'stage', stages: [] },
  'stage in_hand': { is: 'stage', stages: ['in_hand'] },
  'stage papers': { is: 'stage', stages: ['papers'] },
  team: { is: 'team' },
  handler: { is: 'handler' },
  priority: { is: 'priority' },
  'decided approved': { is: 'decided', as: 'approved' },
  decided: { is: 'decided', as: 'either' },
  message: { is: 'message', from: 'either' },
  'message requester': { is: 'message', from: 'requester' },
  'message desk': { is: 'message', from: 'desk' },
  ring: { is: 'ring', deadline: 'finish', ring: 'reminder' },
  becomes: { is: 'becomes' },
  hand: { is: 'hand' },
};

describe('what a notice is about', () => {
  it('is told by what happened, whatever else moves with it', () => {
    for (const [change, expected] of CASES) {
      const before = change.kind === 'arrived' ? null : 'arrived';
      const is = Object.entries(OCCASIONS).flatMap(([name, on]) =>
        isAbout(on, change, { stage: 'in_hand', before }) ? [name] : [],
      );
      expect([change, is.sort()]).toEqual([change, [...expected].sort()]);
    }
    const found = new Set(CASES.flatMap(([, names]) => names));
    expect(Object.keys(OCCASIONS).filter((name) => !found.has(name))).toEqual(['stage papers', 'hand']);
  });

  it('comes with what was written, and is heard as what its reader is to the request', () => {
    expect([arrived, said({}), decided('approved')].map(writtenWith)).toEqual([
      ...[{ text: '' }, { text: 'Hello' }, { text: 'Fine' }],
    ]);
    expect(
      (['requester', 'deciding', 'working', 'team', 'leads', 'followers', { field: 'x' }] as const).map(heardBy),
    ).toEqual(['own', 'decide', 'mine', 'team', 'late', 'news', 'news']);
  });
});

describe('when a notice goes', () => {
  const at = (moment: string): number => Date.parse(`${moment}:00Z`);
  const zone = 'Europe/Dublin';
  const now = at('2026-11-23T10:42');

  it('is at once, some minutes after the first, or at its time; urgent passes all', () => {
    const leaves = (goes: Parameters<typeof departureAt>[0], more: object = {}) =>
      departureAt(goes, { now, zone, isUrgent: false, first: null, ...more }) - now;
    const gathered = { goes: 'gathered', minutes: 20 } as const;
    expect([leaves({ goes: 'at-once' }), leaves(gathered), leaves(gathered, { first: now + HOUR / 6 })]).toEqual([
      ...[0, HOUR / 3, HOUR / 6],
    ]);
    // What went by now gathers nothing more.
    expect(leaves(gathered, { first: now - 1 })).toBe(HOUR / 3);
    const morning = { goes: 'digest', at: '08:00', days: [3] } as const;
    expect(now + leaves(morning)).toBe(at('2026-11-25T08:00'));
    expect([gathered, morning].map((goes) => leaves(goes, { isUrgent: true }))).toEqual([0, 0]);
  });
});
