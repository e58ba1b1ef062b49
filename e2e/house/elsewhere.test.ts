import type { Edition, FormDesign } from '@tolvek/core/form';
import type { DeskSettings } from '@tolvek/core/settings';
import { requests } from '@tolvek/server/schema';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, ok, onVersion, tripOf, VISIT } from './desk.ts';

// E8: an edition may lead to another form, or to an address elsewhere.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let bram: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, bram, stranger] = await Promise.all([
    desk.as('Maren Okafor'),
    desk.as('Priya Nakamura-Lind'),
    desk.as('Bram Solheim'),
    desk.as(),
  ]);
});
afterAll(() => desk.close());

const everyone = { in: { everyone: true as const }, outOf: [] };
const leading = (elsewhere: Edition['elsewhere'], audience: Edition['audience'] = everyone): Edition => ({
  ...{ id: 'leads', name: 'Leads on', on: true, audience, when: '', differences: [] },
  elsewhere,
});
/** Puts the editions of a form in force, and gives what was found in its draft. */
async function give(key: string, ...editions: readonly Edition[]): Promise<readonly string[]> {
  const params = { key };
  const form = ok(await maren.call('form', { params }));
  const { editions: _, ...rest } = form.draft as FormDesign;
  const draft = editions.length > 0 ? { ...rest, editions } : rest;
  const saved = ok(await maren.call('saveDraft', { params, headers: onVersion(form.version), body: { draft } }));
  const found = (saved.findings as { page: string; message: string }[]).filter(({ page }) => page === 'editions');
  const released = await maren.call('releaseForm', { params, headers: onVersion(saved.version), body: { note: '' } });
  return [...found.map(({ message }) => message), ...(released.status === 200 ? [] : ['not released'])];
}
const door = async (by: Caller, slug: string) => ok(await by.call('door', { params: { slug } }));
const allow = async (hosts: readonly string[]) => {
  const { desk: settings, version } = ok(await maren.call('deskSettings'));
  const body = { desk: { ...(settings as DeskSettings), hosts }, note: '' };
  return maren.call('changeDesk', { headers: onVersion(version), body });
};
const release = async (key: string): Promise<number> =>
  ok(await maren.call('form', { params: { key } })).releases?.at(0)?.number ?? 1;

describe('an edition that leads to another form', () => {
  it('opens that one for whom it is, and takes nothing in by this one', async () => {
    expect(
      await give('purchase', leading({ form: 'field-kit-loan' }, { in: { anyOf: ['boats'] }, outOf: [] })),
    ).toEqual([]);
    const led = await door(bram, 'purchase');
    expect([led.leadsTo, led.form]).toEqual([{ to: 'form', slug: 'field-kit-loan', title: 'Field kit loan' }, null]);
    expect([(await door(priya, 'purchase')).leadsTo, (await door(priya, 'purchase')).form === null]).toEqual([
      null,
      false,
    ]);
    const before = desk.running.house.db.select().from(requests).all().length;
    const refused = await bram.submit('purchase', {}, { release: 2 });
    expect([refused.status, refused.body.type.split(':').at(-1), refused.body.title]).toEqual([
      ...[409, 'elsewhere', 'You ask for this somewhere else by now: Field kit loan.'],
    ]);
    expect(desk.running.house.db.select().from(requests).all()).toHaveLength(before);
  });

  it('leads on where that one leads on, says where nobody comes in, and ends where it would go round', async () => {
    const trap = async () => (await door(bram, 'purchase')).leadsTo;
    expect(await give('field-kit-loan', leading({ form: 'vessel-time' }))).toEqual([]);
    expect(await trap()).toEqual({ to: 'form', slug: 'vessel-time', title: 'Vessel time' });
    // Its doors are closed: by the first that would let them in, or by none.
    for (const slug of ['vessel-time', 'vessel-time-from-outside'])
      ok(await maren.call('setDoor', { params: { slug }, body: { open: false, closedMessage: '' } }));
    expect(await trap()).toEqual({ to: 'form', slug: null, title: 'Vessel time' });
    ok(
      await maren.call('setDoor', {
        params: { slug: 'vessel-time-from-outside' },
        body: { open: true, closedMessage: '' },
      }),
    );
    expect(await trap()).toMatchObject({ slug: 'vessel-time-from-outside' });
    ok(await maren.call('setDoor', { params: { slug: 'vessel-time' }, body: { open: true, closedMessage: '' } }));
    expect(await give('vessel-time', leading({ form: 'purchase' }))).toEqual([
      '“Leads on” may lead back here: Vessel time, Purchase, Field kit loan, Vessel time. Whoever goes round gets this form. Change one of the editions.',
    ]);
    // Whoever would go round asks here.
    expect([await trap(), (await door(bram, 'purchase')).form === null]).toEqual([null, false]);
    expect((await bram.submit('purchase', {}, { release: 2 })).status).toBe(422);
    await give('vessel-time');
    await give('field-kit-loan');
  });

  it('is a finding where that one is not there, or is this one', async () => {
    for (const [elsewhere, says] of [
      [{ form: 'nothing-like-it' }, 'leads to a form that does not exist'],
      [{ form: 'dive-plan' }, 'leads to this form itself'],
    ] as const) {
      const [first = '', ...rest] = await give('dive-plan', leading(elsewhere));
      expect([first.includes(says), rest.includes('not released')]).toEqual([true, true]);
    }
    const [never = ''] = await give('dive-plan', { ...leading({ form: 'purchase' }), stages: ['done'] });
    expect(never).toContain('is not given while somebody asks');
  });

  it('is left out once somebody has asked: the request reads as it did', async () => {
    const { number } = (
      await priya.submit('vessel-time', tripOf(desk.things()), { release: await release('vessel-time') })
    ).body;
    await give('vessel-time', leading({ form: 'purchase' }));
    const own = ok(await priya.call('myRequest', { params: { number } }));
    expect(own.values.fields.length).toBeGreaterThan(5);
    await give('vessel-time');
  });
});

describe('an edition that leads elsewhere by what is answered', () => {
  const trips = { ...leading({ form: 'vessel-time' }), when: 'works_on_water and reason = "a trip"' };
  const check = async (by: Caller, answers: object) =>
    ok(await by.call('checkAnswers', { params: { slug: 'come-on-site' }, body: { answers } })).leadsTo;
  const trip = { ...VISIT, reason: 'a trip', works_on_water: true, survival_until: '2027-05-01' };

  it('leads there once they answer so, and takes nothing in here; before and otherwise they are asked here', async () => {
    expect(await give('site-access', trips)).toEqual([]);
    const opened = await door(priya, 'come-on-site');
    expect([opened.leadsTo, opened.form.leadsBy]).toEqual([null, ['reason', 'works_on_water']]);
    expect(await check(priya, { works_on_water: true })).toBeNull();
    expect(await check(priya, trip)).toEqual({ to: 'form', slug: 'vessel-time', title: 'Vessel time' });
    const number = await release('site-access');
    const led = await priya.submit('come-on-site', trip, { release: number });
    expect([led.status, led.body.type.split(':').at(-1)]).toEqual([409, 'elsewhere']);
    expect((await priya.submit('come-on-site', VISIT, { release: number })).status).toBe(200);
    const [row] = ok(
      await maren.call('editionsGiven', { params: { key: 'site-access' }, query: { find: 'priya' } }),
    ).people;
    expect([row.gets, row.verdicts[0]]).toEqual([null, { is: 'answers' }]);
  });

  it('leads nobody to whom an edition before it is given, by what their edition does not ask, or by what is for the desk', async () => {
    const short: Edition = {
      ...{ id: 'short', name: 'Short', on: true, when: '', audience: { in: { anyOf: ['boats'] }, outOf: [] } },
      differences: [{ does: 'hide', part: 'reason' }],
    };
    await give('site-access', short, trips);
    expect([(await door(bram, 'come-on-site')).form.leadsBy, await check(bram, trip)]).toEqual([[], null]);
    await give('site-access', trips, short);
    expect([(await door(bram, 'come-on-site')).form.leadsBy, await check(bram, trip)]).toEqual([
      ['works_on_water'],
      null,
    ]);
    expect(await check(priya, trip)).not.toBeNull();
    // Another condition besides, over what nobody who asks may know.
    const [found = ''] = await give('site-access', { ...trips, when: 'works_on_water and escort = null' });
    expect(found).toContain('“Escort”');
    expect([(await door(priya, 'come-on-site')).form.leadsBy, await check(priya, trip)]).toEqual([
      ['works_on_water'],
      null,
    ]);
    await give('site-access');
  });
});

describe('an edition that leads to an address elsewhere', () => {
  it('leads to hosts that the desk allows, and nowhere else', async () => {
    const out = { in: { anyOf: ['~contact'] }, outOf: [] };
    const [closed = ''] = await give('site-access', leading({ address: 'https://gate.forms.example/visit' }, out));
    expect(closed).toContain('leads to an address that is not allowed');
    expect((await allow(['forms.example/'])).body.problems?.[0]?.field).toBe('hosts');
    ok(await allow(['forms.example']));
    expect(await give('site-access', leading({ address: 'https://gate.forms.example/visit' }, out))).toEqual([]);
    const led = await door(stranger, 'visit');
    expect([led.leadsTo, led.form]).toEqual([
      { to: 'address', address: 'https://gate.forms.example/visit', host: 'gate.forms.example' },
      null,
    ]);
    const contact = { name: 'Wim Haldane', email: 'wim.haldane@haldane.example' };
    expect((await stranger.submit('visit', VISIT, { contact, release: await release('site-access') })).status).toBe(
      409,
    );
    // Not allowed any more, nobody is led there: they ask here.
    ok(await allow([]));
    expect([(await door(stranger, 'visit')).leadsTo, (await door(stranger, 'visit')).form === null]).toEqual([
      null,
      false,
    ]);
  });
});
