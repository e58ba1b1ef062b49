import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { FormDesign } from '@tolvek/core/form';
import { designStates, designs, jobs, requests } from '@tolvek/server/schema';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { takeInLater } from '../../server/src/intake/takeInRows.ts';
import { type Answer, type Caller, Desk } from './desk.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-jobs-'));
let desk: Desk;
let maren: Caller;

async function open(): Promise<void> {
  desk = await Desk.open(0, folder);
  maren = await desk.as('Maren Okafor');
}
beforeAll(open);
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const db = () => desk.running.house.db;
/** Of today: what is past keeping is taken away at any time. */
const now = () => desk.running.house.clock.now();
const FORM = 'tallies';
const REQUESTS = 40;
const factor = (times: number) => `how_many * ${times}`;

/** A form whose sum is computed, with requests that have it. */
async function made(): Promise<void> {
  const { draft } = ok(await maren.call('form', { params: { key: 'site-access' } })) as { draft: FormDesign };
  const fresh: FormDesign = {
    ...draft,
    ...{ title: 'Tallies', subject: '{how_many}', unique: [], rules: [] },
    fields: [
      { key: 'how_many', label: 'How many', type: { kind: 'number', places: 0 }, source: 'asked' },
      { key: 'sum', label: 'Sum', type: { kind: 'number', places: 0 }, source: 'computed', formula: factor(1) },
    ],
    parts: [{ part: 'question', field: 'how_many', asks: '', help: '', required: true }],
    routing: { columns: [], rows: [], otherwise: { ...draft.routing.otherwise, path: null } },
  };
  const body = { prefix: 'TA', desk: 'boats', doors: { staff: true, outside: false }, draft: fresh };
  ok(await maren.call('createForm', { headers: { 'Idempotency-Key': crypto.randomUUID() }, body }));
  await release(1);
  for (let n = 1; n <= REQUESTS; n += 1) ok(await maren.submit(FORM, { how_many: String(n) }));
}

/** Releases the form with another factor; gives the work of computing anew where that is wanted. */
async function release(times: number, recompute = false): Promise<string> {
  const params = { key: FORM };
  const { draft, version } = ok(await maren.call('form', { params })) as { draft: FormDesign; version: number };
  const headers = (of: number) => ({ 'If-Match': `"${of}"` });
  const changed = {
    ...draft,
    fields: draft.fields.map((field) => (field.source === 'computed' ? { ...field, formula: factor(times) } : field)),
  };
  const saved = ok(await maren.call('saveDraft', { params, headers: headers(version), body: { draft: changed } }));
  const body = { note: '', recompute };
  return ok(await maren.call('releaseForm', { params, headers: headers(saved.version), body })).job;
}

/** How many requests have which factor by now. */
function factors(): Readonly<Record<number, number>> {
  const found: Record<number, number> = {};
  for (const { values } of db().select().from(requests).all())
    if (values.sum !== undefined) {
      const times = Number(values.sum) / Number(values.how_many);
      found[times] = (found[times] ?? 0) + 1;
    }
  return found;
}
/** The id of the release in force. */
const newest = (): string =>
  db()
    .select({ id: designStates.id })
    .from(designs)
    .innerJoin(designStates, and(eq(designStates.designId, designs.id), eq(designStates.number, designs.number)))
    .where(and(eq(designs.kind, 'form'), eq(designs.key, FORM)))
    .get()?.id ?? '';
const formId = (): string =>
  db()
    .select()
    .from(designs)
    .where(and(eq(designs.kind, 'form'), eq(designs.key, FORM)))
    .get()?.id ?? '';
const jobAs = async (who: Caller, id: string): Promise<Answer> => who.call('job', { params: { id } });

describe('long work', () => {
  it('is done beside everything else, and tells how far it has come to whoever began it', async () => {
    await made();
    const job = await release(2, true);
    await desk.running.jobsDone();
    expect(ok(await jobAs(maren, job))).toEqual({
      ...{ state: 'done', looked: REQUESTS, of: REQUESTS, changed: REQUESTS, rows: null },
    });
    expect(factors()).toEqual({ 2: REQUESTS });
    const ada = await desk.as('Ada Quillfeather');
    expect([(await jobAs(ada, job)).status, (await jobAs(await desk.as('Ilse Brandvold'), job)).status]).toEqual([
      ...[404, 403],
    ]);
    // What has ended is not stopped any more.
    ok(await maren.call('stopJob', { params: { id: job } }));
    expect(ok(await jobAs(maren, job)).state).toBe('done');
  });

  it('is stopped where it is: what it did stays done, the rest as it was', async () => {
    const job = await release(3, true);
    ok(await maren.call('stopJob', { params: { id: job } }));
    await desk.running.jobsDone();
    const { state, looked } = ok(await jobAs(maren, job));
    expect([state, looked < REQUESTS]).toEqual(['stopped', true]);
    const { 2: left = 0, 3: done = 0 } = factors();
    expect([left + done, done]).toEqual([REQUESTS, looked]);
    // The next work finds the rest.
    await release(4, true);
    await desk.running.jobsDone();
    expect(factors()).toEqual({ 4: REQUESTS });
  });

  it('reaches by the release it was said with, also when another one is in force by then', async () => {
    const first = await release(7, true);
    const { wakeJobs } = desk.running.house;
    // The next release leaves what is there alone, before the work of the first has come to its end.
    await release(8);
    wakeJobs();
    await desk.running.jobsDone();
    expect(ok(await jobAs(maren, first)).state).toBe('done');
    expect(factors()).toEqual({ 7: REQUESTS });
  });

  it('goes on after a restart, with what was found before', async () => {
    await release(5);
    const by = db().select({ by: jobs.by }).from(jobs).limit(1).get()?.by ?? '';
    // As a kill in the middle leaves it: under way, and some of it done.
    const about = { form: FORM, release: newest() };
    db()
      .insert(jobs)
      .values({
        id: 'killed',
        kind: 'recompute',
        about,
        by,
        state: 'running',
        of: REQUESTS,
        result: { changed: 7 },
        createdAt: now(),
      })
      .run();
    await desk.running.stop();
    await open();
    await desk.running.jobsDone();
    expect(ok(await jobAs(maren, 'killed'))).toMatchObject({ state: 'done', looked: REQUESTS, changed: REQUESTS + 7 });
    expect(factors()).toEqual({ 5: REQUESTS });
  });

  it('that nobody can do fails, and holds up no other', async () => {
    const by = db().select({ by: jobs.by }).from(jobs).where(eq(jobs.id, 'killed')).get()?.by ?? '';
    db()
      .insert(jobs)
      .values([
        { id: 'odd', kind: 'odd', about: {}, by, state: 'waiting', of: null, createdAt: now() },
        {
          id: 'after',
          kind: 'recompute',
          about: { form: FORM, release: newest() },
          by,
          state: 'waiting',
          of: 0,
          createdAt: 1,
        },
      ])
      .run();
    desk.running.house.wakeJobs();
    await desk.running.jobsDone();
    expect([ok(await jobAs(maren, 'odd')).state, ok(await jobAs(maren, 'after')).state]).toEqual(['failed', 'done']);
  });
});

describe('rows of a sheet', () => {
  const rowsOf = (from: number, to: number) =>
    Array.from({ length: to - from + 1 }, (_, place) => ({ cells: { how_many: String(from + place) }, requester: '' }));
  const send = async (rows: ReturnType<typeof rowsOf>, apply: boolean): Promise<Answer['body']> =>
    ok(
      await maren.call('takeInRows', {
        ...{ params: { key: FORM }, headers: { 'Idempotency-Key': crypto.randomUUID() }, body: { rows, apply } },
      }),
    );
  const count = () => db().select({ id: requests.id }).from(requests).all().length;
  const numbers = (rows: readonly { number: string | null }[]) => rows.flatMap(({ number }) => number ?? []);

  it('come in beside everything else, as the dry run said', async () => {
    const rows = [...rowsOf(1, 300), { cells: { how_many: 'many' }, requester: '' }, ...rowsOf(301, 499)];
    const before = count();
    const said = await send(rows, false);
    expect([said.good, said.bad, said.job, count()]).toEqual([499, 1, null, before]);
    const { house } = desk.running;
    const person = ok(await maren.call('me')).person;
    const viewer = house.viewerOf(person.id);
    if (!viewer) throw new Error('Maren is not there.');
    const job = takeInLater(house, viewer, FORM, rows, crypto.randomUUID());
    // Whoever asks meanwhile is answered.
    const seen = new Set<string>();
    for (let state = ''; state !== 'done'; seen.add(state)) ({ state } = ok(await jobAs(maren, job)));
    expect([...seen]).toEqual(expect.arrayContaining(['running', 'done']));
    const done = ok(await jobAs(maren, job));
    expect(done).toMatchObject({ looked: 500, of: 500, changed: 499, rows: said.rows });
    expect(count()).toBe(before + 499);
  });

  it('go on after a restart behind those that came in, and are stopped where they are', async () => {
    const by = db().select({ by: jobs.by }).from(jobs).limit(1).get()?.by ?? '';
    const rows = rowsOf(1, 30);
    const told = rows.slice(0, 8).map((_, place) => ({ number: `TA-9000${place}`, problems: [] }));
    const before = count();
    const job = { id: 'rows', kind: 'rows', about: { release: newest(), rows }, by, of: 30, createdAt: now() };
    db()
      .insert(jobs)
      .values({ ...job, state: 'running', result: { rows: told } })
      .run();
    await desk.running.stop();
    await open();
    await desk.running.jobsDone();
    const done = ok(await jobAs(maren, 'rows'));
    expect([done.state, done.looked, count() - before]).toEqual(['done', 30, 22]);
    expect(numbers(done.rows).slice(0, 8)).toEqual(told.map(({ number }) => number));
    expect(new Set(numbers(done.rows)).size).toBe(30);

    const viewer = desk.running.house.viewerOf(by);
    if (!viewer) throw new Error('Maren is not there.');
    const going = takeInLater(desk.running.house, viewer, FORM, rowsOf(1, 400), crypto.randomUUID());
    ok(await maren.call('stopJob', { params: { id: going } }));
    await desk.running.jobsDone();
    const stopped = ok(await jobAs(maren, going));
    expect([stopped.state, stopped.rows.length]).toEqual(['stopped', stopped.looked]);
    expect(count() - before - 22).toBe(stopped.looked);
  });
});

describe('a rule over the requests that are there', () => {
  it('leaves those that somebody changed since, does nothing twice after a restart, and is taken back', async () => {
    const by = db().select({ by: jobs.by }).from(jobs).limit(1).get()?.by ?? '';
    const [first, second] = db().select().from(requests).where(eq(requests.formId, formId())).all().slice(0, 2);
    if (!first || !second) throw new Error('There are no requests.');
    const held = (id: string) => db().select().from(requests).where(eq(requests.id, id)).get()?.values.how_many;
    const set = { do: 'set', field: 'how_many', value: '4711' } as const;
    const rule = {
      id: 'many',
      name: 'Many',
      says: '',
      when: 'true',
      then: [set],
      otherwise: [],
      on: true,
      runs: 'saving',
    };
    const todo = [
      { id: first.id, version: first.version },
      { id: second.id, version: second.version - 1 },
    ];
    const about = { run: 'run-1', form: FORM, rule, parts: [], todo };
    const add = (id: string) =>
      db().insert(jobs).values({ id, kind: 'rule', about, by, state: 'running', of: 2, createdAt: now() }).run();
    for (const id of ['once', 'again']) {
      add(id);
      desk.running.house.wakeJobs();
      await desk.running.jobsDone();
    }
    expect([ok(await jobAs(maren, 'once')).changed, ok(await jobAs(maren, 'again')).changed]).toEqual([1, 0]);
    expect([held(first.id), held(second.id)]).toEqual([4711, second.values.how_many]);
    const back = await maren.call('takeRunBack', { params: { key: FORM, run: 'run-1' } });
    expect(ok(back)).toEqual({ back: 1, left: 0, job: null });
    expect(held(first.id)).toBe(first.values.how_many);
    expect((await maren.call('takeRunBack', { params: { key: FORM, run: 'run-1' } })).status).toBe(409);
  });
});
