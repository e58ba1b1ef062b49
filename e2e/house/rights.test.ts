import { type Route, type RouteName, routes } from '@tolvek/contract';
import { FOR_EVERYONE, RIGHTS, type Right } from '@tolvek/core/people';
import { people } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk, VISIT, WATER } from './desk.ts';

let desk: Desk;
let ada: Caller;
let declan: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  [ada, declan] = [await desk.as('Ada Quillfeather'), await desk.as('Declan Oyelaran')];
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const idOf = (name: string): string =>
  desk.running.house.db.select({ id: people.id }).from(people).where(eq(people.name, name)).get()?.id ?? '';
const settle = async (subject: string, rights: readonly Right[], by = ada): Promise<Answer> =>
  by.call('changeRights', {
    params: { subject },
    body: { give: rights, take: RIGHTS.filter((right) => !rights.includes(right)) },
  });

/** Rights as they are given by three ways: to everyone, to a group, and to the person. */
const given = fc.record({
  everyone: fc.subarray([...RIGHTS].filter((right) => right !== 'rights')),
  group: fc.subarray([...RIGHTS]),
  person: fc.subarray([...RIGHTS]),
});

/** Whether a route lets somebody in who has some rights, as its head says: told from the document alone. */
function lets({ right }: Pick<Route, 'right'>, has: ReadonlySet<string>): boolean {
  if (right === undefined) return true;
  if (right === 'work') return ['configure', 'groundwork', 'people', 'rights', 'audit'].some((each) => has.has(each));
  if (right === 'build') return has.has('configure');
  return right === 'export' ? ['own', 'team', 'all'].some((reach) => has.has(`export:${reach}`)) : has.has(right);
}

const give = (...rights: readonly Right[]) => ({ give: rights, take: [] });
const take = (...rights: readonly Right[]) => ({ give: [], take: rights });

describe('what somebody may do', () => {
  it('is what the routes allow, for whatever is given by whichever way: every route, random grants', async () => {
    const seen = { open: 0, closed: 0 };
    const out = { params: { key: 'outreach' }, headers: { 'Idempotency-Key': 'declan-out' } };
    ok(await ada.call('enterGroup', { ...out, body: { person: idOf('Declan Oyelaran'), from: null, until: null } }));
    const asking = (Object.values(routes) as readonly Route[]).filter(({ caller }) => caller === 'staff');
    await fc.assert(
      fc.asyncProperty(given, async ({ everyone, group, person }) => {
        ok(await settle('*', everyone));
        ok(await settle('outreach', group));
        ok(await settle(`@${idOf('Declan Oyelaran')}`, person));
        const has = new Set<string>([...everyone, ...group, ...person]);
        expect(new Set(ok(await declan.call('me')).person.rights)).toEqual(has);
        for (const route of asking) {
          const sent = route.method === 'GET' ? {} : { headers: { 'content-type': 'application/json' }, body: '{}' };
          const stop = new AbortController();
          const answer = await fetch(`${desk.running.url}${route.path.replace(/:\w+/g, 'nothing')}`, {
            ...{ method: route.method, signal: stop.signal, ...sent },
            headers: { ...sent.headers, cookie: declan.cookie },
          });
          const isJson = answer.headers.get('content-type')?.includes('json') ?? false;
          const body = isJson ? ((await answer.json()) as { said?: { happened?: { say?: string } } }) : {};
          stop.abort();
          const isClosed = body.said?.happened?.say === 'refusals:rightMissing.happened';
          expect([route.name, route.right ?? '', isClosed]).toEqual([route.name, route.right ?? '', !lets(route, has)]);
          seen[isClosed ? 'closed' : 'open'] += 1;
        }
      }),
      { numRuns: often(10), examples: [[{ everyone: [], group: [], person: [] }]] },
    );
    console.log('routes and random grants:', seen);
    expect(Math.min(seen.open, seen.closed)).toBeGreaterThan(100);
  }, 240_000);

  it('is what happens to requests: of one’s team, of another’s, and what is one’s own; at the desk and by register', async () => {
    ok(await settle('*', FOR_EVERYONE));
    const enter = { params: { key: 'estates' }, headers: { 'Idempotency-Key': 'declan-in' } };
    ok(await ada.call('enterGroup', { ...enter, body: { person: idOf('Declan Oyelaran'), from: null, until: null } }));
    const priya = await desk.as('Priya Nakamura-Lind');
    const asked = async (answers: typeof VISIT | typeof WATER) =>
      ok(await priya.submit('come-on-site', answers)).number as string;
    const ours = await asked(VISIT);
    const theirs = await asked(WATER);
    const mine = await asked(VISIT);
    const teamOf = async (number: string) => ok(await ada.call('sheet', { params: { number } })).team;
    expect([await teamOf(ours), await teamOf(theirs)]).toEqual(['Estates', 'Boats']);
    const handled = { params: { number: mine }, headers: { 'If-Match': '"1"' } };
    ok(await ada.call('assign', { ...handled, body: { person: idOf('Declan Oyelaran') } }));
    // What is theirs is not of their team any more.
    const leave = ok(await ada.call('sheet', { params: { number: mine } }));
    const moved = { params: { number: mine }, headers: { 'If-Match': `"${leave.version}"` } };
    ok(await ada.call('reroute', { ...moved, body: { team: 'boats', priority: 'normal' } }));
    const now = ok(await ada.call('sheet', { params: { number: mine } }));
    if (now.handler === null) {
      // Whoever is not in the new team lets go of it: it is given to them as one of that team for a moment.
      const into = { params: { key: 'boats' }, headers: { 'Idempotency-Key': 'declan-boats' } };
      const body = { person: idOf('Declan Oyelaran'), from: null, until: null };
      const { id: entry } = ok(await ada.call('enterGroup', { ...into, body }));
      const given = { params: { number: mine }, headers: { 'If-Match': `"${now.version}"` } };
      ok(await ada.call('assign', { ...given, body: { person: idOf('Declan Oyelaran') } }));
      ok(await ada.call('leaveGroup', { params: { key: 'boats', entry } }));
    }
    const acts: readonly (readonly [string, RouteName, object])[] = [
      ['change', 'changeFields', { changes: { escort: 'Signe Halvard' } }],
      ['change', 'comment', { text: 'Noted.', visibility: 'internal' }],
      ['move', 'moveStage', { stage: 'nowhere' }],
      ['assign', 'reroute', { team: 'nobody', priority: 'normal' }],
      ['assign', 'assign', { person: 'nobody' }],
      ['share', 'shareRequest', { with: { person: 'nobody' }, until: null }],
      ['delete', 'deletionPlan', {}],
    ];
    const seen = { hidden: 0, missing: 0, done: 0 };
    const requestRights = RIGHTS.filter((right) => right.includes(':'));
    const inRegister = { register: 'site-access' };
    const declanId = idOf('Declan Oyelaran');
    await fc.assert(
      fc.asyncProperty(
        fc.subarray([...requestRights]),
        fc.constantFrom('desk', 'beside', 'apart'),
        fc.subarray([...requestRights]),
        async (atDesk, to, here) => {
          ok(await settle('*', []));
          ok(await settle('outreach', []));
          ok(await ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to: 'desk' } }));
          ok(await settle(`@${declanId}`, atDesk));
          if (to === 'apart') ok(await ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to } }));
          // Ada’s own rights do not count there either: she gives them to herself.
          const adaHas = { give: ['read:all', 'change:all', 'move:all', 'assign:all', 'history:all'], take: [] };
          const toAda = { params: { subject: `@${idOf('Ada Quillfeather')}` }, body: { ...adaHas, ...inRegister } };
          ok(await ada.call('changeRights', toAda));
          const take = requestRights.filter((right) => !here.includes(right));
          const toDeclan = { params: { subject: `@${declanId}` }, body: { give: here, take, ...inRegister } };
          if (to !== 'desk') ok(await ada.call('changeRights', toDeclan));
          const rights: readonly string[] = to === 'desk' ? atDesk : here;
          const has = (right: string, standing: 'own' | 'team' | 'none'): boolean =>
            rights.some(
              (each) =>
                each === `${right}:all` ||
                (standing !== 'none' && each === `${right}:team`) ||
                (standing === 'own' && each === `${right}:own`),
            );
          for (const [number, standing] of [
            [ours, 'team'],
            [theirs, 'none'],
            [mine, 'own'],
          ] as const) {
            const reads = has('read', standing) || standing === 'own';
            const sheet = await declan.call('sheet', { params: { number } });
            expect([rights, number, sheet.status]).toEqual([rights, number, reads ? 200 : 404]);
            if (sheet.status === 200) {
              const { may, values } = sheet.body;
              const told = ['change', 'move', 'assign', 'delete', 'share', 'history'];
              expect([rights, may]).toEqual([
                rights,
                Object.fromEntries(told.map((right) => [right, has(right, standing)])),
              ]);
              const writable = values.fields.some((field: { writable: boolean }) => field.writable);
              expect([rights, writable]).toEqual([rights, has('change', standing)]);
            }
            for (const [right, route, body] of acts) {
              const headers = { 'If-Match': `"${sheet.body?.version ?? 1}"` };
              const answer = await declan.call(route, { params: { number }, headers, body });
              if (!reads) {
                expect([rights, route, answer.status]).toEqual([rights, route, 404]);
                seen.hidden += 1;
              } else {
                const isMissing = /^You do not have this right/.test(answer.body.title ?? '');
                expect([rights, route, isMissing]).toEqual([rights, route, !has(right, standing)]);
                seen[isMissing ? 'missing' : 'done'] += 1;
              }
            }
          }
          // The sheet that is taken out has what may be exported, and nothing else.
          const file = await fetch(`${desk.running.url}/api/forms/site-access/requests.csv?among=all`, {
            headers: { cookie: declan.cookie },
          });
          const sheet = file.ok ? await file.text() : '';
          const numbers = [ours, theirs, mine].filter((number) => sheet.includes(number));
          const expected = [
            [ours, 'team'],
            [theirs, 'none'],
            [mine, 'own'],
          ] as const;
          expect([rights, numbers]).toEqual([
            rights,
            expected.flatMap(([number, standing]) =>
              has('export', standing) && (has('read', standing) || standing === 'own') ? [number] : [],
            ),
          ]);
        },
      ),
      { numRuns: often(24) },
    );
    console.log('requests and random grants:', seen);
    expect(Math.min(seen.hidden, seen.missing, seen.done)).toBeGreaterThan(40);
    ok(await ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to: 'desk' } }));
    ok(await settle(`@${declanId}`, []));
    ok(await settle('*', FOR_EVERYONE));
  }, 240_000);

  it('is asked for in the register that a route is about, for every route that builds one', async () => {
    const declanId = idOf('Declan Oyelaran');
    const building = (Object.values(routes) as readonly Route[]).filter(
      ({ right, path }) => right === 'configure' && /\/(forms|registers|doors)\/:/.test(path),
    );
    const doors = { 'site-access': 'come-on-site', purchase: 'purchase' } as const;
    const seen = { open: 0, closed: 0 };
    for (const [atDesk, siteAccess] of [
      [false, true],
      [true, false],
      [false, false],
      [true, true],
    ] as const) {
      ok(await settle(`@${declanId}`, atDesk ? ['configure'] : []));
      const body = { register: 'site-access', ...(siteAccess ? give('configure') : take('configure')) };
      ok(await ada.call('changeRights', { params: { subject: `@${declanId}` }, body }));
      expect(ok(await declan.call('me')).person.worksWorkshop).toBe(atDesk || siteAccess);
      for (const [key, may] of [
        ['site-access', siteAccess],
        ['purchase', atDesk],
      ] as const)
        for (const route of building) {
          const path = route.path.replace(/\/doors\/:slug/, `/doors/${doors[key]}`).replace(/:key/, key);
          // A list is the body of no route: nothing is done, and who may not call is told so before.
          const sent = route.method === 'GET' ? {} : { body: '[]' };
          const answer = await fetch(`${desk.running.url}${path.replace(/:\w+/g, 'nothing')}`, {
            ...{ method: route.method, ...sent },
            headers: { cookie: declan.cookie, 'content-type': 'application/json' },
          });
          const isClosed = (await answer.text()).includes('refusals:rightMissing.happened');
          expect([key, route.name, isClosed]).toEqual([key, route.name, !may]);
          seen[isClosed ? 'closed' : 'open'] += 1;
        }
    }
    ok(await ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to: 'desk' } }));
    ok(await settle(`@${declanId}`, []));
    console.log('routes that build, by register:', seen);
    expect(Math.min(seen.open, seen.closed)).toBeGreaterThan(20);
  });

  it('is given by whoever may give it, and says who that is', async () => {
    const refused = await declan.call('changeRights', {
      params: { subject: `@${idOf('Declan Oyelaran')}` },
      body: { give: ['rights'], take: [] },
    });
    expect([refused.status, refused.body.title, refused.body.detail]).toEqual([
      403,
      'You do not have this right: Decide what people may do.',
      'Nothing was changed. These people can give it to you: Ada Quillfeather.',
    ]);
    // Who may manage people raises nobody: not themselves, not by a group that they may fill.
    const id = idOf('Declan Oyelaran');
    ok(await settle(`@${id}`, ['people']));
    ok(await settle('administrators', ['rights']));
    const join = { params: { key: 'administrators' }, headers: { 'Idempotency-Key': 'declan-up' } };
    const raised = await declan.call('enterGroup', { ...join, body: { person: id, from: null, until: null } });
    expect([raised.status, raised.body.type]).toEqual([403, 'urn:tolvek:problem:not-allowed']);
    ok(await settle('administrators', []));
    // Nor by what is given in one register alone.
    const inPurchase = { register: 'purchase', ...give('read:all') };
    ok(await ada.call('changeRights', { params: { subject: 'administrators' }, body: inPurchase }));
    const again = { params: { key: 'administrators' }, headers: { 'Idempotency-Key': 'declan-up-2' } };
    const there = await declan.call('enterGroup', { ...again, body: { person: id, from: null, until: null } });
    expect([there.status, there.body.type]).toEqual([403, 'urn:tolvek:problem:not-allowed']);
    ok(await ada.call('setRegisterRights', { params: { key: 'purchase' }, body: { to: 'desk' } }));
    ok(await settle(`@${id}`, []));
  });

  it('can be given by somebody at any time: the last of them stays, by whichever way it would go', async () => {
    const adaId = idOf('Ada Quillfeather');
    const types: string[] = [];
    const tried = async (answer: Promise<Answer>): Promise<void> => void types.push((await answer).body.type);
    const { version } = ok(await ada.call('person', { params: { id: adaId } }));
    const onVersion = { params: { id: adaId }, headers: { 'If-Match': `"${version}"` } };
    await tried(ada.call('changeRights', { params: { subject: `@${adaId}` }, body: { give: [], take: ['rights'] } }));
    await tried(ada.call('changePerson', { ...onVersion, body: { active: false } }));
    await tried(ada.call('changePerson', { ...onVersion, body: { role: 'member' } }));
    // By a group: whoever is taken out of it, or the group retired, would leave nobody.
    ok(await settle('administrators', ['rights', 'people']));
    ok(await ada.call('changeRights', { params: { subject: `@${adaId}` }, body: { give: [], take: ['rights'] } }));
    const group = ok(await ada.call('group', { params: { key: 'administrators' } }));
    const entry = group.entries[0].id as string;
    await tried(ada.call('leaveGroup', { params: { key: 'administrators', entry } }));
    await tried(settle('administrators', []));
    // Somebody else who may, but only until a day: on the day after it nobody could.
    const until = { params: { key: 'administrators' }, headers: { 'Idempotency-Key': 'declan-for-now' } };
    const forNow = { person: idOf('Declan Oyelaran'), from: null, until: '2026-11-27' };
    const { id: ending } = ok(await ada.call('enterGroup', { ...until, body: forNow }));
    await tried(ada.call('leaveGroup', { params: { key: 'administrators', entry } }));
    // By a group in that group for good, somebody may.
    const nested = { params: { key: 'administrators' }, headers: { 'Idempotency-Key': 'leads-in' } };
    ok(await ada.call('enterGroup', { ...nested, body: { group: 'desk-leads', from: null, until: null } }));
    ok(await ada.call('leaveGroup', { params: { key: 'administrators', entry: ending } }));
    ok(await ada.call('leaveGroup', { params: { key: 'administrators', entry } }));
    const maren = await desk.as('Maren Okafor');
    expect(ok(await maren.call('rights')).givers).not.toContain('Ada Quillfeather');
    expect(new Set(types)).toEqual(new Set(['urn:tolvek:problem:last-administrator']));
    expect(types).toHaveLength(6);
  });
});
