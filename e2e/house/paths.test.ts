import type { ApprovalPath, SeatPlan, Silence } from '@tolvek/core/approval';
import type { FormDesign } from '@tolvek/core/form';
import { approvalSteps, timers } from '@tolvek/server/schema';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, WATER } from './desk.ts';

let desk: Desk;
let [maren, priya, edda, oskar, hanne, ada]: readonly Caller[] = [];
let release = 0;
const of = { params: { key: 'site-access' } };
const HOUR = 3_600_000;

/** A path of one step, with more of its rule. */
const path = (id: string, seats: readonly SeatPlan[], more: object = {}): ApprovalPath => ({
  ...{ id, label: `Path ${id}` },
  steps: [{ id: `${id}-step`, label: `Step ${id}`, seats, needed: 1, ...more }],
});

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, edda, oskar, hanne, ada] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Edda Kilbride'),
    await desk.as('Oskar Veldhuis'),
    await desk.as('Hanne Istvan'),
    await desk.as('Ada Quillfeather'),
  ];
  const person = (name: string) => ({ person: desk.idOf(name) });
  const timed = (silence: Silence): ApprovalPath =>
    path(silence, [person('Oskar Veldhuis')], {
      limit: { within: 8 * HOUR, remind: 2 * HOUR, silence },
      ...(silence === 'pass' ? { instead: [person('Edda Kilbride'), person('Hanne Istvan')] } : {}),
    });
  const paths = [
    path('keeper', [{ field: 'keeper' }], { instead: [person('Oskar Veldhuis'), { group: 'duty-managers' }] }),
    ...(['tell', 'pass', 'agree', 'refuse'] as const).map(timed),
    path('alone', [person('Hanne Istvan')]),
    {
      ...{ id: 'three', label: '' },
      steps: [
        { id: 'three-1', label: 'First', seats: [person('Edda Kilbride')], needed: 1 },
        {
          ...{ id: 'three-2', label: 'Second', needed: 2 },
          seats: [person('Hanne Istvan'), person('Oskar Veldhuis'), person('Tomas Achterberg')],
        },
      ],
    },
    {
      ...{ id: 'then-timed', label: '' },
      steps: [
        { id: 'timed-1', label: 'Either', seats: [person('Edda Kilbride'), person('Hanne Istvan')], needed: 1 },
        {
          ...{ id: 'timed-2', label: 'In time', needed: 1, seats: [person('Oskar Veldhuis')] },
          limit: { within: 8 * HOUR, remind: 2 * HOUR, silence: 'refuse' as const },
        },
      ],
    },
    path('pair', [person('Edda Kilbride'), person('Hanne Istvan')], { needed: 2 }),
    {
      id: 'both',
      again: ['survival_until'],
      label: '',
      steps: [
        { id: 'both-1', label: 'First', seats: [person('Edda Kilbride')], needed: 1 },
        {
          id: 'both-2',
          label: 'Second',
          seats: [person('Hanne Istvan')],
          needed: 1,
          instead: [person('Oskar Veldhuis')],
        },
      ],
    },
  ];
  // Who keeps it is no secret: who is asked to decide shows it.
  const { access } = desk.register('site-access');
  const corrects = {
    ...{ id: 'corrects', name: 'Whoever asks corrects', fields: ['survival_until'], level: 'write' as const },
    audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const },
  };
  desk.protect('site-access', {
    ...{ ...access, rules: [...access.rules, corrects] },
    placed: [...(access.placed ?? []), 'keeper'],
  });
  const { draft, version } = ok(await maren.call('form', of)) as { draft: FormDesign; version: number };
  const { otherwise } = draft.routing;
  const fresh: FormDesign = {
    ...draft,
    fields: [...draft.fields, { key: 'keeper', label: 'Keeper', type: { kind: 'person', from: [] }, source: 'asked' }],
    parts: [...draft.parts, { part: 'question', field: 'keeper', asks: '', help: '', required: false }],
    routing: {
      columns: [{ id: 'why', label: 'Why', input: 'reason' }],
      rows: paths.map(({ id }) => ({
        ...{ id: `row-${id}`, note: '', cells: { why: `"${id}"` }, outcome: { ...otherwise, path: id } },
      })),
      otherwise: { ...otherwise, path: null },
    },
    approval: { paths },
    editions: [
      {
        ...{ id: 'all', name: 'All', on: true, audience: { in: { everyone: true }, outOf: [] }, when: '' },
        differences: [
          {
            ...{ does: 'add', after: null },
            adds: {
              ...{ part: 'instruction', id: 'text-1', text: 'If in doubt, have it decided.' },
              actions: [{ id: 'button-1', does: 'begin', label: 'Have it decided', path: 'alone' }],
            },
          },
        ],
      },
    ],
  };
  const saved = ok(await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: fresh } }));
  const errors = ok(await maren.call('form', of)).findings.filter(
    ({ severity }: { severity: string }) => severity === 'error',
  );
  expect(errors).toEqual([]);
  release = ok(
    await maren.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }),
  ).number;
});
afterAll(() => desk.close());

let visitors = 0;
async function sent(by: Caller | undefined, reason: string, more: object = {}): Promise<string> {
  visitors += 1;
  const answers = {
    ...WATER,
    arrival: '2027-01-11',
    departure: '2027-01-12',
    reason,
    visitor: `Visitor ${'x'.repeat(visitors)}`,
    ...more,
  };
  return ok(await (by as Caller).submit('come-on-site', answers, { release })).number;
}
const sheetOf = (number: string): Promise<Answer['body']> => (maren as Caller).sheet(number);
const stepOf = async (number: string): Promise<Answer['body']> => (await sheetOf(number)).approval.steps[0];
const whoIsAsked = async (number: string): Promise<readonly string[]> =>
  (await stepOf(number)).seats.map(({ who }: { who: string }) => who);
const decide = async (who: Caller | undefined, number: string, verdict = 'approve', comment = ''): Promise<Answer> =>
  (who as Caller).call('decide', {
    ...{ params: { number }, headers: freshly() },
    body: { verdict, comment, seen: await (who as Caller).seen(number) },
  });
const later = (hours: number) => (maren as Caller).call('advanceClock', { body: { minutes: hours * 60 } });
/** Subjects of the emails to somebody about a request. */
const told = async (name: string, number: string): Promise<readonly string[]> =>
  (await desk.letters())
    .filter(({ to, subject, text }) => to.includes(name) && `${subject} ${text}`.includes(number))
    .map(({ subject }) => subject);
const tray = async (who: Caller | undefined, key: string): Promise<readonly string[]> =>
  ok(await (who as Caller).call('ledger', { query: { tray: key } })).rows.map(
    ({ number }: { number: string }) => number,
  );

const leaves = async (name: string): Promise<void> => {
  const params = { id: desk.idOf(name) };
  const { version } = ok(await (ada as Caller).call('person', { params }));
  const body = { active: false };
  ok(await (ada as Caller).call('changePerson', { params, headers: onVersion(version), body }));
};

describe('paths that rows choose', () => {
  it('ask whom they name; where no row names one, nobody decides', async () => {
    const [one, none] = [await sent(priya, 'alone'), await sent(priya, 'whatever')];
    expect(await whoIsAsked(one)).toEqual(['Hanne Istvan']);
    const { routing, approval } = await sheetOf(one);
    expect(JSON.stringify(routing.outcome)).toContain('Path alone');
    expect(approval.label).toBe('Step alone');
    expect([(await sheetOf(none)).approval, (await sheetOf(none)).stage.key]).toEqual([null, 'arrived']);
  });

  it('ask whoever an answer names; and in their place the first who can', async () => {
    const keeper = { keeper: desk.idOf('Hanne Istvan') };
    const [named, own, nobody] = [
      await sent(priya, 'keeper', keeper),
      await sent(hanne, 'keeper', keeper),
      await sent(priya, 'keeper'),
    ];
    const seatOf = async (number: string) => (await stepOf(number)).seats[0];
    expect(await seatOf(named)).toMatchObject({ who: 'Hanne Istvan', as: 'named by “Keeper”' });
    // Nobody decides their own, and an empty answer names nobody.
    expect(await seatOf(own)).toMatchObject({ who: 'Oskar Veldhuis', as: 'in place of Keeper' });
    expect(await seatOf(nobody)).toMatchObject({ who: 'Oskar Veldhuis' });
    expect(await tray(hanne, 'deciding')).toContain(named);
    // Who asks next in turn is asked where the first asked for it as well.
    const his = await sent(oskar, 'keeper', { keeper: desk.idOf('Oskar Veldhuis') });
    expect((await stepOf(his)).seats[0].who).not.toBe('Oskar Veldhuis');
    ok(await decide(hanne, named));
    expect((await sheetOf(named)).stage.key).toBe('arrived');
  });
});

describe('the time of a step', () => {
  it('is told with who is asked, reminds before its end, and means then what the path says', async () => {
    const numbers = {
      tell: await sent(priya, 'tell'),
      pass: await sent(priya, 'pass'),
      agree: await sent(priya, 'agree'),
      refuse: await sent(priya, 'refuse'),
    };
    const decidedInTime = await sent(priya, 'refuse');
    ok(await decide(oskar, decidedInTime));
    const step = await stepOf(numbers.pass);
    expect([step.silence, step.until !== null]).toEqual(['pass', true]);
    const asked = await told('Oskar Veldhuis', numbers.tell);
    expect(asked.length).toBe(1);
    // Working hours: over a night and a weekend nothing is over that was not before.
    await later(4 * 24);
    expect(await told('Oskar Veldhuis', numbers.tell)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^Still waiting for your decision: /)]),
    );
    expect((await told('Oskar Veldhuis', decidedInTime)).filter((subject) => /^Still waiting/.test(subject))).toEqual(
      [],
    );
    // Nobody said anything: the leads hear of it, and it waits on.
    expect((await sheetOf(numbers.tell)).stage.key).toBe('deciding');
    const history = async (number: string): Promise<readonly string[]> =>
      (await sheetOf(number)).history.map(({ what }: { what: string }) => what);
    expect(await history(numbers.tell)).toEqual(
      expect.arrayContaining([
        'A reminder email was sent to those who decide',
        'Nobody answered in time: Step tell. The leads got an email',
      ]),
    );
    // The seat goes to the next each time, and to nobody twice.
    expect((await stepOf(numbers.pass)).seats[0]).toMatchObject({
      who: 'Edda Kilbride',
      as: 'in place of Oskar Veldhuis',
    });
    expect(await history(numbers.pass)).toContain('Nobody answered in time: Step pass. Asked instead: Edda Kilbride');
    expect((await told('Edda Kilbride', numbers.pass)).length).toBeGreaterThan(0);
    expect((await decide(oskar, numbers.pass)).status).toBe(403);
    // Silence agrees, and refuses, as nobody’s doing.
    expect([(await sheetOf(numbers.agree)).stage.key, (await sheetOf(numbers.refuse)).stage.key]).toEqual([
      'arrived',
      'refused',
    ]);
    expect(await history(numbers.agree)).toContain('Approved, as nobody answered in time: Step agree');
    expect((await stepOf(numbers.refuse)).silently).toBe('refused');
    expect((await told('Priya Nakamura-Lind', numbers.refuse)).at(-1)).toMatch(/^Not approved: /);
    expect((await sheetOf(decidedInTime)).approval.state).toBe('approved');
    // Whoever is asked next has their time anew; when the last in turn is silent too, that is told.
    await later(4 * 24);
    expect((await stepOf(numbers.pass)).seats[0].who).toBe('Hanne Istvan');
    await later(4 * 24);
    expect((await stepOf(numbers.pass)).seats[0].who).toBe('Hanne Istvan');
    expect(await history(numbers.pass)).toContain('Nobody answered in time: Step pass. The leads got an email');
    ok(await decide(hanne, numbers.pass));
    // Nothing rings for what is over.
    const { db } = desk.running.house;
    const ringing = db
      .select()
      .from(approvalSteps)
      .all()
      .filter(({ ringAt }) => ringAt !== null);
    expect(ringing).toEqual([]);
    expect(db.select().from(timers).all().length).toBeGreaterThan(0);
  });

  it('stands still while whoever asked has to answer, and goes on when they do', async () => {
    const number = await sent(priya, 'refuse');
    expect((await decide(oskar, number, 'return')).status).toBe(422);
    const before = (await stepOf(number)).until;
    const returned = ok(await decide(oskar, number, 'return', 'How deep is it?'));
    expect(returned).toMatchObject({ state: 'returned', more: false });
    const waits = await sheetOf(number);
    expect([waits.stage.phase, waits.approval.state, waits.moves, waits.deadlines[0].fuse.state]).toEqual([
      ...['paused', 'waiting', [], 'paused'],
    ]);
    expect((await decide(oskar, number, 'return', 'And now?')).status).toBe(409);
    expect((await told('Priya Nakamura-Lind', number)).at(-1)).toMatch(/^Please answer before we decide: /);
    const mine = ok(await (priya as Caller).call('myRequest', { params: { number } }));
    expect(JSON.stringify(mine)).toContain('How deep is it?');
    await later(7 * 24);
    expect((await sheetOf(number)).approval.state).toBe('waiting');
    ok(await (priya as Caller).call('myMessage', { params: { number }, body: { text: 'Eleven metres.' } }));
    const again = await sheetOf(number);
    expect([again.stage.key, again.approval.steps[0].until > before]).toEqual(['deciding', true]);
    expect((await told('Oskar Veldhuis', number)).length).toBe(2);
    ok(await decide(oskar, number));
    expect((await sheetOf(number)).stage.key).toBe('arrived');
  });

  it('stands still for whoever is asked meanwhile too: by handing on, and because the step before is decided', async () => {
    const [handed, next] = [await sent(priya, 'refuse'), await sent(priya, 'then-timed')];
    ok(await decide(oskar, handed, 'return', 'How deep is it?'));
    ok(await decide(edda, next, 'return', 'How deep is it?'));
    const to = { person: desk.idOf('Hanne Istvan') };
    ok(await (maren as Caller).call('handDecision', { params: { number: handed }, body: { to } }));
    ok(await decide(hanne, next));
    await later(7 * 24);
    const stateOf = async (number: string) => {
      const { stage, approval } = await sheetOf(number);
      return [stage.phase, approval.state, approval.steps.at(-1).until];
    };
    for (const number of [handed, next]) {
      expect(await stateOf(number)).toEqual(['paused', 'waiting', null]);
      ok(await (priya as Caller).call('myMessage', { params: { number }, body: { text: 'Eleven metres.' } }));
      expect(await stateOf(number)).toEqual(['arrived', 'waiting', expect.any(String)]);
    }
    ok(await decide(hanne, handed));
    await later(4 * 24);
    expect((await sheetOf(handed)).approval.state).toBe('approved');
    expect((await stateOf(next)).slice(0, 2)).toEqual(['finished', 'refused']);
  });

  it('is answered by changed answers as well, and a coordinator frees it meanwhile', async () => {
    const [changed, freed] = [await sent(priya, 'tell'), await sent(priya, 'tell')];
    for (const number of [changed, freed]) ok(await decide(oskar, number, 'return', 'Who comes along?'));
    const { version } = ok(await (priya as Caller).call('myRequest', { params: { number: changed } }));
    ok(
      await (priya as Caller).call('changeMine', {
        ...{ params: { number: changed }, headers: onVersion(version) },
        body: { changes: { survival_until: '2027-06-01' } },
      }),
    );
    expect((await sheetOf(changed)).stage.key).toBe('deciding');
    const sheet = await sheetOf(freed);
    expect(sheet.frees.length).toBeGreaterThan(0);
    ok(
      await (maren as Caller).call('freeRequest', {
        ...{ params: { number: freed }, headers: onVersion(sheet.version) },
        body: { stage: 'arrived', reason: 'It is small.' },
      }),
    );
    expect((await sheetOf(freed)).approval.state).toBe('withdrawn');
  });
});

describe('a decision, afterwards', () => {
  const changedBy = async (number: string, until: string): Promise<void> => {
    const { version } = ok(await (priya as Caller).call('myRequest', { params: { number } }));
    ok(
      await (priya as Caller).call('changeMine', {
        ...{ params: { number }, headers: onVersion(version), body: { changes: { survival_until: until } } },
      }),
    );
  };
  const handlerMoves = async (number: string, stage: string): Promise<void> => {
    const { version } = await (maren as Caller).sheet(number);
    ok(await (maren as Caller).call('moveStage', { params: { number }, headers: onVersion(version), body: { stage } }));
  };

  it('is asked for again when a field changes that its path names, says so before, and goes back to where it was', async () => {
    const number = await sent(priya, 'both');
    const mine = async () => ok(await (priya as Caller).call('myRequest', { params: { number } })).changing.asksAgain;
    // Nobody has said anything: they decide on what it says now.
    expect([(await sheetOf(number)).asksAgain, await mine()]).toEqual([[], []]);
    await changedBy(number, '2027-06-02');
    expect((await sheetOf(number)).history.filter(({ kind }: { kind: string }) => kind === 'decision')).toEqual([]);
    expect((await told('Edda Kilbride', number)).length).toBe(1);
    ok(await decide(edda, number));
    expect([(await sheetOf(number)).asksAgain, await mine()]).toEqual([['survival_until'], ['survival_until']]);
    await changedBy(number, '2027-06-03');
    const again = await sheetOf(number);
    expect(again.approval.steps[0].seats[0]).toMatchObject({ who: 'Edda Kilbride', state: 'open' });
    expect((await told('Edda Kilbride', number)).length).toBe(2);
    for (const who of [edda, hanne]) ok(await decide(who, number));
    await handlerMoves(number, 'in_hand');
    await changedBy(number, '2027-06-04');
    expect((await sheetOf(number)).stage.key).toBe('deciding');
    for (const who of [edda, hanne]) ok(await decide(who, number));
    expect((await sheetOf(number)).stage.key).toBe('in_hand');
  });

  it('is told to whoever asked while it waits: by names, as far as they may know what it follows from', async () => {
    const number = await sent(priya, 'three');
    const deciding = async (): Promise<readonly { who: readonly string[] }[]> =>
      ok(await (priya as Caller).call('myRequest', { params: { number } })).deciding;
    expect(await deciding()).toEqual([
      {
        ...{ label: 'First', state: 'asked', who: ['Edda Kilbride'], needed: 1, of: 1 },
        ...{ since: expect.any(String), until: null },
      },
      { label: 'Second', state: 'ahead', who: [], needed: 2, of: 3, since: null, until: null },
    ]);
    ok(await decide(edda, number));
    expect(await deciding()).toMatchObject([
      { state: 'over', who: [], since: null },
      { state: 'asked', who: ['Hanne Istvan', 'Oskar Veldhuis', 'Tomas Achterberg'], needed: 2, of: 3 },
    ]);
    ok(await decide(hanne, number));
    expect(await deciding()).toMatchObject([{}, { who: ['Oskar Veldhuis', 'Tomas Achterberg'], needed: 1, of: 2 }]);
    // The table asks for the reason: who may not read it is not told which path was chosen by it.
    const { access } = desk.register('site-access');
    const hides = {
      ...{ id: 'hides', name: 'The reason is for the desk', fields: ['reason'], level: 'hidden' as const },
      audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const },
    };
    desk.protect('site-access', { ...access, rules: [...access.rules, hides] });
    expect(await deciding()).toEqual([]);
    desk.protect('site-access', access);
    ok(await decide(oskar, number));
    expect(await deciding()).toEqual([]);

    // Whoever comes from outside is told groups, and nobody of the staff by name.
    const contact = { name: 'Nele Brook', email: 'nele.brook@haldane.example' };
    const stranger = await desk.as();
    const asks = { ...WATER, arrival: '2027-01-11', departure: '2027-01-12', visitor: 'From outside' };
    const followed = async (reason: string) => {
      ok(await stranger.submit('visit', { ...asks, visitor: `Of ${reason}`, reason }, { contact, release }));
      const token = await desk.tokenFor(contact.email, 'confirm');
      const { follow } = ok(await stranger.call('confirm', { params: { token } }));
      return ok(await stranger.call('follow', { params: { token: follow } })).deciding;
    };
    expect(await followed('alone')).toMatchObject([{ label: 'Step alone', state: 'asked', who: [], of: 1 }]);
    expect(await followed('keeper')).toMatchObject([{ who: [] }]);
  });

  it('is kept with what was in view, which is told by the plan in force, and with what has changed since', async () => {
    const number = await sent(priya, 'alone', { keeper: desk.idOf('Edda Kilbride') });
    ok(await decide(hanne, number));
    const readThen = async (who: Caller | undefined) =>
      (await (who as Caller).sheet(number)).approval.steps[0].seats[0].read;
    const first = await readThen(maren);
    const labels = async (): Promise<readonly string[]> =>
      (await sheetOf(number)).values.fields.map(({ label }: { label: string }) => label);
    // Both read the same of it: no medical notes.
    expect(first).toEqual({ fields: await labels(), changed: [] });
    expect(first.fields).not.toContain('Medical note');
    await changedBy(number, '2027-06-05');
    const after = await readThen(maren);
    expect([after.fields, after.changed]).toEqual([first.fields, ['Sea survival certificate valid until']]);
    const { access } = desk.register('site-access');
    const hides = {
      ...{
        id: 'hides',
        name: 'Nobody reads the keeper',
        fields: ['keeper', 'survival_until'],
        level: 'hidden' as const,
      },
      audience: { in: { everyone: true as const }, outOf: [] },
    };
    desk.protect('site-access', { ...access, rules: [...access.rules, hides] });
    expect(await readThen(maren)).toEqual({
      fields: first.fields.filter(
        (label: string) => label !== 'Keeper' && label !== 'Sea survival certificate valid until',
      ),
      changed: [],
    });
    desk.protect('site-access', access);
    // Silence read nothing, and what is taken back is not kept.
    const pair = await sent(priya, 'pair');
    ok(await decide(edda, pair));
    expect((await stepOf(pair)).seats.map(({ read }: { read: unknown }) => read !== null)).toEqual([true, false]);
    ok(await (edda as Caller).call('takeBackDecision', { params: { number: pair } }));
    expect((await stepOf(pair)).seats.map(({ read }: { read: unknown }) => read)).toEqual([null, null]);
  });

  it('is taken back by whoever said it while others have to say something there, and no later', async () => {
    const number = await sent(priya, 'pair');
    const takeBack = (who: Caller | undefined) => (who as Caller).call('takeBackDecision', { params: { number } });
    expect((await takeBack(edda)).status).toBe(409);
    expect(ok(await decide(edda, number)).more).toBe(true);
    expect((await (edda as Caller).sheet(number)).approval.mayTakeBack).toBe(true);
    expect((await takeBack(hanne)).status).toBe(409);
    ok(await takeBack(edda));
    expect((await stepOf(number)).seats.map(({ state }: { state: string }) => state)).toEqual(['open', 'open']);
    ok(await decide(edda, number));
    ok(await decide(hanne, number));
    expect((await takeBack(hanne)).status).toBe(409);
  });

  it('is begun by a button, once: while it waits and when it was approved, it says why not', async () => {
    const number = await sent(priya, 'whatever');
    await handlerMoves(number, 'in_hand');
    const button = async () => (await sheetOf(number)).actions[0];
    const begin = () =>
      (maren as Caller).call('act', { params: { number, action: 'button-1' }, body: { does: 'begin' } });
    expect(await button()).toMatchObject({ does: 'begin', whyNot: null });
    ok(await begin());
    const waits = await sheetOf(number);
    expect([waits.stage.key, waits.approval.label]).toEqual(['deciding', 'Step alone']);
    expect((await button()).whyNot).toMatch(/^It waits for “Step alone” since /);
    expect((await begin()).status).toBe(409);
    ok(await decide(hanne, number));
    // It goes on where it was.
    expect((await sheetOf(number)).stage.key).toBe('in_hand');
    expect((await button()).whyNot).toMatch(/^It was approved on /);
    expect((await begin()).status).toBe(409);
  });
});

describe('a step without anybody', () => {
  it('goes to whom somebody asks who decides at it, or may for others; and to nobody who could not', async () => {
    const number = await sent(priya, 'alone');
    const to = (name: string) => ({ params: { number }, body: { to: { person: desk.idOf(name) } } });
    expect((await (edda as Caller).call('handDecision', to('Edda Kilbride'))).status).toBe(404);
    expect((await (hanne as Caller).call('handDecision', to('Priya Nakamura-Lind'))).status).toBe(422);
    expect((await (hanne as Caller).call('handDecision', to('Hanne Istvan'))).status).toBe(422);
    const found = ok(await (hanne as Caller).call('deciderTargets', { params: { number }, query: { find: 'kilb' } }));
    expect(found.people.map(({ name }: { name: string }) => name)).toEqual(['Edda Kilbride']);
    ok(await (hanne as Caller).call('handDecision', to('Edda Kilbride')));
    expect((await stepOf(number)).seats[0]).toMatchObject({ who: 'Edda Kilbride', as: 'in place of Hanne Istvan' });
    expect((await told('Edda Kilbride', number)).length).toBe(1);
    expect((await (hanne as Caller).call('sheet', { params: { number } })).status).toBe(404);
    ok(await decide(edda, number));
  });

  it('is an alarm once, in a tray of its own, until somebody can decide again', async () => {
    const [number, own, later2] = [await sent(priya, 'alone'), await sent(hanne, 'alone'), await sent(priya, 'both')];
    // Her own request: nobody is asked, from the beginning.
    const vacant = await sheetOf(own);
    expect([vacant.approval.nobodySince !== null, vacant.approval.steps[0].seats[0].who]).toEqual([true, '']);
    expect(vacant.approval.mayHand).toBe(true);
    expect((await told('Maren Okafor', own)).filter((subject) => /^Nobody can decide: /.test(subject))).toHaveLength(1);
    expect(await tray(maren, 'undecided')).toEqual([own]);
    const three = await sent(priya, 'three');
    await leaves('Hanne Istvan');
    await desk.running.dayTurned();
    const waiting = await tray(maren, 'undecided');
    expect(waiting).toEqual(expect.arrayContaining([number, own]));
    // Looked at once more, as somebody else leaves: it was told.
    await leaves('Declan Oyelaran');
    await desk.running.dayTurned();
    expect((await told('Maren Okafor', number)).filter((subject) => /^Nobody can decide: /.test(subject))).toHaveLength(
      1,
    );
    // A step that comes later asks who can then; whoever can’t is left out where enough are asked.
    ok(await decide(edda, three));
    const { approval } = await sheetOf(three);
    expect(approval.nobodySince).toBe(null);
    expect(approval.steps[1].seats.map(({ who }: { who: string }) => who).sort()).toEqual([
      'Oskar Veldhuis',
      'Tomas Achterberg',
    ]);
    ok(await decide(edda, later2));
    expect((await sheetOf(later2)).approval.steps[1].seats[0]).toMatchObject({
      ...{ who: 'Oskar Veldhuis', as: 'in place of Hanne Istvan' },
    });
    for (const each of [number, own]) {
      ok(
        await (maren as Caller).call('handDecision', {
          ...{ params: { number: each }, body: { to: { group: 'duty-managers' } } },
        }),
      );
      expect((await sheetOf(each)).approval.nobodySince).toBe(null);
    }
    const rest = waiting.filter((each) => each !== number && each !== own);
    expect([...(await tray(maren, 'undecided'))].sort()).toEqual([...rest].sort());
    const { trays } = ok(await (maren as Caller).call('trays'));
    expect(trays.find(({ key }: { key: string }) => key === 'undecided')?.count ?? 0).toBe(rest.length);
    // What a button has decided by somebody who left is told at once as well.
    const begun = await sent(priya, 'whatever');
    const act = { params: { number: begun, action: 'button-1' }, body: { does: 'begin' } };
    ok(await (maren as Caller).call('act', act));
    expect((await sheetOf(begun)).approval.nobodySince).not.toBe(null);
  });
});
