import { expect, test } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { pageOf } from './people.ts';

/** A spreadsheet with the parts that one needs at least; its cells hold texts in place. */
function spreadsheet(sheet: string | Uint8Array): Buffer {
  const xml = (text: string): Uint8Array => strToU8(`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>${text}`);
  const office = 'http://schemas.openxmlformats.org';
  return Buffer.from(
    zipSync({
      '[Content_Types].xml': xml(
        `<Types xmlns="${office}/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/></Types>`,
      ),
      '_rels/.rels': xml(
        `<Relationships xmlns="${office}/package/2006/relationships"><Relationship Id="rId1" Type="${office}/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
      ),
      'xl/workbook.xml': xml(
        `<workbook xmlns="${office}/spreadsheetml/2006/main" xmlns:r="${office}/officeDocument/2006/relationships"><sheets><sheet name="Rows" sheetId="1" r:id="rId1"/></sheets></workbook>`,
      ),
      'xl/_rels/workbook.xml.rels': xml(
        `<Relationships xmlns="${office}/package/2006/relationships"><Relationship Id="rId1" Type="${office}/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
      ),
      'xl/worksheets/sheet1.xml':
        typeof sheet === 'string'
          ? xml(`<worksheet xmlns="${office}/spreadsheetml/2006/main"><sheetData>${sheet}</sheetData></worksheet>`)
          : sheet,
    }),
  );
}

const letters = (column: number): string =>
  (column >= 26 ? letters(Math.floor(column / 26) - 1) : '') + String.fromCharCode(65 + (column % 26));
/** A row of texts, counted from 1. */
const row = (number: number, texts: readonly string[]): string =>
  `<row r="${number}">${texts.map((text, at) => `<c r="${letters(at)}${number}" t="inlineStr"><is><t>${text}</t></is></c>`).join('')}</row>`;

test('a large spreadsheet is read by its worker, and one that unpacks to too much is refused', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const policy: string[] = [];
  maren.on('console', (message) => {
    if (/Content Security Policy/.test(message.text())) policy.push(message.text());
  });
  await maren.goto('/workshop/new');
  const choose = (name: string, buffer: Buffer) =>
    maren
      .getByLabel('A spreadsheet or form file')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer });

  // Far beyond what was unpacked on the page itself, and of words that do not pack well.
  const word = (n: number): string => `${((n * 2_654_435_761) >>> 0).toString(36)} tide gauge ${n}`;
  const heads = Array.from({ length: 40 }, (_, at) => `Head ${at}`);
  const rows = Array.from({ length: 1_990 }, (_, at) =>
    row(
      at + 2,
      heads.map((_head, column) => word(at * 40 + column)),
    ),
  );
  const large = spreadsheet(`${row(1, heads)}${rows.join('')}`);
  expect(large.length).toBeGreaterThan(600_000);
  await choose('large.xlsx', large);
  await expect(maren.getByText('Head 39')).toBeVisible({ timeout: 30_000 });

  const bomb = spreadsheet(new Uint8Array(200_000_000).fill(32));
  expect(bomb.length).toBeLessThan(1_000_000);
  await choose('bomb.xlsx', bomb);
  await expect(maren.getByText(/Unpacked, it is larger than/)).toBeVisible();

  const xs = Array.from({ length: 500 }, () => 'x');
  const wide = spreadsheet(xs.map((_, at) => row(at + 1, xs)).join(''));
  await choose('wide.xlsx', wide);
  await expect(maren.getByText(/It holds 250,000 cells/)).toBeVisible({ timeout: 30_000 });

  await choose('none.xlsx', Buffer.from('no spreadsheet at all'));
  await expect(maren.getByText(/It is no XLSX file that can be read/)).toBeVisible();
  expect(policy).toEqual([]);
});
