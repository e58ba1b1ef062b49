import type { AccessRule } from '@tolvek/core/access';
import { asking, designOf, type FormDesign, type Updates } from '@tolvek/core/form';
import { newMailing } from '@tolvek/core/mailing';
import { history, proposals, requests } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
let declan: Caller;
let oskar: Caller;
let stranger: Caller;
let release = 1;

const SKILLS: Updates = { whose: 'person', by: ['skill'], none: 'add', stamps: 'checked' };
const option = (key: string) => ({ key, label: key });
const DRAFT: FormDesign = {
  ...designOf(
    { told: english, title: 'Crew skills', team: 'boats', approvers: 'duty-managers', calendar: 'desk' },
    '{skill} {level}',
    [
      asking('person', 'Person', { kind: 'person', from: [] }),
      asking('skill', 'Skill', { kind: 'choice', options: ['diving', 'winch', 'rescue'].map(option) }),
      asking('level', 'Level', { kind: 'number', places: 0, least: 1, most: 5 }),
      asking('note', 'Note', { kind: 'text' }, { required: false }),
      asking('paper', 'Certificate', { kind: 'text' }, { required: false }),
    ],
    [{ key: 'checked', label: 'Last checked', type: { kind: 'date' }, source: 'desk-only' }],
  ),
  unique: [{ id: 'once', fields: ['person', 'skill'], among: 'all' }],
  rules: [
    {
      ...{ id: 'rule-paper', name: 'Papers', says: '', when: 'level >= 4', otherwise: [], on: true, runs: 'filling' },
      then: [{ do: 'require', fields: ['paper'] }],
    },
  ],
  updates: SKILLS,
};
const params = { key: 'crew-skills' };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, declan] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Declan Oyelaran'),
  ];
  [oskar, stranger] = [await desk.as('Oskar Veldhuis'), await desk.as()];
  const body = { prefix: 'CW', desk: 'boats', doors: { staff: true, outside: false }, draft: DRAFT };
  ok(await maren.call('createForm', { headers: freshly(), body }));
  ok(await maren.call('releaseForm', { params, headers: onVersion(1), body: { note: '' } }));
});
afterAll(() => desk.close());

/** The form with another way to change what is there. */
async function releaseWith(updates: Updates): Promise<void> {
  const form = ok(await maren.call('form', { params }));
  const body = { draft: { ...DRAFT, updates } };
  const { version } = ok(await maren.call('saveDraft', { params, headers: onVersion(form.version), body }));
  release = ok(await maren.call('releaseForm', { params, headers: onVersion(version), body: { note: '' } })).number;
}
const door = async (who: Caller, query: Record<string, string> = {}): Promise<Answer['body']> =>
  ok(await who.call('door', { params: { slug: 'crew-skills' }, query }));
const send = (who: Caller, answers: object, more: object = {}): Promise<Answer> =>
  who.submit('crew-skills', answers, { release, more });
const all = () =>
  desk.running.house.db
    .select()
    .from(requests)
    .where(eq(requests.registerId, desk.register('crew-skills').id))
    .all();
const valuesOf = (number: string): Record<string, unknown> =>
  all().find((each) => each.number === number)?.values ?? {};
const lastOf = (number: string) => {
  const id = all().find((each) => each.number === number)?.id ?? '';
  const { db } = desk.running.house;
  return db.select().from(history).where(eq(history.requestId, id)).all().at(-1);
};

describe('a form that changes what is there', () => {
  let diving = '';

  it('adds where there is nothing of theirs yet, as whose it is', async () => {
    const shown = await door(priya);
    expect(shown.form.updates).toMatchObject({ by: ['skill'], adds: true, theirs: [] });
    const sent = ok(await send(priya, { skill: 'diving', level: '2', note: 'Since spring' }));
    expect(sent).toMatchObject({ state: 'arrived' });
    diving = sent.number;
    expect(valuesOf(diving)).toMatchObject({ person: desk.idOf('Priya Nakamura-Lind'), level: 2 });
    // Whose it is can’t be said to be somebody else.
    const other = await send(declan, { person: desk.idOf('Priya Nakamura-Lind'), skill: 'winch', level: '1' });
    expect(other.status).toBe(422);
    ok(await send(declan, { skill: 'diving', level: '3' }));
  });

  it('shows what stands there to whose it is, and to nobody else', async () => {
    const { updates } = (await door(priya)).form;
    expect(updates.theirs).toEqual([
      expect.objectContaining({
        number: diving,
        subject: 'diving 2',
        stood: expect.objectContaining({ level: '2', note: 'Since spring', paper: null }),
      }),
    ]);
    expect((await door(oskar)).form.updates.theirs).toEqual([]);
    expect((await stranger.call('door', { params: { slug: 'crew-skills' } })).body.form).toBeNull();
    expect((await send(stranger, { skill: 'diving', level: '5' })).status).toBe(401);
  });

  it('changes the one with the same answers: a blank leaves, a mark takes away, the history keeps what was there', async () => {
    const before = all().length;
    expect(ok(await send(priya, { skill: 'diving', level: '3', note: '' }))).toEqual({
      state: 'changed',
      number: diving,
      is: 'changed',
    });
    expect(all().length).toBe(before);
    expect(valuesOf(diving)).toMatchObject({ level: 3, note: 'Since spring', checked: '2026-11-23' });
    expect(lastOf(diving)?.data).toMatchObject({ kind: 'values', why: 'updated', form: 'Crew skills' });
    expect(lastOf(diving)?.changes).toContainEqual({ field: 'level', before: 2, after: 3 });
    ok(await send(priya, { skill: 'diving', note: null }));
    expect(valuesOf(diving)).not.toHaveProperty('note');
    expect(valuesOf(diving)).toMatchObject({ level: 3 });
    // What is required is not taken away, and what a rule asks for by the change is asked for.
    for (const answers of [{ level: null }, { level: '4' }, { level: '9' }]) {
      const refused = await send(priya, { skill: 'diving', ...answers });
      expect([refused.status, valuesOf(diving).level]).toEqual([422, 3]);
    }
    ok(await send(priya, { skill: 'diving', level: '4', paper: 'C-12' }));
    // By what it would be now it is not asked again.
    ok(await send(priya, { skill: 'diving', note: 'Renewed' }));
    expect(valuesOf(diving)).toMatchObject({ level: 4, paper: 'C-12', note: 'Renewed' });
  });

  it('is found by a check of answers as one’s own, and not as taken', async () => {
    const body = { answers: { skill: 'diving' } };
    expect(ok(await priya.call('checkAnswers', { params: { slug: 'crew-skills' }, body })).problems).toEqual([]);
  });

  it('writes down that all is still right', async () => {
    const values = valuesOf(diving);
    expect(ok(await send(priya, { skill: 'diving' })).is).toBe('confirmed');
    expect(valuesOf(diving)).toEqual(values);
    expect(lastOf(diving)?.data).toMatchObject({ kind: 'confirmed' });
  });

  it('changes nothing of anybody else, whatever is sent along', async () => {
    const others = all().find(({ number, values }) => number !== diving && values.skill === 'diving');
    const sent = await send(priya, { skill: 'diving', level: '1' }, { entry: others?.id });
    expect([sent.status, sent.body.title]).toEqual([
      409,
      'What you want to change is not there any more, or it was changed in the meantime.',
    ]);
    expect(valuesOf(others?.number ?? '').level).toBe(3);
    expect(valuesOf(diving).level).toBe(4);
  });

  it('is sent once, however often it is sent', async () => {
    const key = crypto.randomUUID();
    const once = await priya.submit('crew-skills', { skill: 'diving', level: '2' }, { release, key });
    const entries = () => desk.running.house.db.select().from(history).where(eq(history.kind, 'fields')).all().length;
    const before = entries();
    expect(await priya.submit('crew-skills', { skill: 'diving', level: '2' }, { release, key })).toMatchObject({
      body: once.body,
    });
    expect(entries()).toBe(before);
  });

  it('refuses where there is nothing to change, and asks which where several fit', async () => {
    await releaseWith({ ...SKILLS, none: 'refuse' });
    const none = await send(priya, { skill: 'winch', level: '2' });
    expect([none.status, none.body.title]).toEqual([409, 'We have nothing of yours that you could change here.']);
    await releaseWith({ ...SKILLS, by: [], beside: true });
    const which = await send(priya, { level: '5', paper: 'x' });
    expect(which.body.problems.map(({ message }: { message: string }) => message)).toContain(
      'Several of your entries have these answers.',
    );
    const added = ok(await send(priya, { skill: 'winch', level: '2' }, { entry: 'another' }));
    expect(added.state).toBe('arrived');
    const theirs = (await door(priya)).form.updates.theirs;
    expect(theirs.map(({ subject }: { subject: string }) => subject)).toEqual(['winch 2', 'diving 2']);
    expect(ok(await send(priya, { level: '3' }, { entry: theirs[0].id }))).toMatchObject({ number: added.number });
    expect(valuesOf(added.number).level).toBe(3);
  });
});

describe('the proof of a form that changes what is there', () => {
  const rules: AccessRule[] = [
    {
      ...{ id: 'paper', name: 'Certificates', fields: ['paper'], level: 'hidden' },
      audience: { in: { everyone: true }, outOf: [], requester: 'out' },
    },
  ];
  const seen = (who: Caller, person: string, whose = 'person') =>
    who.call('proofTheirs', { params: { ...params, person }, query: { whose } });

  it('stands over what is theirs who sits there, as they have it themselves', async () => {
    await releaseWith({ ...SKILLS, by: [], beside: true });
    const id = desk.idOf('Priya Nakamura-Lind');
    const { theirs } = ok(await seen(maren, id));
    const own = (await door(priya)).form.updates.theirs;
    expect(own.length).toBeGreaterThan(1);
    for (const [at, one] of own.entries()) {
      // Besides what is asked, what the desk alone fills in is shown as far as they read it.
      expect(theirs[at]).toMatchObject({ id: one.id, number: one.number, subject: one.subject });
      expect(theirs[at].stood).toMatchObject(one.stood);
      expect(theirs[at].values.fields).toEqual(expect.arrayContaining(one.values.fields));
    }
    expect(theirs.length).toBe(own.length);
    expect(ok(await seen(maren, desk.idOf('Oskar Veldhuis'))).theirs).toEqual([]);
    expect((await seen(maren, 'nobody')).status).toBe(404);
    expect((await seen(priya, id)).status).toBe(403);
    expect((await seen(maren, id, 'no such field')).status).toBe(400);
    // What somebody asked for is theirs by another setting of the same draft, before it is saved.
    expect(ok(await seen(maren, id, '~requester')).theirs.map(({ id: each }: { id: string }) => each)).toEqual(
      own.map(({ id: each }: { id: string }) => each),
    );
  });

  it('shows nothing of it that whoever looks may not read, nor entries that they may not', async () => {
    const id = desk.idOf('Priya Nakamura-Lind');
    desk.protect('crew-skills', { rules });
    const paper = async (who: Caller) =>
      ok(await seen(who, id)).theirs.map(({ stood }: { stood: Record<string, unknown> }) => stood.paper ?? null);
    expect(
      (await door(priya)).form.updates.theirs.map((one: { stood: { paper: unknown } }) => one.stood.paper),
    ).toContain('C-12');
    expect(await paper(maren)).toEqual([null, null]);
    expect(JSON.stringify(ok(await seen(maren, id)))).not.toContain('C-12');
    desk.protect('crew-skills', { rules: [] });
    expect(await paper(maren)).toContain('C-12');
    // Whoever builds forms and works on none of its entries is shown none.
    const jory = await desk.as('Jory Blackadder-Finn');
    const body = { give: ['configure'], take: ['read:all', 'read:team'] };
    const ada = await desk.as('Ada Quillfeather');
    ok(await ada.call('changeRights', { params: { subject: `@${desk.idOf('Jory Blackadder-Finn')}` }, body }));
    expect(ok(await seen(jory, id)).theirs).toEqual([]);
  });
});

describe('a change that waits to be accepted', () => {
  let diving = '';
  const waiting = async (who: Caller): Promise<Answer['body'][]> => (await who.sheet(diving)).proposals;
  const decide = (who: Caller, does: 'acceptProposal' | 'refuseProposal', id: string, body: object): Promise<Answer> =>
    who.call(does, { params: { number: diving, id }, body });
  beforeAll(async () => {
    await releaseWith({ ...SKILLS, waits: true });
    diving =
      all().find(({ values }) => values.skill === 'diving' && values.person === desk.idOf('Priya Nakamura-Lind'))
        ?.number ?? '';
  });

  it('leaves the old value until then, and shows both', async () => {
    const before = valuesOf(diving);
    expect(ok(await send(priya, { skill: 'diving', level: '3' })).is).toBe('waits');
    expect(valuesOf(diving)).toEqual(before);
    const [one] = await waiting(maren);
    expect([one.by, one.whyNot, one.changes]).toEqual([
      'Priya Nakamura-Lind',
      null,
      [{ label: 'Level', before: '2', after: '3' }],
    ]);
    const mine = (await door(priya)).form.updates.theirs.find(({ number }: { number: string }) => number === diving);
    expect(mine.waiting.changes).toEqual([{ label: 'Level', before: '2', after: '3' }]);
    // Who works on it hears of it.
    const told = (await desk.letters()).filter(({ text }) => text.includes('It waits to be accepted'));
    expect(told.length).toBeGreaterThan(0);
  });

  it('is replaced by what the same person sends next', async () => {
    ok(await send(priya, { skill: 'diving', level: '3', note: 'Course in May' }));
    const open = await waiting(maren);
    expect(open.length).toBe(1);
    expect(open[0].changes.map(({ label }: { label: string }) => label)).toEqual(['Level', 'Note']);
  });

  it('counts once somebody else accepts what they saw', async () => {
    const [one] = await waiting(maren);
    expect(
      (await decide(priya, 'acceptProposal', one.id, { seen: one.seen, comment: '' })).status,
    ).toBeGreaterThanOrEqual(403);
    expect((await decide(oskar, 'acceptProposal', one.id, { seen: one.seen, comment: '' })).status).toBe(404);
    expect((await decide(maren, 'acceptProposal', one.id, { seen: 'else', comment: '' })).status).toBe(409);
    ok(await decide(maren, 'acceptProposal', one.id, { seen: one.seen, comment: 'Well done.' }));
    expect(valuesOf(diving)).toMatchObject({ level: 3, note: 'Course in May' });
    expect(lastOf(diving)?.data).toMatchObject({ why: 'updated', by: desk.idOf('Priya Nakamura-Lind') });
    expect((await waiting(maren)).length).toBe(0);
    expect((await decide(maren, 'acceptProposal', one.id, { seen: one.seen, comment: '' })).status).toBe(409);
    const told = (await desk.letters()).at(-1);
    expect([told?.subject, told?.text]).toEqual([
      expect.stringContaining('Your change was accepted'),
      expect.stringContaining('Well done.'),
    ]);
  });

  it('is accepted or refused by the link in the email about it: once, as it was seen, and by whom it was sent to', async () => {
    ok(await send(priya, { skill: 'diving', level: '4', paper: 'C-4' }));
    const letter = (await desk.letters()).filter(({ text }) => text.includes('/accept/')).at(-1);
    expect([letter?.text.includes('Level: 3 → 4'), letter?.to.includes('priya')]).toEqual([true, false]);
    const token = await desk.tokenFor(letter?.to ?? '', 'accept');
    const by = { params: { token } };
    const { proposal, number } = ok(await stranger.call('proposalLink', by));
    expect([number, proposal.by, proposal.whyNot]).toEqual([diving, 'Priya Nakamura-Lind', null]);
    const answer = (body: object) => stranger.call('decideProposal', { ...by, body });
    const says = { verdict: 'approve', comment: '', seen: proposal.seen };
    expect((await answer({ ...says, verdict: 'refuse' })).status).toBe(422);
    // Another one came meanwhile: what was seen is not what waits.
    ok(await send(priya, { skill: 'diving', level: '5', paper: 'C-5' }));
    expect((await answer(says)).status).toBe(410);
    const next = { params: { token: await desk.tokenFor(letter?.to ?? '', 'accept') } };
    const now = ok(await stranger.call('proposalLink', next)).proposal;
    expect((await stranger.call('decideProposal', { ...next, body: says })).status).toBe(409);
    const accepts = { ...next, body: { ...says, seen: now.seen } };
    expect(ok(await stranger.call('decideProposal', accepts))).toEqual({ accepted: true, number: diving });
    expect([valuesOf(diving).level, (await stranger.call('decideProposal', accepts)).status]).toEqual([5, 410]);
    expect((await stranger.call('proposalLink', { params: { token: 'guessed' } })).status).toBe(404);
  });

  it('is accepted by nobody who sent it, whatever their rights', async () => {
    ok(await send(maren, { skill: 'rescue', level: '2' }));
    const { number } = ok(await send(maren, { skill: 'rescue', level: '3' }));
    const [one] = (await maren.sheet(number)).proposals;
    expect(one.whyNot).toBe('You sent this change yourself, so you cannot accept or refuse it.');
    const about = { params: { number, id: one.id } };
    const accepted = await maren.call('acceptProposal', { ...about, body: { seen: one.seen, comment: '' } });
    const refused = await maren.call('refuseProposal', { ...about, body: { reason: 'No.' } });
    expect([accepted.status, refused.status, valuesOf(number).level]).toEqual([403, 403, 2]);
    ok(await maren.call('endProposal', { params: { id: one.id } }));
  });

  it('is refused with a reason, or taken back, and changes nothing then', async () => {
    const before = valuesOf(diving);
    ok(await send(priya, { skill: 'diving', level: '1' }));
    const [one] = await waiting(maren);
    expect((await decide(maren, 'refuseProposal', one.id, { reason: ' ' })).status).toBe(400);
    ok(await decide(maren, 'refuseProposal', one.id, { reason: 'Please bring the paper.' }));
    expect((await desk.letters()).at(-1)?.text).toContain('Please bring the paper.');
    ok(await send(priya, { skill: 'diving', level: '2' }));
    const [two] = await waiting(maren);
    expect((await declan.call('endProposal', { params: { id: two.id } })).status).toBe(404);
    ok(await priya.call('endProposal', { params: { id: two.id } }));
    expect((await priya.call('endProposal', { params: { id: two.id } })).status).toBe(409);
    expect(valuesOf(diving)).toEqual(before);
    expect(
      desk.running.house.db
        .select()
        .from(proposals)
        .all()
        .map(({ state }) => state),
    ).toEqual(['ended', 'accepted', 'ended', 'accepted', 'ended', 'refused', 'ended']);
  });
});

describe('an update form that is sent to people', () => {
  it('is about the very entry: nothing is looked for, and all can be still right in one press', async () => {
    await releaseWith({ ...SKILLS });
    const mailing = {
      ...newMailing('Yearly look', 'crew-skills'),
      to: { named: 'person' },
      about: { is: 'requests', register: 'crew-skills', field: '~itself', stages: [], when: 'skill = "diving"' },
    };
    const { id } = ok(await maren.call('addMailing', { params, headers: freshly(), body: { mailing } }));
    expect(
      ok(await maren.call('sendMailing', { params: { id }, headers: freshly(), body: { onlyNew: false } })),
    ).toEqual({ forms: 2, people: 2 });
    ok(await stranger.call('advanceClock', { body: { minutes: 1 } }));
    const [owed] = ok(await declan.call('frontDesk')).toFill;
    expect(owed.about).toBe('diving 3');
    const { updates, fields } = (await door(declan, { owed: owed.id })).form;
    expect([updates.sent, updates.theirs.length]).toEqual([true, 1]);
    expect(fields.find(({ key }: { key: string }) => key === 'skill').preset).toEqual({
      from: 'fixed',
      value: 'diving',
    });
    expect(ok(await send(declan, {}, { owed: owed.id })).is).toBe('confirmed');
    expect((await send(declan, {}, { owed: owed.id })).status).toBe(409);
    expect(ok(await declan.call('frontDesk')).toFill).toEqual([]);
  });
});
