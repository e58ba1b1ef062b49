import type { ItemColumn, RawRow } from '@tolvek/core/register';
import Papa from 'papaparse';

/** Cells copied from a spreadsheet: rows by lines, columns by tabs. */
export function cellsOf(text: string): readonly (readonly string[])[] {
  const { data } = Papa.parse<string[]>(text.replace(/\r\n?/g, '\n').replace(/\n+$/, ''), { delimiter: '\t' });
  return data.map((row) => row.map((cell) => cell.trim()));
}

/**
 * Lines with copied cells laid over them, from one cell on; columns that are computed are passed
 * over.
 */
export function pasteInto(
  lines: readonly RawRow[],
  columns: readonly ItemColumn[],
  at: { readonly row: number; readonly column: string },
  cells: readonly (readonly string[])[],
  most: number,
): readonly RawRow[] {
  const asked = columns.filter((column) => column.formula === undefined);
  const first = asked.findIndex((column) => column.key === at.column);
  const result: Record<string, RawRow[string]>[] = lines.map((line) => ({ ...line }));
  for (const [down, row] of cells.entries()) {
    const index = at.row + down;
    if (index >= most) break;
    while (result.length <= index) result.push({});
    for (const [right, cell] of row.entries()) {
      const column = asked[first + right];
      const line = result[index];
      if (column && line) line[column.key] = asTyped(column, cell);
    }
  }
  return result;
}

/** What was copied, as it would be typed: an option by its label, a yes or no by its word. */
function asTyped(column: ItemColumn, cell: string): RawRow[string] {
  const { type } = column;
  const plain = cell.toLowerCase();
  if (type.kind === 'choice')
    return type.options.find((option) => option.label.toLowerCase() === plain || option.key === plain)?.key ?? cell;
  if (type.kind === 'level') return type.levels.find((level) => level.label.toLowerCase() === plain)?.worth ?? cell;
  if (type.kind === 'yes-no')
    return plain === 'yes' || plain === 'true' ? true : plain === 'no' || plain === 'false' ? false : cell;
  return cell;
}
