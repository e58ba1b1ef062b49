import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { preparePaths } from '../src/approval/index.ts';
import { type Field, requestScope, requestSlots, type Values } from '../src/register/index.ts';
import { FACTS } from './anyForm.ts';

describe('the steps that one request is asked by', () => {
  const FIELDS: readonly Field[] = [
    { key: 'sum', label: 'Sum', type: { kind: 'number', places: 0 }, source: 'asked' },
    { key: 'abroad', label: 'Abroad', type: { kind: 'yes-no' }, source: 'asked' },
  ];
  interface Answers {
    readonly sum: number | null;
    readonly abroad: boolean | null;
  }
  /** Conditions, each with what it means, read by hand: what can’t be said does not hold. */
  const MEANINGS: Readonly<Record<string, (answers: Answers) => boolean>> = {
    '': () => true,
    '  ': () => true,
    'sum > 500': ({ sum }) => sum !== null && sum > 500,
    'not(sum > 500)': ({ sum }) => sum !== null && sum <= 500,
    'abroad = true and sum >= 10': ({ sum, abroad }) => abroad === true && sum !== null && sum >= 10,
    'sum = null': ({ sum }) => sum === null,
    'sum >': () => false,
  };

  it('are those whose condition holds, in the order of the path; none at all where no condition does', () => {
    const seen = { none: 0, some: 0, all: 0 };
    const paths = fc.array(fc.constantFrom(...Object.keys(MEANINGS)), { minLength: 1, maxLength: 4 });
    const answers = fc.record({
      sum: fc.option(fc.constantFrom(0, 10, 500, 501)),
      abroad: fc.option(fc.boolean()),
    });
    fc.assert(
      fc.property(paths, answers, (conditions, given) => {
        const steps = conditions.map((when, place) => ({
          ...{ id: `s${place}`, label: `S${place}`, seats: [{ group: 'leads' }], needed: 1 },
          ...(when === '' ? {} : { when }),
        }));
        const other = {
          id: 'other',
          label: 'Other',
          steps: [{ id: 'o', label: 'O', seats: [{ group: 'leads' }], needed: 1 }],
        };
        const values = Object.fromEntries(Object.entries(given).filter(([, value]) => value !== null)) as Values;
        const path = preparePaths({ paths: [other, { id: 'p', label: '', steps }] }, requestScope(FIELDS))(
          'p',
          requestSlots(FIELDS, values, FACTS),
        );
        const meant = steps.filter((_, place) => MEANINGS[conditions[place] ?? '']?.(given));
        expect(path?.steps.map(({ id }) => id) ?? null).toEqual(meant.length === 0 ? null : meant.map(({ id }) => id));
        // What is kept with a round asks nothing any more.
        expect(path?.steps.some((step) => 'when' in step) ?? false).toBe(false);
        seen[meant.length === 0 ? 'none' : meant.length === steps.length ? 'all' : 'some'] += 1;
      }),
      { numRuns: 400 },
    );
    console.log('steps that are asked', seen);
    for (const times of Object.values(seen)) expect(times).toBeGreaterThan(20);
  });
});
