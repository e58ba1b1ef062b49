import type { Words } from '@tolvek/words';
import { languageOf } from '@tolvek/words/speech';
import { speechFor } from './words.ts';

/** Says something on the command line, in the language of whoever runs it (POSIX, 8.2: `LC_ALL`, `LC_MESSAGES`, `LANG`). */
export function spokenHere(words: Words): string {
  const { LC_ALL, LC_MESSAGES, LANG } = process.env;
  const wished = [LC_ALL, LC_MESSAGES, LANG].find((each) => each !== undefined && each !== '') ?? '';
  return speechFor({ language: languageOf([wished]) }).told(words);
}

/** Why the application can’t start, in words for whoever starts it: no mistake of ours. */
export class CannotStart extends Error {
  constructor(readonly words: Words) {
    super(spokenHere(words));
  }
}
