import { namedBy } from '@tolvek/core/form';
import {
  type Field,
  vocabularyIn as spokenIn,
  termByKey,
  VOCABULARY,
  type Vocabulary,
  type VocabularyContent,
} from '@tolvek/core/register';
import type { Language } from '@tolvek/words/speech';
import { type DesignRow, designByKey, designsOf } from '../design/queries.ts';
import type { Reader } from '../platform/database.ts';

/** Objects made once for each content, so that what core made ready for its terms is used again. */
const made = new WeakMap<VocabularyContent, Vocabulary & { readonly version: number }>();

const vocabularyIn = ({
  key,
  draft,
  version,
}: DesignRow<VocabularyContent>): Vocabulary & { readonly version: number } => {
  const known = made.get(draft);
  if (known?.key === key && known.version === version) return known;
  const vocabulary = { key, name: draft.name, terms: draft.terms, version };
  made.set(draft, vocabulary);
  return vocabulary;
};

export function vocabularyByKey(db: Reader, key: string): (Vocabulary & { readonly version: number }) | undefined {
  const found = designByKey(db, VOCABULARY, key);
  return found && vocabularyIn(found);
}

/** All vocabularies, by their names. */
export const allVocabularies = (db: Reader): readonly Vocabulary[] =>
  designsOf(db, VOCABULARY)
    .map(vocabularyIn)
    .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0))
    .map(({ key, name, terms }) => ({ key, name, terms }));

/** The vocabularies that fields take terms from; in a language, where one is said. */
export const vocabulariesFor = (
  db: Reader,
  fields: readonly Field[],
  language: Language | null = null,
): readonly Vocabulary[] =>
  namedBy({ fields }).vocabularies.flatMap((key) => {
    const found = vocabularyByKey(db, key);
    return found ? [spokenIn({ key: found.key, name: found.name, terms: found.terms }, language)] : [];
  });

/** What a term is called now, by its address `species/grey_seal`; in a language, where one is said. */
export function termName(db: Reader, address: string, language: Language | null = null): string | undefined {
  const slash = address.indexOf('/');
  const vocabulary = vocabularyByKey(db, address.slice(0, slash));
  return vocabulary && termByKey(spokenIn(vocabulary, language), address.slice(slash + 1))?.label;
}
