import { RECIPES } from '@tolvek/core/form';
import { english } from '@tolvek/words/english';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, tripOf } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
let hanne: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, hanne] = await Promise.all([
    desk.as('Maren Okafor'),
    desk.as('Priya Nakamura-Lind'),
    desk.as('Hanne Istvan'),
  ]);
  TRIP = tripOf(desk.things());
});
afterAll(() => desk.close());

const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
let TRIP: ReturnType<typeof tripOf>;
const LINE = { what: 'Filter discs', count: 2, price: '38.50', vat: 'full' } as const;
const PURCHASE = { purpose: 'Nutrient lines', budget: 'MB2041', lines: [LINE] } as const;
const stored = async (): Promise<number> => (await maren.call('ledger', { query: { tray: 'all' } })).body.total;
const fieldsOf = (answer: { body: { problems?: readonly { field: string }[] } }): readonly string[] =>
  (answer.body.problems ?? []).map((problem) => problem.field);

describe('making a form', () => {
  const draft = RECIPES.find((recipe) => recipe.key === 'simple')?.make({
    told: english,
    title: 'Key to the boathouse',
    team: 'boats',
    approvers: 'duty-managers',
    calendar: 'desk',
  });
  const body = { prefix: 'KB', desk: 'boats', doors: { staff: true, outside: false }, draft };

  it('says what is missing, field by field, and makes nothing', async () => {
    const bad = await maren.call('createForm', {
      headers: key(),
      body: {
        ...body,
        prefix: 'AC',
        desk: 'ghosts',
        doors: { staff: false, outside: false },
        draft: { ...draft, title: ' ' },
      },
    });
    expect([bad.status, fieldsOf(bad)]).toEqual([422, ['title', 'prefix', 'desk', 'doors']]);
    expect((await priya.call('createForm', { headers: key(), body })).status).toBe(403);
  });

  it('nobody can ask with it until its first release, whose questions are then the register’s', async () => {
    const once = key();
    const made = await maren.call('createForm', { headers: once, body });
    expect([made.status, made.body.key]).toEqual([200, 'key-to-the-boathouse']);
    expect((await maren.call('createForm', { headers: once, body })).body).toEqual(made.body);
    expect((await priya.call('door', { params: { slug: made.body.key } })).status).toBe(404);
    await maren.call('releaseForm', { params: { key: made.body.key }, headers: onVersion(1), body: { note: '' } });
    expect((await priya.submit(made.body.key, { what: 'The key', needed_by: '2026-12-01' })).body.number).toBe(
      'KB-00001',
    );
    const form = (await maren.call('form', { params: { key: made.body.key } })).body;
    expect(form.released).toEqual(['what', 'why', 'needed_by']);
  });
});

describe('answers that no two requests may have', () => {
  it('are refused, named to their owner and merely taken for others, and free again when the request is finished', async () => {
    const first = await priya.submit('vessel-time', TRIP);
    expect(first.body.state).toBe('arrived');
    const own = await priya.submit('vessel-time', TRIP);
    expect(own.body.problems).toEqual([
      {
        field: 'vessel',
        message: `You already sent ${first.body.number} with the same “Vessel” and “Leaves”.`,
        fix: `Open ${first.body.number} among your requests, or change “Vessel” and “Leaves”.`,
      },
    ]);
    const other = await hanne.submit('vessel-time', TRIP);
    expect(other.body.problems).toEqual([
      {
        field: 'vessel',
        message: 'Another request already has the same “Vessel” and “Leaves” together.',
        fix: 'Choose another “Vessel” and “Leaves”.',
      },
    ]);
    expect(other.text).not.toContain(first.body.number);
    expect(
      (
        await hanne.call('checkAnswers', {
          params: { slug: 'vessel-time' },
          body: { answers: { vessel: TRIP.vessel, leaves: TRIP.leaves } },
        })
      ).body.problems,
    ).toHaveLength(1);
    expect(
      (
        await hanne.call('checkAnswers', {
          params: { slug: 'vessel-time' },
          body: { answers: { vessel: TRIP.vessel } },
        })
      ).body.problems,
    ).toEqual([]);

    const bram = await desk.as('Bram Solheim');
    let sheet = await bram.sheet(first.body.number);
    for (const stage of ['in_hand', 'done']) {
      await bram.call('moveStage', {
        params: { number: first.body.number },
        headers: onVersion(sheet.version),
        body: { stage },
      });
      sheet = await bram.sheet(first.body.number);
    }
    expect((await hanne.submit('vessel-time', TRIP)).body.state).toBe('arrived');
  });

  it('go to one of two who ask at the same moment', async () => {
    const trip = { ...TRIP, leaves: '2026-12-04T09:00', returns: '2026-12-04T10:00' };
    const both = await Promise.all([priya.submit('vessel-time', trip), hanne.submit('vessel-time', trip)]);
    expect(both.map((answer) => answer.status).sort()).toEqual([200, 422]);
  });
});

describe('hostile answers', () => {
  it.each<[string, object, readonly string[]]>([
    ['wrong kinds', { purpose: ['a', 'b'], budget: { toString: 1 }, lines: 'many' }, []],
    ['lists where one is wanted', { ...PURCHASE, purpose: ['a', 'b'] }, ['purpose']],
    ['one where a list is wanted', { ...PURCHASE, lines: 'Filter discs' }, ['lines']],
    ['columns that are computed', { ...PURCHASE, lines: [{ ...LINE, net: '0.01' }] }, ['lines']],
    ['columns that are not there', { ...PURCHASE, lines: [{ ...LINE, __proto__x: 1 }] }, ['lines']],
    ['computed fields', { ...PURCHASE, total: '0.01' }, ['total']],
    ['a question that is hidden', { ...PURCHASE, offers: 'Smuggled in' }, ['offers']],
    ['a desk-only field', { ...TRIP, skipper: 'me' }, []],
    ['more lines than fit', { ...PURCHASE, lines: Array.from({ length: 41 }, () => LINE) }, ['lines']],
    ['options that are not offered', { ...PURCHASE, lines: [{ ...LINE, vat: 'never' }] }, ['lines']],
  ])('%s are refused at their field, and nothing is stored', async (_, answers, fields) => {
    const before = await stored();
    const answer = await priya.submit('purchase', answers);
    expect([answer.status >= 400 && answer.status < 500, answer.body.problems?.length > 0]).toEqual([true, true]);
    if (fields.length > 0) expect(fieldsOf(answer)).toEqual(fields);
    expect(await stored()).toBe(before);
  });

  it('100,000 lines are refused before anybody reads them', async () => {
    const before = process.memoryUsage().rss;
    const lines = `[${Array.from({ length: 100_000 }, () => '{"what":"x"}').join(',')}]`;
    const answer = await priya.call('submit', {
      params: { slug: 'purchase' },
      headers: key(),
      body: `{"release":1,"answers":{"purpose":"x","lines":${lines}}}`,
    });
    expect([400, 413, 422]).toContain(answer.status);
    expect(process.memoryUsage().rss - before).toBeLessThan(200_000_000);
  });

  it('people who can’t be picked here are refused', async () => {
    const answer = await priya.submit('vessel-time', {
      ...TRIP,
      leaves: '2026-12-09T09:00',
      returns: '2026-12-09T10:00',
      leader: 'nobody-known',
    });
    expect(fieldsOf(answer)).toEqual(['leader']);
  });
});

describe('what a form computes and its rules of every saving', () => {
  it('hold when the desk changes a field, and the history tells both', async () => {
    const plan = {
      site: 'kelp',
      day: '2026-12-10',
      depth: '14',
      bottom_time: '45 min',
      gas: 'ean36',
      divers: [
        { name: 'Ruadhan Pell', grade: 30, checked: '2027-05-01' },
        { name: 'Mireille Thorsby', grade: 20, checked: '2027-05-01' },
      ],
    };
    const { number } = (await priya.submit('dive-plan', plan)).body;
    const gunnar = await desk.as('Gunnar Peverell');
    const sheet = await gunnar.sheet(number);
    const change = (changes: object, version: number) =>
      gunnar.call('changeFields', { params: { number }, headers: onVersion(version), body: { changes } });
    const deep = await change({ depth: '40' }, sheet.version);
    expect([deep.status, deep.body.problems[0].message]).toEqual([422, 'Nitrox 36 is not breathed below 28 m.']);
    const divers = [...plan.divers, { name: 'Hanne Istvan', grade: 30, checked: '2027-05-01' }];
    expect((await change({ divers }, sheet.version)).status).toBe(200);
    const after = await gunnar.sheet(number);
    expect(after.values.fields.find((field: { key: string }) => field.key === 'leaders').shown).toBe('2');
    expect(after.history.at(-1).changes.map((each: { label: string }) => each.label)).toEqual([
      'Divers',
      'Dive leaders',
    ]);
    expect((await change({ leaders: 9 }, after.version)).body.problems[0].message).toBe(
      '“Dive leaders” can be read, but not changed.',
    );
  });

  it('a computed field is hidden from whoever may not read what it is computed from', async () => {
    const { number } = (
      await priya.submit('concern-report', { about: 'safety', what_happened: 'zq-secret', reply: false })
    ).body;
    expect((await maren.sheet(number)).values.fields.map((field: { key: string }) => field.key)).not.toContain(
      'what_happened',
    );
  });
});

describe('a rule over the requests there are', () => {
  it('is counted and listed first, then done, with a line in the history; what it refuses is left', async () => {
    const form = (await maren.call('form', { params: { key: 'field-kit-loan' } })).body;
    const loan = (what: string, back: string) =>
      priya.submit('field-kit-loan', { things: [{ what, count: 1 }], out_on: '2026-12-01', due_back: back });
    const numbers = [
      (await loan('Hand corer', '2026-12-20')).body.number,
      (await loan('Quadrat', '2026-12-03')).body.number,
    ];
    const jory = await desk.as('Jory Blackadder-Finn');
    const rule = {
      id: 'rule-rinse',
      name: 'Long loans come back unrinsed',
      says: '',
      when: 'days_out > 10',
      then: [{ do: 'set', field: 'rinsed', value: 'false' }],
      otherwise: [{ do: 'refuse', field: 'rinsed', text: 'Short loans are rinsed by Stores.', fix: '' }],
      on: true,
      runs: 'saving',
    };
    await maren.call('saveDraft', {
      params: { key: 'field-kit-loan' },
      headers: onVersion(form.version),
      body: { draft: { ...form.draft, rules: [rule] } },
    });
    const over = async (shown: string | null) =>
      (await maren.call('overExisting', { params: { key: 'field-kit-loan', rule: 'rule-rinse' }, body: { shown } }))
        .body;
    const dry = await over(null);
    expect([dry.looked, dry.changed, dry.refused, dry.applied]).toEqual([2, 1, 1, false]);
    expect(dry.requests.find((each: { number: string }) => each.number === numbers[0]).changes).toEqual([
      { label: 'Rinsed', before: '', after: 'No' },
    ]);
    expect(
      (await jory.sheet(numbers[0])).values.fields.find((field: { key: string }) => field.key === 'rinsed').shown,
    ).toBe('');
    expect((await over('another dry run')).type).toContain('changed-meanwhile');
    const done = await over(dry.shown);
    expect([done.changed, done.applied]).toEqual([1, true]);
    const after = await jory.sheet(numbers[0]);
    expect(after.values.fields.find((field: { key: string }) => field.key === 'rinsed').shown).toBe('No');
    expect(after.history.at(-1).what).toBe('The rule “Long loans come back unrinsed” was applied to existing requests');
    const back = () =>
      maren
        .call('takeRunBack', { params: { key: 'field-kit-loan', run: done.last.run } })
        .then((answer) => answer.body);
    expect(await back()).toEqual({ back: 1, left: 0, job: null });
    expect((await back()).type).toContain('taken-back');
    expect(
      (await jory.sheet(numbers[0])).values.fields.find((field: { key: string }) => field.key === 'rinsed').shown,
    ).toBe('');
    expect((await over(null)).last).toBeNull();
  });
});

describe('values that follow the clock', () => {
  it('are computed anew on the next day, on unfinished requests', async () => {
    const simple = RECIPES.find((recipe) => recipe.key === 'simple')?.make({
      told: english,
      title: 'Days to go',
      team: 'boats',
      approvers: 'duty-managers',
      calendar: 'desk',
    });
    if (!simple) throw new Error('no recipe');
    const left = {
      key: 'left',
      label: 'Days left',
      type: { kind: 'number', places: 0 },
      source: 'computed',
      formula: '(needed_by - today).days',
    };
    await maren.call('createForm', {
      headers: key(),
      body: {
        prefix: 'DG',
        desk: 'boats',
        doors: { staff: true, outside: false },
        draft: { ...simple, fields: [...simple.fields, left] },
      },
    });
    await maren.call('releaseForm', { params: { key: 'days-to-go' }, headers: onVersion(1), body: { note: '' } });
    const { number } = (await priya.submit('days-to-go', { what: 'Rope', needed_by: '2026-12-03' })).body;
    const days = async () =>
      (await maren.sheet(number)).values.fields.find((field: { key: string }) => field.key === 'left').shown;
    expect(await days()).toBe('10');
    await maren.call('advanceClock', { body: { minutes: 2 * 24 * 60 } });
    await desk.running.dayTurned();
    expect(await days()).toBe('8');
  });
});

describe('trial requests', () => {
  it('go the whole way, count nowhere, tell nobody, hold nothing against others, and are cleared in one go', async () => {
    const [total, letters] = [await stored(), (await desk.letters()).length];
    const trip = { ...TRIP, leaves: '2026-12-15T09:00', returns: '2026-12-15T10:00' };
    const sent = await maren.call('sendTrial', {
      params: { key: 'vessel-time' },
      headers: key(),
      body: { answers: trip, person: null, outside: false },
    });
    expect(sent.body.number).toBe('TRIAL-VT-1');
    expect((await maren.sheet('TRIAL-VT-1')).trial).toBe(true);
    expect(
      (await maren.sheet('TRIAL-VT-1')).values.fields.find((field: { key: string }) => field.key === 'cost').shown,
    ).toBe('€45.00');
    expect(await stored()).toBe(total);
    expect((await desk.letters()).length).toBe(letters);
    expect((await maren.call('ledger', { query: { tray: 'all', find: 'TRIAL' } })).body.rows).toEqual([]);
    expect((await priya.submit('vessel-time', trip)).body.state).toBe('arrived');
    // Nothing is held against a trial either: what another has is tried all the same.
    expect((await priya.submit('vessel-time', trip)).status).toBe(422);
    const again = await maren.call('sendTrial', {
      params: { key: 'vessel-time' },
      headers: key(),
      body: { answers: trip, person: null, outside: false },
    });
    expect(again.body.number).toBe('TRIAL-VT-2');
    expect((await maren.call('clearTrials', { params: { key: 'vessel-time' } })).body.cleared).toBe(2);
    expect((await maren.call('sheet', { params: { number: 'TRIAL-VT-1' } })).status).toBe(404);
    expect(
      (await maren.call('form', { params: { key: 'vessel-time' } })).body.releases.map(
        (release: { number: number }) => release.number,
      ),
    ).toEqual([1]);
  });

  it('are refused like any other when their answers are wrong', async () => {
    const refused = await maren.call('sendTrial', {
      params: { key: 'vessel-time' },
      headers: key(),
      body: { answers: { vessel: 'raft' }, person: null, outside: false },
    });
    expect([refused.status, fieldsOf(refused).includes('vessel')]).toEqual([422, true]);
  });
});

describe('the draft', () => {
  it('remembers its states, and a release can be compared and brought back', async () => {
    const form = (await maren.call('form', { params: { key: 'purchase' } })).body;
    const changed = { ...form.draft, title: 'Buy something' };
    await maren.call('saveDraft', {
      params: { key: 'purchase' },
      headers: onVersion(form.version),
      body: { draft: changed },
    });
    const { states } = (await maren.call('draftHistory', { params: { key: 'purchase' } })).body;
    expect(states[0].changes.map((change: { words: string }) => change.words)).toEqual([
      'Title: “Purchase” becomes “Buy something”.',
    ]);
    const against = (await maren.call('compareRelease', { params: { key: 'purchase', number: '1' } })).body;
    expect(against.changes).toEqual([
      {
        page: 'questions',
        at: 'title',
        words: 'Title: “Purchase” becomes “Buy something”.',
        before: 'Purchase',
        after: 'Buy something',
        reaches: 'form',
      },
    ]);
    const stale = await maren.call('saveDraft', {
      params: { key: 'purchase' },
      headers: onVersion(form.version),
      body: { draft: form.draft },
    });
    expect(stale.status).toBe(412);
    await maren.call('saveDraft', {
      params: { key: 'purchase' },
      headers: onVersion(form.version + 1),
      body: { draft: against.design },
    });
    expect((await maren.call('form', { params: { key: 'purchase' } })).body.changes).toEqual([]);
  });
});
