import * as german from './de/index.ts';
import * as english from './en/index.ts';
import type { Catalogue, Language } from './speech.ts';

/** All texts of all languages, for where all of them are needed. */
export const all: Readonly<Record<Language, Catalogue>> = { en: english, de: german };
