import type { AnswerOf } from '@tolvek/contract';
import { describe, expect, it } from 'vitest';
import { besideEachOther } from './besideEachOther.ts';

type Field = AnswerOf<'seeAs'>['fields'][number];
const field = (key: string, more: Partial<Field> = {}): Field => ({
  ...{ key, label: key.toUpperCase(), level: 'read', rule: 'a rule', shown: 'x', layout: null },
  ...{ isMasked: false, notInEmails: false, notInFiles: false },
  ...more,
});

describe('two requests through the same eyes', () => {
  it('stand field by field, each once, the first one’s in their order', () => {
    const rows = besideEachOther([field('b'), field('a')], [field('a'), field('c')]);
    expect(rows.map(({ key, sides }) => [key, ...sides.map((side) => side !== undefined)])).toEqual([
      ['b', true, false],
      ['a', true, true],
      ['c', false, true],
    ]);
  });

  it('differ in how a field is seen and why, and not in what stands in it', () => {
    const plain = field('a');
    const apart: readonly Partial<Field>[] = [
      { level: 'hidden' },
      { level: 'write' },
      { isMasked: true },
      { layout: 'locked' } as Partial<Field>,
      { rule: 'another rule' },
    ];
    for (const more of apart)
      expect([more, besideEachOther([plain], [field('a', more)])[0]?.isAlike]).toEqual([more, false]);
    for (const more of [{ shown: 'another' }, { notInEmails: true }])
      expect([more, besideEachOther([plain], [field('a', more)])[0]?.isAlike]).toEqual([more, true]);
    // A field that one of them has not is seen otherwise there.
    expect(besideEachOther([plain], [])[0]?.isAlike).toBe(false);
  });
});
