import { english } from '@tolvek/words/english';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finishRule } from '../src/deadline/index.ts';
import { compile, equal, LIMITS, parseExpression, Scope, type Value } from '../src/expression/index.ts';
import { identityOf } from '../src/expression/value.ts';
import { type FormDesign, findingsOf } from '../src/form/index.ts';
import { anyValues } from './anyExpression.ts';
import { often } from './often.ts';

const EMPTY: FormDesign = {
  title: 'Wide',
  intro: '',
  subject: '',
  fields: [],
  parts: [],
  rules: [],
  unique: [],
  routing: {
    columns: [],
    rows: [],
    otherwise: { team: 'boats', priority: 'normal', workingDays: 2, path: null },
  },
  approval: {
    paths: [{ id: 'path', label: '', steps: [{ id: 's', label: 'S', seats: [{ group: 'boats' }], needed: 1 }] }],
  },
  deadline: { calendar: 'desk', leads: 'boats', deadlines: [finishRule(0, 0)] },
};

const scope = new Scope([{ name: 'xs', label: 'Xs', type: { kind: 'list', of: { kind: 'number' } } }]);
const run = (text: string, xs: Value): Value => {
  const parsed = parseExpression(text, scope);
  if (!parsed.ok) throw new Error(text);
  return compile(parsed.value, scope)([xs], null);
};

/** A list that counts how often one of its items is looked at: steps, not time. */
function watched(length: number): { xs: readonly Value[]; looks: () => number } {
  let looks = 0;
  const plain = Array.from({ length }, (_, index) => index);
  const xs = new Proxy(plain, {
    get: (target, key, receiver) => {
      if (typeof key === 'string' && key >= '0' && key <= '9~') looks += 1;
      return Reflect.get(target, key, receiver);
    },
  });
  return { xs, looks: () => looks };
}

describe('functions over lists', () => {
  it.each([
    'count(distinct values(xs))',
    'count(union(xs, xs))',
    'count(index of(xs, 3))',
    'list contains(xs, -1)',
    'count(flatten([xs, xs]))',
    'count(reverse(xs))',
    'sum(xs)',
    'max(xs)',
    'count(remove(xs, 2))',
    'count(concatenate(xs, xs))',
  ])('%s looks at each item a few times, however many there are', (text) => {
    const looks = [1_000, 8_000].map((length) => {
      const list = watched(length);
      expect(run(text, list.xs)).not.toBeNull();
      return list.looks() / length;
    });
    expect(looks[1]).toBeLessThanOrEqual((looks[0] ?? 0) * 1.1 + 1);
    expect(looks[1]).toBeLessThan(12);
  });

  it.each([
    'sum(for a in 1..20000 return count(distinct values(xs)))',
    'sum(for a in 1..20000 return count(index of(xs, a)))',
    'count(for a in 1..20000 return list contains(xs, -1))',
    'count(for a in 1..20000 return xs = xs)',
    'count(for a in 1..20000 return -1 in xs)',
    'count(distinct values(for a in 1..20000 return xs))',
    'count((for a in 1..20000 return xs).nothing)',
  ])('%s ends after the steps that one evaluation has, and is empty', (text) => {
    const list = watched(20_000);
    const value = run(text, list.xs);
    expect(value).toBeNull();
    expect(list.looks()).toBeLessThan(4 * LIMITS.steps);
  });

  it('count what each evaluation does from nothing', () => {
    const xs = Array.from({ length: 5_000 }, (_, index) => index);
    const parsed = parseExpression('count(distinct values(xs))', scope);
    if (!parsed.ok) throw new Error('unreadable');
    const compiled = compile(parsed.value, scope);
    for (let n = 0; n < 500; n += 1) expect(compiled([xs], null)).toBe(5_000);
  });
});

describe('the identity of a value', () => {
  it('is the same exactly when two values are equal', () => {
    let same = 0;
    const value = anyValues.chain((values) => fc.constantFrom<Value>(...values));
    fc.assert(
      fc.property(fc.array(value, { minLength: 2, maxLength: 6 }), (values) => {
        for (const a of [...values, values])
          for (const b of [...values, [...values]]) {
            const alike = identityOf(a) === identityOf(b);
            if (alike) same += 1;
            expect([a, b, alike]).toEqual([a, b, equal(a, b) === true]);
          }
      }),
      { numRuns: often(1_000) },
    );
    expect(same).toBeGreaterThan(1_000);
  });
});

describe('rules of a form', () => {
  const wide = (count: number): FormDesign => {
    const options = Array.from({ length: 12 }, (_, index) => ({ key: `o${index}`, label: `Option ${index}` }));
    const fields = Array.from({ length: 12 }, (_, index) => ({
      key: `f${index}`,
      label: `Field ${index}`,
      type: index % 2 === 0 ? ({ kind: 'number', places: 2 } as const) : ({ kind: 'choice', options } as const),
      source: 'asked' as const,
    }));
    const when = (n: number): string =>
      Array.from({ length: 6 }, (_, at) => {
        const [a, b] = [((n + at * 2) % 12) & ~1, ((n * 3 + at * 2) % 12) | 1];
        return `(f${a} > ${(n * 7 + at) % 50} or f${b} in ("o${n % 12}", "o${(n + at) % 12}"))`;
      }).join(' and ');
    return {
      ...EMPTY,
      fields,
      parts: fields.map(({ key }) => ({ part: 'question', field: key, asks: '', help: '', required: false })),
      rules: Array.from({ length: count }, (_, n) => ({
        id: `r${n}`,
        name: `Rule ${n}`,
        when: when(n),
        says: '',
        then: [{ do: n % 2 === 0 ? 'show' : 'hide', parts: ['f0'] }],
        otherwise: [],
        on: true,
        runs: 'filling',
      })),
    };
  };
  const around = {
    plan: { rules: [] },
    form: 'form',
    groups: new Map([['boats', 'boats']]),
    outside: false,
    vocabularies: [],
    registers: [],
  };

  it('that are few and wide are looked through; of 300 those beyond the budget are named', () => {
    const few: readonly string[] = english(findingsOf(wide(6), around)).map(
      ({ message }: { message: string }) => message,
    );
    expect(few.some((message) => message.includes('not checked for contradictions'))).toBe(false);
    const many: readonly string[] = english(findingsOf(wide(300), around)).map(
      ({ message }: { message: string }) => message,
    );
    expect(many.filter((message) => message.includes('not checked for contradictions'))).toHaveLength(1);
  });
});
