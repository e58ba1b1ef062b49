import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  addressOf,
  CONTACTS,
  DEMO_NOW,
  demoConfig,
  MADE_UP,
  SCHOOLS,
  STAFF,
  schoolVisit,
  seed,
  seeded,
  visit,
} from '@tolvek/demo';
import {
  assign,
  comment,
  confirmSubmission,
  decide,
  type House,
  hashOf,
  moveStage,
  nextTimerAt,
  runDueTimers,
  start,
  submit,
  tokenOf,
  unpack,
  viewerOf,
} from '@tolvek/server';
import { people, requests, seats, waitingSubmissions } from '@tolvek/server/schema';
import Sqlite from 'better-sqlite3';
import { and, desc, eq, lte } from 'drizzle-orm';
import { afterAll, expect, test } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { Sender } from '../../server/src/notice/send.ts';
import { Generator, ID, unlike } from './generator.ts';
import { mailServer } from './mailServer.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-generator-'));
/** What is asked, as often: `TOLVEK_RUNS` says how often else. */
const ASKED = Number(process.env.TOLVEK_RUNS ?? often(275));
const DAY = 86_400_000;
/** A Monday; nothing that is promised from here on for half a year meets a holiday or another clock time. */
const BEGIN = Date.parse('2026-04-06T07:00:00Z');
/** So many days later the same is asked once more: the same days of the week. */
const LATER = 49;

/** The same asked and done whenever it is played: what is refused to it once is refused to it again. */
class Played {
  private moment = 0;
  private readonly house: House;
  private readonly sender: Sender;
  private readonly random = seeded(5);
  private readonly arrived: string[] = [];
  private readonly ids: ReadonlyMap<string, string>;

  constructor(
    house: House,
    smtp: string,
    private readonly days: number,
  ) {
    this.house = { ...house, clock: { now: () => this.moment }, wakeOutbox: () => {}, wakeJobs: () => {} };
    this.sender = new Sender(this.house, smtp);
    this.ids = new Map(
      this.house.db
        .select({ id: people.id, name: people.name })
        .from(people)
        .all()
        .map(({ id, name }) => [name, id]),
    );
  }

  async all(): Promise<void> {
    for (let place = 0; place < ASKED; place += 1) {
      // In the hours of the desk, three minutes apart.
      const at = BEGIN + this.days * DAY + Math.floor(place / 160) * DAY + (place % 160) * 180_000;
      await this.goOnTo(at);
      this.ask(place);
      this.workOn(place);
      // Letters go a while after what they tell of.
      if (place % 16 === 15) await this.post();
    }
    await this.goOnTo(BEGIN + (this.days + 30) * DAY);
    await this.post();
    await this.sender.close();
  }

  private async post(): Promise<void> {
    this.sender.wake();
    await this.sender.idle();
  }

  private async goOnTo(moment: number): Promise<void> {
    for (let due = nextTimerAt(this.house.db); due !== null && due <= moment; due = nextTimerAt(this.house.db)) {
      this.moment = Math.max(this.moment, due);
      await runDueTimers(this.house);
    }
    this.moment = moment;
  }

  private viewer(name: string) {
    const viewer = viewerOf(this.house.db, this.ids.get(name) ?? '');
    if (!viewer) throw new Error(`Nobody is called ${name}.`);
    return viewer;
  }

  private ask(place: number): void {
    const day = Math.floor(this.moment / DAY);
    const asking = { random: this.random, day, thing: (called: string) => this.thing(called) };
    const key = `played-${this.days}-${place}`;
    const forms = [...MADE_UP.map(({ form }) => form), 'come-on-site', 'visit', 'school-visit'];
    const form = forms[place % forms.length] ?? '';
    const made = MADE_UP.find((each) => each.form === form);
    try {
      if (made) {
        const who = made.by[place % made.by.length] ?? '';
        submit(this.house, this.viewer(who), { slug: form, release: 1, answers: made.answers(asking), key });
      } else if (form === 'come-on-site') {
        const answers = visit(this.random, day, 'corrin');
        submit(this.house, this.viewer('Priya Nakamura-Lind'), { slug: form, release: 1, answers, key });
      } else {
        const contact = CONTACTS.filter((each) => each.active !== false)[place % 3];
        const school = SCHOOLS[Math.floor(place / forms.length) % SCHOOLS.length] ?? '';
        // No two may name the same school.
        const named = this.days === 0 ? school : unlike(school, 1);
        const answers = form === 'visit' ? visit(this.random, day, 'corrin') : schoolVisit(asking, named);
        const email = addressOf(contact?.name ?? '', contact?.at ?? '');
        submit(this.house, null, {
          slug: form,
          release: 1,
          answers,
          contact: { name: contact?.name ?? '', email },
          key,
        });
        const waiting = this.house.db.select().from(waitingSubmissions).get();
        if (waiting) confirmSubmission(this.house, waiting.id);
      }
    } catch (error) {
      if (!(error as { problems?: readonly unknown[] }).problems) throw error;
      return;
    }
    // The things the desk keeps came later than what is played.
    const newest = this.house.db
      .select()
      .from(requests)
      .where(lte(requests.createdAt, this.moment))
      .orderBy(desc(requests.createdAt))
      .get();
    if (newest) this.arrived.push(newest.number);
  }

  private thing(called: string): string {
    const found = this.house.db
      .select({ id: requests.id, values: requests.values })
      .from(requests)
      .where(eq(requests.stage, 'in_use'))
      .all()
      .find(({ values }) => [values.name, values.tag, values.code].includes(called));
    if (!found) throw new Error(`Nothing is called ${called}.`);
    return found.id;
  }

  /** What becomes of those that came a while before, each by its place. */
  private workOn(place: number): void {
    const at = (back: number) => {
      const number = this.arrived.at(-back);
      return number === undefined ? undefined : this.request(number);
    };
    const decided = at(12);
    if (decided?.stage === 'deciding' && place % 7 !== 0) this.decide(decided.number, place % 5 === 0);
    const taken = at(24);
    if (taken?.stage === 'arrived' && place % 6 !== 0) this.take(taken.number);
    const inHand = at(36);
    if (inHand?.stage === 'in_hand') {
      const handler = this.viewerOf(inHand.handlerId);
      comment(this.house, handler, { number: inHand.number, text: `About ${inHand.number}.`, visibility: 'requester' });
      const stage = place % 2 === 0 ? this.paused(inHand.number) : 'done';
      moveStage(this.house, handler, { number: inHand.number, version: this.request(inHand.number).version, stage });
    }
    const waits = at(60);
    if (waits?.phase === 'paused' && place % 4 !== 0)
      moveStage(this.house, this.viewerOf(waits.handlerId), {
        ...{ number: waits.number, version: waits.version, stage: 'in_hand' },
      });
  }

  private paused = (number: string): string => (number.startsWith('AC') ? 'papers' : 'waiting');
  private viewerOf = (id: string | null) => this.viewer([...this.ids].find(([, each]) => each === id)?.[0] ?? '');

  private request(number: string) {
    const found = this.house.db.select().from(requests).where(eq(requests.number, number)).get();
    if (!found) throw new Error(`No ${number}.`);
    return found;
  }

  private decide(number: string, isRefused: boolean): void {
    const { id } = this.request(number);
    const seat = this.house.db
      .select()
      .from(seats)
      .where(and(eq(seats.requestId, id), eq(seats.state, 'open')))
      .get();
    const name = STAFF.find((person) => person.groups.includes(seat?.holder ?? ''))?.name ?? '';
    const verdict = isRefused ? 'refuse' : 'approve';
    decide(this.house, this.viewer(name), {
      ...{ number, verdict, comment: isRefused ? 'Not in that week.' : '', seen: null, key: `${number}-${verdict}` },
    });
  }

  private take(number: string): void {
    const { version, team } = this.request(number);
    const name = STAFF.find((person) => person.groups.includes(team ?? ''))?.name ?? '';
    const viewer = this.viewer(name);
    const taken = assign(this.house, viewer, { number, version, person: viewer.personId });
    moveStage(this.house, viewer, { number, version: taken.version, stage: 'in_hand' });
  }
}

const TABLES: Readonly<Record<string, string>> = {
  requests: 'id = :id',
  history: 'request_id = :id',
  deadlines: 'request_id = :id',
  timers: 'request_id = :id',
  approval_rounds: 'request_id = :id',
  approval_steps: 'round_id in (select id from approval_rounds where request_id = :id)',
  seats: 'request_id = :id',
  links: 'target_id = :id or target_id in (select id from seats where request_id = :id)',
  notices: 'request_id = :id',
  claims: 'request_id = :id',
  pointers: 'request_id = :id',
};

/** Tables of rows whose ids say in which order they came. */
const BY_ID = new Set(Object.keys(TABLES).filter((table) => table !== 'claims' && table !== 'pointers'));

/** Words of a letter without the days it names: those that were said stay as they were said. */
const undated = (said: unknown): unknown =>
  JSON.parse(
    JSON.stringify(said).replace(/(?:[A-Z][a-z]+,? )?\d{1,2} [A-Z][a-z]+(?: \d{4})?(?:, \d\d:\d\d)?/g, 'a day'),
  );

/** All that stands in a database of the requests that came since a moment, with their ids as they come. */
function told(path: string, secret: string, since: number) {
  const db = new Sqlite(path);
  const rows: Record<string, number> = {};
  const all = (
    db
      .prepare('select id, number from requests where created_at between ? and ? order by created_at')
      .all(since, since + 60 * DAY) as {
      id: string;
      number: string;
    }[]
  ).map(({ id, number }) => {
    const held = Object.entries(TABLES).map(([table, where]) => {
      const found = db
        .prepare(`select * from ${table} where ${where} order by ${BY_ID.has(table) ? 'id' : 'rowid'}`)
        .all({ id }) as Record<string, unknown>[];
      rows[table] = (rows[table] ?? 0) + found.length;
      // Which email something went in with others is one of its reader, and of no request.
      for (const row of found) if (row.in_id) row.in_id = 'with others';
      for (const row of found)
        if (row.said !== undefined)
          Object.assign(row, { said: row.said && undated(unpack(row.said as Buffer)), subject: undated(row.subject) });
        else if (row.token_hash !== undefined) {
          expect(row.token_hash).toBe(hashOf(tokenOf(secret, row.id as string)));
          row.token_hash = '';
        }
      return [table, found] as const;
    });
    const own = new Map(
      held.flatMap(([, found]) => found.map((row) => row.id as string)).map((each, place) => [each, `#${place}`]),
    );
    return [number, JSON.stringify(held).replace(ID, (each) => own.get(each) ?? each)] as const;
  });
  const stages = Object.fromEntries(
    (
      db
        .prepare('select stage, count(*) as n from requests where created_at between ? and ? group by stage')
        .all(since, since + 60 * DAY) as {
        stage: string;
        n: number;
      }[]
    ).map(({ stage, n }) => [stage, n]),
  );
  const counts = ['tallies', 'dues', 'counters', 'registers'].map((table) =>
    JSON.stringify((db.prepare(`select * from ${table}`).all() as object[]).map((row) => JSON.stringify(row)).sort()),
  );
  db.close();
  return { requests: new Map(all), rows, stages, counts };
}

const mail = await mailServer();

afterAll(async () => {
  await new Promise<void>((done) => mail.server.close(() => done()));
  rmSync(folder, { recursive: true, force: true });
});

test('what is written in bulk is what the application writes, but for ids', async () => {
  const data = join(folder, 'data');
  const [bulk, played] = [join(folder, 'bulk.sqlite'), join(folder, 'played.sqlite')];
  const copyTo = ({ db }: House, path: string) => db.$client.prepare('vacuum into ?').run(path);
  // Before anything runs by itself: only what is played happens.
  const seeding = async (house: House): Promise<void> => {
    await seed(house, 0);
    house.db.$client.pragma('synchronous = OFF');
    await new Played(house, mail.url, 0).all();
    copyTo(house, bulk);
    await new Played(house, mail.url, LATER).all();
    copyTo(house, played);
  };
  const config = demoConfig({ TOLVEK_DATA: data, PORT: '0', TOLVEK_LOG: 'error' });
  await (await start(config, { demoNow: DEMO_NOW, seed: seeding })).stop();

  const secret = readFileSync(join(data, 'secret'), 'utf8').trim();
  const since = BEGIN + LATER * DAY - 60_000;
  const generator = new Generator(bulk, secret, `created_at < ${since}`, ASKED);
  const copied = generator.copy({ round: 1, days: LATER });
  generator.close();
  const [theirs, ours] = [told(played, secret, since), told(bulk, secret, since)];
  console.log(`${copied} requests in bulk`, ours.rows, ours.stages);
  expect(copied).toBeGreaterThan(ASKED * 0.8);
  for (const [table, n] of Object.entries(ours.rows)) expect(n, `rows of ${table}`).toBeGreaterThan(0);
  for (const stage of ['arrived', 'deciding', 'in_hand', 'waiting', 'papers', 'done', 'refused'])
    expect(ours.stages[stage], `requests at ${stage}`).toBeGreaterThan(0);
  expect([...ours.requests.keys()]).toEqual([...theirs.requests.keys()]);
  for (const [number, rows] of ours.requests)
    expect(JSON.parse(rows), number).toEqual(JSON.parse(theirs.requests.get(number) ?? ''));
  expect(ours.counts).toEqual(theirs.counts);
});
