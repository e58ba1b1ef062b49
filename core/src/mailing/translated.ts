import type { Language } from '@tolvek/words';
import { sayIn } from '../design/index.ts';
import type { MailingDesign } from './mailing.ts';

/** What a mailing says, in a language; null: as it was written. */
export const mailingText = ({ text, translations }: MailingDesign, language: Language | null): string =>
  language === null ? text : sayIn(translations, language)('text', text, 'words');
