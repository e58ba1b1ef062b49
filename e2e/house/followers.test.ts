import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

// Whoever may read a request can follow it: hears of what becomes of it, and is told from others by the access plan.
let desk: Desk;
let ada: Caller;
let ilse: Caller;
let maren: Caller;
let priya: Caller;
let number = '';
const to = () => ({ params: { number } });
const follows = (who: Caller, is = true): Promise<Answer> =>
  who.call('followRequest', { ...to(), body: { follows: is } });
const followed = async (who: Caller): Promise<readonly string[]> =>
  ok(await who.call('ledger', { query: { tray: 'followed' } })).rows.map((row: { number: string }) => row.number);
const counted = async (who: Caller): Promise<number> =>
  ok(await who.call('trays')).trays.find(({ key }: { key: string }) => key === 'followed')?.count ?? 0;
/** The letters that tell somebody of a request what is news. */
const newsFor = async (name: string): Promise<readonly string[]> =>
  (await desk.letters())
    .filter(({ to: address, subject }) => address.includes(name) && subject.startsWith('News: '))
    .map(({ text }) => text);
const write = async (who: Caller, text: string, visibility: 'internal' | 'requester'): Promise<void> => {
  ok(await who.call('comment', { ...to(), body: { text, visibility } }));
};
const assign = async (to: Caller, person: string | null): Promise<void> => {
  const { version } = ok(await to.call('sheet', { params: { number } }));
  ok(await to.call('assign', { params: { number }, headers: onVersion(version), body: { person } }));
};

beforeAll(async () => {
  desk = await Desk.open();
  [ada, maren] = [await desk.as('Ada Quillfeather'), await desk.as('Maren Okafor')];
  [ilse, priya] = [await desk.as('Ilse Brandvold'), await desk.as('Priya Nakamura-Lind')];
  number = ok(await priya.submit('come-on-site', VISIT)).number;
});
afterAll(() => desk.close());

test('whoever reads it follows it, once, until they stop; nobody else can', async () => {
  expect([(await follows(priya)).status, (await follows(await desk.as())).status]).toEqual([404, 401]);
  ok(await follows(ilse));
  ok(await follows(ilse));
  ok(await follows(maren));
  const sheet = ok(await ilse.call('sheet', to()));
  expect(sheet.followers).toEqual({ others: ['Maren Okafor'], mine: true });
  expect(ok(await ada.call('sheet', to())).followers.mine).toBe(false);
  expect(sheet.history.filter(({ what }: { what: string }) => what === 'Follows this request')).toHaveLength(2);
  expect([await followed(ilse), await counted(ilse), await followed(ada), await counted(ada)]).toEqual([
    [number],
    1,
    [],
    0,
  ]);
  ok(await follows(maren, false));
  expect([await followed(maren), ok(await maren.call('sheet', to())).followers]).toEqual([
    [],
    { others: ['Ilse Brandvold'], mine: false },
  ]);
});

test('they are told what others do and write, each of it once, and nothing of what they do themselves', async () => {
  await write(ada, 'The gate code has changed.', 'internal');
  await write(ilse, 'Seen.', 'internal');
  await assign(ada, desk.idOf('Ilse Brandvold'));
  // Given it to work on, she hears that it is hers, and not that it is somebody’s.
  const news = await newsFor('ilse.brandvold');
  expect(news).toHaveLength(1);
  expect(news[0]).toContain('Ada Quillfeather: Note for staff');
  expect(news[0]).toContain('The gate code has changed.');
  expect(news[0]).toContain('because you follow the request');
  await assign(ada, null);
  expect((await newsFor('ilse.brandvold')).at(-1)).toContain('Ada Quillfeather: Given back to the team');
  expect([await newsFor('maren.okafor'), await newsFor('priya.nakamura.lind')]).toEqual([[], []]);
});

test('whoever may read it no more hears nothing more, and finds it in no tray', async () => {
  const hanne = await desk.as('Hanne Istvan');
  const holder = `@${desk.idOf('Hanne Istvan')}`;
  const shared = { with: { person: desk.idOf('Hanne Istvan') }, until: null };
  expect((await follows(hanne)).status).toBe(404);
  ok(await ada.call('shareRequest', { ...to(), body: shared }));
  ok(await follows(hanne));
  await write(ada, 'Shared, and told.', 'requester');
  expect([await followed(hanne), (await newsFor('hanne.istvan')).length]).toEqual([[number], 1]);
  // She may not see what happened: she is told where it is.
  await assign(ada, desk.idOf('Ilse Brandvold'));
  const [, changed = ''] = await newsFor('hanne.istvan');
  expect(changed).toContain('This request has changed. It is now “');
  expect(changed).not.toMatch(/Ada|Ilse/);
  ok(await ada.call('unshareRequest', { params: { number, holder } }));
  await write(ada, 'No longer told.', 'requester');
  expect([await followed(hanne), await counted(hanne), (await newsFor('hanne.istvan')).length]).toEqual([[], 0, 2]);
  expect((await follows(hanne, false)).status).toBe(404);
});

test('rules speak of whoever follows, and what they change is said of those who do', async () => {
  const { access } = desk.register('site-access');
  const rules = [
    ...access.rules,
    {
      ...{ id: 'following', name: 'Whoever follows', fields: ['reason'], level: 'hidden' as const },
      audience: { in: { anyOf: ['~follower'] }, outOf: [] },
    },
  ];
  const of = { params: { key: 'site-access' } };
  const { version, draft } = ok(await maren.call('accessPlan', of));
  ok(await maren.call('keepAccessPlan', { ...of, headers: onVersion(version), body: { ...draft, rules } }));
  const effect = ok(await maren.call('accessPlanEffect', of));
  const changed = effect.people.filter(({ fields }: { fields: { field: string }[] }) =>
    fields.some(({ field }) => field === 'reason'),
  );
  expect(changed.map(({ name }: { name: string }) => name)).toEqual(['Ilse Brandvold']);
  expect(changed[0].fields.find(({ field }: { field: string }) => field === 'reason').requests).toBe(1);
  desk.protect('site-access', { ...access, rules });
  const reads = async (who: Caller): Promise<boolean> =>
    ok(await who.call('sheet', to())).values.fields.some(({ key }: { key: string }) => key === 'reason');
  expect([await reads(ilse), await reads(ada)]).toEqual([false, true]);
  ok(await follows(ilse, false));
  expect(await reads(ilse)).toBe(true);
  desk.protect('site-access', access);
});
