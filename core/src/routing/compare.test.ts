import { english } from '@tolvek/words/english';
import { expect, it } from 'vitest';
import { type RoutingTable, rowChanges } from './index.ts';

const outcome = { team: 'boats', priority: 'normal', workingDays: 3, path: null } as const;
const row = (id: string, cell: string) => ({ id, note: '', cells: { fee: cell }, outcome });
const table: RoutingTable = {
  columns: [{ id: 'fee', label: 'Fee', input: 'fee' }],
  rows: [row('a', '> 10'), row('b', '> 5'), row('c', '> 1')],
  otherwise: outcome,
};
const told = (after: RoutingTable): readonly string[] => rowChanges(table, after).map((each) => english(each));
const [a, b, c] = table.rows;

it('tells of a table what becomes otherwise in which row, by their places then', () => {
  if (!a || !b || !c) throw new Error('rows');
  expect(told({ ...table, rows: [...table.rows] })).toEqual([]);
  expect(told({ ...table, rows: [a, { ...b, note: 'Why', cells: { fee: '> 6', more: '' } }, c] })).toEqual([
    'row 2 changes in its conditions',
  ]);
  const dearer = { ...c, outcome: { ...outcome, priority: 'high', formulas: { team: '"stores"' } } } as const;
  expect(told({ ...table, rows: [row('new', '> 99'), a, dearer] })).toEqual([
    'row 1 is new',
    'row 3 changes in Team and Priority',
    '1 row is deleted',
  ]);
  expect(told({ ...table, rows: [b, a, c] })).toEqual(['the order changes']);
  expect(told({ ...table, otherwise: { ...outcome, followers: [{ group: 'boats' }], stage: 'waiting' } })).toEqual([
    'the last row changes in Stage and its followers',
  ]);
  // What is left to later rows was said, and is not any more; in other tables it is said all the same.
  const leaving = { ...a, leaves: ['team' as const] };
  expect(told({ ...table, hits: 'each', rows: [leaving, b, c] })).toEqual(['row 1 changes in Team']);
  expect(told({ ...table, rows: [leaving, b, c] })).toEqual([]);
  expect(told({ ...table, columns: [] })).toEqual(['the columns change']);
});
