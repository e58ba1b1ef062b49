import { join } from 'node:path';
import { DEMO_NOW, seeded, visit } from '@tolvek/demo';
import Sqlite from 'better-sqlite3';
import type { Figure } from './figure.ts';

const COUNT = 300;

/**
 * Whole submits per second (rules, routing, history, timers and letters in one durable transaction)
 * beside bare durable inserts.
 */
export async function measureSubmits(url: string, cookie: string, folder: string): Promise<Figure> {
  const random = seeded(7);
  const today = Math.floor(DEMO_NOW / 86_400_000) + 1;
  let next = 0;
  const work = async (): Promise<void> => {
    while (next < COUNT) {
      next += 1;
      const response = await fetch(`${url}/api/doors/come-on-site/requests`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie, 'Idempotency-Key': crypto.randomUUID() },
        body: JSON.stringify({ release: 1, answers: visit(random, today, 'corrin') }),
      });
      if (!response.ok) throw new Error(await response.text());
      await response.arrayBuffer();
    }
  };
  const ours = await perSecond(() => Promise.all(Array.from({ length: 8 }, work)));

  const bare = new Sqlite(join(folder, 'bare.sqlite'));
  bare.pragma('journal_mode = WAL');
  bare.pragma('synchronous = FULL');
  bare.exec('create table rows (id integer primary key, body text)');
  const insert = bare.prepare('insert into rows (body) values (?)');
  const row = JSON.stringify(visit(random, today, 'corrin'));
  const limit = await perSecond(async () => {
    for (let index = 0; index < COUNT; index += 1) insert.run(row);
  });
  bare.close();
  return {
    what: `Submits, ${COUNT} from eight callers`,
    ours: `${ours.toFixed(0)} a second`,
    limit: `${limit.toFixed(0)} a second (bare SQLite insert, as durable)`,
    ratio: `${(ours / limit).toFixed(2)} of the limit`,
  };
}

async function perSecond(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await work();
  return COUNT / ((performance.now() - began) / 1000);
}
