import { formFileSchema } from '@tolvek/contract';
import { BUDGETS } from '@tolvek/core/budget';
import type { FormFile } from '@tolvek/core/form';
import type { SheetTold } from '@tolvek/core/sheets';
import Papa from 'papaparse';
import { say, told } from '../wire/words.ts';

/** A file a form can start from, once it is read. */
export type StartFile =
  | { readonly kind: 'rows'; readonly name: string; readonly rows: readonly (readonly string[])[] }
  | { readonly kind: 'form'; readonly name: string; readonly file: FormFile }
  | { readonly kind: 'unreadable'; readonly name: string; readonly why: string };

/** Bytes a file may have to be read here, and rows that are looked at to guess kinds. */
const MOST_BYTES = BUDGETS.sheet.bytes;
const ROWS_READ = 2_000;

const unreadable = (name: string, why: string): StartFile => ({ kind: 'unreadable', name, why });

/** Reads a CSV, XLSX or form file. What can’t be read is said, with the reason. */
export async function readStartFile(
  file: File,
  progress: (words: string) => void = () => undefined,
): Promise<StartFile> {
  const { name } = file;
  if (file.size > MOST_BYTES) return unreadable(name, say('workshop:start.tooLarge', { most: MOST_BYTES }));
  try {
    const text = /\.xlsx$/i.test(name) ? null : await file.text();
    // A form file is told by its content as well: a saved file may have lost its ending.
    if (text !== null && (/\.json$/i.test(name) || text.trimStart().startsWith('{'))) return formIn(name, text);
    const rows = text === null ? await spreadsheetRows(file, progress) : csvRows(text);
    return rows.some((row) => row.some((cell) => cell.trim() !== ''))
      ? { kind: 'rows', name, rows }
      : unreadable(name, say('workshop:start.noRows'));
  } catch (error) {
    if (error instanceof Refused) return unreadable(name, error.message);
    return unreadable(name, say('workshop:start.unreadable'));
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

/** How long a spreadsheet may take to be read before it is given up, ms. */
const LONGEST = 60_000;

/**
 * Rows of a spreadsheet, read by a worker: unpacking takes a while, and the page must not wait for
 * it.
 */
function spreadsheetRows(file: File, progress: (words: string) => void): Promise<string[][]> {
  const worker = new Worker(new URL('./sheet.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<string[][]>((done, refuse) => {
    const late = setTimeout(() => refuse(new Refused(say('workshop:start.tooSlow'))), LONGEST);
    worker.onmessage = ({ data }: MessageEvent<SheetTold>) => {
      if (data.told === 'unpacking') progress(say('workshop:start.unpacking', { file: file.name }));
      else if (data.told === 'reading') progress(say('workshop:start.reading', { file: file.name }));
      else {
        clearTimeout(late);
        if ('rows' in data) done(data.rows.map((row) => [...row]));
        else if ('why' in data) refuse(new Refused(told(data.why)));
      }
    };
    worker.onerror = () => refuse(new Refused(say('workshop:start.failed')));
    worker.postMessage({ file, rows: ROWS_READ });
  }).finally(() => worker.terminate());
}

/** Why a file is not read, in words for people. */
class Refused extends Error {}

function formIn(name: string, text: string): StartFile {
  const read = formFileSchema.safeParse(JSON.parse(text));
  if (read.success) return { kind: 'form', name, file: read.data };
  return unreadable(name, say('workshop:start.notAForm'));
}
