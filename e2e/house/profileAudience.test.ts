import type { AccessRule } from '@tolvek/core/access';
import { people } from '@tolvek/server/schema';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

let desk: Desk;
let maren: Caller;
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const of = { params: { key: 'site-access' } };
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const SITE = 'me.site = "pier_house"';

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  const { version, fields } = ok(await maren.call('profile'));
  const options = ['pier_house', 'field_house'].map((key) => ({ key, label: `At ${key}` }));
  const site = { key: 'site', label: 'Site', type: { kind: 'choice', options }, of: 'staff' };
  const others = fields.filter(({ key }: { key: string }) => key !== 'site');
  ok(await maren.call('changeProfile', { headers: onVersion(version), body: { fields: [...others, site] } }));
});
afterAll(() => desk.close());

const at = async (name: string, site: string): Promise<void> => {
  const params = { id: desk.idOf(name) };
  const { version, profile } = ok(await maren.call('person', { params }));
  const body = { profile: { ...profile, site } };
  ok(await maren.call('changePerson', { params, headers: onVersion(version), body }));
};
const keep = async (rules: readonly object[]): Promise<Answer> => {
  const { version } = ok(await maren.call('accessPlan', of));
  return maren.call('keepAccessPlan', { ...of, headers: onVersion(version), body: { rules, resting: [] } });
};
const put = async (): Promise<Answer> => {
  const { version } = ok(await maren.call('accessPlan', of));
  const body = { note: '', closesToMyself: false };
  return maren.call('putAccessPlan', { ...of, headers: onVersion(version), body });
};
const sees = async (who: Caller, number: string, field: string): Promise<boolean> => {
  const sheet = await who.call('sheet', { params: { number } });
  const { values } = sheet.status === 200 ? sheet.body : ok(await who.call('myRequest', { params: { number } }));
  return (values.fields as { key: string }[]).some(({ key }) => key === field);
};

test('a rule is for whoever meets a condition on their profile, at once as it changes, and told by name', async () => {
  await at('Ilse Brandvold', 'pier_house');
  await at('Oskar Veldhuis', 'field_house');
  await at('Maren Okafor', 'field_house');
  const [ilse, oskar, priya] = await Promise.all(
    ['Ilse Brandvold', 'Oskar Veldhuis', 'Priya Nakamura-Lind'].map((name) => desk.as(name)),
  );
  if (!ilse || !oskar || !priya) throw new Error('Nobody is here.');
  const { number } = ok(await priya.submit('come-on-site', VISIT));
  const { rules } = desk.register('site-access').access;
  const rule: AccessRule = {
    ...{ id: 'pier', name: 'Not at the pier', fields: ['reason'], level: 'hidden' },
    audience: { in: { anyOf: [`?${SITE}`] }, outOf: [], requester: 'out' },
  };
  const kept = ok(await keep([...rules, rule]));
  expect(kept.problems).toEqual([]);
  // Whom it means today, by name, and what it would change for them.
  expect(kept.told.pier.names).toContain('Ilse Brandvold');
  expect(kept.told.pier.names).not.toContain('Oskar Veldhuis');
  const effect = ok(await maren.call('accessPlanEffect', of));
  const changes = new Map(
    (effect.people as { name: string; fields: { field: string; after: string }[] }[]).map(({ name, fields }) => [
      name,
      fields.map(({ field, after }) => `${field} ${after}`),
    ]),
  );
  expect([changes.get('Ilse Brandvold'), changes.has('Oskar Veldhuis')]).toEqual([['reason hidden'], false]);
  const as = { person: desk.idOf('Ilse Brandvold') };
  const through = async (plan: 'force' | 'draft') =>
    ok(await maren.call('seeAs', { params: { number }, body: { as, plan, stage: null } })).fields.find(
      ({ key }: { key: string }) => key === 'reason',
    ).level;
  expect([await through('force'), await through('draft')]).toEqual(['write', 'hidden']);
  expect(await sees(ilse, number, 'reason')).toBe(true);
  ok(await put());
  expect([await sees(ilse, number, 'reason'), await sees(oskar, number, 'reason')]).toEqual([false, true]);
  // What is being written meanwhile takes nothing from what is in force.
  ok(await keep(rules));
  expect(await sees(ilse, number, 'reason')).toBe(false);
  ok(await keep([...rules, rule]));
  const readers = ok(await maren.call('fieldReaders', { ...of, query: { field: 'reason' } }));
  const level = (name: string) =>
    (readers.people as { name: string; levels: { level: string }[] }[])
      .find((each) => each.name === name)
      ?.levels.map((each) => each.level);
  expect([level('Ilse Brandvold') ?? ['hidden'], level('Oskar Veldhuis')]).toEqual([['hidden'], ['write']]);
  // Who moves elsewhere reads it from then on, and the other way round.
  await at('Ilse Brandvold', 'field_house');
  await at('Oskar Veldhuis', 'pier_house');
  expect([await sees(ilse, number, 'reason'), await sees(oskar, number, 'reason')]).toEqual([true, false]);
  const { uses } = ok(await maren.call('profile'));
  expect(JSON.stringify(uses)).toContain('registers/site-access');
  // What a profile no longer holds is said where the plan names it.
  const unreadable = { ...rule, audience: { ...rule.audience, in: { anyOf: ['?me.nothing = "x"'] } } };
  const wrong = ok(await keep([...rules, unreadable]));
  expect(wrong.problems.length).toBeGreaterThan(0);
  expect((await put()).status).toBe(422);
  // Nobody is asked for a condition any more that no plan names.
  ok(await keep(rules));
  ok(await put());
  expect(await sees(oskar, number, 'reason')).toBe(true);
});

test('a rule for people from outside counts for a requester from outside, and for none of the staff', async () => {
  const { rules } = desk.register('site-access').access;
  const rule = {
    ...{ id: 'outside', name: 'Not for outside', fields: ['reason'], level: 'hidden' },
    audience: { in: { anyOf: ['~contact'] }, outOf: [] },
  };
  ok(await keep([...rules, rule]));
  ok(await put());
  const priya = await desk.as('Priya Nakamura-Lind');
  const { number } = ok(await priya.submit('come-on-site', VISIT));
  expect([await sees(priya, number, 'reason'), await sees(maren, number, 'reason')]).toEqual([true, true]);
  // The same request, asked by somebody from outside.
  const contact = desk.running.house.db
    .select()
    .from(people)
    .where(and(eq(people.kind, 'contact'), eq(people.active, true)))
    .get();
  const seen = ok(
    await maren.call('seeAs', {
      params: { number: await askedBy(contact?.email ?? '', contact?.name ?? '') },
      body: { as: { person: contact?.id ?? '' }, plan: 'force', stage: null },
    }),
  );
  expect(seen.sees).toBe('own');
  const levels = new Map(
    (seen.fields as { key: string; level: string }[]).map(({ key, level }) => [key, level] as const),
  );
  expect([levels.get('reason'), levels.get('visitor')]).toEqual(['hidden', 'read']);
});

/** The number of a request that somebody from outside sent and confirmed. */
async function askedBy(email: string, name: string): Promise<string> {
  const stranger = await desk.as();
  ok(await stranger.submit('visit', VISIT, { contact: { name, email } }));
  const token = await desk.tokenFor(email, 'confirm');
  return ok(await stranger.call('confirm', { params: { token }, headers: { 'Idempotency-Key': token } })).number;
}
