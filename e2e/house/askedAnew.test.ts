import type { DoorDesign } from '@tolvek/core/door';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT, WATER } from './desk.ts';

// What a changed answer asks again: who works on the request, and who decides.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let edda: Caller;
const sheetOf = async (number: string) => ok(await maren.call('sheet', { params: { number } }));
const set = async (change: Partial<DoorDesign>): Promise<Answer> => {
  const params = { slug: 'come-on-site' };
  const { version, door } = ok(await maren.call('doorDesign', { params }));
  return maren.call('changeDoor', {
    params,
    headers: onVersion(version),
    body: { door: { ...door, ...change }, note: '' },
  });
};
const asked = async (answers: object): Promise<string> => ok(await priya.submit('come-on-site', answers)).number;
const change = async (number: string, changes: object): Promise<Answer> => {
  const { version } = ok(await priya.call('myRequest', { params: { number } }));
  return priya.call('changeMine', { params: { number }, headers: onVersion(version), body: { changes } });
};
const decide = async (number: string, verdict: 'approve' | 'refuse') => {
  const body = { verdict, comment: verdict === 'refuse' ? 'No.' : '', seen: await edda.seen(number) };
  return ok(await edda.call('decide', { params: { number }, headers: freshly(), body }));
};
const says = async (number: string): Promise<readonly string[]> =>
  (await sheetOf(number)).history.map(({ what }: { what: string }) => what);

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, edda] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Edda Kilbride'),
  ];
  const { access } = desk.register('site-access');
  const corrects = {
    ...{ id: 'corrects', name: 'Whoever asks corrects', fields: ['works_on_water', 'survival_until', 'reason'] },
    ...{ audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const }, level: 'write' as const },
  };
  desk.protect('site-access', { ...access, rules: [...access.rules, corrects] });
});
afterAll(() => desk.close());

it('asks for nothing again where its door says nothing', async () => {
  const number = await asked(VISIT);
  ok(await change(number, { works_on_water: true, survival_until: '2027-05-01' }));
  const sheet = await sheetOf(number);
  expect([sheet.team, sheet.priority, sheet.stage.key]).toEqual(['Estates', 'low', 'arrived']);
});

it('routes as if it had come with the answers it has now', async () => {
  expect((await set({ again: ['routing'], changes: 'never' })).body.problems[0].field).toBe('again');
  ok(await set({ again: ['routing'] }));
  const number = await asked(VISIT);
  const { version } = await sheetOf(number);
  const handler = desk.idOf('Ilse Brandvold');
  ok(await maren.call('assign', { params: { number }, headers: onVersion(version), body: { person: handler } }));
  expect(ok(await priya.call('myRequest', { params: { number } })).changing.again).toEqual(['routing']);
  ok(await change(number, { reason: 'Something else' }));
  expect(await says(number)).not.toContain('Moved to the team Boats, as answers changed');
  ok(await change(number, { works_on_water: true, survival_until: '2027-05-01' }));
  const sheet = await sheetOf(number);
  // Nobody is asked to decide: only where it goes is asked again. Who worked on it is in the other team.
  expect([sheet.team, sheet.priority, sheet.handler, sheet.stage.key]).toEqual(['Boats', 'high', null, 'arrived']);
  const told = await says(number);
  expect(told).toEqual(
    expect.arrayContaining(['Moved to the team Boats, as answers changed', 'Given back to the team']),
  );
  expect(told.some((what) => what.includes('as answers changed') && what.startsWith('Priority'))).toBe(true);
  expect((await desk.letters()).some(({ to, text }) => to.includes('Bram Solheim') && text.includes(number))).toBe(
    true,
  );
});

it('is decided again by whom its row asks, once somebody has said something', async () => {
  ok(await set({ again: ['decision'] }));
  const number = await asked(WATER);
  const asks = async () =>
    (await desk.letters()).filter(({ to, text }) => to.includes('Edda Kilbride') && text.includes('/decide/')).length;
  const first = await asks();
  expect(first).toBeGreaterThan(0);
  // Nobody has decided yet: they decide on what it says now, and are not written to again.
  ok(await change(number, { reason: 'While it waits' }));
  expect(await asks()).toBe(first);
  await decide(number, 'approve');
  expect((await sheetOf(number)).stage.key).toBe('arrived');
  ok(await change(number, { reason: 'After the approval' }));
  const waits = await sheetOf(number);
  expect([waits.stage.key, waits.approval.state]).toEqual(['deciding', 'waiting']);
  expect(await asks()).toBe(first + 1);
  expect(
    (await says(number)).filter((what) => what.startsWith('To be decided again, as answers changed')),
  ).toHaveLength(1);
  await decide(number, 'refuse');
  // What is over stays over.
  const over = await sheetOf(number);
  expect(over.stage.key).toBe('refused');
  await change(number, { reason: 'Once more' });
  expect((await sheetOf(number)).stage.key).toBe('refused');
});

it('has nobody decide what their row does not ask for any more', async () => {
  ok(await set({ again: ['routing', 'decision'] }));
  const number = await asked(WATER);
  await decide(number, 'approve');
  ok(await change(number, { works_on_water: false }));
  const sheet = await sheetOf(number);
  expect([sheet.team, sheet.stage.key]).toEqual(['Estates', 'arrived']);
  // What the form asks for no more went with the answer that asked for it.
  const survival = sheet.values.fields.find(({ key }: { key: string }) => key === 'survival_until');
  expect(survival?.shown ?? '').toBe('');
});
