import { afterAll, beforeAll, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, WATER } from './desk.ts';

// Steps of an approval that are asked only where their condition holds.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let edda: Caller;
let oskar: Caller;
const of = { params: { key: 'site-access' } };
const asked = async (answers: object): Promise<string> =>
  ok(await priya.submit('come-on-site', { ...WATER, ...answers }, { release })).number;
const sheetOf = async (number: string): Promise<Answer['body']> =>
  ok(await maren.call('sheet', { params: { number } }));
const decide = async (who: Caller, number: string): Promise<Answer> => {
  const body = { verdict: 'approve', comment: '', seen: await who.seen(number) };
  return who.call('decide', { params: { number }, headers: freshly(), body });
};
let release = 1;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, edda, oskar] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Edda Kilbride'),
    await desk.as('Oskar Veldhuis'),
  ];
});
afterAll(() => desk.close());

/** Puts steps in force: the duty managers, and Oskar where it goes deep. */
async function released(isFirstConditional: boolean): Promise<Answer['body']> {
  const { draft, version } = ok(await maren.call('form', of));
  const [first] = draft.approval.paths[0].steps;
  const { when: _, ...always } = first;
  const deep = { id: 'deep', label: 'Deep water', seats: [{ person: desk.idOf('Oskar Veldhuis') }], needed: 1 };
  const steps = [
    isFirstConditional ? { ...always, when: 'reason = "Near"' } : always,
    { ...deep, when: 'reason = "Deep"' },
  ];
  const saved = ok(
    await maren.call('saveDraft', {
      ...of,
      headers: onVersion(version),
      body: { draft: { ...draft, approval: { paths: [{ id: 'path', label: '', steps }] } } },
    }),
  );
  const { number } = ok(
    await maren.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }),
  );
  release = number ?? release + 1;
  return saved;
}

it('are said in the comparison, and found wrong where they can’t be read', async () => {
  const saved = await released(false);
  const change = saved.changes.find(({ page }: { page: string }) => page === 'approval');
  expect(JSON.stringify(change.after)).toContain('Deep water');
  const { draft, version } = ok(await maren.call('form', of));
  const [first] = draft.approval.paths[0].steps;
  const wrong = { ...draft, approval: { paths: [{ id: 'path', label: '', steps: [{ ...first, when: 'reason >' }] }] } };
  const { version: next } = ok(
    await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: wrong } }),
  );
  const { findings } = ok(await maren.call('form', of));
  expect(
    findings.filter(
      ({ page, severity }: { page: string; severity: string }) => page === 'approval' && severity === 'error',
    ),
  ).toHaveLength(1);
  expect((await maren.call('releaseForm', { ...of, headers: onVersion(next), body: { note: '' } })).status).toBe(422);
  ok(await maren.call('saveDraft', { ...of, headers: onVersion(next), body: { draft } }));
});

it('ask one more where it holds, and nobody besides where it does not', async () => {
  const [near, deep] = [await asked({ reason: 'Near' }), await asked({ reason: 'Deep' })];
  for (const number of [near, deep]) {
    expect((await sheetOf(number)).stage.key).toBe('deciding');
    expect((await decide(oskar, number)).status).not.toBe(200);
    ok(await decide(edda, number));
  }
  expect((await sheetOf(near)).stage.key).toBe('arrived');
  const waits = await sheetOf(deep);
  expect([waits.stage.key, waits.approval.label]).toEqual(['deciding', 'Deep water']);
  // Each step says who was asked, what they said, and since when the next one is asked.
  const [first, second] = waits.approval.steps;
  expect([first.seats[0].state, first.seats[0].by, second.seats[0].state, second.seats[0].who]).toEqual([
    ...['approved', 'Edda Kilbride', 'open', 'Oskar Veldhuis'],
  ]);
  expect(second.since).toBe(first.seats[0].at);
  ok(await decide(oskar, deep));
  expect((await sheetOf(deep)).stage.key).toBe('arrived');
});

it('begin anew with the steps that a changed answer asks, where the door wants that', async () => {
  const params = { slug: 'come-on-site' };
  const { version, door } = ok(await maren.call('doorDesign', { params }));
  const body = { door: { ...door, again: ['decision'], changes: 'finished' }, note: '' };
  ok(await maren.call('changeDoor', { params, headers: onVersion(version), body }));
  const { access } = desk.register('site-access');
  const corrects = {
    ...{ id: 'corrects', name: 'Whoever asks corrects', fields: ['reason'] },
    ...{ audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const }, level: 'write' as const },
  };
  desk.protect('site-access', { ...access, rules: [...access.rules, corrects] });
  const number = await asked({ reason: 'Near' });
  const own = { params: { number } };
  const change = async (reason: string) => {
    const { version: at } = ok(await priya.call('myRequest', own));
    ok(await priya.call('changeMine', { ...own, headers: onVersion(at), body: { changes: { reason } } }));
  };
  // Nobody has decided, and the steps are the same: they decide on what it says now.
  await change('Nearer');
  const anew = async () =>
    (await sheetOf(number)).history.filter(({ what }: { what: string }) => what.startsWith('To be decided again'))
      .length;
  expect(await anew()).toBe(0);
  await change('Deep');
  expect(await anew()).toBe(1);
  ok(await decide(edda, number));
  expect((await sheetOf(number)).approval.label).toBe('Deep water');
});

it('ask nobody where no condition holds: it is worked on at once, and a caution says so beforehand', async () => {
  const { findings } = await released(true);
  expect(
    findings.some(
      ({ page, severity }: { page: string; severity: string }) => page === 'approval' && severity === 'caution',
    ),
  ).toBe(true);
  const number = await asked({ reason: 'Far' });
  const sheet = await sheetOf(number);
  expect([sheet.stage.key, sheet.approval]).toEqual(['arrived', null]);
  expect((await sheetOf(await asked({ reason: 'Near' }))).stage.key).toBe('deciding');
});
