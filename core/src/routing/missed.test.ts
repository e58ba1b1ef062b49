import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { applyFix, findingsOf, RECIPES } from '../form/index.ts';
import type { ChoiceOption } from '../register/index.ts';

const OPTIONS: readonly ChoiceOption[] = ['water', 'sediment', 'tissue'].map((key) => ({
  key,
  label: key.toUpperCase(),
}));
const simple = RECIPES.find((recipe) => recipe.key === 'simple')?.make({
  told: english,
  title: 'Samples',
  team: 'lab',
  approvers: 'lab',
  calendar: 'desk',
});
if (!simple) throw new Error('no recipe');
const around = {
  plan: { rules: [] },
  form: 'form',
  groups: new Map([['lab', 'lab']]),
  outside: false,
  vocabularies: [],
  registers: [],
};
const outcome = { team: 'lab', priority: 'normal', workingDays: 2, path: null } as const;
const withRows = (cells: readonly string[], options = OPTIONS) => ({
  ...simple,
  fields: [
    ...simple.fields,
    { key: 'matrix', label: 'Matrix', type: { kind: 'choice' as const, options }, source: 'asked' as const },
  ],
  parts: [...simple.parts, { part: 'question' as const, field: 'matrix', asks: '', help: '', required: true }],
  routing: {
    columns: [{ id: 'm', label: 'Matrix', input: 'matrix' }],
    rows: cells.map((cell, index) => ({ id: `row-${index + 1}`, note: '', cells: { m: cell }, outcome })),
    otherwise: outcome,
  },
});
const missed = (design: ReturnType<typeof withRows>) =>
  findingsOf(design, around).filter((finding) => finding.fix?.fix === 'add-row');

describe('a case no row is for', () => {
  it('is told when the rows go through the options and pass one over, and a row for it mends that', () => {
    const design = withRows(['"water"', '"sediment"']);
    const [found, ...more] = missed(design);
    expect(english([found?.message, more])).toEqual([
      '“Matrix” has the option “TISSUE”, and no row mentions it. Such requests use the last row. Add a row if that is wrong.',
      [],
    ]);
    if (!found?.fix) throw new Error('no fix');
    const mended = applyFix(design, found.fix, english) as typeof design;
    expect(mended.routing.rows.map((row) => row.cells.m)).toEqual(['"water"', '"sediment"', '"tissue"']);
    expect(missed(mended)).toEqual([]);
  });

  it('is not told where one option is singled out, a row takes anything, or nobody can choose it any more', () => {
    expect(missed(withRows(['"water"']))).toEqual([]);
    expect(missed(withRows(['"water"', '"sediment"', '']))).toEqual([]);
    expect(missed(withRows(['"water"', 'not("water")']))).toEqual([]);
    expect(
      missed(
        withRows(['"water", "sediment"'], [...OPTIONS.slice(0, 2), { key: 'tissue', label: 'TISSUE', retired: true }]),
      ),
    ).toEqual([]);
  });
});
