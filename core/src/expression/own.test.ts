import { english } from '@tolvek/words/english';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  CalendarDate,
  checkExpression,
  compile,
  computingOrder,
  explain,
  LIMITS,
  parseExpression,
  printExpression,
  Scope,
  type Value,
  verdictOn,
} from './index.ts';

const week: Value = { open: [true, true, true, true, true, false, false], closed: ['2026-12-25', '2026-12-28'] };
const scope = new Scope([
  { name: 'fee', label: 'Fee', type: { kind: 'number' } },
  { name: 'day', label: 'Day', type: { kind: 'date' } },
  { name: 'calendar', label: 'Working calendar', type: { kind: 'context', entries: {} } },
  {
    name: 'requester',
    label: 'Requester',
    type: { kind: 'context', entries: { groups: { label: 'groups', type: { kind: 'list', of: { kind: 'text' } } } } },
  },
  {
    name: 'before',
    label: 'Before',
    type: { kind: 'context', entries: { fee: { label: 'Fee', type: { kind: 'number' } } } },
  },
  { name: 'many', label: 'Many', type: { kind: 'list', of: { kind: 'number' } } },
]);
const day = (iso: string): CalendarDate => CalendarDate.read(iso) as CalendarDate;
const many = Array.from({ length: 400 }, (_, index) => index);
const slots: readonly Value[] = [740, day('2026-12-24'), week, { groups: ['boats'] }, { fee: 500 }, many];

function read(text: string, within = scope) {
  const parsed = parseExpression(text, within);
  if (!parsed.ok) throw new Error(english(parsed.findings[0]?.message));
  return parsed.value;
}
const evaluate = (text: string, values = slots): Value => compile(read(text), scope)(values, null);
const findings = (text: string, within = scope) =>
  checkExpression(read(text, within), within).map((finding) => english(finding.message));

describe('working days', () => {
  it('pass over weekends and holidays', () => {
    expect(String(evaluate('add working days(day, 1)'))).toBe('2026-12-29');
    expect(String(evaluate('add working days(day, 0)'))).toBe('2026-12-24');
    expect(String(evaluate('add working days(date("2026-12-26"), 0)'))).toBe('2026-12-29');
    expect(String(evaluate('add working days(date("2026-12-29"), -1)'))).toBe('2026-12-24');
    expect(evaluate('count working days(day, date("2026-12-31"))')).toBe(3);
    expect(evaluate('count working days(date("2026-12-31"), day)')).toBe(-3);
  });

  it('come back: so many days on lie so many days away', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20_700, max: 21_000 }), fc.integer({ min: 1, max: 60 }), (from, count) => {
        const values = [count, new CalendarDate(from), week];
        expect(evaluate('count working days(day, add working days(day, fee))', values)).toBe(count);
      }),
    );
  });

  it('are empty without a calendar, and end when nothing is ever open', () => {
    expect(evaluate('add working days(day, 1)', [null, day('2026-12-24'), null])).toBe(null);
    expect(evaluate('add working days(day, 1)', [null, day('2026-12-24'), { open: [], closed: [] }])).toBe(null);
    expect(findings('add working days(date("2026-12-24"), 1) = null', new Scope([]))).toEqual([
      '“add working days” needs a working calendar, and there is none here. Use another function.',
    ]);
  });
});

describe('people and earlier values', () => {
  it('knows who is in a group', () => {
    expect([evaluate('is member(requester, "boats")'), evaluate('is member(requester, "lab")')]).toEqual([true, false]);
  });

  it('reads what a field was, where something is being changed', () => {
    expect(evaluate('fee > old value(fee)')).toBe(true);
    expect(findings('fee > old value(fee)')).toEqual([]);
    expect(findings('fee > old value(day)')).toEqual(['There is no old value of “day”. Choose a field of the form.']);
    expect(findings('fee > old value(5)')).toEqual([
      '“old value” needs exactly one field. Write it like old value(fee).',
    ]);
    expect(findings('fee > old value(fee)', new Scope(scope.names.filter((entry) => entry.name !== 'before')))).toEqual(
      ['There is no old value here, because nothing is being changed. Remove “old value”.'],
    );
  });
});

describe('bounds', () => {
  it('end loops that take too many turns, with nothing said', () => {
    expect(evaluate('for a in many, b in many return a')).toBe(null);
    expect(evaluate('some a in many, b in many satisfies a + b > 10000')).toBe(null);
    const turns = Math.floor(LIMITS.steps / (LIMITS.turn + 1));
    expect(evaluate(`count(for i in 1..${turns} return i)`)).toBe(turns);
    expect(evaluate('count(for i in 1..1000000000000 return i)')).toBe(null);
    // A loop that ends early is not held up by what it would have gone through.
    expect(evaluate('some i in 1..1000000000000 satisfies i > 3')).toBe(true);
  });

  it('take deep nesting in their stride: no part is looked at twice for each level around it', () => {
    const deep = (open: string, inner: string, close: string, times = 28): string =>
      `${open.repeat(times)}${inner}${close.repeat(times)}`;
    for (const text of [
      deep('(', 'fee between 1 and 2', ') between 1 and 2'),
      deep('for x in (', 'many', ') return x'),
      deep('(', 'many', ')[item > 1]'),
      deep('not(some x in many satisfies (', 'x > fee', '))', 18),
      deep('if true then (', '1', ') else 2'),
      deep('(', 'fee', ') in (1, 2)'),
    ]) {
      const node = read(text);
      checkExpression(node, scope);
      expect([text, compile(node, scope)([1, null, null, null, null, [1, 2]], null)]).not.toEqual([text, undefined]);
      expect(parseExpression(printExpression(node)).ok).toBe(true);
      explain(node, scope, slots);
      verdictOn(node, scope);
    }
  });

  it('keep lists and texts small', () => {
    expect(evaluate('flatten(for a in many return many)')).toBe(null);
    const text = Array.from({ length: 40 }).reduce<string>(
      (inner) => (inner.length > 1_500 ? inner : `(${inner} + ${inner})`),
      'string join(for i in 1..9000 return "0123456789")',
    );
    expect(evaluate(text)).toBe(null);
  });

  it('take enormous numbers as they are, or as nothing', () => {
    expect(evaluate('9 ** 999')).toBe(null);
    expect(evaluate(`${'9'.repeat(300)} > 1`)).toBe(true);
    expect(evaluate('date("2026-11-23") + duration("P1D") * 999999999999')).toBe(null);
  });

  it('have no way out through the names of JavaScript', () => {
    const odd = new Scope(
      ['__proto__', 'constructor', 'hasOwnProperty', 'toString'].map((name) => ({
        name,
        label: name,
        type: { kind: 'number' } as const,
      })),
    );
    const values = [1, 2, 3, 4];
    expect(
      ['__proto__', 'constructor', 'hasOwnProperty', 'toString'].map((name) =>
        compile(read(name, odd), odd)(values, null),
      ),
    ).toEqual(values);
    for (const part of ['constructor', '__proto__', 'hasOwnProperty']) expect(evaluate(`requester.${part}`)).toBe(null);
    expect(findings('requester.constructor')).toEqual(['There is no “constructor” here. Choose one of these: groups.']);
  });
});

describe('values that are computed from each other', () => {
  const of = (values: Record<string, string>) =>
    computingOrder(Object.entries(values).map(([name, text]) => ({ name, node: read(text) })));

  it('are put in an order in which each comes after what it reads', () => {
    expect(of({ total: 'net + vat', vat: 'net * 0.23', net: 'fee' })).toEqual({
      ok: true,
      order: ['net', 'vat', 'total'],
    });
  });

  it('are a circle named all the way round when they need each other', () => {
    expect(of({ fee: 'total', total: 'net + vat', vat: 'total * 0.2' })).toEqual({
      ok: false,
      circle: ['total', 'vat', 'total'],
    });
    expect(of({ own: 'own + 1' })).toEqual({ ok: false, circle: ['own', 'own'] });
  });
});
