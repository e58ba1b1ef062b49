import type { Field, FieldValue, RawAnswer } from '@tolvek/core/register';
import { NOTHING_AROUND, readAnswer } from '@tolvek/core/register';
import { describe, expect, it } from 'vitest';
import { answersFrom, answersLike, broughtAlong, questionsFor } from './broughtAlong.ts';
import { begun, filled } from './filling.ts';
import { nothingTyped } from './keptAnswers.ts';

const asked = (key: string, type: Field['type']): Field => ({ key, label: key, type, source: 'asked' }) as Field;
const options = [
  { key: 'small', label: 'Small' },
  { key: 'big', label: 'Big' },
];
/** A value of each kind that can be written, and one of each that is chosen anew. */
const HELD: readonly (readonly [Field, FieldValue, boolean])[] = [
  [asked('name', { kind: 'text' }), 'Ida', true],
  [asked('why', { kind: 'long-text' }), 'Two\nlines', true],
  [asked('n', { kind: 'number', places: 1 }), 2.5, true],
  [asked('cost', { kind: 'money', currency: 'EUR' }), { minor: 1250, currency: 'EUR' }, true],
  [asked('day', { kind: 'date' }), '2026-12-01', true],
  [asked('water', { kind: 'yes-no' }), false, true],
  [asked('size', { kind: 'choice', options }), 'big', true],
  [asked('sizes', { kind: 'choices', options }), ['small', 'big'], true],
  [asked('mail', { kind: 'email' }), 'ida@merrow.example', true],
  [asked('who', { kind: 'person', from: [] }), 'a-person', false],
  [asked('papers', { kind: 'files', only: 'any' } as unknown as Field['type']), ['a-file'], false],
];

describe('a request that is asked again', () => {
  it('has its answers as they were typed, read back to the same; what is picked is picked anew', () => {
    const fields = HELD.map(([field]) => field);
    const like = { number: 'AC-00001', values: HELD.map(([{ key }, value]) => ({ key, value })) };
    const answers = answersLike(fields, like);
    for (const [field, value, isWritten] of HELD) {
      const answer = answers[field.key] as RawAnswer | undefined;
      expect([field.key, answer !== undefined]).toEqual([field.key, isWritten]);
      if (answer !== undefined)
        expect([field.key, readAnswer(field, answer, NOTHING_AROUND)]).toEqual([field.key, { state: 'value', value }]);
    }
  });

  it('leaves out what it has not, what is not asked any more, and what the desk fills in', () => {
    const [name] = HELD.map(([field]) => field);
    const desk = { ...asked('escort', { kind: 'text' }), source: 'desk-only' } as Field;
    const values = [
      { key: 'name', value: null },
      { key: 'gone', value: 'x' },
      { key: 'escort', value: 'Signe' },
    ];
    expect(answersLike(name ? [name, desk] : [], { number: 'AC-00001', values })).toEqual({});
  });

  it('comes before the address, and what was typed before both', () => {
    const fields = HELD.slice(0, 2).map(([field]) => field);
    const like = { number: 'AC-00001', values: [{ key: 'name', value: 'Ida' }] };
    const along = broughtAlong(
      { fields, prefills: ['name', 'why'] },
      { search: '?a.name=Per&a.why=Work', like, from: null },
    );
    expect(along).toEqual({ name: 'Ida', why: 'Work' });
    const typed = { ...nothingTyped(), answers: { why: 'Typed', name: '' } };
    expect(filled(begun(typed), { does: 'bring', answers: along }).typed.answers).toEqual({ why: 'Typed', name: '' });
    expect(filled(begun(nothingTyped()), { does: 'bring', answers: along }).typed.answers).toEqual(along);
  });
});

describe('the words of an email', () => {
  it('answer each question for a long text that would take them', () => {
    const asks = (key: string, type: Field['type']): Field => ({ key, label: key, source: 'asked', type });
    const email = { id: 'e', name: 'Nerys Coe', subject: 'Visit', text: 'May I come on Monday?' };
    const fields = [
      ...[asks('name', { kind: 'text' }), asks('what', { kind: 'long-text' })],
      ...[asks('short', { kind: 'long-text', most: 5 }), asks('more', { kind: 'long-text' })],
    ];
    expect(questionsFor(fields, email).map(({ key }) => key)).toEqual(['what', 'more']);
  });
});

describe('a form that another one led to', () => {
  it('takes over what was typed there, where it asks the same and would take it', () => {
    const fields = HELD.map(([field]) => field);
    const values = [
      ...[
        { key: 'name', value: 'Ida' },
        { key: 'n', value: 'many' },
        { key: 'day', value: '2026-12-01' },
      ],
      ...[
        { key: 'size', value: 'huge' },
        { key: 'sizes', value: ['small'] },
        { key: 'mail', value: '' },
      ],
      ...[
        { key: 'who', value: 'a-person' },
        { key: 'elsewhere', value: 'x' },
        { key: 'water', value: null },
      ],
    ];
    expect(answersFrom(fields, { title: 'Another', values })).toEqual({
      name: 'Ida',
      day: '2026-12-01',
      sizes: ['small'],
    });
    const along = broughtAlong(
      { fields, prefills: ['name'] },
      { search: '?a.name=Per', like: null, from: { title: 'Another', values } },
    );
    expect(along).toMatchObject({ name: 'Ida', day: '2026-12-01' });
  });
});
