import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finishRule } from '../deadline/index.ts';
import { type Edition, type FormDesign, mergeDesigns, RECIPES } from './index.ts';

const base = RECIPES.find((recipe) => recipe.key === 'purchase')?.make({
  told: english,
  title: 'Purchase',
  team: 'stores',
  approvers: 'managers',
  calendar: 'desk',
}) as FormDesign;

const edition = (id: string): Edition => ({
  ...{ id, name: id, on: true, when: '', audience: { in: { anyOf: [id] }, outOf: [] } },
  differences: [{ does: 'hide', part: 'needed_by' }],
});

/** Edits of single places, each with a name by which two of them can be told apart. */
const EDITS: readonly (readonly [string, (design: FormDesign) => FormDesign])[] = [
  ['title', (design) => ({ ...design, title: `${design.title}!` })],
  ['intro', (design) => ({ ...design, intro: `${design.intro} More.` })],
  [
    'label of purpose',
    (design) => ({
      ...design,
      fields: design.fields.map((field) => (field.key === 'purpose' ? { ...field, label: 'Aim' } : field)),
    }),
  ],
  [
    'limit of purpose',
    (design) => ({
      ...design,
      fields: design.fields.map((field) =>
        field.key === 'purpose' ? { ...field, type: { kind: 'text', most: 80 } } : field,
      ),
    }),
  ],
  [
    'help of lines',
    (design) => ({
      ...design,
      parts: design.parts.map((part) =>
        part.part === 'question' && part.field === 'lines' ? { ...part, help: 'Each once.' } : part,
      ),
    }),
  ],
  [
    'a new section',
    (design) => ({
      ...design,
      parts: [...design.parts, { part: 'section', id: 'section-9', title: 'More', text: '' }],
    }),
  ],
  [
    'needed_by goes',
    (design) => ({
      ...design,
      parts: design.parts.filter((part) => part.part !== 'question' || part.field !== 'needed_by'),
    }),
  ],
  [
    'a new rule',
    (design) => ({
      ...design,
      rules: [
        ...design.rules,
        { id: 'rule-9', name: 'R', says: '', when: 'true', then: [], otherwise: [], on: true, runs: 'filling' },
      ],
    }),
  ],
  [
    'the row',
    (design) => ({
      ...design,
      routing: { ...design.routing, rows: design.routing.rows.map((row) => ({ ...row, note: 'Above a sum' })) },
    }),
  ],
  ['the reminder', (design) => ({ ...design, deadline: { ...design.deadline, deadlines: [finishRule(0, 0)] } })],
  ['an edition', (design) => ({ ...design, editions: [edition('one')] })],
];
const some = fc.subarray([...EDITS.keys()]);
const made = (picks: readonly number[]): FormDesign =>
  picks.reduce((design, pick) => EDITS[pick]?.[1](design) ?? design, base);

describe('putting two drafts together', () => {
  it('keeps every change of either side when they touch different places', () => {
    fc.assert(
      fc.property(some, some, (mine, others) => {
        const theirs = others.filter((pick) => !mine.includes(pick));
        const { content: design, clashes } = mergeDesigns(base, made(mine), made(theirs));
        expect(clashes).toEqual([]);
        expect(design).toEqual(made([...EDITS.keys()].filter((pick) => mine.includes(pick) || theirs.includes(pick))));
      }),
    );
  });

  it('changes nothing when one side did nothing, or both did the same', () => {
    fc.assert(
      fc.property(some, (picks) => {
        const draft = made(picks);
        for (const merged of [
          mergeDesigns(base, draft, base),
          mergeDesigns(base, base, draft),
          mergeDesigns(base, draft, draft),
        ])
          expect(merged).toEqual({ content: draft, clashes: [] });
      }),
    );
  });

  it('keeps the first editions of both, and what both have otherwise in one of them', () => {
    const [mine, theirs] = [edition('one'), edition('two')].map((each) => ({ ...base, editions: [each] }));
    const both = mergeDesigns(base, mine as FormDesign, theirs as FormDesign);
    expect([both.clashes, new Set(both.content.editions?.map(({ id }) => id))]).toEqual([[], new Set(['one', 'two'])]);
    const having = (...differences: Edition['differences']): FormDesign => ({
      ...base,
      editions: [{ ...edition('one'), differences: [...edition('one').differences, ...differences] }],
    });
    const merged = mergeDesigns(
      having(),
      having({ does: 'lock', part: 'purpose' }),
      having({ does: 'require', part: 'purpose' }),
    );
    expect([merged.clashes, merged.content.editions?.[0]?.differences.length]).toEqual([[], 3]);
  });

  it('tells what both changed in different ways, and keeps mine', () => {
    const rename = (label: string): FormDesign => ({
      ...base,
      fields: base.fields.map((field) => (field.key === 'purpose' ? { ...field, label } : field)),
    });
    const { content: design, clashes } = mergeDesigns(base, rename('Aim'), { ...rename('Goal'), intro: 'Hello.' });
    expect(english(clashes)).toEqual(['“Aim” (its name)']);
    expect(design.fields[0]?.label).toBe('Aim');
    expect(design.intro).toBe('Hello.');
  });

  it('keeps what one worked on although the other took it away, and tells it', () => {
    const [gone, worked] = [
      made([6]),
      {
        ...base,
        parts: base.parts.map((part) =>
          part.part === 'question' && part.field === 'needed_by' ? { ...part, required: true } : part,
        ),
      },
    ];
    for (const merged of [mergeDesigns(base, gone, worked), mergeDesigns(base, worked, gone)]) {
      expect(english(merged.clashes)).toEqual(['“Needed by”']);
      expect(merged.content.parts).toEqual(worked.parts);
    }
  });

  it('takes the order of the side that moved something, with what the other added in its place', () => {
    const moved = { ...base, parts: [...base.parts].reverse() };
    const { content: design } = mergeDesigns(base, made([5]), moved);
    expect(design.parts.map((part) => (part.part === 'question' ? part.field : part.id))).toEqual([
      'needed_by',
      'section-9',
      'lines',
      'purpose',
    ]);
  });
});
