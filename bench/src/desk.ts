import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { FormDesign } from '@tolvek/core/form';
import Sqlite from 'better-sqlite3';
import { numbersTable } from '../../core/laws/largeTables.ts';
import { type Figure, figure, interleaved } from './figure.ts';
import type { Called, Caller, Submits } from './load.process.ts';
import { Part } from './processes.ts';
import { signedIn } from './signedIn.ts';
import { STORED_TABLES } from './stored.ts';

interface DeskRun {
  readonly folder: string;
  readonly size: number;
  readonly mixed: number;
}
type Tell = (figures: readonly Figure[]) => void;
interface Once {
  readonly status: number;
  readonly bytes: number;
  readonly text: string;
}

/**
 * The running application beside the floor: pages, submits, what a request takes of the disk, and how long its
 * thread is held up.
 */
export async function measureDesk({ folder, size, mixed }: DeskRun, tell: Tell): Promise<void> {
  console.log(`Making a desk with ${size} requests …`);
  const data = join(folder, 'data');
  const mail = await Part.start('./mail.process.ts');
  const smtp = await mail.ask<string>('url');
  const desk = await Part.start('./desk.process.ts', [data, String(size), smtp]);
  const load = await Part.start('./load.process.ts');
  const url = await desk.ask<string>('url');
  const maren = await signedIn(url, 'Maren Okafor');
  const priya = await signedIn(url, 'Priya Nakamura-Lind');

  const ledger = (): Called => ({ url: `${url}/api/requests?tray=all`, headers: { cookie: maren } });
  const releases = new Map<string, number>();
  for (const form of FORMS) {
    const { text } = await load.ask<Once>('once', at(`${url}/api/doors/${form}`, priya));
    releases.set(form, (JSON.parse(text) as { form: { release: number } }).form.release);
  }
  const doors = FORMS.map((form) => ({
    form,
    release: releases.get(form) ?? 1,
    submit: { url: `${url}/api/doors/${form}/requests`, headers: { cookie: priya } },
    picture:
      form === 'concern-report'
        ? { ...at(`${url}/api/doors/${form}/uploads?field=pictures&name=a.png`, priya), method: 'POST' }
        : null,
  }));
  const things = await desk.ask<Submits['things']>('things');
  const secret = readFileSync(join(data, 'secret'), 'utf8').trim();
  const samples = [];
  for (const door of doors) samples.push(await sampleOf(load, desk, data, { doors: [door], things, times: 1 }));
  const copy = join(folder, 'floor.sqlite');
  await desk.ask('copyTo', copy);
  const floor = await Part.start('./floor.process.ts', [copy, secret]);
  const floorUrl = await floor.ask<string>('url');
  await floor.ask('ledgerBytes', (await load.ask<Once>('once', ledger())).text);
  await floor.ask('samples', samples);
  const floorLedger: Called = { url: `${floorUrl}/ledger`, headers: { cookie: maren } };
  const floorDoors = doors.map(({ form, release }) => ({
    form,
    release,
    submit: at(`${floorUrl}/submit`, priya),
    picture: null,
  }));

  const page = (each: Called) => load.ask<number>('medianOf', { each, times: 150 });
  const delivered: number[] = [];
  const sending = async (): Promise<number> => {
    const began = performance.now();
    const each = await load.ask<number>('submits', { doors, things, times: SUBMITS });
    await desk.ask('lettersSent');
    delivered.push((performance.now() - began) / SUBMITS);
    return each;
  };
  const sendingByHand: number[] = [];
  const byHandSending = async (): Promise<number> => {
    const each = await load.ask<number>('submits', { doors: floorDoors, things, times: SUBMITS });
    sendingByHand.push(each);
    return each;
  };
  const byHand = 'the same by hand on Express and prepared statements';
  tell([
    await interleaved(
      `Ledger page at ${size} requests, ms; limit: ${byHand}`,
      2,
      () => page(ledger()),
      () => page(floorLedger),
    ),
  ]);
  const rows = Math.round(samples.reduce((all, sample) => all + sample.rows.length, 0) / samples.length);
  const what = `of one of eight at once, over ${FORMS.length} forms with lines, references, pictures and approval`;
  tell([
    await interleaved(`A submit ${what}, ms; limit: ${byHand}, ${rows} rows each`, 1 / 0.3, sending, byHandSending),
    // The first round warms up.
    figure(
      `A submit ${what}, until the last letter is delivered, ms; limit: ${byHand}, and no letters`,
      delivered.slice(1),
      sendingByHand.slice(1),
      1 / 0.15,
    ),
  ]);

  tell(await mixedRun({ desk, floor, load, url, floorUrl, maren, priya, ms: mixed * 1_000 }));
  await floor.stop();

  await desk.stop();
  tell([disk(join(data, 'tolvek.sqlite'))]);
  await load.stop();
  await mail.stop();
}

/** What a request takes of the disk, bytes: with its history, its letters and all indexes; limit: 6,000. */
function disk(path: string): Figure {
  const db = new Sqlite(path, { readonly: true });
  // Where the demo’s letters arrive is no part of a desk.
  const held = db
    .prepare(
      'select sum(pgsize) as bytes from dbstat where name not in (select name from sqlite_master where tbl_name = ?)',
    )
    .get('letters') as { bytes: number };
  const { n } = db.prepare('select count(*) as n from requests').get() as { n: number };
  const most = db
    .prepare(
      'select coalesce(m.tbl_name, s.name) as name, sum(s.pgsize) as bytes from dbstat s left join sqlite_master m on m.name = s.name group by 1 order by 2 desc limit 8',
    )
    .all() as { name: string; bytes: number }[];
  db.close();
  console.log(`Of the disk: ${most.map(({ name, bytes }) => `${name} ${Math.round(bytes / n)}`).join(', ')}`);
  return figure(
    'A request on the disk, bytes, with its history, letters and indexes; limit: 6,000',
    [held.bytes / n],
    [6_000],
    1,
  );
}

/** Submits are sent through the doors of these in turn. */
const FORMS = ['come-on-site', 'purchase', 'sample-analysis', 'field-kit-loan', 'concern-report'] as const;
/** Submits in a round; five rounds are measured. */
const SUBMITS = 600;

const at = (url: string, cookie: string): Called => ({ url, headers: { cookie } });

/** The rows that one submit stores, and the bytes it is answered with. */
async function sampleOf(load: Part, desk: Part, data: string, submit: Submits) {
  await desk.ask('lettersSent');
  const db = new Sqlite(join(data, 'tolvek.sqlite'), { readonly: true });
  const last = (table: string): number =>
    (db.prepare(`select coalesce(max(rowid), 0) as n from ${table}`).get() as { n: number }).n;
  const before = new Map(STORED_TABLES.map((table) => [table, last(table)]));
  await load.ask('submits', submit);
  await desk.ask('lettersSent');
  const rows = STORED_TABLES.flatMap((table) =>
    db
      .prepare(`select * from ${table} where rowid > ?`)
      .all(before.get(table))
      .map((row) => ({ table, row: row as Record<string, unknown> })),
  );
  db.close();
  const { answer } = (rows.find(({ table }) => table === 'idempotency')?.row ?? {}) as { answer: string };
  return { rows, bytes: answer };
}

interface MixedRun {
  readonly desk: Part;
  readonly floor: Part;
  readonly load: Part;
  readonly url: string;
  readonly floorUrl: string;
  readonly maren: string;
  readonly priya: string;
  readonly ms: number;
}

/**
 * Everybody at once, with the largest inputs there can be: readers, typers, senders, and a
 * coordinator with a heavy draft, sheets, conditions over past requests and rules over all of them.
 * Beside it the floor with the readers and senders alone.
 */
async function mixedRun({ desk, floor, load, url, floorUrl, maren, priya, ms }: MixedRun): Promise<readonly Figure[]> {
  const json = { 'content-type': 'application/json' };
  const asMaren = { cookie: maren, ...json };
  const get = (path: string, cookie = maren): Called => ({ url: `${url}${path}`, headers: { cookie } });
  const post = (path: string, body: unknown, headers: Record<string, string> = {}): Called => ({
    method: 'POST',
    url: `${url}${path}`,
    headers: { ...asMaren, ...headers },
    body: JSON.stringify(body),
  });
  const form = JSON.parse((await load.ask<Once>('once', get('/api/forms/site-access'))).text) as {
    draft: FormDesign;
    version: number;
  };
  const heavy = heavyDraft(form.draft);
  const made = await load.ask<Once>(
    'once',
    post(
      '/api/forms',
      { prefix: 'ZZ', desk: 'boats', doors: { staff: true, outside: false }, draft: heavy },
      { 'Idempotency-Key': randomUUID() },
    ),
  );
  if (made.status !== 200) throw new Error(made.text.slice(0, 500));
  const { key } = JSON.parse(made.text) as { key: string };
  const long = 'a b c d e f g h '.repeat(250);
  const rows = Array.from({ length: 500 }, (_, index) => ({
    cells: {
      visitor: `Visitor ${index}`,
      institute: 'Corrin Institute',
      reason: 'Calibration',
      arrival: '2026-12-01',
      departure: '2026-12-02',
      works_on_water: 'No',
    },
    requester: '',
  }));
  const callers: Caller[] = [
    ...Array.from(
      { length: 4 },
      (): Caller => ({
        name: 'reader: trays, ledger, finding',
        calls: [
          get('/api/trays'),
          get('/api/requests?tray=arrived'),
          get('/api/requests?tray=all&find=AC-0000'),
          get('/api/requests?tray=late'),
          get('/api/desk', priya),
        ],
        rest: 100,
      }),
    ),
    ...Array.from(
      { length: 2 },
      (): Caller => ({
        name: 'typer: checks of answers',
        calls: [
          post(
            '/api/doors/come-on-site/checks',
            { answers: { visitor: long, reason: long, institute: 'corrin' } },
            { cookie: priya },
          ),
        ],
        rest: 100,
      }),
    ),
    ...Array.from(
      { length: 2 },
      (): Caller => ({
        name: 'sender: submits',
        calls: [{ url: `${url}/api/doors/come-on-site/requests`, headers: { cookie: priya }, submits: true }],
        rest: 250,
      }),
    ),
    { name: 'coordinator: list of forms', calls: [get('/api/forms')], rest: 500 },
    { name: 'coordinator: a heavy draft opened', calls: [get(`/api/forms/${key}`)], rest: 700 },
    {
      name: 'coordinator: a heavy draft saved, and looked through anew',
      calls: [{ ...post(`/api/forms/${key}/draft`, null), saves: JSON.stringify({ draft: heavy }) }],
      rest: 3_000,
    },
    {
      name: 'coordinator: a condition over past requests',
      calls: [post('/api/forms/site-access/tries', { condition: 'fee > 100 and visitor != "x"', number: null })],
      rest: 1_500,
    },
    {
      name: 'coordinator: a rule over all requests, dry',
      calls: [post('/api/forms/site-access/rules/water-certificate/existing', { shown: null, among: 'all' })],
      rest: 2_000,
    },
    {
      name: 'coordinator: all requests as a sheet',
      calls: [get('/api/forms/site-access/requests.csv?among=all')],
      rest: 3_000,
    },
    {
      name: 'coordinator: 500 rows of a sheet, dry',
      calls: [post('/api/forms/site-access/rows', { rows, apply: false }, { 'Idempotency-Key': randomUUID() })],
      rest: 5_000,
    },
  ];
  await desk.ask('resetDelay');
  const told = await load.ask<Record<string, { calls: number; slowest: number; refused: number }>>('mixed', {
    callers,
    ms,
  });
  const ours = await desk.ask<{ p99: number; most: number }>('delay');
  for (const [name, { calls, slowest, refused }] of Object.entries(told))
    console.log(`    ${name}: ${calls} calls, the slowest ${slowest} ms${refused > 0 ? `, ${refused} refused` : ''}`);
  await floor.ask('resetDelay');
  const simple: Caller[] = [
    ...Array.from(
      { length: 5 },
      (): Caller => ({ name: 'reader', calls: [{ url: `${floorUrl}/ledger`, headers: { cookie: maren } }], rest: 60 }),
    ),
    ...Array.from(
      { length: 2 },
      (): Caller => ({
        name: 'sender',
        calls: [{ url: `${floorUrl}/submit`, headers: { cookie: priya }, submits: true }],
        rest: 250,
      }),
    ),
  ];
  await load.ask('mixed', { callers: simple, ms: Math.min(ms, 20_000) });
  const limit = await floor.ask<{ p99: number; most: number }>('delay');
  console.log(
    `    beside it, the floor with readers and senders alone: p99 ${limit.p99.toFixed(1)} ms, most ${limit.most.toFixed(1)} ms`,
  );
  return [
    figure('Thread held up in the mixed run, p99, ms; limit: 25', [ours.p99], [25], 1),
    figure('Thread held up in the mixed run, longest, ms; limit: 100', [ours.most], [100], 1),
  ];
}

/** A draft with a table of 200 rows of which half the columns are numbers. */
function heavyDraft(draft: FormDesign): FormDesign {
  const { table } = numbersTable();
  const options = Array.from({ length: 12 }, (_, index) => ({ key: `o${index}`, label: `Option ${index}` }));
  const fields = [...'nnnncccb'].map((kind, index) => ({
    key: `${kind}${index}`,
    label: `${kind}${index}`,
    type:
      kind === 'n'
        ? ({ kind: 'number', places: 2 } as const)
        : kind === 'c'
          ? ({ kind: 'choice', options } as const)
          : ({ kind: 'yes-no' } as const),
    source: 'asked' as const,
  }));
  const outcome = draft.routing.otherwise;
  return {
    ...draft,
    title: 'Heavy',
    fields: [...draft.fields, ...fields],
    parts: [
      ...draft.parts,
      ...fields.map(({ key }) => ({ part: 'question' as const, field: key, asks: '', help: '', required: false })),
    ],
    routing: {
      columns: table.columns,
      rows: table.rows.map((row) => ({ ...row, id: `row-${row.id}`, outcome })),
      otherwise: outcome,
    },
  };
}
