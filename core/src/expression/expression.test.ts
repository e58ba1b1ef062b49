import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  CalendarDate,
  checkExpression,
  checkTests,
  compile,
  compileTests,
  explain,
  parseExpression,
  parseTests,
  Scope,
  type Value,
} from './index.ts';

const scope = new Scope([
  { name: 'fee', label: 'Fee', type: { kind: 'number' } },
  {
    name: 'institute',
    label: 'Institute',
    type: { kind: 'choice', options: [{ key: 'corrin', label: 'Corrin Institute' }] },
  },
  { name: 'water', label: 'Works on water', type: { kind: 'yes-no' } },
  { name: 'arrival', label: 'Arrival', type: { kind: 'date' } },
  {
    name: 'requester',
    label: 'Requester',
    type: { kind: 'context', entries: { outside: { label: 'from outside', type: { kind: 'yes-no' } } } },
  },
]);
const day = (iso: string): CalendarDate => CalendarDate.read(iso) as CalendarDate;
const values: readonly Value[] = [740, 'corrin', true, day('2026-11-25'), { outside: true }];

function evaluate(text: string, slots = values): Value {
  const parsed = parseExpression(text);
  if (!parsed.ok) throw new Error(english(parsed.findings[0]?.message));
  return compile(parsed.value, scope)(slots, null);
}

function holds(cell: string, input: Value): boolean | null {
  const parsed = parseTests(cell);
  if (!parsed.ok) throw new Error(english(parsed.findings[0]?.message));
  return compileTests(parsed.value, scope)(values, input);
}

const messages = (text: string, wants?: 'yes-no'): readonly string[] => {
  const parsed = parseExpression(text);
  return (parsed.ok ? checkExpression(parsed.value, scope, wants) : parsed.findings).map((finding) =>
    english(finding.message),
  );
};

describe('an expression', () => {
  it.each([
    ['fee > 500', true],
    ['fee > 500 and not(water)', false],
    ['institute = "corrin" or fee < 1', true],
    ['fee between 700 and 800', true],
    ['fee in [700..740]', true],
    ['fee in [700..740)', false],
    ['institute in ("corrin", "merrow")', true],
    ['if water then fee else 0', 740],
    ['requester.outside', true],
    ['arrival < date("2026-12-01")', true],
    ['arrival + duration("P2D") = @"2026-11-27"', true],
    ['0.1 + 0.2', 0.3],
    ['1.1 * 3', 3.3],
    ['10 / 4', 2.5],
    ['2 ** 10', 1024],
    ['1 / 0', null],
    ['sum([1, 2, 3.5])', 6.5],
    ['max(3, 9, 4)', 9],
    ['string length("naïve")', 5],
    ['starts with("Corrin", "Cor")', true],
    ['nothing.here', null],
  ])('%s is %s', (text, expected) => expect(evaluate(text)).toEqual(expected));

  it('follows three-valued logic: with an empty value a comparison can’t be said', () => {
    const empty: readonly Value[] = [null, null, null, null, null];
    expect(evaluate('fee > 500', empty)).toBe(null);
    expect(evaluate('fee > 500 and false', empty)).toBe(false);
    expect(evaluate('fee > 500 or true', empty)).toBe(true);
    expect(evaluate('fee = null', empty)).toBe(true);
    expect(evaluate('water = true', empty)).toBe(false);
  });

  it('agrees with ternary truth tables for any nesting of and and or', () => {
    const truth = fc.constantFrom<boolean | null>(true, false, null);
    const rank = (value: boolean | null): number => (value === false ? 0 : value === null ? 1 : 2);
    fc.assert(
      fc.property(truth, truth, truth, (a, b, c) => {
        const text = `(${a} and ${b}) or ${c}`;
        const expected = [false, null, true][Math.max(Math.min(rank(a), rank(b)), rank(c))];
        expect(evaluate(text)).toBe(expected);
      }),
    );
  });

  it('adds and multiplies decimals of up to six digits exactly', () => {
    const cents = fc.integer({ min: -999_999, max: 999_999 });
    fc.assert(
      fc.property(cents, cents, (a, b) => {
        expect(evaluate(`${a / 100} + ${b / 100}`.replace('+ -', '- '))).toBe((a + b) / 100);
      }),
    );
  });

  it('names what is wrong, where, and suggests the name that was meant', () => {
    expect(messages('feee > 500')).toEqual(['There is nothing called “feee” here. Did you mean “Fee”?']);
    expect(messages('fee > "a"')).toEqual([
      'This compares two kinds that can never be equal: a number and text. Change one of the two.',
    ]);
    expect(messages('institute = "Corrin Institute"')).toEqual([
      '“Corrin Institute” is an option, but it has another name here. Write it like "corrin".',
    ]);
    expect(messages('fee + 1', 'yes-no')).toEqual(['This gives a number. Write something here that gives: yes or no.']);
    expect(messages('fee >')).toEqual(['Something is missing at the end. Complete it.']);
    expect(messages('nope(1)')).toEqual(['There is no function called “nope”. Did you mean “not”?']);
    expect(messages('requester.inside')).toEqual(['There is no “inside” here. Choose one of these: outside.']);
  });

  it('ends with a finding for hostile text, never with a crash', () => {
    const hostile = [
      `${'('.repeat(500)}1${')'.repeat(500)}`,
      '9'.repeat(400),
      'a'.repeat(5_000),
      '\u202e fee',
      '"unfinished',
      'not('.repeat(90),
      '{}',
      '[[[[',
      '? ? ?',
    ];
    for (const text of hostile) expect(messages(text).length).toBeGreaterThanOrEqual(1);
    for (const name of ['__proto__', 'constructor', 'toString']) expect(evaluate(name)).toBe(null);
    expect(evaluate('requester.constructor')).toBe(null);
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        const parsed = parseExpression(text);
        if (parsed.ok) compile(parsed.value, scope)(values, null);
      }),
      { numRuns: 500 },
    );
  });

  it('explains itself in words, part by part', () => {
    const text = 'fee > 500 and institute = "corrin"';
    const parsed = parseExpression(text);
    if (!parsed.ok) throw new Error('unreadable');
    const told = explain(parsed.value, scope, values);
    expect(english(told.words)).toBe('All of these are true.');
    expect(told.parts.map((part) => english(part.words))).toEqual([
      'Fee is above 500: true (value: 740)',
      'Institute is Corrin Institute: true',
    ]);
    expect(told.parts.map((part) => part.reads)).toEqual([['fee'], ['institute']]);
  });
});

describe('a table cell', () => {
  it.each([
    ['> 500', 740, true],
    ['> 500', null, null],
    ['"corrin", "merrow"', 'merrow', true],
    ['not("corrin")', 'corrin', false],
    ['[1..5)', 5, false],
    [']1..5]', 1, false],
    ['-', null, true],
    ['', 12, true],
    ['true', true, true],
    ['? > fee', 800, true],
    ['>= 5, < 3', 2, true],
    ['date("2026-11-25")', day('2026-11-25'), true],
  ])('“%s” on %s: %s', (cell, input, expected) => expect(holds(cell, input as Value)).toBe(expected));

  it('is checked against the type of its column', () => {
    const parsed = parseTests('> "a"');
    if (!parsed.ok) throw new Error('unreadable');
    expect(checkTests(parsed.value, { kind: 'number' }, scope)).toHaveLength(1);
  });
});
