import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Changeable,
  changedOver,
  completedOver,
  meantBy,
  prepareCompletion,
  questionsOf,
  saidIn,
  stoodIn,
} from '../src/form/index.ts';
import type { Field, RawAnswers, Values } from '../src/register/index.ts';
import { answersTo, anyForm, FACTS } from './anyForm.ts';
import { often } from './often.ts';

// Which of theirs is meant, against a reading that compares answer by answer and imports nothing of what is tried.

const FIELDS = ['a', 'b', 'c'].map((key): Field => ({ key, label: key, type: { kind: 'text' }, source: 'asked' }));
const word = fc.constantFrom('Winch', 'winch', ' winch ', 'wi nch', 'Diving', 'diving', 'DIVING  ', 'x');
const holding = fc.dictionary(fc.constantFrom('a', 'b', 'c'), word, { maxKeys: 3 });
const theirs = fc.array(holding, { maxLength: 5 }).map((all) => all.map((values, at) => ({ id: `e${at}`, values })));

/** Two texts that people would call the same. */
const alike = (one: string, other: string): boolean => {
  const plain = (text: string): string => text.split(' ').filter(Boolean).join(' ').toUpperCase();
  return plain(one) === plain(other);
};

function readPlainly(
  by: readonly string[],
  mayAdd: boolean,
  values: Values,
  all: readonly Changeable[],
  choice: string | null,
): string {
  if (choice === 'sent') return all[0]?.id ?? 'none';
  if (choice === 'another' && mayAdd) return 'another';
  const fits = all.filter((one) =>
    by.every((key) => {
      const [wanted, held] = [values[key], one.values[key]];
      return typeof wanted === 'string' && typeof held === 'string' && alike(wanted, held);
    }),
  );
  const chosen = fits.find(({ id }) => id === choice);
  if (chosen) return chosen.id;
  if (fits.length === 0) return 'none';
  if (fits.length > 1 || mayAdd) return fits.map(({ id }) => id).join(' or ');
  return fits[0]?.id ?? '';
}

describe('what answers to an update form are about', () => {
  it('is what has the same answers, as a plain reading says', () => {
    const counts = { none: 0, another: 0, one: 0, several: 0 };
    fc.assert(
      fc.property(
        fc.subarray(['a', 'b', 'c'], { maxLength: 2 }),
        fc.boolean(),
        holding,
        theirs,
        fc.constantFrom(null, 'another', 'sent', 'e0', 'e1', 'e4', 'gone'),
        (by, mayAdd, values, all, choice) => {
          const updates = { by, ...(mayAdd ? { beside: true as const } : {}) };
          const given = choice === null || choice === 'another' || choice === 'sent' ? choice : { id: choice };
          const meant = meantBy(updates, FIELDS, values, all, given);
          const said =
            meant.is === 'one'
              ? meant.one.id
              : meant.is === 'several'
                ? meant.among.map(({ id }) => id).join(' or ')
                : meant.is;
          counts[meant.is] += 1;
          expect(said).toBe(readPlainly(by, mayAdd, values, all, choice));
        },
      ),
      { numRuns: often(4_000) },
    );
    console.log('what was meant:', counts);
    expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(100));
  });
});

describe('what answers change', () => {
  const formWithTwo = anyForm.chain((form) => fc.tuple(fc.constant(form), answersTo(form), answersTo(form)));

  it('is what they say: a blank leaves, null takes away, and what it was found by stays; rules apart, nothing else', () => {
    const counts = { left: 0, changed: 0, gone: 0, 'by rules': 0, dropped: 0, locked: 0 };
    fc.assert(
      fc.property(formWithTwo, fc.nat(), fc.nat(2 ** 30 - 1), ([form, before, every], pick, some) => {
        // Now of all, now of few: what is not said is what rules can change.
        const after = Object.fromEntries(Object.entries(every).filter((_, at) => ((some >> (at % 30)) & 1) === 1));
        const complete = prepareCompletion(form);
        const stood = stoodIn(form, complete(before, FACTS).values);
        const asked = questionsOf(form.parts).map(({ field }) => field);
        const by = asked.length > 0 ? [asked[pick % asked.length] ?? ''] : [];
        const said: RawAnswers = saidIn(after);
        const over = completedOver(complete, stood, said, FACTS);
        const changes = changedOver(form.fields, by, over, said);
        for (const { key, source } of form.fields) {
          const isSaid = Object.hasOwn(said, key);
          if (source === 'computed' || source === 'carried' || by.includes(key)) {
            expect(Object.hasOwn(changes, key)).toBe(false);
          } else if (isSaid) {
            expect(changes[key]).toEqual(said[key]);
            counts[said[key] === null ? 'gone' : 'changed'] += 1;
          } else if (Object.hasOwn(changes, key)) {
            // Only a rule or a default of the form changes what nobody said.
            expect(form.rules.length + form.fields.filter((field) => 'preset' in field).length).toBeGreaterThan(0);
            counts['by rules'] += 1;
          } else counts.left += 1;
        }
        const now = new Map(over.completion.asked.map((question) => [question.field, question]));
        for (const field of over.dropped) {
          // It stood there, nobody said anything of it, and it is not asked for any more.
          expect([Object.hasOwn(stood, field), Object.hasOwn(said, field), now.has(field)]).toEqual([
            true,
            false,
            false,
          ]);
          expect(Object.hasOwn(over.completion.values, field)).toBe(false);
          counts.dropped += 1;
        }
        for (const [field, { locked }] of now) {
          if (!locked || !Object.hasOwn(stood, field) || Object.hasOwn(said, field)) continue;
          // What nobody may fill in any more stays, unless the form fills it in.
          if (!Object.hasOwn(over.completion.values, field)) expect(Object.hasOwn(changes, field)).toBe(false);
          expect(over.problems.some((problem) => problem.field === field)).toBe(false);
          counts.locked += 1;
        }
        // What is told is of what they say, or was not wrong before.
        const known = new Set([...over.before.problems, ...over.before.strangers].map(({ field }) => field));
        for (const { field } of over.problems) expect(Object.hasOwn(said, field) || !known.has(field)).toBe(true);
      }),
      { numRuns: often(1_600) },
    );
    console.log('what answers change:', counts);
    expect(Math.min(counts.left, counts.changed)).toBeGreaterThan(often(400));
    expect(Math.min(counts.gone, counts['by rules'], counts.locked)).toBeGreaterThan(often(3));
  });

  it('goes with the answer that asked for it, unless it is kept all the same', () => {
    const counts = { dropped: 0, kept: 0, there: 0 };
    const answer = fc.option(fc.constantFrom('one', 'two'), { nil: undefined });
    fc.assert(
      fc.property(
        ...[fc.boolean(), fc.boolean(), answer, answer],
        fc.constantFrom('ignored' as const, 'cleared' as const, 'kept' as const),
        (was, is, stands, says, whenHidden) => {
          const asks = { asks: '', help: '', required: false };
          const complete = prepareCompletion({
            fields: [
              { key: 'water', label: 'Water', type: { kind: 'yes-no' }, source: 'asked' },
              { key: 'boat', label: 'Boat', type: { kind: 'text' }, source: 'asked' },
            ],
            parts: [
              { part: 'question', field: 'water', ...asks },
              { part: 'question', field: 'boat', ...asks, whenHidden },
            ],
            rules: [
              {
                ...{ id: 'r', name: 'Boat', says: '', when: 'water = true', on: true, runs: 'filling' },
                ...{ then: [{ do: 'show', parts: ['boat'] }], otherwise: [] },
              },
            ],
          });
          const stood = { water: was, ...(stands === undefined ? {} : { boat: stands }) };
          const said = { water: is, ...(says === undefined ? {} : { boat: says }) };
          const { dropped, problems } = completedOver(complete, stood, said, FACTS);
          const goes = was && !is && stands !== undefined && says === undefined && whenHidden !== 'kept';
          expect(dropped).toEqual(goes ? ['boat'] : []);
          // Nobody is refused for what they have not said.
          expect(problems.length > 0).toBe(says !== undefined && !is && whenHidden !== 'kept');
          counts[goes ? 'dropped' : whenHidden === 'kept' ? 'kept' : 'there'] += 1;
        },
      ),
      { numRuns: often(600) },
    );
    expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(20));
  });

  it('is nothing where nothing is said', () => {
    let tried = 0;
    fc.assert(
      fc.property(formWithTwo, ([form, before]) => {
        const complete = prepareCompletion(form);
        const stood = stoodIn(form, complete(before, FACTS).values);
        const over = completedOver(complete, stood, {}, FACTS);
        expect(changedOver(form.fields, [], over, {})).toEqual({});
        expect(over.problems).toEqual([]);
        tried += 1;
      }),
      { numRuns: often(400) },
    );
    expect(tried).toBe(often(400));
  });
});
