import { all } from '@tolvek/words/all';
import { addTexts, LANGUAGES, type Language, languageOf, newTexts, type Speech, speech } from '@tolvek/words/speech';
import type { Request } from 'express';

const texts = newTexts('en');
for (const language of LANGUAGES) addTexts(texts, language, all[language]);

/** What the desk is called where a text names it; set once, when the house starts. */
let desk = '';
export function speakFor(email: string): void {
  desk = email;
}

/** Speaks to one reader, with moments on the clock of a zone (IANA). */
export const speechFor = ({ language, zone = 'UTC' }: { readonly language: string; readonly zone?: string }): Speech =>
  speech(texts, () => ({ language, zone, desk }));

/** The language that a caller asks for, by `Accept-Language` (RFC 9110, 12.5.4). */
export const wishedBy = (request: Request): Language => languageOf(request.acceptsLanguages());
