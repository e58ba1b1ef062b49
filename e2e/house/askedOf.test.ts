import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

// D3: one rule for all that is done with a request, and while it is asked for as well.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let stranger: Caller;
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const CONTACT = { name: 'Wanda Ferris', email: 'wanda.ferris@merrow.example' };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, stranger] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind'), await desk.as()];
  const priyaId = ok(await priya.call('me')).person.id;
  const { access } = desk.register('site-access');
  desk.protect('site-access', {
    ...access,
    rules: [
      ...access.rules,
      {
        ...{ id: 'reasons', name: 'Reasons are for colleagues', fields: ['reason'], level: 'hidden', asking: true },
        audience: { in: { anyOf: ['~contact', `@${priyaId}`] }, outOf: [] },
      },
      {
        ...{ id: 'institute', name: 'The institute stands', fields: ['institute'], level: 'read', asking: true },
        audience: { in: { anyOf: ['~contact'] }, outOf: [] },
      },
      {
        ...{ id: 'quiet', name: 'Says nothing while one asks', fields: ['visitor'], level: 'read' },
        audience: { in: { everyone: true }, outOf: [] },
      },
    ],
  });
});
afterAll(() => desk.close());

const asks = (view: Answer['body']): readonly string[] =>
  view.form.parts.flatMap((part: { part: string; field: string }) => (part.part === 'question' ? [part.field] : []));
const without = (answers: object, ...keys: string[]): object =>
  Object.fromEntries(Object.entries(answers).filter(([key]) => !keys.includes(key)));

test('a question that the plan keeps from somebody is not asked of them, nor told to their device, and asked of everybody else', async () => {
  const own = ok(await priya.call('door', { params: { slug: 'come-on-site' } }));
  const others = ok(await maren.call('door', { params: { slug: 'come-on-site' } }));
  expect([asks(own).includes('reason'), asks(others).includes('reason')]).toEqual([false, true]);
  expect(asks(own)).toContain('visitor');
  const label = others.form.fields.find(({ key }: { key: string }) => key === 'reason').label;
  expect([JSON.stringify(own.form).includes(label), JSON.stringify(others.form).includes(label)]).toEqual([
    false,
    true,
  ]);
  const outside = ok(await stranger.call('door', { params: { slug: 'visit' } }));
  expect([asks(outside).includes('reason'), asks(outside).includes('institute')]).toEqual([false, true]);
});

test('an answer to it is refused as one to a question that is not there, and the request arrives without', async () => {
  const given = await priya.submit('come-on-site', VISIT);
  const ghost = await priya.submit('come-on-site', { ...without(VISIT, 'reason'), ghost: 'x' });
  const says = ({ body }: Answer, key: string): string => JSON.stringify(body.problems).replaceAll(key, '…');
  expect([given.status, ghost.status]).toEqual([422, 422]);
  expect(says(given, 'reason')).toBe(says(ghost, 'ghost'));
  const { number } = ok(await priya.submit('come-on-site', without(VISIT, 'reason')));
  const sheet = ok(await maren.call('sheet', { params: { number } }));
  const reason = sheet.values.fields.find(({ key }: { key: string }) => key === 'reason');
  expect(reason.value).toBe(null);
  expect(ok(await maren.submit('come-on-site', VISIT)).state).toBe('arrived');
  // What was typed before and is kept holds nothing that is not asked.
  const kept = { params: { slug: 'come-on-site' }, body: { answers: { reason: 'Kept', visitor: 'Me' }, typedAt: 1 } };
  ok(await priya.call('keepAnswers', kept));
  const again = ok(await priya.call('door', { params: { slug: 'come-on-site' } }));
  expect(again.form.kept.answers).toEqual({ visitor: 'Me' });
});

test('somebody from outside sends what they are asked, whoever they turn out to be', async () => {
  const sent = without(VISIT, 'reason', 'institute');
  ok(await stranger.submit('visit', sent, { contact: CONTACT }));
  const token = await desk.tokenFor(CONTACT.email, 'confirm');
  const { number } = ok(await stranger.call('confirm', { params: { token } }));
  const sheet = ok(await maren.call('sheet', { params: { number } }));
  expect(sheet.values.fields.find(({ key }: { key: string }) => key === 'institute').value).toBe(null);
  const filled = await stranger.submit('visit', { ...sent, institute: VISIT.institute }, { contact: CONTACT });
  // What is found filled in can’t be made otherwise: as with every locked question, what is sent for it counts for nothing.
  expect([200, 422]).toContain(filled.status);
});

test('what a plan would change while somebody asks is said before it is put in force', async () => {
  const key = 'site-access';
  const { version, draft } = ok(await maren.call('accessPlan', { params: { key } }));
  const body = { ...draft, rules: draft.rules.map((rule: object) => ({ ...rule, asking: undefined })) };
  ok(await maren.call('keepAccessPlan', { params: { key }, headers: { 'If-Match': `"${version}"` }, body }));
  const { asking } = ok(await maren.call('accessPlanEffect', { params: { key } }));
  const told = asking.map(({ field, before, after, people, outside }: Record<string, unknown>) => [
    field,
    before,
    after,
    people,
    outside,
  ]);
  expect(told.toSorted()).toEqual([
    ['institute', 'read', 'write', 0, true],
    ['reason', 'hidden', 'write', 1, true],
  ]);
  const grid = ok(await maren.call('accessPlanGrid', { params: { key }, query: { activity: 'asking' } }));
  const levels = (field: string): string[] =>
    grid.rows.find((row: { field: string }) => row.field === field).cells.map(({ level }: { level: string }) => level);
  expect(new Set(levels('reason'))).toEqual(new Set(['write']));
});
