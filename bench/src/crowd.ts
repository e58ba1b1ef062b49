import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { type Figure, figure, interleaved, ROUNDS } from './figure.ts';
import { grownDesk, type Handling } from './grow.ts';
import type { Called, Crowd, Page } from './load.process.ts';
import { Part } from './processes.ts';
import { signedIn } from './signedIn.ts';

type Tell = (figures: readonly Figure[]) => void;

/** Requests that the application writes itself; the rest are copies of them. */
const WRITTEN = 2_000;
/** Of forty who look: who see all, one in a hundred, and fifty. */
const VIEWERS = { all: 14, few: 13, fifty: 13 } as const;
const PAGES_EACH = 20;
/** A pause of a viewer between two pages, ms: half of it to one and a half times. */
const REST = 1_000;
/** Something is written so often, ms. */
const WRITES = 50;
/** What trays may take, ms. */
const TRAYS = 20;
/** A million is to be written in so long, ms. */
const QUARTER = 15 * 60_000;

interface Desk {
  readonly size: number;
  readonly folder: string;
  readonly part: Part;
  readonly crowd: Crowd;
  readonly ledger: Called;
}

/**
 * Forty viewers at desks of growing size, each of its pages in an order of its own, while something is written all the
 * time: how long a page takes, and how that grows. Beside it the ledger’s page alone as the floor gives it.
 */
export async function measureCrowd({ folder, sizes }: { folder: string; sizes: readonly number[] }, tell: Tell) {
  const mail = await Part.start('./mail.process.ts');
  const smtp = await mail.ask<string>('url');
  const base = join(folder, 'crowd');
  const seeing = await written(base, smtp);
  const load = await Part.start('./load.process.ts');
  const desks: Desk[] = [];
  for (const size of sizes) {
    const at = join(folder, `crowd-${size}`);
    const took = grownDesk(base, at, size, seeing);
    const rate = Math.round((took / (size - WRITTEN)) * 1_000);
    console.log(`    ${size} requests: ${rate} µs for each that was written in bulk`);
    if (size === Math.max(...sizes))
      tell([
        figure(
          `A million requests written in bulk, ms, by the rate of ${size}; limit: a quarter of an hour`,
          [(took / (size - WRITTEN)) * 1_000_000],
          [QUARTER],
          1,
        ),
      ]);
    desks.push(await opened(at, size, smtp));
  }
  const took = new Map<string, number[][]>();
  for (let round = -1; round < ROUNDS; round += 1)
    for (const [place, { crowd }] of desks.entries()) {
      const told = await load.ask<Record<string, { p95: number; calls: number }>>('crowd', crowd);
      // The first round warms up.
      if (round < 0) continue;
      for (const [page, { p95 }] of Object.entries(told)) {
        const rounds = took.get(page) ?? desks.map(() => []);
        rounds[place]?.push(p95);
        took.set(page, rounds);
      }
    }
  const first = desks[0]?.size ?? 0;
  for (const [page, rounds] of took)
    tell(
      desks
        .slice(1)
        .map(({ size }, place) =>
          figure(
            `${page} at ${size} requests with forty viewers, p95, ms; limit: the same at ${first}`,
            rounds[place + 1] ?? [],
            rounds[0] ?? [],
            1.5,
          ),
        ),
    );
  tell(
    desks.map(({ size }, place) =>
      figure(
        `Trays at ${size} requests with forty viewers, p95, ms; limit: ${TRAYS}`,
        took.get(TRAYS_PAGE)?.[place] ?? [],
        [TRAYS],
        1,
      ),
    ),
  );
  for (const desk of desks) tell(await besideFloor(load, desk));
  for (const { part } of desks) await part.stop();
  await load.stop();
  await mail.stop();
}

/** A desk as the application writes it, with two people more, who are to see little. */
export async function written(folder: string, smtp: string): Promise<Handling> {
  const desk = await Part.start('./desk.process.ts', [folder, String(WRITTEN), smtp]);
  const [few, fifty] = await desk.ask<readonly string[]>('addPeople', PEOPLE);
  await desk.stop();
  // One works on one in a hundred, the other on fifty.
  return (copy) => (copy % 100 === 0 ? few : copy % 100 === 1 && copy < 5_000 ? fifty : undefined);
}

export const PEOPLE = ['Ottoline Farrow', 'Bram Selwyn'] as const;
const TRAYS_PAGE = 'Trays with their counts';

async function opened(folder: string, size: number, smtp: string): Promise<Desk> {
  const part = await Part.start('./desk.process.ts', [folder, '0', smtp]);
  const url = await part.ask<string>('url');
  const [all, few, fifty] = [
    await signedIn(url, 'Maren Okafor'),
    await signedIn(url, PEOPLE[0]),
    await signedIn(url, PEOPLE[1]),
  ];
  const priya = await signedIn(url, 'Priya Nakamura-Lind');
  const db = new Sqlite(join(folder, 'tolvek.sqlite'), { readonly: true });
  const numbers = (where: string): readonly string[] =>
    (
      db.prepare(`select number from requests where due is not null and ${where} order by id desc limit 400`).all() as {
        number: string;
      }[]
    ).map(({ number }) => number);
  const get = (path: string, cookie: string): Called => ({ url: `${url}${path}`, headers: { cookie } });
  const page = (name: string, path: string, cookie: string): Page => ({ name, calls: [get(path, cookie)] });
  const sheets = (whose: string, where: string, cookie: string): Page => ({
    name: `A sheet, for who sees ${whose}`,
    calls: numbers(where).map((number) => get(`/api/requests/${number}`, cookie)),
  });
  const handled = (name: string): string => `handler_id = (select id from people where name = '${name}')`;
  const common = (whose: string, cookie: string): readonly Page[] => [
    page(TRAYS_PAGE, '/api/trays', cookie),
    page(`The ledger’s page, for who sees ${whose}`, '/api/requests?tray=all', cookie),
  ];
  const crowd: Crowd = {
    each: PAGES_EACH,
    rest: REST,
    writes: WRITES,
    viewers: [
      {
        n: VIEWERS.all,
        pages: [
          ...common('all', all),
          page('What is late', '/api/requests?tray=late', all),
          page('Finding by number', '/api/requests?tray=all&find=42', all),
          page('Finding by name', '/api/requests?tray=all&find=priya', all),
          page('List of forms', '/api/forms', all),
          page('One’s own requests', '/api/desk', priya),
          sheets('all', '1', all),
        ],
      },
      {
        n: VIEWERS.few,
        pages: [...common('one in a hundred', few), sheets('one in a hundred', handled(PEOPLE[0]), few)],
      },
      { n: VIEWERS.fifty, pages: [...common('fifty', fifty), sheets('fifty', handled(PEOPLE[1]), fifty)] },
    ],
    writing: [
      ...numbers("phase <> 'finished'").map((number) => ({
        ...get(`/api/requests/${number}/comments`, all),
        method: 'POST',
        headers: { cookie: all, 'content-type': 'application/json' },
        body: JSON.stringify({ text: 'Looked at it; nothing new.', visibility: 'internal' }),
      })),
    ],
    submitting: get('/api/doors/come-on-site/requests', priya),
  };
  db.close();
  return { size, folder, part, crowd, ledger: get('/api/requests?tray=all', all) };
}

/** The page of the ledger beside the same by hand: how many in a row eight at once get, and how long each waits. */
async function besideFloor(load: Part, { size, folder, ledger }: Desk): Promise<readonly Figure[]> {
  const secret = readFileSync(join(folder, 'secret'), 'utf8').trim();
  const floor = await Part.start('./floor.process.ts', [join(folder, 'tolvek.sqlite'), secret]);
  const url = await floor.ask<string>('url');
  const { text } = await load.ask<{ text: string }>('once', ledger);
  await floor.ask('ledgerBytes', text);
  const byHand: Called = { url: `${url}/ledger`, headers: ledger.headers ?? {} };
  const p95: { ours: number[]; floor: number[] } = { ours: [], floor: [] };
  const asked = async (each: Called, into: number[]): Promise<number> => {
    const { ms, p95: slow } = await load.ask<{ ms: number; p95: number }>('together', { each, times: 400 });
    into.push(slow);
    return ms;
  };
  const limit = 'the same by hand on Express and prepared statements';
  const throughput = await interleaved(
    `The ledger’s page at ${size} requests to eight at once, ms a page; limit: ${limit}`,
    2,
    () => asked(ledger, p95.ours),
    () => asked(byHand, p95.floor),
  );
  await floor.stop();
  return [
    throughput,
    figure(
      `The ledger’s page at ${size} requests to eight at once, p95, ms; limit: ${limit}`,
      p95.ours.slice(1),
      p95.floor.slice(1),
      2,
    ),
  ];
}
