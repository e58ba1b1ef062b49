import assert from 'node:assert/strict';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { seeded } from '@tolvek/demo';
import Sqlite from 'better-sqlite3';
import { VISIT } from '../house/desk.ts';
import { freePort, signedInAt, startDesk } from './desk.ts';
import { MOODS, MoodyMail } from './mail.ts';

/**
 * `npm run soak -- --minutes N --seed S`: a desk at work for so long, while it is killed, stopped,
 * locked, left without mail and moved through time, as chance has it. In the end everything
 * acknowledged is there once, every letter went, and what is counted is what there is.
 */
const { values } = parseArgs({
  options: {
    minutes: { type: 'string', default: '10' },
    seed: { type: 'string', default: String(Date.now() % 100_000) },
  },
});
const until = Date.now() + Number(values.minutes) * 60_000;
/** Chance, for the faults by themselves, so that a seed brings the same ones again. */
const chances = (seed: number) => {
  const random = seeded(seed);
  return {
    random,
    pick: <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T,
    between: (least: number, most: number): number => least + random() * (most - least),
  };
};
const { random, pick, between } = chances(Number(values.seed));
const fate = chances(Number(values.seed) + 1);
/** Letters under way at once: no more than these go twice for each time the application ended. */
const LINES = 5;

const folder = mkdtempSync(join(tmpdir(), 'tolvek-soak-'));
const file = join(folder, 'tolvek.sqlite');
const mail = new MoodyMail();
const smtp = await mail.open();
const port = await freePort();
const url = `http://127.0.0.1:${port}`;
let desk = await startDesk(folder, String(port), smtp);
const did: Record<string, number> = {};
const count = (what: string): void => void (did[what] = (did[what] ?? 0) + 1);

/** Letters of the days before, which the demo’s ground holds as sent. */
const before = new Set(letterIds('sent'));
const [priya, maren] = [await signedInAt(url, 'Priya Nakamura-Lind'), await signedInAt(url, 'Maren Okafor')];
/** What was acknowledged, by the key it was sent under. */
const numbers = new Map<string, string>();
const changed = new Map<string, string>();
let isOver = false;
console.log(`Soaking for ${values.minutes} minutes with seed ${values.seed} …`);
await Promise.all([...Array.from({ length: 4 }, (_, n) => asking(n)), working(), reading(), takingIn(), faults()]);

console.log('The faults are over:', did, `${left()} letters wait`);
mail.mood = 'well';
// Each letter is tried seven times over half a day; what failed is for a person to send again.
for (let turn = 0; turn < 40 && left() > 0; turn += 1) {
  await call(maren, '/api/demo/clock', { method: 'POST', body: { minutes: 60 } });
  await pause(1_000);
}
const again = await Promise.all(
  [...numbers].map(async ([key, number]) => [number, (await ask(key)).text?.number] as const),
);
const [pid] = [desk.pid ?? 0];
const memory = Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1_024;
await stopDesk('SIGTERM');
const db = new Sqlite(file);
const all = (sql: string): unknown[][] => db.prepare(sql).raw().all() as unknown[][];

for (const [first, second] of again)
  assert.equal(second, first, 'what was acknowledged once is answered the same again');
const visitors = all(
  `select json_extract("values", '$.visitor'), count(*) from requests where json_extract("values", '$.visitor') like 'soak-%' group by 1`,
);
const byVisitor = new Map(visitors.map(([name, n]) => [name, n]));
for (const key of numbers.keys()) assert.equal(byVisitor.get(key), 1, `${key} is there once`);
assert.equal(new Set(numbers.values()).size, numbers.size, 'no number was given twice');
for (const [number, reason] of changed)
  assert.equal(
    db.prepare(`select json_extract("values", '$.reason') from requests where number = ?`).pluck().get(number),
    reason,
    `${number} holds what was stored last`,
  );
const sent = letterIds('sent').filter((id) => !before.has(id));
for (const id of sent) assert.ok(mail.received.has(id), `letter ${id} went`);
const copies = [...mail.received.values()].reduce((sum, n) => sum + n - 1, 0);
const ends = (did.killed ?? 0) + (did.stopped ?? 0);
const silences = did['mail silent'] ?? 0;
assert.ok(copies <= LINES * (ends + silences * 8), `${copies} copies after ${ends} ends and ${silences} silences`);
assert.equal(left(), 0, 'no letter waits');
const by = `register_id, form_id, phase, stage, team, coalesce(handler_id, ''), coalesce(deciders, '')`;
assert.deepEqual(
  all(`select * from tallies order by ${by}`),
  all(`select ${by}, count(*) from requests where trial = 0 group by ${by} order by ${by}`),
  'what is tallied is what there is',
);
assert.equal(db.pragma('integrity_check', { simple: true }), 'ok');
assert.deepEqual(db.pragma('foreign_key_check'), []);
db.close();
await mail.close();
rmSync(folder, { recursive: true });
console.log(did, `${sent.length} letters sent, ${copies} copies; most memory ${memory.toFixed(0)} MB`);
for (const what of [
  'asked',
  'changed',
  'read',
  'taken in',
  'killed',
  'stopped',
  'locked',
  'moved in time',
  'mail refusing',
  'mail silent',
])
  if (Number(values.minutes) >= 5) assert.ok((did[what] ?? 0) > 0, `Nothing was “${what}” in this run.`);
console.log('Nothing was lost, and nothing is there twice.');
process.exit(0);

function letterIds(state: string): readonly string[] {
  const looking = new Sqlite(file, { readonly: true });
  const ids = looking.prepare('select id from notices where state = ?').pluck().all(state) as string[];
  looking.close();
  return ids;
}

function left(): number {
  return letterIds('waiting').length + letterIds('sending').length;
}

async function asking(who: number): Promise<void> {
  for (let n = 0; !isOver; n += 1) {
    const key = `soak-${values.seed}-${who}-${n}`;
    // Sent again under the same key until it is acknowledged, as a page does.
    for (;;) {
      const { status, text } = await ask(key);
      if (status === 200) {
        numbers.set(key, text.number);
        count('asked');
        break;
      }
      count(status === 0 ? 'not reached' : `refused ${status}`);
      assert.ok([0, 429, 503].includes(status), `a submit was answered ${status}: ${JSON.stringify(text)}`);
      await pause(between(200, 1_000));
    }
    await pause(between(20, 300));
  }
}

/** Changes a field of what was asked, on the version that was read. */
async function working(): Promise<void> {
  for (let n = 0; !isOver; n += 1) {
    await pause(between(50, 300));
    const number = pick([...numbers.values()]);
    if (!number) continue;
    const sheet = await call(maren, `/api/requests/${number}`);
    if (sheet.status !== 200) continue;
    const reason = `Changed ${n}`;
    const { status } = await call(maren, `/api/requests/${number}/fields`, {
      method: 'PATCH',
      headers: { 'if-match': String(sheet.text.version) },
      body: { changes: { reason } },
    });
    if (status === 200) {
      changed.set(number, reason);
      count('changed');
    } else if (status !== 412) changed.delete(number);
  }
}

async function reading(): Promise<void> {
  while (!isOver) {
    const { status } = await call(
      maren,
      pick([
        '/api/requests?tray=all',
        '/api/trays',
        '/api/forms',
        '/api/health',
        '/api/forms/site-access/requests.csv?among=all',
      ]),
    );
    assert.ok([0, 200, 429, 503].includes(status), `a page was answered ${status}`);
    if (status === 200) count('read');
    await pause(between(50, 200));
  }
}

async function takingIn(): Promise<void> {
  for (let n = 0; !isOver; n += 1) {
    await pause(between(3_000, 9_000));
    const rows = Array.from({ length: 100 }, (_, at) => ({
      cells: {
        visitor: `sheet-${n}-${at}`,
        institute: 'corrin',
        reason: 'Calibration',
        arrival: VISIT.arrival,
        departure: VISIT.departure,
        works_on_water: 'No',
      },
      requester: '',
    }));
    const { status } = await call(maren, '/api/forms/site-access/rows', {
      method: 'POST',
      headers: { 'Idempotency-Key': `soak-rows-${values.seed}-${n}` },
      body: { rows, apply: random() < 0.3 },
    });
    if (status === 200) count('taken in');
  }
}

async function faults(): Promise<void> {
  while (Date.now() < until) {
    await pause(fate.between(1_000, 5_000));
    const fault = fate.pick(['kill', 'stop', 'lock', 'lock', 'mail', 'mail', 'time'] as const);
    if (fault === 'kill' || fault === 'stop') {
      await stopDesk(fault === 'kill' ? 'SIGKILL' : 'SIGTERM');
      count(fault === 'kill' ? 'killed' : 'stopped');
      desk = await startDesk(folder, String(port), smtp);
    } else if (fault === 'lock') {
      const other = new Sqlite(file, { timeout: 5_000 });
      try {
        other.exec('begin immediate');
        await pause(fate.between(100, 7_000));
        other.exec('rollback');
        count('locked');
      } finally {
        other.close();
      }
    } else if (fault === 'mail') {
      mail.mood = fate.pick(MOODS);
      count(`mail ${mail.mood}`);
    } else {
      await call(maren, '/api/demo/clock', { method: 'POST', body: { minutes: Math.floor(fate.between(1, 36 * 60)) } });
      count('moved in time');
    }
  }
  isOver = true;
}

interface Told {
  readonly status: number;
  // biome-ignore lint/suspicious/noExplicitAny: answers of many shapes
  readonly text: any;
}

function ask(key: string): Promise<Told> {
  return call(priya, '/api/doors/come-on-site/requests', {
    method: 'POST',
    headers: { 'Idempotency-Key': key },
    body: { release: 1, answers: { ...VISIT, visitor: key } },
  });
}

/** Status 0: it was not reached, or ended in the middle. */
async function call(
  cookie: string,
  path: string,
  { method = 'GET', headers = {}, body }: { method?: string; headers?: Record<string, string>; body?: unknown } = {},
): Promise<Told> {
  try {
    const response = await fetch(`${url}${path}`, {
      method,
      headers: { cookie, 'content-type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(60_000),
    });
    const text = await response.text();
    return {
      status: response.status,
      text: response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : text,
    };
  } catch (error) {
    return { status: 0, text: String(error) };
  }
}

async function stopDesk(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
  const ended = once(desk, 'exit');
  const began = Date.now();
  desk.kill(signal);
  await ended;
  assert.ok(Date.now() - began < 10_500, 'stopping takes at most ten seconds');
}
