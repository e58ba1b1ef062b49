import type { AccessRule } from '@tolvek/core/access';
import type { DeadlineRule, Ring } from '@tolvek/core/deadline';
import { finishRule } from '@tolvek/core/deadline';
import type { FormDesign } from '@tolvek/core/form';
import type { RoutingOutcome, RoutingTable } from '@tolvek/core/routing';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

let desk: Desk;
let [maren, priya, ilse]: readonly Caller[] = [];
let release = 0;
const of = { params: { key: 'site-access' } };
const HOUR = 3_600_000;

const rule = (key: string, more: Partial<DeadlineRule>): DeadlineRule => ({
  ...{ key, name: key, begins: { on: 'arrival' }, length: { by: 'time', time: 4 * HOUR }, stands: { on: 'paused' } },
  ...{ ends: { on: 'finished' }, rings: [] },
  ...more,
});
const ring = (key: string, at: number, more: Partial<Ring> = {}): Ring => ({ key, at, tells: [], does: [], ...more });

/** Each is there only for the requests whose reason says so, but for those that stages begin. */
const RULES: readonly DeadlineRule[] = [
  finishRule(4 * HOUR, 0),
  rule('answer', {
    ...{ name: 'First answer', when: 'reason = "answer"', ends: { on: 'answered' } },
    rings: [ring('soon', -HOUR, { tells: ['working'] }), ring('late', 0, { tells: ['leads', 'requester'] })],
  }),
  rule('before', {
    ...{ name: 'Before they come', when: 'reason = "date"', stands: { on: 'never' } },
    length: { by: 'field', field: 'arrival', days: -2, counted: 'working' },
    rings: [ring('told', -8 * HOUR, { tells: ['requester'] })],
  }),
  rule('papers', {
    ...{ name: 'Papers are back', begins: { on: 'stages', stages: ['papers'] }, stands: { on: 'never' } },
    ...{ length: { by: 'days', days: 1 }, ends: { on: 'left' }, rings: [ring('nudge', 0, { tells: ['requester'] })] },
  }),
  rule('weekly', {
    ...{ when: 'reason = "weekly"', length: { by: 'time', time: 2 * HOUR }, stands: { on: 'never' } },
    rings: [ring('again', 0, { again: 2 * HOUR, tells: ['team'] })],
  }),
  rule('up', {
    ...{ when: 'reason = "up"', length: { by: 'time', time: HOUR } },
    rings: [
      ring('first', 0, { does: [{ do: 'priority', to: 'high' }] }),
      ring('second', HOUR, { tells: ['leads'], does: [{ do: 'team', team: 'boats' }] }),
      ring('third', 2 * HOUR, { does: [{ do: 'stage', stage: 'in_hand' }] }),
      ring('fourth', 3 * HOUR, { does: [{ do: 'decide', path: 'path' }] }),
    ],
  }),
];

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, ilse] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Ilse Brandvold'),
  ];
  await releasedWith(RULES);
});
afterAll(() => desk.close());

/** Releases the form with these deadlines, without a decision. */
async function releasedWith(
  deadlines: readonly DeadlineRule[],
  replan = false,
  table: Partial<RoutingTable> = {},
): Promise<Answer['body']> {
  const { draft, version } = ok(await (maren as Caller).call('form', of)) as { draft: FormDesign; version: number };
  const outcome = { ...draft.routing.otherwise, team: 'estates', path: null };
  const changed = {
    ...draft,
    routing: { columns: [], rows: [], otherwise: outcome, ...table },
    deadline: { ...draft.deadline, deadlines },
  };
  const saved = ok(
    await (maren as Caller).call('saveDraft', { ...of, headers: onVersion(version), body: { draft: changed } }),
  );
  expect(saved.findings.filter(({ severity }: { severity: string }) => severity === 'error')).toEqual([]);
  const looked = ok(await (maren as Caller).call('replanning', of));
  const body = { note: '', replan };
  const done = ok(await (maren as Caller).call('releaseForm', { ...of, headers: onVersion(saved.version), body }));
  release = done.number;
  return { looked, job: done.replanning };
}

let visitors = 0;
async function sent(reason: string, more: object = {}): Promise<string> {
  visitors += 1;
  const answers = {
    ...VISIT,
    arrival: '2027-02-01',
    departure: '2027-02-02',
    reason,
    visitor: `Visitor ${'y'.repeat(visitors)}`,
    ...more,
  };
  return ok(await (priya as Caller).submit('come-on-site', answers, { release })).number;
}
const sheetOf = (number: string): Promise<Answer['body']> => (maren as Caller).sheet(number);
const namesOf = async (number: string): Promise<readonly string[]> =>
  (await sheetOf(number)).deadlines.map(({ name }: { name: string }) => name);
const one = async (number: string, key: string): Promise<Answer['body']> =>
  (await sheetOf(number)).deadlines.find((each: { key: string }) => each.key === key);
const passes = async (hours: number): Promise<void> =>
  void ok(await (maren as Caller).call('advanceClock', { body: { minutes: Math.round(hours * 60) } }));
/** Time passes until a moment. */
const until = (moment: string): Promise<void> =>
  passes((Date.parse(moment) - desk.running.house.clock.now()) / HOUR + 1 / 60);
const move = async (number: string, stage: string): Promise<void> =>
  void ok(
    await (maren as Caller).call('moveStage', {
      ...{ params: { number }, headers: onVersion((await sheetOf(number)).version), body: { stage } },
    }),
  );
const told = async (number: string, words: RegExp): Promise<readonly string[]> =>
  (await desk.letters())
    .filter(({ subject }) => subject.includes(number) && words.test(subject))
    .map(({ to }) => /"(.*)"/.exec(to)?.[1] ?? to)
    .sort();
const LEADS = 'Desk leads';

describe('what a request is due by', () => {
  it('is several things at once: those whose condition holds, the nearest first, in the ledger too', async () => {
    const [plain, answer] = [await sent('plain'), await sent('answer')];
    expect(await namesOf(plain)).toEqual(['To be finished']);
    expect(await namesOf(answer)).toEqual(['First answer', 'To be finished']);
    const { rows } = ok(await (maren as Caller).call('ledger', { query: { tray: 'all' } }));
    const row = (number: string) => rows.find((each: { number: string }) => each.number === number);
    const [first, finish] = (await sheetOf(answer)).deadlines;
    expect([row(plain).dueFor, row(answer).dueFor, row(answer).due]).toEqual([null, 'First answer', first.due]);
    // Whoever asked counts on the finish, and on nothing else.
    const mine = ok(await (priya as Caller).call('myRequest', { params: { number: answer } }));
    const theirs = ok(await (priya as Caller).call('myRequest', { params: { number: plain } }));
    expect([mine.promise, finish.why.length > 2]).toEqual([theirs.promise, true]);
    expect(first.rings.map(({ what }: { what: string }) => what)).toEqual([
      'email to the handler, or the team',
      'email to the leads and the requester',
    ]);
  });

  it('ends with the first message of the desk, and tells whoever is to hear of it until then', async () => {
    const [answered, silent] = [await sent('answer'), await sent('answer')];
    await passes(0.1);
    ok(
      await (maren as Caller).call('comment', {
        ...{ params: { number: answered }, body: { text: 'We look into it.', visibility: 'requester' } },
      }),
    );
    expect(await one(answered, 'answer')).toMatchObject({ state: 'over', rings: [], fuse: { state: 'done' } });
    const { rings, due } = await one(silent, 'answer');
    await until(rings[0].at);
    expect((await told(silent, /^First answer: due in 59 minutes/)).length).toBeGreaterThan(0);
    await until(due);
    expect(await told(answered, /First answer/)).toEqual([]);
    expect(await told(silent, /^First answer: Visitor/)).toEqual(['Priya Nakamura-Lind']);
    const leads = ok(await (maren as Caller).call('groups', {})).groups.find(
      ({ name }: { name: string }) => name === LEADS,
    );
    expect((await told(silent, /^First answer, overdue/)).length).toBe(leads.members);
    // Nobody is reminded of what is due already, as after a stop.
    const stopped = await sent('answer');
    await until((await one(stopped, 'answer')).due);
    expect([(await told(stopped, /due in/)).length, (await told(stopped, /overdue/)).length]).toEqual([
      0,
      leads.members,
    ]);
    const { history } = await sheetOf(silent);
    expect(history.map(({ what }: { what: string }) => what)).toContain(
      'First answer: an email was sent when it is due',
    );
    expect(await one(silent, 'answer')).toMatchObject({ state: 'open', fuse: { state: 'late' } });
  });

  it('follows a date of the request: moved with it, without a second letter, and gone with it', async () => {
    const number = await sent('date', { arrival: '2026-12-16', departure: '2026-12-17' });
    const due = async (): Promise<string | undefined> => (await one(number, 'before'))?.due;
    expect(await due()).toBe('2026-12-14T17:30:00.000Z');
    const change = async (changes: object): Promise<void> =>
      void ok(
        await (maren as Caller).call('changeFields', {
          ...{ params: { number }, headers: onVersion((await sheetOf(number)).version), body: { changes } },
        }),
      );
    await until('2026-12-14T09:00:00Z');
    expect(await told(number, /^Before they come/)).toEqual(['Priya Nakamura-Lind']);
    await change({ arrival: '2026-12-22', departure: '2026-12-23' });
    expect(await due()).toBe('2026-12-18T17:30:00.000Z');
    await until('2026-12-18T17:00:00Z');
    expect(await told(number, /^Before they come/)).toEqual(['Priya Nakamura-Lind']);
    await change({ reason: 'no date any more' });
    expect([await due(), await namesOf(number)]).toEqual([undefined, ['To be finished']]);
  });

  it('begins with a stage, anew each time, and is over where it is left; another stands still meanwhile', async () => {
    const number = await sent('answer');
    await move(number, 'papers');
    const first = await one(number, 'papers');
    expect([first.state, (await one(number, 'answer')).fuse.state]).toEqual(['open', 'paused']);
    await move(number, 'in_hand');
    expect([(await one(number, 'papers')).state, (await one(number, 'answer')).fuse.state]).toEqual(['over', 'calm']);
    await passes(26);
    await move(number, 'papers');
    const again = await one(number, 'papers');
    expect([again.state, again.due > first.due]).toEqual(['open', true]);
    await until(again.due);
    expect(await told(number, /^Papers are back/)).toEqual(['Priya Nakamura-Lind']);
  });

  it('rings again and again until it is finished, and does not make up for what it missed', async () => {
    const number = await sent('weekly');
    const times = async (): Promise<number> =>
      (await told(number, /^weekly/)).filter((to) => to.startsWith('Ilse')).length;
    await until((await one(number, 'weekly')).due);
    expect(await times()).toBe(1);
    const [next] = (await one(number, 'weekly')).rings;
    await until(next.at);
    expect(await times()).toBe(2);
    // Three days in which it would have rung a dozen times: once, and two hours later again.
    await passes(3 * 24);
    expect(await times()).toBe(3);
    await move(number, 'done');
    await passes(24 * 5);
    expect(await times()).toBe(3);
  });

  it('does what it says, one after the other, each in the history, and tells no more when it is over', async () => {
    const number = await sent('up');
    const { due } = await one(number, 'up');
    await until(due);
    expect((await sheetOf(number)).priority).toBe('high');
    const at = async (): Promise<readonly unknown[]> => {
      const { team, stage, approval } = await sheetOf(number);
      return [team, stage.key, approval?.state ?? null];
    };
    const seen = [await at()];
    for (let step = 0; step < 3; step += 1) {
      const [next] = (await one(number, 'up')).rings;
      await until(next.at);
      seen.push(await at());
    }
    expect(seen).toEqual([
      ['Estates', 'arrived', null],
      ['Boats', 'arrived', null],
      ['Boats', 'in_hand', null],
      ['Boats', 'deciding', 'waiting'],
    ]);
    const { history } = await sheetOf(number);
    const lines = history.map(({ what }: { what: string }) => what);
    expect(lines).toEqual(
      expect.arrayContaining([
        'up: its time came, when it is due',
        'Priority: normal → high',
        'up: an email was sent 1 hour after it was due',
        'Moved to the team Boats',
      ]),
    );
  });

  it('tells nothing to whoever may not read the answer it hangs on', async () => {
    const number = await sent('answer');
    const seen = async (): Promise<readonly unknown[]> => {
      const { rows } = ok(await (ilse as Caller).call('ledger', { query: { tray: 'all', find: number } }));
      const [row] = rows.filter((each: { number: string }) => each.number === number);
      const { deadlines } = await (ilse as Caller).sheet(number);
      return [deadlines.map(({ key }: { key: string }) => key), row.dueFor, row.fuse === null, row.due === null];
    };
    expect(await seen()).toEqual([['answer', 'finish'], 'First answer', false, false]);
    const { version, inForce: plan } = ok(await (maren as Caller).call('accessPlan', of));
    const closed = {
      ...{ id: 'closed', name: 'Why they come is not for Estates', fields: ['reason'], level: 'hidden' },
      audience: { in: { anyOf: ['estates'] }, outOf: [] },
    };
    ok(
      await (maren as Caller).call('keepAccessPlan', {
        ...{ ...of, headers: onVersion(version), body: { ...plan, rules: [...plan.rules, closed] } },
      }),
    );
    const put = async (): Promise<Answer> => {
      const { version: kept } = ok(await (maren as Caller).call('accessPlan', of));
      const body = { note: '', closesToMyself: false };
      return (maren as Caller).call('putAccessPlan', { ...of, headers: onVersion(kept), body });
    };
    // As long as the form would tell of it, the plan is not put in force.
    const refused = await put();
    expect([
      refused.status,
      refused.text.includes('The deadline “First answer” applies depending on “Reason”'),
    ]).toEqual([422, true]);
    await releasedWith([finishRule(4 * HOUR, 0)]);
    ok(await put());
    // What came by an earlier release still hangs on it: it is withheld.
    expect(await seen()).toEqual([['finish'], null, true, true]);
  });

  it('can be given to what is open already: looked at before, a job that floods nobody, and said in each history', async () => {
    const [open, done] = [await sent('switch'), await sent('switch')];
    await move(done, 'done');
    await passes(26);
    const letters = (await desk.letters()).length;
    const hour = rule('hour', {
      ...{ name: 'Within the hour', length: { by: 'time', time: HOUR } },
      rings: [ring('long', -2 * HOUR, { tells: ['working'] }), ring('late', 0, { tells: ['requester'] })],
    });
    const early = { ...finishRule(4 * HOUR, 0), length: { by: 'days', days: 0 } } as const;
    const kept = await releasedWith([early, hour]);
    expect(kept.job).toBe(null);
    expect(await namesOf(open)).toEqual(['To be finished']);
    // Somebody else has the same deadlines from now on: nothing differs any more, as the release in force has them.
    const { looked, job } = await releasedWith([early, { ...hour, name: 'In an hour' }], true);
    const due = (await sheetOf(open)).deadlines[0].due;
    expect([looked.differs, looked.looked > 1, looked.changed, looked.late > 0]).toEqual([
      ...[true, true, looked.looked, true],
    ]);
    expect(looked.requests.find((each: { number: string }) => each.number === open).from).toBe(due);
    for (let tries = 0; tries < 200; tries += 1) {
      const { state } = ok(await (maren as Caller).call('job', { params: { id: job } }));
      if (state === 'done') break;
      await new Promise((go) => setTimeout(go, 50));
    }
    expect(await namesOf(open)).toEqual(['To be finished', 'In an hour']);
    const { deadlines, history } = await sheetOf(open);
    expect([deadlines[0].fuse.state, deadlines[1].fuse.state]).toEqual(['late', 'calm']);
    expect(history.at(-1).what).toBe(`Deadlines are those of release ${release} from now on`);
    expect(await namesOf(done)).toEqual(['To be finished']);
    // What is late at once tells nobody that it is; what becomes due from now on does.
    expect((await desk.letters()).length).toBe(letters);
    await until(deadlines[1].due);
    expect(await told(open, /^In an hour: /)).toEqual(['Priya Nakamura-Lind']);
    expect(await told(open, /^Overdue: /)).toEqual([]);
  });

  it('begins and goes with the day alone, where that is what it hangs on, as long as it was to be', async () => {
    const today = new Intl.DateTimeFormat('sv-SE', { timeZone: 'Europe/Dublin' }).format(
      desk.running.house.clock.now(),
    );
    const day = (later: number): string =>
      new Date(Date.parse(`${today}T12:00:00Z`) + later * 24 * HOUR).toISOString().slice(0, 10);
    await releasedWith([
      finishRule(4 * HOUR, 0),
      rule('soon', { name: 'Soon there', when: `today >= date("${day(2)}")`, length: { by: 'time', time: 6 * HOUR } }),
      rule('early', { name: 'Early on', when: `today < date("${day(2)}")`, length: { by: 'days', days: 40 } }),
    ]);
    const number = await sent('turning');
    expect((await namesOf(number)).toSorted()).toEqual(['Early on', 'To be finished']);
    const early = await one(number, 'early');
    await passes(24);
    await desk.running.dayTurned();
    expect((await namesOf(number)).toSorted()).toEqual(['Early on', 'To be finished']);
    expect((await one(number, 'early')).due).toBe(early.due);
    await passes(24);
    await desk.running.dayTurned();
    expect((await namesOf(number)).toSorted()).toEqual(['Soon there', 'To be finished']);
    const soon = await one(number, 'soon');
    await passes(1);
    await desk.running.dayTurned();
    expect((await one(number, 'soon')).due).toBe(soon.due);
    const row = ok(await (maren as Caller).call('ledger', { query: { tray: 'all', find: number } })).rows[0];
    expect([row.dueFor, row.due]).toEqual(['Soon there', soon.due]);
  });

  it('is as long as its row of the routing table says, or not there; what the row computes moves with the answers', async () => {
    // Everybody of the desk may know what is asked for here, but for what is closed below.
    const plan = desk.register('site-access').access;
    desk.protect('site-access', { ...plan, rules: plan.rules.filter(({ id }) => id !== 'closed') });
    const last: RoutingOutcome = { team: 'estates', priority: 'normal', workingDays: 3, path: null };
    const row = (id: string, cell: string, deadlines?: RoutingOutcome['deadlines']) => ({
      ...{ id, note: '', cells: { why: cell }, outcome: { ...last, ...(deadlines ? { deadlines } : {}) } },
    });
    await releasedWith([finishRule(4 * HOUR, 0), rule('answer', { name: 'First answer' }), rule('look', {})], false, {
      columns: [{ id: 'why', label: 'Why', input: 'reason' }],
      rows: [
        row('none', '"none"', [{ deadline: 'answer', length: null }]),
        row('days', '"days"', [{ deadline: 'answer', length: { by: 'days', days: 2 } }]),
        row('fee', '"fee"', [{ deadline: 'answer', length: { by: 'formula', formula: 'fee', unit: 'hours' } }]),
      ],
      otherwise: last,
    });
    const lengths = [];
    for (const reason of ['none', 'days', 'plain', 'fee']) {
      const number = await sent(reason, { fee: '6' });
      const answer = await one(number, 'answer');
      lengths.push([reason, answer ? answer.why.join(' ') : null, (await one(number, 'look')) !== undefined]);
    }
    expect(lengths).toEqual([
      ['none', null, true],
      ['days', expect.stringContaining('Time allowed by row 2 of the routing table: 2 working days.'), true],
      ['plain', expect.stringContaining('Time allowed: 4 hours of working time.'), true],
      ['fee', expect.stringContaining('by row 3 of the routing table: working hours by a formula: fee.'), true],
    ]);
    const number = await sent('fee', { fee: '6' });
    const [before, look] = [await one(number, 'answer'), await one(number, 'look')];
    const { version } = await sheetOf(number);
    ok(
      await (maren as Caller).call('changeFields', {
        ...{ params: { number }, headers: onVersion(version), body: { changes: { fee: 30 } } },
      }),
    );
    const after = await one(number, 'answer');
    expect([Date.parse(after.due) > Date.parse(before.due), (await one(number, 'look')).due]).toEqual([true, look.due]);
    // What nobody may know of the answer, nobody is told by when it is due.
    const { access } = desk.register('site-access');
    const closed = {
      ...{ id: 'closed', name: 'Fees are not for Estates', fields: ['fee'], level: 'hidden' },
      audience: { in: { anyOf: ['estates'] }, outOf: [] },
    } as unknown as AccessRule;
    desk.protect('site-access', { ...access, rules: [...access.rules, closed] });
    const seen = (await (ilse as Caller).sheet(number)).deadlines.map(({ key }: { key: string }) => key);
    desk.protect('site-access', access);
    expect(seen).toEqual(expect.arrayContaining(['finish', 'look']));
    expect(seen).not.toContain('answer');
  });

  it('is refused where a row says a length that can’t be', async () => {
    const { draft, version } = ok(await (maren as Caller).call('form', of)) as { draft: FormDesign; version: number };
    const wrong = (deadlines: RoutingOutcome['deadlines']): FormDesign => ({
      ...draft,
      routing: { ...draft.routing, rows: [], otherwise: { ...draft.routing.otherwise, deadlines } },
    });
    const body = {
      draft: wrong([
        { deadline: 'gone', length: null },
        { deadline: 'finish', length: { by: 'days', days: 1 } },
        { deadline: 'answer', length: { by: 'formula', formula: 'visitor', unit: 'days' } },
        { deadline: 'answer', length: { by: 'time', time: 0 } },
        { deadline: 'look', length: { by: 'time', time: 0 } },
      ]),
    };
    const saved = ok(await (maren as Caller).call('saveDraft', { ...of, headers: onVersion(version), body }));
    const found = saved.findings.filter(
      ({ at, severity }: { at: string; severity: string }) => at === 'otherwise' && severity === 'error',
    );
    expect(found.map(({ message }: { message: string }) => message)).toEqual([
      expect.stringContaining('a deadline that does not exist any more'),
      expect.stringContaining('sets the finish a second time'),
      expect.stringContaining('the formula for “First answer” must give a number'),
      expect.stringContaining('sets the length of “First answer” twice'),
      expect.stringContaining('gives “look” no length'),
    ]);
  });
});
