import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { type Figure, figure } from './figure.ts';
import type { Called, Caller } from './load.process.ts';
import { Part } from './processes.ts';
import { signedIn } from './signedIn.ts';

/** Purchases that come in by sheets, and of how many rows each sheet is. */
const ROWS = 10_000;
const A_SHEET = 500;
/** So many are to be stored in a second, and no commit is to take longer, ms. */
const A_SECOND = 1_500;
const COMMIT = 20;

/** Ten thousand purchases stored as long work, while people go on looking at pages. */
export async function measurePurchases(folder: string, tell: (figures: readonly Figure[]) => void): Promise<void> {
  const desk = await Part.start('./desk.process.ts', [join(folder, 'purchases'), '2000', '']);
  const url = await desk.ask<string>('url');
  const maren = await signedIn(url, 'Maren Okafor');
  const load = await Part.start('./load.process.ts');
  const get = (path: string): Called => ({ url: `${url}${path}`, headers: { cookie: maren } });
  const readers: Caller[] = Array.from({ length: 4 }, () => ({
    name: 'reader',
    calls: [get('/api/trays'), get('/api/requests?tray=all'), get('/api/requests?tray=arrived')],
    rest: 100,
  }));
  const sheet = (from: number): string =>
    JSON.stringify({
      apply: true,
      rows: Array.from({ length: A_SHEET }, (_, place) => ({
        requester: '',
        cells: {
          purpose: `Purchase ${from + place}`,
          budget: 'MB2041',
          lines: JSON.stringify([
            { what: 'Filter discs', count: ((from + place) % 9) + 1, price: '38.50', vat: 'full' },
            { what: 'Bottles', count: 3, price: '1.15', vat: 'reduced' },
          ]),
        },
      })),
    });
  await desk.ask('commits');
  let isOver = false;
  const read = (async () => {
    const slowest: number[] = [];
    while (!isOver) {
      const told = await load.ask<Record<string, { slowest: number }>>('mixed', { callers: readers, ms: 2_000 });
      slowest.push(told.reader?.slowest ?? 0);
    }
    return slowest;
  })();
  const began = performance.now();
  for (let from = 0; from < ROWS; from += A_SHEET) {
    const answer = await fetch(`${url}/api/forms/purchase/rows`, {
      method: 'POST',
      headers: { cookie: maren, origin: url, 'content-type': 'application/json', 'Idempotency-Key': randomUUID() },
      body: sheet(from),
    });
    const told = (await answer.json()) as { bad?: number; rows?: readonly { problems: readonly object[] }[] };
    const problem = told.rows?.find(({ problems }) => problems.length > 0);
    if (!answer.ok || problem) throw new Error(JSON.stringify(problem ?? told).slice(0, 500));
    await desk.ask('jobsDone');
  }
  const took = performance.now() - began;
  isOver = true;
  const slowest = await read;
  const commits = await desk.ask<{ n: number; p99: number; most: number }>('commits');
  console.log(
    `    ${commits.n} commits, p99 ${commits.p99.toFixed(1)} ms; pages meanwhile at most ${Math.max(...slowest)} ms`,
  );
  tell([
    figure(
      `A purchase stored as long work while pages go on, ms; limit: ${A_SECOND} a second`,
      [took / ROWS],
      [1_000 / A_SECOND],
      1,
    ),
    figure(`The longest commit meanwhile, ms; limit: ${COMMIT}`, [commits.most], [COMMIT], 1),
  ]);
  await desk.stop();
  await load.stop();
}
