import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { answerSchema, blankDesign, type FormDesign, findingsOf } from '@tolvek/core/form';
import {
  type Field,
  KIND_NAMES,
  type Kind,
  type KindName,
  type RawAnswer,
  type SingleKind,
} from '@tolvek/core/register';
import { VOCABULARIES, vessels } from '@tolvek/demo';
import { people } from '@tolvek/server/schema';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk } from './desk.ts';
import { CASES, MEANINGLESS, matrixPage, PLACES, type Place } from './kindMatrix.ts';

/**
 * One form with a field of every kind, and around each of them a rule, a formula, a default, a
 * column; one request through all of it.
 */
let desk: Desk;
let maren: Caller;
let priya: Caller;
let number = '';
let design: FormDesign;
let ids: ReadonlyMap<string, string>;
let ref = '';

const keyOf = (kind: KindName): string => `f${KIND_NAMES.indexOf(kind)}`;
const has = (kind: KindName, place: Place): boolean => MEANINGLESS[kind]?.[place] === undefined;

/** A text with people by their ids and the file by its reference, and `F` by the field. */
const put = (text: string, kind: KindName): string =>
  text
    .replace(/[@&]([A-Z][\w-]+(?: [A-Z][\w-]+)?)/g, (_, name: string) => ids.get(name) ?? '')
    .replace(/\bF\b/g, keyOf(kind));
const answer = (raw: RawAnswer): RawAnswer => {
  const named = (text: string): string =>
    /^[@&]/.test(text) ? (ids.get(text.slice(1)) ?? '') : text.startsWith('#') ? ref : text;
  if (typeof raw === 'string') return named(raw);
  if (!Array.isArray(raw)) return raw;
  return (raw as readonly unknown[]).map((each) =>
    typeof each === 'string' ? named(each) : each,
  ) as unknown as RawAnswer;
};

const YES_NO: Kind = { kind: 'yes-no' };

function designOfAll(): FormDesign {
  const asked = KIND_NAMES.map(
    (kind): Field => ({
      key: keyOf(kind),
      label: `A ${kind}`,
      type: CASES[kind].type,
      source: kind === 'auto-number' ? 'given' : 'asked',
    }),
  );
  const defaults = KIND_NAMES.filter((kind) => has(kind, 'default')).map(
    (kind): Field => ({
      key: `d_${keyOf(kind)}`,
      label: `Default ${kind}`,
      type: CASES[kind].type,
      source: 'desk-only',
      preset: { from: 'fixed', value: answer(CASES[kind].typed) },
    }),
  );
  const formulas = KIND_NAMES.filter((kind) => has(kind, 'formula')).map(
    (kind): Field => ({
      key: `c_${keyOf(kind)}`,
      label: `Computed ${kind}`,
      type: YES_NO,
      source: 'computed',
      formula: put(CASES[kind].condition, kind),
    }),
  );
  const columns = KIND_NAMES.filter((kind) => has(kind, 'line items')).map((kind) => ({
    key: keyOf(kind),
    label: kind,
    type: CASES[kind].type as SingleKind,
    required: false,
  }));
  const lines: Field = { key: 'lines', label: 'Lines of all', type: { kind: 'line-items', columns }, source: 'asked' };
  const follow = KIND_NAMES.filter((kind) => has(kind, 'rule')).map(
    (kind): Field => ({ key: `r_${keyOf(kind)}`, label: `After ${kind}`, type: { kind: 'text' }, source: 'asked' }),
  );
  const fields = [...asked, lines, ...follow, ...defaults, ...formulas];
  return {
    ...blankDesign({ title: 'All kinds', team: 'estates', approvers: 'duty-managers', calendar: 'desk' }),
    subject: KIND_NAMES.map((kind) => `{${keyOf(kind)}}`).join(' '),
    fields,
    parts: fields
      .filter((field) => field.source === 'asked')
      .map((field) => ({ part: 'question', field: field.key, asks: '', help: '', required: false })),
    rules: KIND_NAMES.filter((kind) => has(kind, 'rule')).map((kind) => ({
      id: `rule-${kind}`,
      name: `Rule ${kind}`,
      says: '',
      when: put(CASES[kind].condition, kind),
      then: [{ do: 'show', parts: [`r_${keyOf(kind)}`] }],
      otherwise: [],
      on: true,
      runs: 'filling',
    })),
    routing: {
      columns: KIND_NAMES.map((kind) => ({ id: `col-${kind}`, label: kind, input: keyOf(kind) })),
      rows: [
        {
          id: 'all',
          note: 'Every column asks for something',
          cells: Object.fromEntries(KIND_NAMES.map((kind) => [`col-${kind}`, put(CASES[kind].cell, kind)])),
          outcome: { team: 'boats', priority: 'high', workingDays: 1, needsApproval: false },
        },
      ],
      otherwise: { team: 'estates', priority: 'low', workingDays: 9, needsApproval: false },
    },
  };
}

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind')];
  ids = new Map(
    desk.running.house.db
      .select({ id: people.id, name: people.name })
      .from(people)
      .all()
      .map((row) => [row.name, row.id]),
  );
  ids = new Map([...ids, ...desk.things()]);
  design = designOfAll();
  const made = await maren.call('createForm', {
    headers: { 'Idempotency-Key': 'form-of-all-kinds' },
    body: { prefix: 'KD', desk: 'estates', doors: { staff: true, outside: false }, draft: design },
  });
  if (made.status !== 200) throw new Error(made.text);
  await maren.call('releaseForm', { params: { key: 'all-kinds' }, headers: { 'If-Match': '"1"' }, body: { note: '' } });
  const sent = await fetch(`${desk.running.url}/api/doors/all-kinds/uploads?field=${keyOf('files')}&name=plan.txt`, {
    method: 'POST',
    headers: { cookie: priya.cookie },
    body: 'A plan.',
  });
  ref = ((await sent.json()) as { ref: string }).ref;
  const typed = Object.fromEntries(
    KIND_NAMES.filter((kind) => has(kind, 'form')).map((kind) => [keyOf(kind), answer(CASES[kind].typed)]),
  );
  const line = Object.fromEntries(
    KIND_NAMES.filter((kind) => has(kind, 'line items')).map((kind) => [keyOf(kind), CASES[kind].typed]),
  );
  const after = Object.fromEntries(
    KIND_NAMES.filter((kind) => has(kind, 'rule')).map((kind) => [`r_${keyOf(kind)}`, `after ${kind}`]),
  );
  const submitted = await priya.submit('all-kinds', { ...typed, ...after, lines: [line] });
  number = submitted.body.number ?? '';
  if (number === '') throw new Error(submitted.text);
});
afterAll(() => desk.close());

const field = async (key: string) =>
  (await maren.sheet(number)).values.fields.find((each: { key: string }) => each.key === key);
const received = async (): Promise<string> =>
  (await desk.letters()).find(
    (letter) => letter.subject.startsWith(number) && letter.text.includes('This is what you sent'),
  )?.text ?? '';

/** The request as a line of the sheet that requests are taken out as. */
async function line(): Promise<Readonly<Record<string, string>>> {
  const response = await fetch(`${desk.running.url}/api/forms/all-kinds/requests.csv`, {
    headers: { cookie: maren.cookie },
  });
  if (response.status !== 200) throw new Error(await response.text());
  const { data } = Papa.parse<Record<string, string>>((await response.text()).replace(/^\uFEFF/, ''), {
    header: true,
    delimiter: ',',
  });
  return data.find((each) => each.Number === number) ?? {};
}

let again: Promise<string> | null = null;
/** A request taken in from the line that the first one was taken out as; its number. */
function takenInAgain(): Promise<string> {
  again ??= (async () => {
    const taken = await line();
    // What is asked only beside a file is not asked here, as no file comes in.
    const coming = design.fields.filter(
      (field) => field.source === 'asked' && field.type.kind !== 'files' && field.key !== `r_${keyOf('files')}`,
    );
    const cells = Object.fromEntries(coming.map((field) => [field.key, taken[field.label] ?? '']));
    const rows = [{ cells, requester: 'priya.nakamura.lind@skerrow.example' }];
    const took = (apply: boolean) =>
      maren.call('takeInRows', {
        params: { key: 'all-kinds' },
        headers: { 'Idempotency-Key': `again-${apply}` },
        body: { rows, apply },
      });
    const dry = (await took(false)).body;
    const { body } = await took(true);
    expect([body.rows, dry.rows]).toEqual([[{ number: expect.stringMatching(/^KD-/), problems: [] }], body.rows]);
    return body.rows[0].number;
  })();
  return again;
}

const TRIED: Readonly<Record<Place, (kind: KindName) => Promise<void>>> = {
  form: async () => expect(number).toMatch(/^KD-\d+$/),
  sheet: async (kind) => expect((await field(keyOf(kind))).shown).toBe(CASES[kind].shown),
  ledger: async (kind) => {
    const { rows } = (await maren.call('ledger', { query: { tray: 'all', find: number } })).body;
    expect(rows[0].subject).toContain(CASES[kind].shown.replace(/\s+/g, ' '));
  },
  letter: async (kind) =>
    expect((await received()).replace(/\s+/g, ' ')).toContain(CASES[kind].shown.replace(/\s+/g, ' ')),
  history: async (kind) => {
    const before = await maren.sheet(number);
    const change = (raw: RawAnswer, version: number) =>
      maren.call('changeFields', {
        params: { number },
        headers: { 'If-Match': `"${version}"` },
        body: { changes: { [keyOf(kind)]: answer(raw) } },
      });
    expect((await change(CASES[kind].other, before.version)).status).toBe(200);
    const after = await maren.sheet(number);
    expect(after.history.at(-1).changes).toContainEqual({
      label: `A ${kind}`,
      before: CASES[kind].shown,
      after: CASES[kind].otherShown,
    });
    expect((await change(CASES[kind].typed, after.version)).status).toBe(200);
  },
  condition: async (kind) => {
    const tried = (
      await maren.call('tryCondition', {
        params: { key: 'all-kinds' },
        body: { condition: put(CASES[kind].condition, kind), number },
      })
    ).body;
    const own = tried.tried.find((each: { number: string }) => each.number === number);
    expect([tried.refused, own.result, tried.explained.number, tried.explained.reason.result]).toEqual([
      null,
      true,
      number,
      true,
    ]);
  },
  rule: async (kind) => expect((await field(`r_${keyOf(kind)}`)).shown).toBe(`after ${kind}`),
  formula: async (kind) => expect((await field(`c_${keyOf(kind)}`)).shown).toBe('Yes'),
  default: async (kind) => expect((await field(`d_${keyOf(kind)}`)).shown).toBe(CASES[kind].shown),
  routing: async (kind) => {
    const { routing } = await maren.sheet(number);
    expect(routing.row).toBe(1);
    expect(routing.rows[0].cells.find((cell: { words: string }) => cell.words.startsWith(`${kind} is`))?.result).toBe(
      true,
    );
  },
  'line items': async (kind) => expect((await field('lines')).shown).toContain(CASES[kind].shown),
  export: async (kind) => expect((await line())[`A ${kind}`]).toBe(CASES[kind].sheet),
  import: async (kind) => {
    const { values } = await maren.sheet(await takenInAgain());
    expect(values.fields.find((each: { key: string }) => each.key === keyOf(kind)).shown).toBe(CASES[kind].shown);
  },
  'answer schema': async (kind) =>
    expect(Object.keys((answerSchema(design) as { properties: object }).properties)).toContain(keyOf(kind)),
};

describe('every kind in every place', () => {
  it('makes a form without errors', () => {
    const findings = findingsOf(design, {
      groups: new Map([
        ['estates', 'estates'],
        ['boats', 'boats'],
        ['duty-managers', 'duty-managers'],
      ]),
      plan: { rules: [] },
      form: 'form',
      outside: false,
      vocabularies: VOCABULARIES,
      registers: [{ key: 'vessels', name: 'Vessels', fields: vessels.design.fields, stages: [], restricted: [] }],
    });
    expect(findings.filter((finding) => finding.severity === 'error')).toEqual([]);
  });

  const pairs = KIND_NAMES.flatMap((kind) =>
    PLACES.filter((place) => has(kind, place)).map((place) => [kind, place] as const),
  );
  it.each(pairs)('%s: %s', (kind, place) => TRIED[place](kind));

  it('is the page in docs; npm run reference writes it anew', () => {
    expect(readFileSync(join(import.meta.dirname, '../../docs/kinds.md'), 'utf8')).toBe(matrixPage());
  });
});
