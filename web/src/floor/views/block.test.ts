import { said } from '@tolvek/words';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blockBetween, blockIn, clipboardOf, isWithin, meantBy, plainCell } from './block.ts';

const rows = Array.from({ length: 6 }, (_, at) => ({ number: `VT-${at}`, version: at + 1 }));
const columns = ['request.subject', 'purpose', 'request.stage', 'many'].map((of) => ({ of }));
const meant = (cells: readonly (readonly string[])[], block: Parameters<typeof meantBy>[1], most = 200) =>
  meantBy(cells, block, { rows, columns }, most);

describe('what is on the clipboard', () => {
  it('is what was put there, whatever stands in its cells', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', '"', '\t', '\n', ' ', 'ä', ','), maxLength: 6 });
    const cells = fc
      .integer({ min: 1, max: 4 })
      .chain((wide) => fc.array(fc.array(cell, { minLength: wide, maxLength: wide }), { minLength: 1, maxLength: 5 }));
    fc.assert(
      fc.property(cells, (some) => {
        // A last line that is empty is the end of the one before, as spreadsheets write it.
        const isOpen = some.at(-1)?.every((each) => each === '') === true;
        if (!isOpen) expect(blockIn(clipboardOf(some))).toEqual(some);
      }),
    );
    expect(blockIn('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]);
  });

  it('holds days and sums so that they can be read again', () => {
    expect(plainCell(said('values:date', { day: '2026-11-27' }))).toBe('2026-11-27');
    expect(plainCell(said('values:money', { sum: { amount: 740.5, currency: 'EUR' } }))).toBe('740.5');
    expect(plainCell('Kelp forest')).toBe('Kelp forest');
  });
});

describe('what becomes of cells', () => {
  it('is what was pasted, from the first cell on, and nothing beyond the table', () => {
    const at = (row: number, column: number) => blockBetween({ row, column }, { row, column });
    expect(meant([['a', 'x', '3']], at(4, 1))).toEqual({
      rows: [{ number: 'VT-4', version: 5, cells: { purpose: 'a', many: '3' } }],
      closed: [{ number: 'VT-4', subject: 'request.stage' }],
      more: false,
    });
    expect(meant([['a'], ['b'], ['c']], at(4, 3)).rows.map(({ number, cells }) => [number, cells])).toEqual([
      ['VT-4', { many: 'a' }],
      ['VT-5', { many: 'b' }],
    ]);
    expect(meant([['a']], at(0, 0))).toMatchObject({ rows: [], closed: [{ number: 'VT-0' }] });
    expect(meant([], at(0, 1)).rows).toEqual([]);
  });

  it('is the same again as far as cells are reached over, and of no more requests than are changed at once', () => {
    const block = blockBetween({ row: 5, column: 1 }, { row: 1, column: 1 });
    expect(block).toEqual({ row: 1, column: 1, rows: 5, columns: 1 });
    const filled = meant([['a'], ['b']], block);
    expect(filled.rows.map(({ cells }) => cells.purpose)).toEqual(['a', 'b', 'a', 'b', 'a']);
    const some = meant([['a']], block, 2);
    expect([some.rows.length, some.more]).toEqual([2, true]);
  });

  it('is within the block and nowhere else', () => {
    const place = fc.record({ row: fc.integer({ min: 0, max: 5 }), column: fc.integer({ min: 0, max: 3 }) });
    fc.assert(
      fc.property(place, place, place, (a, b, at) => {
        const between = (one: number, other: number, it: number): boolean =>
          (one <= it && it <= other) || (other <= it && it <= one);
        expect(isWithin(blockBetween(a, b), at)).toBe(
          between(a.row, b.row, at.row) && between(a.column, b.column, at.column),
        );
      }),
    );
  });
});
