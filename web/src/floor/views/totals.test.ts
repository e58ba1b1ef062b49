import type { Scope } from '@tolvek/core/expression';
import type { Field } from '@tolvek/core/register';
import { standingScope } from '@tolvek/core/register';
import { describe, expect, it } from 'vitest';
import { firstTotal, totalsBy } from './totals.ts';

const field = (key: string, kind: string): Field => ({ key, label: key, type: { kind } }) as unknown as Field;
const FIELDS = [field('notes', 'text'), field('hours', 'duration'), field('cost', 'money')];
const scope: Scope = standingScope(FIELDS);

describe('a total that begins', () => {
  it('is of what can be added up, and keeps what another was of', () => {
    expect(firstTotal('sum', FIELDS, scope)).toEqual({ is: 'sum', of: 'hours' });
    expect(firstTotal('most', FIELDS, scope, { is: 'sum', of: 'cost' })).toEqual({ is: 'most', of: 'cost' });
    expect(firstTotal('rate', FIELDS, scope, { is: 'sum', of: 'cost' })).toEqual({
      ...{ is: 'rate', of: 'cost', per: 'hours' },
    });
    expect(firstTotal('sum', FIELDS, scope, { is: 'share', when: 'notes = ""', word: 'bare' })).toEqual({
      ...{ is: 'sum', of: 'hours' },
    });
  });

  it('is none where nothing can be added up, or there is nothing it could be for', () => {
    const [notes, hours] = FIELDS as [Field, Field];
    expect(firstTotal('mean', [notes], scope)).toBeNull();
    expect(firstTotal('rate', [notes, hours], scope)).toBeNull();
    expect(firstTotal('count', [notes], scope)).toEqual({ is: 'count', of: null });
    const share = firstTotal('share', [notes], scope);
    expect(share?.is === 'share' && share.when !== '' && share.word === '').toBe(true);
  });

  it('counts, and adds up what there is first', () => {
    expect(totalsBy('notes', FIELDS).totals).toEqual([
      { is: 'count', of: null },
      { is: 'sum', of: 'hours' },
    ]);
    expect(totalsBy('notes', []).totals).toEqual([{ is: 'count', of: null }]);
  });
});
