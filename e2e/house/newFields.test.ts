import type { FormDesign } from '@tolvek/core/form';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const of = { params: { key: 'site-access' } };
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const NEW = ['badge_name', 'gate_code'];

/** The draft with a question of its own and a field that staff fill in. */
const withNew = ({ fields, parts, ...draft }: FormDesign): FormDesign => ({
  ...draft,
  fields: [
    ...fields,
    { key: 'badge_name', label: 'Name on the badge', type: { kind: 'text' }, source: 'asked' },
    { key: 'gate_code', label: 'Gate code', type: { kind: 'text' }, source: 'desk-only' },
  ],
  parts: [...parts, { part: 'question', field: 'badge_name', asks: 'Name on the badge', help: '', required: false }],
});

/** What somebody may do with the new fields of a request, by name. */
async function seen(who: Caller, number: string): Promise<Readonly<Record<string, string>>> {
  const sheet = await who.call('sheet', { params: { number } });
  const { values } = sheet.status === 200 ? sheet.body : ok(await who.call('myRequest', { params: { number } }));
  const found = (values.fields as { key: string; writable: boolean }[]).filter(({ key }) => NEW.includes(key));
  return Object.fromEntries(found.map(({ key, writable }) => [key, writable ? 'write' : 'read']));
}

test('a new field is closed to all but whoever asks and builds until it has its place; one step back it is so again', async () => {
  const [maren, priya, oskar, ilse] = await Promise.all(
    ['Maren Okafor', 'Priya Nakamura-Lind', 'Oskar Veldhuis', 'Ilse Brandvold'].map((name) => desk.as(name)),
  );
  if (!maren || !priya || !oskar || !ilse) throw new Error('Nobody is here.');
  const form = ok(await maren.call('form', of));
  const draft = withNew(form.draft);
  const saved = ok(await maren.call('saveDraft', { ...of, headers: onVersion(form.version), body: { draft } }));
  const found = ok(await maren.call('form', of)).findings as { place?: string[]; severity: string; message: object }[];
  expect(found.filter(({ place }) => place).map(({ place, severity }) => [severity, place])).toEqual([
    ['caution', NEW],
  ]);
  ok(await maren.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }));
  const { number } = ok(await priya.submit('come-on-site', { ...VISIT, badge_name: 'P. Nakamura' }, { release: 2 }));
  const everybody = async () => ({
    maren: await seen(maren, number),
    priya: await seen(priya, number),
    oskar: await seen(oskar, number),
    ilse: await seen(ilse, number),
  });
  const closed = { maren: { gate_code: 'write' }, priya: { badge_name: 'read' }, oskar: {}, ilse: {} };
  expect(await everybody()).toEqual(closed);
  // Wherever it could be told, it is not: who may not read it asks as of a field that is not there.
  const file = await fetch(`${desk.running.url}/api/forms/site-access/requests.csv?among=all`, {
    headers: { Cookie: maren.cookie },
  });
  expect([file.status, (await file.text()).includes('P. Nakamura')]).toEqual([200, false]);
  const plan = ok(await maren.call('accessPlan', of));
  expect(plan.unplaced).toEqual(NEW);

  ok(await maren.call('placeFields', { ...of, body: { fields: ['badge_name'] } }));
  const open = { badge_name: 'write' };
  expect(await everybody()).toEqual({
    ...{ maren: { ...open, gate_code: 'write' }, priya: { badge_name: 'read' }, oskar: open, ilse: open },
  });
  // The other one by the plan: for some people alone, and with that it has its place.
  const now = ok(await maren.call('accessPlan', of));
  const rule = {
    ...{ id: 'gate', name: 'Gate codes', fields: ['gate_code'], level: 'hidden' },
    audience: { in: { everyone: true }, outOf: ['site-safety', `@${desk.idOf('Maren Okafor')}`], requester: 'out' },
  };
  const kept = ok(
    await maren.call('keepAccessPlan', {
      ...of,
      headers: onVersion(now.version),
      body: { ...now.draft, rules: [...now.draft.rules, rule] },
    }),
  );
  expect([kept.unplaced, kept.changes.placed, kept.changes.added]).toEqual([[], ['Gate code'], ['Gate codes']]);
  const effect = ok(await maren.call('accessPlanEffect', of));
  expect([effect.mayNotOpen, effect.yours]).toEqual([[], []]);
  expect(effect.fields.map(({ field }: { field: string }) => field)).toContain('gate_code');
  ok(
    await maren.call('putAccessPlan', {
      ...of,
      headers: onVersion(kept.version),
      body: { note: '', closesToMyself: false },
    }),
  );
  const both = { ...open, gate_code: 'write' };
  expect(await everybody()).toEqual({ maren: both, priya: { badge_name: 'read' }, oskar: both, ilse: open });

  const { before, version } = ok(await maren.call('accessPlan', of));
  const { by: _, at: __, own: ___, ...was } = before;
  const back = ok(await maren.call('keepAccessPlan', { ...of, headers: onVersion(version), body: was }));
  expect([back.unplaced, back.changes.removed]).toEqual([['gate_code'], ['Gate codes']]);
  ok(
    await maren.call('putAccessPlan', {
      ...of,
      headers: onVersion(back.version),
      body: { note: '', closesToMyself: false },
    }),
  );
  expect(await everybody()).toEqual({ maren: both, priya: { badge_name: 'read' }, oskar: open, ilse: open });
  const { planHistory } = ok(await maren.call('form', of));
  expect(JSON.stringify(planHistory)).toContain('Name on the badge');
});

test('whoever a rule keeps out of all fields gains none by a place, and routing by what has none is an error', async () => {
  const maren = await desk.as('Maren Okafor');
  const { access } = desk.register('site-access');
  desk.protect('site-access', {
    ...access,
    placed: (access.placed ?? []).filter((key) => key !== 'badge_name'),
    rules: [
      ...access.rules,
      {
        ...{ id: 'kept-out', name: 'Kept out', fields: 'all', level: 'hidden' },
        audience: { in: { anyOf: ['estates'] }, outOf: [] },
      },
    ],
  });
  const ilse = await desk.as('Ilse Brandvold');
  const priya = await desk.as('Priya Nakamura-Lind');
  const { number } = ok(await priya.submit('come-on-site', { ...VISIT, badge_name: 'P. N. Lind' }, { release: 2 }));
  expect(await seen(maren, number)).toEqual({ gate_code: 'write' });
  ok(await maren.call('placeFields', { ...of, body: { fields: NEW } }));
  expect(await seen(maren, number)).toEqual({ badge_name: 'write', gate_code: 'write' });
  const sheet = await ilse.call('sheet', { params: { number } });
  expect(sheet.status === 200 ? sheet.body.values.fields : []).toEqual([]);
  expect((await maren.call('placeFields', { ...of, body: { fields: ['nothing'] } })).status).toBe(404);

  // A route by a field that only the requester reads would tell the desk of it.
  desk.protect('site-access', { ...desk.register('site-access').access, placed: [], rules: [] });
  const form = ok(await maren.call('form', of));
  const errors = (form.findings as { severity: string; place?: string[] }[]).filter(
    ({ severity, place }) => severity === 'error' && place,
  );
  expect(errors.length).toBeGreaterThan(0);
  expect(errors.every(({ place }) => place?.length === 1)).toBe(true);
});
