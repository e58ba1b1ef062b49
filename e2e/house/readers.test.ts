import { relationTo } from '@tolvek/core/access';
import { allRegisters, viewerOf } from '@tolvek/server';
import { people, readings, requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { IS_LONG } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

let desk: Desk;
let ada: Caller;
let maren: Caller;
beforeAll(async () => {
  desk = await Desk.open(130);
  [ada, maren] = [await desk.as('Ada Quillfeather'), await desk.as('Maren Okafor')];
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const of = { params: { key: 'site-access' } };
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
type Row = typeof requests.$inferSelect;

/** Readers of whole requests, each with its condition said a second time, by hand. */
const READERS: readonly {
  readonly id: string;
  readonly words: readonly string[];
  readonly when: string;
  readonly holds: (row: Row) => boolean;
  readonly who: (person: { groups: readonly string[]; name: string; site: unknown }) => boolean;
}[] = [
  {
    ...{ id: 'water', words: ['lab', 'outreach'], when: 'works_on_water' },
    holds: ({ values }) => values.works_on_water === true,
    who: ({ groups }) => groups.includes('lab') || groups.includes('outreach'),
  },
  {
    ...{ id: 'done', words: ['@Gunnar Peverell'], when: 'request.stage = "done"' },
    holds: ({ stage }) => stage === 'done',
    who: ({ name }) => name === 'Gunnar Peverell',
  },
  {
    id: 'corrin',
    words: ['?me.site = "field_house"'],
    when: 'institute = "corrin" and request.phase in ("arrived", "working")',
    holds: ({ values, phase }) => values.institute === 'corrin' && (phase === 'arrived' || phase === 'working'),
    who: ({ site }) => site === 'field_house',
  },
];
const WHO = [
  ...['Gunnar Peverell', 'Emeric Vantongeren', 'Bram Solheim', 'Priya Nakamura-Lind', 'Nuala Fenwick'],
  ...['Maren Okafor', 'Oskar Veldhuis', 'Yusuf Marchetti'],
];

async function put(by: Caller, readers: readonly object[]): Promise<Answer> {
  const now = ok(await by.call('accessPlan', of));
  const { readers: _, ...draft } = now.draft;
  const body = readers.length > 0 ? { ...draft, readers } : draft;
  const kept = ok(await by.call('keepAccessPlan', { ...of, headers: onVersion(now.version), body }));
  return by.call('putAccessPlan', {
    ...of,
    headers: onVersion(kept.version),
    body: { note: '', closesToMyself: false },
  });
}
const readers = () =>
  READERS.map(({ id, words, when }) => ({
    ...{ id, name: `They read ${id}`, when },
    audience: {
      in: { anyOf: words.map((word) => (word.startsWith('@') ? `@${desk.idOf(word.slice(1))}` : word)) },
      outOf: [],
    },
  }));

async function listed(who: Caller, tray: string): Promise<readonly string[]> {
  const numbers: string[] = [];
  let after = '';
  do {
    const body = ok(await who.call('ledger', { query: { tray, ...(after ? { after } : {}) } }));
    numbers.push(...body.rows.map((row: { number: string }) => row.number));
    after = body.next ?? '';
    if (!after) expect([who.who, tray, numbers.length]).toEqual([who.who, tray, body.total]);
  } while (after);
  return numbers;
}

let looks = 0;
/** Everybody is given exactly what they work on, and what a reader lets them read: in lists, in counts and by number. */
async function allAsSaid(isOn: boolean): Promise<{ along: number; worked: number }> {
  const { db, clock } = desk.running.house;
  const registers = new Map(allRegisters(db).map((register) => [register.id, register]));
  const counts = { along: 0, worked: 0 };
  looks += 1;
  for (const [place, name] of WHO.entries()) {
    // Every second of them, each time the others, but for in the longer runs.
    if (!IS_LONG && (place + looks) % 2 > 0) continue;
    const who = await desk.as(name);
    const person = db
      .select()
      .from(people)
      .where(eq(people.id, desk.idOf(name)))
      .get();
    const viewer = viewerOf(db, desk.idOf(name));
    if (!viewer || !person) throw new Error(`${name} is not here.`);
    const mine = READERS.filter(({ who: is }) => is({ name, groups: viewer.groups, site: person.profile.site }));
    const expected = new Map<string, { readonly how: 'worked' | 'along'; readonly at: number }>();
    const late: string[] = [];
    for (const row of db.select().from(requests).all()) {
      const register = registers.get(row.registerId);
      const parties = {
        ...{ ...row, register: row.registerId, deciders: row.deciders?.split(' ') ?? [] },
        deskGroups: register?.deskGroups ?? [],
        followers: [],
      };
      const along = isOn && register?.key === 'site-access' && mine.some(({ holds }) => holds(row));
      if (relationTo(parties, viewer).isDesk) expected.set(row.number, { how: 'worked', at: row.createdAt });
      else if (along && !row.trial) expected.set(row.number, { how: 'along', at: row.createdAt });
      const isWaiting = row.phase === 'arrived' || row.phase === 'working';
      if (expected.has(row.number) && isWaiting && (row.due ?? Number.POSITIVE_INFINITY) < clock.now())
        late.push(row.number);
    }
    const newestFirst = await listed(who, 'all');
    const all = [...newestFirst, ...(await listed(who, 'things'))];
    const moments = newestFirst.map((number) => expected.get(number)?.at ?? 0);
    expect([name, moments]).toEqual([name, moments.toSorted((a, b) => b - a)]);
    expect([name, [...all].sort()]).toEqual([name, [...expected.keys()].sort()]);
    expect([name, [...(await listed(who, 'late'))].sort()]).toEqual([name, late.sort()]);
    const { trays } = ok(await who.call('trays'));
    for (const { key, count } of trays as { key: string; count: number }[])
      expect([name, key, count]).toEqual([name, key, (await listed(who, key)).length]);
    for (const [number, { how }] of [...expected].filter((_, at) => at % 9 === 0 || isOn)) {
      if (how === 'worked' && counts.worked > 60) continue;
      counts[how] += 1;
      const sheet = ok(await who.call('sheet', { params: { number } }));
      // Who reads by what stands there changes nothing.
      if (how === 'along')
        expect((sheet.values.fields as { writable: boolean }[]).some(({ writable }) => writable)).toBe(false);
    }
    const others = db
      .select({ number: requests.number })
      .from(requests)
      .all()
      .filter(({ number }) => !expected.has(number))
      .slice(0, 5);
    for (const { number } of others) expect((await who.call('sheet', { params: { number } })).status).toBe(404);
  }
  return counts;
}

test('whole requests are read by what stands in them: in lists, counts and by number, as they change, and in no other way', async () => {
  const before = await allAsSaid(false);
  expect(before.along).toBe(0);
  // Whoever does not read all of them lets nobody read them.
  const params = { subject: `@${desk.idOf('Ilse Brandvold')}` };
  ok(await ada.call('changeRights', { params, body: { give: ['configure'], take: [], register: 'site-access' } }));
  const refused = await put(await desk.as('Ilse Brandvold'), readers());
  expect([refused.status, refused.text]).toEqual([403, expect.stringContaining('whole requests')]);
  const effect = ok(await maren.call('accessPlanEffect', of));
  const gained = (
    effect.people as { name: string; fields: { before: string; after: string; requests: number }[] }[]
  ).find(({ name }) => name === 'Gunnar Peverell');
  expect([gained?.fields[0]?.before, gained?.fields[0]?.after]).toEqual(['hidden', 'read']);
  expect(effect.mayNotOpen).toEqual([]);
  ok(await put(maren, readers()));
  const on = await allAsSaid(true);
  expect(on.along).toBeGreaterThan(20);
  const plan = ok(await ada.call('accessPlan', of));
  const stored = desk.running.house.db.select().from(readings).all();
  expect(Object.values(plan.reached as Record<string, number>).reduce((sum, n) => sum + n, 0)).toBe(stored.length);

  // What is asked anew, changed, moved and deleted is read by whom it says then.
  const priya = await desk.as('Priya Nakamura-Lind');
  const fresh = ok(await priya.submit('come-on-site', { ...VISIT, institute: 'corrin' })).number;
  const gone = ok(await priya.submit('come-on-site', { ...VISIT, institute: 'corrin' })).number;
  const moved = desk.running.house.db
    .select()
    .from(requests)
    .where(eq(requests.stage, 'in_hand'))
    .all()
    .filter(({ registerId }) => registerId === desk.register('site-access').id);
  for (const { number } of moved.slice(0, 3)) {
    const { version } = ok(await ada.call('sheet', { params: { number } }));
    ok(await ada.call('moveStage', { params: { number }, headers: onVersion(version), body: { stage: 'done' } }));
  }
  const { version } = ok(await ada.call('sheet', { params: { number: fresh } }));
  ok(
    await ada.call('changeFields', {
      params: { number: fresh },
      headers: onVersion(version),
      body: { changes: { institute: 'haldane' } },
    }),
  );
  const last = ok(await ada.call('sheet', { params: { number: gone } }));
  ok(
    await ada.call('deleteRequest', {
      params: { number: gone },
      headers: onVersion(last.version),
      body: { reason: 'Sent twice' },
    }),
  );
  await allAsSaid(true);
  // A condition that asks for what is hidden from some, or that the clock changes, is put in force by nobody.
  for (const when of ['medical_note != null', 'today > date("2026-01-01")', 'request.due < now', 'nothing = 1']) {
    const [first] = readers();
    expect([when, (await put(ada, [{ ...first, when }])).status]).toEqual([when, 422]);
  }
  const found = ok(await ada.call('personReads', { ...of, query: { person: desk.idOf('Gunnar Peverell') } }));
  const reason = (found.fields as { field: string; levels: { level: string; requests: number }[] }[]).find(
    ({ field }) => field === 'reason',
  );
  const gunnars = (await listed(await desk.as('Gunnar Peverell'), 'all')).filter((number) => number.startsWith('AC-'));
  expect(reason?.levels.reduce((sum, { level, requests: n }) => sum + (level === 'hidden' ? 0 : n), 0)).toBe(
    gunnars.length,
  );
  ok(await put(ada, []));
  const off = await allAsSaid(false);
  console.log('read by what stands there:', { before, on, off });
  expect(desk.running.house.db.select().from(readings).all()).toEqual([]);
}, 120_000);
