import { type Route, routes } from '@tolvek/contract';
import type { AccessRule, Activity } from '@tolvek/core/access';
import type { Field, MoverRelation } from '@tolvek/core/register';
import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { slowLevel } from '../../core/laws/anyPlan.ts';
import { IS_LONG } from '../../core/laws/often.ts';
import { type Caller, Desk, WATER } from './desk.ts';

/** Fields whose text is told apart from any other, and may be anything. */
const PLANTED = ['visitor', 'reason', 'medical_note', 'escort'] as const;
const needle = (field: string, number: string): string => `planted-${field}-${number}`;

const everyone = { in: { everyone: true as const }, outOf: [] };
const rule = (id: string, more: Partial<AccessRule>): AccessRule => ({
  ...{ id, name: `Rule ${id}`, fields: ['escort'], level: 'hidden', audience: everyone },
  ...more,
});
const DECIDED = 'request.decision in ("approved", "refused")';
const GRACE = 'now < request.arrived + duration("PT30M")';
/** A plan in which something hangs on everything that a rule can hang on. */
const rules: readonly AccessRule[] = [
  rule('medical', {
    fields: ['medical_note'],
    audience: { ...everyone, outOf: ['site-safety', '~decider'], requester: 'out' },
    exceptions: [{ id: 'a', level: 'read', stages: ['papers'] }],
  }),
  rule('deciders', {
    fields: ['medical_note'],
    audience: { in: { anyOf: ['~decider'] }, outOf: [] },
    level: 'read',
    exceptions: [{ id: 'b', level: 'hidden', when: DECIDED }],
  }),
  rule('escort', {
    audience: { in: { anyOf: ['boats', '~handler'] }, outOf: [] },
    exceptions: [{ id: 'c', level: 'read', stages: ['in_hand', 'done'] }],
  }),
  rule('visitor', {
    fields: ['visitor'],
    audience: { in: { anyOf: ['estates'] }, outOf: [], requester: 'out' },
    level: 'read',
    exceptions: [
      { id: 'd', level: 'hidden', activities: ['taking-out', 'browsing'] },
      { id: 'e', level: 'hidden', stages: ['done'] },
    ],
  }),
  rule('reason', { fields: ['reason'], level: 'read', exceptions: [{ id: 'f', level: 'none', when: GRACE }] }),
  rule('past', { fields: 'all', until: '2020-01-01' }),
  rule('once', { fields: ['reason'], level: 'hidden', from: '2099-01-01' }),
];

let desk: Desk;
const WHO = [
  ...['Maren Okafor', 'Ada Quillfeather', 'Priya Nakamura-Lind', 'Oskar Veldhuis', 'Ilse Brandvold'],
  ...['Tomas Achterberg', 'Bram Solheim', 'Edda Kilbride', 'Nuala Fenwick', 'Yusuf Marchetti'],
];
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());

/** Every route that is read, with what its address asks for, as far as requests and their register name it. */
function addressesFor(number: string): readonly (readonly [route: string, path: string])[] {
  const known: Readonly<Record<string, string>> = {
    number,
    key: 'site-access',
    slug: 'come-on-site',
    field: 'visitor',
  };
  return (Object.entries(routes) as [string, Route][]).flatMap(([name, route]) => {
    if (route.method !== 'GET' || route.gives === 'events') return [];
    const wants = [...route.path.matchAll(/:(\w+)/g)].map(([, param = '']) => param);
    if (wants.some((param) => known[param] === undefined)) return [];
    const path = route.path.replace(/:(\w+)/g, (_, param: string) => known[param] as string);
    if (name === 'ledger')
      return ['all', 'mine', 'deciding', 'team'].map((tray) => [name, `${path}?tray=${tray}`] as const);
    if (name === 'fieldReaders' || name === 'fieldReach') return [[name, `${path}?field=escort`] as const];
    return [[name, name === 'takeOut' ? `${path}?among=all` : path] as const];
  });
}

/** Who somebody is to a request, read off its row and theirs. */
function lookOf(name: string, number: string, stage: string, holding: readonly string[]) {
  const { db } = desk.running.house;
  const row = db.select().from(requests).where(eq(requests.number, number)).get();
  const id = desk.idOf(name);
  const groups = desk.running.house.viewerOf(id)?.groups ?? [];
  const held = new Set([...groups, `@${id}`]);
  const as: MoverRelation[] = [
    ...(row?.handlerId === id ? (['handler'] as const) : []),
    ...(row?.team && held.has(row.team) ? (['team'] as const) : []),
    ...((row?.deciders ?? '').split(' ').some((word) => held.has(word)) ? (['decider'] as const) : []),
  ];
  const look = { personId: id, groups, as, stage, day: '2026-11-23', holding };
  return { look, isRequester: row?.requesterId === id };
}

test('what is planted in each field is in no answer to anybody whom the plan hides it from, at any stage, by any route', async () => {
  const { db, clock } = desk.running.house;
  const register = desk.register('site-access');
  const ilse = desk.idOf('Ilse Brandvold');
  const priya = await desk.as('Priya Nakamura-Lind');
  const made: string[] = [];
  for (let n = 0; n < 3; n += 1) {
    const answers = { ...WATER, visitor: `Planted ${n}`, reason: 'x', medical_note: 'x' };
    made.push((await priya.submit('come-on-site', answers)).body.number);
  }
  const planted = (number: string): void => {
    const row = db.select().from(requests).where(eq(requests.number, number)).get();
    const values = { ...row?.values, ...Object.fromEntries(PLANTED.map((field) => [field, needle(field, number)])) };
    db.update(requests).set({ values }).where(eq(requests.number, number)).run();
  };
  desk.protect('site-access', { rules });
  const callers = new Map<string, Caller>(
    await Promise.all(WHO.map(async (name) => [name, await desk.as(name)] as const)),
  );
  const counts = { answers: 0, told: 0, hidden: 0, refused: 0, looks: 0, routes: 0 };
  const heard = new Set<string>();
  const [fresh = '', old = '', decided = ''] = made;
  // One is older than its time of grace, one is decided.
  db.update(requests)
    .set({ createdAt: clock.now() - 3_600_000, handlerId: ilse })
    .where(eq(requests.number, old))
    .run();
  const tomas = callers.get('Tomas Achterberg') as Caller;
  const sheet = await tomas.sheet(decided);
  const verdict = { verdict: 'approve', comment: '', seen: sheet.approval.seen };
  expect(
    (
      await tomas.call('decide', {
        params: { number: decided },
        headers: { 'Idempotency-Key': 'decided-once' },
        body: verdict,
      })
    ).status,
  ).toBe(200);
  for (const number of made) planted(number);
  const of = new Map<string, string>();
  const told = async (caller: Caller, path: string): Promise<{ readonly status: number; readonly text: string }> => {
    const answer = await fetch(`${desk.running.url}${path}`, { headers: { cookie: caller.cookie } });
    counts.answers += 1;
    return { status: answer.status, text: await answer.text() };
  };
  // Otherwise at those that the rules speak of, and at one that none does.
  const stages = register.stages.filter(
    ({ key }) => IS_LONG || ['deciding', 'in_hand', 'papers', 'done'].includes(key),
  );
  // What is refused whatever request it is about is asked once by each, but for in the longer runs.
  const closed = new Set<string>();
  for (const { key: stage, phase } of stages) {
    for (const number of made) db.update(requests).set({ stage, phase }).where(eq(requests.number, number)).run();
    for (const [place, [name, caller]] of [...callers].entries()) {
      // Everybody at every second stage, and each stage by every second of them, but for in the longer runs.
      if (!IS_LONG && (place + stages.findIndex(({ key }) => key === stage)) % 2 > 0) continue;
      of.clear();
      const answers = new Map<string, Awaited<ReturnType<typeof told>>>();
      for (const number of made)
        for (const [route, path] of addressesFor(number)) {
          of.set(path, route);
          if (answers.has(path) || closed.has(`${name} ${path}`)) continue;
          const answer = await told(caller, path);
          answers.set(path, answer);
          if (!IS_LONG && answer.status !== 200 && !path.includes(number)) closed.add(`${name} ${path}`);
        }
      for (const number of made) {
        const { look, isRequester } = lookOf(name, number, stage, [
          ...(number === decided ? [DECIDED] : []),
          ...(number === fresh ? [GRACE] : []),
        ]);
        const onSheet = answers.get(`/api/requests/${number}`)?.status === 200;
        const reads = (key: string, activity: Activity, isDesk: boolean): boolean => {
          const field = register.fields.find((each) => each.key === key) as Field;
          return slowLevel(rules, field, { ...look, isDesk, isRequester, activity }) !== 'hidden';
        };
        for (const [path, { status, text }] of answers) {
          const route = of.get(path) ?? '';
          if (status !== 200) counts.refused += 1;
          else heard.add(route);
          // What is decided alike is about the others, each as on its sheet; what could be merged, as lists call it.
          const isDecidedAlike = route === 'decisionsAlike';
          const isAlike = isDecidedAlike || route === 'requestMergePlan';
          const isAbout = !path.includes('AC-') || path.includes(number) !== isAlike;
          const isWorking = route === 'sheet' || isDecidedAlike;
          const activity = route === 'takeOut' ? 'taking-out' : isWorking ? 'working' : 'browsing';
          for (const key of PLANTED) {
            const isOwnPage = route === 'myRequest' || route === 'mine' || route === 'frontDesk';
            // The Front desk lists what waits for somebody’s decision, as lists call it.
            const decides = route === 'frontDesk' && onSheet && look.as.includes('decider');
            const may = isOwnPage
              ? (isRequester && reads(key, 'working', false)) || (decides && reads(key, 'browsing', true))
              : onSheet && isAbout && reads(key, activity, true);
            const isTold = text.includes(needle(key, number));
            expect([stage, number, name, route, key, isTold && !may]).toEqual([stage, number, name, route, key, false]);
            // Where it is read, it is there: on the sheet, and on the page of whoever asked.
            if (path.includes(number) && ((route === 'sheet' && onSheet) || (route === 'myRequest' && status === 200)))
              expect([stage, number, name, route, key, isTold]).toEqual([stage, number, name, route, key, may]);
            counts[isTold ? 'told' : 'hidden'] += 1;
          }
        }
        counts.looks += 1;
      }
    }
  }
  counts.routes = heard.size;
  console.log('planted in each field, looked for by', WHO.length, 'people at', stages.length, 'stages:', counts);
  expect(counts.routes).toBeGreaterThan(25);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(20);
  // Letters hold only what the plan hides from nobody of the desk, at any stage.
  const letters = JSON.stringify(await desk.letters());
  expect(PLANTED.filter((key) => made.some((number) => letters.includes(needle(key, number))))).toEqual([]);
}, 300_000);
