import { type FormDesign, type FormRule, RECIPES } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { submit, viewerOf } from '@tolvek/server';
import { people, requests } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, VISIT } from './desk.ts';

// Ways by which a value left that nobody may read: each was open once. A coordinator who may not read
// medical notes, strangers, and handlers try them.
const NOTE = 'zq-note-51c0';
let desk: Desk;
let maren: Caller;
let priya: Caller;
let ilse: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  priya = await desk.as('Priya Nakamura-Lind');
  ilse = await desk.as('Ilse Brandvold');
  stranger = await desk.as();
  const sent = await priya.submit('come-on-site', { ...VISIT, visitor: 'Berit Solano', medical_note: NOTE });
  expect(sent.status).toBe(200);
});
afterAll(() => desk.close());

const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
const ground = { title: '', team: 'estates', approvers: 'duty-managers', calendar: 'desk' };
const rule = (then: FormRule['then'], when = 'true', runs: FormRule['runs'] = 'saving'): FormRule => ({
  id: 'way',
  name: 'A way',
  says: '',
  when,
  then,
  otherwise: [],
  on: true,
  runs,
});

/** Saves a changed draft of a form, and gives the findings that are errors. */
async function withDraft(form: string, change: (draft: FormDesign) => FormDesign): Promise<Answer['body'][]> {
  const { draft, version } = (await maren.call('form', { params: { key: form } })).body;
  const saved = await maren.call('saveDraft', {
    params: { key: form },
    headers: { 'If-Match': `"${version}"` },
    body: { draft: change(draft) },
  });
  expect(saved.status).toBe(200);
  return saved.body.findings.filter((finding: { severity: string }) => finding.severity === 'error');
}
const release = async (form: string): Promise<Answer> => {
  const { version } = (await maren.call('form', { params: { key: form } })).body;
  return maren.call('releaseForm', {
    params: { key: form },
    headers: { 'If-Match': `"${version}"` },
    body: { note: '' },
  });
};
const make = async (prefix: string, title: string, change: (draft: FormDesign) => FormDesign, more = {}) => {
  const simple = RECIPES.find((recipe) => recipe.key === 'simple')?.make({
    ...ground,
    told: english,
    title,
  }) as FormDesign;
  const made = await maren.call('createForm', {
    headers: key(),
    body: { prefix, desk: 'estates', doors: { staff: true, outside: true }, draft: change(simple), ...more },
  });
  expect(made.status).toBe(200);
  return made.body.key as string;
};
const closedTo = (field: string, group: string) => ({
  id: 'closed',
  name: 'It stays with them',
  fields: [field],
  audience: { in: { everyone: true as const }, outOf: [group], requester: 'out' as const },
  level: 'hidden' as const,
});
const over = (form: string, among = 'all') =>
  maren.call('overExisting', { params: { key: form, rule: 'way' }, body: { among, shown: null } });
const asked = (field: Field): Pick<FormDesign, 'fields' | 'parts'> => ({
  fields: [field],
  parts: [{ part: 'question', field: field.key, asks: '', help: '', required: false }],
});
const adding = (draft: FormDesign, { fields, parts }: Pick<FormDesign, 'fields' | 'parts'>): FormDesign => ({
  ...draft,
  fields: [...draft.fields, ...fields],
  parts: [...draft.parts, ...parts],
});

describe('a rule of a draft', () => {
  let before: FormDesign;
  beforeAll(async () => {
    before = (await maren.call('form', { params: { key: 'site-access' } })).body.draft;
  });
  afterAll(() => withDraft('site-access', () => before));

  it('that copies medical notes into an open field is an error, and is tried on nothing', async () => {
    const errors = await withDraft('site-access', (draft) => ({
      ...draft,
      rules: [...before.rules, rule([{ do: 'set', field: 'escort', value: 'medical_note' }])],
    }));
    expect(errors.map((finding) => finding.at)).toEqual(['way']);
    const dry = await over('site-access');
    expect([dry.status, dry.text.includes(NOTE)]).toEqual([422, false]);
    expect((await release('site-access')).status).toBe(422);
  });

  it('that refuses by medical notes counts nothing', async () => {
    const errors = await withDraft('site-access', (draft) => ({
      ...draft,
      rules: [
        ...before.rules,
        rule([{ do: 'refuse', field: 'form', text: 'No.', fix: '' }], 'contains(medical_note, "zq")'),
      ],
    }));
    expect(errors.map((finding) => finding.at)).toEqual(['way']);
    const dry = await over('site-access');
    expect([dry.status, dry.body.refused]).toEqual([422, undefined]);
  });

  it('is no oracle of a register that stays in the house either', async () => {
    const { draft } = (await maren.call('form', { params: { key: 'concern-report' } })).body;
    const errors = await withDraft('concern-report', (now) => ({
      ...now,
      rules: [
        ...now.rules,
        rule([{ do: 'refuse', field: 'form', text: 'No.', fix: '' }], 'contains(what_happened, "a")'),
      ],
    }));
    expect(errors.map((finding) => finding.at)).toContain('way');
    expect((await over('concern-report')).status).toBe(422);
    await withDraft('concern-report', () => draft);
  });

  it('is tried on nothing whose fields its coordinator may not read, even where whoever reads the outcome may', async () => {
    const form = await make('RO', 'Read by others', (draft) => draft);
    expect((await release(form)).status).toBe(200);
    desk.protect(form, {
      rules: ['what', 'why'].map((field) => ({ ...closedTo(field, 'site-safety'), id: `closed-${field}` })),
    });
    await priya.submit(form, { what: NOTE, needed_by: '2026-12-01' });
    const errors = await withDraft(form, (draft) => ({
      ...draft,
      rules: [rule([{ do: 'set', field: 'why', value: 'what' }])],
    }));
    expect(errors).toEqual([]);
    const dry = await over(form);
    expect([dry.status, dry.text.includes(NOTE)]).toEqual([422, false]);
    expect(dry.text).toContain('nothing called “what”');
  });
});

describe('a condition that is tried', () => {
  it('counts nothing by a field its coordinator may not read, though the last two hundred requests are their own', async () => {
    const { house } = desk.running;
    const own = house.db.select().from(people).where(eq(people.name, 'Maren Okafor')).get();
    const viewer = viewerOf(house.db, own?.id ?? '');
    for (let n = 0; n < 201; n += 1)
      submit(house, viewer ?? null, {
        slug: 'come-on-site',
        release: 1,
        answers: { ...VISIT, visitor: `Visitor ${n}` },
        key: `own-${n}`,
      });
    const tried = await maren.call('tryCondition', {
      params: { key: 'site-access' },
      body: { condition: 'medical_note != null', number: null },
    });
    expect(tried.body.refused).toContain('nothing called “medical_note”');
    expect([tried.body.ever, tried.body.holds]).toEqual([null, 0]);
  });
});

describe('requests of several releases', () => {
  it('are counted, and read, each by what its own release made its fields from', async () => {
    const copying = [rule([{ do: 'set', field: 'copy', value: 'why' }])];
    const form = await make('RL', 'Several', (draft) => ({
      ...adding(draft, {
        fields: [{ key: 'copy', label: 'Copy', type: { kind: 'text' }, source: 'desk-only' }],
        parts: [],
      }),
      rules: copying,
    }));
    expect((await release(form)).status).toBe(200);
    const early = (await priya.submit(form, { what: 'Early', why: NOTE })).body.number;
    await withDraft(form, (draft) => ({ ...draft, rules: [] }));
    expect((await release(form)).status).toBe(200);
    const late = (await priya.submit(form, { what: 'Late', why: NOTE }, { release: 2 })).body.number;
    const change = await ilse.call('changeFields', {
      params: { number: late },
      headers: { 'If-Match': '"1"' },
      body: { changes: { copy: 'by hand' } },
    });
    expect(change.status).toBe(200);
    const tried = async () =>
      (
        await maren.call('tryCondition', {
          params: { key: form },
          body: { condition: 'copy != null', number: null },
        })
      ).body;
    expect((await tried()).ever).toEqual({ holds: 2, of: 2 });
    desk.protect(form, { rules: [closedTo('why', 'site-safety')] });
    const { ever, holds, tried: shown } = await tried();
    expect([ever, holds, shown.map((each: { number: string }) => each.number)]).toEqual([
      { holds: 1, of: 1 },
      1,
      [late],
    ]);
    expect((await ilse.call('sheet', { params: { number: early } })).text).not.toContain(NOTE);
    expect((await ilse.call('sheet', { params: { number: late } })).text).toContain('by hand');
    // A version that rose would tell that something hidden changed.
    expect((await ilse.sheet(early)).version).toBe(1);
  });
});

describe('a reference', () => {
  const boats = (type: object): Field => ({
    key: 'visit',
    label: 'Visit',
    type: { kind: 'reference', register: 'site-access', shows: ['institute'], among: 'all', ...type },
    source: 'asked',
  });

  it('that is limited by medical notes is an error, and offers nothing by them', async () => {
    const form = await make('RF', 'By reference', (draft) =>
      adding(draft, asked(boats({ offered: 'starts with(it.medical_note, what)' }))),
    );
    const errors = (await maren.call('form', { params: { key: form } })).body.findings.filter(
      (finding: { severity: string }) => finding.severity === 'error',
    );
    expect(errors.map((finding: { at: string }) => finding.at)).toContain('visit');
    expect((await release(form)).status).toBe(422);
    for (const what of ['z', 'zq-note']) {
      const offers = await maren.call('draftOffers', {
        params: { key: form },
        body: { field: 'visit', find: '', answers: { what }, person: null, outside: true },
      });
      expect(offers.body.offers ?? []).toEqual([]);
    }
  });

  it('offers a stranger nothing by a field that was closed after the release', async () => {
    const form = await make('LC', 'Later closed', (draft) =>
      adding(draft, asked(boats({ offered: 'starts with(it.reason, what)' }))),
    );
    expect((await release(form)).status).toBe(200);
    const slug = `${form}-from-outside`;
    const offers = () =>
      stranger.call('offers', { params: { slug }, body: { field: 'visit', find: '', answers: { what: 'Cal' } } });
    expect((await offers()).body.offers.length).toBeGreaterThan(0);
    const { access } = desk.register('site-access');
    desk.protect('site-access', {
      ...access,
      rules: access.rules.map((each) => ({ ...each, fields: ['medical_note', 'reason'] })),
    });
    expect((await offers()).body.offers).toEqual([]);
    desk.protect('site-access', access);
  });

  it('to one’s own names nothing of others, though somebody knows its id', async () => {
    const { db } = desk.running.house;
    const form = await make('MI', 'Of mine', (draft) =>
      adding(draft, asked(boats({ shows: ['visitor'], among: 'mine' }))),
    );
    expect((await release(form)).status).toBe(200);
    const [other] = db.select().from(requests).where(eq(requests.number, 'AC-00001')).all();
    const visitor = String(other?.values.visitor);
    const hanne = await desk.as('Hanne Istvan');
    const answers = { what: 'x', why: 'y', visit: other?.id };
    for (const answer of [
      await hanne.submit(form, answers),
      await hanne.call('checkAnswers', { params: { slug: form }, body: { answers } }),
      await hanne.call('keepAnswers', { params: { slug: form }, body: { answers } }),
      await hanne.call('door', { params: { slug: form } }),
    ])
      expect([answer.text.includes(visitor), answer.text.includes('AC-00001')]).toEqual([false, false]);
  });
});

describe('what was brought along from another register', () => {
  it('is read by nobody once it is closed there, and the form that brings it says so', async () => {
    const { db } = desk.running.house;
    const source = await make('SR', 'Source', (draft) => draft);
    expect((await release(source)).status).toBe(200);
    const carried: Field = {
      key: 'brought',
      label: 'Brought',
      type: { kind: 'long-text' },
      source: 'carried',
      reference: 'target',
      field: 'why',
      live: false,
    };
    const target: Field = {
      key: 'target',
      label: 'Target',
      type: { kind: 'reference', register: source, shows: ['what'], among: 'all', offered: 'it.why != what' },
      source: 'asked',
    };
    const form = await make('BR', 'Bringing', (draft) => ({
      ...adding(draft, { ...asked(target), fields: [target, carried] }),
      rules: [rule([{ do: 'set', field: 'why', value: 'brought' }])],
    }));
    expect((await release(form)).status).toBe(200);
    const one = (await priya.submit(source, { what: 'Rope', why: NOTE })).body.number;
    const [row] = db.select().from(requests).where(eq(requests.number, one)).all();
    const { number } = (await priya.submit(form, { what: 'x', target: row?.id })).body;
    expect((await ilse.call('sheet', { params: { number } })).text).toContain(NOTE);
    const before = (await stranger.call('health')).body.openWays;
    desk.protect(source, { rules: [closedTo('why', 'site-safety')] });
    for (const who of [ilse, maren, await desk.as('Oskar Veldhuis')])
      expect((await who.call('sheet', { params: { number } })).text).not.toContain(NOTE);
    expect((await priya.call('myRequest', { params: { number } })).text).not.toContain(NOTE);
    const told = (await maren.call('form', { params: { key: form } })).body.waysInForce;
    expect(told.map((each: { message: string }) => each.message)).toEqual([
      '“Target” would show “Why”, and the access plan of “Source” hides that from some people. Remove it.',
    ]);
    expect((await stranger.call('health')).body.openWays).toBe(before + 1);
  });
});

describe('what an open field is made from', () => {
  it('is an error where a default or a rule takes it from a restricted one', async () => {
    const before = (await maren.call('form', { params: { key: 'site-access' } })).body.draft as FormDesign;
    const errors = await withDraft('site-access', (draft) => ({
      ...draft,
      fields: draft.fields.map(
        (field): Field =>
          field.key === 'escort'
            ? {
                key: 'escort',
                label: 'Escort',
                type: { kind: 'text' },
                source: 'desk-only',
                preset: { from: 'field', field: 'medical_note' },
              }
            : field,
      ),
      rules: [...before.rules, rule([{ do: 'set', field: 'reason', value: 'medical_note' }], 'true', 'filling')],
    }));
    expect(errors.map((finding) => finding.at).sort()).toEqual(['escort', 'way']);
    await withDraft('site-access', () => before);
  });

  it('is withheld from whoever may not read it, when it was closed after the release: on sheets, in letters and in files', async () => {
    const { db } = desk.running.house;
    const form = await make('CP', 'Copies', (draft) => ({
      ...adding(draft, {
        fields: [{ key: 'copy', label: 'Copy', type: { kind: 'text' }, source: 'desk-only' }],
        parts: [],
      }),
      subject: '{copy}',
      rules: [rule([{ do: 'set', field: 'copy', value: 'why' }])],
    }));
    expect((await release(form)).status).toBe(200);
    const access = { rules: [closedTo('why', 'site-safety')] };
    desk.protect(form, access);
    const sent = await priya.submit(form, { what: 'Rope', why: NOTE });
    expect(sent.status).toBe(200);
    // The write still happens.
    const [row] = db.select().from(requests).where(eq(requests.number, sent.body.number)).all();
    expect(row?.values.copy).toBe(NOTE);
    const sheet = await ilse.call('sheet', { params: { number: sent.body.number } });
    expect([sheet.status, sheet.text.includes(NOTE)]).toEqual([200, false]);
    expect((await ilse.call('ledger', { query: { tray: 'all' } })).text).not.toContain(NOTE);
    for (const letter of await desk.letters())
      if (letter.subject.includes(sent.body.number)) expect(`${letter.subject} ${letter.text}`).not.toContain(NOTE);
    const csv = await fetch(`${desk.running.url}/api/forms/${form}/requests.csv`, {
      headers: { cookie: maren.cookie },
    });
    expect([csv.status, (await csv.text()).includes(NOTE)]).toEqual([200, false]);
  });
});

describe('a rule of a draft that was applied to the requests that were there', () => {
  it('makes their fields as well: what it copied is withheld when its source is closed later', async () => {
    const form = await make('RN', 'Ran once', (draft) => ({
      ...adding(draft, {
        fields: [{ key: 'copy', label: 'Copy', type: { kind: 'text' }, source: 'desk-only' }],
        parts: [],
      }),
    }));
    expect((await release(form)).status).toBe(200);
    const { number } = (await priya.submit(form, { what: 'Rope', why: NOTE })).body;
    await withDraft(form, (draft) => ({ ...draft, rules: [rule([{ do: 'set', field: 'copy', value: 'why' }])] }));
    const { shown } = (await over(form)).body;
    const done = await maren.call('overExisting', {
      params: { key: form, rule: 'way' },
      body: { among: 'all', shown },
    });
    expect([done.status, done.body.changed, done.body.applied]).toEqual([200, 1, true]);
    expect((await ilse.call('sheet', { params: { number } })).text).toContain(
      `"copy","label":"Copy","value":"${NOTE}"`,
    );
    const access = { rules: [closedTo('why', 'site-safety')] };
    desk.protect(form, access);
    expect((await ilse.call('sheet', { params: { number } })).text).not.toContain(NOTE);
    // Taken back, it tells no more than before.
    const run = (
      await maren.call('overExisting', { params: { key: form, rule: 'way' }, body: { among: 'all', shown: null } })
    ).status;
    expect(run).toBe(422);
  });
});

describe('the access plan', () => {
  const ways = (form: string) => maren.call('form', { params: { key: form } }).then(({ body }) => body);

  it('is not changed where a form in force would tell more by it; what is told since is said on the form and in health', async () => {
    const outcome = { team: 'estates', priority: 'normal', workingDays: 3, path: null } as const;
    const form = await make('PL', 'Planned', (draft) => ({
      ...adding(draft, {
        fields: [{ key: 'copy', label: 'Copy', type: { kind: 'text' }, source: 'desk-only' }],
        parts: [],
      }),
      routing: {
        columns: [{ id: 'what', label: 'What', input: 'what' }],
        rows: [{ id: 'r1', note: '', cells: { what: '"rope"' }, outcome }],
        otherwise: outcome,
      },
    }));
    expect((await release(form)).status).toBe(200);
    desk.protect(form, { rules: [closedTo('why', 'site-safety')] });
    const alike = (field: string) =>
      maren.call('protectAlike', { params: { key: form }, body: { source: 'why', field } });
    const refused = await alike('what');
    expect([refused.status, refused.body.problems[0].field]).toEqual([422, 'r1']);
    expect((await alike('copy')).status).toBe(200);
    expect((await ways(form)).planHistory[0].words).toBe('“Copy” is protected like “Why”');
    const before = (await stranger.call('health')).body.openWays;
    desk.protect(form, { rules: [closedTo('what', 'site-safety')] });
    expect((await ways(form)).waysInForce.map((way: { at: string }) => way.at)).toEqual(['r1']);
    expect((await stranger.call('health')).body.openWays).toBe(before + 1);
  });

  it('lets a way be allowed by a coordinator who may read what it tells, with a reason, and ended', async () => {
    const form = await make(
      'AW',
      'Allowed',
      (draft) => ({ ...draft, rules: [rule([{ do: 'set', field: 'what', value: 'why' }])] }),
      {
        access: { rules: [closedTo('why', 'site-safety')] },
      },
    );
    const found = async () => (await ways(form)).findings.find((each: { way?: unknown }) => each.way);
    const allow = async (reason: string, more = {}) =>
      maren.call('allowWay', {
        params: { key: form },
        headers: key(),
        body: { ...(await found()).allow, reason, ...more },
      });
    expect((await found()).way).toEqual([
      'The rule “A way” copies “Why” to “What”.',
      '“What” is read by staff of the desk not in Site safety.',
    ]);
    expect((await allow('Everybody may.')).status).toBe(403);
    desk.protect(form, { rules: [closedTo('why', 'desk-leads')] });
    expect((await allow(' ')).body.problems[0].field).toBe('reason');
    expect((await allow('Everybody may.', { text: 'false; why' })).status).toBe(409);
    const { id } = (await allow('Everybody may.')).body;
    expect(await found()).toBe(undefined);
    const { allowed } = await ways(form);
    expect(allowed[0]).toMatchObject({
      id,
      source: 'Why',
      what: 'value',
      reason: 'Everybody may.',
      by: 'Maren Okafor',
      stands: true,
    });
    expect((await release(form)).status).toBe(200);
    const { number } = (await priya.submit(form, { why: NOTE })).body;
    expect((await ilse.call('sheet', { params: { number } })).text).toContain(NOTE);
    expect((await maren.call('endWay', { params: { key: form, id } })).status).toBe(200);
    expect((await ilse.call('sheet', { params: { number } })).text).not.toContain(NOTE);
    expect((await ways(form)).planHistory.map((each: { words: string }) => each.words.split(':')[0])).toEqual([
      'No longer permitted',
      'Permitted on purpose',
      'The plan came with the form',
    ]);
  });
});

describe('a unique rule', () => {
  it('on a restricted field is an error', async () => {
    const before = (await maren.call('form', { params: { key: 'site-access' } })).body.draft as FormDesign;
    const errors = await withDraft('site-access', (draft) => ({
      ...draft,
      unique: [{ id: 'unique-9', fields: ['medical_note'], among: 'all' }],
    }));
    expect(errors.map((finding) => finding.at)).toEqual(['unique-9']);
    await withDraft('site-access', () => before);
  });

  it('tells a stranger nothing of a field that was closed after the release', async () => {
    const form = await make('UQ', 'Only once', (draft) => ({
      ...draft,
      unique: [{ id: 'unique-1', fields: ['what'], among: 'all' }],
    }));
    expect((await release(form)).status).toBe(200);
    await priya.submit(form, { what: NOTE });
    const check = (what: string) =>
      stranger.call('checkAnswers', { params: { slug: `${form}-from-outside` }, body: { answers: { what } } });
    expect((await check(NOTE)).body.problems).toHaveLength(1);
    const access = { rules: [closedTo('what', 'site-safety')] };
    desk.protect(form, access);
    expect((await check(NOTE)).body.problems).toEqual([]);
    expect((await priya.submit(form, { what: NOTE })).status).toBe(200);
  });
});

describe('a routing column', () => {
  it('on a restricted field is an error', async () => {
    const before = (await maren.call('form', { params: { key: 'site-access' } })).body.draft as FormDesign;
    const errors = await withDraft('site-access', (draft) => ({
      ...draft,
      routing: {
        ...draft.routing,
        columns: [...draft.routing.columns, { id: 'note', label: 'Note', input: 'medical_note' }],
        rows: [
          {
            id: 'noted',
            note: '',
            cells: { note: 'contains(?, "zq")' },
            outcome: { team: 'boats', priority: 'high', workingDays: 1, path: null },
          },
          ...draft.routing.rows,
        ],
      },
    }));
    expect(errors.map((finding) => [finding.page, finding.at])).toContainEqual(['routing', 'noted']);
    await withDraft('site-access', () => before);
  });

  it('tells no verdict on a field that was closed after the release', async () => {
    const outcome = { team: 'estates', priority: 'normal', workingDays: 3, path: null } as const;
    const form = await make('RT', 'Routed', (draft) => ({
      ...draft,
      routing: {
        columns: [{ id: 'why', label: 'Why', input: 'why' }],
        rows: [{ id: 'r1', note: 'Ropes', cells: { why: '"rope"' }, outcome }],
        otherwise: outcome,
      },
    }));
    expect((await release(form)).status).toBe(200);
    const access = { rules: [closedTo('why', 'site-safety')] };
    desk.protect(form, access);
    const told = async (why: string) => {
      const { number } = (await priya.submit(form, { what: 'x', why })).body;
      const sheet = await ilse.sheet(number);
      return JSON.stringify([
        sheet.routing,
        sheet.hops.map((hop: { label: string }) => hop.label),
        sheet.deadlines[0].why,
      ]);
    };
    const [rope, other] = [await told('rope'), await told('string')];
    expect(rope).toBe(other);
  });
});

describe('a copied form', () => {
  it('brings its plan along', async () => {
    const { draft, plan } = (await maren.call('form', { params: { key: 'site-access' } })).body;
    const made = await maren.call('createForm', {
      headers: key(),
      body: {
        prefix: 'CO',
        desk: 'estates',
        doors: { staff: true, outside: false },
        draft: { ...draft, title: 'A copy' },
        access: plan,
      },
    });
    expect(made.status).toBe(200);
    const copy = (await maren.call('form', { params: { key: made.body.key } })).body;
    expect(copy.access.map((each: { name: string }) => each.name)).toEqual([
      'Medical notes stay with site safety',
      'Site safety reads medical notes',
    ]);
    expect((await release(made.body.key)).status).toBe(200);
    const sent = await priya.submit(made.body.key, { ...VISIT, medical_note: NOTE });
    expect((await maren.call('sheet', { params: { number: sent.body.number } })).text).not.toContain(NOTE);
  });
});

describe('a confidential report', () => {
  it('is read by the people named, and by no coordinator besides', async () => {
    const recipe = RECIPES.find((each) => each.key === 'confidential');
    const title = 'In confidence';
    const on = { ...ground, title, team: 'site-safety' };
    const made = await maren.call('createForm', {
      headers: key(),
      body: {
        prefix: 'IC',
        desk: 'site-safety',
        doors: { staff: true, outside: false },
        draft: recipe?.make({ ...on, told: english }),
        access: recipe?.protects?.({ ...on, told: english }),
      },
    });
    expect(made.status).toBe(200);
    expect((await release(made.body.key)).status).toBe(200);
    const sent = await priya.submit(made.body.key, { about: 'conduct', what_happened: NOTE, reply: false });
    expect(sent.status).toBe(200);
    const oskar = await desk.as('Oskar Veldhuis');
    const numbered = { params: { number: sent.body.number } };
    expect((await oskar.call('sheet', numbered)).text).toContain(NOTE);
    const told = await maren.call('sheet', numbered);
    expect([told.status, told.text.includes(NOTE), told.body.subject]).toEqual([200, false, title]);
    for (const letter of await desk.letters())
      if (letter.subject.includes(sent.body.number)) expect(`${letter.subject} ${letter.text}`).not.toContain(NOTE);
  });
});

describe('a closed door', () => {
  it('answers no checks, keeps nothing and takes no files', async () => {
    const setDoor = (open: boolean) =>
      maren.call('setDoor', { params: { slug: 'visit' }, body: { open, closedMessage: 'Back in spring.' } });
    expect((await setDoor(false)).status).toBe(200);
    const answers = { visitor: 'x' };
    const params = { slug: 'visit' };
    expect((await stranger.call('checkAnswers', { params, body: { answers } })).status).toBe(409);
    expect((await stranger.call('offers', { params, body: { field: 'visitor', find: '', answers } })).status).toBe(409);
    expect((await setDoor(true)).status).toBe(200);
  });
});
