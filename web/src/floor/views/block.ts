import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { isFact, type ViewDesign } from '@tolvek/core/view';
import type { Words } from '@tolvek/words';
import Papa from 'papaparse';
import { told } from '../../wire/words.ts';

type Row = Pick<AnswerOf<'lookThrough'>['rows'][number], 'number' | 'version'>;
export type CellsOf = BodyOf<'changeCells'>['rows'][number];

/** A block of cells: from one place to another, both included. */
export interface Block {
  readonly row: number;
  readonly column: number;
  readonly rows: number;
  readonly columns: number;
}

interface Place {
  readonly row: number;
  readonly column: number;
}

/** The block between two cells. */
export const blockBetween = (a: Place, b: Place): Block => ({
  ...{ row: Math.min(a.row, b.row), column: Math.min(a.column, b.column) },
  ...{ rows: Math.abs(a.row - b.row) + 1, columns: Math.abs(a.column - b.column) + 1 },
});

export const isWithin = ({ row, column, rows, columns }: Block, at: Place): boolean =>
  at.row >= row && at.row < row + rows && at.column >= column && at.column < column + columns;

/** What spreadsheets put on the clipboard, in cells: text/tab-separated-values (IANA), quoted as CSV where it has to be. */
export const blockIn = (text: string): readonly (readonly string[])[] =>
  Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;

/** Cells as spreadsheets take them from the clipboard. */
export const clipboardOf = (cells: readonly (readonly string[])[]): string =>
  Papa.unparse(
    cells.map((row) => [...row]),
    { delimiter: '\t', newline: '\n' },
  );

/** What words stand for in a cell, so that it can be read again: days as ISO 8601, sums as numbers. */
export function plainCell(words: Words): string {
  if (typeof words === 'string') return words;
  const [only, ...others] = Object.values(words.with ?? {});
  if (others.length > 0 || only === undefined) return told(words);
  if (typeof only === 'number' || typeof only === 'string') return String(only);
  if (typeof only === 'object' && 'amount' in only) return String(only.amount);
  return told(words);
}

/** What cells are to become otherwise. */
export interface Meant {
  readonly rows: readonly CellsOf[];
  /** Cells that are not typed into: facts. */
  readonly closed: readonly { readonly number: string; readonly subject: string }[];
  /** Whether there is more than is changed at once. */
  readonly more: boolean;
}

/**
 * What becomes of cells when some are put there: from the first cell of a block on, again and again as far as the block
 * reaches beyond them; nothing beyond the last row and column.
 */
export function meantBy(
  cells: readonly (readonly string[])[],
  { row, column, rows: high, columns: wide }: Block,
  { rows, columns }: { readonly rows: readonly Row[]; readonly columns: ViewDesign['columns'] },
  most: number,
): Meant {
  const width = Math.max(0, ...cells.map((each) => each.length));
  if (width === 0) return { rows: [], closed: [], more: false };
  const closed: { number: string; subject: string }[] = [];
  const there = rows.slice(row, row + Math.max(high, cells.length));
  const changed = there.slice(0, most).flatMap(({ number, version }, down): CellsOf[] => {
    const said: Record<string, string> = {};
    for (const [across, { of }] of columns.slice(column, column + Math.max(wide, width)).entries()) {
      const cell = cells[down % cells.length]?.[across % width];
      if (cell === undefined) continue;
      if (isFact(of)) closed.push({ number, subject: of });
      else said[of] = cell;
    }
    return Object.keys(said).length === 0 ? [] : [{ number, version, cells: said }];
  });
  return { rows: changed, closed, more: there.length > most };
}
