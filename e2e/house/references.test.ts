import { VOCABULARIES } from '@tolvek/demo';
import { jobs } from '@tolvek/server/schema';
import { eq, sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, tripOf } from './desk.ts';

// A5, A6, A8: what fields name that is kept elsewhere, through the running desk.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let things: ReadonlyMap<string, string>;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya] = await Promise.all([desk.as('Maren Okafor'), desk.as('Priya Nakamura-Lind')]);
  things = desk.things();
});
afterAll(() => desk.close());

const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const trip = (day: string, more: object = {}) =>
  tripOf(things, {
    vessel: things.get('Guillemot'),
    purpose: 'Moorings',
    area: 'coast',
    leaves: `${day}T09:00`,
    returns: `${day}T11:00`,
    ...more,
  });
const shownOf = async (number: string, field: string): Promise<string> =>
  (await maren.sheet(number)).values.fields.find((each: { key: string }) => each.key === field).shown;
const numberOf = async (thing: string): Promise<string> =>
  (await maren.call('ledger', { query: { tray: 'things' } })).body.rows.find((row: { subject: string }) =>
    row.subject.includes(thing),
  ).number;
const change = async (number: string, changes: object) =>
  maren.call('changeFields', {
    params: { number },
    headers: onVersion((await maren.sheet(number)).version),
    body: { changes },
  });

describe('a reference', () => {
  it('offers what holds every word looked for, wherever it stands in its name or number', async () => {
    const ask = async (find: string) =>
      (await priya.call('offers', { params: { slug: 'vessel-time' }, body: { field: 'vessel', find, answers: {} } }))
        .body;
    type Offer = { id: string; label: string; number: string };
    const { offers: all, more } = (await ask('')) as { offers: readonly Offer[]; more: boolean };
    expect(more).toBe(false);
    const findable = ({ label, number }: Offer): string => `${label} ${number}`.toLowerCase();
    const parts = all.flatMap((each) =>
      findable(each)
        .split(' ')
        .flatMap((word) => [word, word.slice(1, 4), word.slice(-2).toUpperCase()]),
    );
    const looks = [...new Set([...parts, 'inflatable rigid', 'vs boat', 'nothing', 'tern, vs', 'é'])].filter(Boolean);
    let found = 0;
    for (const find of looks) {
      const words = find.toLowerCase().split(' ');
      const expected = all.filter((each) => words.every((word) => findable(each).includes(word)));
      const { offers } = (await ask(find)) as { offers: readonly Offer[] };
      expect([find, offers.map(({ id }) => id).sort()]).toEqual([find, expected.map(({ id }) => id).sort()]);
      found += offers.length;
    }
    expect(found).toBeGreaterThan(looks.length);
  });

  it('offers what fits the words and the condition, and shows no more of it than is chosen', async () => {
    const ask = async (field: string, find: string) =>
      (await priya.call('offers', { params: { slug: 'vessel-time' }, body: { field, find, answers: {} } })).body.offers;
    expect((await ask('vessel', '')).map((each: { label: string }) => each.label)).toEqual([
      'Arctic Tern, survey catamaran',
      'Guillemot, rigid inflatable',
      'Saithe, workboat',
      'Skiff, open boat',
    ]);
    const [tern] = await ask('vessel', 'CATA vs-00002');
    expect(Object.keys(tern.values).sort()).toEqual(['bay_only', 'berths', 'name', 'rate', 'what']);
    // The winter cruise’s code was open until October.
    expect(
      (await ask('budget', ''))
        .map((each: { label: string }) => each.label)
        .filter((label: string) => label.includes('EX0007')),
    ).toEqual([]);
    const refused = await priya.submit('vessel-time', trip('2026-12-03', { budget: things.get('EX0007') }));
    expect(refused.body.problems).toEqual([
      {
        field: 'budget',
        message: 'Your choice for “Budget code” is not available with your other answers.',
        fix: 'Choose something else, or change the answers that it depends on.',
      },
    ]);
  });

  it('refuses what is no request of its register', async () => {
    for (const vessel of [things.get('OC1200'), 'nobody-knows', '../../etc', 7]) {
      const answer = await priya.submit('vessel-time', trip('2026-12-03', { vessel }));
      expect(answer.body.problems.map((problem: { field: string }) => problem.field)).toContain('vessel');
    }
  });

  it('carries values along: those that follow follow, those frozen stay, and what is computed from them is computed anew', async () => {
    const { number } = (await priya.submit('vessel-time', trip('2026-12-04'))).body;
    expect(await Promise.all(['vessel', 'rate', 'berths', 'cost'].map((field) => shownOf(number, field)))).toEqual([
      'Guillemot, rigid inflatable',
      '€80.00',
      '6 persons',
      '€160.00',
    ]);
    const boat = await numberOf('Guillemot');
    expect((await maren.sheet(boat)).pointing).toContainEqual({
      number,
      subject: expect.stringContaining('Guillemot'),
      field: 'Vessel',
    });
    expect((await change(boat, { rate: '95', berths: 5 })).status).toBe(200);
    expect(await Promise.all(['rate', 'berths', 'cost'].map((field) => shownOf(number, field)))).toEqual([
      '€80.00',
      '5 persons',
      '€160.00',
    ]);
    expect((await maren.sheet(number)).history.at(-1)).toMatchObject({
      who: 'Tolvek',
      what: `Updated after a change of ${boat}`,
    });
    // Pointing elsewhere brings the other’s values along, the frozen ones too.
    expect((await change(number, { vessel: things.get('Saithe') })).status).toBe(200);
    expect(await Promise.all(['rate', 'berths', 'cost'].map((field) => shownOf(number, field)))).toEqual([
      '€140.00',
      '8 persons',
      '€280.00',
    ]);
    expect((await change(number, { rate: '1' })).body.problems[0].message).toBe(
      '“Rate an hour” can be read, but not changed.',
    );
    expect((await maren.sheet(boat)).pointing).toEqual([]);
  });

  it('to a thing out of use is offered no more, and stays where it is', async () => {
    const { number } = (await priya.submit('vessel-time', trip('2026-12-07'))).body;
    const boat = await numberOf('Guillemot');
    const { version } = await maren.sheet(boat);
    expect(
      (
        await maren.call('moveStage', {
          params: { number: boat },
          headers: onVersion(version),
          body: { stage: 'gone' },
        })
      ).status,
    ).toBe(200);
    expect((await priya.submit('vessel-time', trip('2026-12-08'))).body.problems[0].field).toBe('vessel');
    expect(await shownOf(number, 'vessel')).toContain('Guillemot');
    expect((await change(number, { purpose: 'Moorings and buoys' })).status).toBe(200);
  });

  it('is kept by its own desk: nobody else adds to a register of things', async () => {
    const boat = { name: 'Dory', what: 'rowing boat', berths: 3, rate: '5', bay_only: true };
    expect((await priya.submit('vessels', boat)).status).toBe(403);
    expect((await priya.call('frontDesk')).body.forms.map((form: { slug: string }) => form.slug)).not.toContain(
      'vessels',
    );
    const bram = await desk.as('Bram Solheim');
    expect((await bram.submit('vessels', boat)).body.state).toBe('arrived');
  });
});

describe('a vocabulary', () => {
  const terms = () => VOCABULARIES.find((each) => each.key === 'species')?.terms ?? [];
  const save = (version: number, next: readonly object[]) =>
    maren.call('saveVocabulary', {
      params: { key: 'species' },
      headers: onVersion(version),
      body: { name: 'Species', terms: next },
    });
  const samples = (species: readonly string[]) => ({
    project: 'Diets',
    arrive: '2026-12-01',
    frozen: false,
    species,
    samples: [{ label: 'T1', matrix: 'Muscle', method: 'metals', runs: 1 }],
  });

  it('understands labels and other words, and opens what depends on where a term stands', async () => {
    const { number } = (await priya.submit('sample-analysis', samples(['gadus morhua', 'grey_seal']))).body;
    expect(await shownOf(number, 'species')).toBe('Atlantic cod, Grey seal');
    const water = { ...samples([]), samples: [{ label: 'W1', matrix: 'Sea water', method: 'nutrients', runs: 1 }] };
    expect((await priya.submit('sample-analysis', { ...water, species: ['cod'] })).body.problems).toEqual([
      {
        field: 'species',
        message: 'This question is not part of the form with your other answers.',
        fix: 'Remove the answer, or change the answers that it depends on.',
      },
    ]);
    expect((await priya.submit('sample-analysis', samples(['sand_eel']))).body.problems[0].message).toBe(
      '“Sand eel” is no longer available.',
    );
  });

  it('renames everywhere, moves merged terms, and loses none that a request holds', async () => {
    const { number } = (await priya.submit('sample-analysis', samples(['harbour_seal', 'cod']))).body;
    const without = terms().filter((term) => term.key !== 'cod');
    expect((await save(1, without)).body.problems).toEqual([
      {
        field: 'cod',
        message: 'Requests use the term “Atlantic cod”.',
        fix: 'Retire it, or merge it into another term.',
      },
    ]);
    const changed = terms().map((term) =>
      term.key === 'cod'
        ? { ...term, label: 'Cod' }
        : term.key === 'harbour_seal'
          ? { ...term, now: 'grey_seal' }
          : term,
    );
    expect((await save(1, changed)).body).toEqual({ version: 2, moved: 1 });
    expect(await shownOf(number, 'species')).toBe('Grey seal, Cod');
    expect((await maren.sheet(number)).history.at(-1).what).toBe('Terms of “Species” were merged');
    expect((await save(1, changed)).status).toBe(412);
    expect((await maren.call('vocabulary', { params: { key: 'species' } })).body.held.grey_seal).toBeGreaterThanOrEqual(
      1,
    );
  });

  it('says what is wrong, term by term', async () => {
    const bad = [
      { key: 'a', label: 'A', under: 'b' },
      { key: 'b', label: 'B', under: 'a' },
      { key: 'c', label: ' ' },
      { key: 'd', label: 'D', now: 'nowhere' },
    ];
    const { problems } = (await save(2, [...terms().map((term) => ({ ...term })), ...bad])).body;
    expect(problems.map((problem: { field: string }) => problem.field)).toEqual(['a', 'b', 'c', 'd']);
  });
});

describe('a running number', () => {
  it('is given once each, in order, without gaps from refusals, and not taken from outside', async () => {
    const sample = {
      project: 'Bay',
      arrive: '2026-12-01',
      frozen: false,
      samples: [{ label: 'W1', matrix: 'sea_water', method: 'nutrients', runs: 1 }],
    };
    const [before, , after, forged] = [
      await priya.submit('sample-analysis', sample),
      await priya.submit('sample-analysis', { ...sample, project: '' }),
      await priya.submit('sample-analysis', sample),
      await priya.submit('sample-analysis', { ...sample, lab_number: 'LAB-1' }),
    ];
    const [first, second] = [
      await shownOf(before.body.number, 'lab_number'),
      await shownOf(after.body.number, 'lab_number'),
    ];
    expect(first).toMatch(/^LAB-2026-\d{4}$/);
    expect(Number(second.slice(-4))).toBe(Number(first.slice(-4)) + 1);
    expect(forged.body.problems[0].field).toBe('lab_number');
    const tried = await maren.call('sendTrial', {
      params: { key: 'sample-analysis' },
      headers: { 'Idempotency-Key': crypto.randomUUID() },
      body: { answers: sample, person: null, outside: false },
    });
    expect([tried.status, await shownOf(tried.body.number, 'lab_number')]).toEqual([200, '']);
    const next = await priya.submit('sample-analysis', sample);
    expect(Number((await shownOf(next.body.number, 'lab_number')).slice(-4))).toBe(Number(second.slice(-4)) + 1);
    const many = await Promise.all(Array.from({ length: 8 }, () => priya.submit('sample-analysis', sample)));
    const numbers = await Promise.all(many.map(({ body }) => shownOf(body.number, 'lab_number')));
    expect(new Set(numbers).size).toBe(8);
  });

  it('is given to the requests that are there when a form gets one, the oldest first', async () => {
    const numbers = [
      (await priya.submit('field-kit-loan', loan('Rope'))).body.number,
      (await priya.submit('field-kit-loan', loan('Net'))).body.number,
    ];
    const form = (await maren.call('form', { params: { key: 'field-kit-loan' } })).body;
    const slip = {
      key: 'slip',
      label: 'Slip',
      type: { kind: 'running-number', prefix: 'SLIP ', digits: 3 },
      source: 'given',
    };
    const saved = await maren.call('saveDraft', {
      params: { key: form.key },
      headers: onVersion(form.version),
      body: { draft: { ...form.draft, fields: [...form.draft.fields, slip] } },
    });
    expect(
      (
        await maren.call('releaseForm', {
          params: { key: form.key },
          headers: onVersion(saved.body.version),
          body: { note: '' },
        })
      ).status,
    ).toBe(200);
    // What arrives meanwhile is numbered after them.
    const third = await priya.call('submit', {
      params: { slug: 'field-kit-loan' },
      headers: key(),
      body: { release: 2, answers: loan('Buoy') },
    });
    expect(await shownOf(third.body.number, 'slip')).toBe('SLIP 003');
    await desk.running.jobsDone();
    const slips = () => Promise.all(numbers.map((number) => shownOf(number, 'slip')));
    expect(await slips()).toEqual(['SLIP 001', 'SLIP 002']);
    // As a kill in the middle leaves it: under way, and one of them not numbered yet.
    const { db } = desk.running.house;
    const job = db.select().from(jobs).where(eq(jobs.kind, 'number')).get();
    const { id: register } = desk.register('field-kit-loan');
    const about = { register, fields: ['slip'], upTo: job?.createdAt ?? 0 };
    db.run(sql`update requests set "values" = json_remove("values", '$.slip') where number = ${numbers[1]}`);
    expect(await slips()).toEqual(['SLIP 001', '']);
    db.update(jobs).set({ state: 'running', about, endedAt: null }).where(eq(jobs.kind, 'number')).run();
    desk.running.house.wakeJobs();
    await desk.running.jobsDone();
    expect(await slips()).toEqual(['SLIP 001', 'SLIP 002']);
    expect(await shownOf(third.body.number, 'slip')).toBe('SLIP 003');
  });
});

const loan = (what: string) => ({ things: [{ what, count: 1 }], out_on: '2026-12-01', due_back: '2026-12-09' });
