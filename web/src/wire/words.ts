import type { Key, Params, Words } from '@tolvek/words';
import {
  addTexts,
  type Catalogue,
  isLanguage,
  LANGUAGE_NAMES,
  LANGUAGES,
  type Language,
  languageOf,
  newTexts,
  type Speech,
  speech,
} from '@tolvek/words/speech';
import { useTranslation } from 'react-i18next';

export { LANGUAGE_NAMES, LANGUAGES, type Language };

/** The parts of the catalogues that come together, each with its zone. */
type Zone = 'front' | 'floor' | 'workshop' | 'start';

/** Where each zone’s texts are, by language: only what is read is loaded. */
const TEXTS: Readonly<Record<Language, Readonly<Record<Zone, () => Promise<Catalogue>>>>> = {
  en: {
    front: () => import('@tolvek/words/en/front'),
    floor: () => import('@tolvek/words/en/floorZone'),
    workshop: () => import('@tolvek/words/en/workshopZone'),
    start: () => import('@tolvek/words/en/startZone'),
  },
  de: {
    front: () => import('@tolvek/words/de/front'),
    floor: () => import('@tolvek/words/de/floorZone'),
    workshop: () => import('@tolvek/words/de/workshopZone'),
    start: () => import('@tolvek/words/de/startZone'),
  },
};

const PLACE = 'tolvek:language';
const texts = newTexts(firstLanguage());
const loaded = new Set<Zone>();
/** Texts without places, as they were said last: a letter that is typed says a hundred of them again. */
const plain = new Map<string, string>();
// Before any page hears of it.
texts.on('languageChanged', () => plain.clear());
// Beside tests, which have no page.
if (typeof document !== 'undefined') document.documentElement.lang = texts.language;
let around: Desk = { zone: 'UTC', email: '', firstDay: 'monday' };

/** What this device was last read in; else what the browser asks for. */
function firstLanguage(): Language {
  try {
    const last = localStorage.getItem(PLACE);
    if (isLanguage(last)) return last;
  } catch {
    // A device that remembers nothing is asked each time.
  }
  return languageOf(globalThis.navigator?.languages ?? []);
}

const spoken: Speech = speech(texts, () => ({ language: texts.language, zone: around.zone, desk: around.email }));

/** The text of a key, in the reader’s language. */
export function say<K extends Key>(key: K, ...given: Params<K>): string {
  if (given.length > 0) return spoken.say(key, ...given);
  let text = plain.get(key);
  if (text === undefined) plain.set(key, (text = spoken.say(key, ...given)));
  return text;
}
/** What core or the server said, in the reader’s language; words that a person wrote stay as they are. */
export const told = (words: Words): string => spoken.told(words);
/** The language that is read just now. */
export const language = (): Language => texts.language as Language;
/** The texts themselves, for sentences with links in them. */
export const i18n = texts;

/** What pages need of the desk to say moments and days as it does. */
interface Desk {
  readonly zone: string;
  readonly email: string;
  readonly firstDay: 'monday' | 'saturday' | 'sunday';
}

/** Moments are told on the desk’s own clock, wherever the reader sits. */
export function setDesk(desk: Desk): void {
  around = desk;
  plain.clear();
}
/** The first day of a week where days are chosen: 0 is Sunday. */
export const firstDayOfWeek = (): 0 | 1 | 6 => ({ sunday: 0, monday: 1, saturday: 6 })[around.firstDay] as 0 | 1 | 6;
/** The desk’s email address. */
export const deskEmail = (): string => around.email;

/** Loads the texts of a zone, in the language that is read. */
export async function loadWords(of: Zone): Promise<void> {
  await load(texts.language as Language, of);
  loaded.add(of);
}

async function load(into: Language, of: Zone): Promise<void> {
  addTexts(texts, into, await TEXTS[into][of]());
  plain.clear();
}

/** Goes over to another language; every page that is open says itself again, with all that was typed. */
export async function speak(to: Language): Promise<void> {
  if (to === texts.language) return;
  await Promise.all([...loaded].map((each) => load(to, each)));
  await texts.changeLanguage(to);
  remember(to);
}

function remember(chosen: Language): void {
  if (typeof document === 'undefined') return;
  document.documentElement.lang = chosen;
  try {
    localStorage.setItem(PLACE, chosen);
  } catch {
    // It is chosen for this visit only.
  }
}

/** Renders again when the language changes; for pages, and for parts that remember how they looked. */
export const useLanguage = (): string => useTranslation(undefined, { i18n: texts, useSuspense: false }).i18n.language;
