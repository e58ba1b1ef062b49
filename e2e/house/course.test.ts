import { withStepsOf } from '@tolvek/core/approval';
import { type DeadlineRule, finishRule } from '@tolvek/core/deadline';
import type { FormDesign } from '@tolvek/core/form';
import { prepareAhead } from '@tolvek/core/intake';
import { requestScope } from '@tolvek/core/register';
import { deadlines, requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

// Issue 17, “Course”: the life that is drawn is the one that a request has.
let desk: Desk;
let [maren, priya]: readonly Caller[] = [];
const HOUR = 3_600_000;
const of = { params: { key: 'site-access' } };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind')];
});
afterAll(() => desk.close());

/** Time passes until a moment, epoch ms, and a little more. */
async function until(moment: number): Promise<void> {
  const minutes = Math.ceil((moment - desk.running.house.clock.now()) / 60_000) + 1;
  ok(await (maren as Caller).call('advanceClock', { body: { minutes } }));
}

it('is the life of a request: its steps, its stages, what it is due by and when that is over', async () => {
  const form = ok(await (maren as Caller).call('form', of));
  const before = form.draft as FormDesign;
  const deciding = desk.register('site-access').stages.find(({ role }) => role === 'deciding')?.key ?? '';
  const limits = [5 * HOUR, 11 * HOUR];
  const path = withStepsOf(before.approval, (step) => ({ ...step, limit: { within: 5 * HOUR, silence: 'agree' } }))
    .paths[0];
  const steps = limits.map((within, n) => ({
    ...{ ...path?.steps[0], id: `step-${n}`, label: `Step ${n}`, limit: { within, remind: HOUR, silence: 'agree' } },
  }));
  const decided: DeadlineRule = {
    ...{ ...finishRule(HOUR, HOUR), key: 'decided', name: 'Decided', length: { by: 'time', time: 12 * HOUR } },
    ...{ begins: { on: 'stages', stages: [deciding] }, ends: { on: 'left' } },
  };
  const otherwise = { ...before.routing.otherwise, path: 'path', workingDays: 6 };
  const draft = {
    ...before,
    approval: { paths: [{ ...path, steps }] },
    deadline: { ...before.deadline, deadlines: [...before.deadline.deadlines, decided] },
    routing: { columns: [], rows: [], otherwise },
  };
  const saved = ok(
    await (maren as Caller).call('saveDraft', { ...of, headers: onVersion(form.version), body: { draft } }),
  );
  const { number: release } = ok(
    await (maren as Caller).call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }),
  );
  const { number } = ok(await (priya as Caller).submit('come-on-site', VISIT, { release }));
  const { db } = desk.running.house;
  const request = () => {
    const found = db.select().from(requests).where(eq(requests.number, number)).get();
    if (!found) throw new Error(`${number} is gone`);
    return found;
  };

  const { hours, stages } = ok(await (maren as Caller).call('form', of));
  const ahead = prepareAhead(
    draft as FormDesign,
    requestScope(before.fields),
  )({
    ...{ at: request().createdAt, outcome: otherwise, stages, values: request().values, slots: [] },
    calendar: (key) => hours.find((each: { key: string }) => each.key === key),
  });
  expect(ahead.others).toEqual([]);
  for (const [n, step] of ahead.steps.entries()) {
    const { approval } = await (maren as Caller).sheet(number);
    expect(request().stage).toBe(ahead.stages[0]?.key);
    // The clock is moved by whole minutes, so that each step begins up to two later than it could.
    const late = Date.parse(approval.steps[n].until) - (step.until ?? 0);
    expect(late >= 0 && late <= n * 150_000).toBe(true);
    await until(step.ends);
  }
  expect(request().stage).toBe(ahead.stages[1]?.key);
  const rows = db.select().from(deadlines).where(eq(deadlines.requestId, request().id)).all();
  expect(new Map(rows.map(({ key, due, state }) => [key, [due, state]]))).toEqual(
    new Map(ahead.deadlines.map(({ rule, due, over }) => [rule.key, [due, over === null ? 'open' : 'over']])),
  );
  const decidedAt = rows.find(({ key }) => key === 'decided')?.endedAt ?? 0;
  expect(Math.abs(decidedAt - (ahead.deadlines.find(({ rule }) => rule.key === 'decided')?.over ?? 0))).toBeLessThan(
    5 * 60_000,
  );
  // And what was still to come while it was decided is what the sheet tells of it.
  const sheet = await (maren as Caller).sheet(number);
  const finish = ahead.deadlines.find(({ rule }) => rule.key === 'finish');
  const told = sheet.deadlines.find(({ key }: { key: string }) => key === 'finish');
  expect(told.rings.map(({ at }: { at: string }) => Date.parse(at))).toEqual(finish?.rings.map(({ at }) => at));

  // Drawn as it was: the stages it came to, when each step was decided, what was due and when that was over.
  const course = ok(await (maren as Caller).call('requestCourse', { params: { number } }));
  const labels = new Map(stages.map(({ key, label }: { key: string; label: string }) => [key, label]));
  expect(course.stages.map(({ label }: { label: string }) => label)).toEqual(
    ahead.stages.slice(0, 2).map(({ key }) => labels.get(key)),
  );
  for (const [n, { ends }] of ahead.steps.entries())
    expect(Math.abs(Date.parse(course.steps[n].ended) - ends)).toBeLessThan(5 * 60_000);
  const drawn = new Map<string, { due: string; ended: string | null; late: boolean }>(
    course.deadlines.map((each: { key: string }) => [each.key, each]),
  );
  expect(drawn.get('decided')).toMatchObject({ ended: new Date(decidedAt).toISOString(), late: true });
  expect(drawn.get('finish')).toMatchObject({
    due: new Date(finish?.due ?? 0).toISOString(),
    ended: null,
    late: false,
  });
  expect(Date.parse(course.to)).toBe(Math.max(finish?.due ?? 0, ...(finish?.rings ?? []).map(({ at }) => at)));
  // Whoever does not work on it is drawn nothing.
  expect((await (priya as Caller).call('requestCourse', { params: { number } })).status).toBe(404);
});

it('is told to whoever asked in the public words: a line for each that they read, then what is planned', async () => {
  const asker = priya as Caller;
  const release = ok(await asker.call('door', { params: { slug: 'purchase' } })).form.release;
  const lines = [{ what: 'Rope', count: '2', price: '12.50', vat: 'full' }];
  const answers = { purpose: 'For the pier', budget: 'MB2041', lines };
  const { number } = ok(await asker.submit('purchase', answers, { release }));
  const own = async () => ok(await asker.call('myRequest', { params: { number } }));
  const seen: { at: string; what: string }[] = [];
  const look = async (): Promise<void> => {
    const { course, stage, finished } = await own();
    const reached = course.filter(({ state }: { state: string }) => state !== 'ahead');
    const { at, what, state } = reached.at(-1);
    // Where it is now is what stands at the top of the page.
    expect([what, state]).toEqual([stage, finished ? 'past' : 'now']);
    if (seen.at(-1)?.what !== what) seen.push({ at, what });
    expect(reached.map((each: { at: string; what: string }) => ({ at: each.at, what: each.what }))).toEqual(seen);
    const times = course.map((each: { at: string }) => Date.parse(each.at));
    expect(times).toEqual(times.toSorted((a: number, b: number) => a - b));
  };
  await look();
  const finish = (await (maren as Caller).sheet(number)).deadlines[0].due;
  expect((await own()).course.at(-1)).toEqual({ at: finish, what: 'Finished', state: 'ahead' });
  const move = async (stage: string): Promise<void> => {
    await until(desk.running.house.clock.now() + HOUR / 2);
    const { version } = await (maren as Caller).sheet(number);
    const moved = { params: { number }, headers: onVersion(version), body: { stage } };
    ok(await (maren as Caller).call('moveStage', moved));
    await look();
  };
  const stages = desk.register('purchase').stages;
  await move('in_hand');
  await move(stages.find(({ phase }) => phase === 'paused')?.key ?? '');
  // While it stands still, nothing is promised.
  expect((await own()).course.filter(({ state }: { state: string }) => state === 'ahead')).toEqual([]);
  await move('in_hand');
  await move('done');
  expect((await own()).course.every(({ state }: { state: string }) => state === 'past')).toBe(true);
  expect(seen.length).toBeGreaterThan(3);
});
