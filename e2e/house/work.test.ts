import { finishRule } from '@tolvek/core/deadline';
import { type FormDesign, RECIPES } from '@tolvek/core/form';
import { designs, draftStates, requests } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { numbersTable } from '../../core/laws/largeTables.ts';
import { type Caller, Desk } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind')];
});
afterAll(() => desk.close());

/** The draft of a form, as it is stored. */
function draftOf(form: string): { id: string; draft: FormDesign } {
  const row = desk.running.house.db
    .select()
    .from(designs)
    .where(eq(designs.id, desk.formId(form)))
    .get();
  if (!row) throw new Error(`no form ${form}`);
  return { id: row.id, draft: row.draft as FormDesign };
}

const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });

/** A form of its own from the simplest recipe, changed as a test needs. */
async function made(title: string, prefix: string, change: (design: FormDesign) => FormDesign): Promise<string> {
  const simple = RECIPES.find((recipe) => recipe.key === 'simple')?.make({
    told: english,
    title,
    team: 'boats',
    approvers: 'duty-managers',
    calendar: 'desk',
  });
  if (!simple) throw new Error('no recipe');
  const body = { prefix, desk: 'boats', doors: { staff: true, outside: false }, draft: change(simple) };
  const answer = await maren.call('createForm', { headers: key(), body });
  expect([answer.status, answer.text]).toEqual([200, expect.any(String)]);
  return answer.body.key;
}

describe('a draft that is heavy to look through', () => {
  const heavy = (design: FormDesign): FormDesign => {
    const { table } = numbersTable();
    const named = [...'nnnncccb'].map((kind, index) => ({ key: `${kind}${index}`, kind }));
    const options = Array.from({ length: 12 }, (_, index) => ({ key: `o${index}`, label: `Option ${index}` }));
    const fields = named.map(({ key: field, kind }) => ({
      key: field,
      label: field,
      type:
        kind === 'n'
          ? ({ kind: 'number', places: 2 } as const)
          : kind === 'c'
            ? ({ kind: 'choice', options } as const)
            : ({ kind: 'yes-no' } as const),
      source: 'asked' as const,
    }));
    const outcome = { ...design.routing.otherwise };
    return {
      ...design,
      fields: [...design.fields, ...fields],
      parts: [
        ...design.parts,
        ...fields.map(({ key: field }) => ({ part: 'question' as const, field, asks: '', help: '', required: false })),
      ],
      routing: {
        columns: table.columns,
        rows: table.rows.map((row) => ({ ...row, id: `row-${row.id}`, outcome })),
        otherwise: outcome,
      },
    };
  };

  it('is looked through beside the pages, which answer first; a list of forms waits for none', async () => {
    const form = await made('Heavy', 'HV', (design) => design);
    const { version, draft } = (await maren.call('form', { params: { key: form } })).body;
    const order: string[] = [];
    const saved = maren
      .call('saveDraft', { params: { key: form }, headers: onVersion(version), body: { draft: heavy(draft) } })
      .then((answer) => {
        order.push('saved');
        return answer;
      });
    for (let n = 0; n < 8; n += 1) {
      await priya.call('frontDesk');
      order.push('page');
    }
    const list = (await maren.call('forms')).body.forms;
    expect(list.find((each: { key: string }) => each.key === form)).toMatchObject({ title: 'Heavy' });
    const answer = await saved;
    expect(answer.status).toBe(200);
    expect(order.indexOf('saved')).toBeGreaterThan(3);
    expect(answer.body.findings.length).toBeGreaterThan(0);
    const known = (await maren.call('forms')).body.forms.find((each: { key: string }) => each.key === form);
    expect(known.findings).toBe(answer.body.findings.length);
  });

  it('has a history that is read and compared a state at a time, with turns for others between', async () => {
    const form = await made('Older', 'OD', (design) => design);
    const { db } = desk.running.house;
    const row = draftOf(form);
    for (let n = 0; n < 31; n += 1)
      db.insert(draftStates)
        .values({
          id: `older-${n}`,
          designId: row.id,
          draft: { ...heavy(row.draft), title: `Older ${n}` },
          version: n,
          changedBy: 'nobody',
          changedAt: n,
        })
        .run();
    let turn = 0;
    let isOver = false;
    const tick = (): void => {
      turn += 1;
      if (!isOver) setImmediate(tick);
    };
    tick();
    const turns: number[] = [];
    const { prepare } = db.$client;
    db.$client.prepare = ((text: string) => {
      if (text.includes('from "draft_states"')) {
        turns.push(turn);
        // However fast the machine is, a state takes a while: how many fit in a turn is the same everywhere.
        const until = performance.now() + 2;
        while (performance.now() < until);
      }
      return prepare.call(db.$client, text);
    }) as typeof prepare;
    const { status, body } = await maren.call('draftHistory', { params: { key: form } });
    db.$client.prepare = prepare;
    isOver = true;
    expect([status, body.states.length]).toEqual([200, 30]);
    expect(body.states[1].changes.map((change: { at: string }) => change.at)).toContain('title');
    // Of the states together, each could be read in a moment; all of them hold the thread up.
    expect(new Set(turns).size).toBeGreaterThan(10);
  });

  it('is told as not counted yet in a list, until somebody has looked', async () => {
    const form = await made('Unseen', 'US', heavy);
    const first = (await maren.call('forms')).body.forms.find((each: { key: string }) => each.key === form);
    expect(first.findings).toBeNull();
    const opened = (await maren.call('form', { params: { key: form } })).body.findings.length;
    const then = (await maren.call('forms')).body.forms.find((each: { key: string }) => each.key === form);
    expect(then.findings).toBe(opened);
  });
});

describe('names that every object has', () => {
  const odd = ['constructor', '__proto__', 'toString', 'hasOwnProperty', 'valueOf', 'isPrototypeOf'];

  it.each(odd)('“%s” is refused as a key with its place, wherever one is made', async (name) => {
    const simple = RECIPES[0]?.make({
      told: english,
      title: 'Odd',
      team: 'boats',
      approvers: 'duty-managers',
      calendar: 'desk',
    });
    const base = { prefix: 'OD', desk: 'boats', doors: { staff: true, outside: false } };
    const design = simple as FormDesign;
    const drafts: FormDesign[] = [
      { ...design, fields: [{ key: name, label: 'Odd', type: { kind: 'text' }, source: 'asked' }] },
      { ...design, routing: { ...design.routing, columns: [{ id: name, label: 'Odd', input: '1' }] } },
    ];
    for (const draft of drafts) {
      const answer = await maren.call('createForm', { headers: key(), body: { ...base, draft } });
      expect(answer.status).toBe(400);
      expect(answer.body.problems[0].field).toContain('draft');
    }
  });

  it.each(odd)('“%s” among answers is an unknown field, not a fault of ours', async (name) => {
    const body = `{"release":1,"answers":{"visitor":"Ada",${JSON.stringify(name)}:"x"}}`;
    const sent = await priya.call('submit', { params: { slug: 'come-on-site' }, headers: key(), body });
    expect([name, sent.status < 500, sent.status >= 400]).toEqual([name, true, true]);
    for (const route of ['form', 'vocabulary'] as const)
      expect((await maren.call(route, { params: { key: name } })).status).toBe(404);
    expect((await priya.call('sheet', { params: { number: name } })).status).toBe(404);
  });

  it('that stand in a draft of an earlier release are names like any other', async () => {
    const form = await made('Older', 'OL', (design) => design);
    const { db } = desk.running.house;
    const row = draftOf(form);
    const column = { id: 'constructor', label: 'Odd', input: 'urgent' };
    const draft: FormDesign = {
      ...row.draft,
      fields: [...row.draft.fields, { key: 'constructor', label: 'Odd', type: { kind: 'text' }, source: 'desk-only' }],
      routing: {
        ...row.draft.routing,
        columns: [column],
        rows: [{ id: 'row', note: '', cells: {}, outcome: row.draft.routing.otherwise }],
      },
    };
    db.update(designs).set({ draft }).where(eq(designs.id, row.id)).run();
    // The contract refuses such names from now on, so the answers are looked at as they are.
    for (const path of [`/api/forms/${form}`, '/api/forms'])
      expect((await fetch(`${desk.running.url}${path}`, { headers: { cookie: maren.cookie } })).status).toBe(200);
  });
});

describe('a rule over the requests there are', () => {
  it('with an error is applied to nothing, and keeps every limit of the fields', async () => {
    const form = await made('Limits', 'LM', (design) => ({
      ...design,
      fields: [
        ...design.fields,
        { key: 'persons', label: 'Persons', type: { kind: 'number', places: 0, most: 12 }, source: 'asked' },
        { key: 'seats', label: 'Seats', type: { kind: 'number', places: 0, most: 10 }, source: 'desk-only' },
      ],
      parts: [...design.parts, { part: 'question', field: 'persons', asks: '', help: '', required: false }],
    }));
    await maren.call('releaseForm', { params: { key: form }, headers: onVersion(1), body: { note: '' } });
    const what = { what: 'A boat', needed_by: '2026-12-20' };
    for (const persons of [4, 12]) {
      const sent = await priya.submit(form, { ...what, persons });
      expect([sent.status, sent.body.problems ?? []]).toEqual([200, []]);
    }
    const draftWith = async (value: string): Promise<void> => {
      const { version, draft } = (await maren.call('form', { params: { key: form } })).body;
      const rule = {
        id: 'seats',
        name: 'Seats',
        when: 'true',
        says: '',
        then: [{ do: 'set', field: 'seats', value }],
        otherwise: [],
        on: true,
        runs: 'saving',
      };
      const body = { draft: { ...draft, rules: [rule] } };
      expect((await maren.call('saveDraft', { params: { key: form }, headers: onVersion(version), body })).status).toBe(
        200,
      );
    };
    const over = (shown: string | null) =>
      maren.call('overExisting', { params: { key: form, rule: 'seats' }, body: { shown, among: 'all' } });
    await draftWith('persons + nothing_like_it');
    const broken = await over(null);
    expect([broken.status, broken.body.type]).toEqual([422, 'urn:tolvek:problem:rule-has-errors']);
    await draftWith('persons');
    const dry = (await over(null)).body;
    expect([dry.changed, dry.refused]).toEqual([1, 1]);
    expect(dry.requests.find((each: { refused: string | null }) => each.refused)?.refused).toContain('Seats');
    // Somebody sends another one meanwhile: what was shown is no longer what would be done.
    await priya.submit(form, { ...what, persons: 3 });
    expect((await over(dry.shown)).body.type).toContain('changed-meanwhile');
    const done = (await over((await over(null)).body.shown)).body;
    expect([done.changed, done.refused, done.applied]).toEqual([2, 1, true]);
    const held = desk.running.house.db
      .select({ values: requests.values })
      .from(requests)
      .where(eq(requests.formId, desk.formId(form)))
      .all()
      .map(({ values }) => values.seats ?? null);
    expect(held.sort()).toEqual([3, 4, null].sort());
  });
});

describe('lengths that no calendar reaches', () => {
  it('are findings, and no submit stumbles over them', async () => {
    const form = await made('Far away', 'FA', (design) => design);
    const { version, draft } = (await maren.call('form', { params: { key: form } })).body;
    const far = { ...draft, deadline: { ...draft.deadline, deadlines: [finishRule(9e15, 9e15)] } };
    const saved = await maren.call('saveDraft', {
      params: { key: form },
      headers: onVersion(version),
      body: { draft: far },
    });
    expect(saved.body.findings.filter((each: { message: string }) => each.message.includes('400 days'))).toHaveLength(
      2,
    );
    const { db } = desk.running.house;
    // As an earlier release let it be released.
    await maren.call('saveDraft', { params: { key: form }, headers: onVersion(saved.body.version), body: { draft } });
    await maren.call('releaseForm', {
      params: { key: form },
      headers: onVersion(saved.body.version + 1),
      body: { note: '' },
    });
    db.$client
      .prepare(
        "update design_states set content = json_set(content, '$.deadline.deadlines[0].rings[0].at', -9e15, '$.deadline.deadlines[0].rings[1].at', 9e15) where design_id = ?",
      )
      .run(desk.formId(form));
    expect((await priya.submit(form, { what: 'A boat', needed_by: '2026-12-20' })).status).toBe(200);
  });
});
