import { formFileSchema } from '@tolvek/contract';
import type { FormFile } from '@tolvek/core/form';
import Papa from 'papaparse';

/** A file a form can start from, once it is read. */
export type StartFile =
  | { readonly kind: 'rows'; readonly name: string; readonly rows: readonly (readonly string[])[] }
  | { readonly kind: 'form'; readonly name: string; readonly file: FormFile }
  | { readonly kind: 'unreadable'; readonly name: string; readonly why: string };

/** Bytes a file may have to be read here, and rows that are looked at to guess kinds. */
const MOST_BYTES = 20_000_000;
const ROWS_READ = 2_000;

const unreadable = (name: string, why: string): StartFile => ({ kind: 'unreadable', name, why });

/** Reads a CSV, XLSX or form file. What can’t be read is said, with the reason. */
export async function readStartFile(file: File): Promise<StartFile> {
  const { name } = file;
  if (file.size > MOST_BYTES)
    return unreadable(name, 'It is larger than 20 MB. Take the first rows of it into a smaller file.');
  try {
    const text = /\.xlsx$/i.test(name) ? null : await file.text();
    // A form file is told by its content as well: a saved file may have lost its ending.
    if (text !== null && (/\.json$/i.test(name) || text.trimStart().startsWith('{'))) return formIn(name, text);
    const rows = text === null ? await spreadsheetRows(file) : csvRows(text);
    return rows.some((row) => row.some((cell) => cell.trim() !== ''))
      ? { kind: 'rows', name, rows }
      : unreadable(name, 'There are no rows in it.');
  } catch {
    return unreadable(name, 'It is no CSV, XLSX or form file that can be read. Save it again as one of these.');
  }
}

/**
 * Rows of a CSV file. What parts its cells is told by the headings: cells further down may hold any
 * of these signs.
 */
function csvRows(text: string): string[][] {
  const plain = text.replace(/^\ufeff/, '');
  const wide = (delimiter: string): number =>
    Papa.parse<string[]>(plain, { delimiter, preview: 1 }).data[0]?.length ?? 0;
  const delimiter = [',', ';', '\t', '|'].reduce((best, each) => (wide(each) > wide(best) ? each : best));
  return Papa.parse<string[]>(plain, { delimiter, skipEmptyLines: true, preview: ROWS_READ }).data;
}

async function spreadsheetRows(file: File): Promise<string[][]> {
  const { readSheet } = await import('read-excel-file/browser');
  const rows = await readSheet(file);
  return rows.slice(0, ROWS_READ).map((row) => row.map(cellText));
}

/** A cell of a spreadsheet as it would be typed: days as `YYYY-MM-DD`. */
function cellText(cell: unknown): string {
  if (cell instanceof Date)
    return cell
      .toISOString()
      .replace(/T00:00:00.*$/, '')
      .slice(0, 16);
  return cell === null || cell === undefined ? '' : String(cell);
}

function formIn(name: string, text: string): StartFile {
  const read = formFileSchema.safeParse(JSON.parse(text));
  if (read.success) return { kind: 'form', name, file: read.data };
  const [first] = read.error.issues;
  return unreadable(
    name,
    `It is no form file: at “${first?.path.join('.') || 'the top'}”, ${first?.message ?? 'something is missing'}`,
  );
}
