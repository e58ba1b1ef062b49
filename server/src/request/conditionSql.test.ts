import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  CalendarDate,
  compile,
  DateTime,
  Duration,
  type Node,
  parseExpression,
  printExpression,
  type Test,
} from '@tolvek/core/expression';
import { type Field, type RequestFacts, requestScope, requestSlots, type Values } from '@tolvek/core/register';
import { sql } from 'drizzle-orm';
import * as fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Database, openDatabase } from '../platform/database.ts';
import { splitCondition } from './conditionSql.ts';
import { requests } from './tables.ts';

const fields: readonly Field[] = [
  { key: 'fee', label: 'Fee', type: { kind: 'money', currency: 'EUR' }, source: 'asked' },
  { key: 'nights', label: 'Nights', type: { kind: 'number', places: 2 }, source: 'asked' },
  { key: 'visitor', label: 'Visitor', type: { kind: 'text' }, source: 'asked' },
  {
    key: 'institute',
    label: 'Institute',
    type: { kind: 'choice', options: ['corrin', 'merrow'].map((key) => ({ key, label: key })) },
    source: 'asked',
  },
  { key: 'water', label: 'On water', type: { kind: 'yes-no' }, source: 'asked' },
  { key: 'arrival', label: 'Arrival', type: { kind: 'date' }, source: 'asked' },
  { key: 'leaves', label: 'Leaves', type: { kind: 'date-time' }, source: 'asked' },
  { key: 'takes', label: 'Takes', type: { kind: 'duration' }, source: 'asked' },
];
const scope = requestScope(fields);
const facts: RequestFacts = {
  requesterIsOutside: true,
  requesterId: null,
  requesterGroups: [],
  department: '',
  door: 'outside',
  today: '2026-11-23',
  now: '2026-11-23T10:00',
  people: [],
  files: [],
  vocabularies: [],
  references: [],
  numbers: {},
  calendar: { open: [], closed: [] },
};
const sqlFacts = { requesterIsOutside: sql`1`, door: sql`'outside'`, today: CalendarDate.read('2026-11-23') };

const names = fc.constantFrom('', 'Ada', 'ada', 'Ä', 'Łukasz', 'a%b', "o'n", '“q”', '𝔘nicode', 'x_y');
const days = fc.integer({ min: 20_770, max: 20_790 }).map((day) => new CalendarDate(day).toString());
const minutes = fc.integer({ min: 0, max: 5 });
const maybe = <T>(key: string, value: fc.Arbitrary<T>): fc.Arbitrary<Record<string, T>> =>
  fc.oneof({ weight: 4, arbitrary: value.map((each) => ({ [key]: each })) }, { weight: 1, arbitrary: fc.constant({}) });
const anyValues: fc.Arbitrary<Values> = fc
  .tuple(
    maybe(
      'fee',
      fc.integer({ min: -500, max: 90_000 }).map((minor) => ({ minor, currency: 'EUR' })),
    ),
    maybe(
      'nights',
      fc.integer({ min: -100, max: 2_000 }).map((n) => n / 100),
    ),
    maybe('visitor', names),
    maybe('institute', fc.constantFrom('corrin', 'merrow')),
    maybe('water', fc.boolean()),
    maybe('arrival', days),
    maybe(
      'leaves',
      minutes.map((at) => `2026-11-23T09:${String(at).padStart(2, '0')}`),
    ),
    maybe('takes', fc.integer({ min: 0, max: 4_000 })),
  )
  .map((parts) => Object.assign({}, ...parts) as Values);

const at = { from: 0, to: 0 };
const literal = (value: number | string | boolean | null): Node => ({ kind: 'literal', value, ...at });
const figure = fc
  .oneof(
    fc.integer({ min: -100, max: 90_000 }).map((cents) => cents / 100),
    fc.constantFrom(0, 5.005, 1e20),
  )
  .map(literal);
const day = fc.oneof(
  days.map((iso): Node => ({ kind: 'moment', value: CalendarDate.read(iso) as CalendarDate, ...at })),
  fc.constantFrom('today', 'today + duration("P3D")', 'today - duration("P1M")').map((text) => {
    const parsed = parseExpression(text);
    if (!parsed.ok) throw new Error(text);
    return parsed.value;
  }),
);
const OPERANDS: Readonly<Record<string, fc.Arbitrary<Node>>> = {
  fee: figure,
  nights: figure,
  visitor: names.map(literal),
  institute: fc.constantFrom('corrin', 'merrow', 'gone').map(literal),
  water: fc.boolean().map(literal),
  arrival: day,
  leaves: fc.tuple(minutes, fc.constantFrom(0, 0, 30)).map(
    ([minute, second]): Node => ({
      kind: 'moment',
      value: new DateTime((DateTime.read('2026-11-23T09:00')?.seconds ?? 0) + minute * 60 + second),
      ...at,
    }),
  ),
  takes: fc
    .integer({ min: -60, max: 240_000 })
    .map((seconds): Node => ({ kind: 'moment', value: new Duration(seconds), ...at })),
};
const comparator = fc.constantFrom('=', '!=', '<', '<=', '>', '>=' as const);
const about = (key: string): Node => ({ kind: 'name', name: key, ...at });
const anyField = fc.constantFrom(...Object.keys(OPERANDS));
const operandOf = (key: string): fc.Arbitrary<Node> =>
  fc.oneof(
    { weight: 8, arbitrary: OPERANDS[key] ?? figure },
    { weight: 1, arbitrary: fc.constant(literal(null)) },
    { weight: 1, arbitrary: figure },
  );
const testOf = (key: string): fc.Arbitrary<Test> =>
  fc.oneof(
    operandOf(key).map((operand): Test => ({ kind: 'equal', operand, ...at })),
    fc.tuple(comparator, operandOf(key)).map(([op, operand]): Test => ({ kind: 'compare', op, operand, ...at })),
    fc
      .tuple(operandOf(key), operandOf(key), fc.boolean(), fc.boolean())
      .map(([low, high, lowOpen, highOpen]): Test => ({ kind: 'range', low, high, lowOpen, highOpen, ...at })),
  );
const atom: fc.Arbitrary<Node> = fc.oneof(
  anyField.chain((key) =>
    fc
      .tuple(comparator, operandOf(key), fc.boolean())
      .map(
        ([op, to, turned]): Node =>
          turned
            ? { kind: 'compare', op, left: to, right: about(key), ...at }
            : { kind: 'compare', op, left: about(key), right: to, ...at },
      ),
  ),
  anyField.chain((key) =>
    fc
      .tuple(operandOf(key), operandOf(key))
      .map(([low, high]): Node => ({ kind: 'between', of: about(key), low, high, ...at })),
  ),
  anyField.chain((key) =>
    fc
      .array(testOf(key), { minLength: 1, maxLength: 3 })
      .map((tests): Node => ({ kind: 'in', of: about(key), tests, ...at })),
  ),
  fc
    .tuple(fc.constantFrom('contains', 'starts with', 'ends with'), names)
    .map(([name, part]): Node => ({ kind: 'call', name, args: [about('visitor'), literal(part)], ...at })),
  fc.constantFrom(about('water'), literal(true), literal(false), literal(null)),
  fc
    .constantFrom(
      'requester.outside',
      'door = "outside"',
      'string length(visitor) > 3',
      'nights * 2 > fee',
      'if water then true else null',
    )
    .map((text) => {
      const parsed = parseExpression(text);
      if (!parsed.ok) throw new Error(text);
      return parsed.value;
    }),
);
const { condition } = fc.letrec<{ condition: Node }>((tie) => ({
  condition: fc.oneof(
    { maxDepth: 4 },
    atom,
    fc
      .tuple(fc.constantFrom('and', 'or' as const), tie('condition'), tie('condition'))
      .map(([kind, left, right]): Node => ({ kind, left, right, ...at })),
    tie('condition').map((of): Node => ({ kind: 'call', name: 'not', args: [of], ...at })),
  ),
}));

let folder: string;
let db: Database;
const stored: Values[] = fc.sample(anyValues, { numRuns: 150, seed: 3 });

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
  db = openDatabase(folder);
  db.$client.pragma('foreign_keys = OFF');
  stored.forEach((values, index) => {
    const row = {
      formId: '',
      releaseId: '',
      doorId: '',
      requesterId: '',
      stage: '',
      phase: 'arrived',
      team: '',
      priority: 'normal',
      due: 0,
      createdAt: 0,
      updatedAt: 0,
    } as const;
    db.insert(requests)
      .values({
        id: String(index),
        number: `AC-${index}`,
        registerId: '',
        ...row,
        values,
      })
      .run();
  });
});
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

/** The requests a condition holds for: narrowed by SQLite, the rest tried in memory. */
function found(node: Node): { ids: readonly string[]; whole: boolean } {
  const { where, rest } = splitCondition(node, fields, scope, sqlFacts);
  const rows = db
    .select({ id: requests.id, values: requests.values })
    .from(requests)
    .where(where)
    .orderBy(sql`cast(${requests.id} as integer)`)
    .all();
  const holds = rest && compile(rest, scope);
  return {
    ids: rows
      .filter((row) => !holds || holds(requestSlots(fields, row.values, facts), null) === true)
      .map((row) => row.id),
    whole: rest === null,
  };
}

describe('a condition as SQL', () => {
  it('finds exactly the requests it holds for, in thousands of conditions', () => {
    let whole = 0;
    fc.assert(
      fc.property(condition, (node) => {
        const holds = compile(node, scope);
        const wanted = stored.flatMap((values, index) =>
          holds(requestSlots(fields, values, facts), null) === true ? [String(index)] : [],
        );
        const answer = found(node);
        if (answer.whole) whole += 1;
        expect([printExpression(node), answer.ids]).toEqual([printExpression(node), wanted]);
      }),
      { numRuns: 3_000 },
    );
    expect(whole).toBeGreaterThan(1_000);
  });

  it('leaves to memory only what SQLite can’t decide, part by part of an “and”', () => {
    const parsed = parseExpression('fee > 500 and string length(visitor) > 3 and water');
    if (!parsed.ok) throw new Error('unreadable');
    const { where, rest } = splitCondition(parsed.value, fields, scope);
    expect(where).toBeDefined();
    expect(rest && printExpression(rest)).toBe('string length(visitor) > 3');
  });

  it('passes every value as a parameter', () => {
    const parsed = parseExpression(`visitor = "'; drop table requests; --" and contains(visitor, "%_")`);
    if (!parsed.ok) throw new Error('unreadable');
    const { where } = splitCondition(parsed.value, fields, scope);
    const query = db.select({ id: requests.id }).from(requests).where(where).toSQL();
    expect(query.sql).not.toContain('drop table');
    expect(query.params).toContain("'; drop table requests; --");
  });
});
