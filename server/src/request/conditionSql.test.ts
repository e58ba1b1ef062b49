import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { wallClockAt } from '@tolvek/core/deadline';
import {
  CalendarDate,
  compile,
  DateTime,
  Duration,
  type Node,
  parseExpression,
  printExpression,
  type Slots,
  type Test,
} from '@tolvek/core/expression';
import {
  type Field,
  meOf,
  type RequestFacts,
  type RequestStanding,
  type StandingViewer,
  standingScope,
  standingSlots,
  type Values,
} from '@tolvek/core/register';
import { sql } from 'drizzle-orm';
import * as fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { often } from '../../../core/laws/often.ts';
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
  {
    key: 'gear',
    label: 'Gear',
    type: { kind: 'choices', options: ['net', 'rod', 'kite'].map((key) => ({ key, label: key })) },
    source: 'asked',
  },
  { key: 'crew', label: 'Crew', type: { kind: 'people', from: [] }, source: 'asked' },
  {
    key: 'lines',
    label: 'Lines',
    type: {
      kind: 'line-items',
      columns: [
        { key: 'what', label: 'What', type: { kind: 'text' }, required: false },
        { key: 'pieces', label: 'Pieces', type: { kind: 'number', places: 0 }, required: false },
        { key: 'price', label: 'Price', type: { kind: 'money', currency: 'EUR' }, required: false },
        { key: 'fresh', label: 'Fresh', type: { kind: 'yes-no' }, required: false },
      ],
    },
    source: 'asked',
  },
];
const ZONE = 'Europe/Dublin';
const STAGES = ['arrived', 'in_hand', 'done'] as const;
const scope = standingScope(fields, { stages: STAGES.map((key) => ({ key, label: key })) });
const me: StandingViewer = { person: 'ada', groups: ['lab'], department: '', profile: { fields: [], values: {} } };
const facts: RequestFacts = {
  requesterIsOutside: true,
  requesterId: null,
  requesterGroups: [],
  profile: { fields: [], values: {} },
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
const sqlFacts = {
  ...{ requesterIsOutside: sql`1`, door: sql`'outside'`, today: CalendarDate.read('2026-11-23') },
  ...{ now: DateTime.read('2026-11-23T10:00'), me: meOf(me), zone: ZONE },
};

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
    maybe('gear', fc.subarray(['net', 'rod', 'kite'])),
    maybe(
      'lines',
      fc.array(
        fc
          .tuple(
            maybe('what', names),
            maybe('pieces', fc.nat(4)),
            maybe(
              'price',
              fc.nat(3).map((n) => ({ minor: n * 50, currency: 'EUR' })),
            ),
            maybe('fresh', fc.boolean()),
          )
          .map((cells) => Object.assign({}, ...cells)),
        { maxLength: 3 },
      ),
    ),
    maybe('crew', fc.uniqueArray(fc.constantFrom('ada', 'bea', "o'n"), { maxLength: 2 })),
  )
  .map((parts) => Object.assign({}, ...parts) as Values);

/** Moments around the nights on which the clocks change, among others: epoch ms. */
const moments = fc
  .tuple(
    fc.constantFrom('2026-10-25T00:00:00Z', '2026-03-29T00:00:00Z', '2026-11-23T09:00:00Z'),
    fc.nat(200),
    fc.nat(59),
  )
  .map(([night, minute, second]) => Date.parse(night) + minute * 60_000 + second * 1_000);
const orNull = <T>(value: fc.Arbitrary<T>): fc.Arbitrary<T | null> =>
  fc.oneof({ weight: 3, arbitrary: value }, { weight: 1, arbitrary: fc.constant(null) });
const anyRow = fc.record({
  ...{ stage: fc.constantFrom(...STAGES), phase: fc.constantFrom('arrived', 'working', 'finished' as const) },
  ...{ team: orNull(fc.constantFrom('lab', 'boats')), handler: orNull(fc.constantFrom('ada', 'bea')) },
  ...{ priority: orNull(fc.constantFrom('low', 'high' as const)), trial: fc.boolean() },
  ...{ arrived: moments, due: orNull(moments), finished: orNull(moments) },
});
type Row = typeof anyRow extends fc.Arbitrary<infer T> ? T : never;
const standingOf = (index: number, { arrived, due, finished, ...row }: Row): RequestStanding => ({
  ...{ ...row, number: `AC-${index}`, form: '', age: 0, decision: null },
  ...{ arrived: wallClockAt(arrived, ZONE), due: due === null ? null : wallClockAt(due, ZONE) },
  finished: finished === null ? null : wallClockAt(finished, ZONE),
});

const at = { from: 0, to: 0 };
const read = (text: string): Node => {
  const parsed = parseExpression(text);
  if (!parsed.ok) throw new Error(text);
  return parsed.value;
};
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
const wall = fc
  .tuple(
    fc.constantFrom('2026-10-25', '2026-03-29', '2026-11-23'),
    fc.nat(3),
    fc.constantFrom(0, 15, 30, 59),
    fc.constantFrom(0, 0, 30),
  )
  .map(([date, hour, minute, second]): Node => {
    const value = DateTime.read(`${date}T0${hour}:${String(minute).padStart(2, '0')}`);
    return { kind: 'moment', value: new DateTime((value?.seconds ?? 0) + second), ...at };
  });
/** What is asked of where a request stands, and what it is compared with. */
const STANDING: Readonly<Record<string, fc.Arbitrary<Node>>> = {
  number: fc.constantFrom('AC-1', 'AC-77', 'x').map(literal),
  stage: fc.constantFrom(...STAGES).map(literal),
  phase: fc.constantFrom('arrived', 'finished').map(literal),
  team: fc.constantFrom('lab', 'boats').map(literal),
  handler: fc.constantFrom(literal('bea'), read('me.person')),
  priority: fc.constantFrom('low', 'high').map(literal),
  trial: fc.boolean().map(literal),
  arrived: fc.oneof(wall, fc.constant(read('now'))),
  due: fc.oneof(wall, fc.constant(read('now - duration("PT1H")'))),
  finished: wall,
};
const call = (name: string, ...args: readonly Node[]): Node => ({ kind: 'call', name, args, ...at });
const comparator = fc.constantFrom('=', '!=', '<', '<=', '>', '>=' as const);
const about = (key: string): Node =>
  Object.hasOwn(STANDING, key) ? read(`request.${key}`) : { kind: 'name', name: key, ...at };
const anyField = fc.constantFrom(...Object.keys(OPERANDS), ...Object.keys(STANDING));
const operandOf = (key: string): fc.Arbitrary<Node> =>
  fc.oneof(
    { weight: 8, arbitrary: OPERANDS[key] ?? STANDING[key] ?? figure },
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
    .tuple(fc.constantFrom('gear', 'crew'), fc.constantFrom('net', 'kite', 'ada', "o'n", 7, null))
    .map(([list, item]): Node => call('list contains', about(list), literal(item))),
  fc.constant(call('list contains', about('crew'), read('me.person'))),
  fc
    .tuple(fc.constantFrom('gear', 'crew'), comparator, fc.oneof(fc.nat(3).map(literal), fc.constant(literal(null))))
    .map(([list, op, right]): Node => ({ kind: 'compare', op, left: call('count', about(list)), right, ...at })),
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
/** What may be asked of one of a list, under the name it has there; the fields around it as well. */
const ofOne = (name: string): fc.Arbitrary<Node> => {
  const cell = (key: string): Node => read(`${name}.${key}`);
  const beside = (key: string, to: fc.Arbitrary<Node>): fc.Arbitrary<Node> =>
    fc.tuple(comparator, to).map(([op, right]): Node => ({ kind: 'compare', op, left: cell(key), right, ...at }));
  return fc.oneof(
    beside('what', fc.oneof(names.map(literal), fc.constant(literal(null)))),
    beside('pieces', fc.oneof(fc.nat(4).map(literal), fc.constant(literal(null)))),
    beside(
      'price',
      fc.nat(4).map((n) => literal(n / 2)),
    ),
    names.map((part) => call('contains', cell('what'), literal(part))),
    fc.constant(cell('fresh')),
    atom,
  );
};
const quantified = fc
  .tuple(
    fc.constantFrom('some', 'every' as const),
    // Names that stand for something else around it are hidden there.
    fc.constantFrom('line', 'requester', 'water', 'today'),
    fc.constantFrom('lines', 'gear', 'crew'),
  )
  .chain(([kind, name, list]) => {
    const one =
      list === 'lines'
        ? fc
            .tuple(ofOne(name), ofOne(name), fc.constantFrom('and', 'or' as const))
            .map(([left, right, joined]): Node => ({ kind: joined, left, right, ...at }))
        : fc
            .tuple(comparator, fc.constantFrom('net', 'kite', 'ada', 7, null))
            .map(([op, to]): Node => ({ kind: 'compare', op, left: read(name), right: literal(to), ...at }));
    return one.map(
      (test): Node => ({ kind, over: [{ name, over: { kind: 'list', list: about(list) } }], test, ...at }),
    );
  });
const { condition } = fc.letrec<{ condition: Node }>((tie) => ({
  condition: fc.oneof(
    { maxDepth: 4 },
    { weight: 3, arbitrary: atom },
    quantified,
    fc
      .tuple(fc.constantFrom('and', 'or' as const), tie('condition'), tie('condition'))
      .map(([kind, left, right]): Node => ({ kind, left, right, ...at })),
    tie('condition').map((of): Node => ({ kind: 'call', name: 'not', args: [of], ...at })),
  ),
}));

let folder: string;
let db: Database;
const stored: Values[] = fc.sample(anyValues, { numRuns: 150, seed: 3 });
const rows: Row[] = fc.sample(anyRow, { numRuns: 150, seed: 4 });
const SLOTS = stored.map((values, index) =>
  standingSlots(fields, values, facts, standingOf(index, rows[index] as Row), me),
);
const slotsOf = (index: number): Slots => SLOTS[index] ?? [];

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
      updatedAt: 0,
    } as const;
    const { arrived, finished, handler, ...standing } = rows[index] as Row;
    db.insert(requests)
      .values({
        id: String(index),
        number: `AC-${index}`,
        registerId: '',
        ...row,
        ...standing,
        ...{ handlerId: handler, createdAt: arrived, finishedAt: finished },
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
  const among = db
    .select({ id: requests.id })
    .from(requests)
    .where(where)
    .orderBy(sql`cast(${requests.id} as integer)`)
    .all();
  const holds = rest && compile(rest, scope);
  return {
    ids: among.filter((row) => !holds || holds(slotsOf(Number(row.id)), null) === true).map((row) => row.id),
    whole: rest === null,
  };
}

describe('a condition as SQL', () => {
  it('finds exactly the requests it holds for, in thousands of conditions', () => {
    let whole = 0;
    const asked = new Map(
      [...Object.keys(OPERANDS), ...Object.keys(STANDING), 'gear', 'crew', 'count', 'lines', 'some', 'every'].map(
        (key) => [key, 0],
      ),
    );
    fc.assert(
      fc.property(condition, (node) => {
        const holds = compile(node, scope);
        const wanted = stored.flatMap((_, index) => (holds(slotsOf(index), null) === true ? [String(index)] : []));
        const answer = found(node);
        if (answer.whole) {
          whole += 1;
          const text = printExpression(node);
          for (const [key, times] of asked) if (new RegExp(`\\b${key}\\b`).test(text)) asked.set(key, times + 1);
        }
        expect([printExpression(node), answer.ids]).toEqual([printExpression(node), wanted]);
      }),
      { numRuns: often(6_250) },
    );
    console.log(`decided by SQLite: ${whole} conditions, over`, Object.fromEntries(asked));
    expect(whole).toBeGreaterThan(1_000);
    expect(Math.min(...asked.values())).toBeGreaterThan(5);
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
