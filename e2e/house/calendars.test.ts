import { CALENDAR, type WorkingCalendar, wallClockAt } from '@tolvek/core/deadline';
import { deadlines, requests, timers } from '@tolvek/server/schema';
import { momentIn } from '@tolvek/words/speech';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, STORM, VISIT } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  priya = await desk.as('Priya Nakamura-Lind');
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
type Hours = Omit<WorkingCalendar, 'key'>;
const hours = async (): Promise<{ version: number; calendar: Hours; states: { note: string; calendar: Hours }[] }> =>
  ok(await maren.call('calendar', { params: { key: 'desk' } }));
const put = async (calendar: Hours, version: number, note = 'A storm is coming') =>
  maren.call('changeCalendar', {
    params: { key: 'desk' },
    headers: { 'If-Match': `"${version}"` },
    body: { calendar, note },
  });
const attempt = async (calendar: Hours) => maren.call('tryCalendar', { params: { key: 'desk' }, body: { calendar } });
const withoutKey = ({ key: _, ...calendar }: WorkingCalendar): Hours => calendar;
const dueOf = (number: string): number | null | undefined =>
  desk.running.house.db.select({ due: requests.due }).from(requests).where(eq(requests.number, number)).get()?.due;

describe('a working calendar', () => {
  it('moves what is open, with a line in each history; it is said before, done in one write, and taken back', async () => {
    const { number } = ok(await priya.submit('come-on-site', VISIT));
    const { number: finished } = ok(await priya.submit('come-on-site', VISIT));
    ok(
      await maren.call('moveStage', {
        params: { number: finished },
        headers: { 'If-Match': `"${(await maren.sheet(finished)).version}"` },
        body: { stage: 'done' },
      }),
    );
    const before = await hours();
    const dues = [dueOf(number), dueOf(finished)];
    const said = ok(await attempt(STORM));
    expect(said).toMatchObject({ moved: 1, late: 0, inTime: 0, requests: [{ number }] });
    expect([dueOf(number), (await hours()).version]).toEqual([dues[0], before.version]);

    expect(ok(await put(STORM, before.version)).moved).toBe(1);
    expect(new Date(dueOf(number) ?? 0).toISOString()).toBe(said.requests[0].to);
    expect(dueOf(finished)).toBe(dues[1]);
    const { db } = desk.running.house;
    const [promise] = db
      .select()
      .from(deadlines)
      .innerJoin(requests, eq(requests.id, deadlines.requestId))
      .where(eq(requests.number, number))
      .all();
    expect(promise?.deadlines.due).toBe(dueOf(number));
    const ringing = db
      .select()
      .from(timers)
      .where(and(eq(timers.deadlineId, promise?.deadlines.id ?? ''), eq(timers.state, 'waiting')))
      .all();
    expect(ringing.map(({ at }) => at > (dues[0] ?? 0))).toContain(true);
    const { history, deadlines: told } = await maren.sheet(number);
    expect(history.at(-1)).toMatchObject({
      who: 'Maren Okafor',
      what: expect.stringMatching(/^Due date: .+ → .+, because the calendar “Desk hours” changed$/),
    });
    expect(history.at(-1).what).toContain(momentIn('en', 'moment', told[0].due, 'Europe/Dublin'));
    expect((await put(STORM, before.version)).status).toBe(412);

    const now = await hours();
    expect(now.states.map(({ note }) => note)).toEqual(['A storm is coming', '']);
    expect(ok(await put(withoutKey(before.calendar as WorkingCalendar), now.version, 'It passed by')).moved).toBe(1);
    expect(dueOf(number)).toBe(dues[0]);
  });

  it('says what becomes late by shorter hours and what is late no more by longer ones', async () => {
    const { number } = ok(await priya.submit('come-on-site', VISIT));
    const due = dueOf(number) ?? 0;
    const now = Date.parse((await maren.call('me', {})).body.desk.now ?? '') || desk.running.house.clock.now();
    ok(await maren.call('advanceClock', { body: { minutes: Math.ceil((due - now) / 60_000) + 60 } }));
    const { inTime, late, moved } = ok(await attempt(STORM));
    expect([moved > 0, inTime > 0, late]).toEqual([true, true, 0]);
  });

  it('says how many reminders would go out at once, and holds them back if that is wanted', async () => {
    const { house } = desk.running;
    const ask = async () => ok(await priya.submit('come-on-site', VISIT)).number as string;
    const reminders = async (number: string): Promise<number> =>
      (await desk.letters()).filter(({ subject }) => subject.includes(number) && /remind|due/i.test(subject)).length;
    const [held, told] = [await ask(), await ask()];
    const before = await hours();
    const due = dueOf(held) ?? 0;
    // Five hours before it is due nobody is reminded yet; when the desk closes early on that day, they would have been.
    await maren.call('advanceClock', { body: { minutes: Math.floor((due - house.clock.now()) / 60_000) - 5 * 60 } });
    const date = new Date(due).toISOString().slice(0, 10);
    const closes = wallClockAt(due - 2 * 3_600_000, 'Europe/Dublin').slice(11);
    const early = (first: string): Hours => ({
      ...withoutKey(before.calendar as WorkingCalendar),
      holidays: [...before.calendar.holidays, { date, name: first, hours: [['08:00', closes]] }],
    });
    const said = ok(await attempt(early('Early')));
    expect([said.moved >= 2, said.rings]).toEqual([true, said.moved]);
    const counts = [await reminders(held), await reminders(told)];
    const body = { calendar: early('Early'), note: '', hold: true };
    const params = { key: 'desk' };
    ok(await maren.call('changeCalendar', { params, headers: { 'If-Match': `"${before.version}"` }, body }));
    ok(await maren.call('advanceClock', { body: { minutes: 1 } }));
    await desk.running.lettersSent();
    expect([await reminders(held), await reminders(told)]).toEqual(counts);
    // Taken back and done again without holding, they are not told a second time: what was held counts as told.
    const now = await hours();
    ok(await put(withoutKey(before.calendar as WorkingCalendar), now.version, ''));
    ok(await put(early('Early'), (await hours()).version, ''));
    ok(await maren.call('advanceClock', { body: { minutes: 1 } }));
    await desk.running.lettersSent();
    expect([await reminders(held), await reminders(told)]).toEqual(counts);
  });

  it('is retired when nothing counts by it, and offered nowhere then', async () => {
    const spare = { calendar: { ...STORM, name: 'Spare' } };
    const key = { 'Idempotency-Key': crypto.randomUUID() };
    const { key: made } = ok(await maren.call('createCalendar', { headers: key, body: spare }));
    const retire = (calendar: string, version: number, hours_: Hours) =>
      maren.call('changeCalendar', {
        params: { key: calendar },
        headers: { 'If-Match': `"${version}"` },
        body: { calendar: { ...hours_, retired: true }, note: '' },
      });
    const { version } = ok(await maren.call('calendar', { params: { key: made } }));
    ok(await retire(made, version, spare.calendar));
    const { calendars } = ok(await maren.call('ground'));
    expect(calendars.map(({ key: of }: { key: string }) => of)).not.toContain(made);
    const desks = await hours();
    const refused = await retire('desk', desks.version, withoutKey(desks.calendar as WorkingCalendar));
    expect([refused.status, refused.body.problems[0].field]).toEqual([422, 'retired']);
  });

  it('is refused where nothing could be counted by it, with the place', async () => {
    const { calendar, version } = await hours();
    const never = { ...withoutKey(calendar as WorkingCalendar), week: [[], [], [], [], [], [], []] } as Hours;
    const zone = { ...withoutKey(calendar as WorkingCalendar), zone: 'Mars' };
    for (const answer of [await attempt(never), await put(never, version)])
      expect([answer.status, answer.body.problems[0].field]).toEqual([422, 'week']);
    expect((await put(zone, version)).body.problems[0].field).toBe('zone');
    expect((await attempt({ ...zone, holidays: [{ date: 'soon', name: '' }] })).body.problems).toHaveLength(2);
    expect(CALENDAR.findings({ ...calendar, key: 'desk' } as WorkingCalendar, null)).toEqual([]);
    expect((await priya.call('calendar', { params: { key: 'desk' } })).status).toBe(403);
    expect((await maren.call('calendar', { params: { key: 'none' } })).status).toBe(404);
  });
});
