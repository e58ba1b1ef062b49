import { type Route, routes } from '@tolvek/contract';
import { links } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

// C9–C11: contacts prove who they are by a code or a link, and reach what is theirs and nothing else.
let desk: Desk;
let maren: Caller;
let stranger: Caller;
const NOOR = 'noor.castellan@corrin.example';
const GRETA = 'greta.moss@haldane.example';
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const post = (path: string, body: object, cookie = '', from = '203.0.113.251'): Promise<Response> =>
  fetch(`${desk.running.url}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'X-Forwarded-For': from, ...(cookie ? { cookie } : {}) },
    body: JSON.stringify(body),
  });
/** From an address of its own each time: what is counted by address is not what is tried here. */
let addresses = 0;
const enter = (email: string, code: string, cookie = '') =>
  post('/api/sign-in/code', { email, code }, cookie, `203.0.113.${(addresses += 1) % 250}`);

beforeAll(async () => {
  desk = await Desk.open(0, undefined, { proxies: 1 });
  [maren, stranger] = [await desk.as('Maren Okafor'), await desk.as()];
});
afterAll(() => desk.close());

describe('a code by email', () => {
  it('is answered the same for every address, and sent to contacts who are here alone', async () => {
    const before = (await desk.letters()).length;
    const told = await Promise.all(
      [NOOR, 'nobody@nowhere.example', 'maren.okafor@skerrow.example', 'kasper.lund.weir@merrow.example'].map(
        async (email) => {
          const answer = await post('/api/sign-in/letters', { email });
          return [answer.status, await answer.text(), answer.headers.get('set-cookie')];
        },
      ),
    );
    expect(new Set(told.map((each) => JSON.stringify(each))).size).toBe(1);
    await vi.waitFor(async () => expect((await desk.letters()).length).toBe(before + 1));
    expect((await desk.letters()).at(-1)?.to).toContain(NOOR);
  });

  it('opens once, within its time, and nothing after five wrong ones', async () => {
    const code = await desk.codeFor(NOOR);
    expect(code).toMatch(/^\d{6}$/);
    const first = await enter(NOOR, ` ${code.slice(0, 3)} ${code.slice(3)} `);
    expect(first.status).toBe(200);
    const cookie = first.headers.getSetCookie().join();
    expect(cookie).toMatch(/HttpOnly/i);
    expect(cookie).toMatch(/SameSite=Lax/i);
    expect(await first.text()).toBe('{"done":true}');
    // Used up, with all that was sent before it.
    expect((await enter(NOOR, code)).status).toBe(401);
    const next = await desk.codeFor(NOOR);
    const wrong = Array.from({ length: 5 }, (_, n) => String((Number(next) + 1 + n) % 1_000_000).padStart(6, '0'));
    for (const each of wrong) expect((await enter(NOOR, each)).status).toBe(401);
    // The right one, too late.
    expect((await enter(NOOR, next)).status).toBe(401);
    // Whoever has the letter is not kept out by who guesses.
    const token = await desk.tokenFor(NOOR, 'come-in');
    expect((await post(`/api/sign-in/links/${token}`, {})).status).toBe(200);
  });

  it('of another person, of an unknown address and a made-up one are refused in the same words', async () => {
    const code = await desk.codeFor(GRETA);
    const told = [];
    for (const [email, typed] of [
      ['idris.coombe@tarnbay.example', code],
      ['nobody@nowhere.example', '123456'],
      ['maren.okafor@skerrow.example', '123456'],
    ] as const) {
      const answer = await enter(email, typed);
      told.push([answer.status, await answer.text()]);
    }
    expect(new Set(told.map((each) => JSON.stringify(each))).size).toBe(1);
    expect(told[0]?.[0]).toBe(401);
    expect((await enter(GRETA, code)).status).toBe(200);
  });
});

it('guessing from one address is slowed down and turned away, and keeps nobody else out', async () => {
  const email = 'idris.coombe@tarnbay.example';
  const code = await desk.codeFor(email);
  const statuses = [];
  for (let n = 0; n < 7; n += 1)
    statuses.push((await post('/api/sign-in/code', { email: 'nobody@nowhere.example', code: '111111' })).status);
  expect([statuses[0], statuses.at(-1)]).toEqual([401, 429]);
  expect((await enter(email, code)).status).toBe(200);
});

describe('a link by email', () => {
  it('works once, and not when it is changed, too old, or of another kind', async () => {
    await desk.askedForCode(GRETA);
    const token = await desk.tokenFor(GRETA, 'come-in');
    const use = (which: string) => post(`/api/sign-in/links/${which}`, {}).then(({ status }) => status);
    expect(await use(`${token.slice(0, -1)}${token.endsWith('A') ? 'B' : 'A'}`)).toBe(404);
    expect([await use(token), await use(token)]).toEqual([200, 410]);
    await desk.askedForCode(GRETA);
    const late = await desk.tokenFor(GRETA, 'come-in');
    const { db, clock } = desk.running.house;
    db.update(links)
      .set({ expiresAt: clock.now() - 1 })
      .where(eq(links.purpose, 'sign-in'))
      .run();
    expect(await use(late)).toBe(410);
    ok(await stranger.submit('visit', VISIT, { contact: { name: 'Wanda Ferris', email: 'wanda@merrow.example' } }));
    expect(await use(await desk.tokenFor('wanda@merrow.example', 'confirm'))).toBe(404);
  });

  it('begins a session of its own: one that was put there before is ended and not taken over', async () => {
    const planted = await desk.contact('lena.varga.holt@tarnbay.example');
    await desk.askedForCode('freya.nordahl@merrow.example');
    const token = await desk.tokenFor('freya.nordahl@merrow.example', 'come-in');
    const answer = await post(`/api/sign-in/links/${token}`, {}, planted.cookie);
    const given = answer.headers.getSetCookie().map((each) => each.split(';')[0]);
    expect(given.join()).not.toBe(planted.cookie);
    expect(ok(await planted.call('me')).person).toBe(null);
  });
});

describe('a contact who is signed in', () => {
  it('is refused by every route that is for staff', async () => {
    const noor = await desk.contact('idris.coombe@tarnbay.example');
    const all = Object.values(routes) as readonly Route[];
    let n = 0;
    for (const route of all.filter(({ caller }) => caller === 'staff')) {
      const sent = route.method === 'GET' ? {} : { body: '{}' };
      const stop = new AbortController();
      const answer = await fetch(`${desk.running.url}${route.path.replace(/:\w+/g, 'nothing')}`, {
        ...{ method: route.method, signal: stop.signal, ...sent },
        headers: { 'content-type': 'application/json', cookie: noor.cookie },
      });
      const body = (await answer.json()) as { said?: { happened?: { say?: string } } };
      stop.abort();
      expect([route.name, answer.status, body.said?.happened?.say]).toEqual([
        route.name,
        403,
        'refusals:onlyStaff.happened',
      ]);
      n += 1;
    }
    // The routes of the sign-in library that are for staff.
    for (const path of ['/api/auth/code/begin', '/api/auth/passkey/begin-add'])
      expect([path, (await post(path, { password: 'x' }, noor.cookie)).status]).toEqual([path, 401]);
    console.log(`${n} routes refuse a contact`);
    expect(n).toBeGreaterThan(120);
  });

  it('asks as who they are, in the edition that is theirs, and follows it at home', async () => {
    const maud = await desk.contact('maud.ferriter@haldane.example');
    const me = ok(await maud.call('me')).person;
    expect([me.kind, me.rights, me.groups, me.worksFloor, me.worksWorkshop]).toEqual(['contact', [], [], false, false]);
    const door = ok(await maud.call('door', { params: { slug: 'visit' } }));
    expect([door.title, door.asks]).toEqual([
      'Come and work on site',
      { name: 'Maud Ferriter', email: 'maud.ferriter@haldane.example' },
    ]);
    // In which groups they are is told to nobody whom the form does not ask by them.
    expect(door.form.facts.requesterGroups).toEqual([]);
    const plain = ok(await stranger.call('door', { params: { slug: 'visit' } }));
    expect([plain.title, plain.asks]).toEqual(['Come on site', null]);
    const refused = await maud.submit('visit', VISIT);
    expect(refused.body.problems.map(({ field }: { field: string }) => field)).toEqual(['institute', 'fee']);
    const answers = { ...VISIT, institute: 'haldane', fee: '20' };
    const { state, number } = ok(await maud.submit('visit', answers));
    expect(state).toBe('arrived');
    const home = ok(await maud.call('frontDesk'));
    expect(home.mine.map((each: { number: string }) => each.number)).toEqual([number]);
    expect(home.forms.length).toBeGreaterThan(0);
    const own = ok(await maud.call('myRequest', { params: { number } }));
    expect(own.form).toBe('Come and work on site');
    ok(await maud.call('myMessage', { params: { number }, body: { text: 'We bring a crane.' } }));
    // Nobody else’s: not another contact’s, not the desk’s sheet.
    const odo = await desk.contact('odo.sprake@haldane.example');
    for (const [who, route] of [
      [odo, 'myRequest'],
      [stranger, 'myRequest'],
      [maud, 'sheet'],
    ] as const)
      expect((await who.call(route, { params: { number } })).status).toBeGreaterThanOrEqual(401);
    const sheet = ok(await maren.call('sheet', { params: { number } }));
    expect([sheet.requester.name, sheet.door]).toEqual(['Maud Ferriter', 'outside']);
  });

  it('finds what was typed on another device, and it is gone once it is sent', async () => {
    const [phone, at] = [await desk.contact('runa.haldor@haldane.example'), { params: { slug: 'visit' } }];
    ok(await phone.call('keepAnswers', { ...at, body: { answers: { visitor: 'Half a name' }, typedAt: 5 } }));
    const desktop = await desk.contact('runa.haldor@haldane.example');
    expect(ok(await desktop.call('door', at)).form.kept.answers).toEqual({ visitor: 'Half a name' });
    expect(ok(await desktop.call('frontDesk')).begun.map(({ slug }: { slug: string }) => slug)).toEqual(['visit']);
    ok(await desktop.submit('visit', { ...VISIT, institute: 'haldane', fee: '20' }));
    expect(ok(await phone.call('door', at)).form.kept).toBe(null);
  });

  it('is nobody any more once made inactive, at once', async () => {
    const silas = await desk.contact('silas.eade@haldane.example');
    const { id } = ok(await silas.call('me')).person;
    const { version } = ok(await maren.call('person', { params: { id } }));
    ok(
      await maren.call('changePerson', {
        ...{ params: { id }, headers: { 'If-Match': `"${version}"` }, body: { active: false } },
      }),
    );
    expect(ok(await silas.call('me')).person).toBe(null);
    expect((await silas.submit('visit', VISIT)).status).toBe(422);
  });
});
