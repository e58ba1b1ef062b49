import { readLog, requests } from '@tolvek/server/schema';
import { asc, eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let oskar: Caller;
let numbers: readonly string[] = [];
const SECRET = 'Carries an adrenaline pen';
beforeAll(async () => {
  desk = await Desk.open();
  [maren, oskar] = [await desk.as('Maren Okafor'), await desk.as('Oskar Veldhuis')];
  for (const name of ['Priya Nakamura-Lind', 'Ilse Brandvold', 'Tomas Achterberg']) {
    const who = await desk.as(name);
    ok(await who.submit('come-on-site', { ...WATER, visitor: `Guest of ${name}`, medical_note: SECRET }));
    ok(await who.submit('come-on-site', { ...VISIT, visitor: `Other of ${name}` }));
  }
  numbers = desk.running.house.db
    .select({ number: requests.number })
    .from(requests)
    .where(eq(requests.registerId, desk.register('site-access').id))
    .orderBy(asc(requests.number))
    .all()
    .map(({ number }) => number);
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
type As = { readonly person: string } | { readonly groups: readonly string[] } | null;
const see = (by: Caller, number: string, as: As, more: object = {}): Promise<Answer> =>
  by.call('seeAs', { params: { number }, body: { as, plan: 'force', stage: null, ...more } });
const rows = () => desk.running.house.db.select().from(readLog).orderBy(asc(readLog.at), asc(readLog.id)).all();
interface Told {
  readonly key: string;
  readonly level: string;
  readonly shown: unknown;
  readonly isMasked: boolean;
  readonly rule: string;
}

test('a request is shown as each is given it, but for what is hidden from who looks', async () => {
  const counts = { sheet: 0, own: 0, nothing: 0, masked: 0, same: 0 };
  const people = ['Priya Nakamura-Lind', 'Ilse Brandvold', 'Tomas Achterberg', 'Oskar Veldhuis', 'Bram Solheim'];
  for (const number of numbers) {
    const mine = new Set((await maren.sheet(number)).values.fields.map(({ key }: { key: string }) => key));
    for (const name of people) {
      const who = await desk.as(name);
      const sheet = await who.call('sheet', { params: { number } });
      const own = await who.call('myRequest', { params: { number } });
      const given = sheet.status === 200 ? sheet : own.status === 200 ? own : null;
      const answer = await see(maren, number, { person: desk.idOf(name) });
      const told = ok(answer);
      const sees = sheet.status === 200 ? 'sheet' : own.status === 200 ? 'own' : 'nothing';
      expect([number, name, told.sees]).toEqual([number, name, sees]);
      counts[sees] += 1;
      expect(answer.text).not.toContain(SECRET);
      if (!given) {
        expect([told.fields, told.subject]).toEqual([[], null]);
        continue;
      }
      expect(told.subject).toBe(given.body.subject);
      const theirs = new Map<string, { shown: unknown; writable: boolean }>(
        given.body.values.fields.map((field: { key: string; shown: unknown; writable: boolean }) => [field.key, field]),
      );
      for (const { key, level, shown, isMasked } of told.fields as readonly Told[]) {
        const field = theirs.get(key);
        const level_ = field ? (field.writable ? 'write' : 'read') : 'hidden';
        expect([number, name, key, level]).toEqual([number, name, key, level_]);
        expect([key, isMasked]).toEqual([key, field !== undefined && !mine.has(key)]);
        expect([key, shown]).toEqual([key, field && mine.has(key) ? field.shown : '']);
        counts[isMasked ? 'masked' : 'same'] += 1;
      }
    }
  }
  console.log('requests seen as others:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(2);
});

test('by the draft, and at another stage, it is shown as it would be then', async () => {
  const of = { params: { key: 'site-access' } };
  const { version, inForce } = ok(await maren.call('accessPlan', of));
  const rule = {
    ...{ id: 'e', name: 'Escorts later', fields: ['escort'], level: 'hidden' },
    audience: { in: { anyOf: ['estates', 'site-safety'] }, outOf: [] },
    exceptions: [{ id: 'x', level: 'none', stages: ['done'] }],
  };
  ok(
    await maren.call('keepAccessPlan', {
      ...of,
      headers: { 'If-Match': `"${version}"` },
      body: { rules: [...inForce.rules, rule], resting: [] },
    }),
  );
  const number = numbers[0] as string;
  const level = async (more: object): Promise<string> => {
    const told = ok(await see(maren, number, { groups: ['site-safety'] }, more));
    const { level: found, rule: by } = told.fields.find(({ key }: Told) => key === 'escort');
    return `${told.stage}: ${found}${by === 'Escorts later' ? ' by the rule' : ''}`;
  };
  expect([
    await level({}),
    await level({ plan: 'draft' }),
    await level({ plan: 'draft', stage: 'done' }),
    await level({ stage: 'in_hand' }),
  ]).toEqual(
    ['To be decided: write', 'To be decided: hidden by the rule', 'Done: write', 'In hand: write'].map((each) =>
      expect.stringContaining(each.split(': ')[1] ?? ''),
    ),
  );
  expect((await see(maren, number, null, { stage: 'long-gone' })).status).toBe(422);
  ok(
    await maren.call('keepAccessPlan', {
      ...of,
      headers: { 'If-Match': `"${ok(await maren.call('accessPlan', of)).version}"` },
      body: { rules: inForce.rules, resting: [] },
    }),
  );
});

test('whoever may look is one who builds its forms and works on it, and that they looked is written down first', async () => {
  const number = numbers[0] as string;
  const before = rows().length;
  expect((await see(await desk.as('Bram Solheim'), number, null)).status).toBe(403);
  expect((await see(await desk.as('Priya Nakamura-Lind'), number, null)).status).toBe(403);
  expect((await see(maren, 'AC-99999', null)).status).toBe(404);
  expect((await see(maren, number, { person: 'nobody' })).status).toBe(404);
  expect((await see(maren, number, { groups: ['no-such-group'] })).status).toBe(404);
  expect(rows()).toHaveLength(before);
  ok(await see(maren, number, { person: desk.idOf('Tomas Achterberg') }, { plan: 'draft' }));
  expect(rows().at(-1)).toMatchObject({
    ...{ by: desk.idOf('Maren Okafor'), numbers: [number] },
    about: { kind: 'seen-as', as: { person: desk.idOf('Tomas Achterberg') }, plan: 'draft', stage: null },
  });
  const ada = await desk.as('Ada Quillfeather');
  const day = new Date(desk.running.house.clock.now()).toISOString().slice(0, 10);
  const { looks } = ok(await ada.call('rightsOnDay', { params: { day } }));
  expect(looks[0]).toMatchObject({ by: 'Maren Okafor', words: `Looked at ${number} as Tomas Achterberg` });
});

test('the reading of marked fields is written down once a page, by whichever way it is read, for staff who read it', async () => {
  const register = desk.register('site-access');
  desk.protect('site-access', { ...register.access, noted: ['medical_note', 'visitor'] });
  const told = async (by: Caller, work: () => Promise<unknown>): Promise<readonly unknown[]> => {
    const before = rows().length;
    await work();
    return rows()
      .slice(before)
      .map(({ by: who, about, numbers: of }) => [
        who === desk.idOf(by.who) ? by.who : who,
        about.kind === 'read' ? [...about.fields].sort().join() : about.kind,
        of.length,
      ]);
  };
  const withNote = numbers.filter((_, index) => index % 2 === 0);
  const first = withNote[0] as string;
  expect(await told(oskar, () => oskar.sheet(first))).toEqual([['Oskar Veldhuis', 'medical_note,visitor', 1]]);
  // Who may not read it is told nothing of it, so nothing is noted of it.
  expect(await told(maren, () => maren.sheet(first))).toEqual([['Maren Okafor', 'visitor', 1]]);
  const list = await told(oskar, () => oskar.call('ledger', { query: {} }));
  expect(list).toEqual([['Oskar Veldhuis', 'visitor', expect.any(Number)]]);
  const file = (by: Caller) =>
    fetch(`${desk.running.url}/api/forms/site-access/requests.csv?among=all`, { headers: { cookie: by.cookie } });
  expect(await told(maren, async () => (await file(maren)).text())).toEqual([
    ['Maren Okafor', 'visitor', numbers.length],
    ['Maren Okafor', 'taken-out', 0],
  ]);
  // Whoever asked reads what they sent.
  const priya = await desk.as('Priya Nakamura-Lind');
  expect(await told(priya, () => priya.call('myRequest', { params: { number: first } }))).toEqual([]);
  // Through the eyes of another it is who looks that reads, as far as they may.
  expect(await told(maren, () => see(maren, first, { person: desk.idOf('Oskar Veldhuis') }))).toEqual(
    expect.arrayContaining([
      ['Maren Okafor', 'seen-as', 1],
      ['Maren Okafor', 'visitor', 1],
    ]),
  );
  desk.protect('site-access', register.access);
  expect(await told(oskar, () => oskar.sheet(first))).toEqual([]);
});

test('in another edition it is shown as that lays it out, whoever is given which; nothing more is told', async () => {
  const of = { params: { key: 'site-access' } };
  const form = ok(await maren.call('form', of));
  const short = {
    ...{ id: 'short', name: 'Short', on: true, when: '', audience: { in: { anyOf: ['duty-managers'] }, outOf: [] } },
    differences: [
      { does: 'hide', part: 'reason' },
      { does: 'lock', part: 'visitor' },
    ],
  };
  const draft = { ...form.draft, editions: [short, ...(form.draft.editions ?? [])] };
  const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
  const { version } = ok(await maren.call('saveDraft', { ...of, headers: onVersion(form.version), body: { draft } }));
  const { number: release } = ok(
    await maren.call('releaseForm', { ...of, headers: onVersion(version), body: { note: '' } }),
  );
  const priya = await desk.as('Priya Nakamura-Lind');
  const { number } = ok(await priya.submit('come-on-site', { ...WATER, medical_note: SECRET }, { release }));
  const by = { groups: ['site-safety'] };
  const laid = ({ fields }: Answer['body']) =>
    (fields as readonly { readonly key: string; readonly layout: string | null }[]).flatMap(({ key, layout }) =>
      layout === null ? [] : [`${key} ${layout}`],
    );
  const given = ok(await see(maren, number, by));
  expect(given.editions).toContainEqual({ id: 'short', name: 'Short' });
  expect(laid(given)).not.toContain('reason left-out');
  const answer = await see(maren, number, by, { edition: 'short' });
  const told = ok(answer);
  expect([told.edition, laid(told).toSorted()]).toEqual(['Short', ['reason left-out', 'visitor locked']]);
  expect(answer.text).not.toContain(SECRET);
  // Whoever is given it can be shown the form as it is.
  const manager = { person: desk.idOf('Tomas Achterberg') };
  expect(ok(await see(maren, number, manager)).edition).toBe('Short');
  expect(ok(await see(maren, number, manager, { edition: null })).edition).toBe(null);
  const lost = await see(maren, number, by, { edition: 'long-gone' });
  expect([lost.status, lost.body.problems[0].field]).toEqual([422, 'edition']);
  expect(rows().at(-1)?.about).toMatchObject({ kind: 'seen-as', edition: null });
});
