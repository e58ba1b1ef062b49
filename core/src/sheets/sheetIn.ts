import { said, type Words } from '@tolvek/words';
import { Unzip, UnzipInflate, zipSync } from 'fflate';
import { readSheet } from 'read-excel-file/universal';
import { BUDGETS } from '../budget/index.ts';

/** What is told while a sheet is read: how far it is, and at last its rows or why not. */
export type SheetTold =
  | { readonly told: 'unpacking' | 'reading' }
  | { readonly told: 'rows'; readonly rows: readonly (readonly string[])[] }
  | { readonly told: 'refused'; readonly why: Words };

/** Parts a spreadsheet has at most; each is a file inside of it. */
const MOST_PARTS = 2_000;

const refused = (why: Words): SheetTold => ({ told: 'refused', why });
const UNREADABLE = refused(said('sheets:unreadable'));
const TOO_LARGE = refused(said('sheets:tooLarge', { most: BUDGETS.sheet.unpacked }));

/** Packed bytes that are unpacked at a time: at most a thousand times as many come of them. */
const A_PIECE = 16_384;

/**
 * Reads the first sheet of a spreadsheet (XLSX, ISO/IEC 29500), up to `most` rows of it, and tells
 * how far it is. Unpacking ends as soon as more comes of it than can be read, whatever the file says
 * of itself.
 */
export async function* sheetIn(bytes: Uint8Array, most: number): AsyncGenerator<SheetTold> {
  yield { told: 'unpacking' };
  try {
    const parts = partsOf(bytes);
    yield { told: 'reading' };
    // Handed on as it is, not packed: the reader would unpack large parts in workers that it makes
    // from a text, which the page’s policy does not allow, and without a limit.
    const rows = await readSheet(zipSync(parts, { level: 0 }).buffer as ArrayBuffer);
    const cells = rows.reduce((all, row) => all + row.length, 0);
    yield cells > BUDGETS.sheet.cells
      ? refused(said('sheets:tooManyCells', { cells, most: BUDGETS.sheet.cells }))
      : { told: 'rows', rows: rows.slice(0, most).map((row) => row.map(cellText)) };
  } catch (error) {
    yield error instanceof TooLarge ? TOO_LARGE : UNREADABLE;
  }
}

class TooLarge extends Error {}

/**
 * The parts of a packed file (PKWARE APPNOTE) that hold cells.
 *
 * @throws TooLarge when they are more, or larger, than can be read.
 */
function partsOf(bytes: Uint8Array): Record<string, Uint8Array> {
  const pieces = new Map<string, Uint8Array[]>();
  let [parts, unpacked] = [0, 0];
  const hold = (size: number): void => {
    if (unpacked + size > BUDGETS.sheet.unpacked) throw new TooLarge();
  };
  const unzip = new Unzip((part) => {
    parts += 1;
    if (parts > MOST_PARTS) throw new TooLarge();
    if (!isNeeded(part)) return;
    hold(part.originalSize ?? 0);
    const here: Uint8Array[] = [];
    pieces.set(part.name, here);
    part.ondata = (error, piece) => {
      if (error) throw error;
      hold(piece.length);
      unpacked += piece.length;
      here.push(piece);
    };
    part.start();
  });
  unzip.register(UnzipInflate);
  for (let at = 0; at < bytes.length; at += A_PIECE)
    unzip.push(bytes.subarray(at, at + A_PIECE), at + A_PIECE >= bytes.length);
  return Object.fromEntries([...pieces].map(([name, here]) => [name, joined(here)]));
}

function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
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
