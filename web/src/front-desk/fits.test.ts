import fc from 'fast-check';
import { expect, it } from 'vitest';
import { fits } from './fits.ts';

const FORMS = ['Come on site. For visitors and contractors.', 'Vessel time', 'Métier Ångström', 'Straße 12'];
const found = (sought: string): readonly number[] =>
  FORMS.flatMap((form, place) => (fits(sought, form) ? [place] : []));

it('finds a form by the start of its words, in any order, case and without accents', () => {
  expect([
    found('vis'),
    found('SITE come'),
    found('angstr'),
    found('metier'),
    found('straße 1'),
    found('sit vess'),
  ]).toEqual([[0], [0], [2], [2], [3], []]);
  expect([found(''), found('  '), found('…')]).toEqual([
    [0, 1, 2, 3],
    [0, 1, 2, 3],
    [0, 1, 2, 3],
  ]);
});

it('finds every text by any of its own words, and by fewer words more of them', () => {
  const word = fc.stringMatching(/^[a-zäöüé]{1,8}$/);
  fc.assert(
    fc.property(fc.array(word, { minLength: 1, maxLength: 6 }), fc.array(word, { maxLength: 3 }), (own, other) => {
      const text = own.join(' ');
      for (const each of own) expect(fits(each.toUpperCase(), text)).toBe(true);
      if (fits([...own, ...other].join(' '), text)) expect(fits(own.join(' '), text)).toBe(true);
    }),
    { numRuns: 200 },
  );
});
