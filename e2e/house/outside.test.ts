import { request as httpRequest } from 'node:http';
import { notices, session } from '@tolvek/server/schema';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, VISIT, WATER } from './desk.ts';

let desk: Desk;
let priya: Caller;
let maren: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open(0, undefined, { proxies: 1, pace: 1 });
  [priya, maren, stranger] = [await desk.as('Priya Nakamura-Lind'), await desk.as('Maren Okafor'), await desk.as()];
});
afterAll(() => desk.close());

const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
const from = (address: string) => ({ 'X-Forwarded-For': address });

/** So many calls, forty at a time: fast enough to be within a minute on a slow machine. */
async function atOnce(count: number, call: (n: number) => Promise<number>): Promise<number[]> {
  const statuses: number[] = [];
  for (let from = 0; from < count; from += 40)
    statuses.push(...(await Promise.all(Array.from({ length: 40 }, (_, at) => call(from + at)))));
  return statuses;
}

/** A call as it goes over the wire, where `fetch` would not send such a thing. */
function raw(
  method: string,
  path: string,
  { headers = {}, body = '', chunks = 0 }: { headers?: Record<string, string>; body?: string; chunks?: number } = {},
): Promise<{ status: number; text: string; sent: number }> {
  const { hostname, port } = new URL(desk.running.url);
  return new Promise((done, fail) => {
    let sent = 0;
    const call = httpRequest({ hostname, port, method, path, headers, agent: false }, (response) => {
      let text = '';
      response.on('data', (chunk: Buffer) => (text += chunk.toString()));
      response.on('end', () => done({ status: response.statusCode ?? 0, text, sent }));
      response.on('error', fail);
    });
    call.on('error', (error: NodeJS.ErrnoException) =>
      // The other side hung up while more was being sent: that is an answer too.
      error.code === 'EPIPE' || error.code === 'ECONNRESET' ? undefined : fail(error),
    );
    if (chunks === 0) return call.end(body);
    const piece = 'x'.repeat(64 * 1024);
    const more = (left: number): void => {
      if (left === 0 || call.destroyed) return void call.end();
      sent += piece.length;
      call.write(piece, () => more(left - 1));
    };
    more(chunks);
  });
}

describe('what is sent', () => {
  it.each([
    ['/api/auth/sign-in/email', 'application/json'],
    ['/api/auth/anything/at/all', 'application/octet-stream'],
    ['/api/doors/visit/requests', 'application/json'],
    ['/api/nowhere', 'text/plain'],
    ['/', 'text/plain'],
  ])('to %s has a limit before anything reads it, said beforehand or not', async (path, type) => {
    const said = await raw('POST', path, {
      headers: { 'content-type': type, 'content-length': String(300 * 1024 * 1024) },
      body: 'x',
    });
    expect(said.status).toBe(413);
    const unsaid = await raw('POST', path, { headers: { 'content-type': type }, chunks: 200 });
    expect([413, 415, 404]).toContain(unsaid.status);
    expect(unsaid.sent).toBeLessThan(8 * 1024 * 1024);
  });

  it('is counted by the address that trusted proxies tell; a made-up header lifts nothing', async () => {
    const look = async (headers: Record<string, string>) =>
      (await stranger.call('door', { params: { slug: 'visit' }, headers })).status;
    // The last address is the one our own proxy adds; what stands before it anybody can make up.
    const statuses = await atOnce(400, (n) => look(from(`10.0.${n >> 8}.${n & 255}, 192.0.2.7`)));
    expect(statuses.filter((status) => status === 429).length).toBeGreaterThan(50);
    expect(await look(from('192.0.2.8'))).toBe(200);
  });

  it('is counted apart for reading, typing and sending, and for staff by person', async () => {
    const address = from('192.0.2.20');
    const looked = await atOnce(
      400,
      async () => (await stranger.call('door', { params: { slug: 'visit' }, headers: address })).status,
    );
    expect(looked).toContain(429);
    const typing = await stranger.call('checkAnswers', {
      params: { slug: 'visit' },
      headers: address,
      body: { answers: {} },
    });
    expect(typing.status).toBe(200);
    expect((await priya.call('frontDesk', { headers: address })).status).toBe(200);
  });

  it('under a key that was used counts as the same in any order of its parts', async () => {
    const sameKey = key();
    const first = await priya.call('submit', {
      params: { slug: 'come-on-site' },
      headers: sameKey,
      body: JSON.stringify({ release: 1, answers: VISIT }),
    });
    const turned = Object.fromEntries(Object.entries(VISIT).reverse());
    const again = await priya.call('submit', {
      params: { slug: 'come-on-site' },
      headers: sameKey,
      body: JSON.stringify({ answers: turned, release: 1 }),
    });
    expect([first.status, again.status]).toEqual([200, 200]);
    expect(again.body).toEqual(first.body);
  });

  it('that a library refuses is answered as refused, not as our fault', async () => {
    const post = (headers: Record<string, string>, body = '{}') =>
      raw('POST', '/api/doors/visit/checks', { headers: { ...headers }, body });
    const json = 'application/json';
    expect((await post({ 'content-type': `${json}; charset=klingon` })).status).toBe(415);
    expect((await post({ 'content-type': json, 'content-encoding': 'squash' })).status).toBe(415);
    // With the pages built they are looked for first.
    expect([400, 404]).toContain((await raw('GET', '/assets/%E0%A4%A')).status);
    expect((await raw('GET', '/api/doors/%E0%A4%A')).status).toBe(400);
    expect((await raw('GET', '/assets/none.js')).status).toBe(404);
  });
});

describe('other hosts and sites', () => {
  it('are refused: the address is the one that is set, not the one a caller names', async () => {
    const { host } = new URL(desk.running.url);
    expect((await raw('GET', '/api/me', { headers: { host } })).status).toBe(200);
    expect((await raw('GET', '/api/me', { headers: { host: 'elsewhere.example' } })).status).toBe(421);
    const posted = (origin: string, named: string) =>
      raw('POST', '/api/doors/visit/checks', {
        headers: { 'content-type': 'application/json', origin, host: named },
        body: '{"answers":{}}',
      });
    expect((await posted(`http://${host}`, host)).status).toBe(200);
    // The same wrong name in both was enough to be taken for our own page.
    expect((await posted('http://elsewhere.example', 'elsewhere.example')).status).not.toBe(200);
    expect((await posted('http://elsewhere.example', host)).status).toBe(403);
  });
});

describe('signing in and out', () => {
  it('answers with no session token, and has no route that nothing uses', async () => {
    const { DEMO_PASSWORD } = await import('@tolvek/server');
    const { addressOf } = await import('@tolvek/demo');
    const response = await fetch(`${desk.running.url}/api/auth/sign-in/email`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: addressOf('Bram Solheim'), password: DEMO_PASSWORD }),
    });
    const text = await response.text();
    expect(response.status).toBe(200);
    const tokens = desk.running.house.db.select({ token: session.token }).from(session).all();
    expect(tokens.length).toBeGreaterThan(0);
    for (const { token } of tokens) expect(text).not.toContain(token);
    for (const [method, path] of [
      ['GET', 'get-session'],
      ['GET', 'list-sessions'],
      ['POST', 'update-user'],
      ['POST', 'change-password'],
      ['POST', 'change-email'],
      ['POST', 'delete-user'],
      ['POST', 'request-password-reset'],
      ['POST', 'sign-up/email'],
      ['GET', 'ok'],
      ['GET', 'error'],
    ] as const)
      expect([path, (await raw(method, `/api/auth/${path}`, { headers: { cookie: priya.cookie } })).status]).toEqual([
        path,
        404,
      ]);
  });

  it('a session ends with the sign-out, at once and with its streams', async () => {
    const bram = await desk.anew('Bram Solheim');
    expect((await bram.call('trays')).status).toBe(200);
    const stream = await fetch(`${desk.running.url}/api/live`, { headers: { cookie: bram.cookie } });
    const ended = stream.text();
    const out = await fetch(`${desk.running.url}/api/auth/sign-out`, {
      method: 'POST',
      headers: { cookie: bram.cookie, 'content-type': 'application/json' },
      body: '{}',
    });
    expect(out.status).toBe(200);
    expect((await bram.call('trays')).status).toBe(401);
    await ended;
  });

  it('a cookie that was not signed here is nobody', async () => {
    const [name = '', value = ''] = priya.cookie.split(/=(.*)/s);
    const [token = '', signature = ''] = decodeURIComponent(value.split(';')[0] ?? '').split('.');
    for (const forged of [`${token}.`, `${token}.${signature.slice(0, -4)}AAA=`, token, `.${signature}`, 'x.y']) {
      const me = await fetch(`${desk.running.url}/api/me`, {
        headers: { cookie: `${name}=${encodeURIComponent(forged)}` },
      });
      expect([forged, ((await me.json()) as { person: unknown }).person]).toEqual([forged, null]);
    }
  });

  it('six streams a person are open, not more; another person has their own', async () => {
    const [one, other] = [await desk.as('Edda Kilbride'), await desk.as('Bram Solheim')];
    const stop = new AbortController();
    const listen = async (caller: Caller) =>
      (await fetch(`${desk.running.url}/api/live`, { headers: { cookie: caller.cookie }, signal: stop.signal })).status;
    const statuses: number[] = [];
    for (let n = 0; n < 8; n += 1) statuses.push(await listen(one));
    expect(statuses).toEqual([200, 200, 200, 200, 200, 200, 429, 429]);
    expect(await listen(other)).toBe(200);
    stop.abort();
  });
});

describe('a stranger’s words', () => {
  const contact = (name: string, email = 'lead@haldane.example') => ({ contact: { name, email } });

  it.each([
    'Win now http://evil.example',
    'Call 0900 555 now',
    'Ada <b>Bold</b>',
    'x'.repeat(61),
    'a@b.example',
    'Ada\nBcc: all',
  ])('%s is not taken for a name', async (name) => {
    const answer = await stranger.submit('visit', VISIT, { ...contact(name) });
    expect([answer.status, answer.body.problems?.[0]?.field ?? answer.body.type]).toEqual([
      expect.any(Number),
      expect.stringContaining('contact.name'),
    ]);
  });

  it.each(['Ada', 'Siân O’Neil-Ward', 'Łukasz', 'Ólöf Jóns dóttir', 'J. R. Marlowe', '李小龍'])(
    '%s is',
    async (name) => {
      const answer = await stranger.submit('visit', VISIT, {
        ...contact(name, `someone-${crypto.randomUUID()}@haldane.example`),
      });
      expect(answer.status).toBe(200);
    },
  );

  it('do not stand in letters to an address that nobody confirmed', async () => {
    const email = `unknown-${crypto.randomUUID()}@haldane.example`;
    await stranger.submit('visit', VISIT, contact('Grand Prize For You', email));
    const letter = (await desk.letters()).find((each) => each.to.includes(email));
    expect(letter).toBeDefined();
    expect(JSON.stringify(letter)).not.toContain('Grand Prize');
  });

  it('send five letters an hour to one unconfirmed address, and twenty a day', async () => {
    const email = `flood-${crypto.randomUUID()}@haldane.example`;
    const send = async (n: number) =>
      (
        await stranger.call('submit', {
          params: { slug: 'visit' },
          headers: { ...key(), ...from(`198.51.100.${n}`) },
          body: { release: 1, answers: VISIT, contact: { name: 'Ada', email } },
        })
      ).status;
    const hour: number[] = [];
    for (let n = 0; n < 7; n += 1) hour.push(await send(n));
    expect(hour).toEqual([200, 200, 200, 200, 200, 429, 429]);
    let sent = 5;
    for (let hours = 0; hours < 5; hours += 1) {
      await maren.call('advanceClock', { body: { minutes: 61 } });
      for (let n = 0; n < 5; n += 1) if ((await send(hours * 10 + n)) === 200) sent += 1;
    }
    expect(sent).toBe(20);
    const rows = desk.running.house.db.select().from(notices).all();
    expect(rows.filter((row) => row.toAddress === email)).toHaveLength(20);
  });

  it('are kept only as far as the form asks for them', async () => {
    const email = `kept-${crypto.randomUUID()}@haldane.example`;
    await stranger.call('sendKept', {
      params: { slug: 'visit' },
      body: {
        answers: { visitor: 'Ada', escort: 'me', medical: 'x'.repeat(100), ghost: 'y' },
        contact: { name: 'Ada', email },
        typedAt: 1,
      },
    });
    const token = await desk.tokenFor(email, 'go on');
    const kept = await stranger.call('kept', { params: { token } });
    expect(kept.body.answers).toEqual({ visitor: 'Ada' });
  });
});

describe('a decision', () => {
  const later = { arrival: '2026-12-10', departure: '2026-12-11' };

  it('is on what was read: what changed meanwhile is shown again first', async () => {
    const number = (await priya.submit('come-on-site', { ...WATER, ...later })).body.number;
    const token = await desk.tokenFor('tomas.achterberg', 'decide');
    const seen = (await stranger.call('decisionLink', { params: { token } })).body.seen;
    expect(seen).toEqual(expect.any(String));
    const { version } = await maren.sheet(number);
    await maren.call('changeFields', {
      params: { number },
      headers: { 'If-Match': `"${version}"` },
      body: { changes: { reason: 'Something else altogether' } },
    });
    const decide = (read: string) =>
      stranger.call('decideByLink', {
        params: { token },
        headers: key(),
        body: { verdict: 'approve', comment: '', seen: read },
      });
    const refused = await decide(seen);
    expect([refused.status, refused.body.type]).toEqual([409, 'urn:tolvek:problem:changed-meanwhile']);
    const again = (await stranger.call('decisionLink', { params: { token } })).body;
    expect(again.seen).not.toBe(seen);
    expect((await decide(again.seen)).status).toBe(200);
  });

  it('is not disturbed by what it is not about', async () => {
    const number = (await priya.submit('come-on-site', { ...WATER, ...later, visitor: 'Another' })).body.number;
    const tomas = await desk.as('Tomas Achterberg');
    const { approval } = await tomas.sheet(number);
    await maren.call('comment', { params: { number }, body: { text: 'A note', visibility: 'internal' } });
    const done = await tomas.call('decide', {
      params: { number },
      headers: key(),
      body: { verdict: 'approve', comment: '', seen: approval.seen },
    });
    expect(done.status).toBe(200);
  });
});
