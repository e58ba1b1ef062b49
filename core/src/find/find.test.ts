import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Field, ItemRow, Values } from '../register/index.ts';
import { faultsBetween, faultsIn } from './near.ts';
import { calledIn, type SoughtIn, soughtBy, standsIn, widened } from './sought.ts';
import { findableIn, personTag } from './tags.ts';
import { piecesOf, wordsOf } from './words.ts';

const MONTHS = new Map([...['november', 'nov'].map((name) => [name, 11] as const), ['marz', 3], ['mar', 3]]);
const around = (called: SoughtIn['called'] = () => []): SoughtIn => ({ today: '2026-11-23', months: MONTHS, called });
const days = (text: string): readonly (string | undefined)[] => soughtBy(text, around()).map(({ day }) => day);

const field = (key: string, type: Field['type']): Field => ({ key, label: key, type, source: 'asked' }) as Field;
const FIELDS = [
  field('title', { kind: 'text' }),
  field('boat', {
    kind: 'choice',
    options: [
      { key: 'kestrel', label: 'Kestrel, 12 m' },
      { key: 'tern', label: 'Arctic tern' },
    ],
    other: true,
  } as Field['type']),
  field('leaves', { kind: 'date' }),
  field('price', { kind: 'money', currency: 'EUR' }),
  field('lead', { kind: 'person' } as Field['type']),
  field('items', {
    kind: 'line-items',
    columns: [
      { key: 'what', label: 'What', type: { kind: 'text' } },
      { key: 'count', label: 'Count', type: { kind: 'number', places: 0 } },
    ],
  } as unknown as Field['type']),
];
const VALUES: Values = {
  ...{ title: 'Crossing to Lundøy – Äquinoktium', boat: 'tern', leaves: '2026-11-27', lead: 'p-1' },
  price: { minor: 74_050, currency: 'EUR' },
  items: [{ what: 'Rope', count: 3 }, { what: 'Buoys, red' }] as readonly ItemRow[],
};
const called = calledIn(FIELDS, []);
/** The places in which all that is typed stands, or undefined where something stands in none. */
const placesOf = (text: string, keys?: ReadonlySet<string>): readonly string[] | undefined => {
  const places = findableIn(FIELDS, VALUES, keys);
  const found = soughtBy(text, around(called)).map((each) => places.filter((place) => standsIn(each, place)));
  return found.some((some) => some.length === 0) ? undefined : found.flatMap((some) => some.map(({ place }) => place));
};

describe('what is looked for', () => {
  it.each([
    ['27 Nov', '2026-11-27'],
    ['27. November', '2026-11-27'],
    ['November 27', '2026-11-27'],
    ['27.11.', '2026-11-27'],
    ['27.11.2025', '2025-11-27'],
    ['27/11/2026', '2026-11-27'],
    ['2026-11-27', '2026-11-27'],
    // Without a year the nearest is meant: March is nearer ahead than behind.
    ['3. März', '2027-03-03'],
  ])('reads %s as a day', (text, day) => {
    expect(days(text)).toEqual([day]);
  });

  it.each(['31.2.', '2026-02-30', '45 Nov', '12.5', '1.2.3.4', 'Nov'])('reads %s as no day', (text) => {
    expect(days(text).every((day) => day === undefined)).toBe(true);
  });

  it('takes a day out of other words', () => {
    expect(soughtBy('boat 27 Nov red', around()).map(({ typed, day }) => day ?? typed)).toEqual([
      ...['2026-11-27', 'boat', 'red'],
    ]);
  });

  it.each([
    ['cross', ['title']],
    ['lundoy', ['title']],
    ['aquinoktium', ['title']],
    ['tern', ['boat']],
    ['arc', ['boat']],
    ['27.11.', ['leaves']],
    ['740.5', ['price']],
    ['740,50', ['price']],
    ['rope 3', ['items.what', 'items.count']],
    ['red crossing', ['items.what', 'title']],
    ['kestrel', undefined],
    ['rossing', undefined],
    // Two letters are looked for as they are: else nearly everything would be found.
    ['to', ['title']],
    ['cr', undefined],
  ])('finds %s in %s', (text, places) => {
    expect(placesOf(text)).toEqual(places);
  });

  it('finds nothing in what may not be read', () => {
    expect(placesOf('red', new Set(['title', 'items']))).toBeUndefined();
    expect(placesOf('red', new Set(['items.what']))).toEqual(['items.what']);
  });

  it('finds people by what they are, however they are called', () => {
    const [sought] = soughtBy(
      'okafor',
      around(() => [personTag('p-1')]),
    );
    expect(
      findableIn(FIELDS, VALUES)
        .filter((place) => sought && standsIn(sought, place))
        .map(({ place }) => place),
    ).toEqual(['lead']);
  });

  it('finds days beside the one that is meant when it is widened', () => {
    const places = findableIn(FIELDS, VALUES);
    for (const [typed, near] of [
      ['2026-11-24', true],
      ['2026-11-30', true],
      ['2026-11-23', false],
      ['2026-12-01', false],
    ] as const) {
      const [day] = soughtBy(typed, around());
      if (!day) throw new Error('a day is looked for');
      expect(
        places.some((place) => standsIn(day, place)),
        typed,
      ).toBe(false);
      expect(
        places.some((place) => standsIn(widened(day, []), place)),
        typed,
      ).toBe(near);
    }
  });
});

/** The same counted slowly, by trying every way from the ends of both words. */
function slowly(a: string, b: string): number {
  if (a === '' || b === '') return a.length + b.length;
  const ways = [
    slowly(a.slice(1), b) + 1,
    slowly(a, b.slice(1)) + 1,
    slowly(a.slice(1), b.slice(1)) + (a[0] === b[0] ? 0 : 1),
  ];
  if (a.length > 1 && b.length > 1 && a[0] === b[1] && a[1] === b[0]) ways.push(slowly(a.slice(2), b.slice(2)) + 1);
  return Math.min(...ways);
}

describe('faults', () => {
  it('are counted as by trying every way', () => {
    const word = fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 6 }).map((letters) => letters.join(''));
    const seen = new Map<number, number>();
    fc.assert(
      fc.property(word, word, fc.integer({ min: 0, max: 3 }), (a, b, most) => {
        const faults = slowly(a, b);
        seen.set(Math.min(faults, 4), (seen.get(Math.min(faults, 4)) ?? 0) + 1);
        expect(Math.min(faultsBetween(a, b, most), most + 1)).toBe(Math.min(faults, most + 1));
      }),
      { numRuns: 800 },
    );
    expect([0, 1, 2, 3, 4].every((faults) => (seen.get(faults) ?? 0) > 0)).toBe(true);
  });

  it('are none in short words, one in others and two in long ones', () => {
    expect(['sea', 'seas', 'harbour', 'harbours'].map(faultsIn)).toEqual([0, 1, 1, 2]);
  });
});

describe('a text in pieces', () => {
  it('is the text, with what is meant marked, and cut where it is long', () => {
    const text = fc.array(fc.constantFrom('boat', 'Boats', 'at', 'nine,', 'Ävar', '–', 'red'), { maxLength: 40 });
    fc.assert(
      fc.property(text, fc.integer({ min: 20, max: 200 }), (words, most) => {
        const line = words.join(' ');
        const pieces = piecesOf(line, ['boat', 'avar'], most);
        const shown = pieces.map((piece) => piece.text).join('');
        const bare = shown.replace(/^… | …$/g, '');
        expect(line).toContain(bare);
        expect(bare.length).toBeLessThanOrEqual(most);
        if (line.length <= most) expect(shown).toBe(line);
        for (const piece of pieces) expect(piece.meant).toBe(/^(… )?(boat|Boats|Ävar)( …)?$/.test(piece.text));
        if (/boat|Boats|Ävar/.test(line)) expect(pieces.some(({ meant }) => meant)).toBe(true);
      }),
      { numRuns: 400 },
    );
  });

  it('has its words in small letters, without accents', () => {
    expect(wordsOf('Straße 12, ÅSE’s boat_b')).toEqual(['strasse', '12', 'ase', 's', 'boat', 'b']);
  });
});
