import { type Said, said } from '@tolvek/words';
import { compareContents, type DesignKind, type MergeRules, mergeContents } from '../design/index.ts';
import { type Term, type Vocabulary, vocabularyProblems } from './vocabulary.ts';

/** What a vocabulary is as a design: its key is the design’s. */
export type VocabularyContent = Pick<Vocabulary, 'name' | 'terms'>;

const SETTINGS: Readonly<Record<string, Said>> = {
  label: said('vocabularies:itsName'),
  under: said('vocabularies:itsPlace'),
  also: said('vocabularies:itsOthers'),
  retired: said('vocabularies:itsOffer'),
  translations: said('vocabularies:inOthers'),
  now: said('vocabularies:itsMerging'),
};

/** How places of a vocabulary are called, by the terms of these states. */
const rulesOf = (...states: readonly (VocabularyContent | null)[]): MergeRules => {
  const labels = new Map(
    states.flatMap((state) => (state?.terms ?? []).map((term) => [term.key, term.label] as const)),
  );
  return {
    lists: { terms: (item) => String((item as unknown as Term).key) },
    nameOf: ([list = '', key, setting]) =>
      list === 'terms' && key !== undefined
        ? setting
          ? said('designs:settingOf', { name: labels.get(key) ?? key, setting: SETTINGS[setting] ?? setting })
          : said('designs:named', { name: labels.get(key) ?? key })
        : list === 'terms'
          ? said('vocabularies:theTerms')
          : list === 'name'
            ? said('designs:theName')
            : said('vocabularies:theVocabulary'),
  };
};

/** Vocabularies as designs. They are in force at once. */
export const VOCABULARY: DesignKind<VocabularyContent> = {
  kind: 'vocabulary',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, rulesOf(after, before)),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, rulesOf(base, theirs, mine)),
  findings: ({ terms }) =>
    vocabularyProblems(terms).map(({ at, message }) => ({ severity: 'error', page: 'terms', at, message })),
  refersTo: () => [],
};
