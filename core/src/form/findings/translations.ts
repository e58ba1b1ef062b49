import { LANGUAGE_NAMES, LANGUAGES, said } from '@tolvek/words';
import { termsLeft, type Vocabulary } from '../../register/index.ts';
import type { FormDesign } from '../design.ts';
import { textsToTranslate, translationOf } from '../translating.ts';
import type { Add } from './finding.ts';

/** Languages that a form is read in: what is not translated, and what was translated from words that are others by now. */
export function translationFindings(design: FormDesign, vocabularies: readonly Vocabulary[], add: Add): void {
  const spoken = LANGUAGES.filter((language) => design.translations?.[language] !== undefined);
  const texts = spoken.length > 0 ? textsToTranslate(design) : [];
  for (const language of spoken) {
    const states = texts.map((text) => translationOf(design, text, language).state);
    for (const [state, code] of [
      ['missing', 'findings:notTranslated'],
      ['outdated', 'findings:translatedBefore'],
      ['unfit', 'findings:translatedBeyond'],
    ] as const) {
      const count = states.filter((each) => each === state).length;
      if (count > 0) add('caution', 'languages', language, said(code, { count, language: LANGUAGE_NAMES[language] }));
    }
    for (const { name, terms } of vocabularies) {
      const count = termsLeft(terms, language);
      const given = { count, language: LANGUAGE_NAMES[language], name };
      if (count > 0) add('caution', 'languages', language, said('findings:termsNotTranslated', given));
    }
  }
}
