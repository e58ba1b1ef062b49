import { finishRule } from '@tolvek/core/deadline';
import type { FormDesign } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk } from './desk.ts';

let desk: Desk;
let maren: Caller;
let ilse: Caller;
let priya: Caller;
let nobody: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  ilse = await desk.as('Ilse Brandvold');
  priya = await desk.as('Priya Nakamura-Lind');
  nobody = await desk.as('');
});
afterAll(() => desk.close());

const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const OUTSIDE = { name: 'Elke Marlowe', email: 'elke.marlowe@corrin.example' };

const well = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : JSON.stringify(answer.body)]).toEqual([
    answer.route,
    200,
    '',
  ]);
  return answer.body;
};
const formOf = async (form: string): Promise<Answer['body']> =>
  well(await maren.call('form', { params: { key: form } }));
const registerOf = async (name: string): Promise<Answer['body']> =>
  well(await maren.call('register', { params: { key: name } }));

/** Changes a draft as it stands, and keeps it. */
async function edit(form: string, change: (draft: FormDesign) => FormDesign): Promise<Answer['body']> {
  const { draft, version } = await formOf(form);
  const body = { draft: change(draft) };
  return well(await maren.call('saveDraft', { params: { key: form }, headers: onVersion(version), body }));
}

async function release(form: string, more: { recompute?: boolean } = {}): Promise<Answer['body']> {
  const { version } = await formOf(form);
  const body = { note: 'For the test', ...more };
  return well(await maren.call('releaseForm', { params: { key: form }, headers: onVersion(version), body }));
}

const FIELDS: readonly Field[] = [
  { key: 'what', label: 'What', type: { kind: 'text' }, source: 'asked' },
  { key: 'how_many', label: 'How many', type: { kind: 'number', places: 0 }, source: 'asked' },
  { key: 'each', label: 'For each', type: { kind: 'number', places: 0 }, source: 'asked' },
  { key: 'sum', label: 'Sum', type: { kind: 'number', places: 0 }, source: 'computed', formula: 'how_many * each' },
  { key: 'stale', label: 'Stale', type: { kind: 'text' }, source: 'asked' },
];
const question = (field: string, asks = '') => ({ part: 'question', field, asks, help: '', required: false }) as const;

/** A form with a register of its own, released. */
async function made(title: string, prefix: string): Promise<string> {
  const { draft } = await formOf('site-access');
  const fresh: FormDesign = {
    ...draft,
    ...{ title, subject: '{what}', fields: FIELDS, unique: [], rules: [] },
    parts: [question('what', 'What is it?'), question('how_many'), question('each')],
    routing: { columns: [], rows: [], otherwise: { ...draft.routing.otherwise, path: null } },
  };
  const body = { prefix, desk: 'boats', doors: { staff: true, outside: false }, draft: fresh };
  const form = well(await maren.call('createForm', { headers: key(), body })).key;
  await release(form);
  return form;
}

const withField = (design: FormDesign, of: string, change: Partial<Field>): FormDesign => ({
  ...design,
  fields: design.fields.map((field) => (field.key === of ? ({ ...field, ...change } as Field) : field)),
});
const labelIn = (design: { fields: readonly Field[] }, of: string): string | undefined =>
  design.fields.find((field) => field.key === of)?.label;
const shown = (sheet: Answer['body'], of: string): string | undefined =>
  sheet.values.fields.find((field: { key: string }) => field.key === of)?.shown;

describe('two forms on one register', () => {
  it('are asked into it, changed, released and seen together', async () => {
    const long = await made('Ropes and more', 'RO');
    const short = well(
      await maren.call('askInto', {
        params: { key: long },
        headers: key(),
        body: { title: 'Ropes in short', asks: ['what'], doors: { staff: false, outside: true } },
      }),
    ).key;
    expect((await formOf(short)).draft.parts).toEqual([question('what', 'What is it?')]);
    // What the other form asks for is not missed here; what nobody asks for is, and what people outside read by its name.
    expect((await formOf(short)).findings.map((finding: { at: string }) => finding.at)).toEqual(['stale', 'sum']);
    await release(short);

    // What the long form’s draft changes of the register is put in force by its release, and by that alone.
    await edit(long, (draft) => withField({ ...draft, subject: 'Rope: {what}' }, 'what', { label: 'Which rope' }));
    await edit(short, (draft) => ({ ...draft, title: 'A rope, quickly' }));
    await release(short);
    expect(labelIn(await registerOf(long), 'what')).toBe('What');
    const { changes } = await formOf(long);
    expect(changes.map((change: { reaches: string }) => change.reaches)).toEqual(['register', 'register']);
    await release(long);
    const register = await registerOf(long);
    expect([labelIn(register, 'what'), register.subject]).toEqual(['Which rope', 'Rope: {what}']);
    const seen = await formOf(short);
    expect([labelIn(seen.draft, 'what'), seen.draft.title]).toEqual(['Which rope', 'A rope, quickly']);
    expect(seen.others).toEqual([{ key: long, title: 'Ropes and more' }]);
    expect(seen.changes.map((change: { words: string }) => change.words)).toEqual([
      'The name in lists changes.',
      'The field “What” is now called “Which rope”.',
    ]);

    // Its door asks in the new words already; its request stands in the same register, called alike.
    const door = well(await nobody.call('door', { params: { slug: short } }));
    expect(door.form.fields.map((field: Field) => field.label)).toEqual(['Which rope']);
    well(await nobody.submit(short, { what: 'Sisal' }, { contact: OUTSIDE, release: 2 }));
    const token = await desk.tokenFor(OUTSIDE.email, 'confirm');
    const { number } = well(await nobody.call('confirm', { params: { token } }));
    expect(number).toMatch(/^RO-/);
    expect((await maren.sheet(number)).subject).toBe('Rope: Sisal');

    expect(register.forms.map((form: { key: string; asks: string[] }) => [form.key, form.asks])).toEqual(
      [
        [long, ['what', 'how_many', 'each']],
        [short, ['what']],
      ].sort(([a], [b]) => ((a as string) < (b as string) ? -1 : 1)),
    );
    expect(register.states.map((state: { note: string }) => state.note)).toContain('Release 2 of “Ropes and more”');
  });

  it('follow what is usual, unless they have their own', async () => {
    const one = await made('Nets', 'NT');
    const other = well(
      await maren.call('duplicateForm', { params: { key: one }, headers: key(), body: { title: 'Nets again' } }),
    ).key;
    const remind = (draft: FormDesign, minutes: number): FormDesign => ({
      ...draft,
      deadline: { ...draft.deadline, deadlines: [finishRule(minutes, 0)] },
    });
    const reminds = async (form: string): Promise<number> =>
      -(await formOf(form)).draft.deadline.deadlines[0].rings[0].at;
    await edit(one, (draft) => remind(draft, 60));
    await release(one);
    expect(await reminds(other)).toBe(60);
    await edit(other, (draft) => remind({ ...draft, own: ['deadline'] }, 120));
    await release(other);
    expect([await reminds(one), await reminds(other)]).toEqual([60, 120]);
    await edit(one, (draft) => remind(draft, 90));
    await release(one);
    expect([await reminds(one), await reminds(other)]).toEqual([90, 120]);
    const { forms } = await registerOf(one);
    expect(forms.map((form: { own: string[] }) => form.own)).toEqual([[], ['deadline']]);
  });

  it('hold together what must not be asked twice', async () => {
    const one = await made('Keys', 'KY');
    const other = well(
      await maren.call('duplicateForm', { params: { key: one }, headers: key(), body: { title: 'Keys again' } }),
    ).key;
    await edit(one, (draft) => ({ ...draft, unique: [{ id: 'once', fields: ['what'], among: 'all' }] }));
    await release(one);
    await release(other);
    well(await priya.submit(one, { what: 'Shed' }, { release: 2 }));
    const twice = await ilse.submit(other, { what: 'shed' });
    expect([twice.status, twice.text]).toEqual([
      422,
      expect.stringContaining('Another request already has this “What”.'),
    ]);
  });

  it('list who shares already what no two may have from now on, to whoever may read it', async () => {
    const one = await made('Oars', 'OA');
    const numbers: string[] = [];
    for (const what of ['Long', 'long ', 'Short']) numbers.push(well(await priya.submit(one, { what })).number);
    const doubles = async () => well(await maren.call('doubles', { params: { key: one } })).rules;
    expect(await doubles()).toEqual([]);
    await edit(one, (draft) => ({ ...draft, unique: [{ id: 'once', fields: ['what'], among: 'all' }] }));
    await release(one);
    const [first, second, third] = numbers;
    expect(await doubles()).toEqual([
      {
        ...{ fields: ['What'], among: 'all', told: true, groups: 1 },
        doubles: [
          { n: 2, requests: [expect.objectContaining({ number: first }), expect.objectContaining({ number: second })] },
        ],
      },
    ]);
    // None is dropped, no third can join, and one that changes its answer is no double any more.
    expect((await priya.submit(one, { what: 'LONG' }, { release: 2 })).status).toBe(422);
    const rewrite = async (number: string, what: string) => {
      const headers = onVersion((await maren.sheet(number)).version);
      return maren.call('changeFields', { params: { number }, headers, body: { changes: { what } } });
    };
    expect((await rewrite(third ?? '', 'long')).status).toBe(422);
    well(await rewrite(second ?? '', 'Longer'));
    expect(await doubles()).toMatchObject([{ told: true, groups: 0, doubles: [] }]);
    const hidden = { in: { everyone: true }, outOf: [] } as const;
    desk.protect(one, { rules: [{ id: 'r', name: 'Closed', fields: ['what'], audience: hidden, level: 'hidden' }] });
    expect(await doubles()).toMatchObject([{ told: false, groups: 0, doubles: [] }]);
  });

  it('are stopped, taken up again and deleted, and their requests stay', async () => {
    const form = await made('Buoys', 'BU');
    const { number } = well(await priya.submit(form, { what: 'Red' }));
    const set = async (state: string) =>
      well(await maren.call('setFormState', { params: { key: form }, body: { state } }));
    const offered = async (): Promise<boolean> =>
      well(await priya.call('frontDesk')).forms.some((each: { slug: string }) => each.slug === form);
    expect(await offered()).toBe(true);
    await set('stopped');
    expect(await offered()).toBe(false);
    expect((await priya.submit(form, { what: 'Green' })).status).toBe(409);
    await set('in use');
    well(await priya.submit(form, { what: 'Green' }));
    await set('deleted');
    expect((await maren.call('form', { params: { key: form } })).status).toBe(404);
    expect((await priya.call('door', { params: { slug: form } })).status).toBe(404);
    expect((await maren.sheet(number)).subject).toBe('Red');
    expect(well(await priya.call('myRequest', { params: { number } })).subject).toBe('Red');
    // Another form may be called the same.
    expect(await made('Buoys', 'BV')).not.toBe(form);
  });
});

describe('a computation that changes', () => {
  const twice = (design: FormDesign): FormDesign =>
    withField(design, 'sum', { formula: 'how_many * each * 2' } as never);

  it('leaves what is there as it was, also when it is changed later', async () => {
    const form = await made('Chains', 'CH');
    const { number } = well(await priya.submit(form, { what: 'Long', how_many: '2', each: '3' }));
    await edit(form, twice);
    const dry = well(await maren.call('recomputation', { params: { key: form } }));
    expect([dry.fields, dry.looked, dry.changed, dry.some]).toEqual([['Sum'], 1, 1, false]);
    expect(dry.requests[0].changes).toEqual([{ label: 'Sum', before: '6', after: '12' }]);
    expect((await release(form)).job).toBeNull();
    const sheet = await maren.sheet(number);
    expect(shown(sheet, 'sum')).toBe('6');
    const body = { changes: { each: '5' } };
    well(await maren.call('changeFields', { params: { number }, headers: onVersion(sheet.version), body }));
    expect(shown(await maren.sheet(number), 'sum')).toBe('10');
    const { number: later } = well(
      await priya.submit(form, { what: 'Short', how_many: '2', each: '3' }, { release: 2 }),
    );
    expect(shown(await maren.sheet(later), 'sum')).toBe('12');
  });

  it('reaches what is there when that is wanted, with a line in each history', async () => {
    const form = await made('Winches', 'WI');
    const { number } = well(await priya.submit(form, { what: 'Long', how_many: '2', each: '3' }));
    await edit(form, twice);
    const { job } = await release(form, { recompute: true });
    await desk.running.jobsDone();
    expect(well(await maren.call('job', { params: { id: job } }))).toEqual({
      state: 'done',
      looked: 1,
      of: 1,
      changed: 1,
      rows: null,
    });
    const sheet = await maren.sheet(number);
    expect(shown(sheet, 'sum')).toBe('12');
    expect(sheet.history.at(-1)).toMatchObject({
      what: 'Computed again for release 2',
      changes: [{ label: 'Sum', before: '6', after: '12' }],
    });
    // From now on it is computed by that release.
    const body = { changes: { each: '5' } };
    well(await maren.call('changeFields', { params: { number }, headers: onVersion(sheet.version), body }));
    expect(shown(await maren.sheet(number), 'sum')).toBe('20');
  });

  it('is looked into only by whoever may read what it reads', async () => {
    const form = await made('Anchors', 'AN');
    desk.protect(form, {
      rules: [
        {
          ...{ id: 'r', name: 'Boats only', fields: ['each'], level: 'hidden' },
          audience: { in: { everyone: true }, outOf: ['boats'] },
        },
      ],
    });
    well(await priya.submit(form, { what: 'Long', how_many: '2', each: '3' }));
    await edit(form, twice);
    const dry = well(await maren.call('recomputation', { params: { key: form } }));
    expect([dry.fields, dry.looked, dry.changed, dry.some]).toEqual([['Sum'], 0, 0, true]);
  });
});

describe('the kind of a field that holds answers', () => {
  const become = (form: string, field: string, kind: string) =>
    edit(form, (draft) => withField(draft, field, { type: { kind } } as never));
  const refused = async (form: string): Promise<string> => {
    const { version } = await formOf(form);
    const answer = await maren.call('releaseForm', {
      params: { key: form },
      headers: onVersion(version),
      body: { note: '' },
    });
    expect(answer.status).toBe(422);
    return answer.body.problems.map((problem: { message: string }) => problem.message).join(' ');
  };

  it('becomes another kind of words where all that is held is one, and stays as it is', async () => {
    const form = await made('Whom to tell', 'WT');
    const { number } = well(await priya.submit(form, { what: 'ana@corrin.example' }));
    const { number: other } = well(await priya.submit(form, { what: 'nobody yet' }));
    await become(form, 'what', 'email');
    expect(await refused(form)).toBe(`“What” cannot become “email address”: ${other} has “nobody yet”.`);
    const { version } = await maren.sheet(other);
    const body = { changes: { what: 'ben@corrin.example' } };
    well(await maren.call('changeFields', { params: { number: other }, headers: onVersion(version), body }));
    expect(await refused(form)).toContain(`the history of ${other} has “nobody yet”`);
    await become(form, 'what', 'long-text');
    await release(form);
    expect((await registerOf(form)).fields[0].type.kind).toBe('long-text');
    expect(shown(await maren.sheet(number), 'what')).toBe('ana@corrin.example');
  });

  it('becomes nothing else, in columns neither, and nothing by whoever may not read what it holds', async () => {
    const form = await made('Crates', 'CT');
    await become(form, 'how_many', 'text');
    expect(await refused(form)).toContain(
      '“How many” has answers of the kind “number”, which cannot become another kind.',
    );
    await edit(form, (draft) => withField(draft, 'how_many', { type: { kind: 'number', places: 0 } }));
    desk.protect(form, {
      rules: [
        {
          ...{ id: 'r', name: 'Boats only', fields: ['what'], level: 'hidden' },
          audience: { in: { everyone: true }, outOf: ['boats'] },
        },
      ],
    });
    well(await priya.submit(form, { what: 'Blue' }));
    await become(form, 'what', 'link');
    expect(await refused(form)).toBe(
      '“What” changes its kind. Only a person who may read all its answers can do that.',
    );
  });
});

describe('a register', () => {
  const settled = ({ name, prefix, deskGroups, staysIn, left, stages }: Answer['body']) => ({
    ...{ name, prefix, deskGroups, staysIn, left, note: 'For the test' },
    stages,
  });

  it('is renamed with its stages and letters; old numbers stay, and one can go back', async () => {
    const form = await made('Lamps', 'LA');
    const { number } = well(await priya.submit(form, { what: 'Oil' }));
    const register = await registerOf(form);
    const stages = settled(register).stages.map((stage: { key: string }) =>
      stage.key === 'arrived' ? { ...stage, label: 'On the table' } : stage,
    );
    const change = (body: object, version = register.version) =>
      maren.call('changeRegister', { params: { key: form }, headers: onVersion(version), body });
    const taken = await change({ ...settled(register), prefix: 'AC' });
    expect([taken.status, taken.text]).toEqual([
      422,
      expect.stringContaining('Another register has numbers that start with AC'),
    ]);
    well(await change({ ...settled(register), name: 'Lights', prefix: 'LI', stages }));
    expect((await change(settled(register))).status).toBe(412);
    expect((await maren.sheet(number)).stage.label).toBe('On the table');
    expect(well(await priya.submit(form, { what: 'Gas' })).number).toMatch(/^LI-/);
    const now = await registerOf(form);
    expect([now.name, now.states[0].note]).toEqual(['Lights', 'For the test']);
    well(await maren.call('goBackToState', { params: { key: form, number: '1' }, headers: onVersion(now.version) }));
    const back = await registerOf(form);
    expect([back.name, back.prefix, back.stages[0].label]).toEqual(['Lamps', 'LA', register.stages[0].label]);
    expect(back.fields).toEqual(now.fields);
  });

  it('is settled in a draft that several keep, and is as it was until it is put in force', async () => {
    const form = await made('Ropes', 'RP');
    const register = await registerOf(form);
    const keep = (body: object, version: number) =>
      maren.call('keepRegister', { params: { key: form }, headers: onVersion(version), body });
    const put = (version: number, note = 'For the test') =>
      maren.call('putRegister', { params: { key: form }, headers: onVersion(version), body: { note } });
    expect([register.draft.name, register.changes, register.problems]).toEqual(['Ropes', [], []]);

    // Typed half-way: kept as it is, and told what is wrong with it.
    const half = well(await keep({ ...register.draft, name: 'Lines', prefix: 'R' }, register.version));
    expect(half.changes.map(({ words }: Answer['body']) => words)).toHaveLength(2);
    expect(half.problems).toEqual([expect.objectContaining({ field: 'prefix' })]);
    expect((await put(half.version)).body).toMatchObject({ status: 422, problems: [{ field: 'prefix' }] });
    expect((await keep(register.draft, register.version)).status).toBe(412);
    const kept = await registerOf(form);
    expect([kept.name, kept.draft.name, kept.draft.prefix]).toEqual(['Ropes', 'Lines', 'R']);

    // A release of its form brings what it brings; what is being settled stays as it is being settled.
    await edit(form, (draft) => ({ ...draft, parts: [...draft.parts, question('stale')] }));
    await release(form);
    const settled = { name: kept.name, prefix: kept.prefix, deskGroups: kept.deskGroups, staysIn: true, left: [] };
    const { version, stages } = await registerOf(form);
    const body = { ...settled, stages, note: '' };
    well(await maren.call('changeRegister', { params: { key: form }, headers: onVersion(version), body }));
    const beside = await registerOf(form);
    expect([beside.name, beside.staysIn, beside.draft.name, beside.draft.staysIn]).toEqual([
      ...['Ropes', true, 'Lines', true],
    ]);

    const whole = well(await keep({ ...beside.draft, prefix: 'LN' }, beside.version));
    expect(whole.problems).toEqual([]);
    well(await put(whole.version));
    const now = await registerOf(form);
    expect([now.name, now.prefix, now.changes, now.states[0].note]).toEqual(['Lines', 'LN', [], 'For the test']);
    expect(now.fields).toEqual(beside.fields);
    expect(well(await priya.submit(form, { what: 'Hemp', stale: 'No' }, { release: 2 })).number).toMatch(/^LN-/);
  });

  it('has stages that come and retire, and ways between them that say who, what and when', async () => {
    const form = await made('Floaters', 'QF');
    const { number } = well(await priya.submit(form, { what: 'Red', how_many: '2', each: '3' }));
    const put = async (stages: readonly object[]) => {
      const register = await registerOf(form);
      const body = { ...settled(register), stages };
      return maren.call('changeRegister', { params: { key: form }, headers: onVersion(register.version), body });
    };
    const { stages } = settled(await registerOf(form));
    const way = { relations: [], groups: [], filled: [], when: '' };
    const ways = [
      { ...way, to: 'packed', filled: ['stale'], when: 'how_many > 5' },
      { ...way, to: 'done', relations: ['handler'] },
    ];
    const packed = { key: 'packed', label: 'Packed', publicLabel: 'On its way', phase: 'working' };
    const said = [...stages, packed].map((stage) => (stage.key === 'arrived' ? { ...stage, moves: ways } : stage));
    const wrong = async (some: readonly object[], words: string) => {
      const answer = await put(some);
      expect([answer.status, JSON.stringify(answer.body)]).toEqual([422, expect.stringContaining(words)]);
    };
    await wrong(stages.slice(1), '“Arrived” cannot be removed');
    await wrong(
      stages.map((stage: { key: string }) => (stage.key === 'done' ? { ...stage, phase: 'working' } : stage)),
      'Retire the stage',
    );
    await wrong(
      stages.map((stage: { key: string }) => (stage.key === 'arrived' ? { ...stage, retired: true } : stage)),
      'No stage is there for new requests.',
    );
    await wrong(
      said.map((stage) => (stage.key === 'arrived' ? { ...stage, moves: [{ ...way, to: 'nowhere' }] } : stage)),
      'a move leads nowhere',
    );
    well(await put(said));
    expect((await registerOf(form)).at).toEqual({ arrived: 1 });
    expect((await registerOf(form)).stays.stale).toContain('A move from “Arrived” needs it');

    const sheet = async () => maren.sheet(number);
    const move = async (stage: string) => {
      const headers = onVersion((await sheet()).version);
      return maren.call('moveStage', { params: { number }, headers, body: { stage } });
    };
    const ways2 = async () => (await sheet()).notNow.map(({ label, whyNot }: Answer['body']) => [label, whyNot]);
    expect(await ways2()).toEqual([
      ['Packed', 'First fill in “Stale”.'],
      ['Finished', 'Only these people can do this: its handler.'],
    ]);
    expect((await move('done')).body).toMatchObject({
      status: 409,
      detail: 'Nothing was changed. Only these people can do this: its handler.',
    });
    expect((await move('in_hand')).status).toBe(409);
    const fill = async (changes: object) =>
      well(
        await maren.call('changeFields', {
          params: { number },
          headers: onVersion((await sheet()).version),
          body: { changes },
        }),
      );
    await fill({ stale: 'no' });
    expect((await ways2())[0]).toEqual([
      'Packed',
      'This is possible when this condition is true: How many is above 5.',
    ]);
    await fill({ how_many: '6' });
    well(await move('packed'));
    // What is retired stays where requests are, and leads on anywhere.
    well(await put(said.map((stage) => (stage.key === 'packed' ? { ...stage, retired: true } : stage))));
    expect((await sheet()).stage.label).toBe('Packed');
    well(await move('in_hand'));
    expect((await sheet()).moves.map((to: { key: string }) => to.key)).not.toContain('packed');
  });

  it('asks by a move for nothing that the plan closes to somebody, and lets no verdict tell of it', async () => {
    const form = await made('Grapnels', 'GR');
    const { number } = well(await priya.submit(form, { what: 'Big' }));
    const register = await registerOf(form);
    const way = { to: 'done', relations: [], groups: [], filled: ['stale'], when: '' };
    const stages = settled(register).stages.map((stage: { key: string }) =>
      stage.key === 'arrived' ? { ...stage, moves: [way] } : stage,
    );
    const body = { ...settled(register), stages };
    const put = (version: number) =>
      maren.call('changeRegister', { params: { key: form }, headers: onVersion(version), body });
    well(await put(register.version));
    const inBoats = { in: { anyOf: ['boats'] }, outOf: [] };
    desk.protect(form, { rules: [{ id: 'r', name: 'Closed', fields: ['stale'], audience: inBoats, level: 'hidden' }] });
    const why = async () => (await maren.sheet(number)).notNow[0].whyNot;
    const before = await why();
    expect(before).toContain('not everyone here may read');
    well(
      await maren.call('changeFields', {
        params: { number },
        headers: onVersion((await maren.sheet(number)).version),
        body: { changes: { stale: 'known' } },
      }),
    );
    expect(await why()).toBe(before);
    const again = await put((await registerOf(form)).version);
    expect([again.status, JSON.stringify(again.body)]).toEqual([
      422,
      expect.stringContaining('It would reveal something to them'),
    ]);
    expect((await registerOf(form)).open).not.toContain('stale');
  });

  it('lets a field leave that no form uses; what holds it keeps it', async () => {
    const form = await made('Floats', 'FL');
    await edit(form, (draft) => ({ ...draft, parts: [...draft.parts, question('stale')] }));
    await release(form);
    const { number } = well(await priya.submit(form, { what: 'Cork', stale: 'Old' }, { release: 2 }));
    const { number: without } = well(await priya.submit(form, { what: 'Foam' }, { release: 2 }));
    const leave = async () => {
      const register = await registerOf(form);
      const body = { ...settled(register), left: ['stale'] };
      return maren.call('changeRegister', { params: { key: form }, headers: onVersion(register.version), body });
    };
    const refused = await leave();
    expect([refused.status, JSON.stringify(refused.body)]).toEqual([
      422,
      expect.stringContaining('“Stale” cannot be removed.'),
    ]);
    await edit(form, (draft) => ({ ...draft, parts: draft.parts.filter((part) => part !== draft.parts.at(-1)) }));
    expect((await registerOf(form)).stays.stale).toContain('Release 2 of “Floats”');
    await release(form);
    well(await leave());
    expect((await formOf(form)).draft.fields.map((field: Field) => field.key)).not.toContain('stale');
    expect(shown(await maren.sheet(number), 'stale')).toBe('Old');
    expect(shown(await maren.sheet(without), 'stale')).toBeUndefined();
    // It comes back with the release of a form that has it again.
    const stale = FIELDS.find((field) => field.key === 'stale') as Field;
    await edit(form, (draft) => ({ ...draft, fields: [...draft.fields, stale] }));
    await release(form);
    expect((await registerOf(form)).left).toEqual([]);
  });

  it('is settled by coordinators alone', async () => {
    expect((await priya.call('register', { params: { key: 'site-access' } })).status).toBe(403);
    expect((await maren.call('register', { params: { key: 'nothing' } })).status).toBe(404);
    const nothing = await maren.call('askInto', {
      params: { key: 'site-access' },
      headers: key(),
      body: { title: '', asks: [], doors: { staff: false, outside: false } },
    });
    expect(nothing.body.problems.map((problem: { field: string }) => problem.field)).toEqual([
      'title',
      'asks',
      'doors',
    ]);
  });
});

describe('what refers to a register', () => {
  it('is told by the forms whose fields point to what is in it', async () => {
    const { referredBy } = await registerOf('vessels');
    expect(referredBy.map(({ title, field }: { title: string; field: string }) => `${title}: ${field}`)).toContain(
      'Vessel time: Vessel',
    );
    expect((await registerOf('purchase')).referredBy).toEqual([]);
  });
});
