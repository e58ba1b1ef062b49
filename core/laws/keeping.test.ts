import fc from 'fast-check';
import { expect, test } from 'vitest';
import { prepareCompletion, prepareKeeping } from '../src/form/index.ts';
import { type FieldValue, isFilled, readAnswer } from '../src/register/index.ts';
import { answersTo, anyForm, FACTS, goodAnswer } from './anyForm.ts';
import { often } from './often.ts';

/** A form with what arrived by it, and what somebody changes then. */
const changed = fc.tuple(anyForm, fc.boolean()).chain(([made, always]) => {
  // Half of the forms have all of their rules at every saving.
  const form = always
    ? { ...made, rules: made.rules.map((rule) => ({ ...rule, on: true, runs: 'saving' as const })) }
    : made;
  const filled = form.fields.filter(isFilled);
  const change = fc
    .constantFrom(...filled)
    .chain((field) => fc.oneof(fc.constant(null), goodAnswer(field.type)).map((answer) => [field, answer] as const));
  return fc.record({ form: fc.constant(form), answers: answersTo(form), changes: fc.array(change, { maxLength: 3 }) });
});

test('what was kept is kept: keeping it once more changes nothing', () => {
  const seen = { kept: 0, 'changed by a rule': 0, computed: 0, carried: 0, refused: 0 };
  fc.assert(
    fc.property(changed, ({ form, answers, changes }) => {
      const keep = prepareKeeping(form);
      // As they came before there were rules: what a rule would have put there is not there yet.
      const arrived = prepareCompletion({ ...form, rules: [] })(answers, FACTS).values;
      const values: Record<string, FieldValue> = { ...arrived };
      const touched = new Set<string>();
      for (const [field, answer] of changes) {
        const read = answer === null ? null : readAnswer(field, answer, FACTS);
        if (read && read.state !== 'value') continue;
        if (read) values[field.key] = read.value;
        else delete values[field.key];
        touched.add(field.key);
      }
      const once = keep(values, touched, FACTS);
      const twice = keep(once.values, new Set(), FACTS);
      expect(twice.values).toEqual(once.values);
      // What refused the change refuses what it came to; nothing new is found in what was kept.
      const told = new Set(once.problems.map((problem) => `${problem.field} ${problem.message}`));
      const fresh = twice.problems.filter((problem) => !told.has(`${problem.field} ${problem.message}`));
      expect(fresh).toEqual([]);
      seen.kept += 1;
      const source = (key: string) => form.fields.find((field) => field.key === key)?.source;
      const moved = form.fields.filter(
        ({ key }) => JSON.stringify(once.values[key]) !== JSON.stringify(values[key]) && !touched.has(key),
      );
      if (moved.some(({ key }) => source(key) === 'asked' || source(key) === 'desk-only'))
        seen['changed by a rule'] += 1;
      if (moved.some(({ key }) => source(key) === 'computed')) seen.computed += 1;
      if (form.fields.some(({ key }) => source(key) === 'carried' && once.values[key] !== undefined)) seen.carried += 1;
      if (once.problems.length > 0) seen.refused += 1;
    }),
    { numRuns: often(700) },
  );
  console.log('what was kept', seen);
  for (const [what, times] of Object.entries(seen)) expect([what, times > often(20)]).toEqual([what, true]);
});

test('an old request keeps what its release computes, whatever newer ones compute', () => {
  let told = 0;
  fc.assert(
    fc.property(changed, ({ form, answers }) => {
      const before = prepareCompletion(form)(answers, FACTS).values;
      const computed = form.fields.filter((field) => field.source === 'computed');
      // A newer release: each formula is another one, and each rule is gone.
      const newer = {
        ...form,
        rules: [],
        fields: form.fields.map((field) => (field.source === 'computed' ? { ...field, formula: '1' } : field)),
      };
      const kept = prepareKeeping(form)(before, new Set(), FACTS).values;
      const anew = prepareKeeping(newer)(before, new Set(), FACTS).values;
      for (const { key } of computed) {
        // By the rules of every saving something else may have changed that it is computed from.
        if (form.rules.every((rule) => rule.runs !== 'saving')) expect(kept[key]).toEqual(before[key]);
        if (JSON.stringify(anew[key]) !== JSON.stringify(before[key])) told += 1;
      }
    }),
    { numRuns: often(300) },
  );
  expect(told).toBeGreaterThan(often(100));
});
