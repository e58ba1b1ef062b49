import assert from 'node:assert';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Route, type RouteName, routes } from '@tolvek/contract';
import type { AccessPlan } from '@tolvek/core/access';
import { addressOf, DEMO_NOW, demoConfig, deskCalendar, seed } from '@tolvek/demo';
import { type Config, changeRegister, DEMO_PASSWORD, type Running, registerByKey, start } from '@tolvek/server';
import { approvalSteps, designs, jobs, letters, people, requests, seats } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { and, asc, eq } from 'drizzle-orm';
import { faults } from './readable.ts';

export interface Answer {
  readonly route: string;
  readonly who: string;
  readonly status: number;
  readonly text: string;
  // biome-ignore lint/suspicious/noExplicitAny: tests read answers of many shapes; the contract parses them below
  readonly body: any;
}

interface CallInput {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, string>>;
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
}

const { key: _, ...HOURS } = deskCalendar;
/** The hours of the demo’s desk, with a day off more. */
export const STORM = { ...HOURS, holidays: [...HOURS.holidays, { date: '2026-11-25', name: 'Storm' }] };

/** What was answered, where it has to be well. */
export const ok = (answer: Answer): Answer['body'] => {
  assert.deepStrictEqual(
    [answer.route, answer.status, answer.status === 200 ? '' : answer.text],
    [answer.route, 200, ''],
  );
  return answer.body;
};
/** A key that no call had before. */
export const freshly = () => ({ 'Idempotency-Key': crypto.randomUUID() });
export const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });

const freshFolder = (): string => mkdtempSync(join(tmpdir(), 'tolvek-'));

let laid: Promise<string> | undefined;

/** A folder with the demo’s ground: it is laid once for all tests of a process, and each has a copy. */
async function likeLaid(): Promise<string> {
  laid ??= (async () => {
    const first = await Desk.open(0, freshFolder());
    await first.running.stop();
    process.once('exit', () => rmSync(first.folder, { recursive: true, force: true }));
    return first.folder;
  })();
  const folder = freshFolder();
  cpSync(await laid, folder, { recursive: true });
  return folder;
}

/** A running desk on a folder of its own, with the demo's ground and, if wanted, its requests. */
export class Desk {
  /** Every answer of every call, for tests that search all of them. */
  readonly answers: Answer[] = [];

  private constructor(
    readonly running: Running,
    readonly folder: string,
  ) {}

  static async open(size = 0, folder?: string, other: Partial<Config> = {}, smtp?: string): Promise<Desk> {
    if (folder === undefined) return Desk.open(size, size === 0 ? await likeLaid() : freshFolder(), other, smtp);
    const config = { ...demoConfig({ TOLVEK_DATA: folder, PORT: '0', TOLVEK_LOG: 'error' }), ...other };
    return new Desk(
      await start(config, { demoNow: DEMO_NOW, seed: (house) => seed(house, size), ...(smtp ? { smtp } : {}) }),
      folder,
    );
  }

  /** A desk on an empty folder, as a first start finds it: nobody is there, and nothing is laid. */
  static async empty(other: Partial<Config> = {}): Promise<Desk> {
    const folder = freshFolder();
    const config = { ...demoConfig({ TOLVEK_DATA: folder, PORT: '0', TOLVEK_LOG: 'error' }), ...other };
    return new Desk(await start(config, { demoNow: DEMO_NOW }), folder);
  }

  async close(): Promise<void> {
    await this.running.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** The ids of the things other forms let people choose from, by name, tag or code. */
  things(): ReadonlyMap<string, string> {
    const rows = this.running.house.db
      .select({ id: requests.id, values: requests.values })
      .from(requests)
      .where(eq(requests.stage, 'in_use'))
      .all();
    return new Map(rows.map(({ id, values }) => [String(values.tag ?? values.code ?? values.name), id]));
  }

  /** A register as it is in force. */
  register(key: string) {
    const found = registerByKey(this.running.house.db, key);
    if (!found) throw new Error(`There is no register ${key}.`);
    return found;
  }

  hasRegister(key: string): boolean {
    return registerByKey(this.running.house.db, key) !== undefined;
  }

  /** Puts another access plan of a register in force, as a page for it will. */
  protect(key: string, access: AccessPlan): void {
    const { db, clock } = this.running.house;
    const done = { viewer: { personId: '' }, now: clock.now() };
    db.transaction((tx) => changeRegister(tx, { key }, { access }, '', done));
  }

  /** Has the members of another group decide on a request besides, at the same step. */
  askBesides(number: string, holder: string): void {
    const { db } = this.running.house;
    const request = db.select().from(requests).where(eq(requests.number, number)).get();
    const seat = db
      .select()
      .from(seats)
      .where(eq(seats.requestId, request?.id ?? ''))
      .get();
    if (!seat) throw new Error(`Nobody decides on ${number}.`);
    db.insert(seats)
      .values({ ...seat, id: `${seat.id}-2`, holder })
      .run();
    db.update(approvalSteps).set({ needed: 2 }).where(eq(approvalSteps.id, seat.stepId)).run();
  }

  /** The id of somebody, by name; empty for nobody. */
  idOf(name: string): string {
    return this.running.house.db.select({ id: people.id }).from(people).where(eq(people.name, name)).get()?.id ?? '';
  }

  /** The id of a form, by its key. */
  formId(key: string): string {
    const which = and(eq(designs.kind, 'form'), eq(designs.key, key));
    return this.running.house.db.select({ id: designs.id }).from(designs).where(which).get()?.id ?? '';
  }

  /** The sessions of those who have signed in: proving a password takes a tenth of a second on purpose. */
  private readonly sessions = new Map<string, string>();

  /** Somebody of the demo, signed in; without a name somebody from outside. */
  async as(name?: string): Promise<Caller> {
    if (!name) return new Caller(this, 'outside', '');
    const session = this.sessions.get(name) ?? (await this.signIn(name));
    this.sessions.set(name, session);
    return new Caller(this, name, session);
  }

  /** The same with a session of its own, for who signs out. */
  async anew(name: string): Promise<Caller> {
    return new Caller(this, name, await this.signIn(name));
  }

  /** Somebody signed in by an address and a password; null when the two don’t belong together. */
  async by(email: string, password: string): Promise<Caller | null> {
    const cookie = await this.cookieOf(email, password);
    return cookie === null ? null : new Caller(this, email, cookie);
  }

  /** The cookie of a new session. */
  private async signIn(name: string): Promise<string> {
    const cookie = await this.cookieOf(addressOf(name), DEMO_PASSWORD);
    if (cookie === null) throw new Error(`${name} could not sign in.`);
    return cookie;
  }

  private async cookieOf(email: string, password: string): Promise<string | null> {
    const response = await fetch(`${this.running.url}/api/auth/sign-in/email`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email, password }),
    });
    if (!response.ok) return null;
    return response.headers
      .getSetCookie()
      .map((each) => each.split(';')[0])
      .join('; ');
  }

  /** Resolves when health says that all is well; the house looks for room every ten seconds. */
  async allWell(): Promise<void> {
    const stranger = await this.as();
    for (let tries = 0; ; tries += 1) {
      const { status, troubles } = (await stranger.call('health')).body;
      if (status === 'ok') return;
      if (tries === 80) throw new Error(`still troubled: ${JSON.stringify(troubles)}`);
      await new Promise((done) => setTimeout(done, 250));
    }
  }

  /** Puts in long work that somebody had done, as it would stand there. */
  hadDone(name: string): string {
    const { db, clock } = this.running.house;
    const now = clock.now();
    const by = db.select({ id: people.id }).from(people).where(eq(people.name, name)).get()?.id ?? '';
    const about = { form: 'site-access' };
    const ended = { state: 'done', of: 1, result: { changed: 1 }, createdAt: now, endedAt: now } as const;
    db.insert(jobs)
      .values({ id: `by ${by}`, kind: 'recompute', about, by, ...ended })
      .run();
    return `by ${by}`;
  }

  /** All letters as received so far, newest last. */
  async letters(): Promise<
    readonly {
      to: string;
      subject: string;
      text: string;
      html: string;
      headers: readonly { name: string; value: string }[];
    }[]
  > {
    await this.running.lettersSent();
    return this.running.house.db.select().from(letters).orderBy(asc(letters.receivedAt), asc(letters.id)).all();
  }

  /** The code to sign in by in the newest letter to an address, once it was asked for. */
  async codeFor(address: string): Promise<string> {
    await this.askedForCode(address);
    const sent = (await this.letters()).filter(
      (each) => each.to.includes(address) && / is your code for /.test(each.subject),
    );
    return /^\d{6}/.exec(sent.at(-1)?.subject ?? '')?.[0] ?? '';
  }

  /** Asks for a code, and resolves when its letter was sent: the answer does not wait for it. */
  async askedForCode(address: string): Promise<void> {
    const sent = async () => (await this.letters()).filter(({ to }) => to.includes(address)).length;
    const before = await sent();
    await (await this.as()).call('askForCode', { body: { email: address } });
    for (let tries = 0; tries < 100 && (await sent()) === before; tries += 1)
      await new Promise((go) => setTimeout(go, 20));
  }

  /** A contact, signed in by a code. */
  async contact(address: string): Promise<Caller> {
    const response = await fetch(`${this.running.url}/api/sign-in/code`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: address, code: await this.codeFor(address) }),
    });
    const cookie = response.headers
      .getSetCookie()
      .map((each) => each.split(';')[0])
      .join('; ');
    if (!response.ok) throw new Error(`${address} could not sign in: ${response.status}`);
    return new Caller(this, address, cookie);
  }

  /** The token in the newest letter to an address, such as the one after `/decide/`. */
  async tokenFor(
    address: string,
    place: 'confirm' | 'follow' | 'decide' | 'welcome' | 'come-in' | 'accept' | 'go on' | 'fill in',
  ): Promise<string> {
    const query = place === 'go on' ? /\?kept=([\w-]+)/ : place === 'fill in' ? /\?owed=([\w-]+)/ : null;
    const way = query ?? new RegExp(`/${place}/([\\w-]+)`);
    const letter = (await this.letters()).filter((each) => each.to.includes(address) && way.test(each.text)).at(-1);
    const token = way.exec(letter?.text ?? '')?.[1];
    if (!token) throw new Error(`No ${place} link in a letter to ${address}.`);
    return token;
  }
}

/** A trip on a boat, as it is asked for; the vessel and the budget code are things of the demo. */
export const tripOf = (things: ReadonlyMap<string, string>, more: object = {}) => ({
  vessel: things.get('Skiff'),
  purpose: 'Tide gauge',
  leaves: '2026-12-03T09:00',
  returns: '2026-12-03T11:00',
  area: 'bay',
  persons: 2,
  sea_state: 10,
  budget: things.get('OC1200'),
  ...more,
});

/** Somebody who calls the desk. */
export class Caller {
  constructor(
    private readonly desk: Desk,
    readonly who: string,
    readonly cookie: string,
  ) {}

  /** The cookie of a device by which links know where they were opened, as browsers keep it. */
  private device = '';
  private deviceGiven(response: Response): string | undefined {
    const given = response.headers.getSetCookie().find((each) => each.startsWith('tolvek.device='));
    return given?.split(';', 1)[0];
  }

  /** Calls a route of the contract and holds its answer against the contract's schema. */
  async call(name: RouteName, input: CallInput = {}): Promise<Answer> {
    const route = routes[name] as Route;
    const path = route.path.replace(/:(\w+)/g, (_, key: string) => encodeURIComponent(input.params?.[key] ?? ''));
    const query = input.query ? `?${new URLSearchParams(input.query)}` : '';
    const hasBody = route.method !== 'GET';
    const response = await fetch(`${this.desk.running.url}${path}${query}`, {
      method: route.method,
      headers: {
        cookie: [this.cookie, this.device].filter(Boolean).join('; '),
        ...(hasBody ? { 'content-type': 'application/json' } : {}),
        ...input.headers,
      },
      ...(hasBody ? { body: typeof input.body === 'string' ? input.body : JSON.stringify(input.body ?? {}) } : {}),
    });
    this.device = this.deviceGiven(response) ?? this.device;
    const text = await response.text();
    // A file is its own answer.
    const isFile = response.ok && route.gives !== undefined && route.gives !== 'json';
    const body = isFile ? text : text ? JSON.parse(text) : null;
    // As a page says it to somebody who reads English.
    const answer: Answer = { route: name, who: this.who, status: response.status, text, body: english(body) };
    // A property too many, at any depth, would be dropped.
    if (response.ok)
      assert.deepStrictEqual(route.answer.parse(body), body, `${name} answers what its schema doesn’t say`);
    else if (!body?.type?.startsWith('urn:tolvek:problem:'))
      throw new Error(`${name} answered ${response.status} without a problem document: ${text}`);
    else assert.deepStrictEqual([name, ...faults(body, 'en')], [name]);
    this.desk.answers.push(answer);
    return answer;
  }

  /** Sends a request through a door with a key of its own. */
  submit(
    slug: string,
    answers: unknown,
    extra: { contact?: { name: string; email: string }; key?: string; release?: number; more?: object } = {},
  ): Promise<Answer> {
    return this.call('submit', {
      params: { slug },
      headers: { 'Idempotency-Key': extra.key ?? crypto.randomUUID() },
      body: {
        ...{ release: extra.release ?? 1, answers, ...extra.more },
        ...(extra.contact ? { contact: extra.contact } : {}),
      },
    });
  }

  /** What stands for the state of a request that is decided about. */
  async seen(number: string): Promise<string> {
    return (await this.sheet(number)).approval?.seen ?? 'nothing';
  }

  async sheet(number: string): Promise<Answer['body']> {
    return (await this.call('sheet', { params: { number } })).body;
  }
}

/** Answers to the site access form that are right on the demo's first day. */
export const VISIT = {
  visitor: 'Elke Marlowe',
  institute: 'corrin',
  reason: 'Calibration of the tide gauge',
  arrival: '2026-11-30',
  departure: '2026-12-01',
  works_on_water: false,
} as const;
export const WATER = { ...VISIT, works_on_water: true, survival_until: '2027-05-01' } as const;
