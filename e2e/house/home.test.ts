import { people } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, WATER } from './desk.ts';

// The one home of whoever asks and whoever decides: what can be asked under headings, and what waits for them.
let desk: Desk;
let maren: Caller;
let tomas: Caller;
const GERMAN = { 'Accept-Language': 'de' };
const of = { params: { key: 'site-access' } };
const home = async (who: Caller, headers = {}): Promise<Answer['body']> => ok(await who.call('frontDesk', { headers }));
const topicOf = (view: Answer['body'], of: string) =>
  view.forms.find((form: { slug: string; title: string }) => form.slug === of || form.title === of)?.topic;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, tomas] = [await desk.as('Maren Okafor'), await desk.as('Tomas Achterberg')];
});
afterAll(() => desk.close());

it('has forms under the headings of their releases, in the language of whoever reads', async () => {
  const stranger = await desk.as();
  const [english, german] = [await home(stranger), await home(stranger, GERMAN)];
  expect([topicOf(english, 'visit'), topicOf(german, 'visit'), topicOf(english, 'Concern report')]).toEqual([
    ...['Visits', 'Besuche', ''],
  ]);
  // Another heading is read once it is released, and none stands in the design where none is given.
  const { draft, version } = ok(await maren.call('form', of));
  const changed = { ...draft, topic: ' Coming here ' };
  const saved = ok(await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: changed } }));
  expect(saved.changes.map(({ at }: { at: string }) => at)).toEqual(['topic']);
  expect(topicOf(await home(stranger), 'visit')).toBe('Visits');
  ok(await maren.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }));
  expect(topicOf(await home(stranger), 'visit')).toBe('Coming here');
  // What was translated from the words of before is not read any more.
  expect(topicOf(await home(stranger, GERMAN), 'visit')).toBe('Coming here');
  const listed = ok(await maren.call('forms')).forms.find(({ key }: { key: string }) => key === 'site-access');
  expect(listed.topic).toBe(' Coming here ');
});

it('lists what waits for a decision to whoever decides, the earliest first, and to nobody else', async () => {
  const priya = await desk.as('Priya Nakamura-Lind');
  const { number: release } = ok(await maren.call('form', of)).releases[0];
  const before = (await home(tomas)).toDecide;
  const sent: string[] = [];
  for (let n = 0; n < 7; n += 1) {
    const answers = { ...WATER, visitor: `Guest ${n}` };
    sent.push(ok(await priya.submit('come-on-site', answers, { release })).number);
  }
  const { rows, total } = (await home(tomas)).toDecide;
  const deciding = ok(await tomas.call('ledger', { query: { tray: 'deciding' } }));
  expect([total, rows.length]).toEqual([before.total + 7, 5]);
  expect(rows.map(({ number }: { number: string }) => number)).toEqual(
    deciding.rows.slice(0, 5).map(({ number }: { number: string }) => number),
  );
  expect(rows.every(({ late, due }: { late: boolean; due: string }) => !late && due > '2026')).toBe(true);
  // What is decided waits no more, for whoever could have decided it.
  const number = rows[0].number as string;
  const { approval } = await tomas.sheet(number);
  const body = { verdict: 'approve', comment: '', seen: approval.seen };
  const headers = { 'Idempotency-Key': crypto.randomUUID() };
  ok(await tomas.call('decide', { params: { number }, headers, body }));
  const after = (await home(tomas)).toDecide;
  expect([after.total, after.rows.some((row: { number: string }) => row.number === number)]).toEqual([
    total - 1,
    false,
  ]);
  const { db } = desk.running.house;
  const [maud] = db.select({ email: people.email }).from(people).where(eq(people.name, 'Maud Ferriter')).all();
  for (const who of [priya, await desk.as(), await desk.contact(maud?.email ?? '')])
    expect((await home(who)).toDecide).toEqual({ rows: [], total: 0 });
});
