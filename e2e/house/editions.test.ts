import type { Edition, FormDesign } from '@tolvek/core/form';
import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

// E1–E5, E9: each is given the edition that fits them, and what it leaves out is out of sight and no more.
let desk: Desk;
let maren: Caller;
let bram: Caller;
let priya: Caller;
let ilse: Caller;
const of = { params: { key: 'site-access' } };
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const everyone = { in: { everyone: true as const }, outOf: [] };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, bram, priya, ilse] = [
    await desk.as('Maren Okafor'),
    await desk.as('Bram Solheim'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Ilse Brandvold'),
  ];
});
afterAll(() => desk.close());

/** Releases the draft of the form with something changed. */
async function release(change: (draft: FormDesign) => FormDesign): Promise<number> {
  const form = ok(await maren.call('form', of));
  const draft = change(form.draft);
  const { version } = ok(await maren.call('saveDraft', { ...of, headers: onVersion(form.version), body: { draft } }));
  return ok(await maren.call('releaseForm', { ...of, headers: onVersion(version), body: { note: '' } })).number;
}
const withEditions =
  (...more: readonly Edition[]) =>
  ({ editions = [], ...draft }: FormDesign): FormDesign => ({ ...draft, editions: [...editions, ...more] });
const question = (view: Answer['body'], field: string) =>
  view.form.parts.find((part: { field?: string }) => part.field === field);
const editionOf = (number: string) =>
  desk.running.house.db.select({ edition: requests.edition }).from(requests).where(eq(requests.number, number)).get()
    ?.edition;

test('each is asked in the edition that fits them, and the request remembers it', async () => {
  const [staff, plain] = [
    ok(await bram.call('door', { params: { slug: 'come-on-site' } })),
    ok(await priya.call('door', { params: { slug: 'come-on-site' } })),
  ];
  expect([question(staff, 'visitor').asks, question(plain, 'visitor').asks]).toEqual([
    'Whom do you expect?',
    'Who is coming?',
  ]);
  expect([staff.form.intro.startsWith('For your guests'), plain.form.intro.startsWith('For your guests')]).toEqual([
    true,
    false,
  ]);
  // What the desk calls an edition is told to nobody who asks.
  expect(JSON.stringify(staff)).not.toContain('Station staff');
  const { institute: _, ...rest } = VISIT;
  const sent = ok(await bram.submit('come-on-site', rest)).number;
  const whole = ok(await priya.submit('come-on-site', VISIT)).number;
  expect([editionOf(sent), editionOf(whole)]).toEqual(['edition-3', null]);
  const sheet = ok(await maren.call('sheet', { params: { number: sent } }));
  expect(sheet.values.fields.find(({ key }: { key: string }) => key === 'institute').value).toBe('station');
});

test('who gets what says so of everybody, with who is caught by whom it leaves out', async () => {
  const given = ok(await maren.call('editionsGiven', of));
  const jory = given.people.find(({ name }: { name: string }) => name === 'Jory Blackadder-Finn');
  const one = given.editions[0];
  expect(one.caught).toEqual(['Jory Blackadder-Finn']);
  const found = ok(await maren.call('editionsGiven', { ...of, query: { find: 'jory black' } })).people;
  expect([jory ?? found[0]].map(({ gets, verdicts }) => [gets, verdicts[0].is])).toEqual([['edition-3', 'out']]);
  const total = given.editions.reduce((sum: number, { gets }: { gets: number }) => sum + gets, given.plain.gets);
  expect(total).toBe(given.total);
  // What is said of one of the staff is what their door gives them.
  for (const name of ['Bram Solheim', 'Priya Nakamura-Lind', 'Anneke Rasmus', 'Ada Quillfeather']) {
    const [says] = ok(await maren.call('editionsGiven', { ...of, query: { find: name } })).people;
    const door = ok(await (await desk.as(name)).call('door', { params: { slug: 'come-on-site' } }));
    expect([name, says.gets]).toEqual([name, door.form.intro.startsWith('For your guests') ? 'edition-3' : null]);
  }
  expect((await priya.call('editionsGiven', of)).status).toBe(403);
});

test('before a release it is said who would get something else; taken back, nobody would', async () => {
  const form = ok(await maren.call('form', of));
  const swap = ({ editions = [], ...draft }: FormDesign): FormDesign => ({
    ...draft,
    editions: editions.map((edition) =>
      edition.id === 'edition-1' ? { ...edition, audience: { ...edition.audience, outOf: [] } } : edition,
    ),
  });
  const { version } = ok(
    await maren.call('saveDraft', { ...of, headers: onVersion(form.version), body: { draft: swap(form.draft) } }),
  );
  const { moves } = ok(await maren.call('editionsGiven', of));
  expect(moves).toEqual([
    { from: 'edition-3', to: 'edition-1', fromName: 'Station staff', count: 1, names: ['Jory Blackadder-Finn'] },
  ]);
  ok(await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: form.draft } }));
  expect(ok(await maren.call('editionsGiven', of)).moves).toEqual([]);
});

test('an edition for whoever may do something is given by what counts in its register, and told of', async () => {
  const before = ok(await maren.call('form', of)).draft;
  const builders: Edition = {
    ...{ id: 'builders', name: 'Whoever builds', on: true, when: '', differences: [] },
    audience: { in: { anyOf: ['+configure'] }, outOf: ['+move:own'] },
    intro: 'You build these.',
  };
  const put = (edition: Edition) =>
    release(({ editions = [], ...draft }) => ({
      ...draft,
      editions: [edition, ...editions.filter(({ id }) => id !== 'builders')],
    }));
  const introOf = async (who: Caller) => ok(await who.call('door', { params: { slug: 'come-on-site' } })).form.intro;
  await put(builders);
  // Whoever may move all requests may move what they handle: they are left out by that.
  expect(await introOf(maren)).not.toBe('You build these.');
  await put({ ...builders, audience: { in: { anyOf: ['+configure'] }, outOf: [] } });
  expect([await introOf(maren), (await introOf(priya)) === 'You build these.']).toEqual(['You build these.', false]);
  const { people } = ok(await maren.call('editionsGiven', { ...of, query: { find: 'Maren' } }));
  expect([people[0].gets, people[0].verdicts[0]]).toEqual(['builders', { is: 'fits', by: '+configure' }]);
  const seat = ok(await maren.call('proofSeat', { params: { key: 'site-access', person: desk.idOf('Maren Okafor') } }));
  expect([seat.kind, seat.rights.includes('configure')]).toEqual(['staff', true]);
  // In this register alone she has it no more.
  const ada = await desk.as('Ada Quillfeather');
  ok(await ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to: 'beside' } }));
  const less = { give: [], take: ['configure'], register: 'site-access' };
  for (const subject of [`@${desk.idOf('Maren Okafor')}`, 'coordinators'])
    await ada.call('changeRights', { params: { subject }, body: less });
  expect(await introOf(maren)).not.toBe('You build these.');
  ok(await ada.call('setRegisterRights', { params: { key: 'site-access' }, body: { to: 'desk' } }));
  expect(await introOf(maren)).toBe('You build these.');
  await release(() => before);
});

test('a request is laid out for its handler: what is left out or locked can’t be changed, and is read elsewhere', async () => {
  const inForce = await release(
    withEditions({
      ...{ id: 'at-work', name: 'At work', on: true, when: 'request.stage = "arrived"', stages: ['arrived'] },
      audience: { in: { anyOf: ['estates'] }, outOf: [] },
      differences: [
        { does: 'hide', part: 'fee' },
        { does: 'lock', part: 'escort' },
        { does: 'reword', part: 'reason', help: 'What they told us.' },
        { does: 'add', after: null, adds: { part: 'instruction', id: 'own-note', text: 'Call {visitor} first.' } },
      ],
    }),
  );
  const { number } = ok(await priya.submit('come-on-site', VISIT, { release: inForce }));
  const [sheet, theirs] = [
    ok(await ilse.call('sheet', { params: { number } })),
    ok(await maren.call('sheet', { params: { number } })),
  ];
  expect([sheet.edition, theirs.edition]).toEqual([{ name: 'At work', leftOut: ['fee'], opensToChange: false }, null]);
  expect(JSON.stringify(sheet.words)).toContain('Elke Marlowe');
  expect([sheet.help.reason, theirs.words]).toEqual(['What they told us.', []]);
  const writable = (view: Answer['body'], key: string) =>
    view.values.fields.find((field: { key: string }) => field.key === key).writable;
  expect(['fee', 'escort', 'visitor'].map((key) => writable(sheet, key))).toEqual([false, false, true]);
  expect(['fee', 'escort', 'visitor'].map((key) => writable(theirs, key))).toEqual([true, true, true]);
  for (const [changes, status] of [
    [{ fee: '5' }, 422],
    [{ escort: 'Me' }, 422],
    [{ visitor: 'Elke M.' }, 200],
  ] as const) {
    const changed = await ilse.call('changeFields', {
      ...{ params: { number }, headers: onVersion(sheet.version), body: { changes } },
    });
    expect([Object.keys(changes), changed.status]).toEqual([Object.keys(changes), status]);
  }
  // At another stage it is not given any more, and all can be changed as the plan has it.
  const moved = ok(
    await ilse.call('moveStage', {
      ...{ params: { number }, headers: onVersion(sheet.version + 1), body: { stage: 'in_hand' } },
    }),
  );
  const later = ok(await ilse.call('sheet', { params: { number } }));
  expect([later.edition, later.words, writable(later, 'escort')]).toEqual([null, [], true]);
  ok(
    await ilse.call('changeFields', {
      ...{ params: { number }, headers: onVersion(moved.version), body: { changes: { escort: 'Me' } } },
    }),
  );
});

test('whoever asked reads other words when it is done, and less where their edition leaves it out', async () => {
  const told = (id: string, stages: string[], text: string): Edition => ({
    ...{ id, name: id, on: true, when: '', stages, readOnly: true },
    audience: { in: { anyOf: [] }, outOf: [], requester: 'in' },
    differences: [
      { does: 'hide', part: 'works_on_water' },
      { does: 'add', after: null, adds: { part: 'instruction', id: 'own-told', text } },
    ],
  });
  const inForce = await release(
    withEditions(
      told('told-first', ['arrived'], 'We look at it, {visitor}.'),
      told('told-done', ['done'], 'Your way in: https://gate.skerrow.example/{escort}'),
    ),
  );
  const { number } = ok(await priya.submit('come-on-site', VISIT, { release: inForce }));
  const mine = async () => ok(await priya.call('myRequest', { params: { number } }));
  const first = await mine();
  expect(JSON.stringify(first.words)).toContain('We look at it');
  const keys = (view: Answer['body']) => view.values.fields.map(({ key }: { key: string }) => key);
  expect([keys(first).includes('works_on_water'), keys(first).includes('reason')]).toEqual([false, true]);
  for (const stage of ['in_hand', 'done']) {
    const { version } = ok(await maren.call('sheet', { params: { number } }));
    ok(await maren.call('moveStage', { params: { number }, headers: onVersion(version), body: { stage } }));
    const now = JSON.stringify((await mine()).words);
    expect([stage, now.includes('Your way in')]).toEqual([stage, stage === 'done']);
    // What only the desk reads stands in no words of theirs.
    if (stage === 'done') expect(now).toContain('…');
  }
});

test('a trial request is sent in the edition that its proof was looked at in', async () => {
  const send = (edition: string | null, answers: object) =>
    maren.call('sendTrial', {
      ...of,
      headers: { 'Idempotency-Key': crypto.randomUUID() },
      body: { answers, person: null, outside: false, edition },
    });
  const refused = await send('edition-1', VISIT);
  // Contractors are offered two institutes, and have to name a fee.
  expect([refused.status, refused.body.problems.map(({ field }: { field: string }) => field)]).toEqual([
    422,
    ['institute', 'fee'],
  ]);
  const { number } = ok(await send('edition-1', { ...VISIT, institute: 'haldane', fee: '12' }));
  expect(editionOf(number)).toBe('edition-1');
  expect(editionOf(ok(await send(null, VISIT)).number)).toBe(null);
});

test('where an edition and the form collide, a finding says so, and one step mends it', async () => {
  const form = ok(await maren.call('form', of));
  const draft: FormDesign = {
    ...withEditions({
      ...{ id: 'late', name: 'Late', on: true, when: '', audience: everyone },
      differences: [
        { does: 'require', part: 'visitor' },
        { does: 'hide', part: 'gone' },
        { does: 'offer', part: 'institute', offers: ['nowhere'] },
      ],
    })(form.draft),
  };
  const { version, findings } = ok(
    await maren.call('saveDraft', { ...of, headers: onVersion(form.version), body: { draft } }),
  );
  const found = findings.filter(({ page, at }: { page: string; at: string }) => page === 'editions' && at === 'late');
  expect(found.map(({ severity, fix }: { severity: string; fix?: { fix: string } }) => [severity, fix?.fix])).toEqual([
    ['error', 'drop-difference'],
    ['caution', 'drop-difference'],
    ['caution', 'drop-difference'],
  ]);
  ok(await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: form.draft } }));
});

test('an edition that nobody gets is found among all who are here, and not once somebody does', async () => {
  const form = ok(await maren.call('form', of));
  let { version } = form;
  const both = { in: { allOf: ['estates', 'boats'] }, outOf: [] };
  const named = (...names: readonly string[]) => ({
    in: { anyOf: names.map((name) => `@${desk.idOf(name)}`) },
    outOf: [],
  });
  const edition = (id: string, audience: Edition['audience'], more: Partial<Edition> = {}): Edition => ({
    ...{ id, name: id, on: true, when: '', audience, differences: [{ does: 'require', part: 'reason' }] },
    ...more,
  });
  const found = async (...editions: readonly Edition[]): Promise<readonly string[]> => {
    const draft = { ...form.draft, editions };
    const saved = ok(await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft } }));
    version = saved.version;
    return saved.findings.flatMap(({ at, message }: { at: string; message: string }) =>
      message.startsWith('Nobody gets') ? [`${at} ${message.includes('before it') ? 'before' : 'nobody'}`] : [],
    );
  };
  const estates = named('Ilse Brandvold', 'Nuala Fenwick');
  expect(await found(edition('both', both))).toEqual(['both nobody']);
  // The first takes all whom the second fits; in the other order both are given.
  const [wide, narrow] = [edition('wide', { in: { anyOf: ['estates'] }, outOf: [] }), edition('narrow', estates)];
  expect(await found(wide, narrow)).toEqual(['narrow before']);
  expect(await found(narrow, wide)).toEqual([]);
  // It is given later, where the first is given only while they ask.
  expect(await found({ ...wide, stages: ['~asking'] }, narrow)).toEqual([]);
  // What hangs on a request, on what it holds, or is switched off, is not asked of people.
  expect(await found(edition('handler', { in: { anyOf: ['~handler'] }, outOf: [] }))).toEqual([]);
  expect(await found(edition('water', both, { when: 'works_on_water = true' }))).toEqual([]);
  expect(await found(edition('off', both, { on: false }))).toEqual([]);
  // Once somebody is in both groups, they get it: nothing of the draft changed.
  expect(await found(edition('both', both))).toEqual(['both nobody']);
  const ada = await desk.as('Ada Quillfeather');
  const enter = {
    params: { key: 'estates' },
    body: { person: desk.idOf('Bram Solheim'), from: null, until: null },
  };
  const entered = ok(await ada.call('enterGroup', { ...enter, headers: { 'Idempotency-Key': crypto.randomUUID() } }));
  const again = ok(await maren.call('form', of));
  expect(again.findings.filter(({ message }: { message: string }) => message.startsWith('Nobody gets'))).toEqual([]);
  // The list of forms counts it as well.
  const count = async () =>
    ok(await maren.call('forms')).forms.find(({ key }: { key: string }) => key === 'site-access').findings;
  const before = await count();
  ok(await ada.call('leaveGroup', { params: { key: 'estates', entry: entered.id } }));
  expect([await count(), again.findings.length]).toEqual([before + 1, before]);
  ok(await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: form.draft } }));
});
