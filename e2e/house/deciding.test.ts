import type { ApprovalStep } from '@tolvek/core/approval';
import type { FormDesign } from '@tolvek/core/form';
import { approvalRounds, people, requests, seats } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
/** One of each group that decides. */
let tomas: Caller;
let oskar: Caller;
let gunnar: Caller;

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const STEPS: readonly ApprovalStep[] = [
  {
    ...{ id: 'safety', label: 'Safety', needed: 2 },
    seats: [{ group: 'duty-managers' }, { group: 'site-safety' }, { group: 'dive-safety' }],
  },
  { id: 'head', label: 'Head of estates', seats: [{ group: 'estates' }], needed: 1 },
];

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  priya = await desk.as('Priya Nakamura-Lind');
  tomas = await desk.as('Tomas Achterberg');
  oskar = await desk.as('Oskar Veldhuis');
  gunnar = await desk.as('Gunnar Peverell');
  const params = { key: 'site-access' };
  const { draft, version } = ok(await maren.call('form', { params })) as { draft: FormDesign; version: number };
  const body = { draft: { ...draft, approval: { paths: [{ id: 'path', label: '', steps: STEPS }] } } };
  const saved = ok(await maren.call('saveDraft', { params, headers: { 'If-Match': `"${version}"` }, body }));
  ok(
    await maren.call('releaseForm', {
      params,
      headers: { 'If-Match': `"${saved.version}"` },
      body: { note: 'Decided by several, in turn.' },
    }),
  );
});
afterAll(() => desk.close());

let visitors = 0;
async function sent(): Promise<string> {
  visitors += 1;
  return ok(
    await priya.submit('come-on-site', { ...WATER, visitor: `Visitor number ${'x'.repeat(visitors)}` }, { release: 2 }),
  ).number;
}
const decide = async (who: Caller, number: string, verdict: 'approve' | 'refuse', comment = ''): Promise<Answer> =>
  who.call('decide', {
    params: { number },
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    body: { verdict, comment, seen: await who.seen(number) },
  });
const decision = async (number: string) => {
  const { stage, approval } = await maren.sheet(number);
  return [stage.role ?? stage.key, approval.state, approval.label, approval.group];
};
/** Who was asked to decide on a request, by letter. */
const askedFor = async (number: string): Promise<readonly string[]> => {
  const letters = (await desk.letters()).filter(
    ({ text }) => text.includes('/decide/') && text.includes('Please approve or refuse this request'),
  );
  const { request } = roundOf(number);
  return letters.filter(({ subject }) => subject.includes(`(${request})`)).map(({ to }) => to);
};
function roundOf(number: string) {
  const { db } = desk.running.house;
  const row = db.select().from(requests).where(eq(requests.number, number)).get();
  if (!row) throw new Error(`${number} is not there.`);
  const round = db.select().from(approvalRounds).where(eq(approvalRounds.requestId, row.id)).get();
  const held = db.select().from(seats).where(eq(seats.requestId, row.id)).all();
  return {
    request: number,
    state: round?.state,
    seats: Object.fromEntries(held.map(({ holder, state }) => [holder, state])),
  };
}

describe('a decision of several', () => {
  it('asks all of a step at once, needs as many as it says, then asks the next', async () => {
    const number = await sent();
    expect(await decision(number)).toEqual([
      'deciding',
      'waiting',
      'Safety',
      'Duty managers, Site safety, Dive Safety',
    ]);
    expect(roundOf(number).seats).toEqual({
      ...{ 'duty-managers': 'open', 'site-safety': 'open', 'dive-safety': 'open', estates: 'ahead' },
    });
    const before = await askedFor(number);
    expect(new Set(before).size).toBeGreaterThanOrEqual(4);
    expect(before.some((to) => to.includes('ilse'))).toBe(false);

    ok(await decide(tomas, number, 'approve'));
    expect(await decision(number)).toEqual(['deciding', 'waiting', 'Safety', 'Site safety, Dive Safety']);
    // The same person says it once.
    expect((await decide(tomas, number, 'approve')).status).toBe(403);
    // One against it does not end it, as two of three are enough; nobody is told it was refused.
    ok(await decide(gunnar, number, 'refuse', 'No divers about.'));
    expect((await decision(number))[1]).toBe('waiting');
    expect(
      (await priya.call('myRequest', { params: { number } })).body.hops.map((hop: { label: string }) => hop.label),
    ).toContain('Decision');

    ok(await decide(oskar, number, 'approve'));
    expect(await decision(number)).toEqual(['deciding', 'waiting', 'Head of estates', 'Estates']);
    expect((await askedFor(number)).some((to) => to.includes('ilse'))).toBe(true);
    expect(roundOf(number)).toMatchObject({ state: 'open', seats: { estates: 'open', 'dive-safety': 'refused' } });

    const ilse = await desk.as('Ilse Brandvold');
    ok(await decide(ilse, number, 'approve'));
    expect((await decision(number)).slice(0, 2)).toEqual(['arrived', 'approved']);
    expect(roundOf(number).state).toBe('approved');
    const said = (await maren.sheet(number)).history.map((entry: { what: string }) => entry.what);
    expect(said.filter((what: string) => / (approved|refused)$/.test(what))).toEqual([
      ...['Safety: approved', 'Safety: refused', 'Safety: approved', 'Head of estates: approved'],
    ]);
  });

  it('ends when too few are left, and asks nobody any more', async () => {
    const number = await sent();
    ok(await decide(oskar, number, 'refuse', 'The pier is shut.'));
    const link = await desk.tokenFor(addressOf('Edda Kilbride'), 'decide');
    ok(await decide(gunnar, number, 'refuse', 'No divers about.'));
    expect((await decision(number)).slice(0, 2)).toEqual(['refused', 'refused']);
    expect(roundOf(number)).toMatchObject({
      state: 'refused',
      seats: { 'duty-managers': 'closed', estates: 'closed' },
    });
    const late = await (await desk.as('')).call('decisionLink', { params: { token: link } });
    expect([late.status, late.body.title]).toEqual([410, 'This request was already refused.']);
    expect((await decide(tomas, number, 'approve')).status).toBe(409);
  });

  it('is withdrawn for all when a coordinator frees it', async () => {
    const number = await sent();
    ok(await decide(tomas, number, 'approve'));
    const { version } = await maren.sheet(number);
    ok(
      await maren.call('freeRequest', {
        params: { number },
        headers: { 'If-Match': `"${version}"` },
        body: { stage: 'arrived', reason: 'They are at sea.' },
      }),
    );
    expect(roundOf(number)).toEqual({
      ...{ request: number, state: 'withdrawn' },
      seats: { 'duty-managers': 'approved', 'site-safety': 'closed', 'dive-safety': 'closed', estates: 'closed' },
    });
    expect((await decision(number)).slice(0, 2)).toEqual(['arrived', 'withdrawn']);
  });

  it('is made by one person where the path asks one, and by nobody else of their group', async () => {
    const { db } = desk.running.house;
    const edda = db.select().from(people).where(eq(people.name, 'Edda Kilbride')).get();
    if (!edda) throw new Error('Edda is not there.');
    const step = { id: 'edda', label: 'Edda', needed: 1 };
    const params = { key: 'site-access' };
    const { draft, version } = ok(await maren.call('form', { params })) as { draft: FormDesign; version: number };
    const save = async (person: string, on: number) =>
      ok(
        await maren.call('saveDraft', {
          ...{ params, headers: { 'If-Match': `"${on}"` } },
          body: {
            draft: {
              ...draft,
              approval: { paths: [{ id: 'path', label: '', steps: [{ ...step, seats: [{ person }] }] }] },
            },
          },
        }),
      );
    const stranger = await save('nobody', version);
    expect(stranger.findings.map(({ message }: { message: string }) => message)).toContain(
      'The approval step “Edda” asks a person who is no longer here. Nobody could decide. Choose who decides.',
    );
    const saved = await save(edda.id, stranger.version);
    const headers = { 'If-Match': `"${saved.version}"` };
    ok(await maren.call('releaseForm', { params, headers, body: { note: 'One person decides.' } }));

    const { number } = ok(await priya.submit('come-on-site', { ...WATER, visitor: 'For Edda' }, { release: 3 }));
    expect(await decision(number)).toEqual(['deciding', 'waiting', 'Edda', 'Edda Kilbride']);
    expect(await askedFor(number)).toEqual([expect.stringContaining(addressOf('Edda Kilbride'))]);
    // Tomas is in her group; it is none of his now.
    expect((await tomas.call('sheet', { params: { number } })).status).toBe(404);
    const her = await desk.as('Edda Kilbride');
    expect(ok(await her.call('me')).person.worksFloor).toBe(true);
    const tray = async (who: Caller): Promise<readonly string[]> =>
      ok(await who.call('ledger', { query: { tray: 'deciding' } })).rows.map((row: { number: string }) => row.number);
    expect([await tray(her), await tray(tomas)].map((rows) => rows.includes(number))).toEqual([true, false]);
    const { trays } = ok(await her.call('trays'));
    expect(trays.find(({ key }: { key: string }) => key === 'deciding').count).toBe((await tray(her)).length);
    ok(await decide(her, number, 'approve'));
    expect((await decision(number)).slice(0, 2)).toEqual(['arrived', 'approved']);
    // What she decided stays hers to look at.
    const { rows } = ok(await her.call('ledger', { query: { tray: 'all' } }));
    expect(rows.map((row: { number: string }) => row.number)).toContain(number);
  });
});

function addressOf(name: string): string {
  const row = desk.running.house.db.select().from(people).where(eq(people.name, name)).get();
  return row?.email ?? '';
}
