import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { type Figure, figure } from './figure.ts';
import { Generator } from './generator.ts';
import { Part } from './processes.ts';
import { signedIn } from './signedIn.ts';

type Tell = (figures: readonly Figure[]) => void;

const WRITTEN = 2_000;
const REQUESTS = 10_000;
/** As many as a call takes. */
const AT_ONCE = 200;
const A_MINUTE = 60_000;
/** No commit holds the others up for longer, ms. */
const A_COMMIT = 20;
/** Samples that have arrived, and that nobody handles. */
const SAMPLES = "phase = 'arrived' and number like 'SA-%'";

/** Ten thousand requests of a team are given to whoever is found by skill and load, by a coordinator, with all that follows. */
export async function measureAssigned(folder: string, tell: Tell, wanted = REQUESTS): Promise<void> {
  const mail = await Part.start('./mail.process.ts');
  const smtp = await mail.ask<string>('url');
  const at = join(folder, 'assigned');
  const first = await Part.start('./desk.process.ts', [at, String(WRITTEN), smtp]);
  await first.stop();
  const requests = unassigned(at, wanted);
  const desk = await Part.start('./desk.process.ts', [at, '0', smtp, '0', 'at once']);
  const url = await desk.ask<string>('url');
  const cookie = await signedIn(url, 'Maren Okafor');
  await desk.ask('commits');
  const began = performance.now();
  let changed = 0;
  for (let from = 0; from < requests.length; from += AT_ONCE) {
    const answer = await fetch(`${url}/api/routings`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json', origin: url },
      body: JSON.stringify({
        ...{ requests: requests.slice(from, from + AT_ONCE), handler: { by: 'rule' } },
        ...{ reason: 'Given anew by the rule of the row', apply: true },
      }),
    });
    const told = (await answer.json()) as { changed: number; refused: unknown[] };
    if (!answer.ok || told.refused.length > 0) throw new Error(JSON.stringify(told).slice(0, 500));
    changed += told.changed;
  }
  const took = performance.now() - began;
  if (changed !== requests.length) throw new Error(`${changed} of ${requests.length} were given to somebody.`);
  const { n, p99, most } = await desk.ask<{ n: number; p99: number; most: number }>('commits');
  console.log(`    ${n} commits: p99 ${p99.toFixed(1)} ms, longest ${most.toFixed(1)} ms`);
  tell([
    figure(
      `${changed} requests given to whoever is found by skill and load, stored, ms; limit: a minute`,
      [took],
      [A_MINUTE],
      1,
    ),
    figure(`Commits meanwhile, p99, ms; limit: ${A_COMMIT}`, [p99], [A_COMMIT], 1),
  ]);
  await desk.stop();
  await mail.stop();
}

/** A desk with so many requests that nobody handles yet; their numbers and versions. */
function unassigned(folder: string, wanted: number): readonly { number: string; version: number }[] {
  const path = join(folder, 'tolvek.sqlite');
  const generator = new Generator(path, readFileSync(join(folder, 'secret'), 'utf8').trim(), SAMPLES, WRITTEN);
  if (generator.size === 0) throw new Error('There are no samples to copy.');
  for (let round = 1; round * generator.size < wanted; round += 1) generator.copy({ round, days: 0 });
  generator.close();
  const db = new Sqlite(path);
  // As if the first row of their table had taken them, which chooses by skill, then by load.
  db.exec(`update requests set handler_id = null, routed = json_set(routed, '$.row', 1) where ${SAMPLES}`);
  const found = db
    .prepare(`select number, version from requests where trial = 0 and ${SAMPLES} order by number limit ?`)
    .all(wanted) as { number: string; version: number }[];
  db.close();
  return found;
}
