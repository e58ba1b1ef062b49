import type { Field } from '@tolvek/core/register';
import { spreadsheetCell, spreadsheetKind } from '@tolvek/core/register';
import { sheetIn } from '@tolvek/core/sheets';
import { describe, expect, it } from 'vitest';
import { viewAsXlsx } from './viewAsXlsx.ts';

const AROUND = { name: "Trips: 'all' [of] them?", address: 'https://desk.example', opens: 'Open' };
const COLUMNS = [
  { label: 'Trip', is: 'text' },
  { label: 'Leaves', is: 'moment' },
  { label: 'On', is: 'date' },
  { label: 'Persons', is: 'number', places: 0 },
  { label: 'Cost', is: 'money', currency: 'EUR' },
  { label: 'Hours', is: 'duration' },
  { label: 'Done', is: 'yes-no' },
];
const made = async (...lines: readonly unknown[]): Promise<Uint8Array> =>
  new Uint8Array(await (await viewAsXlsx(JSON.stringify([COLUMNS, ...lines]), AROUND)).arrayBuffer());
async function read(bytes: Uint8Array): Promise<readonly (readonly string[])[]> {
  for await (const told of sheetIn(bytes, 100)) if ('rows' in told) return told.rows;
  throw new Error('nothing is read');
}

describe('a view as a spreadsheet', () => {
  it('is read as what it holds, each cell of its kind', async () => {
    const bytes = await made(
      ['VT-00001', 'Skiff', '2026-11-23T09:00', '2026-11-24', 4, 320.5, 1.25, true],
      ['VT-00002', '=1+1', null, '2028-02-29', 0, null, 36, false],
    );
    const [heads, first, second] = await read(bytes);
    expect(heads).toEqual([...COLUMNS.map(({ label }) => label), 'Open']);
    expect(first?.slice(0, 5)).toEqual([
      'Skiff',
      expect.stringMatching(/^2026-11-23T09:00/),
      '2026-11-24',
      '4',
      '320.5',
    ]);
    expect(second?.slice(0, 5)).toEqual(['=1+1', '', '2028-02-29', '0', '']);
    expect([Number(first?.[5]), Number(second?.[5])]).toEqual([1.25, 36]);
    expect([first?.[6], second?.[6]].map((each) => String(each).toLowerCase())).toEqual(['true', 'false']);
  });

  it('has every cell empty of what is empty, and its head alone of no rows', async () => {
    expect(await read(await made())).toEqual([[...COLUMNS.map(({ label }) => label), 'Open']]);
    const [, only] = await read(await made(['VT-1', 'x', ...COLUMNS.slice(1).map(() => null)]));
    expect(only?.slice(1, 7).filter(Boolean)).toEqual([]);
  });
});

describe('a cell of a spreadsheet', () => {
  it('is what its field holds, as a spreadsheet counts it', () => {
    const cell = (type: object, value: unknown, text = 'as read') =>
      spreadsheetCell({ type } as unknown as Field, value as never, text);
    expect(cell({ kind: 'money', currency: 'EUR' }, { minor: 12_345, currency: 'EUR' })).toBe(123.45);
    expect(cell({ kind: 'money', currency: 'JPY' }, { minor: 500, currency: 'JPY' })).toBe(500);
    expect(cell({ kind: 'duration' }, 90)).toBe(1.5);
    expect(cell({ kind: 'number', places: 1 }, 2.5)).toBe(2.5);
    expect([cell({ kind: 'date' }, '2026-11-24'), cell({ kind: 'yes-no' }, false)]).toEqual(['2026-11-24', false]);
    expect(cell({ kind: 'choice', options: [] }, 'bay')).toBe('as read');
    expect([cell({ kind: 'text' }, 'x', ''), cell({ kind: 'number', places: 0 }, null)]).toEqual([null, null]);
    expect(spreadsheetKind({ kind: 'email' })).toEqual({ is: 'text' });
  });
});
