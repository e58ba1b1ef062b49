import type { DoorDesign } from '@tolvek/core/door';
import { memberships, people } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

let desk: Desk;
let maren: Caller;
let oskar: Caller;
let priya: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  oskar = await desk.as('Oskar Veldhuis');
  priya = await desk.as('Priya Nakamura-Lind');
  stranger = await desk.as();
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const state = async (slug: string): Promise<{ version: number; door: DoorDesign }> =>
  ok(await maren.call('doorDesign', { params: { slug } }));
/** Changes a door on the version it has. */
const set = async (slug: string, change: Partial<DoorDesign>, note = ''): Promise<Answer> => {
  const { version, door } = await state(slug);
  return maren.call('changeDoor', {
    ...{ params: { slug }, headers: { 'If-Match': `"${version}"` }, body: { door: { ...door, ...change }, note } },
  });
};
const asks = async (who: Caller): Promise<readonly string[]> =>
  ok(await who.call('frontDesk')).forms.map(({ slug }: { slug: string }) => slug);
const EVERYBODY = { in: { everyone: true }, outOf: [] } as const;
const fieldsOf = (answer: Answer): readonly string[] =>
  answer.body.problems.map(({ field }: { field: string }) => field);

describe('a door', () => {
  it('is for those it is meant for: others don’t find it, and can’t ask by it', async () => {
    const me = ok(await oskar.call('me')).person.groups as readonly string[];
    const others = ok(await priya.call('me')).person.groups as readonly string[];
    const only = me.find((group) => !others.includes(group)) ?? '';
    expect(only).not.toBe('');
    ok(await set('come-on-site', { audience: { in: { anyOf: [only] }, outOf: [] } }));
    expect([await asks(oskar), await asks(priya)].map((forms) => forms.includes('come-on-site'))).toEqual([
      true,
      false,
    ]);
    ok(await oskar.submit('come-on-site', VISIT));
    const refused = await priya.submit('come-on-site', VISIT);
    expect([refused.status, refused.body.title]).toEqual([403, 'This form is for other people.']);
    const page = ok(await priya.call('door', { params: { slug: 'come-on-site' } }));
    expect([page.form, page.refusal]).toEqual([null, 'This form is for other people.']);
    expect(
      (await priya.call('checkAnswers', { params: { slug: 'come-on-site' }, body: { answers: VISIT } })).status,
    ).toBe(403);
    ok(await set('come-on-site', { audience: EVERYBODY }));
    ok(await priya.submit('come-on-site', VISIT));
  });

  it('takes so many from each and so many in all, counted when a request comes', async () => {
    ok(await set('come-on-site', { limits: [{ id: 'each-day', most: 2, of: 'each', days: 1 }] }));
    // Both have asked once today.
    ok(await oskar.submit('come-on-site', VISIT));
    const third = await oskar.submit('come-on-site', VISIT);
    expect([third.status, third.body.title]).toEqual([409, expect.stringContaining('2 requests a day')]);
    ok(await priya.submit('come-on-site', VISIT));
    await stranger.call('advanceClock', { body: { minutes: 24 * 60 } });
    ok(await oskar.submit('come-on-site', VISIT));

    ok(await set('come-on-site', { limits: [{ id: 'all', most: 6, of: 'all', days: null }] }));
    expect(ok(await maren.call('doorDesign', { params: { slug: 'come-on-site' } })).used).toEqual([
      { limit: 'all', n: 5 },
    ]);
    ok(await priya.submit('come-on-site', VISIT));
    const seventh = await priya.submit('come-on-site', VISIT);
    expect([seventh.status, seventh.body.title]).toEqual([409, 'This form accepts no more requests.']);
    ok(await set('come-on-site', { limits: [] }));
  });

  it('counts who comes from outside when their address is theirs', async () => {
    ok(await set('visit', { limits: [{ id: 'each', most: 1, of: 'each', days: null }] }));
    const contact = { name: 'Ida Vestergren', email: 'ida.vestergren@merrow.example' };
    const typed = { ...VISIT, arrival: '2026-12-07', departure: '2026-12-08' };
    const sent: string[] = [];
    for (const visitor of ['Ida', 'Ida again']) {
      ok(await stranger.submit('visit', { ...typed, visitor }, { contact }));
      sent.push(await desk.tokenFor(contact.email, 'confirm'));
    }
    ok(await stranger.call('confirm', { params: { token: sent[0] ?? '' } }));
    const second = await stranger.call('confirm', { params: { token: sent[1] ?? '' } });
    expect([second.status, second.body.title]).toEqual([
      409,
      'You can send 1 request with this form. You have sent it.',
    ]);
    ok(await set('visit', { limits: [] }));
    ok(await stranger.call('confirm', { params: { token: sent[1] ?? '' } }));
  });

  it('is one of several, each with its own times and words', async () => {
    const key = 'site-access';
    const once = { 'Idempotency-Key': crypto.randomUUID() };
    const input = { params: { key }, headers: once, body: { name: 'Open day', proof: 'confirmed-address' } };
    const { slug } = ok(await maren.call('addDoor', input));
    expect(ok(await maren.call('addDoor', input)).slug).toBe(slug);
    const listed = ok(await maren.call('form', { params: { key } })).doors as { slug: string; name: string }[];
    expect(listed.map(({ name }) => name)).toEqual(['Staff door', 'Outside door', 'Open day']);
    // Who asks finds the form once, by a door that is open to them.
    const second = ok(
      await maren.call('addDoor', {
        ...{ params: { key }, headers: { 'Idempotency-Key': crypto.randomUUID() } },
        body: { name: 'For divers', proof: 'sign-in' },
      }),
    ).slug as string;
    const found = async (): Promise<readonly string[]> =>
      (await asks(oskar)).filter((each) => each === second || each === 'come-on-site');
    expect(await found()).toEqual(['come-on-site']);
    ok(await set('come-on-site', { open: false }));
    expect(await found()).toEqual([second]);
    ok(await set('come-on-site', { open: true }));
    const now = desk.running.house.clock.now();
    ok(
      await set(
        slug,
        { opensAt: now + 3_600_000, closesAt: now + 7_200_000, closedMessage: 'Come at noon.' },
        'For the open day',
      ),
    );
    const [door, visit] = [slug, 'visit'].map((each) => stranger.call('door', { params: { slug: each } }));
    expect(ok((await door) as Answer).refusal).toBe('Come at noon.');
    expect(ok((await visit) as Answer).refusal).toBeNull();
    await stranger.call('advanceClock', { body: { minutes: 60 } });
    const contact = { name: 'Per Anders', email: 'per.anders@merrow.example' };
    ok(await stranger.submit(slug, { ...VISIT, arrival: '2026-12-07', departure: '2026-12-08' }, { contact }));
    await stranger.call('advanceClock', { body: { minutes: 60 } });
    const late = await stranger.call('confirm', { params: { token: await desk.tokenFor(contact.email, 'confirm') } });
    expect([late.status, late.body.title]).toEqual([409, 'Come at noon.']);
    const { states } = ok(await maren.call('doorDesign', { params: { slug } }));
    expect(
      states.map(({ number, note, by }: { number: number; note: string; by: string }) => [number, note, by]),
    ).toEqual([
      [2, 'For the open day', 'Maren Okafor'],
      [1, '', 'Maren Okafor'],
    ]);
    expect(states[1].door).toMatchObject({ name: 'Open day', opensAt: null });
  });

  it('refuses what would let nobody in, groups there are not, another kind, and a change on what it was', async () => {
    expect(fieldsOf(await set('visit', { name: '', opensAt: 2, closesAt: 1 }))).toEqual(['name', 'closesAt']);
    expect(fieldsOf(await set('visit', { audience: { in: { anyOf: ['nobody'] }, outOf: [] } }))).toEqual(['audience']);
    expect(fieldsOf(await set('visit', { proof: 'sign-in' }))).toEqual(['proof']);
    const { version, door } = await state('visit');
    ok(await maren.call('setDoor', { params: { slug: 'visit' }, body: { open: false, closedMessage: 'Later.' } }));
    const stale = { params: { slug: 'visit' }, headers: { 'If-Match': `"${version}"` }, body: { door, note: '' } };
    expect((await maren.call('changeDoor', stale)).status).toBe(412);
    expect(await state('visit')).toMatchObject({
      version: version + 1,
      door: { open: false, closedMessage: 'Later.' },
    });
    expect((await oskar.call('changeDoor', stale)).status).toBe(403);
  });
});

describe('whom a door means', () => {
  it('is counted as it is written, with who comes in, who drops out, and who is caught by an exclusion', async () => {
    const { db } = desk.running.house;
    const { door } = await state('come-on-site');
    const reach = async (change: Partial<DoorDesign>) =>
      ok(await maren.call('tryDoor', { params: { slug: 'come-on-site' }, body: { door: { ...door, ...change } } }));
    const active = db.select().from(people).where(eq(people.active, true)).all();
    const isStaff = ({ kind }: { kind: string }): boolean => kind === 'staff';
    const staff = active.filter(isStaff);
    const inGroup = (key: string): readonly string[] => {
      const ids = db.select().from(memberships).where(eq(memberships.groupKey, key)).all();
      return ids.map(({ personId }) => active.find(({ id }) => id === personId)?.name ?? '').sort();
    };
    const nobody = { n: 0, names: [] };
    expect(await reach({})).toEqual({
      staff: staff.length,
      contacts: 0,
      comeIn: nobody,
      dropOut: nobody,
      leftOut: nobody,
    });
    const boats = inGroup('boats');
    const some = await reach({ audience: { in: { anyOf: ['boats', 'stores'] }, outOf: ['boats'] } });
    expect([some.staff, some.leftOut.names]).toEqual([inGroup('stores').length, boats]);
    expect(some.dropOut.n).toBe(staff.length - inGroup('stores').length);
    expect(await reach({ onlySent: true })).toMatchObject({ staff: 0, dropOut: { n: staff.length } });
    // From outside, contacts as well; those who can’t come in any more are meant by none.
    const outside = ok(
      await maren.call('tryDoor', { params: { slug: 'visit' }, body: { door: (await state('visit')).door } }),
    );
    expect([outside.staff, outside.contacts]).toEqual([staff.length, active.length - staff.length]);
    expect((await priya.call('tryDoor', { params: { slug: 'visit' }, body: { door } })).status).toBe(403);
  });
});
