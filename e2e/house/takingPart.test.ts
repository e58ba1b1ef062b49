import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, tripOf } from './desk.ts';

// B24: whoever may only read a request takes part in it, once, as long as there is a place, and asks; nothing else moves.
let desk: Desk;
let bram: Caller;
let maren: Caller;
let mireille: Caller;
let readers: readonly Reader[];
let number = '';
type Reader = Caller & { readonly id: string };
const known = async (name: string): Promise<Reader> => Object.assign(await desk.as(name), { id: desk.idOf(name) });
const NAMES = [
  ...['Ilse Brandvold', 'Declan Oyelaran', 'Ruadhan Pell', 'Hanne Istvan', 'Priya Nakamura-Lind', 'Nuala Fenwick'],
  ...['Cormac Dewhurst', 'Gunnar Peverell', 'Anneke Rasmus', 'Dorothea Lambrecht', 'Tilda Okonjo-Reyes'],
];
const PLACES = 6;
const act = (who: Caller, action: string, body: object): Promise<Answer> =>
  who.call('act', { params: { number, action }, body });
const joins = (who: Caller, takes = true) => act(who, 'button-1', { does: 'take-part', takes });
const sheetOf = async (who: Caller) => ok(await who.call('sheet', { params: { number } }));
const buttonOf = (sheet: Answer['body'], id = 'button-1') =>
  sheet.actions.find((action: { id?: string }) => action.id === id);
const stored = () => desk.running.house.db.select().from(requests).where(eq(requests.number, number)).get();
const aboard = (): readonly string[] => (stored()?.values.aboard as readonly string[] | undefined) ?? [];
const change = async (changes: object): Promise<void> => {
  const headers = onVersion((await sheetOf(bram)).version);
  ok(await bram.call('changeFields', { params: { number }, headers, body: { changes } }));
};

beforeAll(async () => {
  desk = await Desk.open();
  [bram, mireille] = [await desk.as('Bram Solheim'), await desk.as('Mireille Thorsby')];
  maren = await desk.as('Maren Okafor');
  readers = await Promise.all(NAMES.map(known));
  const things = desk.things();
  number = ok(await mireille.submit('vessel-time', tripOf(things, { vessel: things.get('Saithe') }))).number;
  for (const who of readers.slice(0, -1))
    ok(await maren.call('shareRequest', { params: { number }, body: { with: { person: who.id }, until: null } }));
});
afterAll(() => desk.close());

test('whoever reads along is offered what the words offer, and may change nothing besides', async () => {
  const [ilse] = readers;
  if (!ilse) throw new Error('nobody reads');
  const sheet = await sheetOf(ilse);
  expect(buttonOf(sheet)).toMatchObject({ does: 'take-part', label: 'I’ll be aboard', isIn: false, whyNot: null });
  expect(buttonOf(sheet, 'button-2')).toMatchObject({ does: 'ask', label: 'Ask the skipper' });
  expect(sheet.may.change).toBe(false);
  // Whoever works on it is given the form as it is, and fills the field in like any other.
  expect((await sheetOf(bram)).actions).toEqual([]);
  expect([await joins(bram), await joins(await desk.as())].map(({ status }) => status)).toEqual([404, 401]);
  // Whoever can’t read it can’t know that there is anything to take part in.
  const last = readers.at(-1);
  const strange = last && (await joins(last));
  const nothing =
    last &&
    (await last.call('act', {
      params: { number: 'VT-99999', action: 'button-1' },
      body: { does: 'take-part', takes: true },
    }));
  expect([strange?.status, strange?.text.replace(number, '')]).toEqual([404, nothing?.text.replace('VT-99999', '')]);
});

test('ten at once for six places: six have one, and the others read that none is free', async () => {
  const version = stored()?.version ?? 0;
  const coming = await Promise.all(readers.slice(0, 10).map((who) => joins(who)));
  expect(coming.map(({ status }) => status).sort()).toEqual([...Array(PLACES).fill(200), ...Array(4).fill(409)]);
  expect(new Set(aboard()).size).toBe(PLACES);
  expect(stored()?.version).toBe(version + PLACES);
  const [, late] = [0, readers.slice(0, 10).find((_, at) => coming[at]?.status === 409)];
  const there = readers.find(({ id }) => id === aboard()[0]);
  if (!late || !there) throw new Error('nobody is late');
  expect(coming.find(({ status }) => status === 409)?.text).toContain('No place is free at the moment.');
  expect(buttonOf(await sheetOf(late))).toMatchObject({ isIn: false, whyNot: 'No place is free at the moment.' });
  // Said twice, it is so once; taken back by whoever took it, it is another’s.
  ok(await joins(there));
  expect(aboard()).toHaveLength(PLACES);
  ok(await joins(there, false));
  ok(await joins(there, false));
  expect(aboard()).toHaveLength(PLACES - 1);
  ok(await joins(late));
  expect([aboard().includes(late.id), aboard().includes(there.id)]).toEqual([true, false]);
  const told = (await sheetOf(bram)).history.map(({ what, who }: { what: { key?: string }; who: string }) => [
    who,
    what,
  ]);
  expect(told.filter(([, what]: [string, string]) => what === 'Takes part')).toHaveLength(PLACES + 1);
  expect(told.filter(([, what]: [string, string]) => what === 'No longer takes part')).toHaveLength(1);
});

test('the list is read by whom the plan lets: others learn how they stand themselves, and no number', async () => {
  const [one] = readers.filter(({ id }) => aboard().includes(id));
  if (!one) throw new Error('nobody is aboard');
  const hide = {
    ...{ id: 'who-goes', name: 'Who goes', fields: ['aboard'], level: 'hidden' as const },
    audience: { in: { everyone: true as const }, outOf: ['boats'] },
  };
  expect(buttonOf(await sheetOf(one)).left).toBe(0);
  const { access } = desk.register('vessel-time');
  desk.protect('vessel-time', { ...access, rules: [...access.rules, hide] });
  const sheet = await sheetOf(one);
  expect(sheet.values.fields.some(({ key }: { key: string }) => key === 'aboard')).toBe(false);
  expect(buttonOf(sheet)).toMatchObject({ isIn: true, left: null, whyNot: null });
  // What tells that somebody comes along tells nobody else of whom.
  expect(JSON.stringify(sheet.history)).not.toContain('Takes part');
});

test('a question stands with the request, goes to the skipper and who works on it, and its answer comes back', async () => {
  const [asker] = readers;
  if (!asker) throw new Error('nobody asks');
  const signe = await known('Signe Halvard');
  await change({ skipper: signe.id });
  // Bram alone works on it: the skipper hears of it for being asked.
  const { version } = await sheetOf(bram);
  const handling = { headers: onVersion(version), body: { person: desk.idOf('Bram Solheim') } };
  ok(await bram.call('assign', { params: { number }, ...handling }));
  const said = 'Is there a spare dry suit aboard?';
  expect((await act(asker, 'button-2', { does: 'ask', text: ' ' })).status).toBe(400);
  expect((await act(asker, 'button-2', { does: 'take-part', takes: true })).status).toBe(404);
  ok(await act(asker, 'button-2', { does: 'ask', text: said }));
  const [entry] = (await sheetOf(signe)).history.filter(({ comment }: { comment: unknown }) => comment !== null);
  expect([entry.what, entry.who, entry.comment.text]).toEqual(['Question', NAMES[0], said]);
  const asked = (await desk.letters()).filter(({ text }) => text.includes(said));
  expect(asked.some(({ to }) => to.includes('Signe Halvard'))).toBe(true);
  expect(asked.every(({ subject }) => subject.includes(number))).toBe(true);
  ok(
    await bram.call('comment', {
      params: { number },
      body: { text: 'Two of them, in size M.', visibility: 'internal' },
    }),
  );
  const heard = (await desk.letters()).filter(({ text }) => text.includes('size M'));
  expect(heard.some(({ to }) => to.includes('Ilse Brandvold'))).toBe(true);
  expect((await sheetOf(asker)).followers.mine).toBe(true);
});

test('whoever asked takes part in their own as well, and nobody does once it is finished', async () => {
  const mine = { params: { number, action: 'button-1' } };
  const own = ok(await mireille.call('myRequest', { params: { number } }));
  expect(buttonOf(own)).toMatchObject({ isIn: false, whyNot: 'No place is free at the moment.' });
  const [gone] = aboard();
  await change({ aboard: aboard().filter((id) => id !== gone) });
  ok(await mireille.call('actOnMine', { ...mine, body: { does: 'take-part', takes: true } }));
  expect(aboard()).toContain(desk.idOf('Mireille Thorsby'));
  ok(
    await mireille.call('actOnMine', {
      params: { number, action: 'button-2' },
      body: { does: 'ask', text: 'Which pier?' },
    }),
  );
  const { messages } = ok(await mireille.call('myRequest', { params: { number } }));
  expect(messages.map(({ text, mine: is }: { text: string; mine: boolean }) => [text, is])).toEqual([
    ['Which pier?', true],
  ]);
  // Of somebody else’s request there is nothing to do this way.
  const [other] = readers;
  expect((await other?.call('actOnMine', { ...mine, body: { does: 'take-part', takes: true } }))?.status).toBe(404);
  const { version } = await sheetOf(bram);
  ok(await bram.call('moveStage', { params: { number }, headers: onVersion(version), body: { stage: 'done' } }));
  // At this stage the edition is not given any more: its buttons are gone with it.
  expect((await mireille.call('actOnMine', { ...mine, body: { does: 'take-part', takes: false } })).status).toBe(404);
  expect(aboard()).toContain(desk.idOf('Mireille Thorsby'));
});
