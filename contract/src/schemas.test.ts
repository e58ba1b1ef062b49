import { isDeepStrictEqual } from 'node:util';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { ANY_KIND, anyForm, asDesign } from '../../core/laws/anyForm.ts';
import { formDesign, formFileSchema } from './index.ts';

type Place = readonly (string | number)[];

/** Every place in a value where an object stands. */
function objectsIn(value: unknown, at: Place = []): readonly Place[] {
  if (Array.isArray(value)) return value.flatMap((each, index) => objectsIn(each, [...at, index]));
  if (typeof value !== 'object' || value === null) return [];
  return [at, ...Object.entries(value).flatMap(([key, each]) => objectsIn(each, [...at, key]))];
}

/** A copy with one key more at a place. */
function withSurplus(value: unknown, at: Place): unknown {
  const copy = structuredClone(value);
  let object = copy as Record<string | number, unknown>;
  for (const key of at) object = object[key] as Record<string | number, unknown>;
  object.surplus_key = 1;
  return copy;
}

/** Where keys are anybody’s: cells stand under the ids of their columns, rows of a preset under keys that are read later. */
const isMap = (at: Place): boolean => at.at(-1) === 'cells' || (at.includes('preset') && at.includes('value'));

test('schemas take every design core can make, as it is, and none with one key more', () => {
  const kinds = new Set<string>();
  const places = new Set<string>();
  fc.assert(
    fc.property(anyForm, fc.nat(), (form, which) => {
      // As it comes over the wire.
      const design = JSON.parse(JSON.stringify(asDesign(form))) as ReturnType<typeof asDesign>;
      const parsed = formDesign.parse(design);
      expect(isDeepStrictEqual(parsed, design)).toBe(true);
      for (const field of form.fields) kinds.add(field.type.kind);
      const file = { format: 'tolvek-form', version: 3, design, needs: { groups: [], calendars: [] } };
      expect(formFileSchema.safeParse(file).success).toBe(true);
      const all = objectsIn(design).filter((at) => !isMap(at));
      const at = all[which % all.length] ?? [];
      places.add(at.map((key) => (typeof key === 'number' ? '#' : key)).join('.'));
      expect([at.join('.'), formDesign.safeParse(withSurplus(design, at)).success]).toEqual([at.join('.'), false]);
    }),
    { numRuns: 600 },
  );
  console.log(`designs with ${kinds.size} kinds, one key more at ${places.size} kinds of places`);
  expect([...kinds].sort()).toEqual([...new Set([...ANY_KIND.map((kind) => kind.kind), 'running-number'])].sort());
  expect(places.size).toBeGreaterThan(15);
});
