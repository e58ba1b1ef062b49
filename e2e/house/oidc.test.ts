import { type ChildProcess, fork } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { account, passkey, people, session, signInProviders, verification } from '@tolvek/server/schema';
import { and, eq } from 'drizzle-orm';
import { Secret, TOTP } from 'otpauth';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Caller, Desk, freshly, ok, onVersion } from './desk.ts';

let desk: Desk;
let ada: Caller;
let provider: ChildProcess;
let issuer: string;
let id: string;

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

beforeAll(async () => {
  desk = await Desk.open();
  ada = await desk.as('Ada Quillfeather');
  const port = await freePort();
  issuer = `http://127.0.0.1:${port}`;
  provider = fork(join(import.meta.dirname, 'providerProcess.ts'), {
    execArgv: ['--import', 'tsx'],
    env: { ...process.env, OIDC_PORT: String(port), OIDC_BACK: `${desk.running.url}/api/auth/callback/station` },
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  await new Promise((done) => provider.once('message', done));
  ({ id } = ok(await ada.call('addProvider', { headers: freshly(), body: station() })));
}, 180_000);
afterAll(async () => {
  provider.disconnect();
  await desk.close();
});

const station = () => ({ name: 'Station', issuer, clientId: 'tolvek', secret: 'a secret of the test' });

/** A browser without pages: it keeps cookies by host, and goes where it is led. */
class Browser {
  private readonly jars = new Map<string, Map<string, string>>();

  private jar(url: string): Map<string, string> {
    const { host } = new URL(url);
    const jar = this.jars.get(host) ?? new Map<string, string>();
    this.jars.set(host, jar);
    return jar;
  }

  cookies = (url: string): string => [...this.jar(url)].map(([name, value]) => `${name}=${value}`).join('; ');

  async go(url: string, form?: Readonly<Record<string, string>>): Promise<Response> {
    const answer = await fetch(url, {
      redirect: 'manual',
      method: form ? 'POST' : 'GET',
      headers: { cookie: this.cookies(url), ...(form ? { 'content-type': 'application/x-www-form-urlencoded' } : {}) },
      ...(form ? { body: new URLSearchParams(form) } : {}),
    });
    for (const cookie of answer.headers.getSetCookie()) {
      const [pair = '', ...rest] = cookie.split(';');
      const at = pair.indexOf('=');
      const isOver = rest.some((each) => /expires=Thu, 01 Jan 1970|max-age=0/i.test(each));
      if (isOver) this.jar(url).delete(pair.slice(0, at));
      else this.jar(url).set(pair.slice(0, at), pair.slice(at + 1));
    }
    return answer;
  }

  /** Follows until a page; returns its address and text. */
  async follow(url: string, form?: Readonly<Record<string, string>>): Promise<{ url: string; text: string }> {
    let answer = await this.go(url, form);
    let at = url;
    for (let hops = 0; answer.status >= 300 && answer.status < 400 && hops < 12; hops += 1) {
      at = new URL(answer.headers.get('location') ?? '', at).href;
      if (at.startsWith(desk.running.url) && !at.includes('/api/')) return { url: at, text: '' };
      answer = await this.go(at);
    }
    return { url: at, text: await answer.text() };
  }

  /** Signs in at the provider as somebody, and comes back; where to, and until where nothing is answered. */
  async signIn(who: string, back = '/floor'): Promise<string> {
    const login = await this.follow(`${desk.running.url}/api/auth/by/${id}?back=${encodeURIComponent(back)}`);
    if (!login.url.includes('/interaction/')) return login.url.replace(desk.running.url, '');
    const consent = await this.follow(login.url, { prompt: 'login', login: who, password: 'any' });
    const led = consent.url.includes('/interaction/') ? await this.follow(consent.url, { prompt: 'consent' }) : consent;
    return led.url.replace(desk.running.url, '');
  }

  /** Who the desk takes them for; null for nobody. */
  async who(): Promise<string | null> {
    const answer = await new Caller(desk, 'browser', this.cookies(desk.running.url)).call('me');
    return ok(answer).person?.name ?? null;
  }
}

const accounts = (name: string) =>
  desk.running.house.db
    .select()
    .from(account)
    .where(and(eq(account.userId, desk.idOf(name)), eq(account.providerId, id)))
    .all();

describe('a provider of OpenID Connect', () => {
  it('is asked for its discovery document before it is added, and kept with its secret sealed', async () => {
    const add = async (more: object) =>
      (await ada.call('addProvider', { headers: freshly(), body: { ...station(), name: 'Other', ...more } })).status;
    expect(await add({ issuer: `${issuer}/elsewhere` })).toBe(422);
    expect(await add({ issuer: 'http://127.0.0.1:9' })).toBe(422);
    expect(await add({ issuer: 'http://provider.example' })).toBe(422);
    expect(await add({ issuer: issuer.replace('127.0.0.1', 'localhost') })).toBe(422);
    const seen = ok(await ada.call('signInSettings'));
    expect(seen.providers).toMatchObject([
      { id: 'station', secret: 'kept', callback: `${desk.running.url}/api/auth/callback/station` },
    ]);
    const kept = desk.running.house.db.select().from(signInProviders).all();
    expect(JSON.stringify([seen, kept])).not.toContain('a secret of the test');
    const outside = await desk.as();
    expect(ok(await outside.call('signInWays'))).toEqual({
      ...{ passkeys: 'localhost', passwords: true, providers: [{ id: 'station', name: 'Station' }] },
    });
  });

  it('lets in staff whose address it has verified, and knows them from then on', async () => {
    const browser = new Browser();
    expect(await browser.signIn('maren', '/floor/mine?q=1')).toBe('/floor/mine?q=1');
    expect(await browser.who()).toBe('Maren Okafor');
    expect(accounts('Maren Okafor')).toMatchObject([
      { accountId: 'maren', accessToken: null, refreshToken: null, idToken: null },
    ]);
    const { history, providers } = ok(await ada.call('person', { params: { id: desk.idOf('Maren Okafor') } }));
    expect([providers, history[0].words]).toEqual([['Station'], 'Can sign in with “Station”']);
    const capitals = new Browser();
    await capitals.signIn('bram');
    expect(await capitals.who()).toBe('Bram Solheim');
    // Another address later is still the same person: by what the provider calls them.
    const { version } = ok(await ada.call('person', { params: { id: desk.idOf('Maren Okafor') } }));
    ok(
      await ada.call('changePerson', {
        ...{ params: { id: desk.idOf('Maren Okafor') }, headers: onVersion(version) },
        body: { email: 'maren.o@skerrow.example' },
      }),
    );
    const again = new Browser();
    expect(await again.signIn('maren')).toBe('/floor');
    expect([await again.who(), accounts('Maren Okafor').length]).toEqual(['Maren Okafor', 1]);
  });

  it('lets in nobody else, and says why', async () => {
    const tries: readonly (readonly [string, string])[] = [
      ['stranger', 'unknown'],
      ['contact', 'unknown'],
      ['unverified', 'unverified'],
      ['nameless', 'no-address'],
      ['gone', 'unknown'],
    ];
    const gone = { id: desk.idOf('Cormac Dewhurst') };
    const { version } = ok(await ada.call('person', { params: gone }));
    ok(await ada.call('changePerson', { params: gone, headers: onVersion(version), body: { active: false } }));
    const before = desk.running.house.db.select().from(session).all().length;
    for (const [who, why] of tries) {
      const browser = new Browser();
      expect([who, await browser.signIn(who)]).toEqual([who, `/sign-in?error=${why}`]);
      expect([who, await browser.who()]).toEqual([who, null]);
    }
    expect(desk.running.house.db.select().from(session).all().length).toBe(before);
    expect(
      desk.running.house.db.select().from(people).where(eq(people.email, 'stranger@elsewhere.example')).all(),
    ).toEqual([]);
  });

  it('takes nobody for somebody who had the address before', async () => {
    const first = new Browser();
    await first.signIn('ada');
    expect(await first.who()).toBe('Ada Quillfeather');
    const second = new Browser();
    expect(await second.signIn('ada-two')).toBe('/sign-in?error=other');
    expect([await second.who(), accounts('Ada Quillfeather').length]).toEqual([null, 1]);
  });

  it('answers only whoever began in the same browser, once, and leads nowhere else', async () => {
    const [mine, theirs] = [new Browser(), new Browser()];
    const begun = await mine.go(`${desk.running.url}/api/auth/by/${id}`);
    const login = await mine.follow(begun.headers.get('location') ?? '');
    const consent = await mine.follow(login.url, { prompt: 'login', login: 'maren', password: 'any' });
    let back = '';
    let answer = await mine.go(consent.url, { prompt: 'consent' });
    for (let hops = 0; hops < 5 && back === ''; hops += 1) {
      const to = new URL(answer.headers.get('location') ?? '', issuer).href;
      if (to.startsWith(desk.running.url)) back = to;
      else answer = await mine.go(to);
    }
    // Somebody else is led to what was begun here: they would be signed in as another.
    expect((await theirs.follow(back)).url).toContain('/sign-in?error=late');
    expect(await theirs.who()).toBeNull();
    const forged = new URL(back);
    forged.searchParams.set('state', 'x'.repeat(32));
    expect((await mine.follow(forged.href)).url).toContain('/sign-in?error=late');
    expect((await mine.follow(back)).url).toBe(`${desk.running.url}/`);
    expect(await mine.who()).toBe('Maren Okafor');
    const again = await mine.follow(back);
    expect(again.url).toContain('/sign-in?error=');
    for (const elsewhere of ['//elsewhere.example', 'https://elsewhere.example/', '/\\elsewhere.example'])
      expect(await new Browser().signIn('maren', elsewhere)).toBe('/');
    expect((await mine.go(`${desk.running.url}/api/auth/by/nobody`)).status).toBe(404);
    // A session that somebody had before is not the one they get.
    expect(desk.running.house.db.select().from(verification).all().length).toBeLessThan(40);
  });

  it('stands alone when passwords are off, which only who signed in by it can do', async () => {
    const { version } = ok(await ada.call('signInSettings')).providers[0];
    const inUse = (active: boolean, on: number) =>
      ada.call('changeProvider', { params: { id }, headers: onVersion(on), body: { active } });
    ok(await inUse(false, version));
    expect((await ada.call('setPasswords', { body: { on: false } })).status).toBe(409);
    ok(await inUse(true, version + 1));
    ok(await ada.call('setPasswords', { body: { on: false } }));
    expect(await desk.by('ilse.brandvold@skerrow.example', 'tolvek-demo')).toBeNull();
    const browser = new Browser();
    await browser.signIn('maren');
    expect(await browser.who()).toBe('Maren Okafor');
    const outside = await desk.as();
    expect(ok(await outside.call('signInWays')).passwords).toBe(false);
    expect((await inUse(false, version + 2)).status).toBe(409);
    ok(await ada.call('setPasswords', { body: { on: true } }));
    const told = ok(await ada.call('signInSettings')).history.map(({ words }: { words: string }) => words);
    expect(told.slice(0, 2)).toEqual(['Passwords are allowed again', 'Passwords switched off']);
    expect(told.at(-1)).toBe('Way to sign in added: Station');
    expect(await desk.by('ilse.brandvold@skerrow.example', 'tolvek-demo')).not.toBeNull();
  });
});

const post = async (path: string, body: object, cookie = '') => {
  const answer = await fetch(`${desk.running.url}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie },
    body: JSON.stringify(body),
  });
  // The newest of each name, as a browser keeps them.
  const all = [...cookie.split('; '), ...answer.headers.getSetCookie().map((each) => each.split(';')[0] ?? '')];
  const kept = new Map(all.filter(Boolean).map((each) => [each.slice(0, each.indexOf('=')), each]));
  return { status: answer.status, body: await answer.json(), cookie: [...kept.values()].join('; ') };
};

describe('a code after the password', () => {
  const [email, password] = ['bram.solheim@skerrow.example', 'tolvek-demo'];
  const enter = () => post('/api/auth/sign-in/email', { email, password });
  const meBy = async (cookie: string) => ok(await new Caller(desk, 'bram', cookie).call('me')).person?.name ?? null;

  it('is set up by its owner, asked for at each sign-in, and lost codes are replaced by spare ones, once each', async () => {
    const signed = await enter();
    expect((await post('/api/auth/code/begin', { password })).status).toBe(401);
    expect((await post('/api/auth/code/begin', { password: 'wrong' }, signed.cookie)).status).toBe(401);
    const { body: begun } = await post('/api/auth/code/begin', { password }, signed.cookie);
    // Computed by another hand than the one that checks (RFC 6238).
    const secret = Secret.fromBase32(new URL(begun.uri).searchParams.get('secret') ?? '');
    const code = (ago = 0) => new TOTP({ secret }).generate({ timestamp: Date.now() - ago });
    expect([(await enter()).body.signedIn, begun.spare.length]).toEqual([true, 10]);
    expect((await post('/api/auth/code/confirm', { code: '000000' }, signed.cookie)).status).toBe(401);
    const confirmed = await post('/api/auth/code/confirm', { code: code() }, signed.cookie);
    expect(confirmed.status).toBe(200);
    const half = await enter();
    expect([half.status, half.body, await meBy(half.cookie)]).toEqual([
      200,
      { signedIn: false, needsCode: true },
      null,
    ]);
    expect((await post('/api/auth/sign-in/code', { code: code() })).status).toBe(401);
    expect((await post('/api/auth/sign-in/code', { code: code(10 * 60_000) }, half.cookie)).status).toBe(401);
    expect(await meBy(half.cookie)).toBeNull();
    const whole = await post('/api/auth/sign-in/code', { code: ` ${code().replace(/(...)/, '$1 ')}` }, half.cookie);
    expect([whole.status, await meBy(whole.cookie)]).toEqual([200, 'Bram Solheim']);
    const spare = async () => post('/api/auth/sign-in/code', { code: begun.spare[0] }, (await enter()).cookie);
    const [first, second] = [await spare(), await spare()];
    expect([first.status, second.status]).toEqual([200, 401]);
    // What asks for a code is asked for here, not by what is kept: neither stands in a readable form.
    expect(JSON.stringify(ok(await ada.call('person', { params: { id: desk.idOf('Bram Solheim') } })))).not.toContain(
      secret.base32,
    );
    expect(ok(await ada.call('person', { params: { id: desk.idOf('Bram Solheim') } })).code).toBe(true);
  });

  it('holds after five wrong codes, and is taken away by whoever may do as much', async () => {
    const half = await enter();
    const tries = [];
    for (let n = 0; n < 7; n += 1)
      tries.push((await post('/api/auth/sign-in/code', { code: `00000${n}` }, half.cookie)).status);
    expect(tries.slice(0, 5)).toEqual([401, 401, 401, 401, 401]);
    expect(tries.slice(5).every((status) => status === 429 || status === 401)).toBe(true);
    const ilse = await desk.as('Ilse Brandvold');
    const params = { id: desk.idOf('Bram Solheim') };
    expect((await ilse.call('endTheirCode', { params })).status).toBe(403);
    ok(await ada.call('endTheirCode', { params }));
    expect((await ada.call('endTheirCode', { params })).status).toBe(404);
    const signed = await enter();
    expect([signed.body.signedIn, await meBy(signed.cookie)]).toEqual([true, 'Bram Solheim']);
  });
});

describe('a passkey', () => {
  const key = (id: string, personId: string) =>
    desk.running.house.db
      .insert(passkey)
      .values({
        ...{ id, name: id, userId: personId, credentialID: id, publicKey: '', counter: 0 },
        ...{ deviceType: 'singleDevice', backedUp: false },
      })
      .run();

  it('is added by who is signed in, tells nobody whose there are, and opens nothing by what was made up', async () => {
    key('bram-key', desk.idOf('Bram Solheim'));
    expect((await post('/api/auth/passkey/begin-add', {})).status).toBe(401);
    expect((await post('/api/auth/passkey/add', { name: 'x', response: {} })).status).toBe(401);
    const begun = await post('/api/auth/passkey/begin', {});
    expect(begun.body).toMatchObject({ rpId: 'localhost', userVerification: 'required' });
    expect(JSON.stringify(begun.body)).not.toContain('bram-key');
    const made = { clientDataJSON: 'e30', authenticatorData: 'AA', signature: 'AA' };
    const response = { id: 'bram-key', rawId: 'bram-key', type: 'public-key', response: made };
    expect((await post('/api/auth/passkey/enter', { response })).status).toBe(401);
    const tried = await post('/api/auth/passkey/enter', { response }, begun.cookie);
    expect([tried.status, (await post('/api/auth/passkey/enter', {})).status]).toEqual([401, 400]);
    expect(desk.running.house.db.select().from(passkey).get()?.counter).toBe(0);
  });

  it('is taken away by its owner, and with the device by whoever may do as much', async () => {
    const bram = await desk.as('Bram Solheim');
    const params = { id: desk.idOf('Bram Solheim') };
    key('ada-key', desk.idOf('Ada Quillfeather'));
    expect((await bram.call('endPasskey', { params: { id: 'ada-key' } })).status).toBe(404);
    expect(ok(await ada.call('person', { params })).passkeys).toBe(1);
    ok(await bram.call('endPasskey', { params: { id: 'bram-key' } }));
    key('bram-again', params.id);
    ok(await ada.call('endTheirCode', { params }));
    const { passkeys, history } = ok(await ada.call('person', { params }));
    expect([passkeys, history[0].words]).toEqual([0, 'All passkeys removed']);
    expect((await bram.call('me')).body.person).toBeNull();
  });
});
