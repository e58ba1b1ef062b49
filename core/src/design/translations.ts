import type { Language } from '@tolvek/words';
import { placeholdersIn } from './placeholders.ts';

/** What a text is in another language. */
export interface Translation {
  /** The text it was made from. Where that is not what is written there now, the text itself is read. */
  readonly of: string;
  readonly says: string;
}

/**
 * The texts of a design in other languages: by language, by the place of a text in the design. A language that is
 * there is one that the design is read in, with whatever is not translated as it was written.
 */
export type Translations = Readonly<Partial<Record<Language, Readonly<Record<string, Translation>>>>>;

/** What kind of text stands in a place. */
export type TextKind =
  | 'title'
  | 'intro'
  | 'question'
  | 'help'
  | 'heading'
  | 'words'
  | 'link'
  | 'button'
  | 'label'
  | 'option'
  | 'unit'
  | 'column'
  | 'warning'
  | 'refusal'
  | 'wayOut'
  | 'stage'
  | 'closed'
  | 'early'
  | 'full'
  | 'others'
  | 'confirmation'
  | 'consent'
  | 'subject'
  | 'notice'
  | 'term';

/** Says the text of a place; what it gives back is read in place of it. */
export type Say = (place: string, text: string, kind: TextKind) => string;

/**
 * How a translation stands to the text it was made from. One that names a field in braces which the text does not name is
 * unfit: nobody looked at who would read it by that.
 */
export type TranslationState = 'missing' | 'translated' | 'outdated' | 'unfit';

/** The fields that a translation names and the text it is of does not. */
export const namedBeyond = (says: string, text: string): readonly string[] => {
  const named = new Set(placeholdersIn(text));
  return [...new Set(placeholdersIn(says))].filter((name) => !named.has(name));
};

/** @example `stateOf({ of: 'Name', says: 'Name' }, 'Full name')` is `outdated` */
export function stateOf(translation: Translation | undefined, text: string): TranslationState {
  if (!translation || translation.says.trim() === '') return 'missing';
  if (translation.of !== text) return 'outdated';
  return namedBeyond(translation.says, text).length > 0 ? 'unfit' : 'translated';
}

/** What a text is in another language, if anything, and how that stands to what is written now. */
export interface HowSaid extends Translation {
  readonly state: TranslationState;
}

export const howSaid = (translation: Translation | undefined, text: string): HowSaid => ({
  ...{ of: translation?.of ?? '', says: translation?.says ?? '', state: stateOf(translation, text) },
});

/** Says texts in a language, as far as they are translated from what is written now. */
export function sayIn(translations: Translations | undefined, language: Language): Say {
  const there = translations?.[language];
  return (place, text) => {
    const found = there && Object.hasOwn(there, place) ? there[place] : undefined;
    return found && stateOf(found, text) === 'translated' ? found.says : text;
  };
}

/** A text that can be translated. */
export interface PlacedText {
  readonly place: string;
  readonly text: string;
  readonly kind: TextKind;
}

/** The texts that something says, in their order. `walk` says each of them and gives back what it has made of it. */
export function textsIn(walk: (say: Say) => unknown): readonly PlacedText[] {
  const found: PlacedText[] = [];
  walk((place, text, kind) => {
    if (text.trim() !== '') found.push({ place, text, kind });
    return text;
  });
  return found;
}

/** Translations with one text said in a language; without it where nothing is said. The language stays. */
export function translated(
  translations: Translations | undefined,
  language: Language,
  { place, text }: Pick<PlacedText, 'place' | 'text'>,
  says: string,
): Translations {
  const { [place]: _, ...rest } = translations?.[language] ?? {};
  return { ...translations, [language]: says.trim() === '' ? rest : { ...rest, [place]: { of: text, says } } };
}
