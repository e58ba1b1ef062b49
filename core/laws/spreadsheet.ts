import { strToU8, zipSync } from 'fflate';

const xml = (text: string): Uint8Array => strToU8(`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>${text}`);
const office = 'http://schemas.openxmlformats.org';

/** A spreadsheet with the parts that one needs at least; its cells hold texts in place. */
export const spreadsheet = (sheet: string | Uint8Array): Buffer =>
  Buffer.from(
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

const letters = (column: number): string =>
  (column >= 26 ? letters(Math.floor(column / 26) - 1) : '') + String.fromCharCode(65 + (column % 26));

/** A row of texts, counted from 1. */
export const row = (number: number, texts: readonly string[]): string =>
  `<row r="${number}">${texts.map((text, at) => `<c r="${letters(at)}${number}" t="inlineStr"><is><t>${text}</t></is></c>`).join('')}</row>`;

/** Rows that are far more than spaces, and nothing else: packed, they are next to nothing. */
export const bomb = (bytes: number): Buffer => spreadsheet(new Uint8Array(bytes).fill(32));
