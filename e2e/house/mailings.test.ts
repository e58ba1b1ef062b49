import { type MailingDesign, newMailing } from '@tolvek/core/mailing';
import { links, notices, owedForms, people, requests } from '@tolvek/server/schema';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, tripOf } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
let declan: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  priya = await desk.as('Priya Nakamura-Lind');
  declan = await desk.as('Declan Oyelaran');
  stranger = await desk.as();
});
afterAll(() => desk.close());

const DAY = 24 * 60;
const now = (): number => desk.running.house.clock.now();
/** Time passes, and all that is due happens. */
const later = async (minutes: number): Promise<void> =>
  void ok(await stranger.call('advanceClock', { body: { minutes } }));
const KIT: MailingDesign = {
  ...newMailing('Kit check', 'kit-check'),
  to: { named: 'keeper' },
  about: { is: 'requests', register: 'kit', field: 'thing', stages: ['in_use'], when: '' },
  dueIn: 5,
  reminders: [
    { days: 1, side: 'before' },
    { days: 1, side: 'after' },
  ],
  passesOn: true,
};
const to = (...names: string[]): MailingDesign['to'] => ({
  audience: { in: { anyOf: names.map((name) => `@${desk.idOf(name)}`) }, outOf: [] },
});

/** A mailing of its own, for a test to send. */
async function mailing(form: string, content: MailingDesign): Promise<string> {
  const params = { key: form };
  const { id } = ok(await maren.call('addMailing', { params, headers: freshly(), body: { mailing: content } }));
  return id;
}
const send = async (id: string, onlyNew = false): Promise<Answer['body']> => {
  const sent = ok(await maren.call('sendMailing', { params: { id }, headers: freshly(), body: { onlyNew } }));
  await later(1);
  return sent;
};
const rows = async (id: string, query: Record<string, string> = {}): Promise<Answer['body']> =>
  ok(await maren.call('owedForms', { params: { id }, query }));
const viewOf = async (form: string, id: string): Promise<Answer['body']> =>
  ok(await maren.call('mailings', { params: { key: form } })).mailings.find((each: { id: string }) => each.id === id);
const toFill = async (who: Caller): Promise<Answer['body'][]> => ok(await who.call('frontDesk')).toFill;
/** What somebody has to fill in because of one mailing. */
const owedTo = (name: string, id: string) =>
  desk.running.house.db
    .select()
    .from(owedForms)
    .where(and(eq(owedForms.mailingId, id), eq(owedForms.personId, desk.idOf(name))))
    .all();
const lettersTo = async (name: string): Promise<readonly string[]> =>
  (await desk.letters()).filter(({ to: whom }) => whom.includes(addressed(name))).map(({ subject }) => subject);
const addressed = (name: string): string =>
  desk.running.house.db.select().from(people).where(eq(people.name, name)).get()?.email ?? '';
const fine = { found: 'fine' };
const fieldsOf = ({ body }: Answer): readonly string[] => body.problems.map(({ field }: { field: string }) => field);

describe('a form that is sent to those who stand in what it is about', () => {
  let id = '';
  beforeAll(async () => {
    id = await mailing('kit-check', KIT);
  });

  it('says before whom it goes to, and whom not and why', async () => {
    const params = { key: 'kit-check' };
    const tried = ok(await maren.call('tryMailing', { params, body: { mailing: KIT } }));
    expect([tried.forms, tried.people, tried.notSent]).toEqual([7, 4, 1]);
    expect(tried.someNot).toEqual([{ name: '', about: expect.stringContaining('Quadrat set'), why: 'nobody' }]);
    expect(tried.some.map(({ name }: { name: string }) => name)).toContain('Mireille Thorsby');
  });

  it('goes out in one email to each, and once however often it is sent', async () => {
    const before = (await lettersTo('Priya Nakamura-Lind')).length;
    expect(await send(id)).toEqual({ forms: 7, people: 4 });
    expect(await send(id)).toEqual({ forms: 0, people: 0 });
    expect((await rows(id)).total).toBe(7);
    expect((await viewOf('kit-check', id)).counts).toEqual({ open: 7, late: 0, done: 0 });
    expect((await lettersTo('Priya Nakamura-Lind')).slice(before)).toEqual(['Please fill in: Kit check, 2 times']);
    expect((await lettersTo('Ruadhan Pell')).at(-1)).toMatch(/^Please fill in: Kit check: Underwater camera/);
  });

  it('stands on the first page of each, with what it is about answered already', async () => {
    const [first] = await toFill(declan);
    expect([first.title, first.about, first.late]).toEqual(['Kit check', expect.stringContaining('meter'), false]);
    const door = ok(await declan.call('door', { params: { slug: 'kit-check' }, query: { owed: first.id } }));
    expect(door.sent).toMatchObject({ id: first.id, passesOn: true, about: first.about });
    const asked = door.form.fields.find(({ key }: { key: string }) => key === 'thing');
    const [row] = owedTo('Declan Oyelaran', id).filter(({ id: owed }) => owed === first.id);
    expect(asked.preset).toEqual({ from: 'fixed', value: row?.aboutRequestId });
    // Of the others nothing comes along.
    expect(door.form.facts.references.map(({ id: known }: { id: string }) => known)).toEqual([row?.aboutRequestId]);
    // Nobody else opens it, and nobody by its id alone.
    const byOther = await priya.call('door', { params: { slug: 'kit-check' }, query: { owed: first.id } });
    const byNobody = await stranger.call('door', { params: { slug: 'kit-check' }, query: { owed: first.id } });
    const atOther = await declan.call('door', { params: { slug: 'come-on-site' }, query: { owed: first.id } });
    expect([byOther.status, byNobody.status, atOther.status]).toEqual([404, 401, 404]);
  });

  it('is done when it is sent, about what it was asked about and nothing else, and once', async () => {
    const [first] = await toFill(declan);
    const other = desk.things().get('HC-01');
    const more = { owed: first.id };
    const forged = await declan.submit('kit-check', { ...fine, thing: other }, { more });
    expect([forged.status, fieldsOf(forged)]).toEqual([422, ['thing']]);
    const key = crypto.randomUUID();
    const sent = ok(await declan.submit('kit-check', fine, { more, key }));
    expect(ok(await declan.submit('kit-check', fine, { more, key })).number).toBe(sent.number);
    const twice = await declan.submit('kit-check', fine, { more });
    expect([twice.status, twice.body.type]).toEqual([409, 'urn:tolvek:problem:owed-closed']);
    const stored = desk.running.house.db.select().from(requests).where(eq(requests.number, sent.number)).get();
    const [row] = owedTo('Declan Oyelaran', id).filter(({ state }) => state === 'done');
    expect([stored?.values.thing, stored?.requesterId]).toEqual([row?.aboutRequestId, desk.idOf('Declan Oyelaran')]);
    expect(row?.answerId).toBe(stored?.id);
    expect((row?.closedAt ?? 0) - (stored?.createdAt ?? 0)).toBe(0);
    expect((await toFill(declan)).map(({ id: left }) => left)).not.toContain(first.id);
    const closed = ok(await declan.call('door', { params: { slug: 'kit-check' }, query: { owed: first.id } }));
    expect([closed.form, closed.why, closed.earlier.number]).toEqual([null, 'owed-closed', sent.number]);
    // Whoever works on the thing reads it there.
    const thing = await (await desk.as('Jory Blackadder-Finn')).sheet(numberOf(row?.aboutRequestId ?? ''));
    expect(thing.asked).toEqual([
      {
        ...{ name: 'Kit check', form: 'Kit check', means: [] },
        rows: [expect.objectContaining({ person: 'Declan Oyelaran', state: 'done' })],
      },
    ]);
    const [{ answer }] = thing.asked[0].rows;
    expect(
      answer.values.fields.map(({ key: field, shown }: { key: string; shown: string }) => [field, shown]),
    ).toContainEqual(['found', 'In order']);
  });

  it('is passed on to a colleague who can take it, and to nobody else', async () => {
    const [mine] = await toFill(priya);
    const pass = (name: string, who = priya) =>
      who.call('passOn', { params: { id: mine.id }, body: { to: desk.idOf(name) } });
    expect((await pass('Bram Solheim', declan)).status).toBe(404);
    for (const no of ['Priya Nakamura-Lind', 'Freya Nordahl', 'Nobody at all'])
      expect([no, fieldsOf(await pass(no))]).toEqual([no, ['to']]);
    expect(ok(await pass('Bram Solheim'))).toEqual({ to: 'Bram Solheim' });
    expect((await pass('Bram Solheim')).status).toBe(409);
    const bram = await desk.as('Bram Solheim');
    const [his] = await toFill(bram);
    expect([his.about, his.due]).toEqual([mine.about, mine.due]);
    expect((await lettersTo('Bram Solheim')).at(-1)).toMatch(/^Please fill in: Kit check: Drysuit/);
    expect((await rows(id, { state: 'passed' })).rows.map(({ name }: { name: string }) => name)).toEqual([
      'Priya Nakamura-Lind',
    ]);
    const row = (await rows(id)).rows.find(({ name }: { name: string }) => name === 'Bram Solheim');
    expect(row.passedBy).toBe('Priya Nakamura-Lind');
    expect((await priya.submit('kit-check', fine, { more: { owed: mine.id } })).status).toBe(409);
    ok(await bram.submit('kit-check', { found: 'repair', wrong: 'The zip' }, { more: { owed: his.id } }));
  });

  it('reminds whoever has not answered, the day before it is due and the day after, in one email', async () => {
    const mireille = await lettersTo('Mireille Thorsby');
    const done = await lettersTo('Bram Solheim');
    // Monday a week later, when it is due, and the day after.
    await later(7 * DAY);
    await later(DAY);
    const reminded = (await lettersTo('Mireille Thorsby')).slice(mireille.length);
    expect(reminded).toEqual(Array(2).fill('Reminder, please fill in: Kit check, 2 times'));
    expect(await lettersTo('Bram Solheim')).toEqual(done);
    expect((await rows(id, { state: 'late' })).total).toBe(5);
    await later(30 * DAY);
    expect((await lettersTo('Mireille Thorsby')).length).toBe(mireille.length + 2);
  });

  it('is reminded and ended by hand; who has it still is told, and who has not is not', async () => {
    const open = (await rows(id, { state: 'open' })).rows;
    const [one] = open;
    const before = (await lettersTo(one.name)).length;
    expect(ok(await maren.call('remindOwed', { params: { id }, body: { only: [one.id] } }))).toEqual({ people: 1 });
    expect((await lettersTo(one.name)).length).toBe(before + 1);
    const forms = [one.id, owedTo('Declan Oyelaran', id).find(({ state }) => state === 'done')?.id];
    expect(ok(await maren.call('endOwed', { params: { id }, body: { forms } }))).toEqual({ ended: 1 });
    expect((await viewOf('kit-check', id)).counts.open).toBe(open.length - 1);
  });

  it('ends with its mailing, and what was answered stays', async () => {
    const { version } = await viewOf('kit-check', id);
    const { open, done } = (await viewOf('kit-check', id)).counts;
    expect((await maren.call('removeMailing', { params: { id }, headers: onVersion(version + 1) })).status).toBe(412);
    expect(ok(await maren.call('removeMailing', { params: { id }, headers: onVersion(version) }))).toEqual({
      ended: open,
    });
    expect(owedTo('Mireille Thorsby', id).every(({ state }) => state === 'ended')).toBe(true);
    expect(await toFill(await desk.as('Mireille Thorsby'))).toEqual([]);
    const left = desk.running.house.db.select().from(owedForms).where(eq(owedForms.mailingId, id)).all();
    expect(left.filter(({ state, answerId }) => state === 'done' && answerId !== null).length).toBe(done);
    expect(
      (await maren.call('sendMailing', { params: { id }, headers: freshly(), body: { onlyNew: false } })).status,
    ).toBe(404);
  });
});

const numberOf = (id: string): string =>
  desk.running.house.db.select().from(requests).where(eq(requests.id, id)).get()?.number ?? '';

describe('a follow-up form', () => {
  const FOLLOW: MailingDesign = {
    ...newMailing('After the trip', 'trip-report'),
    to: { named: '~requester' },
    about: { is: 'requests', register: 'vessel-time', field: 'trip', stages: ['done'], when: 'persons > 1' },
    when: { is: 'reached', days: 1 },
    counts: 'mean',
  };
  let id = '';
  let signe: Caller;
  beforeAll(async () => {
    id = await mailing('trip-report', FOLLOW);
    signe = await desk.as('Signe Halvard');
    const { version, door } = ok(await maren.call('doorDesign', { params: { slug: 'trip-report' } }));
    const body = { door: { ...door, onlySent: true }, note: '' };
    ok(await maren.call('changeDoor', { params: { slug: 'trip-report' }, headers: onVersion(version), body }));
  });
  const move = async (number: string, stage: string): Promise<void> => {
    const { version } = await signe.sheet(number);
    ok(await signe.call('moveStage', { params: { number }, headers: onVersion(version), body: { stage } }));
  };
  let hour = 8;
  /** A trip of somebody, at its first stage. */
  const trip = async (who: Caller, more: object = {}): Promise<string> => {
    hour += 3;
    const at = (h: number) => `2027-02-0${1 + Math.floor(h / 24)}T${String(h % 24).padStart(2, '0')}:00`;
    const answers = tripOf(desk.things(), { leaves: at(hour), returns: at(hour + 2), ...more });
    const slug = 'vessel-time';
    return ok(await who.submit(slug, answers)).number;
  };

  it('is sent some days after the request is finished, where it still is and its condition holds', async () => {
    const [first, back, alone] = [await trip(priya), await trip(priya), await trip(priya, { persons: 1 })];
    for (const number of [first, back, alone]) await move(number, 'in_hand');
    for (const number of [first, back, alone]) await move(number, 'done');
    await move(back, 'in_hand');
    expect(await toFill(priya)).toEqual([]);
    // Over a weekend it may take until Monday.
    await later(4 * DAY);
    const sent = await toFill(priya);
    expect(sent.map(({ title, slug }) => [title, slug])).toEqual([['Trip report', 'trip-report']]);
    expect(ok(await priya.call('myRequest', { params: { number: first } })).toFill).toEqual(sent);
    expect(ok(await priya.call('myRequest', { params: { number: back } })).toFill).toEqual([]);
    // Finished again, the other is asked about; the first is not asked twice.
    await move(back, 'done');
    await move(first, 'in_hand');
    await move(first, 'done');
    await later(4 * DAY);
    expect((await toFill(priya)).length).toBe(2);
  });

  it('is asked from the sheet as well, wherever the request stands, by who may change it', async () => {
    const number = await trip(declan, { persons: 1 });
    const before = (await toFill(declan)).length;
    const { asks } = await signe.sheet(number);
    expect(asks).toEqual([{ id, name: 'After the trip', form: 'Trip report' }]);
    const ask = (who: Caller, body: object = { mailing: id }, key = freshly()): Promise<Answer> =>
      who.call('askAbout', { params: { number }, headers: key, body });
    const key = freshly();
    expect(ok(await ask(signe, undefined, key))).toEqual({ people: 1 });
    expect(ok(await ask(signe, undefined, key))).toEqual({ people: 1 });
    await later(1);
    expect((await toFill(declan)).length).toBe(before + 1);
    // Asked once more, it is open still, and not sent again.
    ok(await ask(signe));
    await later(1);
    expect((await toFill(declan)).length).toBe(before + 1);
    const [row] = (await signe.sheet(number)).asked.flatMap((each: Answer['body']) => each.rows);
    expect([row.person, row.state]).toEqual(['Declan Oyelaran', 'open']);
    expect((await ask(declan)).status).toBe(404);
    expect((await ask(signe, { mailing: 'nothing' })).status).toBe(404);
    const elsewhere = await mailing('kit-check', KIT);
    expect((await ask(signe, { mailing: elsewhere })).status).toBe(404);
    const { version } = await viewOf('kit-check', elsewhere);
    ok(await maren.call('removeMailing', { params: { id: elsewhere }, headers: onVersion(version) }));
    // Where nobody stands, nobody is asked.
    const handlers = await mailing('trip-report', { ...FOLLOW, name: 'Handlers', to: { named: '~handler' } });
    const nobody = await ask(signe, { mailing: handlers });
    expect([nobody.status, fieldsOf(nobody)]).toEqual([422, ['mailing']]);
    const { version: on } = await viewOf('trip-report', handlers);
    ok(await maren.call('removeMailing', { params: { id: handlers }, headers: onVersion(on) }));
    const forms = owedTo('Declan Oyelaran', id).map(({ id: owed }) => owed);
    ok(await maren.call('endOwed', { params: { id }, body: { forms } }));
  });

  it('does not go out while its mailing is at rest, though it was planned before', async () => {
    const { version } = await viewOf('trip-report', id);
    const set = (on: number, going: boolean) =>
      maren.call('changeMailing', {
        ...{ params: { id }, headers: onVersion(on), body: { mailing: { ...FOLLOW, going }, note: '' } },
      });
    const before = (await toFill(declan)).length;
    const number = await trip(declan);
    await move(number, 'in_hand');
    await move(number, 'done');
    ok(await set(version, false));
    await later(4 * DAY);
    expect((await toFill(declan)).length).toBe(before);
    ok(await set(version + 1, true));
  });

  it('comes in by whom it was sent to alone, and its answers stand with the request, with their mean', async () => {
    const bare = ok(await priya.call('door', { params: { slug: 'trip-report' } }));
    expect([bare.form, bare.why]).toEqual([null, 'not-for-you']);
    expect(ok(await stranger.call('door', { params: { slug: 'trip-report' } })).form).toBeNull();
    expect(ok(await priya.call('frontDesk')).forms.map(({ slug }: { slug: string }) => slug)).not.toContain(
      'trip-report',
    );
    const [first] = await toFill(priya);
    const answers = { went: 'planned', mark: '4' };
    expect((await priya.submit('trip-report', answers)).status).toBe(403);
    ok(await priya.submit('trip-report', answers, { more: { owed: first.id } }));
    const row = owedTo('Priya Nakamura-Lind', id).find(({ state }) => state === 'done');
    // Two more are asked about the same trip.
    const more = {
      ...FOLLOW,
      name: 'From two',
      when: { is: 'by-hand' },
      to: to('Declan Oyelaran', 'Bram Solheim'),
    } as const;
    await send(await mailing('trip-report', more));
    const bram = await desk.as('Bram Solheim');
    for (const [who, mark] of [
      [declan, '5'],
      [bram, '2'],
    ] as const)
      for (const { id: owed, slug } of await toFill(who))
        if (slug === 'trip-report') ok(await who.submit(slug, { went: 'planned', mark }, { more: { owed } }));
    const { asked } = await signe.sheet(numberOf(row?.aboutRequestId ?? ''));
    const means = asked.map(({ name, means: each }: Answer['body']) => [name, each]);
    expect(means).toEqual([
      ['From two', [{ label: 'Mark', count: 2, shown: '3.5' }]],
      ['After the trip', []],
    ]);
  });

  it('opens for a contact by the link of their email, and by nothing that was passed on, changed or is over', async () => {
    const freya = addressed('Freya Nordahl');
    const caller = await desk.contact(freya);
    const slug = ok(await maren.call('form', { params: { key: 'vessel-time' } })).doors.find(
      ({ kind }: { kind: string }) => kind === 'outside',
    ).slug;
    const answers = tripOf(desk.things(), {
      leaves: '2027-03-01T09:00',
      returns: '2027-03-01T11:00',
      leader: undefined,
    });
    const { leader: _, ...asked } = answers as Record<string, unknown>;
    const { number } = ok(await caller.submit(slug, asked));
    // Guests are decided about first.
    const sheet = await signe.sheet(number);
    if (sheet.stage.role === 'deciding') {
      const decider = await desk.as('Tomas Achterberg');
      const seen = await decider.seen(number);
      ok(
        await decider.call('decide', {
          ...{ params: { number }, headers: freshly(), body: { verdict: 'approve', comment: '', seen } },
        }),
      );
    }
    await move(number, 'in_hand');
    await move(number, 'done');
    await later(4 * DAY);
    const token = await desk.tokenFor(freya, 'fill in');
    const at = (owed: string, who = stranger) => who.call('door', { params: { slug: 'trip-report' }, query: { owed } });
    const door = ok(await at(token));
    expect([door.asks.email, door.form === null, door.sent.passesOn]).toEqual([freya, false, false]);
    for (const no of [`${token}x`, token.slice(1), 'x'.repeat(32)])
      expect([no, (await at(no)).status]).toEqual([no, 404]);
    const [row] = owedTo('Freya Nordahl', id);
    expect((await at(row?.id ?? '')).status).toBe(401);
    expect((await stranger.submit('trip-report', { went: 'planned', mark: '3' })).status).toBe(403);
    // Its door wants the address proved on each device: a link that was passed on opens nothing.
    const { version, door: design } = ok(await maren.call('doorDesign', { params: { slug: 'trip-report' } }));
    const set = (on: number, follows?: string) =>
      maren.call('changeDoor', {
        ...{ params: { slug: 'trip-report' }, headers: onVersion(on) },
        body: { door: { ...design, ...(follows ? { follows } : {}) }, note: '' },
      });
    ok(await set(version, 'device'));
    const passed = await at(token);
    expect([passed.status, passed.body.type]).toEqual([401, 'urn:tolvek:problem:prove']);
    expect(
      (await stranger.submit('trip-report', { went: 'planned', mark: '3' }, { more: { owed: token } })).status,
    ).toBe(401);
    expect(ok(await at(token, caller)).form).not.toBeNull();
    ok(await set(version + 1));
    // Over is over.
    const { db } = desk.running.house;
    const link = db
      .select()
      .from(links)
      .where(eq(links.targetId, row?.id ?? ''))
      .get();
    db.update(links)
      .set({ expiresAt: now() })
      .where(eq(links.id, link?.id ?? ''))
      .run();
    expect((await at(token)).status).toBe(410);
    db.update(links)
      .set({ expiresAt: now() + DAY * 60_000 })
      .where(eq(links.id, link?.id ?? ''))
      .run();
    const { number: answered } = ok(
      await stranger.submit('trip-report', { went: 'planned', mark: '3' }, { more: { owed: token } }),
    );
    expect(db.select().from(requests).where(eq(requests.number, answered)).get()?.requesterId).toBe(
      desk.idOf('Freya Nordahl'),
    );
    expect(
      (await stranger.submit('trip-report', { went: 'planned', mark: '3' }, { more: { owed: token } })).status,
    ).toBe(409);
  });

  it('lists what came without saying which request it is about, and joins nothing by guess', async () => {
    expect(ok(await maren.call('unjoined', { params: { id } })).requests).toEqual([]);
  });

  it('goes with a request that is deleted; an answer that is deleted leaves that it was asked', async () => {
    const { db } = desk.running.house;
    const done = db
      .select()
      .from(owedForms)
      .where(and(eq(owedForms.mailingId, id), eq(owedForms.state, 'done')))
      .all();
    const [first] = done;
    const ada = await desk.as('Ada Quillfeather');
    const remove = async (number: string): Promise<void> => {
      const { version } = await ada.sheet(number);
      const body = { reason: 'By mistake' };
      ok(await ada.call('deleteRequest', { params: { number }, headers: onVersion(version), body }));
    };
    const about = and(eq(owedForms.aboutRequestId, first?.aboutRequestId ?? ''), eq(owedForms.state, 'done'));
    for (const { answerId } of db.select().from(owedForms).where(about).all()) await remove(numberOf(answerId ?? ''));
    expect(
      db
        .select()
        .from(owedForms)
        .where(eq(owedForms.id, first?.id ?? ''))
        .get(),
    ).toMatchObject({
      ...{ state: 'done', answerId: null },
    });
    await remove(numberOf(first?.aboutRequestId ?? ''));
    expect(
      db
        .select()
        .from(owedForms)
        .where(eq(owedForms.id, first?.id ?? ''))
        .get(),
    ).toBeUndefined();
  });
});

describe('a form that is owed regularly', () => {
  it('goes out as each period begins, to whoever is meant then, whether the last was answered or not', async () => {
    const id = await mailing('kit-check', {
      ...newMailing('Each week', 'kit-check'),
      ...{ to: to('Priya Nakamura-Lind', 'Declan Oyelaran'), when: { is: 'every', period: 'week' }, dueIn: null },
    });
    const { next } = await viewOf('kit-check', id);
    // Monday, when the desk opens.
    expect([new Date(next).getUTCDay(), new Date(next).getUTCHours()]).toEqual([1, 8]);
    expect(owedTo('Priya Nakamura-Lind', id)).toEqual([]);
    // Day by day: what goes out goes out when it is due.
    for (let day = 0; day < 14; day += 1) await later(DAY);
    const each = owedTo('Priya Nakamura-Lind', id);
    expect(each.length).toBe(2);
    // By the end of the week: on Friday, or on the day before where that one is a holiday.
    for (const { due } of each) {
      const day = new Date(due ?? 0);
      const isHoliday = ['2026-12-03', '2026-12-24'].includes(day.toISOString().slice(0, 10));
      expect([day.getUTCDay(), day.getUTCHours()]).toEqual([isHoliday ? 4 : 5, 17]);
    }
    const { goings } = await viewOf('kit-check', id);
    expect(goings.map(({ sent, done, by }: Answer['body']) => [sent, done, by])).toEqual([
      [2, 0, ''],
      [2, 0, ''],
    ]);
    const [newest] = goings;
    expect((await rows(id, { going: newest.id })).rows.map(({ name }: { name: string }) => name).sort()).toEqual([
      'Declan Oyelaran',
      'Priya Nakamura-Lind',
    ]);
    // At rest nothing goes out, and when it goes on it goes on with the next period.
    const { version, mailing: content } = await viewOf('kit-check', id);
    const set = (on: number, change: Partial<MailingDesign>) =>
      maren.call('changeMailing', {
        ...{ params: { id }, headers: onVersion(on), body: { mailing: { ...content, ...change }, note: 'Holidays' } },
      });
    ok(await set(version, { going: false }));
    await later(7 * DAY);
    expect(owedTo('Priya Nakamura-Lind', id).length).toBe(2);
    ok(await set(version + 1, { going: true }));
    await later(7 * DAY);
    expect(owedTo('Priya Nakamura-Lind', id).length).toBe(3);
    expect((await viewOf('kit-check', id)).states.map(({ note }: { note: string }) => note)).toEqual([
      'Holidays',
      'Holidays',
      '',
    ]);
    // After a stand-still of three weeks only what is due then goes out, once; the weeks that are over are told.
    const before = owedTo('Priya Nakamura-Lind', id).length;
    await later(21 * DAY);
    const after = await viewOf('kit-check', id);
    expect(owedTo('Priya Nakamura-Lind', id).length).toBe(before + 1);
    expect([after.missed.length, after.missed.every((day: string) => new Date(day).getUTCDay() === 1)]).toEqual([
      2,
      true,
    ]);
    expect(Date.parse(after.next) - Date.parse(after.goings[0].at)).toBeLessThanOrEqual(
      7 * DAY * 60_000 + 3_600_000 * 24 * 4,
    );
    ok(await set(version + 2, { going: false }));
  });
});

describe('an answer that is withdrawn', () => {
  it('is none: the form is to be filled in again', async () => {
    const slug = 'kit-check';
    const { version, door } = ok(await maren.call('doorDesign', { params: { slug } }));
    const body = { door: { ...door, withdraws: 'finished' }, note: '' };
    ok(await maren.call('changeDoor', { params: { slug }, headers: onVersion(version), body }));
    const id = await mailing(slug, { ...KIT, name: 'Withdrawn' });
    await send(id);
    const [owed] = (await toFill(priya)).filter(({ title, about }) => title === 'Kit check' && about !== null);
    const { number } = ok(await priya.submit(slug, fine, { more: { owed: owed.id } }));
    expect((await toFill(priya)).map(({ id: left }) => left)).not.toContain(owed.id);
    const mine = ok(await priya.call('myRequest', { params: { number } }));
    const withdrawal = { params: { number }, headers: onVersion(mine.version), body: { reason: 'The wrong one' } };
    ok(await priya.call('withdrawMine', withdrawal));
    expect((await toFill(priya)).map(({ id: left }) => left)).toContain(owed.id);
    ok(await priya.submit(slug, fine, { more: { owed: owed.id } }));
    const { version: on } = await viewOf(slug, id);
    ok(await maren.call('removeMailing', { params: { id }, headers: onVersion(on) }));
  });
});

describe('a form of each about each of the others', () => {
  it('is asked of each about all but themselves, and of nobody twice when two records are one person', async () => {
    const params = { key: 'kit-check' };
    const names = ['Priya Nakamura-Lind', 'Declan Oyelaran', 'Ruadhan Pell'];
    const wrong = await maren.call('addMailing', {
      ...{ params, headers: freshly() },
      body: {
        mailing: {
          ...newMailing('Each other', 'kit-check'),
          to: to(...names),
          about: { is: 'each-other', field: 'thing' },
        },
      },
    });
    expect([wrong.status, fieldsOf(wrong)]).toEqual([422, ['field']]);
    const field = 'leader';
    const id = await mailing('vessel-time', {
      ...newMailing('Each other', 'vessel-time'),
      ...{ to: to(...names), about: { is: 'each-other', field } },
    });
    expect(await send(id)).toEqual({ forms: 6, people: 3 });
    const mine = owedTo('Ruadhan Pell', id);
    expect(mine.map(({ aboutPersonId }) => aboutPersonId).sort()).toEqual(
      [desk.idOf('Priya Nakamura-Lind'), desk.idOf('Declan Oyelaran')].sort(),
    );
    const ruadhan = await desk.as('Ruadhan Pell');
    const [first] = (await toFill(ruadhan)).filter(({ title }) => title === 'Vessel time');
    const answers = tripOf(desk.things(), { leaves: '2027-04-01T09:00', returns: '2027-04-01T11:00' });
    const { number } = ok(await ruadhan.submit('vessel-time', answers, { more: { owed: first.id } }));
    const stored = desk.running.house.db.select().from(requests).where(eq(requests.number, number)).get();
    const [row] = mine.filter(({ id: owed }) => owed === first.id);
    expect(stored?.values.leader).toBe(row?.aboutPersonId);
  });
});

describe('what is wrong in a mailing', () => {
  it('is said at its place, and nothing is put in force', async () => {
    const add = (form: string, content: unknown) =>
      maren.call('addMailing', { params: { key: form }, headers: freshly(), body: { mailing: content } });
    const plain = { ...newMailing('Any', 'kit-check'), to: to('Priya Nakamura-Lind') };
    const wrong: readonly [object, readonly string[]][] = [
      [{ name: ' ' }, ['name']],
      [{ to: { audience: { in: { anyOf: [] }, outOf: [] } } }, ['to']],
      [{ to: { audience: { in: { anyOf: ['nobodys'] }, outOf: [] } } }, ['to']],
      [{ to: { audience: { in: { anyOf: ['@nobody'] }, outOf: [] } } }, ['to']],
      [{ to: { named: '~requester' } }, ['to']],
      [{ door: 'come-on-site' }, ['door']],
      [{ when: { is: 'reached', days: 1 } }, ['when']],
      [{ dueIn: null }, ['reminders']],
      [
        {
          reminders: [
            { days: 1, side: 'before' },
            { days: 1, side: 'before' },
          ],
        },
        ['reminders'],
      ],
      [{ about: { is: 'requests', register: 'kit', field: 'found', stages: [], when: '' } }, ['field']],
      [{ about: { is: 'requests', register: 'nowhere', field: 'thing', stages: [], when: '' } }, ['field', 'about']],
      [{ about: { is: 'requests', register: 'kit', field: 'thing', stages: ['lost'], when: '' } }, ['stages']],
    ];
    for (const [change, fields] of wrong) {
      const answer = await add('kit-check', { ...plain, ...change });
      expect([change, answer.status, answer.status === 422 ? fieldsOf(answer) : answer.text]).toEqual([
        change,
        422,
        fields,
      ]);
    }
    const unnamed = ok(
      await maren.call('addDoor', {
        ...{ params: { key: 'kit-check' }, headers: freshly(), body: { name: 'Unnamed', proof: 'sign-in' } },
      }),
    ).slug;
    const { version, door } = ok(await maren.call('doorDesign', { params: { slug: unnamed } }));
    const put = { params: { slug: unnamed }, headers: onVersion(version) };
    const both = await maren.call('changeDoor', {
      ...put,
      body: { door: { ...door, unnamed: true, onlySent: true }, note: '' },
    });
    expect([both.status, fieldsOf(both)]).toEqual([422, ['onlySent']]);
    ok(await maren.call('changeDoor', { ...put, body: { door: { ...door, unnamed: true }, note: '' } }));
    expect(fieldsOf(await add('kit-check', { ...plain, door: unnamed }))).toEqual(['door']);
  });

  it('is that it asks for what is hidden, or goes to whoever stands in it: then it goes to nobody', async () => {
    const about = { is: 'requests', register: 'kit', field: 'thing', stages: [], when: 'worth > 100' } as const;
    const asks = { ...newMailing('Dear things', 'kit-check'), to: { named: '~requester' }, about } as const;
    const names = { ...asks, to: { named: 'keeper' }, about: { ...about, when: '' } } as const;
    const params = { key: 'kit-check' };
    const reach = async (content: MailingDesign): Promise<readonly unknown[]> => {
      const tried = ok(await maren.call('tryMailing', { params, body: { mailing: content } }));
      return [tried.forms, tried.findings.map(({ at }: { at: string }) => at)];
    };
    expect(await reach(asks)).toEqual([7, []]);
    expect(await reach(names)).toEqual([7, []]);
    const id = await mailing('kit-check', asks);
    const audience = { in: { everyone: true }, outOf: ['site-safety'], requester: 'out' } as const;
    const fields = ['worth', 'keeper'];
    desk.protect('kit', { rules: [{ id: 'closed', name: 'Closed', fields, audience, level: 'hidden' }] });
    expect(await reach(asks)).toEqual([0, ['condition']]);
    expect(await reach(names)).toEqual([0, ['condition']]);
    for (const content of [asks, names]) {
      const answer = await maren.call('addMailing', { params, headers: freshly(), body: { mailing: content } });
      expect([answer.status, fieldsOf(answer)]).toEqual([422, ['condition']]);
    }
    // What was set before sends nothing any more.
    const sent = await maren.call('sendMailing', { params: { id }, headers: freshly(), body: { onlyNew: false } });
    expect([sent.status, fieldsOf(sent)]).toEqual([422, ['condition']]);
    expect((await viewOf('kit-check', id)).findings.map(({ at }: { at: string }) => at)).toEqual(['condition']);
    desk.protect('kit', { rules: [] });
  });

  it('is that it is about requests of a register that whoever sets it builds no forms of', async () => {
    const mail = { ...newMailing('After a trip', 'trip-report'), to: { named: '~requester' } } as const;
    const about = { is: 'requests', register: 'vessel-time', field: 'trip', stages: [], when: '' } as const;
    const params = { key: 'trip-report' };
    const hanne = await desk.as('Hanne Istvan');
    const body = { mailing: { ...mail, about } };
    expect((await hanne.call('tryMailing', { params, body })).status).toBe(403);
    const ada = await desk.as('Ada Quillfeather');
    const subject = `@${desk.idOf('Hanne Istvan')}`;
    const given = { register: 'trip-report', give: ['configure'], take: [] };
    ok(await ada.call('changeRights', { params: { subject }, body: given }));
    // Of their own register they send what they like; who asked elsewhere is not theirs to write to.
    const tried = ok(await hanne.call('tryMailing', { params, body }));
    expect([tried.forms, tried.notSent]).toEqual([0, 0]);
    const refused = await hanne.call('addMailing', { params, headers: freshly(), body });
    expect([refused.status, fieldsOf(refused)]).toEqual([422, ['about']]);
    const plain = { ...newMailing('Plain', 'trip-report'), to: to('Bram Solheim') };
    const { id } = ok(await hanne.call('addMailing', { params, headers: freshly(), body: { mailing: plain } }));
    const { version } = await viewOf('trip-report', id);
    ok(await hanne.call('removeMailing', { params: { id }, headers: onVersion(version) }));
    expect((await hanne.call('mailings', { params: { key: 'kit-check' } })).status).toBe(403);
  });

  it('keeps the letters of what is closed by then from going out', async () => {
    const id = await mailing('kit-check', { ...newMailing('Once', 'kit-check'), to: to('Bram Solheim') });
    const before = (await lettersTo('Bram Solheim')).length;
    ok(await maren.call('sendMailing', { params: { id }, headers: freshly(), body: { onlyNew: false } }));
    const { version } = await viewOf('kit-check', id);
    // Removed at once: it has gone out by then, or it does not any more.
    ok(await maren.call('removeMailing', { params: { id }, headers: onVersion(version) }));
    await later(5);
    const sent = owedTo('Bram Solheim', id);
    expect(sent.every(({ state }) => state === 'ended')).toBe(true);
    const letters = (await lettersTo('Bram Solheim')).length - before;
    expect(letters).toBeLessThanOrEqual(sent.length);
    const left = desk.running.house.db.select().from(notices).where(eq(notices.kind, 'to-fill-in')).all();
    expect(left.every(({ state }) => state === 'sent' || state === 'dropped')).toBe(true);
  });
});

describe('two records that become one person', () => {
  it('are sent and have to fill in once what both were, and mailings name the one that stays', async () => {
    const ada = await desk.as('Ada Quillfeather');
    const [stays, goes] = ['Wim Haldane', 'Greta Moss'].map((name) => desk.idOf(name));
    const content = { ...newMailing('To both', 'visit'), to: to('Wim Haldane', 'Greta Moss') };
    const both = await mailing('site-access', content);
    const one = await mailing('site-access', { ...content, name: 'To one', to: to('Greta Moss') });
    expect([await send(both), await send(one)]).toEqual([
      { forms: 2, people: 2 },
      { forms: 1, people: 1 },
    ]);
    ok(await ada.call('mergePeople', { params: { id: stays ?? '' }, body: { other: goes } }));
    expect(owedTo('Wim Haldane', both).map(({ personId }) => personId)).toEqual([stays]);
    expect(owedTo('Wim Haldane', one).map(({ personId }) => personId)).toEqual([stays]);
    const { mailing: named, people: called } = await viewOf('site-access', one);
    expect([named.to.audience.in, called]).toEqual([{ anyOf: [`@${stays}`] }, { [stays ?? '']: 'Wim Haldane' }]);
  });
});
