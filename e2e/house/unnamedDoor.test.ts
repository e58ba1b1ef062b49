import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';
import { makePermit, PDF, upload } from './permit.ts';

// Settled: an unnamed door stores no identity at all, not even of somebody who is signed in. Who comes in is planted by
// name, address and id, and looked for in every cell of every table, before and after.
let desk: Desk;
let maren: Caller;
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const FROM = '198.51.100.77';
const NOOR = 'noor.castellan@corrin.example';

beforeAll(async () => {
  desk = await Desk.open(0, undefined, { proxies: 1 });
  maren = await desk.as('Maren Okafor');
  await makePermit(maren);
  for (const slug of ['come-on-site', 'visit', 'permit', 'permit-from-outside']) await unname(slug);
});
afterAll(() => desk.close());

async function unname(slug: string, unnamed = true): Promise<void> {
  const at = { params: { slug } };
  const { version, door } = ok(await maren.call('doorDesign', at));
  const { unnamed: _, ...rest } = door;
  ok(
    await maren.call('changeDoor', {
      ...{ ...at, headers: { 'If-Match': `"${version}"` } },
      body: { door: unnamed ? { ...rest, unnamed: true } : rest, note: '' },
    }),
  );
}

/** How often what tells of somebody stands in the database: in every cell of every table. */
function traces(...needles: readonly string[]): Readonly<Record<string, number>> {
  const { $client } = desk.running.house.db;
  const tables = $client.prepare("select name from sqlite_master where type = 'table'").all() as { name: string }[];
  const found: Record<string, number> = {};
  for (const { name } of tables) {
    const rows = $client.prepare(`select * from "${name}"`).all() as Record<string, unknown>[];
    for (const row of rows)
      for (const [column, cell] of Object.entries(row)) {
        const text = Buffer.isBuffer(cell) ? cell.toString('latin1') : String(cell ?? '');
        for (const needle of needles)
          if (text.toLowerCase().includes(needle.toLowerCase())) {
            const at = `${name}.${column} ${needle}`;
            found[at] = (found[at] ?? 0) + 1;
          }
      }
  }
  return found;
}

test('whoever comes in by it, signed in or not, stands nowhere, and the request is worked as any other', async () => {
  const priya = await desk.as('Priya Nakamura-Lind');
  const noor = await desk.contact(NOOR);
  const stranger = await desk.as();
  const ids = [ok(await priya.call('me')).person.id, ok(await noor.call('me')).person.id];
  const needles = [...ids, 'priya.nakamura', 'nakamura-lind', NOOR, 'castellan', FROM, 'wanda.ferris', 'ferris'];
  await desk.letters();
  const before = traces(...needles);
  expect(Object.keys(before).length).toBeGreaterThan(6);
  const from = { 'X-Forwarded-For': FROM };
  const numbers: string[] = [];
  for (const [who, slug, more] of [
    [priya, 'come-on-site', {}],
    [priya, 'visit', {}],
    [noor, 'visit', {}],
    [stranger, 'visit', {}],
    [stranger, 'visit', { contact: { name: 'Wanda Ferris', email: 'wanda.ferris@merrow.example' } }],
  ] as const) {
    const door = ok(await who.call('door', { params: { slug }, headers: from }));
    expect([door.unnamed, door.asks, door.form.kept, door.form.facts.requesterId]).toEqual([true, null, null, null]);
    expect(
      ok(
        await who
          .call('keepAnswers', { params: { slug }, body: { answers: { visitor: 'Half' }, typedAt: 3 }, headers: from })
          .then((answer) => (answer.status === 401 ? { ...answer, status: 200, body: { kept: false } } : answer)),
      ).kept,
    ).toBe(false);
    const sent = ok(
      await who.call('submit', {
        params: { slug },
        headers: { ...from, 'Idempotency-Key': crypto.randomUUID() },
        body: { release: 1, answers: VISIT, ...more },
      }),
    );
    expect(sent.state).toBe('arrived');
    numbers.push(sent.number);
  }
  await desk.letters();
  const gone = await stranger.call('sendKept', {
    ...{ params: { slug: 'visit' }, headers: from },
    body: { answers: {}, contact: { name: 'Wanda Ferris', email: 'wanda.ferris@merrow.example' }, typedAt: 4 },
  });
  expect(gone.status).toBe(403);
  const after = traces(...needles);
  const more = Object.entries(after).filter(([at, n]) => n > (before[at] ?? 0));
  console.log(`${numbers.length} came in by unnamed doors; looked for in ${Object.keys(after).length} places`);
  expect(more).toEqual([]);
  for (const number of numbers) {
    const sheet = ok(await maren.call('sheet', { params: { number } }));
    expect([sheet.requester.name, sheet.onBehalf, sheet.enteredBy]).toEqual(['', null, null]);
    expect(JSON.stringify(sheet.history)).not.toMatch(/Priya|Noor|Wanda/);
    expect((await priya.call('myRequest', { params: { number } })).status).toBe(404);
    expect((await noor.call('myRequest', { params: { number } })).status).toBe(404);
  }
});

test('a file that came along tells of nobody', async () => {
  const priya = await desk.as('Priya Nakamura-Lind');
  const { id } = ok(await priya.call('me')).person;
  const before = traces(id, FROM);
  for (const slug of ['permit', 'permit-from-outside']) {
    const sent = await upload(desk.running.url, priya, 'note.pdf', PDF, {
      ...{ slug, headers: { 'X-Forwarded-For': FROM } },
    });
    expect([slug, sent.status]).toEqual([slug, 200]);
  }
  expect(Object.entries(traces(id, FROM)).filter(([at, n]) => n > (before[at] ?? 0))).toEqual([]);
});

test('an audience is held to, a limit for each person is refused, and named again it stores who comes', async () => {
  const { version, door } = ok(await maren.call('doorDesign', { params: { slug: 'come-on-site' } }));
  const put = (next: object) =>
    maren.call('changeDoor', {
      ...{ params: { slug: 'come-on-site' }, headers: { 'If-Match': `"${version}"` } },
      body: { door: { ...door, ...next }, note: '' },
    });
  const each = await put({ limits: [{ id: 'each', most: 1, of: 'each', days: null }] });
  expect([each.status, each.body.problems?.[0]?.field]).toEqual([422, 'limits']);
  ok(await put({ audience: { in: { anyOf: ['boats'] }, outOf: [] } }));
  const [bram, priya] = [await desk.as('Bram Solheim'), await desk.as('Priya Nakamura-Lind')];
  expect(ok(await priya.call('door', { params: { slug: 'come-on-site' } })).why).toBe('not-for-you');
  expect((await priya.submit('come-on-site', VISIT)).status).toBe(403);
  expect(ok(await bram.submit('come-on-site', VISIT)).state).toBe('arrived');
  await unname('come-on-site', false);
  const { number } = ok(await bram.submit('come-on-site', VISIT));
  expect(ok(await maren.call('sheet', { params: { number } })).requester.name).toBe('Bram Solheim');
});
