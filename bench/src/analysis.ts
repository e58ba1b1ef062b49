import { Scope } from '@tolvek/core/expression';
import { type FormRule, prepareCompletion } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { analyseTable, type RoutingTable } from '@tolvek/core/routing';
import { purchase, seeded } from '@tolvek/demo';
import { z } from 'zod';
import type { Figure } from './figure.ts';

const random = seeded(5);
const upTo = (most: number): number => Math.floor(random() * most);

const best = (work: () => unknown): number => {
  let least = Number.POSITIVE_INFINITY;
  for (let round = 0; round < 5; round += 1) {
    const began = performance.now();
    work();
    least = Math.min(least, performance.now() - began);
  }
  return least;
};

/**
 * Analysis of a decision table with 200 rows and 8 columns: numbers, choices and yes/no, about a
 * third of the cells empty.
 */
export function measureAnalysis(): Figure {
  const options = Array.from({ length: 12 }, (_, index) => ({ key: `o${index}`, label: `Option ${index}` }));
  const scope = new Scope([
    ...['a', 'b', 'c'].map((name) => ({ name, label: name, type: { kind: 'number' as const, places: 2 } })),
    ...['d', 'e', 'f'].map((name) => ({ name, label: name, type: { kind: 'choice' as const, options } })),
    ...['g', 'h'].map((name) => ({ name, label: name, type: { kind: 'yes-no' as const } })),
  ]);
  const cell = (name: string): string => {
    if (random() < 0.35) return '';
    if ('abc'.includes(name)) {
      const low = upTo(900);
      return random() < 0.5 ? `> ${low}` : `[${low}..${low + 1 + upTo(400)}]`;
    }
    return 'def'.includes(name) ? `"o${upTo(12)}", "o${upTo(12)}"` : String(random() < 0.5);
  };
  const outcome = { team: 't', priority: 'normal', workingDays: 1, needsApproval: false } as const;
  const names = scope.names.map((entry) => entry.name);
  const table: RoutingTable = {
    columns: names.map((name) => ({ id: name, label: name, input: name })),
    rows: Array.from({ length: 200 }, (_, index) => ({
      id: String(index),
      note: '',
      cells: Object.fromEntries(names.map((name) => [name, cell(name)])),
      outcome,
    })),
    otherwise: outcome,
  };
  const analysis = analyseTable(table, scope);
  const ms = best(() => analyseTable(table, scope));
  return {
    what: `Analysis of a table with 200 rows and 8 columns (${analysis.neverWin.length} rows never win, ${analysis.overlaps.length} overlaps, ${analysis.complete ? 'every case followed' : 'not every case followed'})`,
    ours: `${ms.toFixed(0)} ms`,
    limit: '1,000 ms',
    ratio: `${(ms / 1_000).toFixed(2)} of the limit`,
  };
}

/** A form with 300 fields and 150 rules, and answers to it. */
function largeForm() {
  const fields: Field[] = Array.from({ length: 300 }, (_, index) => ({
    key: `f${index}`,
    label: `Field ${index}`,
    type: index % 3 === 0 ? { kind: 'yes-no' } : index % 3 === 1 ? { kind: 'number', places: 0 } : { kind: 'text' },
    source: 'asked',
  }));
  const parts = fields.map((field) => ({
    part: 'question' as const,
    field: field.key,
    asks: '',
    help: '',
    required: false,
  }));
  const rules = Array.from(
    { length: 150 },
    (_, index): FormRule => ({
      id: `r${index}`,
      name: `Rule ${index}`,
      when: index % 2 === 0 ? `f${index * 2 - ((index * 2) % 3)} = true` : `f${index - (index % 3) + 1} > ${upTo(50)}`,
      says: '',
      then: [{ do: 'show', parts: [`f${299 - index}`] }],
      otherwise: [],
      on: true,
      runs: 'filling',
    }),
  );
  const facts = {
    requesterIsOutside: false,
    requesterId: null,
    requesterGroups: [],
    department: '',
    door: 'staff',
    today: '2026-11-23',
    now: '2026-11-23T10:00',
    people: [],
    files: [],
    vocabularies: [],
    references: [],
    numbers: {},
    calendar: { open: [], closed: [] },
  } as const;
  const answers = Object.fromEntries(
    fields.map((field, index) => [
      field.key,
      index % 3 === 0 ? index % 2 === 0 : index % 3 === 1 ? String(index) : 'some text',
    ]),
  );
  return { form: { fields, parts, rules }, facts, answers };
}

/** The rules of a large form, re-evaluated after one keystroke. */
export function measureKeystroke(): Figure {
  const { form, facts, answers } = largeForm();
  const complete = prepareCompletion(form);
  let typed = 0;
  const rounds = 50;
  const ms =
    best(() => {
      for (let round = 0; round < rounds; round += 1) {
        typed += 1;
        complete({ ...answers, f2: `some text ${typed}` }, facts);
      }
    }) / rounds;
  return {
    what: 'A form with 300 fields and 150 rules after one keystroke',
    ours: `${ms.toFixed(2)} ms`,
    limit: '2 ms',
    ratio: `${(ms / 2).toFixed(2)} of the limit`,
  };
}

/**
 * What the proof does after a change of the form itself: everything is prepared anew, and
 * completed.
 */
export function measureProof(): Figure {
  const { form, facts, answers } = largeForm();
  let change = 0;
  const ms = best(() => {
    change += 1;
    const fields = form.fields.map((field, index) => (index === 7 ? { ...field, label: `Field ${change}` } : field));
    prepareCompletion({ ...form, fields })(answers, facts);
  });
  return {
    what: 'The proof of a form with 300 fields and 150 rules after a change of the form, without drawing it',
    ours: `${ms.toFixed(1)} ms`,
    limit: '100 ms for all of it',
    ratio: `${(ms / 100).toFixed(2)} of the limit`,
  };
}

const ROWS = 10_000;

/** Rows of a purchase completed with rules and sums, beside the same rows only parsed by Zod. */
export function measureRows(): Figure {
  const { design } = purchase;
  const facts = { ...largeForm().facts, requesterId: 'p' };
  const rows = Array.from({ length: ROWS }, (_, index) => ({
    purpose: `Purchase ${index}`,
    budget: 'MB2041',
    lines: [
      { what: 'Filter discs', count: (index % 9) + 1, price: `${(index % 400) + 0.5}`, vat: 'full' },
      { what: 'Bottles', count: 3, price: '1.15', vat: 'reduced' },
    ],
  }));
  const complete = prepareCompletion(design);
  const ours = best(() => {
    for (const row of rows) if (complete(row, facts).values.total === undefined) throw new Error('no total');
  });
  const line = z.object({
    what: z.string().max(200),
    count: z.coerce.number().int().min(1),
    price: z.coerce.number().min(0),
    vat: z.enum(['full', 'reduced', 'none']),
  });
  const schema = z.object({
    purpose: z.string().max(200),
    budget: z.string().max(12),
    lines: z.array(line).min(1).max(40),
  });
  const bare = best(() => {
    for (const row of rows) schema.parse(row);
  });
  return {
    what: `${ROWS} imported purchases of two lines completed: read, computed, rules and all`,
    ours: `${ours.toFixed(0)} ms (${Math.round((ROWS / ours) * 1_000)} a second)`,
    limit: `${bare.toFixed(0)} ms for Zod parsing the same rows; 10,000 a second wanted`,
    ratio: `${(ours / bare).toFixed(1)} times; ${(ours / 1_000).toFixed(2)} of the limit`,
  };
}
