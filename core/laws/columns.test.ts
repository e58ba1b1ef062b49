import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type AccessLevel, openFields, type Purpose, prepareAccess, projectionFor } from '../src/access/index.ts';
import { columnsRead, compile, parseExpression, Scope, type Value } from '../src/expression/index.ts';
import { protectionOf } from '../src/form/index.ts';
import { isSame } from '../src/own/index.ts';
import {
  type Field,
  type ItemRow,
  type Kind,
  NOTHING_AROUND,
  type RawRow,
  ROW_ID,
  readAnswer,
  readLines,
  rowIdOf,
  typedForm,
} from '../src/register/index.ts';
import { anyBase, anyLook, anyPlaced, anyRules, slowLevel, takenBy } from './anyPlan.ts';
import { often } from './often.ts';

const NUMBER = { kind: 'number', places: 0 } as const;
const LINES = {
  kind: 'line-items',
  columns: [
    { key: 'what', label: 'What', type: { kind: 'text' }, required: true },
    { key: 'qty', label: 'Quantity', type: NUMBER, required: false },
    { key: 'price', label: 'Price', type: NUMBER, required: false },
    { key: 'total', label: 'Total', type: NUMBER, required: false, formula: 'qty * price' },
  ],
} as const satisfies Kind;
const COLUMNS = LINES.columns.map(({ key }) => key);
const FIELDS: readonly Field[] = [
  { key: 'lines', label: 'Lines', type: LINES, source: 'asked' },
  { key: 'a', label: 'A', type: { kind: 'text' }, source: 'asked' },
  { key: 'b', label: 'B', type: { kind: 'text' }, source: 'desk-only' },
  { key: 'many', label: 'Many', type: NUMBER, source: 'computed', formula: 'count(lines)' },
  { key: 'most', label: 'Most', type: NUMBER, source: 'computed', formula: 'max(lines.qty)' },
  { key: 'sum', label: 'Sum', type: NUMBER, source: 'computed', formula: 'sum(for each in lines return each.total)' },
  {
    ...{ key: 'dear', label: 'Dear', type: { kind: 'yes-no' }, source: 'computed' },
    formula: 'some line in lines[price > 5] satisfies line.what = "Rope"',
  },
];
/** What each part is made from, to the end, written by hand. */
const MADE_FROM: Readonly<Record<string, readonly string[]>> = {
  'lines.total': ['lines.qty', 'lines.price'],
  many: ['lines'],
  most: ['lines', 'lines.qty'],
  sum: ['lines', 'lines.total', 'lines.qty', 'lines.price'],
  dear: ['lines', 'lines.price', 'lines.what'],
};
const PARTS = [...FIELDS.map(({ key }) => key), ...COLUMNS.map((key) => `lines.${key}`)];
const ROWS: readonly ItemRow[] = [
  { what: 'Rope', qty: 2, price: 7, total: 14 },
  { '#': '3-0', what: 'Hook', price: 5 },
];
const VALUES = { lines: ROWS, a: '1', b: '2', many: 2, most: 2, sum: 14, dear: true };
const PURPOSES = {
  ...{ working: ['sheet'], browsing: ['list'], searching: ['counting'], 'taking-out': ['taking-out'] },
} as const satisfies Record<string, readonly Purpose[]>;

const RANKS = ['hidden', 'read', 'write'] as const;
const least = (levels: readonly AccessLevel[]): AccessLevel =>
  RANKS[Math.min(...levels.map((level) => RANKS.indexOf(level)))] as AccessLevel;

test('columns are told of by the rules about them and about their lines, are never further open, and neither is what is made of them', () => {
  const counts = { hidden: 0, read: 0, write: 0, partly: 0, whole: 0, made: 0, changes: 0, none: 0 };
  fc.assert(
    fc.property(
      fc.oneof(
        anyRules(['a', 'b', 'lines', 'lines.what', 'lines.qty', 'lines.price', 'lines.total', 'sum'], { most: 3 }),
        // About nothing but columns.
        fc
          .tuple(anyRules(['a'], { most: 3 }), fc.array(fc.subarray([...COLUMNS], { minLength: 1 }), { minLength: 3 }))
          .map(([rules, names]) =>
            rules.map((rule, index) => ({
              ...rule,
              level: index === 0 ? ('hidden' as const) : rule.level,
              fields: (names[index] ?? []).map((key) => `lines.${key}`),
            })),
          ),
      ),
      fc.array(anyLook, { minLength: 4, maxLength: 10 }),
      fc.oneof({ weight: 3, arbitrary: fc.constant(undefined) }, anyBase),
      fc.oneof({ weight: 3, arbitrary: fc.constant(undefined) }, anyPlaced(FIELDS.map(({ key }) => key))),
      (rules, looks, base, placed) => {
        const plan = { rules, ...(base ? { base } : {}), ...(placed ? { placed } : {}) };
        const protection = protectionOf(plan, { fields: FIELDS, release: null });
        // What is about lines, as if every column were named.
        const spelt = rules.map((rule) => ({
          ...rule,
          fields:
            rule.fields === 'all' || !rule.fields.includes('lines')
              ? rule.fields
              : [...rule.fields, ...COLUMNS.map((key) => `lines.${key}`)],
        }));
        const standing = placed?.includes('lines') ? [...placed, ...COLUMNS.map((key) => `lines.${key}`)] : placed;
        const asField = (key: string): Field => {
          const known = FIELDS.find((each) => each.key === key);
          return known ?? ({ ...(FIELDS[0] as Field), key } as Field);
        };
        for (const look of looks) {
          if (look.activity === 'letters') continue;
          const own = (key: string): AccessLevel =>
            key.startsWith('lines.')
              ? least(['lines', key].map((each) => slowLevel(spelt, asField(each), look, base, standing)))
              : slowLevel(spelt, asField(key), look, base, standing);
          const wanted = (key: string): AccessLevel => {
            const from = MADE_FROM[key] ?? [];
            if (from.some((each) => own(each) === 'hidden')) return 'hidden';
            return from.length > 0 ? least([own(key), 'read']) : own(key);
          };
          const { viewer, relation, at } = takenBy(look);
          for (const purpose of PURPOSES[look.activity]) {
            const reading = prepareAccess(protection)({ viewer, relation, purpose, at });
            for (const key of PARTS) {
              expect([key, reading.levelOf(key).level]).toEqual([key, wanted(key)]);
              counts[wanted(key)] += 1;
              if (wanted(key) === 'hidden' && own(key) !== 'hidden') counts.made += 1;
            }
            const open = COLUMNS.filter((key) => wanted(`lines.${key}`) !== 'hidden');
            const isThere = wanted('lines') !== 'hidden';
            const rows = ROWS.map((row) =>
              Object.fromEntries(
                Object.entries(row).filter(([key]) => key === '#' || open.some((each) => each === key)),
              ),
            );
            const { fields } = reading.reveal(VALUES, () => undefined);
            const shown = fields.find(({ key }) => key === 'lines');
            expect(shown?.value).toEqual(isThere ? rows : undefined);
            const projected = projectionFor(protection, { viewer, relation, purpose })(VALUES, at);
            expect(projected.lines).toEqual(isThere ? rows : undefined);
            // Asked for as a whole, lines are known where each of their columns is.
            expect(reading.mayKnow('lines')).toBe(isThere && open.length === COLUMNS.length);
            if (shown) {
              counts[open.length === COLUMNS.length ? 'whole' : 'partly'] += 1;
              for (const key of COLUMNS) {
                const may = (
                  shown.lines?.columns ??
                  COLUMNS.map((each) => ({ key: each, writable: shown.writable && each !== 'total' }))
                ).find((each) => each.key === key);
                expect([key, may !== undefined]).toEqual([key, open.includes(key)]);
                expect([key, may?.writable ?? false]).toEqual([key, wanted(`lines.${key}`) === 'write']);
              }
            }
            // What became otherwise is told where it can be seen.
            const after = ROWS.map((row, index) => (index === 0 ? { ...row, price: 9, total: 18 } : row));
            const told = reading.changes([{ field: 'lines', before: ROWS, after }], () => undefined).length;
            expect(told).toBe(open.some((key) => key === 'price' || key === 'total') && isThere ? 1 : 0);
            counts[told > 0 ? 'changes' : 'none'] += 1;
          }
        }
        // What leaves the desk is open in every column.
        const closed = new Set(PARTS.filter((key) => !openFields(protection).some((field) => field.key === key)));
        if (closed.size === 0) return;
        expect(openFields(protection).some(({ key }) => key === 'lines')).toBe(!closed.has('lines'));
      },
    ),
    { numRuns: often(800) },
  );
  console.log('columns revealed by random plans:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(150));
});

const OVER: fc.Arbitrary<string> = fc.constantFrom(
  ...['count(lines)', 'count(lines.qty)', 'sum(lines.qty)', 'lines[1].price', 'lines[price > 5].what', 'lines = null'],
  ...['lines[qty = 2]', 'for each in lines return each', 'for each in lines return each.qty + 1', 'max(lines.price)'],
  ...['some each in lines satisfies each.price > 5', 'every each in lines satisfies each.what = "Rope"', 'lines'],
  ...['for each in lines[price > 5] return each.what', 'lines[item.qty > 1].what', 'count(lines[what = "Rope"])'],
  ...['for each in lines, other in lines return each.qty + other.price', 'if lines = null then 0 else lines[1].qty'],
  ...['for each in lines[qty > 1] return count(lines[price > 5])', 'some each in lines satisfies each = lines[1]'],
  ...['lines[count(lines.what) > 1].qty', 'for what in lines.what return what', 'append(lines, lines)[1].qty'],
  ...[
    'for i in 1..2 return lines[i].price',
    'for lines in lines return lines.qty',
    'concatenate(lines.qty, lines.price)',
  ],
);

test('what an expression is said not to read of lines never makes it come to something else', () => {
  const names = ['what', 'qty', 'price'];
  const counts = { read: 0, untouched: 0, otherwise: 0, nothing: 0 };
  const row = fc.record({ what: fc.constantFrom('Rope', 'Hook'), qty: fc.nat(3), price: fc.nat(8) });
  const scope = new Scope([{ name: 'lines', label: 'Lines', type: null }]);
  fc.assert(
    fc.property(
      OVER,
      fc.array(row, { minLength: 1, maxLength: 3 }),
      fc.array(row, { minLength: 3 }),
      (text, rows, more) => {
        const parsed = parseExpression(text);
        if (!parsed.ok) throw new Error(text);
        const read = columnsRead([parsed.value], new Map([['lines', names]])).get('lines') ?? new Set();
        const run = compile(parsed.value, scope);
        const others = rows.map((each, index) => {
          const other = more[index] as Record<string, Value>;
          return Object.fromEntries(
            names.map((key) => [key, read.has(key) ? (each as Record<string, Value>)[key] : other[key]]),
          );
        });
        const [was, is] = [rows, others].map((lines) => run([lines as unknown as Value], null));
        expect([text, is]).toEqual([text, was]);
        if (was === null) counts.nothing += 1;
        counts[read.size < names.length && !isSame(rows, others) ? 'untouched' : 'read'] += 1;
        // And what it does read makes a difference to some of them.
        if (!isSame(was, run([more as unknown as Value], null))) counts.otherwise += 1;
      },
    ),
    { numRuns: often(3_000) },
  );
  console.log('expressions over lines:', counts);
  expect(Math.min(counts.read, counts.untouched, counts.otherwise)).toBeGreaterThan(often(300));
});

/** What somebody makes of lines: cells otherwise, one taken away, one more, others before. */
const anyEdit = fc.record({
  cell: fc.option(
    fc.tuple(fc.nat(1), fc.constantFrom('what', 'qty', 'price', 'total', 'gone'), fc.constantFrom('1', '8', 'x', '')),
  ),
  without: fc.option(fc.nat(1), { freq: 3 }),
  more: fc.option(fc.record({ what: fc.constantFrom('Net', ''), qty: fc.constantFrom('4', '') }), { freq: 3 }),
  turned: fc.boolean(),
  named: fc.boolean(),
});

test('lines change only in the columns that somebody may change, keep what is hidden, and are refused by name otherwise', () => {
  const counts = { changed: 0, refused: 0, kept: 0, whole: 0, added: 0, removed: 0, hidden: 0 };
  const field = { type: LINES };
  const asked = COLUMNS.filter((key) => key !== 'total');
  fc.assert(
    fc.property(
      fc.tuple(...asked.map(() => fc.constantFrom(...RANKS))),
      anyEdit,
      (levels, { cell, without, more, turned, named }) => {
        const levelOf = (key: string): AccessLevel => levels[(asked as readonly string[]).indexOf(key)] ?? 'hidden';
        const columns = COLUMNS.flatMap((key) => {
          const level = key === 'total' ? least(['read', least([levelOf('qty'), levelOf('price')])]) : levelOf(key);
          return level === 'hidden' ? [] : [{ key, writable: level === 'write' }];
        });
        // As a page sends them: what may be read and is asked, each line by its id.
        const shown = (typedForm(field, ROWS) as readonly RawRow[]).map((row, place) => ({
          ...Object.fromEntries(Object.entries(row).filter(([key]) => levelOf(key) !== 'hidden')),
          ...(named ? { [ROW_ID]: rowIdOf(ROWS[place] as ItemRow, place) } : {}),
        }));
        const edited = shown.map((row, place) => (cell && cell[0] === place ? { ...row, [cell[1]]: cell[2] } : row));
        const left = edited.filter((_, place) => place !== without);
        const rest = more ? Object.fromEntries(Object.entries(more).filter(([key]) => levelOf(key) === 'write')) : null;
        const raw = [...(turned ? [...left].reverse() : left), ...(rest ? [rest] : [])] as readonly RawRow[];
        const read = readLines(field, raw, NOTHING_AROUND, { rows: ROWS, columns });
        if (asked.every((key) => levelOf(key) === 'write')) {
          // Whoever may change all of them changes lines as they always are.
          const plain = readAnswer(field, raw, NOTHING_AROUND);
          expect(read.state).toBe(plain.state);
          counts.whole += 1;
        }
        const lines = read.state === 'value' ? (read.value as readonly ItemRow[]) : [];
        if (read.state === 'wrong') counts.refused += 1;
        else counts.changed += 1;
        const mayAll = asked.every((key) => levelOf(key) === 'write');
        // Without their ids, what was typed may make a line another one: then it is one less.
        const touches = cell !== null && cell[0] !== without && (ROWS[cell[0]]?.[cell[1]] ?? '').toString() !== cell[2];
        if (named && without !== null && !mayAll && !rest) expect(read.state).toBe('wrong');
        if (named && touches && cell && levelOf(cell[1]) !== 'write') expect(read.state).toBe('wrong');
        if (read.state === 'wrong') {
          // Nothing that is hidden is named.
          const told = JSON.stringify(read);
          for (const key of ['what', 'qty', 'price'] as const)
            if (levelOf(key) === 'hidden') {
              const label = LINES.columns.find((each) => each.key === key)?.label ?? '';
              expect([key, told.includes(`"${label}"`)]).toEqual([key, false]);
              counts.hidden += 1;
            }
          return;
        }
        for (const [place, row] of ROWS.entries()) {
          const id = rowIdOf(row, place);
          const now = lines.find((line) => line[ROW_ID] === id);
          if (!now) {
            expect(mayAll).toBe(true);
            counts.removed += 1;
            continue;
          }
          for (const key of asked) if (levelOf(key) !== 'write') expect([key, now[key]]).toEqual([key, row[key]]);
          expect(now.total).toEqual(
            now.qty === undefined || now.price === undefined ? undefined : Number(now.qty) * Number(now.price),
          );
          counts.kept += 1;
        }
        if (lines.length > ROWS.length) {
          expect(levelOf('what')).toBe('write');
          counts.added += 1;
        }
      },
    ),
    { numRuns: often(4_000) },
  );
  console.log('lines changed by somebody who may not change all of them:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(40));
});
