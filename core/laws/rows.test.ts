import { all } from '@tolvek/words/all';
import { english } from '@tolvek/words/english';
import { addTexts, LANGUAGES, newTexts, speech } from '@tolvek/words/speech';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cellOfRow,
  compile,
  compileTests,
  conditionInWords,
  expressionOfRows,
  parseExpression,
  parseTests,
  printExpression,
  printTests,
  type Row,
  type RowGroup,
  type RowTest,
  type RowValue,
  rowInWords,
  rowOfCell,
  rowsOf,
  Scope,
  subjectsOf,
  testsFor,
  typeOfSubject,
  valuesOf,
} from '../src/expression/index.ts';
import { requestScope } from '../src/register/index.ts';
import { anyExpression, anyValues, lawScope } from './anyExpression.ts';

const scope = requestScope([
  { key: 'fee', label: 'Fee', type: { kind: 'money', currency: 'EUR' }, source: 'asked' },
  { key: 'name', label: 'Name', type: { kind: 'text' }, source: 'asked' },
  {
    key: 'from',
    label: 'Institute',
    type: { kind: 'choice', options: ['corrin', 'merrow'].map((key) => ({ key, label: key })) },
    source: 'asked',
  },
  { key: 'water', label: 'On water', type: { kind: 'yes-no' }, source: 'asked' },
  { key: 'arrival', label: 'Arrival', type: { kind: 'date' }, source: 'asked' },
]);
/** The same with names that are no keys. */
const named = requestScope(
  [
    { key: 'fee', label: 'Price', type: { kind: 'money', currency: 'EUR' }, source: 'asked' },
    {
      key: 'from',
      label: 'Institute',
      type: {
        kind: 'choice',
        options: [
          { key: 'corrin', label: 'Corrin Institute' },
          { key: 'merrow', label: 'Merrow House' },
        ],
      },
      source: 'asked',
    },
    { key: 'water', label: 'On the sea', type: { kind: 'yes-no' }, source: 'asked' },
    { key: 'arrival', label: 'Coming', type: { kind: 'date' }, source: 'asked' },
  ],
  { groups: [{ key: 'boats', label: 'Boats' }] },
);
const SUBJECTS = ['fee', 'name', 'from', 'water', 'arrival', 'requester.outside', 'requester.groups', 'door'];

function valueFor(of: string, test: RowTest): fc.Arbitrary<RowValue> {
  const type = typeOfSubject(of, scope);
  const plain = (value: number | string | boolean): RowValue => ({ kind: 'plain', value });
  if (test === 'in the last days' || test === 'in the next days') return fc.integer({ min: 1, max: 400 }).map(plain);
  if (type?.kind === 'date')
    return fc.oneof(
      fc.integer({ min: -30, max: 30 }).map((days): RowValue => ({ kind: 'today', days })),
      fc.constant<RowValue>({ kind: 'date', iso: '2026-11-23' }),
    );
  if (type?.kind === 'number') return fc.integer({ min: -900, max: 900_000 }).map((cents) => plain(cents / 100));
  if (type?.kind === 'yes-no') return fc.boolean().map(plain);
  return type?.kind === 'choice'
    ? fc.constantFrom(...type.options).map((option) => plain(option.key))
    : fc.string().map(plain);
}

const anyRow: fc.Arbitrary<Row> = fc.constantFrom(...SUBJECTS).chain((of) =>
  fc.constantFrom(...testsFor(typeOfSubject(of, scope))).chain((test) => {
    const takes = valuesOf(test);
    const value = valueFor(of, test);
    return fc
      .array(value, takes === 'many' ? { minLength: 1, maxLength: 3 } : { minLength: takes, maxLength: takes })
      .map((values): Row => ({ kind: 'row', of, test, values }));
  }),
);
/**
 * Dates a whole range around today read as “within days”, so such a pair is written another way.
 */
const readsAsDays = (row: Row): boolean =>
  row.test === 'between' &&
  row.values.every((value) => value.kind === 'today') &&
  row.values.some((value) => value.kind === 'today' && value.days === 0);
const plainRow = anyRow.filter((row) => !readsAsDays(row));
const anyGroup: fc.Arbitrary<RowGroup> = fc
  .tuple(
    fc.array(plainRow, { minLength: 2, maxLength: 4 }),
    fc.array(fc.array(plainRow, { minLength: 2, maxLength: 3 }), { maxLength: 2 }),
    fc.boolean(),
  )
  .map(([rows, groups, all]) => ({
    kind: 'group',
    join: all ? 'all' : 'any',
    parts: [...rows, ...groups.map((parts): RowGroup => ({ kind: 'group', join: all ? 'any' : 'all', parts }))],
  }));

describe('rows of a condition', () => {
  it('come back from the text they write, groups and all', () => {
    fc.assert(
      fc.property(anyGroup, (group) => {
        const text = printExpression(expressionOfRows(group));
        const parsed = parseExpression(text);
        expect(parsed.ok ? rowsOf(parsed.value, scope) : text).toEqual(group);
      }),
      { numRuns: 1_000 },
    );
  });

  it('come back from the cell they write, and the cell takes what the row holds for', () => {
    const slots = [740, 'Ada', 'corrin', true, null, { outside: true, groups: ['boats'] }, 'staff', null];
    fc.assert(
      fc.property(
        plainRow.filter((row) => !row.of.includes('.')),
        (row) => {
          const text = printTests(cellOfRow(row));
          const parsed = parseTests(text);
          if (!parsed.ok) throw new Error(text);
          const back = rowOfCell(parsed.value, row.of, scope);
          // One of a single value is that value.
          if (!text.includes('?') && (valuesOf(row.test) !== 'many' || row.values.length > 1))
            expect(back).toEqual(row);
          const input = slots[scope.placeOf(row.of)?.index ?? -1] ?? null;
          expect([text, compileTests(parsed.value, scope)(slots, input) === true]).toEqual([
            text,
            compile(expressionOfRows(row), scope)(slots, null) === true,
          ]);
        },
      ),
      { numRuns: 1_000 },
    );
  });

  it('say the same as any expression they can be read from', () => {
    let read = 0;
    fc.assert(
      fc.property(
        anyExpression('yes-no', { wild: 0, calls: (name) => ['not', 'contains', 'list contains'].includes(name) }, 2),
        anyValues,
        (tree, values) => {
          const rows = rowsOf(tree, lawScope);
          if (!rows) return;
          read += 1;
          expect(compile(expressionOfRows(rows), lawScope)(values, null) === true).toBe(
            compile(tree, lawScope)(values, null) === true,
          );
        },
      ),
      { numRuns: 2_000 },
    );
    expect(read).toBeGreaterThan(50);
  });

  it('are told in every language by the labels of what they ask, and by no key', () => {
    const told = new Set<string>();
    const keys = /\b(fee|name|water|arrival|corrin|merrow|requester|outside|staff)\b|[a-zA-Z]+:[a-z]|[{}]/;
    const asked = plainRow
      .filter((row) => row.of !== 'name')
      .map(
        (row): Row => (row.of === 'requester.groups' ? { ...row, values: [{ kind: 'plain', value: 'boats' }] } : row),
      );
    for (const language of LANGUAGES) {
      const texts = newTexts(language);
      addTexts(texts, language, all[language]);
      const speaker = speech(texts, () => ({ language, zone: 'Europe/Dublin', desk: '' }));
      fc.assert(
        fc.property(fc.array(asked, { minLength: 1, maxLength: 4 }), fc.boolean(), (rows, isAll) => {
          const node = expressionOfRows({ kind: 'group', join: isAll ? 'all' : 'any', parts: rows });
          const text = speaker.told(conditionInWords(node, named));
          for (const row of rows) {
            told.add(`${language} ${row.test}`);
            const label = speaker.told(subjectsOf(named).find((each) => each.of === row.of)?.label ?? '?');
            expect(text).toContain(label);
            if (row.of === 'fee' && row.test !== 'empty' && row.test !== 'filled in') expect(text).toContain(' EUR');
          }
          // “Requester from outside” is a label, “staff door” an option.
          const ours = ['Requester from outside', 'Requester’s groups', 'staff door', 'outside door'];
          expect(ours.reduce((rest, each) => rest.replaceAll(each, ''), text)).not.toMatch(keys);
        }),
        { numRuns: 400 },
      );
    }
    const tests = SUBJECTS.filter((of) => of !== 'name').flatMap((of) => testsFor(typeOfSubject(of, scope)));
    const wanted = LANGUAGES.flatMap((language) => [...new Set(tests)].map((test) => `${language} ${test}`));
    console.log(`${told.size} tests told, in ${LANGUAGES.length} languages`);
    expect(wanted.filter((each) => !told.has(each))).toEqual([]);
  });

  it('leave to text what they can’t show', () => {
    for (const text of [
      'fee + 1 > 5',
      'string length(name) > 3',
      'some x in requester.groups satisfies x = "boats"',
      'fee > name',
      'from = "elsewhere"',
      'if water then true else false',
    ]) {
      const parsed = parseExpression(text);
      expect([text, parsed.ok ? rowsOf(parsed.value, scope) : 'unreadable']).toEqual([text, null]);
    }
  });
});

describe('rows about people', () => {
  const known = requestScope([], {
    people: [{ key: 'p1', label: 'Priya Nakamura-Lind' }],
    groups: [{ key: 'boats', label: 'Boats' }],
  });
  const withMe = new Scope([...known.names, { name: 'me', label: 'Me', type: { kind: 'person', people: [] } }]);
  const rowFrom = (text: string, scope: Scope): RowGroup | null => {
    const parsed = parseExpression(text);
    if (!parsed.ok) throw new Error(text);
    return rowsOf(parsed.value, scope);
  };

  it('are told by name, whoever’s id is stored', () => {
    const [row] = rowFrom('requester.person = "p1"', known)?.parts ?? [];
    expect(english(row?.kind === 'row' && rowInWords(row, known))).toBe('Requester is Priya Nakamura-Lind');
    const [group] = rowFrom('list contains(requester.groups, "boats")', known)?.parts ?? [];
    expect(english(group?.kind === 'row' && rowInWords(group, known))).toBe('Requester’s groups has Boats');
  });

  it('know “me” only where somebody looks', () => {
    expect(rowFrom('requester.person = me', known)).toBe(null);
    expect(rowFrom('requester.person = me', withMe)?.parts).toEqual([
      { kind: 'row', of: 'requester.person', test: 'is', values: [{ kind: 'me' }] },
    ]);
    const parsed = parseExpression('requester.person = me');
    if (!parsed.ok) throw new Error('unreadable');
    const slots = [{ outside: false, person: 'p1', groups: [] }, 'staff', null, null, null, null, 'p1'];
    expect(compile(parsed.value, withMe)(slots, null)).toBe(true);
  });
});
