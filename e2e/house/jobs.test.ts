import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { FormDesign } from '@tolvek/core/form';
import { designStates, designs, jobs, requests } from '@tolvek/server/schema';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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
    routing: { columns: [], rows: [], otherwise: { ...draft.routing.otherwise, needsApproval: false } },
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
const jobAs = async (who: Caller, id: string): Promise<Answer> => who.call('job', { params: { id } });

describe('long work', () => {
  it('is done beside everything else, and tells how far it has come to whoever began it', async () => {
    await made();
    const job = await release(2, true);
    await desk.running.jobsDone();
    expect(ok(await jobAs(maren, job))).toEqual({ state: 'done', looked: REQUESTS, of: REQUESTS, changed: REQUESTS });
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
