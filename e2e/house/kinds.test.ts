import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { answerSchema, type FormDesign, findingsOf } from '@tolvek/core/form';
import { KIND_NAMES, type KindName, type RawAnswer } from '@tolvek/core/register';
import { VOCABULARIES, vessels } from '@tolvek/demo';
import { english } from '@tolvek/words/english';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AllKinds, has, keyOf } from './allKinds.ts';
import { type Caller, Desk } from './desk.ts';
import { CASES, matrixPage, PLACES, type Place } from './kindMatrix.ts';

/**
 * One form with a field of every kind, and around each of them a rule, a formula, a default, a
 * column; one request through all of it.
 */
let desk: Desk;
let maren: Caller;
let priya: Caller;
let number = '';
let design: FormDesign;
let all: AllKinds;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind')];
  all = await AllKinds.make(desk, maren, priya);
  design = all.design();
  const submitted = await priya.submit('all-kinds', all.answers());
  number = submitted.body.number ?? '';
  if (number === '') throw new Error(submitted.text);
});
afterAll(() => desk.close());

const field = async (key: string) =>
  (await maren.sheet(number)).values.fields.find((each: { key: string }) => each.key === key);
const received = async (): Promise<string> =>
  (await desk.letters()).find(
    (letter) => letter.subject.includes(number) && letter.text.includes('This is what you sent'),
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
  form: async (kind) => {
    const { form } = (await (await desk.as('Priya Nakamura-Lind')).call('door', { params: { slug: 'all-kinds' } }))
      .body;
    const asked = form.fields.find((each: { key: string }) => each.key === keyOf(kind));
    expect([asked?.type.kind, asked?.label]).toEqual([kind, `A ${kind}`]);
    expect(number).toMatch(/^KD-\d+$/);
  },
  sheet: async (kind) => expect((await field(keyOf(kind))).shown).toBe(CASES[kind].shown),
  ledger: async (kind) => {
    const { rows } = (await maren.call('ledger', { query: { tray: 'all', find: number } })).body;
    expect(rows[0].subject).toContain(CASES[kind].shown.replaceAll('\n', kind === 'line-items' ? ', ' : ' '));
  },
  letter: async (kind) =>
    expect((await received()).replace(/\s+/g, ' ')).toContain(CASES[kind].shown.replace(/\s+/g, ' ')),
  history: async (kind) => {
    const before = await maren.sheet(number);
    const change = (raw: RawAnswer, version: number) =>
      maren.call('changeFields', {
        params: { number },
        headers: { 'If-Match': `"${version}"` },
        body: { changes: { [keyOf(kind)]: all.answer(raw) } },
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
        body: { condition: all.put(CASES[kind].condition, kind), number },
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
    expect(routing.rows[0].cells.find((cell: { words: string }) => cell.words.startsWith(`${kind}: `))?.result).toBe(
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
    expect(Object.keys((answerSchema(design, english) as { properties: object }).properties)).toContain(keyOf(kind)),
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
