import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { BUDGETS } from '../src/budget/index.ts';
import { type SheetTold, sheetIn } from '../src/sheets/index.ts';
import { bomb, row, spreadsheet } from './spreadsheet.ts';

async function told(bytes: Uint8Array, most = 2_000): Promise<readonly SheetTold[]> {
  const all: SheetTold[] = [];
  for await (const each of sheetIn(bytes, most)) all.push(each);
  return all;
}
const last = async (bytes: Uint8Array): Promise<SheetTold | undefined> => (await told(bytes)).at(-1);

/** Every place a packed file says how large a part is unpacked (PKWARE APPNOTE 4.3). */
function saying(packed: Uint8Array, name: string, size: number): Uint8Array {
  const bytes = Buffer.from(packed);
  const heads = [
    { sign: 'PK\u0003\u0004', size: 22, length: 26, name: 30 },
    { sign: 'PK\u0001\u0002', size: 24, length: 28, name: 46 },
  ];
  let said = 0;
  for (const head of heads)
    for (let at = bytes.indexOf(head.sign); at >= 0; at = bytes.indexOf(head.sign, at + 1)) {
      const length = bytes.readUInt16LE(at + head.length);
      if (bytes.toString('utf8', at + head.name, at + head.name + length) !== name) continue;
      bytes.writeUInt32LE(size, at + head.size);
      said += 1;
    }
  expect(said).toBe(2);
  return bytes;
}

describe('a spreadsheet', () => {
  it('is read as its cells would be typed, up to the rows wanted', async () => {
    const rows = Array.from({ length: 5 }, (_, at) => row(at + 1, [`a${at}`, '', `c${at}`]));
    expect(await told(spreadsheet(rows.join('')), 2)).toEqual([
      { told: 'unpacking' },
      { told: 'reading' },
      {
        told: 'rows',
        rows: [
          ['a0', '', 'c0'],
          ['a1', '', 'c1'],
        ],
      },
    ]);
  });

  it('that is larger than can be read is refused before anything is unpacked', async () => {
    const packed = bomb(BUDGETS.sheet.unpacked + 1);
    expect(packed.length).toBeLessThan(BUDGETS.sheet.unpacked / 500);
    expect(english(await told(packed))).toEqual([
      { told: 'unpacking' },
      { told: 'refused', why: expect.stringMatching(/larger than \d+ MB/) },
    ]);
  });

  it('that says it is small and is not is unpacked no further than what can be read', async () => {
    const part = 'xl/worksheets/sheet1.xml';
    const packed = saying(bomb(BUDGETS.sheet.unpacked * 2), part, 1_000);
    expect(english(await last(packed))).toEqual({ told: 'refused', why: expect.stringMatching(/larger than \d+ MB/) });
  });

  it('with more cells than can be read is refused with how many it has', async () => {
    const xs = Array.from({ length: 500 }, () => 'x');
    expect(english(await last(spreadsheet(xs.map((_, at) => row(at + 1, xs)).join(''))))).toEqual({
      told: 'refused',
      why: expect.stringContaining('This file has 250,000 cells.'),
    });
  });

  it('in name only is refused', async () => {
    expect(english(await last(Buffer.from('no spreadsheet at all')))).toEqual({
      told: 'refused',
      why: expect.stringContaining('not an XLSX file'),
    });
    expect(await last(new Uint8Array())).toMatchObject({ told: 'refused' });
  });
});
