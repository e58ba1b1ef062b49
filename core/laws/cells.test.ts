import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  cellOf,
  comesInCells,
  type Field,
  guarded,
  namesAround,
  readAnswer,
  typedFromCell,
  unguarded,
} from '../src/register/index.ts';
import { ANY_KIND, FACTS, goodAnswer } from './anyForm.ts';

const anyKind = fc.constantFrom(...ANY_KIND.filter(comesInCells));

describe('cells of a sheet', () => {
  it('read back as the value they were made from, for every kind', () => {
    fc.assert(
      fc.property(
        anyKind.chain((type) => fc.tuple(fc.constant(type), goodAnswer(type))),
        ([type, raw]) => {
          const field: Field = { key: 'f', label: 'F', type, source: 'asked' };
          const read = readAnswer(field, raw, FACTS);
          if (read.state !== 'value') return;
          const cell = cellOf(field, read.value, namesAround(FACTS), FACTS);
          const back = readAnswer(field, typedFromCell(field, unguarded(guarded(cell)), FACTS), FACTS);
          expect([type.kind, cell, back]).toEqual([type.kind, cell, read]);
        },
      ),
      { numRuns: 2_000 },
    );
  });

  it('never begin like a formula', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.constantFrom('=', '+', '-', '@', '\t').chain((sign) => fc.string().map((rest) => sign + rest)),
        ),
        (text) => {
          expect(/^[=+@\t\r]/.test(guarded(text))).toBe(false);
          expect(unguarded(guarded(text))).toBe(text);
        },
      ),
    );
  });

  it('say yes and no as people and spreadsheets write them', () => {
    const field: Field = { key: 'f', label: 'F', type: { kind: 'yes-no' }, source: 'asked' };
    const read = (cell: string) => readAnswer(field, typedFromCell(field, cell, FACTS), FACTS);
    for (const [cell, value] of [
      ['Yes', true],
      ['TRUE', true],
      [' yes', true],
      ['No', false],
      ['FALSE', false],
    ] as const)
      expect(read(cell), cell).toEqual({ state: 'value', value });
    expect(read('maybe').state).toBe('wrong');
  });

  it('leave an empty answer empty, and words that mean nothing as they are', () => {
    const field: Field = { key: 'f', label: 'F', type: { kind: 'people', from: [] }, source: 'asked' };
    expect([typedFromCell(field, '  ', FACTS), typedFromCell(field, 'Ada Quill; nobody', FACTS)]).toEqual([
      null,
      ['ada', 'nobody'],
    ]);
  });
});
