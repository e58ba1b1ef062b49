import type { FormDesign } from '@tolvek/core/form';
import type { Roster } from '@tolvek/core/roster';
import { USUAL_NOTICES } from '@tolvek/core/telling';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT } from './desk.ts';
import { releaseAs, telling } from './releasing.ts';

// Who is on duty when: rows give requests to them, notices tell them, and they swap among themselves.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let bram: Caller;
let signe: Caller;
let yusuf: Caller;
let release = 0;
const of = { params: { key: 'site-access' } };
const idOf = (name: string): string => desk.idOf(name);
const watch = (): Omit<Roster, 'key'> => ({
  ...{ name: 'Watch', zone: 'Europe/Dublin', calendar: 'desk', needed: 'open', swaps: [] },
  shifts: [
    {
      ...{ id: 'day', name: '', days: [1, 2, 3, 4, 5], from: '08:00', to: '18:00', since: '2026-11-23' },
      people: ['Bram Solheim', 'Signe Halvard'].map(idOf),
      passes: { every: 1, of: 'times' },
    },
  ],
});
const at = (clock: string): string => new Date(`2026-11-${clock}:00Z`).toISOString();

const made = async (roster: object, who = maren): Promise<Answer> =>
  who.call('createRoster', { headers: freshly(), body: { roster } });
const opened = async (key: string): Promise<Answer['body']> => ok(await maren.call('roster', { params: { key } }));
const put = async (key: string, change: object): Promise<Answer> => {
  const { version, roster } = await opened(key);
  const { key: _, ...plan } = roster;
  return maren.call('changeRoster', {
    ...{ params: { key }, headers: onVersion(version) },
    body: { roster: { ...plan, ...change }, note: '' },
  });
};
const duty = async (who: Caller): Promise<Answer['body']> => ok(await who.call('duty'));
const problems = ({ status, body }: Answer): readonly unknown[] => [
  status,
  ...(body.problems ?? []).map(({ field, message }: { field: string; message: string }) => `${field}: ${message}`),
];

/** Puts a form in force whose requests are handled and told of so; the findings of its routing table. */
const released = async (handler: object | undefined, rules: readonly object[] = []): Promise<readonly string[]> => {
  const { draft, version } = ok(await maren.call('form', of)) as { draft: FormDesign; version: number };
  const { handler: _, ...others } = draft.routing.otherwise;
  const otherwise = { ...others, team: 'boats', path: null, ...(handler ? { handler } : {}) };
  const routing = { columns: [], rows: [], otherwise } as FormDesign['routing'];
  const notices = { ...(draft.notices ?? USUAL_NOTICES), rules };
  const saved = ok(
    await maren.call('saveDraft', {
      ...of,
      headers: onVersion(version),
      body: { draft: { ...draft, routing, notices } },
    }),
  );
  const { findings } = ok(await maren.call('form', of)) as Answer['body'];
  const answer = await maren.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } });
  if (answer.status === 200) release = answer.body.number;
  return (findings as readonly { page: string; message: string }[])
    .filter(({ page, message }) => page === 'notices' || (page === 'routing' && /roster|duty/i.test(message)))
    .map(({ message }) => message);
};
let visitors = 0;
const sent = async (): Promise<Answer['body']> => {
  visitors += 1;
  const answers = { ...VISIT, visitor: `Visitor ${'y'.repeat(visitors)}` };
  return maren.sheet(ok(await priya.submit('come-on-site', answers, { release })).number);
};
const lettersTo = async (name: string): Promise<readonly string[]> =>
  (await desk.letters())
    .filter(({ to }) => to.includes(name.toLowerCase().replace(/[^a-z]+/g, '.')))
    .map(({ subject }) => subject);
const wait = async (minutes: number): Promise<void> => void ok(await maren.call('advanceClock', { body: { minutes } }));

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, bram, signe, yusuf] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Bram Solheim'),
    await desk.as('Signe Halvard'),
    await desk.as('Yusuf Marchetti'),
  ];
});
afterAll(() => desk.close());

describe('rosters', () => {
  it('are made by those who lay the ground, and refused where nobody could be on duty by them', async () => {
    expect([(await made(watch(), priya)).status, (await made(watch(), bram)).status]).toEqual([403, 403]);
    const [shift] = watch().shifts;
    const wrong = {
      ...{ ...watch(), zone: 'Nowhere', calendar: 'gone' },
      shifts: [{ ...shift, days: [], to: '25:00', people: [], passes: { every: 0, of: 'weeks' }, until: '2020-01-01' }],
      swaps: [
        { id: 's', from: 'soon', until: '2026-11-23T08:00', instead: null, by: null, note: '' },
        {
          id: 't',
          from: '2026-11-23T08:00',
          until: '2026-11-23T09:00',
          instead: 'nobody',
          by: idOf('Bram Solheim'),
          note: '',
        },
      ],
    };
    expect(problems(await made(wrong))).toEqual([
      422,
      'zone: “Nowhere” is not a time zone. Write one like Europe/Dublin.',
      'calendar: The working calendar does not exist. Choose another one.',
      'shifts day days: The shift has no days. Choose at least one.',
      'shifts day to: This is not a time. Write times like 08:00.',
      'shifts day people: Nobody has this shift. Add somebody.',
      'shifts day passes: Write a whole number from 1.',
      'shifts day until: The shift ends before it starts. Choose a later last day.',
      'swaps s from: This is not a day and time. Choose both.',
      'swaps s until: The swap ends before it starts. Choose a later end.',
      'swaps s by: The swap names nobody. Choose at least one person.',
      'swaps t by: This person is not in the staff of the desk.',
    ]);
    expect(ok(await made(watch())).key).toBe('watch');
    const { rosters } = ok(await maren.call('rosters'));
    expect(rosters).toEqual([{ key: 'watch', name: 'Watch', retired: false, on: ['Bram Solheim'], gap: null }]);
  });

  it('give requests to whoever is on duty, or comes next, and say so', async () => {
    expect(await released({ ways: [{ by: 'duty', roster: 'watch' }, { by: 'turn' }] })).toEqual([]);
    const first = await sent();
    expect([first.handler.name, first.handlerWhy]).toEqual([
      'Bram Solheim',
      ['They are on duty by the roster of the routing table.', expect.stringMatching(/^Not on duty: .*Signe Halvard/)],
    ]);
    expect(first.history.at(-1).what).toBe('Bram Solheim is the handler, being on duty');
    // In the evening nobody is: the next way finds somebody, or whoever comes in the morning.
    await wait(8 * 60);
    const { handlerWhy } = await sent();
    expect(handlerWhy.slice(0, 2)).toEqual(['It was their turn in the team.', 'Nobody on duty was here and had room.']);
    expect(await released({ ways: [{ by: 'duty', roster: 'watch', orNext: true }] })).toEqual([]);
    expect((await sent()).handler.name).toBe('Signe Halvard');
    expect((await opened('watch')).askedBy).toEqual(['Come on site']);
  });

  it('have gaps where somebody is away, which is a finding of what asks them', async () => {
    ok(
      await maren.call('addAbsence', {
        ...{ params: { id: idOf('Signe Halvard') }, headers: freshly() },
        body: { from: '2026-11-26', until: '2026-11-26', substitute: null },
      }),
    );
    const [told] = ok(await maren.call('rosters')).rosters;
    expect(told.gap).toBe(at('26T08:00'));
    expect((await duty(bram)).rosters[0].gaps).toEqual([
      { from: at('26T08:00'), to: at('26T12:30'), away: ['Signe Halvard'] },
      { from: at('26T13:15'), to: at('26T17:30'), away: ['Signe Halvard'] },
    ]);
    // Others of the staff read that nobody is, and not who is away.
    expect((await duty(priya)).rosters[0].gaps[0]).toEqual({ from: at('26T08:00'), to: at('26T12:30'), away: [] });
    expect(
      (await duty(priya)).rosters[0].ahead.some(({ from }: { from: string }) => from.startsWith('2026-11-26T08')),
    ).toBe(false);
    expect(await released({ ways: [{ by: 'duty', roster: 'watch' }, { by: 'turn' }] })).toEqual([
      'Nobody is on duty by “Watch” at Thu 26 Nov, 08:00. Complete the roster, or name a person as the last way.',
    ]);
    const person = { by: 'person', person: idOf('Yusuf Marchetti') };
    expect(await released({ ways: [{ by: 'duty', roster: 'watch' }, person] })).toEqual([]);
    expect(await released({ ways: [{ by: 'duty', roster: 'lost' }, person] })).toEqual([
      'This row asks who is on duty by a roster that does not exist. Choose another roster.',
    ]);
  });

  it('are not retired or deleted while a form asks them, and nobody overwrites what is newer', async () => {
    expect(await released({ ways: [{ by: 'duty', roster: 'watch' }, { by: 'turn' }] })).toHaveLength(1);
    expect(problems(await put('watch', { retired: true }))).toEqual([
      422,
      'retired: The form “Come on site” asks who is on duty by this roster.',
    ]);
    const params = { kind: 'roster', key: 'watch' };
    const { uses } = ok(await maren.call('groundDeletion', { params }));
    expect(uses.map(({ title }: { title: string }) => title)).toEqual(['Come on site']);
    expect((await maren.call('deleteGround', { params })).status).toBe(409);
    const { version, roster } = await opened('watch');
    const { key: _, ...plan } = roster;
    const change = { params: { key: 'watch' }, headers: onVersion(version), body: { roster: plan, note: 'Twice' } };
    expect([
      (await maren.call('changeRoster', change)).status,
      (await maren.call('changeRoster', change)).status,
    ]).toEqual([200, 412]);
    expect((await opened('watch')).states.map(({ note }: { note: string }) => note)).toEqual(['Twice', '']);
    const spare = ok(await made({ ...watch(), name: 'Spare' })).key;
    ok(await put(spare, { retired: true }));
    expect((await duty(bram)).rosters.map(({ key }: { key: string }) => key)).toEqual(['watch']);
    ok(await maren.call('deleteGround', { params: { kind: 'roster', key: spare } }));
    expect((await maren.call('roster', { params: { key: spare } })).status).toBe(404);
    const calendar = { kind: 'calendar', key: 'desk' };
    expect(
      ok(await maren.call('groundDeletion', { params: calendar })).uses.map(({ title }: { title: string }) => title),
    ).toContain('Watch');
  });
});

describe('a duty', () => {
  const offering = async (who: Caller, more: object): Promise<Answer> =>
    who.call('offerDuty', {
      headers: freshly(),
      body: { roster: 'watch', from: at('25T08:00'), to: at('25T18:00'), person: null, note: 'Dentist', ...more },
    });
  const answer = async (who: Caller, id: string, what: string): Promise<number> =>
    (await who.call('answerOffer', { params: { id }, body: { answer: what } })).status;

  it('is offered by whoever has it, for a time in which they have it, to somebody of the roster', async () => {
    const { mine, rosters } = await duty(bram);
    expect(mine[0]).toEqual({ roster: 'watch', from: at('25T08:00'), to: at('25T18:00') });
    expect(rosters[0].others).toEqual([{ id: idOf('Signe Halvard'), name: 'Signe Halvard', away: false }]);
    expect((await offering(yusuf, {})).status).toBe(404);
    expect(problems(await offering(bram, { to: at('25T19:00') }))).toEqual([
      422,
      'from: You are not on duty in this time.',
    ]);
    expect(problems(await offering(bram, { from: at('23T08:00'), to: at('23T18:00') }))).toEqual([
      ...[422, 'from: You are not on duty in this time.'],
    ]);
    expect(problems(await offering(bram, { person: idOf('Yusuf Marchetti') }))).toEqual([
      ...[422, 'person: This person is not on the roster.'],
    ]);
    const { id } = ok(await offering(bram, {}));
    expect(problems(await offering(bram, {}))).toEqual([422, 'from: You have already offered this duty.']);
    expect((await duty(signe)).offered).toEqual([
      {
        id,
        roster: 'watch',
        from: at('25T08:00'),
        to: at('25T18:00'),
        note: 'Dentist',
        by: 'Bram Solheim',
        person: null,
      },
    ]);
    expect([(await duty(yusuf)).offered, (await duty(bram)).offering.length]).toEqual([[], 1]);
    expect(await lettersTo('Signe Halvard')).toContain('Bram Solheim asks you to take over: Watch, Wed 25 Nov, 08:00');
    // Nobody else takes it back, takes it, or says no in the name of all.
    expect([
      await answer(signe, id, 'withdraw'),
      await answer(yusuf, id, 'take'),
      await answer(bram, id, 'take'),
    ]).toEqual([404, 404, 404]);
    expect(await answer(signe, id, 'decline')).toBe(409);
    expect([await answer(bram, id, 'withdraw'), await answer(signe, id, 'take')]).toEqual([200, 409]);
  });

  it('is the roster’s once it is taken: requests go to whoever took it, for as long as that is', async () => {
    const { id } = ok(await offering(bram, { to: at('25T12:00'), person: idOf('Signe Halvard') }));
    expect(await answer(signe, id, 'take')).toBe(200);
    expect(await answer(signe, id, 'take')).toBe(409);
    expect(await lettersTo('Bram Solheim')).toContain('Signe Halvard takes over: Watch, Wed 25 Nov, 08:00');
    expect((await opened('watch')).roster.swaps).toEqual([
      {
        ...{ id, from: '2026-11-25T08:00', until: '2026-11-25T12:00', note: 'Dentist' },
        ...{ instead: idOf('Bram Solheim'), by: idOf('Signe Halvard') },
      },
    ]);
    expect(await released({ ways: [{ by: 'duty', roster: 'watch' }, { by: 'turn' }] })).toHaveLength(1);
    const handlers: string[] = [];
    // To Wednesday at ten, and then to one.
    await wait(39 * 60 + 30);
    handlers.push((await sent()).handler.name);
    await wait(3 * 60);
    handlers.push((await sent()).handler.name);
    expect(handlers).toEqual(['Signe Halvard', 'Bram Solheim']);
  });

  it('that somebody says no to, or that is not theirs any more, stays where it is', async () => {
    const next = { from: at('27T08:00'), to: at('27T18:00') };
    const { id } = ok(await offering(bram, { ...next, person: idOf('Signe Halvard') }));
    expect(await answer(signe, id, 'decline')).toBe(200);
    expect((await lettersTo('Bram Solheim')).at(-1)).toBe('Signe Halvard can’t take over: Watch, Fri 27 Nov, 08:00');
    const again = ok(await offering(bram, { ...next, person: idOf('Signe Halvard') })).id;
    // Meanwhile the coordinator has somebody else do it.
    const { swaps } = (await opened('watch')).roster;
    const moved = { from: '2026-11-27T08:00', until: '2026-11-27T18:00', instead: idOf('Bram Solheim') };
    ok(await put('watch', { swaps: [...swaps, { id: 'm', note: '', by: idOf('Yusuf Marchetti'), ...moved }] }));
    expect(await answer(signe, again, 'take')).toBe(409);
    expect((await duty(yusuf)).mine).toEqual([{ roster: 'watch', ...next }]);
  });

  it('is told to whoever comes on it, once, where the roster says so', async () => {
    ok(await put('watch', { tells: true }));
    await wait(1);
    const before = (await lettersTo('Yusuf Marchetti')).length;
    // On Thursday it would be Signe, who is away: nobody is told of what nobody begins.
    await wait(20 * 60);
    expect((await lettersTo('Signe Halvard')).filter((subject) => subject.startsWith('You are on duty'))).toEqual([]);
    await wait(26 * 60);
    await wait(60);
    expect((await lettersTo('Yusuf Marchetti')).slice(before)).toEqual(['You are on duty: Watch']);
  });
});

describe('notices', () => {
  it('go to whoever is on duty when they go', async () => {
    const rule = {
      ...{ key: 'watch', name: 'To the watch', on: { is: 'arrived' }, to: [{ duty: 'watch' }], answers: false },
      ...{ subject: 'For the watch: {request.number}', text: 'Please look at it.', goes: { goes: 'at-once' } },
    };
    expect(await released(undefined, [rule])).toEqual([]);
    const { number } = await sent();
    expect([await lettersTo('Yusuf Marchetti'), await lettersTo('Signe Halvard')].map((all) => all.at(-1))).toEqual([
      `For the watch: ${number}`,
      expect.not.stringContaining('For the watch'),
    ]);
    expect(await released(undefined, [{ ...rule, to: [{ duty: 'lost' }] }])).toEqual([
      'A roster whose people on duty get “To the watch” does not exist any more. Choose others.',
    ]);
  });
});

describe('a decision', () => {
  it('is asked of whoever is on duty when its step is reached, and stays theirs', async () => {
    const step = { id: 'watch-agrees', label: 'The watch agrees', seats: [{ duty: 'watch' }], needed: 1 };
    const decided = await releaseAs(maren, 'site-access', (draft) => {
      const { routing, ...told } = telling([])(draft);
      return {
        ...told,
        routing: { ...routing, otherwise: { ...routing.otherwise, path: 'path' } },
        approval: { paths: [{ id: 'path', label: '', steps: [step] }] },
      };
    });
    expect(decided.release).not.toBeNull();
    release = decided.release ?? release;
    const [on] = (await duty(maren)).rosters.find(({ key }: { key: string }) => key === 'watch').on;
    const seat = async (number: string): Promise<Answer['body']> =>
      (await maren.sheet(number)).approval.steps[0].seats[0];
    const { number } = await sent();
    expect(await seat(number)).toMatchObject({ who: on.name, as: 'on duty by “Watch”' });
    // Another has the next duty: what was asked stays with whoever was asked.
    for (let days = 0; days < 7; days += 1) {
      await wait(24 * 60);
      const [next] = (await duty(maren)).rosters.find(({ key }: { key: string }) => key === 'watch').on;
      if (next && next.name !== on.name) break;
    }
    expect(await seat(number)).toMatchObject({ who: on.name });
    const [next] = (await duty(maren)).rosters.find(({ key }: { key: string }) => key === 'watch').on;
    expect(next.name).not.toBe(on.name);
    expect(await seat((await sent()).number)).toMatchObject({ who: next.name });
  });
});

describe('people of a roster', () => {
  const people = async (): Promise<readonly string[]> =>
    (await opened('crew')).roster.shifts.map(({ people: ids }: { people: string[] }) => ids.map(nameOf).join(', '));
  const nameOf = (id: string): string =>
    ['Bram Solheim', 'Signe Halvard', 'Yusuf Marchetti', 'Ilse Brandvold', 'Ivo Tarn'].find(
      (name) => idOf(name) === id,
    ) ?? id;
  const added = async (name: string): Promise<string> => {
    const body = { kind: 'staff', name, email: `${name.toLowerCase().replace(' ', '.')}@skerrow.example` };
    return ok(await (await desk.as('Ada Quillfeather')).call('addPerson', { headers: freshly(), body })).id;
  };

  it('who leave are followed by whoever takes their work, or by those after them', async () => {
    const [ivo, una] = [await added('Ivo Tarn'), await added('Una Gray')];
    const [shift] = watch().shifts;
    const shifts = [
      { ...shift, id: 'two', people: [una, idOf('Bram Solheim')] },
      { ...shift, id: 'one', people: [ivo] },
    ];
    ok(await made({ ...watch(), name: 'Crew', shifts, needed: 'never' }));
    const ada = await desk.as('Ada Quillfeather');
    const plan = async (id: string): Promise<number> => ok(await ada.call('handOverPlan', { params: { id } })).rosters;
    expect([await plan(una), await plan(ivo), await plan(idOf('Priya Nakamura-Lind'))]).toEqual([1, 1, 0]);
    ok(await ada.call('handOver', { params: { id: una }, body: { to: idOf('Signe Halvard') } }));
    expect(await people()).toEqual(['Signe Halvard, Bram Solheim', 'Ivo Tarn']);
    ok(await ada.call('handOver', { params: { id: ivo }, body: { to: null } }));
    // Nobody else has it: it stays, and who looks after rosters is told that they have left.
    expect(await people()).toEqual(['Signe Halvard, Bram Solheim', 'Ivo Tarn']);
    const { people: staff } = ok(await maren.call('rosters'));
    expect(staff.find(({ id }: { id: string }) => id === ivo).active).toBe(false);
  });

  it('who turn out to be one have the turns of both', async () => {
    const twin = await added('Brom Solheim');
    const { roster } = await opened('crew');
    ok(await put('crew', { shifts: [...roster.shifts.slice(0, 1), { ...roster.shifts[1], people: [twin] }] }));
    const ada = await desk.as('Ada Quillfeather');
    ok(await ada.call('mergePeople', { params: { id: idOf('Bram Solheim') }, body: { other: twin } }));
    expect(await people()).toEqual(['Signe Halvard, Bram Solheim', 'Bram Solheim']);
  });
});

describe('a hand-over', () => {
  const handlerOf = async (number: string): Promise<string | null> => (await maren.sheet(number)).handler?.name ?? null;
  const handlers = (numbers: readonly string[]): Promise<readonly (string | null)[]> =>
    Promise.all(numbers.map(handlerOf));
  const given = async (): Promise<string> => (await sent()).number;
  const moved = async (who: Caller, route: 'moveStage' | 'assign', number: string, body: object): Promise<void> => {
    const { version } = await who.sheet(number);
    ok(await who.call(route, { params: { number }, headers: onVersion(version), body }));
  };

  it('gives what the roster gave and nobody has begun to whoever comes, and leaves what somebody chose', async () => {
    const [shift] = watch().shifts;
    const always = { ...shift, days: [1, 2, 3, 4, 5, 6, 7], since: '2026-11-02' };
    const shifts = [
      { ...always, id: 'day', from: '06:00', to: '18:00', people: [idOf('Bram Solheim')] },
      { ...always, id: 'night', from: '18:00', to: '06:00', people: [idOf('Yusuf Marchetti')] },
    ];
    ok(await made({ ...watch(), name: 'Relay', needed: 'always', shifts, handsOver: 'waiting' }));
    await released({ ways: [{ by: 'duty', roster: 'relay' }, { by: 'turn' }] });
    await wait(1);
    const now = new Date(desk.running.house.clock.now());
    expect([now.getUTCHours() >= 6, now.getUTCHours() < 17]).toEqual([true, true]);
    const [waits, begun, chosen] = [await given(), await given(), await given()];
    await moved(bram, 'moveStage', begun, { stage: 'in_hand' });
    await moved(maren, 'assign', chosen, { person: null });
    await moved(maren, 'assign', chosen, { person: idOf('Bram Solheim') });
    const all = [waits, begun, chosen];
    expect(await handlers(all)).toEqual(['Bram Solheim', 'Bram Solheim', 'Bram Solheim']);
    const toNight = (18 - now.getUTCHours()) * 60;
    await wait(toNight);
    expect(await handlers(all)).toEqual(['Yusuf Marchetti', 'Bram Solheim', 'Bram Solheim']);
    expect((await maren.sheet(waits)).history.at(-1).what).toBe('Yusuf Marchetti is the handler, being on duty');
    // All that is open passes where the roster says so, and back again; once, whatever is looked at in between.
    ok(await put('relay', { handsOver: 'open' }));
    await wait(12 * 60);
    await wait(30);
    expect(await handlers(all)).toEqual(['Bram Solheim', 'Bram Solheim', 'Bram Solheim']);
    await wait(12 * 60);
    expect(await handlers(all)).toEqual(['Yusuf Marchetti', 'Yusuf Marchetti', 'Bram Solheim']);
  });
});
