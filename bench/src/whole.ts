import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { type Figure, figure, ROUNDS } from './figure.ts';
import { grownDesk } from './grow.ts';
import type { Called } from './load.process.ts';
import { Part } from './processes.ts';
import { signedIn } from './signedIn.ts';

type Tell = (figures: readonly Figure[]) => void;

const SIZE = 200_000;
/** Requests that the application writes itself; the rest are copies of them. */
const WRITTEN = 2_000;
/** A page of the ledger is asked for so often in a round, by eight at once. */
const TIMES = 200;
const TENTH = 'Ottoline Farrow';
const FIFTY = 'Bram Selwyn';
const READER = 'Isolde Garrick';
/** Handles one in five hundred of site access: what the reader reads. */
const RARE = 'Corin Ashby';

/**
 * The ledger’s page out of 200,000 requests for viewers whose rights let them see all, a tenth, fifty, and what one
 * condition of an access plan lets them read, about one in a thousand: beside the same page without rights, which is what
 * whoever sees all is given.
 */
export async function measureWhole(folder: string, tell: Tell): Promise<void> {
  const mail = await Part.start('./mail.process.ts');
  const smtp = await mail.ask<string>('url');
  const [base, at] = [join(folder, 'whole'), join(folder, `whole-${SIZE}`)];
  const first = await Part.start('./desk.process.ts', [base, String(WRITTEN), smtp]);
  const [tenth, fifty, , rare] = await first.ask<readonly string[]>('addPeople', [TENTH, FIFTY, READER, RARE]);
  await first.stop();
  grownDesk(base, at, SIZE, (copy) => {
    if (copy % 10 === 3) return tenth;
    if (copy % 100 === 1 && copy < 5_000) return fifty;
    return copy % 500 === 7 ? rare : undefined;
  });
  const part = await Part.start('./desk.process.ts', [at, '0', smtp]);
  const url = await part.ask<string>('url');
  const put = await letRead(url, rare ?? '');
  const db = new Sqlite(join(at, 'tolvek.sqlite'), { readonly: true });
  const { n } = db.prepare('select count(*) as n from readings').get() as { n: number };
  db.close();
  console.log(`    ${n} requests are read by the condition; put in force in ${Math.round(put)} ms`);
  const load = await Part.start('./load.process.ts');
  const page = async (name: string): Promise<Called> => ({
    url: `${url}/api/requests?tray=all`,
    headers: { cookie: await signedIn(url, name) },
  });
  const pages = new Map<string, Called>([
    ['a tenth', await page(TENTH)],
    ['fifty', await page(FIFTY)],
    ['what a condition lets them', await page(READER)],
  ]);
  const all = await page('Maren Okafor');
  const took = { all: [] as number[], them: new Map<string, number[]>([...pages].map(([whose]) => [whose, []])) };
  const p95 = async (each: Called): Promise<number> =>
    (await load.ask<{ p95: number }>('together', { each, times: TIMES })).p95;
  for (let round = -1; round < ROUNDS; round += 1) {
    const theirs = await p95(all);
    if (round >= 0) took.all.push(theirs);
    for (const [whose, each] of pages) {
      const ms = await p95(each);
      if (round >= 0) took.them.get(whose)?.push(ms);
    }
  }
  tell(
    [...took.them].map(([whose, ms]) =>
      figure(
        `The ledger’s page of ${SIZE} requests for who sees ${whose}, p95, ms; limit: the same page without rights`,
        ms,
        took.all,
        1.5,
      ),
    ),
  );
  await load.stop();
  await part.stop();
  await mail.stop();
}

/** Lets the reader read what somebody handles, by the access plan of site access. How long that took, ms. */
async function letRead(url: string, handler: string): Promise<number> {
  const cookie = await signedIn(url, 'Ada Quillfeather');
  const address = `${url}/api/registers/site-access/access`;
  const call = async (method: string, path: string, version?: number, body?: object) => {
    const headers: Record<string, string> = { cookie, origin: url };
    if (version !== undefined) headers['If-Match'] = `"${version}"`;
    if (body) headers['content-type'] = 'application/json';
    const response = await fetch(path, { method, headers, ...(body ? { body: JSON.stringify(body) } : {}) });
    if (!response.ok) throw new Error(`${method} ${path}: ${await response.text()}`);
    return (await response.json()) as { version: number; draft: object };
  };
  const people = (await (
    await fetch(`${url}/api/me/colleagues?find=${encodeURIComponent(READER)}`, { headers: { cookie } })
  ).json()) as { people: { id: string }[] };
  const reader = {
    ...{ id: 'reader', name: 'What one handles', when: `request.handler = "${handler}"` },
    audience: { in: { anyOf: [`@${people.people[0]?.id ?? ''}`] }, outOf: [] },
  };
  const { version, draft } = await call('GET', address);
  const kept = await call('PUT', `${address}/draft`, version, { ...draft, readers: [reader] });
  const began = performance.now();
  await call('POST', address, kept.version, { note: '', closesToMyself: false });
  return performance.now() - began;
}
