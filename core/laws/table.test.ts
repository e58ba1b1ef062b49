import { english } from '@tolvek/words/english';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Scope, type Value } from '../src/expression/index.ts';
import {
  analyseTable,
  prepareRouting,
  prepareWinner,
  type RoutingTable,
  routingFindings,
  type WorkedCase,
} from '../src/routing/index.ts';
import { often } from './often.ts';

const scope = new Scope([
  { name: 'fee', label: 'Fee', type: { kind: 'number', places: 0, least: 0, most: 4 } },
  {
    name: 'from',
    label: 'From',
    type: { kind: 'choice', options: ['corrin', 'merrow', 'other'].map((key) => ({ key, label: key })) },
  },
  { name: 'water', label: 'Water', type: { kind: 'yes-no' } },
]);
const CASES = [
  [null, 0, 1, 2, 3, 4],
  [null, 'corrin', 'merrow', 'other'],
  [null, true, false],
].reduce<readonly (readonly Value[])[]>(
  (cases, values) => cases.flatMap((one) => values.map((value) => [...one, value])),
  [[]],
);

const outcome = { team: 'boats', priority: 'normal', workingDays: 2, path: null } as const;
const figures = fc.constantFrom('', '-', '> 2', '<= 2', '[1..3]', '(1..3)', '0, 4', 'not(2)', '> 9', '>= 0', 'null');
const places = fc.constantFrom(
  '',
  '"corrin"',
  '"corrin", "merrow"',
  'not("other")',
  'not("corrin", "merrow", "other")',
  '"other"',
);
const answers = fc.constantFrom('', 'true', 'false', 'not(true)', 'true, false');
/** A test that needs another field: reasoning can’t tell what it takes. */
const linked = fc.constantFrom('', '', '', '? > 1 and water', '? = fee');
const tableOf = (rows: readonly (readonly string[])[]): RoutingTable => ({
  columns: ['fee', 'from', 'water', 'fee'].map((input, index) => ({ id: `c${index}`, label: input, input })),
  rows: rows.map((cells, index) => ({
    id: `r${index}`,
    note: '',
    cells: Object.fromEntries(cells.map((cell, column) => [`c${column}`, cell])),
    outcome,
  })),
  otherwise: outcome,
});
const anyTable = (last: fc.Arbitrary<string>): fc.Arbitrary<RoutingTable> =>
  fc.array(fc.tuple(figures, places, answers, last), { maxLength: 7 }).map(tableOf);
const valuesOf = (worked: WorkedCase): readonly Value[] =>
  scope.names.map((entry) => worked.values.find((each) => each.column === entry.name)?.value ?? null);

describe('a routing table analysed', () => {
  it('names the rows that never win, just as trying every case does', () => {
    let dead = 0;
    fc.assert(
      fc.property(anyTable(fc.constant('')), (table) => {
        const route = prepareRouting(table, scope);
        const winners = new Set(CASES.map((values) => route(values).rowId));
        const never = table.rows.filter((row) => !winners.has(row.id)).map((row) => row.id);
        dead += never.length;
        const analysis = analyseTable(table, scope);
        expect([table.rows.map((row) => Object.values(row.cells)), analysis.neverWin.map((each) => each.row)]).toEqual([
          table.rows.map((row) => Object.values(row.cells)),
          never,
        ]);
        expect(analysis.complete).toBe(true);
      }),
      { numRuns: often(250) },
    );
    expect(dead).toBeGreaterThan(often(100));
  });

  it('gives a case that no row takes when there is one, and it is one', () => {
    fc.assert(
      fc.property(anyTable(fc.constant('')), (table) => {
        const route = prepareRouting(table, scope);
        const { uncovered } = analyseTable(table, scope);
        expect(uncovered.length > 0).toBe(CASES.some((values) => route(values).isOtherwise));
        for (const worked of uncovered) expect(route(valuesOf(worked)).isOtherwise).toBe(true);
      }),
      { numRuns: often(250) },
    );
  });

  it('gives a case that both rows take for every overlap', () => {
    fc.assert(
      fc.property(anyTable(fc.constant('')), (table) => {
        for (const overlap of analyseTable(table, scope).overlaps) {
          const alone = (id: string): boolean =>
            !prepareRouting({ ...table, rows: table.rows.filter((row) => row.id === id) }, scope)(valuesOf(overlap.at))
              .isOtherwise;
          expect([alone(overlap.first), alone(overlap.second)]).toEqual([true, true]);
        }
      }),
      { numRuns: often(200) },
    );
  });

  it('never says more than it knows of rows whose cells read other fields', () => {
    fc.assert(
      fc.property(anyTable(linked), (table) => {
        const route = prepareRouting(table, scope);
        const winners = new Set(CASES.map((values) => route(values).rowId));
        const { neverWin, uncovered } = analyseTable(table, scope);
        for (const { row } of neverWin)
          expect([table.rows.map((each) => Object.values(each.cells)), winners.has(row)]).toEqual([
            table.rows.map((each) => Object.values(each.cells)),
            false,
          ]);
        for (const worked of uncovered) expect(route(valuesOf(worked)).isOtherwise).toBe(true);
      }),
      { numRuns: often(250) },
    );
  });

  it('has the same winner whether the reasons are asked for or not, also for values no field allows', () => {
    const strange = fc.constantFrom<Value>(null, -1, 2.5, 9, 'corrin', 'elsewhere', '', true, false);
    const row = fc.tuple(figures, places, answers, linked);
    fc.assert(
      fc.property(
        fc.array(row, { maxLength: 70 }).map(tableOf),
        fc.array(fc.tuple(strange, strange, strange), { minLength: 1, maxLength: 20 }),
        (table, many) => {
          const [route, winner] = [prepareRouting(table, scope), prepareWinner(table, scope)];
          for (const values of [...many, ...CASES])
            expect([values, winner(values)]).toEqual([values, route(values).row]);
        },
      ),
      { numRuns: often(80) },
    );
  });

  it('is told as findings, with the rows that stand in the way', () => {
    const table = tableOf([
      ['> 2', '', ''],
      ['<= 2', '', ''],
      ['[1..3]', '"corrin"', ''],
      ['> 3', '', 'not(true)'],
      ['> 9', '', ''],
    ]);
    expect(english(routingFindings(table, scope, new Set(['boats'])).map((finding) => finding.message))).toEqual([
      'Row 3 is never used, because earlier rows match first: 1 and 2. Move it up, change it or delete it.',
      'Row 4 is never used, because earlier rows match first: 1. Move it up, change it or delete it.',
      'Row 5 is never used, because its conditions exclude each other. Change or delete it.',
    ]);
  });
});
