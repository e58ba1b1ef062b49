import type { SpreadsheetCell, SpreadsheetKind } from '@tolvek/core/register';
import writeSpreadsheet, { type Cell, type SheetData } from 'write-excel-file/universal';

type Column = SpreadsheetKind & { readonly label: string };
/** As the server gives it: the columns, then each row after its number. */
type Lines = readonly [readonly Column[], ...(readonly [number: string, ...SpreadsheetCell[]])[]];

/** A spreadsheet has no more rows (ECMA-376, 18.3.1.73), nor longer texts, names of sheets or addresses in a formula. */
const MOST = { rows: 1_048_575, text: 32_767, name: 31, address: 255 } as const;
const TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** How a kind is drawn there (ECMA-376, 18.8.31). */
function formatOf(kind: SpreadsheetKind): string | undefined {
  switch (kind.is) {
    case 'number':
      return kind.places === 0 ? '0' : `0.${'0'.repeat(kind.places)}`;
    case 'money':
      return `#,##0.00 "${kind.currency}"`;
    case 'date':
      return 'yyyy-mm-dd';
    case 'moment':
      return 'yyyy-mm-dd hh:mm';
    case 'duration':
      return '0.00 "h"';
    default:
      return undefined;
  }
}

const WIDTHS: Readonly<Record<SpreadsheetKind['is'], number>> = {
  ...{ text: 28, date: 12, moment: 17, 'yes-no': 9, duration: 10, number: 12, money: 15 },
};

/** A cell of a kind. What would be read as a formula stays a text, as its cell says that it is one. */
function cellOf(column: Column, value: SpreadsheetCell): Cell {
  if (value === null) return null;
  const format = formatOf(column);
  if (typeof value === 'boolean') return { value, type: Boolean };
  if (typeof value === 'number') return { value, type: Number, ...(format ? { format } : {}) };
  if (column.is !== 'date' && column.is !== 'moment') return { value: value.slice(0, MOST.text), type: String };
  // A spreadsheet knows no time zones: the clock of the desk is what it shows.
  const at = Date.parse(`${value.slice(0, 16)}${value.length > 10 ? '' : 'T00:00'}:00Z`);
  return Number.isNaN(at) ? { value, type: String } : { value: new Date(at), type: Date, format: format ?? '' };
}

const quoted = (text: string): string => `"${text.replaceAll('"', '""')}"`;

/** What opens the sheet of a request; a program that computes nothing sees an empty cell. */
function linkTo(number: string, address: string): Cell {
  const to = `${address}/floor/all/${encodeURIComponent(number)}`;
  if (to.length > MOST.address) return { value: number, type: String };
  return { value: `=HYPERLINK(${quoted(to)},${quoted(number)})`, type: 'Formula', textColor: '#1c5443' };
}

export interface Around {
  /** What the view is called. */
  readonly name: string;
  /** Of the server. */
  readonly address: string;
  /** What the column is called whose cells open the sheets. */
  readonly opens: string;
}

/**
 * The rows of a view as a spreadsheet (ECMA-376), with a link to the sheet of each in its last column.
 *
 * @param text what the server gives for it
 * @throws RangeError for more rows than a spreadsheet has
 */
export async function viewAsXlsx(text: string, { name, address, opens }: Around): Promise<Blob> {
  const [columns, ...lines] = JSON.parse(text) as Lines;
  if (lines.length > MOST.rows) throw new RangeError(`${lines.length} rows`);
  const head = (label: string): Cell => ({ value: label, type: String, fontWeight: 'bold' });
  const data: SheetData = [
    [...columns.map(({ label }) => head(label)), head(opens)],
    ...lines.map(([number, ...cells]) => [
      ...columns.map((column, at) => cellOf(column, cells[at] ?? null)),
      linkTo(number, address),
    ]),
  ];
  const written = writeSpreadsheet(data, {
    sheet:
      name
        .replaceAll(/[\\/?*[\]:']/g, ' ')
        .trim()
        .slice(0, MOST.name) || 'Sheet 1',
    stickyRowsCount: 1,
    columns: [...columns.map(({ is }) => ({ width: WIDTHS[is] })), { width: WIDTHS.number }],
  });
  return new Blob([await written.toBlob()], { type: TYPE });
}
