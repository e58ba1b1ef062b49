import { LANGUAGE_NAMES, LANGUAGES, said } from '@tolvek/words';
import type { FormDesign } from '../design.ts';
import { textsToTranslate, translationOf } from '../translating.ts';
import type { Add } from './finding.ts';

/** Languages that a form is read in: what is not translated, and what was translated from words that are others by now. */
export function translationFindings(design: FormDesign, add: Add): void {
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
  }
}
