import { BUDGETS } from '@tolvek/core/budget';
import { unzipSync, zipSync } from 'fflate';
import { readSheet } from 'read-excel-file/universal';

/** What the worker tells while it reads a sheet: how far it is, and then the rows or why not. */
export type SheetTold =
  | { readonly told: 'unpacking' | 'reading' }
  | { readonly told: 'rows'; readonly rows: readonly (readonly string[])[] }
  | { readonly told: 'refused'; readonly why: string };

/** Parts a spreadsheet has at most; each is a file inside of it. */
const MOST_PARTS = 2_000;

const tell = (told: SheetTold): void => self.postMessage(told);

self.addEventListener('message', ({ data }: MessageEvent<{ file: File; rows: number }>) => {
  read(data.file, data.rows).catch(() =>
    tell({ told: 'refused', why: 'It is no XLSX file that can be read. Save it again as XLSX or CSV.' }),
  );
});

/**
 * Reads the first sheet of a spreadsheet. How large it is unpacked is looked at before anything is
 * unpacked.
 */
async function read(file: File, most: number): Promise<void> {
  tell({ told: 'unpacking' });
  const bytes = new Uint8Array(await file.arrayBuffer());
  const { parts, unpacked } = sizeOf(bytes);
  if (parts > MOST_PARTS || unpacked > BUDGETS.sheet.unpacked) {
    const mb = Math.round(BUDGETS.sheet.unpacked / 1_000_000);
    tell({
      told: 'refused',
      why: `Unpacked, it is larger than ${mb} MB. Save the rows you need in a new file, without pictures, or as CSV.`,
    });
    return;
  }
  tell({ told: 'reading' });
  // Handed on as it is, not packed: the reader would unpack large parts in workers that it makes
  // from a text, which the page’s policy does not allow, and without a limit.
  const open = zipSync(unzipSync(bytes, { filter: isNeeded }), { level: 0 });
  const rows = await readSheet(open.buffer as ArrayBuffer);
  const cells = rows.reduce((all, row) => all + row.length, 0);
  if (cells > BUDGETS.sheet.cells) {
    tell({
      told: 'refused',
      why: `It holds ${cells.toLocaleString('en')} cells; ${BUDGETS.sheet.cells.toLocaleString('en')} can be read. Leave out columns or rows that are not needed.`,
    });
    return;
  }
  tell({ told: 'rows', rows: rows.slice(0, most).map((row) => row.map(cellText)) });
}

/**
 * How many parts a packed file has, and how large they say they are together. Nothing is unpacked.
 */
function sizeOf(bytes: Uint8Array): { parts: number; unpacked: number } {
  let [parts, unpacked] = [0, 0];
  unzipSync(bytes, {
    filter: (part) => {
      parts += 1;
      if (isNeeded(part)) unpacked += part.originalSize;
      return false;
    },
  });
  return { parts, unpacked };
}

/** Parts that hold cells, and what says where they are; pictures and the like are left packed. */
const isNeeded = ({ name }: { readonly name: string }): boolean => /\.(xml|rels)$/.test(name);

/** A cell of a spreadsheet as it would be typed: days as `YYYY-MM-DD`. */
function cellText(cell: unknown): string {
  if (cell instanceof Date)
    return cell
      .toISOString()
      .replace(/T00:00:00.*$/, '')
      .slice(0, 16);
  return cell === null || cell === undefined ? '' : String(cell);
}
