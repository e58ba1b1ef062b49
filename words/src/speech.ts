import { createInstance, type i18n } from 'i18next';
import { FORMATS, type Languages } from './formats.ts';
import { isLanguage, LANGUAGE_NAMES, LANGUAGES, type Language } from './languages.ts';
import type { Key, Params, Said, Words } from './said.ts';

export { isLanguage, LANGUAGE_NAMES, LANGUAGES, type Language };

/**
 * The best of our languages for a list of wishes, the dearest first: tags of BCP 47, as a browser or an
 * `Accept-Language` header (RFC 9110, 12.5.4) gives them. English where none fits.
 */
export function languageOf(wishes: readonly string[]): Language {
  for (const wish of wishes) {
    const found = wish.trim().slice(0, 2).toLowerCase();
    if (isLanguage(found)) return found;
  }
  return 'en';
}

/** The texts of one language: by area, by name. */
export type Catalogue = Readonly<Record<string, Readonly<Record<string, string>>>>;

/** Where texts are looked up, still without any. Keys are flat: a point or a colon in a name means nothing. */
export function newTexts(language: Languages): i18n {
  const texts = createInstance();
  void texts.init({
    lng: language,
    fallbackLng: false,
    initAsync: false,
    resources: {},
    keySeparator: false,
    nsSeparator: ':',
    returnEmptyString: true,
    interpolation: { escapeValue: false },
  });
  for (const [name, format] of Object.entries(FORMATS)) texts.services.formatter?.add(name, format);
  return texts;
}

/** Adds the texts of some areas in a language. */
export function addTexts(texts: i18n, language: string, catalogue: Catalogue): void {
  for (const [area, names] of Object.entries(catalogue)) texts.addResourceBundle(language, area, names, false, true);
}

/** Speaks one language, with moments on the clock of one zone. */
export interface Speech {
  readonly language: string;
  /** The text of a key. */
  readonly say: <K extends Key>(key: K, ...given: Params<K>) => string;
  /** What was said as a code; words that a person wrote stay as they are. */
  readonly told: (words: Words) => string;
}

/** What is the same in all words that one reader sees. */
export interface Around {
  readonly language: string;
  /** The desk’s time zone (IANA). */
  readonly zone: string;
  /** The desk’s email address, which a text names as `{{desk}}`. */
  readonly desk: string;
}

/**
 * Speaks.
 *
 * @param now Gives what is around at each word, as it can change under way.
 */
export function speech(texts: i18n, now: () => Around): Speech {
  const say = (key: string, given?: Readonly<Record<string, unknown>>): string => {
    const { language, zone, desk } = now();
    const filled: Record<string, unknown> = { lng: language, zone, desk };
    for (const [name, value] of Object.entries(given ?? {})) filled[name] = inPlace(value);
    return texts.t(key, filled);
  };
  const told = (words: Words): string => (typeof words === 'string' ? words : say(words.say, words.with));
  const inPlace = (value: unknown): unknown =>
    Array.isArray(value) ? value.map((each: Words) => told(each)) : isSaid(value) ? told(value) : value;
  return {
    get language() {
      return now().language;
    },
    say: say as Speech['say'],
    told,
  };
}

const isSaid = (value: unknown): value is Said => typeof value === 'object' && value !== null && 'say' in value;

export { momentIn } from './formats.ts';
