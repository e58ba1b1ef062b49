import type { Field } from '@tolvek/core/register';
import { describe, expect, it } from 'vitest';
import { groupedBy, moved, newView, ofRegisters, orderedBy, originOf, shows, subjectsFor } from './viewDraft.ts';

const FIELDS = [
  { key: 'area', label: 'Area', source: 'asked', type: { kind: 'choice', options: [] } },
  { key: 'cost', label: 'Cost', source: 'computed', type: { kind: 'money', currency: 'EUR' } },
] as unknown as readonly Field[];
const view = newView('Boats', ['vessels']);
const columnsOf = ({ columns }: typeof view): readonly string[] => columns.map(({ of }) => of);

describe('a view that is changed', () => {
  it('is grouped on two levels, by each thing once', () => {
    const once = groupedBy(view, 0, 'area');
    const twice = groupedBy(once, 1, 'request.stage');
    expect(twice.groups).toEqual(['area', 'request.stage']);
    expect(groupedBy(twice, 0, 'request.stage').groups).toEqual(['request.stage']);
    expect(groupedBy(twice, 0, '').groups).toEqual([]);
    expect(groupedBy(twice, 1, '').groups).toEqual(['area']);
  });

  it('is in order by each thing once, and by one less when that is taken away', () => {
    const two = orderedBy(orderedBy(view, 0, { of: 'cost', down: true }), 1, { of: 'area', down: false });
    expect(two.orders).toEqual([
      { of: 'cost', down: true },
      { of: 'area', down: false },
    ]);
    expect(orderedBy(two, 0, { of: 'area', down: true }).orders).toEqual([{ of: 'area', down: true }]);
    expect(orderedBy(two, 0, null).orders).toEqual([{ of: 'area', down: false }]);
  });

  it('shows columns, hides them and moves them no further than there are places', () => {
    const more = shows(view, 'cost', true);
    expect(columnsOf(more).at(-1)).toBe('cost');
    expect(columnsOf(shows(more, 'request.stage', false))).not.toContain('request.stage');
    expect(columnsOf(moved(more, 'cost', -1)).at(-2)).toBe('cost');
    expect(moved(more, 'cost', 1)).toBe(more);
    expect(moved(more, 'gone', 1)).toBe(more);
  });

  it('drops what the registers it looks at next have not got', () => {
    const set = groupedBy(shows(view, 'area', true), 0, 'area');
    const next = ofRegisters(set, ['purchases'], FIELDS.slice(1));
    expect([next.of, next.groups, columnsOf(next).includes('area')]).toEqual([['purchases'], [], false]);
    expect(columnsOf(next)).toContain('request.stage');
  });
});

describe('what can be named', () => {
  it('is offered where something can be done with it, with where it comes from', () => {
    expect(subjectsFor('groups', FIELDS)).toContain('area');
    expect(subjectsFor('groups', FIELDS)).not.toContain('cost');
    expect(subjectsFor('orders', FIELDS)).toContain('cost');
    expect(subjectsFor('orders', FIELDS, ['request.due'])).not.toContain('request.due');
    expect(subjectsFor('columns', FIELDS, ['request.due'])).toContain('request.due');
    expect(subjectsFor('columns', FIELDS)).toContain('request.subject');
    expect(['request.stage', 'area', 'cost'].map((each) => originOf(each, FIELDS))).toEqual([
      'fact',
      'asked',
      'computed',
    ]);
  });
});
