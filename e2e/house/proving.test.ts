import type { DoorDesign } from '@tolvek/core/door';
import { RECIPES } from '@tolvek/core/form';
import { session } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, tripOf, VISIT } from './desk.ts';

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
    actFollowed: (
      await who.call('actFollowed', { params: { token, action: 'gone' }, body: { does: 'ask', text: 'Hello' } })
    ).status,
    withdrawFollowed: (await who.call('withdrawFollowed', { params, headers, body: { reason: '' } })).status,
  };
}
const SHUT = {
  follow: 401,
  followFile: 401,
  followMessage: 401,
  changeFollowed: 401,
  actFollowed: 401,
  withdrawFollowed: 401,
};
const OPEN = {
  follow: 200,
  followFile: 404,
  followMessage: 200,
  changeFollowed: 422,
  actFollowed: 404,
  withdrawFollowed: 409,
};

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

it('asks for the proof each time, also of whoever is signed in, where the door wants that', async () => {
  ok(await set('visit', { proves: 'each-time' }));
  const ida = await desk.contact(IDA.email);
  // A code of these minutes is a proof.
  expect(ok(await ida.submit('visit', { ...VISIT, visitor: 'By code' })).state).toBe('arrived');
  const { db } = desk.running.house;
  db.update(session)
    .set({ createdAt: new Date(Date.now() - 15 * 60_000) })
    .run();
  const sent = ok(await ida.submit('visit', { ...VISIT, visitor: 'By link' }, { contact: PER }));
  // It goes to the address of whoever is signed in, whatever else is typed.
  expect([sent.state, sent.email]).toEqual(['to-confirm', IDA.email]);
  const token = await desk.tokenFor(IDA.email, 'confirm');
  const { mine } = ok(await ida.call('frontDesk'));
  // Whoever sits at her device has the email sent to an address of theirs: it is not hers then.
  const other = ok(await ida.submit('visit', { ...VISIT, visitor: 'By somebody at her device' }));
  ok(await stranger.call('sendAgain', { params: { token: other.sent }, body: { email: PER.email } }));
  const theirs = { token: await desk.tokenFor(PER.email, 'confirm') };
  const { number: pers } = ok(await stranger.call('confirm', { params: theirs }));
  expect(ok(await maren.call('sheet', { params: { number: pers } })).requester.name).toBe(PER.name);
  const { number } = ok(await stranger.call('confirm', { params: { token } }));
  const after = ok(await ida.call('frontDesk')).mine;
  expect([after.length, after[0].number]).toEqual([mine.length + 1, number]);
  const staff = await set('come-on-site', { proves: 'each-time' });
  expect(staff.body.problems.map(({ field }: { field: string }) => field)).toEqual(['proves']);
  ok(await set('visit', { proves: undefined }));
});

it('takes a request in before its address is confirmed where the door wants that: nobody’s until it is', async () => {
  const each = { id: 'one', most: 1, of: 'each' as const, days: null };
  const wrong = await set('visit', {
    proves: 'never',
    limits: [each],
    audience: { in: { anyOf: ['boats'] }, outOf: [] },
  });
  expect(wrong.body.problems.map(({ field }: { field: string }) => field).sort()).toEqual(['limits', 'proves']);
  ok(await set('visit', { proves: 'never' }));
  // Somebody says they are Ida, who is on file: neither she nor her past is touched by that.
  const ida = await desk.contact(IDA.email);
  const before = ok(await ida.call('frontDesk')).mine.length;
  const sent = ok(await stranger.submit('visit', { ...VISIT, visitor: 'Claimed' }, { contact: IDA }));
  expect([sent.state, sent.confirms]).toEqual(['arrived', IDA.email]);
  const unknown = { name: 'Nobody Known', email: 'nobody.known@merrow.example' };
  const other = ok(await stranger.submit('visit', { ...VISIT, visitor: 'Strange' }, { contact: unknown }));
  // With its door a request stays, and so does the way to make it one’s own.
  expect(ok(await maren.call('doorRemoval', { params: { slug: 'visit' } })).waiting).toBe(0);
  // That an address is on file shows in no answer.
  expect(Object.keys(other)).toEqual(Object.keys(sent));
  expect(ok(await ida.call('frontDesk')).mine).toHaveLength(before);
  expect((await ida.call('myRequest', { params: { number: sent.number } })).status).toBe(404);
  const bad = await stranger.submit('visit', { ...VISIT, visitor: '' }, { contact: { name: '', email: 'no' } });
  expect(bad.body.problems.map(({ field }: { field: string }) => field).sort()).toEqual([
    'contact.email',
    'contact.name',
    'visitor',
  ]);

  const sheet = ok(await maren.call('sheet', { params: { number: sent.number } }));
  expect(sheet.requester).toMatchObject({ name: IDA.name, outside: true, unconfirmed: IDA.email });
  const to = { params: { number: sent.number } };
  const said = { ...to, body: { text: 'When do you come?', visibility: 'requester' } };
  const writer = await desk.as('Ilse Brandvold');
  expect((await writer.call('comment', said)).body.title).toContain('not confirmed');

  const params = { token: await desk.tokenFor(IDA.email, 'confirm') };
  expect(ok(await stranger.call('confirmation', { params })).arrived).toBe(sent.number);
  // There is nothing to go back to: it was sent.
  expect((await stranger.call('backToAnswers', { params })).status).toBe(404);
  const { number, follow } = ok(await stranger.call('confirm', { params }));
  expect(number).toBe(sent.number);
  expect(ok(await ida.call('frontDesk')).mine[0].number).toBe(sent.number);
  expect(ok(await stranger.call('follow', { params: { token: follow } })).number).toBe(sent.number);
  expect(ok(await maren.call('sheet', to)).requester).toMatchObject({ name: IDA.name, unconfirmed: null });
  ok(await writer.call('comment', said));
  expect((await stranger.call('confirm', { params })).status).toBe(410);
  ok(await set('visit', { proves: undefined }));
});

it('takes whose a request is from a field: a colleague’s at once, an address’s from outside once it is confirmed', async () => {
  const things = desk.things();
  const slug = 'vessel-time';
  const staff = ok(await maren.call('doorDesign', { params: { slug } }));
  const put = (whose: string, version: number, of = slug, door = staff.door) =>
    maren.call('changeDoor', {
      params: { slug: of },
      headers: onVersion(version),
      body: { door: { ...door, whose }, note: '' },
    });
  for (const field of ['purpose', 'skipper', 'nothing'])
    expect((await put(field, staff.version)).body.problems.map((each: { field: string }) => each.field)).toEqual([
      'whose',
    ]);
  ok(await put('leader', staff.version));
  const [priya, mireille] = [await desk.as('Priya Nakamura-Lind'), await desk.as('Mireille Thorsby')];
  const mine = async (who: Caller): Promise<number> => ok(await who.call('frontDesk')).mine.length;
  const before = [await mine(priya), await mine(mireille)];
  const leader = desk.idOf('Mireille Thorsby');
  const { number } = ok(await priya.submit(slug, tripOf(things, { leader })));
  expect([await mine(priya), await mine(mireille)]).toEqual([before[0], (before[1] ?? 0) + 1]);
  const sheet = ok(await maren.call('sheet', { params: { number } }));
  expect([sheet.requester.name, sheet.enteredBy]).toEqual(['Mireille Thorsby', 'Priya Nakamura-Lind']);
  const told = (await desk.letters()).filter(({ text, subject }) => `${subject} ${text}`.includes(number));
  expect(told.some(({ to }) => to.includes('Mireille Thorsby'))).toBe(true);
  expect(told.some(({ to }) => to.includes('Priya Nakamura-Lind'))).toBe(false);
  // Where the field names whoever sent it, it is theirs as ever.
  const later = { leaves: '2026-12-05T09:00', returns: '2026-12-05T11:00' };
  ok(await mireille.submit(slug, tripOf(things, { leader, ...later })));
  expect(await mine(mireille)).toBe((before[1] ?? 0) + 2);
});

it('gives a request to whoever has the address in a field: on the word of staff at once, else once they confirm it', async () => {
  const simple = RECIPES.find(({ key }) => key === 'simple')?.make({
    ...{ told: english, title: 'Lost things', team: 'estates', approvers: 'duty-managers', calendar: 'desk' },
  });
  if (!simple) throw new Error('There is no such recipe.');
  const theirs = { key: 'theirs', label: 'Their address', type: { kind: 'email' }, source: 'asked' } as const;
  const question = { part: 'question', field: 'theirs', asks: 'Who lost it?', help: '', required: false } as const;
  const draft = { ...simple, fields: [...simple.fields, theirs], parts: [...simple.parts, question] };
  const body = { prefix: 'LT', desk: 'estates', doors: { staff: true, outside: true }, draft };
  const { key } = ok(await maren.call('createForm', { headers: freshly(), body }));
  ok(await maren.call('releaseForm', { params: { key }, headers: onVersion(1), body: { note: '' } }));
  const outside = `${key}-from-outside`;
  for (const slug of [key, outside]) ok(await set(slug, { whose: 'theirs' }));
  const answers = { what: 'A glove', needed_by: '2026-12-24', why: 'x', theirs: PER.email };
  const [per, ilse] = [await desk.contact(PER.email), await desk.as('Ilse Brandvold')];
  const mine = async (): Promise<readonly string[]> =>
    ok(await per.call('frontDesk')).mine.map(({ number }: { number: string }) => number);
  const byStaff = ok(await ilse.submit(key, answers)).number;
  expect(await mine()).toContain(byStaff);
  // Somebody from outside, who has proved who they are, names the address of somebody else.
  const ida = await desk.contact(IDA.email);
  const byIda = ok(await ida.submit(outside, { ...answers, what: 'A boot' })).number;
  expect(await mine()).not.toContain(byIda);
  const sheet = () => maren.call('sheet', { params: { number: byIda } }).then(ok);
  expect([(await sheet()).requester.unconfirmed, (await sheet()).enteredBy]).toEqual([PER.email, IDA.name]);
  const params = { token: await desk.tokenFor(PER.email, 'confirm') };
  expect(ok(await stranger.call('confirmation', { params }))).toMatchObject({ arrived: byIda, by: IDA.name });
  ok(await stranger.call('confirm', { params }));
  expect(await mine()).toContain(byIda);
  expect((await sheet()).requester).toMatchObject({ name: PER.name, unconfirmed: null });
  // Nobody is named: it is of whoever sent it.
  const own = ok(await ida.submit(outside, { ...answers, what: 'A hat', theirs: '' })).number;
  expect(ok(await ida.call('frontDesk')).mine[0].number).toBe(own);
});
