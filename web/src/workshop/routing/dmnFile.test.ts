import type { RowSpan } from '@tolvek/core/deadline';
import { CalendarDate, Scope, type Value } from '@tolvek/core/expression';
import {
  type ComputedName,
  type DmnTable,
  dmnOf,
  LEAVABLE,
  type LeavableName,
  prepareRouting,
  type RoutingOutcome,
  type RoutingRow,
  type RoutingTable,
  routingOf,
} from '@tolvek/core/routing';
import { english } from '@tolvek/words/english';
import * as fc from 'fast-check';
import { evaluate, unaryTest } from 'feelin';
import { describe, expect, it } from 'vitest';
import { type Element, xml2js } from 'xml-js';
import { often } from '../../../../core/laws/often.ts';
import { deadlinesIn, dmnFileOf, dmnTablesIn, followersIn, handlerIn } from './dmnFile.ts';

const scope = new Scope([
  { name: 'fee', label: 'Fee', type: { kind: 'number', places: 0 } },
  { name: 'comes_from', label: 'Comes from', type: { kind: 'text' } },
  { name: 'water', label: 'Water', type: { kind: 'yes-no' } },
  { name: 'leaves', label: 'Leaves', type: { kind: 'date' } },
]);
const FEES = [null, 0, 1, 2, 3, 4];
const PLACES = [null, 'corrin', 'merrow & sons', 'other'];
const ground = {
  ...{ handlerIn, deadlinesIn, followersIn },
  groups: [
    { key: 'boats', name: 'Boats' },
    { key: 'estates', name: 'Estates and grounds' },
  ],
  fields: [
    { key: 'fee', label: 'Fee' },
    { key: 'comes_from', label: 'Comes from' },
  ],
  paths: [{ id: 'short', label: 'The short one' }],
  stages: [
    { key: 'new', label: 'New' },
    { key: 'waiting', label: 'Waiting for samples' },
  ],
};

const text = (...parts: readonly string[]) =>
  fc.array(fc.constantFrom(...parts), { maxLength: 5 }).map((all) => all.join(' ').trim());
/** Formulas that come to what is there, to nothing, or to figures. */
const FORMULAS: Readonly<Record<ComputedName, readonly string[]>> = {
  team: ['if fee > 2 then "boats" else null', 'if water then "estates" else "boats"'],
  priority: ['if fee = null then null else if fee > 1 then "high" else "low"', '"normal"'],
  workingDays: ['fee + 1', 'if water then 3 else null', '2'],
  path: ['if comes_from = "corrin" then "short" else null'],
  stage: ['if water then "waiting" else "new"'],
};
const formula = (name: ComputedName) => fc.option(fc.constantFrom(...FORMULAS[name]), { nil: undefined, freq: 2 });
const anyFormulas = fc
  .record({
    ...{ team: formula('team'), priority: formula('priority'), workingDays: formula('workingDays') },
    ...{ path: formula('path'), stage: formula('stage') },
  })
  .map((some) => Object.fromEntries(Object.entries(some).filter(([, text]) => text !== undefined)))
  .map((some) => (Object.keys(some).length > 0 ? some : undefined));
const anyLength = fc.constantFrom<RowSpan | null>(
  null,
  { by: 'days', days: 2 },
  { by: 'time', time: 14_400_000 },
  { by: 'formula', formula: 'if water then "a" else fee', unit: 'hours' },
);
const anyOutcome: fc.Arbitrary<RoutingOutcome> = fc.record({
  stage: fc.option(fc.constantFrom('new', 'waiting'), { nil: undefined }),
  followers: fc.option(
    fc.uniqueArray(fc.constantFrom({ group: 'boats' }, { person: '01m8' }, { field: 'fee' }), {
      minLength: 1,
      maxLength: 3,
    }),
    { nil: undefined },
  ),
  deadlines: fc.option(
    fc
      .uniqueArray(fc.constantFrom('answer', 'survey', 'lab'), { minLength: 1, maxLength: 3 })
      .chain((keys) => fc.tuple(...keys.map((deadline) => anyLength.map((length) => ({ deadline, length }))))),
    { nil: undefined },
  ),
  formulas: fc.option(anyFormulas, { nil: undefined }),
  team: fc.constantFrom('boats', 'estates'),
  priority: fc.constantFrom('low' as const, 'normal' as const, 'high' as const),
  workingDays: fc.nat(250),
  path: fc.constantFrom(null, 'short'),
  handler: fc.option(
    fc.record({
      ways: fc.array(
        fc.oneof(
          fc.constantFrom({ by: 'last' as const }, { by: 'load' as const }, { by: 'turn' as const }),
          fc.constant({ by: 'field' as const, field: 'fee' }),
          fc.constantFrom('01m8', 'a"b\\c').map((person) => ({ by: 'person' as const, person })),
        ),
        { minLength: 1, maxLength: 4 },
      ),
      most: fc.option(fc.integer({ min: 1, max: 1_000 }), { nil: undefined }),
    }),
    { nil: undefined },
  ),
});
const CELLS: Readonly<Record<string, readonly string[]>> = {
  fee: ['', '> 2', '<= 2', '[1..3]', '(1..3)', '0, 4', 'not(2)', '> 9'],
  comes_from: ['', '"corrin"', '"corrin", "merrow & sons"', 'not("other")', '"merrow & sons"'],
  water: ['', 'true', 'false', 'not(true)'],
};
const anyTable: fc.Arbitrary<RoutingTable> = fc
  .tuple(
    fc.shuffledSubarray(['fee', 'comes_from', 'water', 'leaves'], { minLength: 0 }),
    fc.array(
      fc.record({
        outcome: anyOutcome,
        note: text('Why', '<b>', '&amp;', '“so”', "it's", ']]>', '"x"'),
        picks: fc.array(fc.nat(20), { minLength: 3, maxLength: 3 }),
        leaves: fc.subarray([...LEAVABLE], { maxLength: LEAVABLE.length - 1 }),
      }),
      {
        maxLength: 8,
      },
    ),
    anyOutcome,
    text('Fee', '<of>', '&'),
    fc.constantFrom('first' as const, 'each' as const, 'only' as const),
  )
  .map(([inputs, rows, otherwise, label, hits]) => ({
    ...(hits === 'first' ? {} : { hits }),
    columns: inputs.map((input, at) => ({
      id: `c-${at}`,
      label: label || input,
      input: input === 'leaves' ? 'leaves > date("2026-12-01")' : input,
    })),
    rows: rows.map(({ outcome, note, picks, leaves }, row) => ({
      ...{ id: `row_${row}`, note },
      ...(hits === 'each' ? leavingSome(outcome, otherwise, leaves) : { outcome }),
      cells: Object.fromEntries(
        inputs.flatMap((input, at) => {
          const cells = CELLS[input] ?? CELLS.water ?? [];
          const cell = cells[(picks[at % 3] ?? 0) % cells.length] ?? '';
          return cell ? [[`c-${at}`, cell]] : [];
        }),
      ),
    })),
    otherwise,
  }));

/** A row that leaves something to others: a file has nothing of that, so it is as in the last row. */
function leavingSome(outcome: RoutingOutcome, otherwise: RoutingOutcome, leaves: readonly LeavableName[]) {
  if (leaves.length === 0) return { outcome };
  const { formulas = {}, ...plain } = outcome;
  const kept = Object.entries(formulas).filter(([name]) => !leaves.some((each) => each === name));
  const left = Object.fromEntries(leaves.map((name) => [name, otherwise[name]]));
  return { leaves, outcome: { ...plain, ...left, ...(kept.length > 0 ? { formulas: Object.fromEntries(kept) } : {}) } };
}

const NAME = 'Where it goes';
const fileOf = (table: RoutingTable): Promise<string> => dmnFileOf(NAME, dmnOf(table, NAME, scope));
async function readBack(xml: string, otherwise: RoutingOutcome) {
  const tables = await dmnTablesIn(xml);
  if (tables.length === 0) throw new Error('no table');
  return routingOf(tables, { ...ground, otherwise });
}

/** The elements below one, by their names without a prefix; read by another parser than the one that is tried. */
const below = (of: Element, name: string): readonly Element[] =>
  (of.elements ?? []).filter((each) => each.name?.split(':').at(-1) === name);
const textIn = (of: Element | undefined): string =>
  ((of && below(of, 'text')[0]?.elements) ?? []).map((each) => String(each.text ?? '')).join('');

/** What is meant by an entry of the standard: its value, read by another implementation. */
const meantBy = (text: string, known: Readonly<Record<string, unknown>>): unknown => evaluate(text, known).value;

/**
 * What the decision tables of a file say together by the standard: 8.2.10 for the rules, FEEL read by another
 * implementation. Null where a table with UNIQUE has several rules that hold.
 */
function decided(
  xml: string,
  context: Readonly<Record<string, unknown>>,
  met: Map<string, number>,
): Readonly<Record<string, unknown>> | null {
  const definitions = below(xml2js(xml) as Element, 'definitions')[0] as Element;
  expect(definitions.attributes?.['xmlns:dmn']).toBe('https://www.omg.org/spec/DMN/20230324/MODEL/');
  const data = new Map(
    below(definitions, 'inputData').map((each) => [`#${each.attributes?.id}`, each.attributes?.name]),
  );
  const said: Record<string, unknown> = {};
  for (const decision of below(definitions, 'decision')) {
    // A decision knows nothing but what it says that it requires.
    const required = below(decision, 'informationRequirement').map((each) =>
      String(data.get(String(below(each, 'requiredInput')[0]?.attributes?.href))),
    );
    const known = Object.fromEntries(required.map((name) => [name, context[name]]));
    const table = below(decision, 'decisionTable')[0] as Element;
    const policy = String(table.attributes?.hitPolicy ?? 'UNIQUE');
    met.set(policy, (met.get(policy) ?? 0) + 1);
    const inputs = below(table, 'input').map((each) => meantBy(textIn(below(each, 'inputExpression')[0]), known));
    const holding = below(table, 'rule').filter((rule) =>
      below(rule, 'inputEntry').every((entry, at) => {
        const test = textIn(entry);
        return test === '-' || unaryTest(test, { ...known, '?': inputs[at] }).value === true;
      }),
    );
    if (policy === 'UNIQUE' && holding.length > 1) return null;
    const entries = holding.map((rule) => below(rule, 'outputEntry').map((each) => meantBy(textIn(each), known)));
    const outputs = below(table, 'output');
    const defaults = outputs.map((each) => {
      const [entry] = below(each, 'defaultOutputEntry');
      return entry ? meantBy(textIn(entry), known) : null;
    });
    const all = entries.length > 0 ? entries : [defaults];
    for (const [at, output] of outputs.entries()) {
      const values = all.map((each) => each[at]);
      said[String(output.attributes?.name)] = policy === 'COLLECT' ? values.flat() : values[0];
    }
  }
  return said;
}

describe('a routing table in a DMN file', () => {
  it('is the same when it comes back', async () => {
    const met = { rows: 0, notes: 0, handlers: 0, formulas: 0, followers: 0, deadlines: 0, leaving: 0, only: 0 };
    await fc.assert(
      fc.asyncProperty(anyTable, async (table) => {
        const read = await readBack(await fileOf(table), table.otherwise);
        expect(read).toEqual({ ok: true, table, notes: [] });
        const { rows } = table;
        met.rows += rows.length;
        met.notes += rows.filter(({ note }) => /[<&"]/.test(note)).length;
        met.handlers += rows.filter(({ outcome }) => outcome.handler).length;
        met.formulas += rows.filter(({ outcome }) => outcome.formulas).length;
        met.followers += rows.filter(({ outcome }) => outcome.followers).length;
        met.deadlines += rows.filter(({ outcome }) => outcome.deadlines).length;
        met.leaving += rows.filter((row) => (row as RoutingRow).leaves).length;
        met.only += table.hits === 'only' ? rows.length : 0;
      }),
      { numRuns: often(150) },
    );
    console.log('out and in again:', met);
    expect(Math.min(...Object.values(met))).toBeGreaterThan(50);
  });

  it('decides as here when it is read by the standard', async () => {
    const met = new Map<string, number>();
    await fc.assert(
      fc.asyncProperty(anyTable, fc.constantFrom('2026-11-30', '2026-12-02'), async (table, day) => {
        const xml = await fileOf(table);
        const route = prepareRouting(table, scope);
        for (const fee of FEES)
          for (const place of PLACES) {
            const water = fee === null ? null : fee % 2 === 0;
            const leaves = evaluate(`date("${day}")`, {}).value;
            const theirs = decided(xml, { fee, comes_from: place, water, leaves }, met);
            const slots: readonly Value[] = [fee, place, water, CalendarDate.read(day)];
            const { outcome, isOtherwise, computed } = route(slots);
            // The standard leaves open what several rows say together where only one may hold: they are found before.
            const how = theirs === null ? 'several' : isOtherwise ? 'the last row' : 'a row';
            met.set(how, (met.get(how) ?? 0) + 1);
            if (theirs === null) continue;
            if (Object.keys(computed).length > 0) met.set('computed', (met.get('computed') ?? 0) + 1);
            const { followers = null, ...given } = theirs;
            expect([slots, given]).toEqual([
              slots,
              {
                ...{ team: outcome.team, priority: outcome.priority, working_days: outcome.workingDays },
                approval: outcome.path,
                ...('handler' in theirs ? { handler: outcome.handler ?? null } : {}),
                ...('stage' in theirs ? { stage: outcome.stage ?? null } : {}),
                ...('deadlines' in theirs ? { deadlines: outcome.deadlines ?? null } : {}),
              },
            ]);
            const follow = new Set((outcome.followers ?? []).map((each) => JSON.stringify(each)));
            expect(
              new Set(
                ((followers as readonly unknown[] | null) ?? []).filter(Boolean).map((each) => JSON.stringify(each)),
              ),
            ).toEqual(follow);
          }
      }),
      { numRuns: often(45) },
    );
    console.log('decided by both:', Object.fromEntries(met));
    expect([...met.keys()].sort()).toEqual([
      'COLLECT',
      'FIRST',
      'UNIQUE',
      'a row',
      'computed',
      'several',
      'the last row',
    ]);
    expect(Math.min(...met.values())).toBeGreaterThan(20);
  });
});

/** A file from elsewhere: its inner part, in the namespace of a version. */
const elsewhere = (inner: string, version = 'https://www.omg.org/spec/DMN/20230324/MODEL/'): string =>
  `<?xml version="1.0"?><definitions xmlns="${version}" id="d" name="Elsewhere" namespace="urn:x">
    <decision id="a" name="Team"><decisionTable id="t" ${inner}</decisionTable></decision></definitions>`;
const clause = (kind: string, of: string, more = ''): string => `<${kind} ${of}>${more}</${kind}>`;
const entry = (kind: string, feel: string): string => `<${kind}><text>${feel}</text></${kind}>`;
const rule = (inputs: readonly string[], outputs: readonly string[], note = ''): string =>
  `<rule>${note && `<description>${note}</description>`}${inputs.map((each) => entry('inputEntry', each)).join('')}${outputs
    .map((each) => entry('outputEntry', each))
    .join('')}</rule>`;
const input = (label: string, feel: string): string =>
  clause('input', `label="${label}"`, entry('inputExpression', feel));

describe('a DMN file from elsewhere', () => {
  const otherwise: RoutingOutcome = { team: 'estates', priority: 'normal', workingDays: 3, path: 'short' };
  const take = (xml: string) => readBack(xml, otherwise);

  it('is read by the names that things are called by, and says what it leaves out', async () => {
    const read = await take(
      elsewhere(
        `hitPolicy="UNIQUE">${input('', 'Comes from')}${input('How much', 'fee')}
        ${clause('output', 'name="Group"')}${clause('output', 'label="Working days" name="out2"')}${clause('output', 'name="colour"')}
        ${rule(['"corrin"', '&gt; 2'], ['"Estates and Grounds"', '2', '"red"'], 'As\n agreed')}
        ${rule(['-', ''], ['"nobody"', '2.5', '"red"'])}
        ${rule(['"other"', '-'], ['if fee > 2 then "Boats" else "Estates and Grounds"', '-', '-'])}`,
      ),
    );
    if (!read.ok) throw new Error(JSON.stringify(read.why));
    expect(read.table).toEqual({
      // Of which no two may hold together.
      hits: 'only',
      columns: [
        { id: 'comes_from', label: 'Comes from', input: 'comes_from' },
        { id: 'how_much', label: 'How much', input: 'fee' },
      ],
      rows: [
        {
          ...{ id: 'row', note: 'As agreed', cells: { comes_from: '"corrin"', how_much: '> 2' } },
          outcome: { ...otherwise, workingDays: 2 },
        },
        { id: 'row_2', note: '', cells: {}, outcome: otherwise },
        {
          ...{ id: 'row_3', note: '', cells: { comes_from: '"other"' } },
          // What is computed is taken over, with groups by their keys.
          outcome: { ...otherwise, formulas: { team: 'if fee > 2 then "boats" else "estates"' } },
        },
      ],
      otherwise,
    });
    expect(english(read.notes)).toEqual([
      'Left out: the output column “colour”. It is none of team, priority, working_days, approval, handler, stage, deadlines and followers.',
      'Row 2, team: "nobody" means nothing here. It stays as in your last row.',
      'Row 2, working days: 2.5 means nothing here. It stays as in your last row.',
      'The file has no row for everything else. Your last row stays as it is.',
    ]);
  });

  it('has its last row from a rule that asks for nothing, or from what its outputs are otherwise', async () => {
    const team = clause('output', 'name="team"', entry('defaultOutputEntry', '"boats"'));
    const byDefault = await take(
      elsewhere(`hitPolicy="ANY">${input('Fee', 'fee')}${team}${rule(['1'], ['"estates"'])}`),
    );
    const byRule = await take(
      elsewhere(
        `hitPolicy="FIRST">${input('Fee', 'fee')}${clause('output', '')}${rule(['1'], ['"estates"'])}${rule(['-'], ['"boats"'])}`,
      ),
    );
    for (const read of [byDefault, byRule])
      expect(read.ok && [read.table.rows.length, read.table.otherwise.team, read.notes]).toEqual([1, 'boats', []]);
  });

  it('is read in every version of the standard, and is refused where it gives several answers, or none that is known', async () => {
    const good = `hitPolicy="FIRST">${input('Fee', 'fee')}${clause('output', 'name="team"')}${rule(['-'], ['"boats"'])}`;
    for (const version of [
      'http://www.omg.org/spec/DMN/20151101/dmn.xsd',
      'http://www.omg.org/spec/DMN/20180521/MODEL/',
      'https://www.omg.org/spec/DMN/20191111/MODEL/',
      'https://www.omg.org/spec/DMN/20211108/MODEL/',
    ])
      expect([version, (await take(elsewhere(good, version))).ok]).toEqual([version, true]);
    for (const policy of ['COLLECT', 'RULE ORDER', 'OUTPUT ORDER', 'PRIORITY']) {
      const read = await take(elsewhere(good.replace('FIRST', policy)));
      expect([policy, read.ok, JSON.stringify(read).includes(policy)]).toEqual([policy, false, true]);
    }
    const many = { name: '', hitPolicy: 'FIRST', inputs: [], rules: [] } satisfies Partial<DmnTable>;
    const called = (name: string): DmnTable => ({
      ...many,
      outputs: [
        { name, label: '', type: '', values: '', otherwise: '' },
        { name: 'shape', label: '', type: '', values: '', otherwise: '' },
      ],
    });
    expect(routingOf([called('colour')], { ...ground, otherwise }).ok).toBe(false);
    expect(routingOf([called('priority')], { ...ground, otherwise }).ok).toBe(true);
    const long = {
      ...called('team'),
      rules: Array.from({ length: 1_002 }, () => ({ id: '', note: '', inputs: [], outputs: [] })),
    };
    expect(routingOf([long], { ...ground, otherwise }).ok).toBe(false);
  });

  it('is no table where there is none, and is not read where it is something else', async () => {
    expect(await dmnTablesIn(elsewhere('>').replaceAll('decisionTable', 'literalExpression'))).toEqual([]);
    for (const bad of ['', 'hello', '<a/>', '{"format":"other"}']) await expect(dmnTablesIn(bad)).rejects.toThrow();
  });
});
