import { requestScope } from '@tolvek/core/register';
import { describe, expect, it } from 'vitest';
import { suggest } from './suggest.ts';

const scope = requestScope([
  { key: 'water', label: 'Works on water', type: { kind: 'yes-no' }, source: 'asked' },
  {
    key: 'institute',
    label: 'Institute',
    type: { kind: 'choice', options: [{ key: 'corrin', label: 'Corrin Institute' }] },
    source: 'asked',
  },
  { key: 'odd', label: 'Escort (if any)', type: { kind: 'text' }, source: 'asked' },
]);
const texts = (before: string, asked = false) => suggest(before, scope, asked)?.options.map((option) => option.text);

describe('what is suggested while a condition is written', () => {
  it('takes up names with spaces from their first word', () => {
    expect(suggest('Institute = "corrin" and works on w', scope, false)).toEqual({
      from: 25,
      options: [{ label: 'Works on water', says: '', text: 'Works on water' }],
    });
  });

  it('offers functions by what they begin with, and the key of a field whose label can’t be written', () => {
    expect(texts('Works on water and co')).toEqual(expect.arrayContaining(['contains(', 'count(', 'concatenate(']));
    expect(texts('Works on water and od')).toEqual(['odd', 'odd(']);
  });

  it('offers the options of the choice a text is held against', () => {
    expect(suggest('Works on water and Institute = "c', scope, false)).toEqual({
      from: 32,
      options: [{ label: 'Corrin Institute', says: 'corrin', text: 'corrin' }],
    });
    expect(texts('Works on water = "c')).toBe(undefined);
  });

  it('says nothing after a number, unless it is asked', () => {
    expect(texts('1 + 2')).toBe(undefined);
    expect(texts('', true)).toContain('Works on water');
  });
});
