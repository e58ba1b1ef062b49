import { BUDGETS } from '@tolvek/core/budget';
import { sheetIn } from '@tolvek/core/sheets';
import { bomb } from '../../core/laws/spreadsheet.ts';
import { type Figure, figure, ROUNDS } from './figure.ts';

/** How long a spreadsheet may take to be refused that unpacks to far more than can be read, ms. */
const WANTED = 2_000;

/** Spreadsheets of few bytes that unpack to ten times what can be read: one that says so, one that lies. */
export async function measureBombs(): Promise<readonly Figure[]> {
  const honest = bomb(BUDGETS.sheet.unpacked * 10);
  const lying = Buffer.from(honest);
  // Where a packed file says how large its parts are (PKWARE APPNOTE 4.3.7 and 4.3.12).
  for (const { sign, size } of [
    { sign: 'PK\u0003\u0004', size: 22 },
    { sign: 'PK\u0001\u0002', size: 24 },
  ])
    for (let at = lying.indexOf(sign); at >= 0; at = lying.indexOf(sign, at + 1))
      if (lying.readUInt32LE(at + size) > 1_000_000) lying.writeUInt32LE(1_000, at + size);
  const figures: Figure[] = [];
  for (const [what, bytes] of [
    ['that says how large it is', honest],
    ['that lies about it', lying],
  ] as const) {
    const took: number[] = [];
    for (let round = 0; round < ROUNDS; round += 1) took.push(await refusal(bytes));
    figures.push(figure(`A spreadsheet bomb ${what} refused, ms; limit: ${WANTED}`, took, [WANTED], 1));
  }
  return figures;
}

async function refusal(bytes: Uint8Array): Promise<number> {
  const began = performance.now();
  let last = '';
  for await (const told of sheetIn(bytes, 1_000)) last = told.told;
  if (last !== 'refused') throw new Error(`The bomb was not refused: ${last}.`);
  return performance.now() - began;
}
