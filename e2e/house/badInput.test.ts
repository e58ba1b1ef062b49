import { requests, waitingSubmissions } from '@tolvek/server/schema';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, VISIT, WATER } from './desk.ts';

let desk: Desk;
let priya: Caller;
let maren: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  [priya, maren, stranger] = [await desk.as('Priya Nakamura-Lind'), await desk.as('Maren Okafor'), await desk.as()];
});
afterAll(() => desk.close());

const stored = (): number =>
  desk.running.house.db.select().from(requests).all().length +
  desk.running.house.db.select().from(waitingSubmissions).all().length;
const CONTACT = { name: 'Wim Haldane', email: 'wim.haldane@haldane.example' };
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });

describe('what can’t be taken is refused clearly, and nothing is stored halfway', () => {
  it.each([
    ['malformed JSON', '{"release":1,', 400, 'malformed'],
    ['a body that is no object', '[1,2]', 400, 'not-understood'],
    ['an unknown part', JSON.stringify({ release: 1, answers: {}, admin: true }), 400, 'not-understood'],
    [
      'answers of the wrong shape',
      JSON.stringify({ release: 1, answers: { visitor: { a: 1 } } }),
      400,
      'not-understood',
    ],
    ['a huge body', JSON.stringify({ release: 1, answers: { reason: 'x'.repeat(600_000) } }), 413, 'too-large'],
  ])('%s', async (_, body, status, type) => {
    const before = stored();
    const answer = await priya.call('submit', { params: { slug: 'come-on-site' }, headers: key(), body });
    expect([answer.status, answer.body.type]).toEqual([status, `urn:tolvek:problem:${type}`]);
    expect(stored()).toBe(before);
  });

  it('names every wrong field, also those that were not asked', async () => {
    const before = stored();
    const answer = await priya.submit('come-on-site', {
      ...VISIT,
      departure: '2026-11-29',
      fee: 'lots',
      escort: 'me',
      ghost: 'x',
    });
    expect(answer.status).toBe(422);
    expect(answer.body.problems.map((problem: { field: string }) => problem.field)).toEqual([
      'fee',
      'departure',
      'escort',
      'ghost',
    ]);
    expect(stored()).toBe(before);
  });

  it('asks for a key, and refuses a key that was used for something else', async () => {
    expect(
      (await priya.call('submit', { params: { slug: 'come-on-site' }, body: { release: 1, answers: VISIT } })).body
        .type,
    ).toContain('key-missing');
    const first = await priya.submit('come-on-site', VISIT, { key: 'the-same-key' });
    const again = await priya.submit('come-on-site', VISIT, { key: 'the-same-key' });
    expect(again.body).toEqual(first.body);
    expect(
      (await priya.submit('come-on-site', { ...VISIT, visitor: 'Somebody else' }, { key: 'the-same-key' })).status,
    ).toBe(422);
  });

  it('refuses at a form that closed meanwhile, also when an address is confirmed too late', async () => {
    await stranger.submit('visit', VISIT, { contact: CONTACT });
    const token = await desk.tokenFor(CONTACT.email, 'confirm');
    await maren.call('setDoor', {
      params: { slug: 'visit' },
      body: { open: false, closedMessage: 'Closed for the open day. Ask again on Monday.' },
    });
    const before = stored();
    const atDoor = await stranger.submit('visit', VISIT, { contact: CONTACT });
    const late = await stranger.call('confirm', { params: { token } });
    for (const answer of [atDoor, late])
      expect([answer.status, answer.body.title]).toEqual([409, 'Closed for the open day. Ask again on Monday.']);
    expect(stored()).toBe(before);
    await maren.call('setDoor', { params: { slug: 'visit' }, body: { open: true, closedMessage: '' } });
    expect((await stranger.call('confirm', { params: { token } })).status).toBe(200);
    expect((await stranger.call('confirm', { params: { token } })).body.type).toContain('link-used');
  });

  it('gives answers back that can’t be confirmed any more, for whoever holds the letter', async () => {
    const contact = { name: 'Wanda Ferris', email: 'wanda.ferris@merrow.example' };
    const today = new Date(desk.running.house.clock.now()).toISOString().slice(0, 10);
    const typed = { ...VISIT, visitor: 'Wanda', arrival: today };
    expect((await stranger.submit('visit', typed, { contact })).status).toBe(200);
    const token = await desk.tokenFor(contact.email, 'confirm');
    await stranger.call('advanceClock', { body: { minutes: 24 * 60 } });
    const late = await stranger.call('confirm', { params: { token } });
    expect([late.status, late.body.problems.map((problem: { field: string }) => problem.field)]).toEqual([
      422,
      ['arrival'],
    ]);
    const back = (await stranger.call('backToAnswers', { params: { token } })).body;
    expect(back.slug).toBe('visit');
    const kept = (await stranger.call('kept', { params: { token: back.kept } })).body;
    expect(kept).toMatchObject({ slug: 'visit', answers: typed, contact });
    // The letter has done its work; what is sent now is confirmed by a letter of its own.
    expect((await stranger.call('confirm', { params: { token } })).status).toBe(410);
    expect((await stranger.call('backToAnswers', { params: { token } })).status).toBe(410);
    const again = { ...kept.answers, arrival: '2026-12-01', departure: '2026-12-02' };
    expect((await stranger.submit('visit', again, { contact })).status).toBe(200);
    const fresh = await desk.tokenFor(contact.email, 'confirm');
    expect(fresh).not.toBe(token);
    expect((await stranger.call('confirm', { params: { token: fresh } })).status).toBe(200);
    expect((await stranger.call('kept', { params: { token: back.kept } })).status).toBe(410);
  });

  it('lets nobody in by an unknown, used or expired link', async () => {
    expect((await stranger.call('follow', { params: { token: 'guess' } })).status).toBe(404);
    await stranger.submit('visit', VISIT, { contact: CONTACT });
    const token = await desk.tokenFor(CONTACT.email, 'confirm');
    expect((await stranger.call('follow', { params: { token } })).status).toBe(404);
    await stranger.call('advanceClock', { body: { minutes: 4 * 24 * 60 } });
    const expired = await stranger.call('confirm', { params: { token } });
    expect([expired.status, expired.body.type]).toEqual([410, 'urn:tolvek:problem:link-expired']);
  });

  it('refuses a contact made inactive, who still reads what they asked', async () => {
    const kasper = { name: 'Kasper Lund-Weir', email: 'kasper.lund.weir@merrow.example' };
    await stranger.submit('visit', { ...VISIT, arrival: '2026-12-09', departure: '2026-12-09' }, { contact: kasper });
    const refused = await stranger.call('confirm', { params: { token: await desk.tokenFor(kasper.email, 'confirm') } });
    expect([refused.status, refused.body.title]).toEqual([
      403,
      expect.stringContaining('cannot accept new requests from this email address'),
    ]);
  });

  it('tells of a newer release instead of taking answers to an older one', async () => {
    const form = (await maren.call('form', { params: { key: 'site-access' } })).body;
    const saved = await maren.call('saveDraft', {
      params: { key: 'site-access' },
      headers: onVersion(form.version),
      body: { draft: { ...form.draft, intro: 'New words.' } },
    });
    await maren.call('releaseForm', {
      params: { key: 'site-access' },
      headers: onVersion(saved.body.version),
      body: { note: 'Words' },
    });
    expect((await priya.submit('come-on-site', VISIT)).body.type).toContain('form-changed');
    expect(
      (await priya.submit('come-on-site', { ...VISIT, arrival: '2026-12-09', departure: '2026-12-09' }, { release: 2 }))
        .status,
    ).toBe(200);
  });

  it('lets the first of two editors through and tells the second', async () => {
    const number = (
      await priya.submit('come-on-site', { ...VISIT, arrival: '2026-12-09', departure: '2026-12-09' }, { release: 2 })
    ).body.number;
    const { version } = await maren.sheet(number);
    const change = (escort: string) =>
      maren.call('changeFields', { params: { number }, headers: onVersion(version), body: { changes: { escort } } });
    expect((await change('Nuala')).status).toBe(200);
    expect((await change('Cormac')).body.type).toContain('stale-version');
    expect(
      (await maren.sheet(number)).values.fields.find((field: { key: string }) => field.key === 'escort').shown,
    ).toBe('Nuala');
    expect((await maren.call('changeFields', { params: { number }, body: { changes: {} } })).body.type).toContain(
      'version-missing',
    );
  });

  it('refuses a draft with errors to be released, naming them', async () => {
    const form = (await maren.call('form', { params: { key: 'site-access' } })).body;
    const broken = { ...form.draft, rules: [{ ...form.draft.rules[0], when: 'nothing_like_it = true' }] };
    const saved = await maren.call('saveDraft', {
      params: { key: 'site-access' },
      headers: onVersion(form.version),
      body: { draft: broken },
    });
    expect(saved.body.findings[0].severity).toBe('error');
    const refused = await maren.call('releaseForm', {
      params: { key: 'site-access' },
      headers: onVersion(saved.body.version),
      body: { note: '' },
    });
    expect([refused.status, refused.body.problems[0].field]).toEqual([422, 'water-certificate']);
    expect((await maren.call('form', { params: { key: 'site-access' } })).body.releases[0].number).toBe(2);
  });

  it('keeps the Workshop to coordinators, the Floor to staff, and other sites out', async () => {
    expect((await priya.call('forms')).status).toBe(403);
    expect((await stranger.call('ledger')).status).toBe(401);
    for (const Origin of ['https://elsewhere.example', 'null']) {
      const foreign = await priya.call('submit', {
        params: { slug: 'come-on-site' },
        headers: { ...key(), Origin },
        body: { release: 2, answers: VISIT },
      });
      expect(foreign.status, Origin).toBe(403);
    }
    expect((await priya.call('ledger', { query: { tray: 'everything' } })).status).toBe(400);
    expect((await priya.call('ledger', { query: { after: 'nonsense' } })).status).toBe(400);
  });
});

describe('deciding', () => {
  const later = { arrival: '2026-12-10', departure: '2026-12-11' };

  it('happens once, by one person, and never by the requester', async () => {
    const tomas = await desk.as('Tomas Achterberg');
    const own = (await tomas.submit('come-on-site', { ...WATER, ...later }, { release: 2 })).body.number;
    const self = await tomas.call('decide', {
      params: { number: own },
      headers: key(),
      body: { verdict: 'approve', comment: '', seen: await tomas.seen(own) },
    });
    expect([self.status, self.body.title]).toEqual([403, 'Nobody can decide their own request.']);
    expect(
      (await desk.letters()).some(
        (letter) =>
          letter.to.includes('tomas') &&
          /^.* asks for your approval: /.test(letter.subject) &&
          letter.subject.includes(own),
      ),
    ).toBe(false);

    const edda = await desk.as('Edda Kilbride');
    const empty = await edda.call('decide', {
      params: { number: own },
      headers: key(),
      body: { verdict: 'refuse', comment: ' ', seen: await edda.seen(own) },
    });
    expect(empty.body.problems[0]).toMatchObject({ field: 'comment' });
    const byLink = await desk.tokenFor('edda.kilbride', 'decide');
    const sameKey = key();
    const { seen } = (await stranger.call('decisionLink', { params: { token: byLink } })).body;
    const body = { verdict: 'refuse', comment: 'No skipper that day.', seen };
    const first = await stranger.call('decideByLink', { params: { token: byLink }, headers: sameKey, body });
    const again = await stranger.call('decideByLink', { params: { token: byLink }, headers: sameKey, body });
    expect([first.status, again.status]).toEqual([200, 200]);
    expect(again.body).toEqual(first.body);
    expect((await stranger.call('decideByLink', { params: { token: byLink }, headers: key(), body })).status).toBe(410);
    expect(
      (
        await edda.call('decide', {
          params: { number: own },
          headers: key(),
          body: { verdict: 'approve', comment: '', seen: await edda.seen(own) },
        })
      ).status,
    ).toBe(409);
    const sheet = await maren.sheet(own);
    expect([sheet.stage.key, sheet.approval.state, sheet.moves]).toEqual(['refused', 'refused', []]);
  });

  it('is no business of who is not asked', async () => {
    const number = (await priya.submit('come-on-site', { ...WATER, ...later }, { release: 2 })).body.number;
    const bram = await desk.as('Bram Solheim');
    expect(
      (
        await bram.call('decide', {
          params: { number },
          headers: key(),
          body: { verdict: 'approve', comment: '', seen: await bram.seen(number) },
        })
      ).status,
    ).toBe(403);
    const ilse = await desk.as('Ilse Brandvold');
    expect((await ilse.call('sheet', { params: { number } })).status).toBe(404);
    expect(
      (await bram.call('moveStage', { params: { number }, headers: onVersion(1), body: { stage: 'done' } })).status,
    ).toBe(409);
  });
});

describe('time', () => {
  it('reminds, then escalates, once each; a pause stops the clock', async () => {
    const number = (
      await priya.submit('come-on-site', { ...VISIT, arrival: '2026-12-20', departure: '2026-12-21' }, { release: 2 })
    ).body.number;
    const told = async (words: string) =>
      (await desk.letters()).filter((letter) => letter.subject.includes(number) && letter.subject.includes(words))
        .length;
    // In steps: what comes when it is due already reminds nobody.
    for (let hours = 0; hours < 20 * 24; hours += 3) await stranger.call('advanceClock', { body: { minutes: 3 * 60 } });
    const reminded = await told('Due in');
    expect(reminded).toBeGreaterThan(0);
    expect(await told('Overdue:')).toBeGreaterThan(0);
    await stranger.call('advanceClock', { body: { minutes: 20 * 24 * 60 } });
    expect(await told('Due in')).toBe(reminded);

    const paused = (
      await priya.submit('come-on-site', { ...VISIT, arrival: '2027-03-20', departure: '2027-03-21' }, { release: 2 })
    ).body.number;
    const sheet = await maren.sheet(paused);
    await maren.call('moveStage', {
      params: { number: paused },
      headers: onVersion(sheet.version),
      body: { stage: 'papers' },
    });
    await stranger.call('advanceClock', { body: { minutes: 20 * 24 * 60 } });
    const after = await maren.sheet(paused);
    expect(after.deadlines[0].fuse.state).toBe('paused');
    expect(after.deadlines[0].fuse.left).toBeCloseTo(sheet.deadlines[0].fuse.left, -4);
    await maren.call('moveStage', {
      params: { number: paused },
      headers: onVersion(after.version),
      body: { stage: 'in_hand' },
    });
    expect((await maren.sheet(paused)).deadlines[0].fuse.state).not.toBe('late');
  });
});
