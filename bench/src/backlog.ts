import { cpSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_NOW } from '@tolvek/demo';
import Sqlite from 'better-sqlite3';
import { type Figure, figure, quantile } from './figure.ts';
import { Generator } from './generator.ts';
import { Part } from './processes.ts';
import { signedIn } from './signedIn.ts';

type Tell = (figures: readonly Figure[]) => void;

/** Requests that the application writes itself; the rest are copies of them. */
const WRITTEN = 2_000;
const TIMERS = 100_000;
/** So many look at pages meanwhile, one after the other each. */
const LOOKING = 4;
/** All are to have rung in five minutes, and pages to come in a tenth of a second. */
const FIVE_MINUTES = 300_000;
const A_PAGE = 100;

/** What piles up: after a stop a hundred thousand timers are due at once, and are worked off while people look at pages. */
export async function measureBacklog(folder: string, tell: Tell, timers = TIMERS): Promise<void> {
  const mail = await Part.start('./mail.process.ts');
  const smtp = await mail.ask<string>('url');
  const base = join(folder, 'backlog');
  const first = await Part.start('./desk.process.ts', [base, String(WRITTEN), smtp]);
  await first.stop();
  const at = join(folder, 'backlog-due');
  cpSync(base, at, { recursive: true });
  const due = dueAtOnce(at, timers);
  console.log(`    ${due} timers due at once`);
  const began = performance.now();
  const desk = await Part.start('./desk.process.ts', [at, '0', smtp, '0', 'at once']);
  const url = await desk.ask<string>('url');
  const byPath = await lookedAtUntil(url, async () => (await desk.ask<number>('timersDue')) === 0);
  const took = performance.now() - began;
  const { p99, most } = await desk.ask<{ p99: number; most: number }>('commits');
  for (const [path, took] of byPath)
    console.log(
      `    ${path}: ${took.length}, median ${quantile(took, 0.5).toFixed(0)} ms, p99 ${quantile(took, 0.99).toFixed(0)} ms`,
    );
  const pages = [...byPath.values()].flat();
  console.log(`    commits: p99 ${p99.toFixed(1)} ms, longest ${most.toFixed(1)} ms; ${pages.length} pages`);
  tell([
    figure(
      `${due} timers due at once after a stop, ms until all have rung; limit: five minutes`,
      [took],
      [FIVE_MINUTES],
      1,
    ),
    figure(
      `Pages meanwhile, p99, ms, ${LOOKING} people looking; limit: ${A_PAGE}`,
      [quantile(pages, 0.99)],
      [A_PAGE],
      1,
    ),
  ]);
  await desk.stop();
  await mail.stop();
}

/** Copies some requests until a count is reached. */
function copied(folder: string, which: string, { until, of }: { readonly until: number; readonly of: string }): void {
  const path = join(folder, 'tolvek.sqlite');
  const counted = (): number => {
    const db = new Sqlite(path, { readonly: true });
    const { n } = db.prepare(of).get() as { n: number };
    db.close();
    return n;
  };
  const generator = new Generator(path, readFileSync(join(folder, 'secret'), 'utf8').trim(), which, WRITTEN);
  if (generator.size === 0) throw new Error(`There is nothing to copy where ${which}.`);
  for (let round = 1; counted() < until; round += 1) generator.copy({ round, days: 0 });
  generator.close();
}

/** A desk where so many timers were due while it was stopped: an hour ago, each. Returns how many. */
export function dueAtOnce(folder: string, wanted: number): number {
  copied(folder, "phase <> 'finished' and id in (select request_id from timers where state = 'waiting')", {
    until: wanted,
    of: "select count(*) as n from timers where state = 'waiting'",
  });
  const db = new Sqlite(join(folder, 'tolvek.sqlite'));
  const { changes } = db.prepare("update timers set at = ? where state = 'waiting'").run(DEMO_NOW - 3_600_000);
  db.close();
  return changes;
}

/** How long each page took, ms, by its path, that some people looked at one after the other until something is over. */
async function lookedAtUntil(
  url: string,
  isOver: () => Promise<boolean>,
): Promise<ReadonlyMap<string, readonly number[]>> {
  const cookie = await signedIn(url, 'Maren Okafor');
  const paths = ['/api/trays', '/api/requests?tray=all', '/api/desk', '/api/requests?tray=late'];
  const took = new Map<string, number[]>(paths.map((path) => [path, []]));
  let over = false;
  const looking = Array.from({ length: LOOKING }, async (_, person) => {
    for (let n = person; !over; n += 1) {
      const began = performance.now();
      const path = paths[n % paths.length] ?? '';
      const answer = await fetch(`${url}${path}`, { headers: { cookie } });
      await answer.arrayBuffer();
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
      took.get(path)?.push(performance.now() - began);
      await new Promise((go) => setTimeout(go, 250));
    }
  });
  while (!over) {
    await new Promise((go) => setTimeout(go, 500));
    over = await isOver();
  }
  await Promise.all(looking);
  return took;
}
