import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import Sqlite from 'better-sqlite3';
import { PEOPLE, written } from './crowd.ts';
import { type Figure, figure, interleaved, quantile, ROUNDS } from './figure.ts';
import { grownDesk } from './grow.ts';
import type { Called } from './load.process.ts';
import { Part } from './processes.ts';
import { signedIn } from './signedIn.ts';

type Tell = (figures: readonly Figure[]) => void;

/** Rows of a page, so that even ten thousand requests have fifty pages. */
const PAGE = 20;
const FIFTIETH = 50;
/** Calls of a round. */
const CALLS = 60;
/** What finding may take, and a chart over all, ms. */
const FIND = 100;
const CHART = 3_000;

const VIEW = {
  ...{ name: 'Measured', of: ['site-access'], when: 'works_on_water', groups: ['request.stage'], marks: [] },
  columns: ['request.subject', 'institute', 'arrival', 'departure', 'request.stage'].map((of) => ({ of })),
  ...{ orders: [{ of: 'arrival', down: false }], shapes: [{ is: 'table' }], audience: null },
};
/** What about one in a thousand meets. */
const RARE = { ...VIEW, when: 'visitor = "Nadia Marlowe" and works_on_water' };
/** Looks after which a view is worth an index, and how long that may take at most, ms. */
const LOOKS = 3;
const INDEXES_WITHIN = 90_000;
const BY_MONTH = {
  ...{ is: 'chart', as: 'bars', by: 'request.arrived', each: 'month', parts: null },
  measure: { is: 'count', of: null },
};
/** Words that stand often and seldom, two of them, a number, a name, a day and a fault. */
const TEXTS = ['survey', 'kelp transects', 'aquarium', 'AC-00042', 'Priya', '27 Nov', 'insulin', 'surveyy', 'zebra'];

/** The same page by hand, by an index made for it: in the order of the view, and how many there are, as far as they are counted. */
const BY_HAND = (offset: number, { more }: { readonly more: boolean }): readonly string[] => {
  const where = `r.trial = 0 and r.register_id = (select id from designs where kind = 'register' and key = 'site-access') and r."values" ->> '$.works_on_water' = 1`;
  const from = 'requests r indexed by by_hand';
  const page = `select r.id, r.number, r."values", r.stage, p.name, h.name, d.due, d.pauses from ${from} join people p on p.id = r.requester_id left join people h on h.id = r.handler_id left join deadlines d on d.request_id = r.id and d.key = 'finish' where ${where} order by r.stage, r."values" ->> '$.arrival', r.created_at desc, r.id limit ${PAGE + 1} offset ${offset}`;
  const many = `select count(*) from (select 1 from ${from} where ${where} limit ${COUNTED + 1})`;
  const groups = `select r.stage, count(*) from ${from} where ${where} group by r.stage`;
  return offset > 0 ? [page] : more ? [page, many] : [page, many, groups];
};
/** Rows that a page counts. */
const COUNTED = 2_000;
const INDEX_BY_HAND = `create index if not exists by_hand on requests (register_id, stage, "values" ->> '$.arrival', created_at desc, id) where trial = 0 and "values" ->> '$.works_on_water' = 1`;

interface Desk {
  readonly size: number;
  readonly folder: string;
  readonly part: Part;
  readonly post: (path: string, body: object, cookie?: string) => Called;
  readonly few: string;
  readonly fifty: string;
}

/** Views, charts and finding at desks of growing size: pages beside the same by hand, and what finding takes. */
export async function measureViews({ folder, sizes }: { folder: string; sizes: readonly number[] }, tell: Tell) {
  const mail = await Part.start('./mail.process.ts');
  const smtp = await mail.ask<string>('url');
  const base = join(folder, 'views');
  const seeing = await written(base, smtp);
  const load = await Part.start('./load.process.ts');
  const firstPages = new Map<string, number[]>();
  for (const size of sizes) {
    const at = join(folder, `views-${size}`);
    grownDesk(base, at, size, seeing);
    const desk = await opened(at, size, smtp);
    await foundReady(load, desk);
    await indexed(load, desk);
    for (const [name, offset] of [
      ['first', 0],
      ['fiftieth', (FIFTIETH - 1) * PAGE],
    ] as const)
      tell(await besideHand(load, desk, name, offset, firstPages));
    tell(await forOthers(load, desk, firstPages));
    tell(await finding(load, desk));
    tell(await overAll(load, desk));
    await desk.part.stop();
  }
  await load.stop();
  await mail.stop();
}

/** Looks at the views as often as it takes until they have their indexes, and waits until these are made. */
async function indexed(load: Part, { size, folder, post }: Desk): Promise<void> {
  const began = performance.now();
  const views = [VIEW, RARE];
  for (const view of views)
    for (let look = 0; look < LOOKS; look += 1) await load.ask('once', post('/api/views/look', { view, most: PAGE }));
  const db = new Sqlite(join(folder, 'tolvek.sqlite'), { readonly: true });
  const made = db.prepare('select count(*) as n from view_indexes');
  while ((made.get() as { n: number }).n < views.length && performance.now() - began < INDEXES_WITHIN) await pause(200);
  console.log(
    `    ${(made.get() as { n: number }).n} indexes after ${Math.round(performance.now() - began)} ms at ${size} requests`,
  );
  db.close();
}

/** The first page for who sees little, and of a condition that few meet: how it grows with what there is. */
async function forOthers(
  load: Part,
  { size, post, few, fifty }: Desk,
  before: Map<string, number[]>,
): Promise<readonly Figure[]> {
  const figures: Figure[] = [];
  for (const [name, view, cookie] of [
    ['who sees one in a hundred', VIEW, few],
    ['who sees fifty', VIEW, fifty],
    ['a condition that one in a thousand meets', RARE, undefined],
  ] as const) {
    const each = post('/api/views/look', { view, most: PAGE }, cookie);
    const rounds: number[] = [];
    for (let round = -1; round < ROUNDS; round += 1) {
      const { p95 } = await load.ask<{ p95: number }>('together', { each, times: CALLS });
      if (round >= 0) rounds.push(p95);
    }
    const first = before.get(name);
    if (!first) before.set(name, rounds);
    else
      figures.push(
        figure(
          `The first page of a view at ${size} requests to eight at once, for ${name}, p95, ms; limit: the same at the smallest desk`,
          rounds,
          first,
          1.5,
        ),
      );
  }
  return figures;
}

/** What is told of all requests at once, off the thread that answers: a chart, and what a view adds up to; and pages meanwhile. */
async function overAll(load: Part, { size, post }: Desk): Promise<readonly Figure[]> {
  const all = { ...VIEW, when: '', groups: [] };
  const page = post('/api/views/look', { view: VIEW, most: PAGE });
  const alone: number[] = [];
  const beside: number[] = [];
  const figures: Figure[] = [];
  const other = await Part.start('./load.process.ts');
  for (const [name, asked] of [
    ['A chart by month', post('/api/views/chart', { view: all, shape: BY_MONTH })],
    ['Groups and their counts', post('/api/views/sums', { view: { ...all, groups: VIEW.groups } })],
  ] as const) {
    const took: number[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      alone.push((await load.ask<{ p95: number }>('together', { each: page, times: CALLS })).p95);
      const began = performance.now();
      const chart = other.ask<{ ms: number }>('once', asked).then(() => performance.now() - began);
      beside.push((await load.ask<{ p95: number }>('together', { each: page, times: CALLS })).p95);
      took.push(await chart);
    }
    figures.push(figure(`${name} of all at ${size} requests, ms; limit: ${CHART}`, took, [CHART], 1));
  }
  await other.stop();
  return [
    ...figures,
    figure(
      `A page of a view at ${size} requests while that is reckoned, p95, ms; limit: the same alone`,
      beside,
      alone,
      1.5,
    ),
  ];
}

async function opened(folder: string, size: number, smtp: string): Promise<Desk> {
  // What was written in bulk waits to be found by its words.
  const db = new Sqlite(join(folder, 'tolvek.sqlite'));
  db.exec(INDEX_BY_HAND);
  db.exec('insert or ignore into find_due select id from requests where trial = 0');
  db.close();
  const part = await Part.start('./desk.process.ts', [folder, '0', smtp]);
  const url = await part.ask<string>('url');
  const all = await signedIn(url, 'Maren Okafor');
  const [few, fifty] = [await signedIn(url, PEOPLE[0]), await signedIn(url, PEOPLE[1])];
  const post = (path: string, body: object, cookie = all): Called => ({
    ...{ method: 'POST', url: `${url}${path}`, body: JSON.stringify(body) },
    headers: { cookie, 'content-type': 'application/json' },
  });
  return { size, folder, part, post, few, fifty };
}

/** Waits until all is ready to be found. */
async function foundReady(load: Part, { post }: Desk): Promise<void> {
  for (;;) {
    const { text } = await load.ask<{ text: string }>('once', post('/api/find', { text: 'zebra' }));
    if ((JSON.parse(text) as { behind: number }).behind === 0) return;
    await pause(500);
  }
}

async function besideHand(
  load: Part,
  { size, folder, post }: Desk,
  name: string,
  offset: number,
  firstPages: Map<string, number[]>,
): Promise<readonly Figure[]> {
  let after: string | null = null;
  const asked = (): Called => post('/api/views/look', { view: VIEW, most: PAGE, ...(after === null ? {} : { after }) });
  for (let page = 0; page < offset / PAGE; page += 1) {
    const { text } = await load.ask<{ text: string }>('once', asked());
    const { next } = JSON.parse(text) as { next: string | null };
    if (next === null) throw new Error(`There are ${page + 1} pages at ${size} requests.`);
    after = next;
  }
  const ours = asked();
  const secret = readFileSync(join(folder, 'secret'), 'utf8').trim();
  const floor = await Part.start('./floor.process.ts', [join(folder, 'tolvek.sqlite'), secret]);
  const { text } = await load.ask<{ text: string }>('once', ours);
  await floor.ask('view', { asked: BY_HAND(offset, JSON.parse(text)), bytes: text });
  const byHand: Called = { ...ours, url: `${await floor.ask<string>('url')}/view` };
  const slow: number[] = [];
  const each = async (call: Called, into?: number[]): Promise<number> => {
    const { ms, p95 } = await load.ask<{ ms: number; p95: number }>('together', { each: call, times: CALLS });
    into?.push(p95);
    return ms;
  };
  const beside = await interleaved(
    `The ${name} page of a view, filtered, in order and in groups, at ${size} requests to eight at once, ms a page; limit: the same by hand on Express and prepared statements`,
    2,
    () => each(ours, slow),
    () => each(byHand),
  );
  await floor.stop();
  const before = firstPages.get(name);
  const p95 = slow.slice(1);
  if (!before) firstPages.set(name, p95);
  return [
    beside,
    ...(before
      ? [
          figure(
            `The ${name} page of a view at ${size} requests to eight at once, p95, ms; limit: the same at the smallest desk`,
            p95,
            before,
            1.5,
          ),
        ]
      : []),
  ];
}

/** Finding all kinds of things, for who sees all and for who sees one in a hundred. */
async function finding(load: Part, { size, post, few }: Desk): Promise<readonly Figure[]> {
  const figures: Figure[] = [];
  for (const [whose, cookie] of [
    ['all', undefined],
    ['one in a hundred', few],
  ] as const) {
    const rounds: number[] = [];
    for (let round = -1; round < ROUNDS; round += 1) {
      const took: number[] = [];
      for (const text of TEXTS) {
        const began = performance.now();
        const { status } = await load.ask<{ status: number }>('once', post('/api/find', { text }, cookie));
        if (status !== 200) throw new Error(`find ${text}: ${status}`);
        took.push(performance.now() - began);
      }
      if (round >= 0) rounds.push(quantile(took, 0.95));
      if (round === ROUNDS - 1)
        console.log(`    ${TEXTS.map((text, at) => `${text} ${Math.round(took[at] ?? 0)}`).join(', ')} ms`);
    }
    figures.push(
      figure(`Finding at ${size} requests, for who sees ${whose}, p95, ms; limit: ${FIND}`, rounds, [FIND], 1),
    );
  }
  return figures;
}
