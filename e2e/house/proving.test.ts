import type { DoorDesign } from '@tolvek/core/door';
import { session } from '@tolvek/server/schema';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

let desk: Desk;
let stranger: Caller;
let maren: Caller;
const IDA = { name: 'Ida Vestergren', email: 'ida.vestergren@merrow.example' };
const PER = { name: 'Per Anders', email: 'per.anders@merrow.example' };

beforeAll(async () => {
  desk = await Desk.open();
  [stranger, maren] = [await desk.as(), await desk.as('Maren Okafor')];
});
afterAll(() => desk.close());

const set = async (slug: string, change: Partial<DoorDesign>): Promise<Answer> => {
  const { version, door } = ok(await maren.call('doorDesign', { params: { slug } }));
  const body = { door: { ...door, ...change }, note: '' };
  return maren.call('changeDoor', { params: { slug }, headers: onVersion(version), body });
};
const asked = async (contact: typeof IDA): Promise<string> => {
  ok(await stranger.submit('visit', VISIT, { contact }));
  const token = await desk.tokenFor(contact.email, 'confirm');
  return ok(await stranger.call('confirm', { params: { token } })).follow;
};
/** All that a link to a request leads to: how each answers whoever holds it. */
async function opened(who: Caller, token: string): Promise<Readonly<Record<string, number>>> {
  const params = { token };
  const seen = await who.call('follow', { params });
  const headers = onVersion(seen.body?.version ?? 1);
  const file = await fetch(`${desk.running.url}/api/follow/${token}/files/nothing`, {
    headers: who.cookie ? { cookie: who.cookie } : {},
  });
  return {
    follow: seen.status,
    followFile: file.status,
    followMessage: (await who.call('followMessage', { params, body: { text: 'Hello' } })).status,
    changeFollowed: (await who.call('changeFollowed', { params, headers, body: { changes: { nothing: 1 } } })).status,
    withdrawFollowed: (await who.call('withdrawFollowed', { params, headers, body: { reason: '' } })).status,
  };
}
const SHUT = { follow: 401, followFile: 401, followMessage: 401, changeFollowed: 401, withdrawFollowed: 401 };
const OPEN = { follow: 200, followFile: 404, followMessage: 200, changeFollowed: 422, withdrawFollowed: 409 };

it('a link to a request that was passed on opens nothing where its door wants a proof', async () => {
  const follow = await asked(IDA);
  const pers = await asked(PER);
  expect(await opened(stranger, follow)).toEqual(OPEN);
  ok(await set('visit', { follows: 'device' }));
  // It is so for what came before as well: the door is in force at once.
  expect(await opened(stranger, follow)).toEqual(SHUT);
  const shut = await stranger.call('follow', { params: { token: follow } });
  expect([shut.body.type, /merrow|Ida/.test(shut.text)]).toEqual(['urn:tolvek:problem:prove', false]);
  const [ida, per] = [await desk.contact(IDA.email), await desk.contact(PER.email)];
  expect(await opened(per, follow)).toEqual(SHUT);
  expect(await opened(maren, follow)).toEqual(SHUT);
  expect(await opened(ida, follow)).toEqual(OPEN);
  expect(await opened(per, pers)).toEqual(OPEN);
  // The link alone is what it was: who is signed in opens none that is made up.
  expect((await ida.call('follow', { params: { token: 'made-up' } })).status).toBe(404);
  expect((await ida.call('follow', { params: { token: pers } })).status).toBe(401);
  // Their own page needs no link.
  const mine = ok(await ida.call('frontDesk')).mine as readonly { readonly number: string }[];
  expect(mine.length).toBe(1);

  ok(await set('visit', { follows: 'each-time' }));
  expect(await opened(ida, follow)).toEqual(OPEN);
  const { db } = desk.running.house;
  db.update(session)
    .set({ createdAt: new Date(Date.now() - 15 * 60_000) })
    .run();
  expect(await opened(ida, follow)).toEqual(SHUT);
  expect(await opened(await desk.contact(IDA.email), follow)).toEqual(OPEN);
  ok(await set('visit', { follows: undefined }));
  expect(await opened(stranger, follow)).toEqual(OPEN);
  const staff = await set('come-on-site', { follows: 'device' });
  expect(staff.body.problems.map(({ field }: { field: string }) => field)).toEqual(['follows']);
});
