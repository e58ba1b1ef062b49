/** The languages that the interface and its emails are written in. */
export const LANGUAGES = ['en', 'de'] as const;
export type Language = (typeof LANGUAGES)[number];
/** What each language calls itself. */
export const LANGUAGE_NAMES: Readonly<Record<Language, string>> = { en: 'English', de: 'Deutsch' };

export const isLanguage = (code: unknown): code is Language => LANGUAGES.some((each) => each === code);
