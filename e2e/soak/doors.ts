import assert from 'node:assert/strict';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { STAFF, seeded } from '@tolvek/demo';
import Sqlite from 'better-sqlite3';
import { VISIT } from '../house/desk.ts';
import { freePort, signedInAt, startDesk } from './desk.ts';

/**
 * `npm run soak -- doors`: two hundred requesters at three doors: staff who are signed in, people from outside who confirm
 * their address, and schools at a door with few places. Connections are cut, and what was sent is sent again under the
 * same key, also twice at once; links are pressed twice. In the end everything acknowledged is there once, nothing else
 * is, and no more came in than there are places.
 */
const { values: options } = parseArgs({
  options: { seconds: { type: 'string', default: '120' }, seed: { type: 'string', default: '1' } },
});
const REQUESTERS = { staff: 80, outside: 90, school: 30 };
const PLACES = 12;
/** Until when they ask, epoch ms. */
let until = 0;
const random = seeded(Number(options.seed));
const between = (least: number, most: number): number => least + random() * (most - least);

const folder = mkdtempSync(join(tmpdir(), 'tolvek-doors-'));
const file = join(folder, 'tolvek.sqlite');
const port = await freePort();
const url = `http://127.0.0.1:${port}`;
const desk = await startDesk(folder, String(port), '', '1');

interface Told {
  /** 0 where no answer came. */
  readonly status: number;
  // biome-ignore lint/suspicious/noExplicitAny: answers of many routes
  readonly body: any;
}

interface Calling {
  readonly method?: string;
  readonly cookie?: string;
  /** As whom the proxy names them. */
  readonly from?: string;
  readonly key?: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: unknown;
  /** After how many ms the line is cut; never when nothing is said. */
  readonly cutAfter?: number;
}

async function call(path: string, { method, cookie, from, key, headers, body, cutAfter }: Calling = {}): Promise<Told> {
  try {
    const response = await fetch(`${url}${path}`, {
      method: method ?? (body === undefined ? 'GET' : 'POST'),
      headers: {
        'content-type': 'application/json',
        ...(cookie ? { cookie } : {}),
        ...(from ? { 'x-forwarded-for': from } : {}),
        ...(key ? { 'idempotency-key': key } : {}),
        ...headers,
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(cutAfter ?? 60_000),
    });
    return { status: response.status, body: await response.json() };
  } catch {
    return { status: 0, body: null };
  }
}

const did: Record<string, number> = {};
const count = (what: string): void => void (did[what] = (did[what] ?? 0) + 1);

/** What was acknowledged, by what it is called; and what was refused for want of places. */
const acknowledged = {
  staff: new Map<string, string>(),
  outside: new Map<string, string>(),
  school: new Map<string, string>(),
};
type Door = keyof typeof acknowledged;
const full = new Set<string>();

/** Sends until an answer comes, as a page does: cut off now and then, and now and then twice at once. */
async function sendSurely(path: string, calling: Calling): Promise<Told> {
  for (;;) {
    const isCut = random() < 0.25;
    const isTwice = random() < 0.15;
    const first = call(path, { ...calling, ...(isCut ? { cutAfter: Math.ceil(between(1, 40)) } : {}) });
    const [told, again] = await Promise.all([first, isTwice ? call(path, calling) : null]);
    if (isTwice) count('sent twice at once');
    const answer = told.status === 0 && again ? again : told;
    if (answer.status !== 0 && ![429, 503].includes(answer.status)) {
      if (isTwice && told.status === 200 && again?.status === 200)
        assert.deepEqual(again.body, told.body, 'what is sent twice is answered the same');
      return answer;
    }
    count(answer.status === 0 ? 'cut off' : `refused ${answer.status}`);
    await pause(between(20, 200));
  }
}

/** The newest link of a letter to an address. */
async function linkTo(address: string, place: string): Promise<string | null> {
  // With two hundred at work letters take their time.
  for (let tries = 0; tries < 300; tries += 1) {
    const letter = looking
      .prepare('select text from letters where "to" like ? and text like ? order by received_at desc limit 1')
      .pluck()
      .get(`%${address}%`, `%/${place}/%`) as string | undefined;
    const token = new RegExp(`/${place}/([\\w-]+)`).exec(letter ?? '')?.[1];
    if (token) return token;
    await pause(300);
  }
  return null;
}

const looking = new Sqlite(file, { readonly: true });
const staff = STAFF.filter(({ name }) => name !== 'Cormac Dewhurst').map(({ name }) => name);
const cookies = new Map<string, string>();
for (const name of staff) cookies.set(name, await signedInAt(url, name));

/** The door of the schools has so many places and nothing else that would stop them. */
async function openSchools(): Promise<void> {
  const cookie = cookies.get('Maren Okafor') ?? '';
  const { body } = await call('/api/doors/school-visit/settings', { cookie });
  const { slowsRobots: _, consent: __, ...door } = body.door;
  const limits = [{ id: 'all', most: PLACES, of: 'all', days: null }];
  const said = { door: { ...door, opensAt: null, closesAt: null, open: true, limits }, note: '' };
  const { status } = await call('/api/doors/school-visit/settings', {
    ...{ method: 'PUT', cookie, headers: { 'if-match': `"${body.version}"` }, body: said },
  });
  assert.equal(status, 200, 'the door of the schools is set');
}

const releaseOf = async (slug: string): Promise<number> =>
  (await call(`/api/doors/${slug}`, { cookie: cookies.get('Maren Okafor') ?? '', from: '10.9.9.9' })).body.form
    ?.release ?? 1;

async function askAsStaff(who: number): Promise<void> {
  const cookie = cookies.get(staff[who % staff.length] ?? '') ?? '';
  const from = `10.1.${who >> 8}.${who & 255}`;
  for (let n = 0; Date.now() < until; n += 1) {
    const name = `soak-staff-${who}-${n}`;
    const answers = { ...VISIT, visitor: name };
    count((await call('/api/doors/come-on-site', { cookie, from })).status === 200 ? 'opened' : 'not opened');
    await call('/api/doors/come-on-site/kept', { method: 'PUT', cookie, from, body: { answers, typedAt: Date.now() } });
    const told = await sendSurely('/api/doors/come-on-site/requests', {
      ...{ cookie, from, key: name, body: { release: releases.get('come-on-site'), answers } },
    });
    assert.equal(told.status, 200, `${name} was answered ${told.status}: ${JSON.stringify(told.body)}`);
    acknowledged.staff.set(name, told.body.number);
    await pause(between(400, 1_200));
  }
}

async function askFromOutside(who: number, door: Exclude<Door, 'staff'>): Promise<void> {
  const slug = door === 'school' ? 'school-visit' : 'visit';
  const from = `10.${door === 'school' ? 3 : 2}.${who >> 8}.${who & 255}`;
  for (let n = 0; Date.now() < until; n += 1) {
    const name = `soak-${door}-${who}-${n}`;
    const address = `${name}@soak.example`;
    const school = { school: name, visit_day: 'mar_03', pupils: 12, age: ['small'], phone: '+353 1 555 0100' };
    const answers = door === 'school' ? school : { ...VISIT, visitor: name };
    const opened = await call(`/api/doors/${slug}`, { from });
    if (door === 'school' && opened.body?.why === 'full') {
      full.add(name);
      count('full at opening');
      await pause(between(500, 1_500));
      continue;
    }
    const body = { release: releases.get(slug), answers, contact: { name: 'Soak Brook', email: address } };
    const sent = await sendSurely(`/api/doors/${slug}/requests`, { from, key: name, body });
    if (sent.status === 409) {
      full.add(name);
      count('full while sending');
      continue;
    }
    assert.equal(sent.status, 200, `${name} was answered ${sent.status}: ${JSON.stringify(sent.body)}`);
    const token = await linkTo(address, 'confirm');
    assert.ok(token, `a letter came to ${address}`);
    await confirm(name, door, `/api/confirmations/${token}`, from);
    await pause(between(300, 900));
  }
}

/** Presses the link of the letter, now and then twice at once: it works once. */
async function confirm(name: string, door: Exclude<Door, 'staff'>, path: string, from: string): Promise<void> {
  const press = (): Promise<Told> => call(path, { method: 'POST', from, body: {} });
  const pressed = await Promise.all(random() < 0.3 ? [press(), press()] : [press()]);
  const worked = pressed.filter(({ status }) => status === 200);
  assert.ok(worked.length <= 1, `${name} was confirmed once`);
  const [one] = worked;
  if (!one) {
    assert.ok(
      pressed.some(({ status }) => [409, 429, 503].includes(status)),
      `${name}: ${JSON.stringify(pressed)}`,
    );
    full.add(name);
    count('full at confirming');
    return;
  }
  acknowledged[door].set(name, one.body.number);
  const { status } = await call(`/api/follow/${one.body.follow}`, { from });
  count(status === 200 ? 'followed' : `follow answered ${status}`);
}

await openSchools();
/** Places that were given before. */
const taken = looking
  .prepare("select count(*) from requests r join doors d on d.id = r.door_id where d.slug = 'school-visit'")
  .pluck()
  .get() as number;
const releases = new Map<string, number>();
for (const slug of ['come-on-site', 'visit', 'school-visit']) releases.set(slug, await releaseOf(slug));
until = Date.now() + Number(options.seconds) * 1_000;
console.log(`200 requesters at three doors for ${options.seconds} seconds …`);
await Promise.all([
  ...Array.from({ length: REQUESTERS.staff }, (_, who) => askAsStaff(who)),
  ...Array.from({ length: REQUESTERS.outside }, (_, who) => askFromOutside(who, 'outside')),
  ...Array.from({ length: REQUESTERS.school }, (_, who) => askFromOutside(who, 'school')),
]);
looking.close();
const ended = once(desk, 'exit');
desk.kill('SIGTERM');
await ended;

const db = new Sqlite(file, { readonly: true });
const stored = (field: string, like: string): Map<string, number> =>
  new Map(
    db
      .prepare(
        `select json_extract("values", '$.${field}'), count(*) from requests where json_extract("values", '$.${field}') like ? group by 1`,
      )
      .raw()
      .all(like) as [string, number][],
  );
for (const [door, field] of [
  ['staff', 'visitor'],
  ['outside', 'visitor'],
  ['school', 'school'],
] as const) {
  const there = stored(field, `soak-${door}-%`);
  for (const [name, number] of acknowledged[door]) {
    assert.equal(there.get(name), 1, `${name} is there once`);
    assert.ok(db.prepare('select 1 from requests where number = ?').get(number), `${number} is there`);
  }
  assert.equal(there.size, acknowledged[door].size, `nothing came by the ${door} door that was not acknowledged`);
}
assert.ok(acknowledged.school.size <= PLACES - taken, 'no more came in than there are places');
if (Number(options.seconds) >= 60) {
  assert.equal(acknowledged.school.size, PLACES - taken, 'every place was given');
  for (const what of ['cut off', 'sent twice at once', 'followed', 'full at opening'])
    assert.ok((did[what] ?? 0) > 0, `Nothing was “${what}” in this run.`);
}
assert.equal(db.pragma('integrity_check', { simple: true }), 'ok');
assert.deepEqual(db.pragma('foreign_key_check'), []);
db.close();
rmSync(folder, { recursive: true });
const sizes = Object.fromEntries(Object.entries(acknowledged).map(([door, all]) => [door, all.size]));
console.log(did, 'acknowledged:', sizes, 'turned away:', full.size);
console.log('Nothing was lost, and nothing is there twice.');
process.exit(0);
