import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  type FormDesign,
  inLanguage,
  textsIn,
  textsOut,
  textsToTranslate,
  translationOf,
  withTranslation,
} from '../src/form/index.ts';
import { type Term, termMeant, vocabularyIn } from '../src/register/index.ts';
import type { NoticePlan } from '../src/telling/index.ts';
import { anyDifferences, anyEditions } from './anyEdition.ts';
import { anyForm, asDesign } from './anyForm.ts';
import { often } from './often.ts';

/** What it tells: a usual email in other words, one that is not sent, and two of its own. */
const NOTICES: NoticePlan = {
  usual: [
    { kind: 'received', subject: 'We have {request.number}', text: 'Thank you, {visitor|guest}.' },
    { kind: 'news', subject: 'Not sent', text: 'Never said.', off: true },
  ],
  rules: ['one', 'two'].map((key) => ({
    ...{ key, name: key, on: { is: 'arrived' as const }, to: ['team' as const], answers: false },
    ...{ subject: key === 'one' ? 'Look' : '', text: `Look at ${key}.`, goes: { goes: 'at-once' as const } },
  })),
};

/** A form with editions and notices. */
const anyDesign: fc.Arbitrary<FormDesign> = anyForm.chain((form) =>
  anyEditions(anyDifferences(form)).map((editions) => ({
    ...asDesign(form),
    title: 'Berth',
    intro: 'Ask early.',
    editions,
    notices: NOTICES,
  })),
);

const says = fc.string({ minLength: 1, maxLength: 12 }).filter((text) => text.trim() !== '' && !/[{}]/.test(text));

/** Every string that stands anywhere in something. */
function* wordsOf(value: unknown): Generator<string> {
  if (typeof value === 'string') yield value;
  else if (value && typeof value === 'object') for (const each of Object.values(value)) yield* wordsOf(each);
}

test('what goes out to translators comes back as it is, text by text, and nothing else of the form is another', () => {
  const counts = { forms: 0, texts: 0, came: 0, empty: 0, before: 0, strange: 0 };
  fc.assert(
    fc.property(anyDesign, fc.array(fc.option(says), { minLength: 1, maxLength: 30 }), (design, made) => {
      const out = textsOut(design, 'de');
      // Each has a name of its own that files of the standard can have, and its words stand in the form.
      expect(new Set(out.map(({ id }) => id)).size).toBe(out.length);
      const all = new Set(wordsOf(design));
      expect(out.filter(({ notice }) => notice !== undefined).map(({ id }) => id)).toEqual([
        ...['notice-usual.20.received-subject', 'notice-usual.20.received-text'],
        ...['notice-rule.20.one-subject', 'notice-rule.20.one-text', 'notice-rule.20.two-text'],
      ]);
      for (const { id, source } of out) {
        expect(id).toMatch(/^[A-Za-z_][\w.-]*$/);
        expect(all.has(source)).toBe(true);
      }
      const back = out.map((unit, at) => ({ ...unit, target: made[at % made.length] ?? '' }));
      const old = back.map((unit, at) => (at % 5 === 4 ? { ...unit, source: `${unit.source} before` } : unit));
      const taken = textsIn(design, 'de', [...old, { id: 'form-nothing', source: 'x', target: 'y' }]);
      expect(taken.unknown).toEqual(['form-nothing']);
      expect(taken.taken + taken.same + taken.empty).toBe(out.length);
      const texts = textsToTranslate(design);
      for (const [at, text] of texts.entries()) {
        const now = translationOf(taken.design, text, 'de');
        const [was, came] = [translationOf(design, text, 'de'), old[at]];
        if (!came || came.target === '') expect(now).toEqual(was);
        else expect([now.says, now.of]).toEqual([came.target, came.source]);
        counts.texts += 1;
        counts[!came || came.target === '' ? 'empty' : came.source === text.text ? 'came' : 'before'] += 1;
      }
      // Without what was said in it, it is the form as it was.
      const bare = ({ translations: _, fields, notices, ...rest }: FormDesign) => ({
        ...rest,
        fields: fields.map(({ translations: __, ...field }) => field),
        usual: notices?.usual.map(({ translations: __, ...notice }) => notice),
        tells: notices?.rules.map(({ translations: __, ...notice }) => notice),
      });
      expect(bare(taken.design)).toEqual(bare(design));
      // The same file a second time says nothing new, and what goes out now is what came.
      expect(textsIn(taken.design, 'de', old).taken).toBe(0);
      for (const [at, unit] of textsOut(taken.design, 'de').entries())
        expect(unit.target).toBe(old[at]?.target || out[at]?.target);
      counts.forms += 1;
      counts.strange += taken.unknown.length;
    }),
    { numRuns: often(300) },
  );
  console.log('out to translators and back:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(100);
});

test('a form that is written in a language is read in it as it is written, with its fields as they are called in it', () => {
  const counts = { own: 0, called: 0 };
  fc.assert(
    fc.property(anyDesign, says, (design, called) => {
      const german: FormDesign = { ...design, written: 'de' };
      const label = textsToTranslate(german).find(({ field, place }) => field !== null && place === 'label');
      const spoken = label ? withTranslation(german, label, 'de', called) : german;
      const { translations: _, ...own } = spoken;
      const read = inLanguage(own as FormDesign, 'de');
      expect([read.title, read.intro, read.parts, read.rules]).toEqual([own.title, own.intro, own.parts, own.rules]);
      counts.own += 1;
      if (!label) return;
      counts.called += 1;
      expect(read.fields.find(({ key }) => key === label.field)?.label).toBe(called);
    }),
    { numRuns: often(200) },
  );
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(50);
});

const WORDS = ['Seal', 'Robbe', 'Crab', 'Krebs', 'Tern', 'Seeschwalbe'];
const anyTerm = fc.record({
  label: fc.constantFrom(...WORDS),
  also: fc.subarray(WORDS, { maxLength: 1 }),
  german: fc.option(fc.constantFrom(...WORDS)),
  isOld: fc.integer({ min: 0, max: 4 }),
});

test('a term is meant by what it is called anywhere; the desk’s own words come first, and its key never changes', () => {
  const counts = { own: 0, other: 0, both: 0, none: 0, called: 0 };
  fc.assert(
    fc.property(fc.array(anyTerm, { minLength: 1, maxLength: 5 }), fc.constantFrom(...WORDS), (made, word) => {
      const terms = made.map(
        ({ label, also, german, isOld }, at): Term => ({
          ...{ key: `t${at}`, label, also },
          ...(german ? { translations: { de: { label: { of: isOld === 0 ? 'Before' : label, says: german } } } } : {}),
        }),
      );
      const own = terms.filter(({ label, also = [] }) => label === word || also.includes(word));
      const other = terms.filter(
        ({ label, translations }) => translations?.de?.label?.says === word && translations.de.label.of === label,
      );
      const meant = own.length > 0 ? own : other;
      const found = termMeant({ terms }, word.toUpperCase());
      expect(found?.key).toBe(meant.length === 1 ? meant[0]?.key : undefined);
      counts[own.length === 1 ? 'own' : own.length > 1 ? 'both' : other.length === 1 ? 'other' : 'none'] += 1;
      const read = vocabularyIn({ key: 'v', name: 'V', terms }, 'de');
      for (const [at, term] of read.terms.entries()) {
        const { label, german, isOld } = made[at] ?? { label: '', german: null, isOld: 0 };
        const isSaid = german !== null && isOld !== 0 && german !== label;
        expect([term.key, term.label]).toEqual([`t${at}`, isSaid ? german : label]);
        // Whoever knows it by its other name still finds it.
        if (isSaid) expect(term.also).toContain(label);
        counts.called += isSaid ? 1 : 0;
      }
      expect(vocabularyIn({ key: 'v', name: 'V', terms }, 'de').terms).toBe(read.terms);
    }),
    { numRuns: often(2_000) },
  );
  console.log('terms in two languages:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(100);
});
