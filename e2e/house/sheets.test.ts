import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, WATER } from './desk.ts';

// Requests as sheets: out with what one may read, in by the form’s own rules, and nothing kept in a
// dry run.
let desk: Desk;
let maren: Caller;
let priya: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind')];
});
afterAll(() => desk.close());

const sheetOf = async (form: string, who = maren, among = 'all') => {
  const response = await fetch(`${desk.running.url}/api/forms/${form}/requests.csv?among=${among}`, {
    headers: { cookie: who.cookie },
  });
  const text = await response.text();
  return {
    status: response.status,
    text,
    lines: Papa.parse<Record<string, string>>(text, { header: true, delimiter: ',', skipEmptyLines: true }).data,
  };
};
const take = (
  form: string,
  rows: readonly { cells: object; requester?: string }[],
  apply: boolean,
  key: string = crypto.randomUUID(),
) =>
  maren.call('takeInRows', {
    params: { key: form },
    headers: { 'Idempotency-Key': key },
    body: { rows: rows.map((row) => ({ requester: '', ...row })), apply },
  });
const total = async (): Promise<number> => (await maren.call('ledger', { query: { tray: 'all' } })).body.total;
const LINES = JSON.stringify([{ what: 'Rope', count: 2, price: '12.50', vat: 'full' }]);
const buy = (purpose: string, lines = LINES) => ({ cells: { purpose, budget: 'MB2041', lines } });

describe('taken out', () => {
  it('each request is there with what its reader may read, and no cell is a formula', async () => {
    const { number } = (
      await priya.submit('come-on-site', { ...WATER, visitor: '=HYPERLINK("x")', medical_note: 'planted-note' })
    ).body;
    const { status, text, lines } = await sheetOf('site-access');
    const line = lines.find((each) => each.Number === number);
    expect([status, line?.Visitor, line?.['Works on water'], line?.['Medical note'], line?.Requester]).toEqual([
      200,
      '\'=HYPERLINK("x")',
      'yes',
      '',
      'Priya Nakamura-Lind',
    ]);
    expect(text).not.toContain('planted-note');
    // Every cell is quoted, those of the head too.
    const [head = '', ...others] = text
      .replace(/^\uFEFF/, '')
      .trimEnd()
      .split('\r\n');
    for (const row of [head, ...others]) expect(row).toMatch(/^"(?:[^"]|"")*"(?:,"(?:[^"]|"")*")*$/);
    expect((await sheetOf('site-access', priya)).status).toBe(403);
  });

  it('what stays in the house is not', async () => {
    await priya.submit('concern-report', { about: 'safety', what_happened: 'The gate did not close.', reply: false });
    const refused = await sheetOf('concern-report');
    expect([refused.status, refused.text.includes('gate')]).toEqual([403, false]);
    expect(refused.text).toContain('but not exported');
  });
});

describe('taken in', () => {
  it('a dry run tells what would happen, row by row, and keeps nothing', async () => {
    const before = await total();
    const letters = (await desk.letters()).length;
    const rows = [
      buy('Ropes'),
      { ...buy('Nets'), requester: 'ghost@skerrow.example' },
      buy('Bad lines', 'many'),
      { cells: { purpose: 'x', band: 'board' } },
    ];
    const { body } = await take('purchase', rows, false);
    expect([body.applied, body.good, body.bad]).toEqual([false, 1, 3]);
    const fields = body.rows.map((row: { problems: { field: string }[] }) =>
      row.problems.map((problem) => problem.field),
    );
    expect(fields).toEqual([[], ['requester'], ['lines'], ['lines', 'budget', 'band']]);
    expect([await total(), (await desk.letters()).length]).toEqual([before, letters]);
    expect((await sheetOf('purchase')).lines).toEqual([]);
  });

  it('comes in as it was told, once however often it is sent, routed and computed, without letters', async () => {
    const letters = (await desk.letters()).length;
    const rows = [
      { ...buy('Ropes'), requester: 'Hanne Istvan' },
      {
        ...buy('Depth sensor', JSON.stringify([{ what: 'Sensor', count: 1, price: '890', vat: 'full' }])),
        requester: 'priya.nakamura.lind@skerrow.example',
      },
    ];
    const dry = (await take('purchase', rows, false)).body;
    const [first, second] = [
      await take('purchase', rows, true, 'taken-in-twice'),
      await take('purchase', rows, true, 'taken-in-twice'),
    ];
    expect([first.body.rows, second.body]).toEqual([dry.rows, first.body]);
    const [ropes, sensor] = first.body.rows.map((row: { number: string }) => row.number);
    expect((await maren.sheet(ropes)).requester.name).toBe('Hanne Istvan');
    const sheet = await maren.sheet(sensor);
    expect([sheet.stage.label, sheet.routing.row, sheet.history[0].what]).toEqual([
      'Waiting for approval',
      1,
      'Imported from a file, release 1',
    ]);
    expect(sheet.values.fields.find((field: { key: string }) => field.key === 'band').shown).toBe('Duty manager');
    expect((await desk.letters()).length).toBe(letters);
    expect((await sheetOf('purchase')).lines.map((line) => line['Total with VAT'])).toEqual(['30.75', '1094.70']);
  });

  it('obeys what may be asked only once, among its own rows too, and finds references by number', async () => {
    const trip = (day: string, vessel: string) => ({
      cells: {
        vessel,
        purpose: 'Tide',
        leaves: `${day}T09:00`,
        returns: `${day}T11:00`,
        area: 'In the bay',
        persons: '2',
        sea_state: 'calm',
        budget: 'BC-00002',
        gear: 'Winch; Kites',
      },
      requester: 'Priya Nakamura-Lind',
    });
    const rows = [trip('2026-12-03', 'VS-00001'), trip('2026-12-03', 'vs-00001'), trip('2026-12-04', 'VS-00099')];
    const dry = (await take('vessel-time', rows, false)).body;
    const { body } = await take('vessel-time', rows, true);
    expect(body.rows).toEqual(dry.rows);
    expect(
      body.rows.map(
        (row: { number: string | null; problems: { message: string }[] }) => row.number ?? row.problems[0]?.message,
      ),
    ).toEqual([
      'VT-00001',
      'You already sent VT-00001 with the same “Vessel” and “Leaves”.',
      'You cannot choose this here.',
    ]);
    const [line] = (await sheetOf('vessel-time')).lines;
    expect([line?.Vessel, line?.Gear, line?.['Rate an hour'], line?.Cost]).toEqual([
      'VS-00001',
      'Winch; Kites',
      '140.00',
      '280.00',
    ]);
  });
});
