import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findingsOf, prepareCompletion } from '../index.ts';
import { designFromRows, type Ground, guessKind, RECIPES } from './index.ts';

const ground: Ground = { told: english, title: 'A form', team: 'stores', approvers: 'managers', calendar: 'desk' };
const surroundings = {
  plan: { rules: [] },
  form: 'form',
  groups: new Map([
    ['stores', 'stores'],
    ['managers', 'managers'],
  ]),
  outside: false,
  vocabularies: [],
  registers: [],
};

describe('recipes', () => {
  it.each(RECIPES.filter((recipe) => recipe.key !== 'blank').map((recipe) => [recipe.key, recipe] as const))(
    '“%s” is sound from the start',
    (_, recipe) => {
      expect(findingsOf(recipe.make(ground), surroundings)).toEqual([]);
    },
  );

  it('an empty form lacks nothing but questions', () => {
    const blank = RECIPES[0]?.make(ground);
    expect(english(blank && findingsOf(blank, surroundings).map((finding) => finding.message))).toEqual([
      'The form has no questions yet. Add a question.',
    ]);
  });

  it('the total of a purchase is exact, with VAT by line', () => {
    const design = RECIPES.find((recipe) => recipe.key === 'purchase')?.make(ground);
    if (!design) throw new Error('no such recipe');
    const facts = {
      requesterIsOutside: false,
      requesterId: null,
      requesterGroups: [],
      profile: { fields: [], values: {} },
      department: '',
      door: 'staff' as const,
      today: '2026-11-23',
      now: '2026-11-23T10:00',
      calendar: { open: [], closed: [] },
      people: [],
      files: [],
      vocabularies: [],
      references: [],
      numbers: {},
    };
    const cents = fc.integer({ min: 0, max: 99_999 });
    const line = fc.record({
      count: fc.integer({ min: 1, max: 50 }),
      minor: cents,
      vat: fc.constantFrom('full', 'reduced', 'none'),
    });
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 8 }), (lines) => {
        const { values } = prepareCompletion(design)(
          {
            purpose: 'Pumps',
            lines: lines.map(({ count, minor, vat }) => ({
              what: 'Seal',
              count,
              price: (minor / 100).toFixed(2),
              vat,
            })),
          },
          facts,
        );
        // In thousandths of a cent, so that nothing is lost; VAT is rounded line by line, half up.
        const rate = { full: 230, reduced: 135, none: 0 } as const;
        const wanted = lines.reduce(
          (sum, { count, minor, vat }) =>
            sum + count * minor + Math.floor((count * minor * rate[vat as keyof typeof rate] + 500) / 1_000),
          0,
        );
        expect(values.total).toEqual({ minor: wanted, currency: 'EUR' });
      }),
    );
  });
});

describe('a form from a spreadsheet', () => {
  it('guesses kinds from all the cells of a column, never from some', () => {
    expect(guessKind(['1', '2', '40']).kind).toBe('number');
    expect(guessKind(['1', '2.5'])).toEqual({ kind: 'number', places: 2 });
    expect(guessKind(['1', 'two']).kind).toBe('text');
    expect(guessKind(['yes', 'no', '']).kind).toBe('yes-no');
    expect(guessKind(['2026-11-23', '2026-12-01']).kind).toBe('date');
    expect(guessKind(['ada@skerrow.example']).kind).toBe('email');
    expect(guessKind([...Array(4).fill('Boats'), ...Array(4).fill('Analytical Lab')])).toEqual({
      kind: 'choice',
      options: [
        { key: 'boats', label: 'Boats' },
        { key: 'analytical_lab', label: 'Analytical Lab' },
      ],
    });
  });

  it('copes with duplicate headings, blank rows and columns without either', () => {
    const design = designFromRows(ground, [
      [],
      ['Name', 'Day', 'Name', ''],
      ['', '', '', ''],
      ['Ada', '2026-11-23', 'Bo', ''],
    ]);
    expect(design.fields.map((field) => [field.key, field.label, field.type.kind])).toEqual([
      ['name', 'Name', 'text'],
      ['day', 'Day', 'date'],
      ['name_2', 'Name', 'text'],
    ]);
    expect(findingsOf(design, surroundings).filter((finding) => finding.severity === 'error')).toEqual([]);
  });

  it('makes a form of any table at all', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.string({ maxLength: 12 }), { maxLength: 6 }), { maxLength: 8 }), (rows) => {
        const design = designFromRows(ground, rows);
        expect(new Set(design.fields.map((field) => field.key)).size).toBe(design.fields.length);
        for (const field of design.fields) expect(field.key).toMatch(/^[a-z][a-z0-9_]*$/);
      }),
    );
  });
});
