import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, tripOf } from './desk.ts';

// What was begun is kept: for staff on any device, from outside behind a link that only its letter
// holds.
let desk: Desk;
let priya: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  [priya, stranger] = [await desk.as('Priya Nakamura-Lind'), await desk.as()];
});
afterAll(() => desk.close());

const SITE = { visitor: 'Orla Whelan', reason: 'Crane' };
const NOOR = { name: 'Noor Castellan', email: 'noor.castellan@corrin.example' };

describe('what one of the staff began', () => {
  const keep = (answers: object, typedAt: number) =>
    priya.call('keepAnswers', { params: { slug: 'vessel-time' }, body: { answers, typedAt } });
  const door = async (who: Caller) => (await who.call('door', { params: { slug: 'vessel-time' } })).body.form.kept;

  it('is there on another device, with what its references point to, and for nobody else', async () => {
    const vessel = desk.things().get('Skiff');
    expect((await keep({ vessel, purpose: 'Tide' }, 7)).body).toEqual({ kept: true });
    const elsewhere = await desk.as('Priya Nakamura-Lind');
    expect(await door(elsewhere)).toMatchObject({
      answers: { vessel, purpose: 'Tide' },
      typedAt: 7,
      references: [{ label: 'Skiff, open boat' }],
    });
    expect((await elsewhere.call('frontDesk')).body.begun).toEqual([{ slug: 'vessel-time', title: 'Vessel time' }]);
    expect(await door(await desk.as('Hanne Istvan'))).toBe(null);
    expect(
      (
        await stranger.call('keepAnswers', {
          params: { slug: 'vessel-time' },
          body: { answers: { purpose: 'x' }, typedAt: 1 },
        })
      ).status,
    ).toBe(401);
  });

  it('is forgotten when it is cleared, and when it is sent', async () => {
    expect((await keep({}, 8)).body).toEqual({ kept: false });
    expect(await door(priya)).toBe(null);
    await keep({ purpose: 'Tide' }, 9);
    const sent = await priya.submit('vessel-time', tripOf(desk.things()));
    expect(sent.body.state).toBe('arrived');
    expect([await door(priya), (await priya.call('frontDesk')).body.begun]).toEqual([null, []]);
  });
});

describe('what was begun from outside', () => {
  const body = (answers: object, typedAt = 1) => ({ answers, contact: NOOR, typedAt });

  it('is reached by the link in the letter alone, which repeats nothing of it', async () => {
    expect((await stranger.call('sendKept', { params: { slug: 'visit' }, body: body(SITE) })).body).toEqual({
      email: NOOR.email,
    });
    const token = await desk.tokenFor(NOOR.email, 'go on');
    const letter = (await desk.letters()).find((each) => each.text.includes(token));
    expect(letter?.text).not.toContain('Crane');
    expect((await stranger.call('kept', { params: { token } })).body).toMatchObject({
      slug: 'visit',
      answers: SITE,
      contact: NOOR,
      files: [],
    });
    expect(
      (await stranger.call('keepKept', { params: { token }, body: body({ ...SITE, reason: 'Intake' }, 2) })).status,
    ).toBe(200);
    expect((await stranger.call('kept', { params: { token } })).body.answers.reason).toBe('Intake');
    expect(
      (await stranger.call('kept', { params: { token: token.slice(0, -1) + (token.endsWith('x') ? 'y' : 'x') } }))
        .status,
    ).toBe(404);
    // Once sent, there is nothing left behind it.
    const all = {
      visitor: 'Orla Whelan',
      institute: 'corrin',
      reason: 'Intake',
      arrival: '2026-12-01',
      departure: '2026-12-02',
      works_on_water: false,
      fee: '',
      medical_note: '',
    };
    expect((await stranger.submit('visit', all, { contact: NOOR })).body.state).toBe('to-confirm');
    expect((await stranger.call('kept', { params: { token } })).body.title).toBe('These answers were sent or deleted.');
  });

  it('needs an address, and ends after fourteen days', async () => {
    const bad = await stranger.call('sendKept', {
      params: { slug: 'visit' },
      body: { answers: SITE, contact: { name: '', email: 'nowhere' }, typedAt: 1 },
    });
    expect(bad.body.problems.map((problem: { field: string }) => problem.field)).toEqual(['contact.email']);
    await stranger.call('sendKept', {
      params: { slug: 'visit' },
      body: { answers: SITE, contact: { name: '', email: 'late@corrin.example' }, typedAt: 1 },
    });
    const token = await desk.tokenFor('late@corrin.example', 'go on');
    await stranger.call('advanceClock', { body: { minutes: 15 * 24 * 60 } });
    expect((await stranger.call('kept', { params: { token } })).body.title).toBe('This link is too old.');
  });
});
