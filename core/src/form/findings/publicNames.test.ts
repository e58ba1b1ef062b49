import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import type { AccessPlan } from '../../access/index.ts';
import type { Field } from '../../register/index.ts';
import { applyFix, asking, designOf, type FormDesign, findingsOf } from '../index.ts';

const SUM: Field = {
  key: 'sum',
  label: 'Sum',
  type: { kind: 'number', places: 0 },
  source: 'computed',
  formula: 'many * 2',
};
const NOTE: Field = { key: 'note', label: 'Desk note', type: { kind: 'text' }, source: 'desk-only' };
const form = (...more: readonly Field[]): FormDesign =>
  designOf(
    { told: english, title: 'Any', team: 'boats', approvers: 'boats', calendar: 'desk' },
    '{many}',
    [asking('many', 'Pcs', { kind: 'number', places: 0 }, { asks: 'How many?' })],
    more,
  );
const OPENED: AccessPlan = {
  rules: [
    {
      ...{ id: 'open', name: 'Open', fields: ['note'], level: 'read' },
      audience: { in: { anyOf: ['boats'] }, outOf: [], requester: 'in' },
    },
  ],
};
const CLOSED: AccessPlan = {
  rules: [
    {
      ...{ id: 'closed', name: 'Closed', fields: ['sum'], level: 'hidden' },
      audience: { in: { anyOf: ['boats'] }, outOf: [], requester: 'in' },
    },
  ],
};
const found = (design: FormDesign, outside = true, plan: AccessPlan = { rules: [] }, askedElsewhere: string[] = []) =>
  findingsOf(design, {
    ...{
      groups: new Map([['boats', 'Boats']]),
      outside,
      vocabularies: [],
      registers: [],
      plan,
      form: 'any',
      askedElsewhere,
    },
  }).filter(({ message }) => JSON.stringify(message).includes('publicNames'));

describe('a name of the desk that people from outside would read', () => {
  it('is found of what they read and are not asked, all in one, with a step that lets them read it', () => {
    const [caution, ...others] = found(form(SUM, NOTE), true, OPENED);
    expect(others).toEqual([]);
    expect(caution).toMatchObject({ severity: 'caution', at: 'sum', fix: { fix: 'call-so', fields: ['sum', 'note'] } });
    expect(english(caution?.message ?? '')).toContain('“Sum” and “Desk note”');
    if (!caution?.fix) throw new Error('It has no step.');
    const mended = applyFix(form(SUM, NOTE), caution.fix, english);
    expect(mended.fields.map(({ called }) => called)).toEqual([undefined, 'Sum', 'Desk note']);
    expect(found(mended, true, OPENED)).toEqual([]);
    expect(found(form({ ...SUM, called: 'Together' }))).toEqual([]);
  });

  it('is not found of what they do not read, of what another form asks, nor where only staff ask', () => {
    expect(found(form(NOTE))).toEqual([]);
    expect(found(form(SUM), true, CLOSED)).toEqual([]);
    expect(found(form(SUM), true, undefined, ['sum'])).toEqual([]);
    expect(found(form(SUM), false)).toEqual([]);
    expect(found(form())).toEqual([]);
  });
});
