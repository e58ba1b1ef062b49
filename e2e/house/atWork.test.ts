import type { Edition, FormDesign } from '@tolvek/core/form';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

// E9: whether a request opens to be changed, why it can’t be, and who is at it just now.
let desk: Desk;
let maren: Caller;
let ilse: Caller;
let priya: Caller;
let bram: Caller;
let number: string;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, ilse, priya, bram] = (await Promise.all(
    ['Maren Okafor', 'Ilse Brandvold', 'Priya Nakamura-Lind', 'Bram Solheim'].map((name) => desk.as(name)),
  )) as [Caller, Caller, Caller, Caller];
  const { access } = desk.register('site-access');
  const mine = { id: 'mine', name: 'Theirs', fields: ['visitor', 'medical_note'], level: 'write' as const };
  const rules = [{ ...mine, audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const } }, ...access.rules];
  desk.protect('site-access', { ...access, rules });
  number = ok(await priya.submit('come-on-site', { ...VISIT, medical_note: 'Bees.' })).number;
});
afterAll(() => desk.close());

const at = () => ({ params: { number } });
const others = async (by: Caller) => ok(await by.call('changedBy', at())).others;
const says = async (by: Caller, ...fields: readonly string[]) =>
  ok(await by.call(by === priya ? 'changingMine' : 'changing', { ...at(), body: { fields } }));

test('who has begun to change a request is told to the others who work on it, field by field as they may read it', async () => {
  expect(await others(ilse)).toEqual([]);
  await says(maren, 'reason', 'escort', 'no-such-field');
  expect(await others(ilse)).toEqual([{ name: 'Maren Okafor', asked: false, fields: ['reason', 'escort'] }]);
  // Nobody is told of themselves, and whoever works elsewhere of nothing.
  expect(await others(maren)).toEqual([]);
  expect((await bram.call('changedBy', at())).status).toBe(404);
  expect((await bram.call('changing', { ...at(), body: { fields: ['reason'] } })).status).toBe(404);
  // Whoever asked reads what of it is theirs to read, and nobody’s name.
  expect(ok(await priya.call('myRequest', at())).atWork).toEqual(['Reason']);
  // What somebody may not read they are not told of.
  const [oskar] = [await desk.as('Oskar Veldhuis')];
  await says(priya, 'medical_note', 'visitor', 'reason');
  const seen = (await others(ilse)).find(({ asked }: { asked: boolean }) => asked);
  expect(seen).toEqual({ name: 'Priya Nakamura-Lind', asked: true, fields: ['visitor'] });
  const known = await oskar.call('changedBy', at());
  if (known.status === 200)
    expect(known.body.others.find(({ asked }: { asked: boolean }) => asked).fields).toContain('medical_note');
});

test('what is not said any more is forgotten, at once when it is saved and else within a minute', async () => {
  await says(maren);
  await says(priya);
  expect(await others(ilse)).toEqual([]);
  await says(maren, 'reason');
  expect(await others(ilse)).toHaveLength(1);
  ok(await maren.call('advanceClock', { body: { minutes: 1 } }));
  expect(await others(ilse)).toEqual([]);
});

test('an edition opens requests to be changed, for whoever may, until they are finished', async () => {
  const key = { params: { key: 'site-access' } };
  const opening: Edition = {
    ...{ id: 'opens', name: 'Opens', on: true, when: '', opens: 'changing', differences: [] },
    audience: { in: { anyOf: ['estates'] }, outOf: [], requester: 'in' },
  };
  const form = ok(await maren.call('form', key));
  const draft: FormDesign = { ...form.draft, editions: [opening] };
  const { version } = ok(await maren.call('saveDraft', { ...key, headers: onVersion(form.version), body: { draft } }));
  ok(await maren.call('releaseForm', { ...key, headers: onVersion(version), body: { note: '' } }));
  const later = ok(await priya.submit('come-on-site', VISIT, { release: 2 })).number;
  const params = { params: { number: later } };
  expect(ok(await ilse.call('sheet', params)).edition).toMatchObject({ name: 'Opens', opensToChange: true });
  expect(ok(await priya.call('myRequest', params)).opensToChange).toBe(true);
  // By hand, past a decision.
  let sheet = ok(await maren.call('sheet', params));
  for (let step = 0; step < 5 && sheet.stage.phase !== 'finished'; step += 1) {
    const to = sheet.moves.find(({ phase }: { phase: string }) => phase === 'finished') ?? sheet.moves[0];
    ok(await maren.call('moveStage', { ...params, headers: onVersion(sheet.version), body: { stage: to.key } }));
    sheet = ok(await maren.call('sheet', params));
  }
  expect(sheet.stage.phase).toBe('finished');
  expect(ok(await ilse.call('sheet', params)).edition?.opensToChange).toBe(false);
});
