import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { NEW_DESK } from '@tolvek/core/settings';
import { addPeople, by, layDesk, makeToken, readConfig, start, write } from '@tolvek/server';
import Database from 'better-sqlite3';
import { type Figure, figure, quantile, took } from './figure.ts';
import { answering } from './processes.ts';

const USER = 'urn:ietf:params:scim:schemas:core:2.0:User';
const GROUP = 'urn:ietf:params:scim:schemas:core:2.0:Group';
const BULK = 'urn:ietf:params:scim:api:messages:2.0:BulkRequest';
const PATCH = 'urn:ietf:params:scim:api:messages:2.0:PatchOp';
/** Operations in one Bulk: as many as the desk takes. */
const AT_ONCE = 1_000;
const COMMIT = 100;
/** How long all users may take, ms: in Bulks, and one by one. */
const IN_BULK = 60_000;
const SINGLY = 180_000;

const userOf = (way: string, n: number): object => ({
  ...{ schemas: [USER], userName: `${way}${n}@many.example`, externalId: `${way}-${n}`, active: true },
  ...{ name: { givenName: `Given ${n % 7_000}`, familyName: `Family ${n % 1_000}` }, title: 'Diver' },
  emails: [{ value: `${way}${n}@many.example`, type: 'work', primary: true }],
});

/** A desk with a token for a directory. */
async function deskFor(folder: string) {
  const config = readConfig({
    ...{ TOLVEK_MODE: 'demo', TOLVEK_DATA: join(folder, 'directory'), PORT: '0', TOLVEK_LOG: 'error' },
    ...{ TOLVEK_SECRET: randomBytes(36).toString('base64'), TOLVEK_SMTP: 'smtp://127.0.0.1' },
  });
  let token = '';
  const running = await start(config, {
    seed: async (house) => {
      const ada = {
        name: 'Ada',
        email: 'ada@first.example',
        kind: 'staff',
        role: 'administrator',
        groups: [],
      } as const;
      await addPeople(house, [], [ada], 'gulls over grey water');
      write(house, (work) => {
        const desk = { ...NEW_DESK, name: 'Many', sender: { name: '', address: 'desk@many.example' } };
        layDesk(work.tx, desk, '', { viewer: { personId: '' }, now: work.now });
        token = makeToken(by(work, null), { name: 'Bench', days: null }).token;
      });
    },
  });
  const call = async (method: string, path: string, body?: object): Promise<string> => {
    const answer = await fetch(`${running.url}/scim/v2${path}`, {
      method,
      headers: { Authorization: `Bearer ${token}`, 'Content-Type': 'application/scim+json' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${text}`);
    return text;
  };
  return { running, call };
}

/** The same users written by hand into a file of their own: a row of each and an address, so many in a commit. */
function writtenByHand(folder: string, size: number, commit: number): number {
  const db = new Database(join(folder, `by-hand-${commit}.sqlite`));
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = FULL');
  db.exec(
    'create table people (id text primary key, name text, email text unique, resource text); create table addresses (address text primary key, person text)',
  );
  const person = db.prepare('insert into people values (?, ?, ?, ?)');
  const address = db.prepare('insert into addresses values (?, ?)');
  const before = performance.now();
  for (let from = 0; from < size; from += commit)
    db.transaction(() => {
      for (let n = from; n < from + commit; n += 1) {
        const user = JSON.parse(JSON.stringify(userOf('hand', n))) as { readonly userName: string };
        person.run(String(n), user.userName, user.userName, JSON.stringify(user));
        address.run(user.userName, String(n));
      }
    })();
  const took = performance.now() - before;
  db.close();
  return took;
}

/** A directory that sends so many users, in Bulks and one by one, and what it then looks for and changes. */
async function measureDirectory({ folder, size }: { folder: string; size: number }): Promise<readonly Figure[]> {
  const { running, call } = await deskFor(folder);
  const figures: Figure[] = [];
  const begun = performance.now();
  const first: number[] = [];
  for (let from = 0; from < size; from += AT_ONCE) {
    const before = performance.now();
    await call('POST', '/Bulk', {
      schemas: [BULK],
      Operations: Array.from({ length: Math.min(AT_ONCE, size - from) }, (_, n) => ({
        ...{ method: 'POST', path: '/Users', bulkId: String(from + n), data: userOf('bulk', from + n) },
      })),
    });
    first.push(performance.now() - before);
  }
  const inBulk = performance.now() - begun;
  figures.push(
    figure(`${size} users in Bulks of ${AT_ONCE}, ms beside ${IN_BULK}`, [inBulk], [IN_BULK], 1),
    figure(`${size} users in Bulks, ms beside the rows by hand`, [inBulk], [writtenByHand(folder, size, COMMIT)], 60),
    figure('the last Bulk, ms beside the first', [first.at(-1) ?? 0], [first[0] ?? 0], 2),
  );
  const before = performance.now();
  for (let n = 0; n < size; n += 1) await call('POST', '/Users', userOf('single', n));
  const singly = performance.now() - before;
  figures.push(
    figure(`${size} users one by one, ms beside ${SINGLY}`, [singly], [SINGLY], 1),
    figure(`${size} users one by one, ms beside the rows by hand`, [singly], [writtenByHand(folder, size, 1)], 40),
  );
  const page = JSON.parse(await call('GET', '/Users?count=100')) as { readonly Resources: readonly { id: string }[] };
  const ids = page.Resources.map(({ id }) => id);
  const members = ids.map((value) => ({ value }));
  const group = JSON.parse(
    await call('POST', '/Groups', { schemas: [GROUP], displayName: 'All', members: members.slice(1) }),
  ) as { id: string };
  const member = `members[value eq "${ids[0]}"]`;
  const ways = [
    { op: 'add', path: 'members', value: members.slice(0, 1) },
    { op: 'remove', path: member },
  ];
  const change = (n: number): Promise<string> =>
    call('PATCH', `/Groups/${group.id}`, { schemas: [PATCH], Operations: [ways[n % 2]] });
  const measures: readonly (readonly [string, (n: number) => unknown, number])[] = [
    ['a page of 100', (n) => call('GET', `/Users?startIndex=${n * 600 + 1}`), 50],
    ['somebody by their name', (n) => call('GET', `/Users?filter=userName+eq+"bulk${n * 13}@many.example"`), 50],
    ['all looked through for a part of a name', (n) => call('GET', `/Users?filter=userName+co+"k${n * 13}@"`), 2_000],
    ['somebody into a group of 100, or out', change, 50],
  ];
  for (const [name, ours, most] of measures)
    figures.push(
      figure(
        `${name}, ${2 * size} users, ms, the 95th of a hundred beside ${most} ms`,
        [quantile(await took(ours), 0.95)],
        [most],
        1,
      ),
    );
  await running.stop();
  return figures;
}

answering({ directory: measureDirectory });
