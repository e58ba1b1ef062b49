import { termsInOrder } from '@tolvek/core/register';
import { describe, expect, it } from 'vitest';
import { withPasted } from './pastedTerms.ts';

const outline = (text: string): readonly string[] =>
  termsInOrder({ terms: withPasted([], text, undefined) }).map(
    ({ term, depth }) => `${'-'.repeat(depth)}${term.label}`,
  );

describe('terms from lines of text', () => {
  it('stand under the line they stand in from', () => {
    expect(outline('Mammals\n\tSeals\n\t\tGrey seal\n\t\tHarbour seal\n\tWhales\nAlgae\n  Kelp')).toEqual([
      'Mammals',
      '-Seals',
      '--Grey seal',
      '--Harbour seal',
      '-Whales',
      'Algae',
      '-Kelp',
    ]);
  });

  it('bring other words after an equals sign, and are not added twice', () => {
    const once = withPasted([], 'Grey seal = Halichoerus grypus; Atlantic seal', undefined);
    expect(once).toEqual([{ key: 'grey_seal', label: 'Grey seal', also: ['Halichoerus grypus', 'Atlantic seal'] }]);
    expect(withPasted(once, 'grey seal\n\n', undefined)).toEqual(once);
  });

  it('join those under a term that is there, with keys of their own', () => {
    const seals = withPasted([], 'Seals', undefined);
    expect(withPasted(seals, 'Seals', 'seals').map(({ key, under }) => [key, under])).toEqual([
      ['seals', undefined],
      ['seals_2', 'seals'],
    ]);
  });
});
