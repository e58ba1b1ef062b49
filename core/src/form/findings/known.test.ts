import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import type { Kind, ProfileField } from '../../register/index.ts';
import { applyFix, asking, designOf, type FormDesign, findingsOf } from '../index.ts';

const PROFILE: readonly ProfileField[] = [
  { key: 'phone', label: 'Phone', type: { kind: 'phone' }, of: 'everybody' },
  { key: 'site', label: 'Site', type: { kind: 'choice', options: [{ key: 'pier', label: 'Pier' }] }, of: 'staff' },
];
const form = (key: string, label: string, type: Kind, required = true): FormDesign =>
  designOf({ told: english, title: 'Any', team: 'boats', approvers: 'boats', calendar: 'desk' }, `{${key}}`, [
    asking(key, label, type, { required }),
  ]);
const found = (design: FormDesign, outside = false) =>
  findingsOf(design, {
    ...{ groups: new Map([['boats', 'Boats']]), outside, vocabularies: [], registers: [], profile: PROFILE },
    ...{ plan: { rules: [] }, form: 'any' },
  }).filter(({ message }) => JSON.stringify(message).includes('known'));

describe('a question that asks what is known', () => {
  it('from the profile is found, and one step fills it in beforehand', () => {
    const asks = form('mobile', ' phone', { kind: 'phone' });
    const [caution] = found(asks);
    expect(caution).toMatchObject({
      severity: 'caution',
      at: 'mobile',
      fix: { fix: 'preset-profile', profile: 'phone' },
    });
    if (!caution?.fix) throw new Error('It has no step.');
    const mended = applyFix(asks, caution.fix, english);
    expect(mended.fields[0]).toMatchObject({ preset: { from: 'formula', formula: 'requester.phone' } });
    expect(found(mended)).toEqual([]);
  });

  it('is another one where it is called otherwise, holds something else, or offers what the profile has not', () => {
    expect(found(form('phone', 'Phone on the day', { kind: 'phone' }))).toEqual([]);
    expect(found(form('phone', 'Phone', { kind: 'long-text' }))).toEqual([]);
    const options = (...keys: readonly string[]): Kind => ({
      kind: 'choice',
      options: keys.map((key) => ({ key, label: key })),
    });
    expect(found(form('site', 'Site', options('pier', 'north')))).toEqual([]);
    expect(found(form('site', 'Site', options('pier')))).toHaveLength(1);
  });

  it('from the door is found where people from outside give their address anyway', () => {
    const asks = form('reach', 'Your email', { kind: 'email' });
    expect(found(asks)).toEqual([]);
    expect(found(asks, true)).toMatchObject([{ severity: 'caution', at: 'reach' }]);
    // Of somebody else it may be, where it need not be answered.
    expect(found(form('reach', 'Your email', { kind: 'email' }, false), true)).toEqual([]);
  });
});
