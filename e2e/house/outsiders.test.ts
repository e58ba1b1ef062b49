import type { AccessPlan } from '@tolvek/core/access';
import { USUAL_BASE } from '@tolvek/core/access';
import type { SeatPlan } from '@tolvek/core/approval';
import type { FormDesign } from '@tolvek/core/form';
import { changeRegister } from '@tolvek/server';
import { people, requests, seats as seatTable } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, WATER } from './desk.ts';
import { releaseAs } from './releasing.ts';

/** People from outside who are asked about one request: to decide it, or to handle it. */
let desk: Desk;
let maren: Caller;
let priya: Caller;
let release = 1;
const LENA = 'lena.varga.holt@tarnbay.example';
const of = { params: { key: 'site-access' } };

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  priya = await desk.as('Priya Nakamura-Lind');
});
afterAll(() => desk.close());

const personAt = (email: string) => {
  const found = desk.running.house.db.select().from(people).where(eq(people.email, email)).get();
  if (!found) throw new Error(`${email} is nobody.`);
  return found;
};
/** The form, decided by somebody from outside, or by nobody. */
const decidedBy = async (seats: readonly SeatPlan[], needed = 1): Promise<void> => {
  const { release: made } = await releaseAs(maren, 'site-access', (draft): FormDesign => {
    const step = { id: 'host', label: 'Host institute', seats, needed };
    const { handler: _, ...otherwise } = draft.routing.otherwise;
    return {
      ...draft,
      approval: seats.length > 0 ? { paths: [{ id: 'path', label: '', steps: [step] }] } : draft.approval,
      routing: {
        columns: [],
        rows: [],
        otherwise: { ...otherwise, team: 'estates', path: seats.length > 0 ? 'path' : null },
      },
    };
  });
  expect(made).not.toBeNull();
  release = made ?? 0;
};
/** The plan in force, with other levels for people from outside. */
async function leave(outside: NonNullable<AccessPlan['base']>['outside']): Promise<void> {
  const { version, inForce } = ok(await maren.call('accessPlan', of));
  const { base: _, ...rest } = inForce;
  const next = outside ? { ...rest, base: { ...USUAL_BASE, outside } } : rest;
  ok(await maren.call('keepAccessPlan', { ...of, headers: onVersion(version), body: next }));
  const kept = ok(await maren.call('accessPlan', of)).version;
  const body = { note: '', closesToMyself: false };
  ok(await maren.call('putAccessPlan', { ...of, headers: onVersion(kept), body }));
}
let visitors = 0;
const sent = async (): Promise<string> => {
  visitors += 1;
  const answers = { ...WATER, visitor: `Guest ${'x'.repeat(visitors)}`, medical_note: 'Bee stings' };
  return ok(await priya.submit('come-on-site', answers, { release })).number;
};
const shown = (answer: Answer): readonly string[] =>
  answer.body.values.fields.map((field: { key: string }) => field.key).toSorted();
const given = (who: Caller, number: string) => who.call('given', { params: { number } });
const listed = async (who: Caller) =>
  ok(await who.call('frontDesk')).given.map(({ number, handles, decides }: Record<string, unknown>) => [
    number,
    handles ? 'handles' : '',
    decides ? 'decides' : '',
  ]);

describe('somebody from outside who is asked to decide', () => {
  it('reads by the link what the plan leaves to them, in the words of requesters, and decides once', async () => {
    await decidedBy([{ person: personAt(LENA).id }]);
    const number = await sent();
    const token = await desk.tokenFor(LENA, 'decide');
    const stranger = await desk.as('');
    const seen = await stranger.call('decisionLink', { params: { token } });
    expect(ok(seen)).toMatchObject({ number, step: 'Host institute', approver: 'Lena Varga-Holt' });
    // What was asked and no rule hides from everybody; nothing that is the staff’s.
    expect(shown(seen)).toEqual(expect.arrayContaining(['visitor', 'arrival', 'reason']));
    expect(shown(seen)).not.toEqual(expect.arrayContaining(['medical_note']));
    expect(shown(seen)).not.toEqual(expect.arrayContaining(['escort']));
    expect(seen.text).not.toContain('Bee stings');

    // The plan says otherwise at once, whatever release it came by.
    await leave({ answers: 'hidden', made: 'hidden', staffOnly: 'hidden' });
    expect(shown(await stranger.call('decisionLink', { params: { token } }))).toEqual([]);
    await leave(undefined);

    const body = { verdict: 'approve', comment: '', seen: seen.body.seen };
    const decided = await stranger.call('decideByLink', { params: { token }, headers: freshly(), body });
    expect(ok(decided)).toMatchObject({ state: 'approved', more: false });
    expect((await stranger.call('decisionLink', { params: { token } })).status).toBe(410);
    const { approval } = await maren.sheet(number);
    expect([approval.state, approval.decidedBy]).toEqual(['approved', 'Lena Varga-Holt']);
  });

  it('opens the link where it was opened first, and elsewhere once they have proved who they are', async () => {
    const number = await sent();
    const params = { token: await desk.tokenFor(LENA, 'decide') };
    const phone = await desk.as('');
    const other = await desk.as('');
    const { seen } = ok(await phone.call('decisionLink', { params }));
    const body = { verdict: 'refuse', comment: 'No berth is free.', seen };
    expect((await other.call('decisionLink', { params })).status).toBe(401);
    expect((await other.call('decideByLink', { params, headers: freshly(), body })).status).toBe(401);
    // Nor for somebody else who is signed in.
    expect((await priya.call('decisionLink', { params })).status).toBe(401);
    expect(ok(await phone.call('decisionLink', { params })).number).toBe(number);
    const lena = await desk.contact(LENA);
    expect(ok(await lena.call('decisionLink', { params })).number).toBe(number);
    ok(await phone.call('decideByLink', { params, headers: freshly(), body }));
    expect((await maren.sheet(number)).approval.state).toBe('refused');
  });

  it('finds it where they are signed in, and nothing of it once they have said something', async () => {
    const greta = personAt('greta.moss@haldane.example');
    await decidedBy([{ person: personAt(LENA).id }, { person: greta.id }], 2);
    const number = await sent();
    const lena = await desk.contact(LENA);
    expect(await listed(lena)).toEqual([[number, '', 'decides']]);
    const found = ok(await given(lena, number));
    expect(found).toMatchObject({ number, handles: false, moves: [], messages: [], mayWrite: false });
    expect(found.decision).toMatchObject({ step: 'Host institute' });
    expect(found.values.fields.every(({ writable }: { writable: boolean }) => !writable)).toBe(true);
    // They decide, and do nothing else.
    const { version } = found;
    const note = { text: 'Hello', visibility: 'internal' };
    expect((await lena.call('comment', { params: { number }, body: note })).status).toBe(404);
    const changes = { visitor: 'Another' };
    const change = await lena.call('changeFields', {
      params: { number },
      headers: onVersion(version),
      body: { changes },
    });
    expect(change.status).toBe(404);
    expect((await lena.call('sheet', { params: { number } })).status).toBe(403);
    // Who sits at the other seat still reads it; who has decided does not.
    const body = { verdict: 'approve', comment: '', seen: found.decision.seen };
    expect(ok(await lena.call('decide', { params: { number }, headers: freshly(), body })).more).toBe(true);
    expect((await given(lena, number)).status).toBe(404);
    expect(await listed(lena)).toEqual([]);
    const other = await desk.contact(greta.email);
    expect(ok(await given(other, number)).number).toBe(number);
    // Who may see what says the same.
    const { db } = desk.running.house;
    const row = db.select().from(requests).where(eq(requests.number, number)).get();
    expect(row?.deciders?.split(' ')).toEqual([`@${greta.id}`]);
    expect(
      db
        .select()
        .from(seatTable)
        .where(eq(seatTable.requestId, row?.id ?? ''))
        .all()
        .map(({ state }) => state)
        .toSorted(),
    ).toEqual(['approved', 'open']);
    // Nobody else is let in by it.
    expect((await given(await desk.contact('wim.haldane@haldane.example'), number)).status).toBe(404);
    expect((await given(maren, number)).status).toBe(404);
  });

  it('is let in as a member of a group as well, and by that no longer than the group is asked', async () => {
    const ada = await desk.as('Ada Quillfeather');
    const { key: hosts } = ok(
      await ada.call('addGroup', { headers: freshly(), body: { name: 'Hosts', isTeam: false } }),
    );
    const members = [LENA, 'greta.moss@haldane.example'];
    for (const email of members) {
      const body = { person: personAt(email).id, from: null, until: null };
      ok(await ada.call('enterGroup', { params: { key: hosts }, headers: freshly(), body }));
    }
    await decidedBy([{ group: hosts }]);
    const number = await sent();
    const [lena, greta] = [await desk.contact(LENA), await desk.contact(members[1] ?? '')];
    for (const who of [lena, greta])
      expect(ok(await given(who, number)).decision).toMatchObject({ step: 'Host institute' });
    const { seen } = ok(await given(greta, number)).decision;
    const body = { verdict: 'approve', comment: '', seen };
    ok(await greta.call('decide', { params: { number }, headers: freshly(), body }));
    for (const who of [lena, greta]) expect((await given(who, number)).status).toBe(404);
  });
});

describe('somebody from outside who is asked to handle', () => {
  const EMAIL = 'sela.brightwater@northmoor.example';
  const give = async (number: string, body: object, by = maren) =>
    by.call('giveOutside', {
      params: { number },
      headers: onVersion((await maren.sheet(number)).version),
      body: { name: 'Sela Brightwater', email: EMAIL, ...body },
    });

  it('is invited by an email, and needs no account to see it and work on it', async () => {
    await decidedBy([]);
    const number = await sent();
    ok(await give(number, {}));
    expect((await maren.sheet(number)).handler.name).toBe('Sela Brightwater');
    const letter = (await desk.letters()).filter(({ to }) => to.includes(EMAIL)).at(-1);
    expect(letter?.subject).toContain(`(${number})`);
    expect(letter?.text).toContain(`/given/${number}`);
    expect(letter?.text).toContain('You need no account');
    expect(letter?.text).not.toContain('Bee stings');
    const sela = await desk.contact(EMAIL);
    expect(await listed(sela)).toEqual([[number, 'handles', '']]);
    const found = ok(await given(sela, number));
    expect(found).toMatchObject({ handles: true, mayWrite: true, decision: null, requester: 'Priya Nakamura-Lind' });
    expect(shown({ body: found } as Answer)).not.toContain('medical_note');
    const stages = found.moves.map(({ label }: { label: string }) => label);
    expect(stages).toContain('Waiting for papers from you');

    // A note is the desk’s; a message goes to who asked; both are read by who wrote them.
    const say = async (text: string, visibility: string) =>
      ok(await sela.call('comment', { params: { number }, body: { text, visibility } }));
    await say('The gate is too low.', 'internal');
    await say('Please come by boat.', 'requester');
    ok(await maren.call('comment', { params: { number }, body: { text: 'She is slow.', visibility: 'internal' } }));
    const texts = async () =>
      ok(await given(sela, number)).messages.map(({ text, note }: { text: string; note: boolean }) => [text, note]);
    expect(await texts()).toEqual([
      ['The gate is too low.', true],
      ['Please come by boat.', false],
    ]);
    const own = ok(await priya.call('myRequest', { params: { number } }));
    expect(own.messages.map(({ text }: { text: string }) => text)).toEqual(['Please come by boat.']);

    // What the plan lets them change they change, and nothing else.
    const change = async (changes: object) =>
      sela.call('changeFields', {
        params: { number },
        headers: onVersion(ok(await given(sela, number)).version),
        body: { changes },
      });
    expect((await change({ reason: 'Another reason' })).status).toBe(422);
    await leave({ answers: 'write', made: 'read', staffOnly: 'hidden' });
    ok(await change({ reason: 'Another reason' }));
    expect((await change({ medical_note: 'None' })).status).toBe(422);
    await leave(undefined);

    const papers = ok(await given(sela, number)).moves.find(({ label }: { label: string }) => /papers/.test(label));
    const move = (stage: string, version: number) =>
      sela.call('moveStage', { params: { number }, headers: onVersion(version), body: { stage } });
    const refused = await move('refused', ok(await given(sela, number)).version);
    expect([refused.status, refused.text.includes('To be decided')]).toEqual([409, false]);
    // A way whose condition does not hold is closed to them without a word of it.
    const { db, clock } = desk.running.house;
    const { stages: before } = desk.register('site-access');
    const stageKey = (await maren.sheet(number)).stage.key;
    const putStages = (stages: typeof before): void => {
      const done = { viewer: { personId: '' }, now: clock.now() };
      db.transaction((tx) => changeRegister(tx, { key: 'site-access' }, { stages }, '', done));
    };
    const way = { to: papers.key, relations: [], groups: [], filled: [], when: 'reason = "Never this"' };
    putStages(before.map((one) => (one.key === stageKey ? { ...one, moves: [way] } : one)));
    const closed = await move(papers.key, ok(await given(sela, number)).version);
    expect([closed.status, closed.text.includes('Never this')]).toEqual([409, false]);
    putStages(before);
    ok(await move(papers.key, ok(await given(sela, number)).version));
    expect((await maren.sheet(number)).stage.key).toBe('papers');

    // Of everything else there is nothing.
    const another = await sent();
    expect((await given(sela, another)).status).toBe(404);
    for (const route of ['sheet', 'requestCourse', 'requestEmails'] as const)
      expect((await sela.call(route, { params: { number } })).status).toBe(403);
    expect((await sela.call('ledger')).status).toBe(403);
  });

  it('is written to by the desk alone: whoever asked reads nothing of it, nor does who handles it later', async () => {
    const number = await sent();
    const write = (who: Caller, visibility = 'handler') =>
      who.call('comment', { params: { number }, body: { text: `By ${visibility}`, visibility } });
    // There is nobody from outside yet, and nothing is said to nobody.
    expect((await write(maren)).body.type).toContain('nobody-outside');
    ok(await give(number, {}));
    const sela = await desk.contact(EMAIL);
    const before = (await desk.letters()).length;
    ok(await write(maren));
    const letters = (await desk.letters()).slice(before);
    expect(letters.map(({ to }) => to.includes(EMAIL))).toEqual([true]);
    expect(letters[0]?.text).toContain('By handler');
    expect(letters[0]?.text).toContain(`/given/${number}`);
    const [first] = ok(await given(sela, number)).messages;
    expect(first).toMatchObject({ text: 'By handler', note: false, alone: true, mine: false, from: 'Maren Okafor' });
    expect(ok(await priya.call('myRequest', { params: { number } })).messages).toEqual([]);
    // What whoever asked writes they hear of, and nothing that is for the desk.
    const heard = async (say: () => Promise<Answer>): Promise<number> => {
      const till = (await desk.letters()).length;
      ok(await say());
      return (await desk.letters()).slice(till).filter(({ to }) => to.includes(EMAIL)).length;
    };
    const message = { params: { number }, body: { text: 'When do I come?' } };
    expect(await heard(() => priya.call('myMessage', message))).toBe(1);
    expect(await heard(() => write(maren, 'internal'))).toBe(0);
    // One does not write to oneself so.
    expect((await write(sela)).status).toBe(409);
    const { history } = await maren.sheet(number);
    expect(history.find(({ comment }: Answer['body']) => comment?.visibility === 'handler')).toMatchObject({
      what: 'Message to Sela Brightwater, who handles it from outside',
      comment: { text: 'By handler', visibility: 'handler', files: [] },
    });
    ok(await give(number, { name: 'Another One', email: 'another.one@northmoor.example' }));
    const other = await desk.contact('another.one@northmoor.example');
    const { messages } = ok(await given(other, number));
    expect(messages.map(({ text }: { text: string }) => text)).toEqual(['When do I come?']);
    expect((await given(sela, number)).status).toBe(404);
  });

  it('gives it back with a reason, and sees it no longer; those who hear of delays are told', async () => {
    const number = await sent();
    ok(await give(number, {}));
    const sela = await desk.contact(EMAIL);
    const { version } = ok(await given(sela, number));
    const back = (reason: string) =>
      sela.call('giveBack', { params: { number }, headers: onVersion(version), body: { reason } });
    expect((await back(' ')).body.problems).toMatchObject([{ field: 'reason' }]);
    ok(await back('I am away until May.'));
    expect((await given(sela, number)).status).toBe(404);
    const sheet = await maren.sheet(number);
    expect(sheet.handler).toBeNull();
    const said = sheet.history.flatMap(({ comment }: { comment: { text: string } | null }) => comment?.text ?? []);
    expect(said).toEqual(['I am away until May.']);
    const told = (await desk.letters()).filter(({ subject }) => subject.includes(number)).at(-1);
    expect(told?.subject).toContain('Nobody');
    expect(
      (await sela.call('giveBack', { params: { number }, headers: onVersion(version + 9), body: { reason: 'x' } }))
        .status,
    ).toBe(404);
  });

  it('is nobody who works here, left, or asked; and nobody who may not assign it asks them', async () => {
    const number = await sent();
    const problems = async (body: object) =>
      (await give(number, body)).body.problems?.map(({ field }: { field: string }) => field);
    expect(await problems({ email: 'oskar.veldhuis@skerrow.example' })).toEqual(['email']);
    expect(await problems({ email: 'kasper.lund.weir@merrow.example' })).toEqual(['email']);
    expect(await problems({ email: 'no address' })).toEqual(['email']);
    expect(await problems({ name: ' ', email: 'new.person@northmoor.example' })).toEqual(['name']);
    expect((await give(number, {}, priya)).status).toBe(404);
    expect((await maren.sheet(number)).handler).toBeNull();
    // Nobody is asked to handle what they asked for themselves.
    const lena = await desk.contact('lena.varga.holt@tarnbay.example');
    const answers = { ...WATER, visitor: 'Somebody else', institute: 'haldane', fee: '20' };
    const theirs = ok(await lena.submit('visit', answers, { release })).number;
    const refused = await give(theirs, { email: 'lena.varga.holt@tarnbay.example' });
    expect(refused.body.problems).toMatchObject([{ field: 'email' }]);
    expect((await maren.sheet(theirs)).handler).toBeNull();
  });
});
