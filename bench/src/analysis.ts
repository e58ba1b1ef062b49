import { type FormRule, prepareCompletion } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { analyseTable } from '@tolvek/core/routing';
import { purchase, seeded } from '@tolvek/demo';
import { z } from 'zod';
import { benchTable, type LargeTable, largeTable, numbersTable } from '../../core/laws/largeTables.ts';
import { type Figure, figure, interleaved, ROUNDS } from './figure.ts';

const random = seeded(5);
const upTo = (most: number): number => Math.floor(random() * most);

/** How long a piece of work takes, ms. */
const timed = (work: () => unknown): number => {
  const began = performance.now();
  work();
  return performance.now() - began;
};

/**
 * Every pair of rows held against each other, column by column, on numbers laid out beforehand: the
 * least any analysis does.
 */
function pairsByHand({ table }: LargeTable): () => number {
  const cells = table.rows.map((row) =>
    table.columns.map(({ id }) => {
      const text = row.cells[id] ?? '';
      const numbers = (text.match(/\d+/g) ?? []).map(Number);
      return { low: numbers[0] ?? 0, high: numbers[1] ?? 1_000, any: text === '' };
    }),
  );
  return () => {
    let met = 0;
    for (const [index, a] of cells.entries())
      for (let other = 0; other < index; other += 1) {
        const b = cells[other] ?? [];
        let common = true;
        for (let column = 0; column < a.length && common; column += 1) {
          const [x, y] = [a[column], b[column]];
          if (x && y && !x.any && !y.any) common = x.low <= y.high && y.low <= x.high;
        }
        if (common) met += 1;
      }
    return met;
  };
}

/** Routing tables looked through, beside every pair of their rows compared by hand. */
export async function measureAnalysis(): Promise<readonly Figure[]> {
  const figures: Figure[] = [];
  for (const [name, large, wanted] of [
    ['200 rows, 8 columns', benchTable(), 400],
    ['200 rows, 8 columns, half of them numbers', numbersTable(), 400],
    ['400 rows, 8 columns, half of them numbers', largeTable('nnnncccb', 400, 7), 400],
  ] as const) {
    const byHand = pairsByHand(large);
    figures.push(
      await interleaved(
        `Routing table looked through, ms: ${name}; limit: all pairs of rows by hand`,
        wanted,
        () => timed(() => analyseTable(large.table, large.scope)),
        () => timed(() => Array.from({ length: 10 }, byHand)) / 10,
      ),
    );
  }
  return figures;
}

/** A form with 300 fields and 150 rules, and answers to it. */
export function largeForm() {
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
    profile: { fields: [], values: {} },
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

/**
 * The rules of a large form, re-evaluated after one keystroke, beside the same rules written by
 * hand.
 */
export async function measureKeystroke(): Promise<Figure> {
  const { form, facts, answers } = largeForm();
  const complete = prepareCompletion(form);
  const byHand = form.rules.map((rule) => {
    const [field = '', op = '', to = ''] = rule.when.split(' ');
    const target = rule.then[0]?.do === 'show' ? (rule.then[0].parts[0] ?? '') : '';
    return { field, isAbove: op === '>', to: Number(to), target };
  });
  let typed = 0;
  const rounds = 50;
  return interleaved(
    'A form with 300 fields and 150 rules after one keystroke, ms; limit: its answers read and its rules written by hand',
    20,
    () =>
      timed(() => {
        for (let round = 0; round < rounds; round += 1) {
          typed += 1;
          complete({ ...answers, f2: `some text ${typed}` }, facts);
        }
      }) / rounds,
    () =>
      timed(() => {
        for (let round = 0; round < rounds; round += 1) {
          typed += 1;
          const given: Record<string, unknown> = { ...answers, f2: `some text ${typed}` };
          const values = new Map<string, unknown>();
          for (const field of form.fields) {
            const raw = given[field.key];
            values.set(field.key, field.type.kind === 'number' ? Number(raw) : raw);
          }
          const shown = new Set<string>();
          for (const rule of byHand) {
            const value = values.get(rule.field);
            if (rule.isAbove ? Number(value) > rule.to : value === true) shown.add(rule.target);
          }
        }
      }) / rounds,
  );
}

/** What the proof does after a change of the form itself, beside a copy of the form. */
export async function measureProof(): Promise<Figure> {
  const { form, facts, answers } = largeForm();
  let change = 0;
  return interleaved(
    'The proof of a form with 300 fields and 150 rules after a change of the form, ms; limit: the form read from JSON',
    60,
    () =>
      timed(() => {
        change += 1;
        const fields = form.fields.map((field, index) =>
          index === 7 ? { ...field, label: `Field ${change}` } : field,
        );
        prepareCompletion({ ...form, fields })(answers, facts);
      }),
    () => timed(() => JSON.parse(JSON.stringify(form))),
  );
}

const ROWS = 10_000;
/** So many are to be completed. */
const PURCHASES_A_SECOND = 20_000;

/** Rows of a purchase completed with rules and sums, beside the same rows only parsed by Zod. */
export async function measureRows(): Promise<readonly Figure[]> {
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
  const ours = (): void => {
    for (const row of rows) if (complete(row, facts).values.total === undefined) throw new Error('no total');
  };
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
  const bare = (): void => {
    for (const row of rows) schema.parse(row);
  };
  const took = Array.from({ length: ROUNDS }, () => timed(ours));
  const beside = await interleaved(
    `${ROWS} imported purchases of two lines completed, ms: read, computed, rules and all; limit: Zod parsing the same rows`,
    60,
    () => timed(ours),
    () => timed(bare),
  );
  const limit = (ROWS / PURCHASES_A_SECOND) * 1_000;
  return [beside, figure(`${ROWS} imported purchases completed, ms; limit: ${limit}`, took, [limit], 1)];
}
