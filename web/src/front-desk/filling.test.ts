import type { Field, KnownRequest, Problem } from '@tolvek/core/register';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  allProblems,
  begun,
  type Filling,
  type FillingStep,
  filled,
  hasTyped,
  isTold,
  knownAnswers,
  withoutBlanks,
} from './filling.ts';
import { nothingTyped } from './keptAnswers.ts';
import { pagesOf } from './pages.ts';

const FIELDS = ['a', 'b', 'c'];
const refusal = (fields: readonly string[]) => ({
  ...{ type: 'urn:tolvek:problem:x', title: 'No', status: 422, detail: 'No.' },
  said: { happened: 'No.', saved: 'No.', now: 'No.' },
  problems: fields.map((field) => ({ field, message: `Not ${field}.`, fix: 'Mend it.' })),
});
const request = (id: string): KnownRequest => ({ id, number: id, register: 'r', label: id, values: {} });

const step: fc.Arbitrary<FillingStep> = fc.oneof(
  fc.record({
    does: fc.constant('answer' as const),
    field: fc.constantFrom(...FIELDS),
    value: fc.constantFrom('x', 'y', ''),
    at: fc.nat(99),
  }),
  fc.record({
    does: fc.constant('name' as const),
    part: fc.constantFrom('name' as const, 'email' as const),
    text: fc.constantFrom('Ada', ''),
    at: fc.nat(99),
  }),
  fc
    .nat(5)
    .map((n): FillingStep => ({ does: 'attach', file: { ref: `f${n}/a.pdf`, bytes: 1, media: 'application/pdf' } })),
  fc.nat(3).map((n): FillingStep => ({ does: 'choose', request: request(`r${n}`) })),
  fc.subarray(FIELDS).map((fields): FillingStep => ({ does: 'empty', fields })),
  fc.subarray(FIELDS).map((fields): FillingStep => ({ does: 'leave', fields })),
  fc.integer({ min: -1, max: 3 }).map((to): FillingStep => ({ does: 'turn', to })),
  fc.nat(3).map((page): FillingStep => ({ does: 'stumble', page })),
  fc.constant<FillingStep>({ does: 'send' }),
  fc.constantFrom(null, 'fresh').map((key): FillingStep => ({ does: 'hear', problem: refusal(['a']), key })),
);

describe('filling a form in', () => {
  it('loses nothing typed by any step, and changes nothing but what the step is about', () => {
    const did = new Map<string, number>();
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        let now: Filling = begun(nothingTyped());
        // The same by hand: the last answer to each question, every file, each request once.
        const answers: Record<string, unknown> = {};
        const contact = { name: '', email: '' };
        const files: string[] = [];
        const chosen = new Set<string>();
        const left = new Set<string>();
        let typedAt = 0;
        for (const each of steps) {
          const before = structuredClone(now.typed);
          const next = filled(now, each);
          expect(now.typed).toEqual(before);
          now = next;
          did.set(each.does, (did.get(each.does) ?? 0) + 1);
          if (each.does === 'answer') answers[each.field] = each.value;
          if (each.does === 'name') contact[each.part] = each.text;
          if (each.does === 'answer' || each.does === 'name') typedAt = each.at;
          if (each.does === 'attach') files.push(each.file.ref);
          if (each.does === 'choose') chosen.add(each.request.id);
          if (each.does === 'empty') for (const field of each.fields) answers[field] = null;
          if (each.does === 'leave') for (const field of each.fields) left.add(field);
          if (each.does === 'turn') expect(now.page).toBe(Math.max(0, each.to));
          if (each.does === 'send') expect([now.tried, now.refused]).toEqual([true, null]);
        }
        const { typed } = now;
        expect(typed.answers).toEqual(answers);
        expect([typed.contact, typed.typedAt, now.left]).toEqual([contact, typedAt, left]);
        expect(typed.files.map(({ ref }) => ref)).toEqual(files);
        expect(typed.references.map(({ id }) => id).sort()).toEqual([...chosen].sort());
        expect(hasTyped(typed)).toBe(
          Object.values(answers).some((value) => value !== null && value !== '') ||
            contact.name !== '' ||
            contact.email !== '',
        );
      }),
      { numRuns: 400 },
    );
    expect(did.size).toBe(10);
    expect(
      filled(filled(begun(nothingTyped()), { does: 'send' }), { does: 'clear', typed: nothingTyped() }).tried,
    ).toBe(false);
  });

  it('is one request however often it is sent, and another one once it was refused and corrected', () => {
    const first = begun(nothingTyped());
    const { key } = first.typed;
    const again = [{ does: 'send' }, { does: 'hear', problem: refusal([]), key: null }, { does: 'send' }] as const;
    expect(again.reduce<Filling>(filled, first).typed.key).toBe(key);
    expect(filled(first, { does: 'hear', problem: refusal([]), key: 'fresh' }).typed.key).toBe('fresh');
  });

  it('sends what this release asks, and says emptiness where a default would come back', () => {
    const field = (key: string, more: object): Field =>
      ({ key, label: key, type: { kind: 'text' }, source: 'asked', ...more }) as Field;
    const form = {
      fields: [field('a', { preset: { from: 'fixed', value: 'x' } }), field('b', {}), field('c', {})],
      parts: ['a', 'b', 'c'].map((key) => ({ part: 'question', field: key })),
    };
    const answers = { a: '', b: '', c: 'said', older: 'asked before' };
    const known = knownAnswers({ answers }, form);
    expect(known).toEqual({ a: '', b: '', c: 'said' });
    expect(withoutBlanks(known, form)).toEqual({ a: null, c: 'said' });
  });
});

describe('problems', () => {
  const problem = (field: string, message = 'Wrong.'): Problem => ({ field, message, fix: '' });
  const question = (field: string) => ({ part: 'question', field }) as never;
  const page = (id: string) => ({ part: 'page', id, title: id, text: '' }) as never;
  const pages = pagesOf([page('one'), question('a'), page('two'), question('b')]);
  const about = (at: number, unanswered = false) => ({ pages, at, isUnanswered: () => unanswered });
  const now = (more: Partial<Filling>): Filling => ({ ...begun(nothingTyped()), ...more });

  it('are told when it was tried to go on or to be sent, or when their field was left with an answer', () => {
    const at = (more: Partial<Filling>, field: string, page_: number, unanswered = false) =>
      isTold(now(more), problem(field), about(page_, unanswered));
    expect([at({}, 'a', 0), at({ tried: true }, 'a', 0), at({ tried: true }, 'a', 1)]).toEqual([false, true, true]);
    expect([at({ passed: 0 }, 'a', 0), at({ passed: 0 }, 'b', 0), at({ passed: 0 }, 'b', 1)]).toEqual([
      true,
      false,
      false,
    ]);
    const left = new Set(['a']);
    expect([at({ left }, 'a', 0), at({ left }, 'a', 0, true), at({ left }, 'b', 1)]).toEqual([true, false, false]);
    // Who asks is asked at the end.
    expect([at({ passed: 1 }, 'contact.name', 1), at({ passed: 0 }, 'contact.name', 0)]).toEqual([true, false]);
  });

  it('of the desk stand until the form itself finds something at the same field', () => {
    const refused = refusal(['a', 'b']);
    const fields = (found: readonly Problem[]) =>
      allProblems(found, [problem('contact.name')], { refused }, [problem('b', 'Taken.'), problem('c', 'Taken.')]).map(
        ({ field, message }) => `${field} ${message}`,
      );
    expect(fields([])).toEqual(['contact.name Wrong.', 'a Not a.', 'b Not b.', 'b Taken.', 'c Taken.']);
    expect(fields([problem('b'), problem('c')])).toEqual(['b Wrong.', 'c Wrong.', 'contact.name Wrong.', 'a Not a.']);
  });
});
