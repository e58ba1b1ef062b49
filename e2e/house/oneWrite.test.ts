import { claimOf, type FormDesign, type FormRule, prepareKeeping, RECIPES } from '@tolvek/core/form';
import type { Field, Values } from '@tolvek/core/register';
import { VOCABULARIES } from '@tolvek/demo';
import { claims, history, pointers, requests, tallies, timers } from '@tolvek/server/schema';
import { english } from '@tolvek/words/english';
import { and, asc, eq } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { withChanges } from '../../server/src/request/changes.ts';
import { factsOfRequest } from '../../server/src/request/facts.ts';
import { fieldsOf } from '../../server/src/request/fields.ts';
import { type Caller, Desk } from './desk.ts';

/**
 * One write: whatever happens to requests, in whatever order, what is computed is as if it were
 * computed now; what they claim and point to, and what is counted of them, is as if it were made from
 * nothing; and their history, played from the arrival on, ends at what they hold.
 */
let desk: Desk;
let maren: Caller;
let priya: Caller;
let bram: Caller;
/** What each request held when it arrived. */
const arrived = new Map<string, Values>();
const did = new Map<string, number>();
const refused = new Map<string, number>();

const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
const onVersion = (version: number) => ({ 'If-Match': `"${version}"` });
const asking = (field: string) => ({ part: 'question', field, asks: '', help: '', required: false }) as const;
const rule = (id: string, more: Partial<FormRule>): FormRule => ({
  ...{ id, name: id, says: '', when: 'size > 3', then: [], otherwise: [], on: true, runs: 'saving' },
  ...more,
});

function design(
  title: string,
  more: readonly Field[],
  parts: readonly string[],
  change: Partial<FormDesign>,
): FormDesign {
  const simple = RECIPES.find((each) => each.key === 'simple')?.make({
    told: english,
    ...{ title, team: 'boats', approvers: 'duty-managers', calendar: 'desk' },
  }) as FormDesign;
  return {
    ...simple,
    fields: [...simple.fields, ...more],
    parts: [
      ...simple.parts.map((part) => (part.part === 'question' ? { ...part, required: false } : part)),
      ...parts.map(asking),
    ],
    ...change,
  };
}

/** Things, what points to them, and what points to that: each brings along what follows. */
const WARES = design(
  'Wares',
  [
    { key: 'size', label: 'Size', type: { kind: 'number', places: 0 }, source: 'asked' },
    { key: 'species', label: 'Species', type: { kind: 'term', vocabulary: 'species' }, source: 'asked' },
    { key: 'code', label: 'Code', type: { kind: 'text' }, source: 'asked' },
    { key: 'mark', label: 'Mark', type: { kind: 'text' }, source: 'desk-only' },
    { key: 'double', label: 'Double', type: { kind: 'number', places: 0 }, source: 'computed', formula: 'size * 2' },
    { key: 'is_cod', label: 'Cod', type: { kind: 'yes-no' }, source: 'computed', formula: 'species = "cod"' },
    { key: 'past', label: 'Past', type: { kind: 'yes-no' }, source: 'computed', formula: 'today > needed_by' },
  ],
  ['size', 'species', 'code'],
  {
    unique: [
      { id: 'u-code', fields: ['code'], among: 'unfinished' },
      { id: 'u-both', fields: ['what', 'species'], among: 'all' },
    ],
    rules: [
      rule('marks', { then: [{ do: 'set', field: 'mark', value: '"big"' }] }),
      rule('tells', { when: 'false', then: [{ do: 'set', field: 'mark', value: '"told"' }] }),
    ],
  },
);
const USES = design(
  'Uses',
  [
    {
      ...{ key: 'ware', label: 'Ware', source: 'asked' },
      type: { kind: 'reference', register: 'wares', shows: ['what'], among: 'all' },
    },
    {
      ...{ key: 'ware_double', label: 'Its double', source: 'carried', reference: 'ware', field: 'double', live: true },
      type: { kind: 'number', places: 0 },
    },
    {
      ...{
        key: 'ware_species',
        label: 'Its species',
        source: 'carried',
        reference: 'ware',
        field: 'species',
        live: true,
      },
      type: { kind: 'term', vocabulary: 'species' },
    },
    { key: 'large', label: 'Large', type: { kind: 'yes-no' }, source: 'computed', formula: 'ware_double > 8' },
  ] as readonly Field[],
  ['ware'],
  {},
);

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, bram] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Bram Solheim'),
  ];
  for (const [prefix, draft] of [
    ['WR', WARES],
    ['US', USES],
  ] as const) {
    const body = { prefix, desk: 'boats', doors: { staff: true, outside: false }, draft };
    const made = await maren.call('createForm', { headers: key(), body });
    if (made.status !== 200) throw new Error(made.text);
    await maren.call('releaseForm', { params: { key: made.body.key }, headers: onVersion(1), body: { note: '' } });
  }
});
afterAll(() => desk.close());

const db = () => desk.running.house.db;
const all = (form: string) =>
  db()
    .select()
    .from(requests)
    .where(eq(requests.formId, desk.formId(form)))
    .orderBy(asc(requests.createdAt))
    .all();
const some = <T>(list: readonly T[], pick: number): T | undefined => list[pick % Math.max(1, list.length)];

/** Does something as a person would, and counts what was refused in words. */
async function act(name: string, doing: Promise<{ status: number; text: string }>): Promise<boolean> {
  const { status, text } = await doing;
  if (status !== 200 && ![404, 409, 412, 422].includes(status)) throw new Error(`${name}: ${status} ${text}`);
  const counts = status === 200 ? did : refused;
  counts.set(name, (counts.get(name) ?? 0) + 1);
  return status === 200;
}

const remember = (): void => {
  for (const form of ['wares', 'uses'])
    for (const { id, values } of all(form)) if (!arrived.has(id)) arrived.set(id, values);
};

const SPECIES = ['cod', 'saithe', 'grey_seal', 'oarweed'];
const answers = fc.record({
  what: fc.constantFrom('net', 'rope', 'trap', 'float', 'buoy', 'chain', 'hook', 'winch', 'bait', 'cage'),
  size: fc.integer({ min: 0, max: 9 }),
  species: fc.constantFrom(...SPECIES),
  code: fc.option(fc.constantFrom('A', 'B', 'C', 'D', 'E', 'F'), { nil: undefined }),
  needed_by: fc.constantFrom('', '', '2026-11-26', '2026-12-01', '2027-02-01'),
});

/** What can happen, each with what it picks from. */
const STEPS = fc.oneof(
  { weight: 5, arbitrary: fc.record({ does: fc.constant('ask' as const), answers }) },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('import' as const), answers }) },
  { weight: 3, arbitrary: fc.record({ does: fc.constant('use' as const), pick: fc.nat() }) },
  { weight: 6, arbitrary: fc.record({ does: fc.constant('change' as const), pick: fc.nat(), answers }) },
  {
    weight: 2,
    arbitrary: fc.record({ does: fc.constant('point elsewhere' as const), pick: fc.nat(), other: fc.nat() }),
  },
  { weight: 4, arbitrary: fc.record({ does: fc.constant('finish' as const), pick: fc.nat() }) },
  { weight: 4, arbitrary: fc.record({ does: fc.constant('take up again' as const), pick: fc.nat() }) },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('give' as const), pick: fc.nat() }) },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('rule over all' as const) }) },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('take back' as const) }) },
  { weight: 1, arbitrary: fc.record({ does: fc.constant('merge' as const), from: fc.nat(), into: fc.nat() }) },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('day' as const) }) },
);
type Step = typeof STEPS extends fc.Arbitrary<infer S> ? S : never;

async function step(what: Step): Promise<void> {
  const name = what.does;
  switch (what.does) {
    case 'ask':
      return void (await act(name, priya.submit('wares', what.answers)));
    case 'import': {
      const cells = Object.fromEntries(
        Object.entries(what.answers).flatMap(([k, v]) => (v === undefined ? [] : [[k, String(v)]])),
      );
      const body = { rows: [{ cells, requester: '' }], apply: true };
      return void (await act(name, maren.call('takeInRows', { params: { key: 'wares' }, headers: key(), body })));
    }
    case 'use': {
      const ware = some(all('wares'), what.pick);
      return ware && void (await act(name, priya.submit('uses', { what: 'use', why: 'x', ware: ware.id })));
    }
    case 'change': {
      const row = some(all('wares'), what.pick);
      const { code = '', ...rest } = what.answers;
      const params = { number: row?.number ?? '' };
      const headers = onVersion(row?.version ?? 1);
      return (
        row &&
        void (await act(name, bram.call('changeFields', { params, headers, body: { changes: { ...rest, code } } })))
      );
    }
    case 'point elsewhere': {
      const [row, ware] = [some(all('uses'), what.pick), some(all('wares'), what.other)];
      if (!row || !ware) return;
      const params = { number: row.number };
      const body = { changes: { ware: ware.id } };
      return void (await act(name, bram.call('changeFields', { params, headers: onVersion(row.version), body })));
    }
    case 'finish':
    case 'take up again': {
      const rows = [...all('wares'), ...all('uses')].filter(
        (row) => (row.phase === 'finished') === (name !== 'finish'),
      );
      const row = some(rows, what.pick);
      if (!row) return;
      const body = { stage: name === 'finish' ? 'done' : 'in_hand' };
      return void (await act(
        name,
        bram.call('moveStage', { params: { number: row.number }, headers: onVersion(row.version), body }),
      ));
    }
    case 'give': {
      const row = some(all('wares'), what.pick);
      if (!row) return;
      const sheet = await bram.sheet(row.number);
      const person = row.handlerId ? null : (sheet.assignable[0]?.id ?? null);
      return void (await act(
        name,
        bram.call('assign', { params: { number: row.number }, headers: onVersion(row.version), body: { person } }),
      ));
    }
    case 'rule over all': {
      const params = { key: 'wares', rule: 'tells' };
      const { version, draft } = (await maren.call('form', { params: { key: 'wares' } })).body;
      const value = `"told ${did.get(name) ?? 0}"`;
      const rules = draft.rules.map((each: FormRule) =>
        each.id === 'tells' ? { ...each, when: 'size > 5', then: [{ do: 'set', field: 'mark', value }] } : each,
      );
      await maren.call('saveDraft', {
        params: { key: 'wares' },
        headers: onVersion(version),
        body: { draft: { ...draft, rules } },
      });
      const { shown } = (await maren.call('overExisting', { params, body: { among: 'all', shown: null } })).body;
      return void (await act(name, maren.call('overExisting', { params, body: { among: 'all', shown } })));
    }
    case 'take back': {
      const params = { key: 'wares', rule: 'tells' };
      const { last } = (await maren.call('overExisting', { params, body: { among: 'all', shown: null } })).body;
      return last && void (await act(name, maren.call('takeRunBack', { params: { key: 'wares', run: last.run } })));
    }
    case 'merge': {
      const { version, terms } = (await maren.call('vocabulary', { params: { key: 'species' } })).body;
      const [from, into] = [some(SPECIES, what.from), some(SPECIES, what.into)];
      const isMerged = (each: string | undefined) =>
        terms.some((term: { key: string; now?: string }) => term.key === each && term.now);
      if (
        from === into ||
        isMerged(from) ||
        isMerged(into) ||
        terms.some((term: { now?: string }) => term.now === from)
      )
        return;
      const body = {
        name: 'Species',
        terms: terms.map((term: { key: string }) => (term.key === from ? { ...term, now: into } : term)),
      };
      return void (await act(
        name,
        maren.call('saveVocabulary', { params: { key: 'species' }, headers: onVersion(version), body }),
      ));
    }
    case 'day':
      await act(name, priya.call('advanceClock', { body: { minutes: 24 * 60 } }));
      return desk.running.dayTurned();
  }
}

/** Unmerges everything, so that the next sequence has something to merge. */
async function partTerms(): Promise<void> {
  const { version } = (await maren.call('vocabulary', { params: { key: 'species' } })).body;
  const terms = VOCABULARIES.find((each) => each.key === 'species')?.terms;
  await maren.call('saveVocabulary', {
    params: { key: 'species' },
    headers: onVersion(version),
    body: { name: 'Species', terms },
  });
}

/** What is not as it would be, made from nothing. */
function faults(): readonly string[] {
  const found: string[] = [];
  for (const form of ['wares', 'uses']) {
    const register = desk.register(form);
    for (const row of all(form)) {
      const facts = factsOfRequest(db(), row, register, desk.running.house.clock.now());
      const keep = prepareKeeping({ fields: fieldsOf(db(), register, row), parts: [], rules: [] });
      const again = keep(row.values, new Set(), facts).values;
      // What depends on the day is computed while a request is under way.
      const still = (values: Values) =>
        Object.entries(values)
          .filter(([field]) => field !== 'past' || row.phase !== 'finished')
          .sort();
      if (JSON.stringify(still(again)) !== JSON.stringify(still(row.values)))
        found.push(`computed of ${row.number}: ${JSON.stringify(row.values)} is ${JSON.stringify(again)}`);
      const wanted = register.unique.flatMap((each) => {
        const value = claimOf(each, register.fields, row.values);
        return value === null || (each.among === 'unfinished' && row.phase === 'finished')
          ? []
          : [`${each.id} ${value}`];
      });
      const held = db()
        .select()
        .from(claims)
        .where(eq(claims.requestId, row.id))
        .all()
        .map((each) => `${each.ruleId} ${each.value}`);
      if (JSON.stringify(held.sort()) !== JSON.stringify(wanted.sort()))
        found.push(`claims of ${row.number}: ${held} for ${wanted}`);
      const points = db()
        .select()
        .from(pointers)
        .where(eq(pointers.requestId, row.id))
        .all()
        .map((each) => `${each.field} ${each.targetId}`);
      const pointing = row.values.ware === undefined ? [] : [`ware ${row.values.ware}`];
      if (JSON.stringify(points) !== JSON.stringify(pointing)) found.push(`pointers of ${row.number}`);
      const waiting = db()
        .select()
        .from(timers)
        .where(and(eq(timers.requestId, row.id), eq(timers.state, 'waiting')))
        .all();
      if (row.phase === 'finished' && waiting.length > 0) found.push(`timers of ${row.number}, which is finished`);
      const entries = db()
        .select()
        .from(history)
        .where(eq(history.requestId, row.id))
        .orderBy(asc(history.at), asc(history.id))
        .all();
      let played = arrived.get(row.id) ?? {};
      for (const entry of entries) played = withChanges(played, entry.changes);
      const sorted = (values: Values) => JSON.stringify(Object.entries(values).sort());
      if (sorted(played) !== sorted(row.values))
        found.push(`history of ${row.number}: ${sorted(played)} for ${sorted(row.values)}`);
      if (entries[0]?.data?.kind !== 'arrived') found.push(`history of ${row.number} begins with no arrival`);
    }
  }
  const counted = new Map<string, number>();
  for (const row of db().select().from(requests).where(eq(requests.trial, false)).all()) {
    const which = [
      row.registerId,
      row.formId,
      row.phase,
      row.stage,
      row.team,
      row.handlerId ?? '',
      row.deciders ?? '',
    ].join(' ');
    counted.set(which, (counted.get(which) ?? 0) + 1);
  }
  for (const row of db().select().from(tallies).all()) {
    const which = [row.registerId, row.formId, row.phase, row.stage, row.team, row.handlerId, row.deciders].join(' ');
    if ((counted.get(which) ?? 0) !== row.n) found.push(`tally ${which}: ${row.n} for ${counted.get(which) ?? 0}`);
    counted.delete(which);
  }
  if (counted.size > 0) found.push(`not counted: ${[...counted.keys()]}`);
  return found;
}

describe('one write', () => {
  it('leaves what is computed, claimed, pointed to, counted and remembered as if it were made from nothing', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(STEPS, { minLength: 12, maxLength: 25, size: 'max' }), async (steps) => {
        for (const each of steps) {
          await step(each);
          remember();
        }
        await desk.running.dayTurned();
        remember();
        expect(faults()).toEqual([]);
        await partTerms();
      }),
      { numRuns: Number(process.env.TOLVEK_RUNS ?? often(20)), endOnFailure: true },
    );
    const names = [
      'ask',
      'import',
      'use',
      'change',
      'point elsewhere',
      'finish',
      'take up again',
      'give',
      'rule over all',
      'take back',
      'merge',
      'day',
    ];
    const counts = (of: ReadonlyMap<string, number>) => names.map((name) => `${name} ${of.get(name) ?? 0}`).join(', ');
    console.log(`done: ${counts(did)}\nrefused: ${counts(refused)}\n${arrived.size} requests`);
    expect(names.filter((name) => !did.get(name))).toEqual([]);
    // What no two may have was refused: at the door, on the sheet, and where a finished one is taken up again.
    for (const name of ['ask', 'change', 'take up again'])
      expect([name, (refused.get(name) ?? 0) > 0]).toEqual([name, true]);
    const kinds = new Set(
      db()
        .select({ data: history.data })
        .from(history)
        .all()
        .flatMap(({ data }) => (data?.kind === 'values' ? [data.why] : [])),
    );
    expect([...kinds].sort()).toEqual(['changed', 'day', 'followed', 'merged', 'rule', 'taken back']);
  });
});
