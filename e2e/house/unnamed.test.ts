import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
let tomas: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  priya = await desk.as('Priya Nakamura-Lind');
  tomas = await desk.as('Tomas Achterberg');
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
/** A request that nobody is named for, and that came by no door: no page makes one yet. */
async function unnamed(answers: object): Promise<string> {
  const { number } = ok(await priya.submit('come-on-site', { ...VISIT, ...answers }));
  await desk.running.lettersSent();
  const nobody = { requesterId: null, doorId: null };
  desk.running.house.db.update(requests).set(nobody).where(eq(requests.number, number)).run();
  return number;
}
const onVersion = async (number: string) => ({ 'If-Match': `"${(await maren.sheet(number)).version}"` });

test('a request that nobody is named for is worked like any other, and is nobody’s own', async () => {
  const number = await unnamed({ ...WATER, visitor: 'Somebody' });
  const sheet = await tomas.sheet(number);
  expect([sheet.requester, sheet.door, sheet.approval.mayDecide]).toEqual([
    { name: '', outside: false, face: null, unconfirmed: null },
    null,
    true,
  ]);
  expect((await priya.call('myRequest', { params: { number } })).status).toBe(404);
  expect(ok(await priya.call('frontDesk')).mine.map((each: { number: string }) => each.number)).not.toContain(number);
  const [row] = ok(await tomas.call('ledger', { query: { tray: 'deciding' } })).rows;
  expect([row.number, row.requester]).toEqual([number, '']);

  const before = (await desk.letters()).length;
  ok(
    await tomas.call('decide', {
      params: { number },
      headers: { 'Idempotency-Key': crypto.randomUUID() },
      body: { verdict: 'approve', comment: '', seen: await tomas.seen(number) },
    }),
  );
  const told = (visibility: string) =>
    maren.call('comment', { params: { number }, body: { text: 'Who are you?', visibility } });
  expect([(await told('requester')).status, (await told('internal')).status]).toEqual([409, 200]);
  for (const stage of ['in_hand', 'done'])
    ok(await maren.call('moveStage', { params: { number }, headers: await onVersion(number), body: { stage } }));
  const after = (await desk.letters()).slice(before);
  // The team hears of it; there is nobody else to write to.
  expect(after.length).toBeGreaterThan(0);
  expect(after.filter(({ text }) => text.includes('/my/') || text.includes('/follow/'))).toEqual([]);

  const taken = await fetch(`${desk.running.url}/api/forms/site-access/requests.csv?among=all`, {
    headers: { cookie: maren.cookie },
  });
  expect([taken.status, await taken.text()]).toEqual([200, expect.stringContaining(number)]);
  const tried = ok(
    await maren.call('tryCondition', {
      params: { key: 'site-access' },
      body: { condition: 'requester.outside', number: null },
    }),
  );
  expect([tried.refused, tried.ever]).toEqual([null, { holds: 1, of: 1 }]);
});

test('rows of a sheet name who asked and who entered them', async () => {
  const took = async (requester: string) => {
    const body = {
      rows: [{ requester, cells: { ...VISIT, works_on_water: 'no', visitor: `For ${requester || 'me'}` } }],
      apply: true,
    };
    const { rows } = ok(
      await maren.call('takeInRows', {
        params: { key: 'site-access' },
        headers: { 'Idempotency-Key': crypto.randomUUID() },
        body,
      }),
    );
    expect(rows[0].problems).toEqual([]);
    const { requester: asked, enteredBy, onBehalf, door } = await maren.sheet(rows[0].number);
    return [asked.name, enteredBy, onBehalf, door];
  };
  expect(await took('Hanne Istvan')).toEqual(['Hanne Istvan', 'Maren Okafor', null, null]);
  expect(await took('')).toEqual(['Maren Okafor', null, null, null]);
});
