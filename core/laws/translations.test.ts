import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compareDesigns,
  editionOf,
  type FormDesign,
  inLanguage,
  mergeDesigns,
  prepareCompletion,
  spokenAlso,
  textsToTranslate,
  translationOf,
  withTranslation,
} from '../src/form/index.ts';
import { anyDifferences, anyEditions } from './anyEdition.ts';
import { answersTo, anyForm, asDesign, FACTS } from './anyForm.ts';
import { often } from './often.ts';

// What is read in another language, against a walk over the two forms that knows nothing of places or kinds of text.

/** The names of settings that people read; all others are never other words. */
const READ = new Set(['title', 'intro', 'asks', 'help', 'text', 'fix', 'label', 'unit']);

/** Whatever differs between two things of the same shape: where, and both. */
function differences(one: unknown, other: unknown, way: readonly string[] = []): readonly [string, unknown, unknown][] {
  if (typeof one !== 'object' || one === null || typeof other !== 'object' || other === null)
    return Object.is(one, other) ? [] : [[way.at(-1) ?? '', one, other]];
  const names = new Set([...Object.keys(one), ...Object.keys(other)]);
  return [...names].flatMap((name) =>
    name === 'translations'
      ? []
      : differences((one as Record<string, unknown>)[name], (other as Record<string, unknown>)[name], [...way, name]),
  );
}

const german = (text: string): string => `‹${text}›`;

/** A form with editions, and which of its texts are translated: some, from what is written or from what was before. */
const anySpoken = anyForm.chain((form) => {
  const design = asDesign(form);
  return anyEditions(anyDifferences(form)).chain((editions) => {
    const whole: FormDesign = spokenAlso({ ...design, title: 'Berth', intro: 'Ask early.', editions }, 'de', true);
    const texts = textsToTranslate(whole);
    return fc.record({
      whole: fc.constant(whole),
      texts: fc.constant(texts),
      states: fc.array(fc.constantFrom('missing', 'translated', 'outdated', 'unfit'), {
        minLength: texts.length,
        maxLength: texts.length,
      }),
    });
  });
});

type Spoken = typeof anySpoken extends fc.Arbitrary<infer Of> ? Of : never;

const translatedSo = ({ whole, texts, states }: Spoken): FormDesign =>
  texts.reduce((form, text, at) => {
    if (states[at] === 'missing') return form;
    const of = states[at] === 'outdated' ? { ...text, text: `${text.text} (before)` } : text;
    const says = states[at] === 'unfit' ? `${german(text.text)} {somebody}` : german(text.text);
    return withTranslation(form, of, 'de', says);
  }, whole);

describe('a form in another language', () => {
  it('says what was translated from what is written now, and all else as it is written; nothing but words differs', () => {
    const seen = new Map<string, number>();
    const counts = { missing: 0, translated: 0, outdated: 0, unfit: 0 };
    fc.assert(
      fc.property(anySpoken, (spoken) => {
        const form = translatedSo(spoken);
        const found = differences(form, inLanguage(form, 'de'));
        for (const [name, was, is] of found) {
          expect(READ.has(name)).toBe(true);
          expect(is).toBe(german(String(was)));
        }
        const translated = spoken.texts.filter((_, at) => spoken.states[at] === 'translated');
        expect(found.map(([, was]) => was).sort()).toEqual(translated.map(({ text }) => text).sort());
        for (const [at, text] of spoken.texts.entries()) {
          const state = spoken.states[at] ?? 'missing';
          expect(translationOf(form, text, 'de').state).toBe(state);
          counts[state] += 1;
          seen.set(text.kind, (seen.get(text.kind) ?? 0) + 1);
        }
        // In the language it is written in, and in one it is not there in, it is the very form.
        expect(inLanguage(form, 'en')).toBe(form);
        expect(inLanguage(spokenAlso(form, 'de', false), 'de')).toEqual(spokenAlso(form, 'de', false));
      }),
      { numRuns: often(300) },
    );
    console.log('texts by how they stand:', counts, 'by kind:', Object.fromEntries(seen));
    expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(80));
    const kinds = ['title', 'intro', 'question', 'help', 'heading', 'words', 'label', 'option', 'column'];
    expect([...kinds, 'warning', 'refusal', 'wayOut'].filter((kind) => !seen.has(kind))).toEqual([]);
  });

  it('comes to the same values and misses the same answers as it was written, also in an edition', () => {
    let filled = 0;
    fc.assert(
      fc.property(
        anySpoken.chain((spoken) => fc.tuple(fc.constant(spoken), answersTo(spoken.whole), fc.nat({ max: 3 }))),
        ([spoken, answers, which]) => {
          const form = translatedSo(spoken);
          const read = inLanguage(form, 'de');
          const edition = form.editions?.[which];
          const same = read.editions?.[which];
          const [one, other] = [edition ? editionOf(form, edition) : form, same ? editionOf(read, same) : read].map(
            (each) => prepareCompletion(each)(answers, FACTS),
          );
          expect(other?.values).toEqual(one?.values);
          expect(other?.problems.map(({ field, why }) => [field, why])).toEqual(
            one?.problems.map(({ field, why }) => [field, why]),
          );
          filled += Object.keys(one?.values ?? {}).length;
        },
      ),
      { numRuns: often(200) },
    );
    expect(filled).toBeGreaterThan(often(100));
  });

  it('keeps what each of two people translated, and tells where both said something else', () => {
    let clashed = 0;
    fc.assert(
      fc.property(anySpoken, fc.infiniteStream(fc.constantFrom('mine', 'theirs', 'both', 'none')), (spoken, who) => {
        const { whole, texts } = spoken;
        const by = texts.map(() => String(who.next().value));
        const of = (side: string): FormDesign =>
          texts.reduce(
            (form, text, at) =>
              by[at] === side || by[at] === 'both' ? withTranslation(form, text, 'de', `${side}: ${text.text}`) : form,
            whole,
          );
        const { content, clashes } = mergeDesigns(whole, of('mine'), of('theirs'));
        for (const [at, text] of texts.entries()) {
          const side = by[at] === 'both' ? 'mine' : by[at];
          const { says } = translationOf(content, text, 'de');
          expect(says).toBe(side === 'none' ? '' : `${side}: ${text.text}`);
        }
        expect(clashes.length > 0).toBe(by.includes('both'));
        clashed += clashes.length > 0 ? 1 : 0;
      }),
      { numRuns: often(150) },
    );
    expect(clashed).toBeGreaterThan(often(20));
  });

  it('is compared by its languages and by what is said in them', () => {
    fc.assert(
      fc.property(anySpoken, (spoken) => {
        const before = spokenAlso(spoken.whole, 'de', false);
        const after = translatedSo(spoken);
        const pages = compareDesigns(before, after).map(({ page }) => page);
        expect(new Set(pages)).toEqual(new Set(['languages']));
        expect(compareDesigns(after, after)).toEqual([]);
      }),
      { numRuns: often(60) },
    );
  });
});
