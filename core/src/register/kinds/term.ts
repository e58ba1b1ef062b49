import { said } from '@tolvek/words';
import type { FieldValue } from '../field.ts';
import type { Problem } from '../problem.ts';
import { type Term, termMeant, termsOffered, type Vocabulary } from '../vocabulary.ts';
import { type Around, EMPTY, isBlank, type KindWork, type NameOf, STORED_APART, STORED_TEXT, wrong } from './kind.ts';

type TermKind = { readonly vocabulary: string; readonly under?: string };

/** What a term is known by outside its vocabulary. */
export const termAddress = (vocabulary: string, key: string): string => `${vocabulary}/${key}`;

const vocabularyOf = ({ vocabulary }: TermKind, { vocabularies }: Around): Vocabulary | undefined =>
  vocabularies.find((each) => each.key === vocabulary);

const named = ({ vocabulary }: TermKind, key: string, nameOf: NameOf): string =>
  nameOf(termAddress(vocabulary, key)) ?? key;

/** What is wrong with a term as an answer, or the term. */
function meant(type: TermKind, given: unknown, around: Around): Term | Pick<Problem, 'message' | 'fix'> {
  const vocabulary = vocabularyOf(type, around);
  const term = vocabulary && typeof given === 'string' ? termMeant(vocabulary, given) : undefined;
  if (!vocabulary || !term)
    return {
      message:
        typeof given === 'string' && given.length < 60
          ? said('answers:notATerm', { said: given })
          : said('answers:thisNotATerm'),
      fix: said('answers:chooseAnOption'),
    };
  if (termsOffered(vocabulary, type.under).some((each) => each.term.key === term.key)) return term;
  return term.retired
    ? { message: said('answers:optionRetired', { label: term.label }), fix: said('answers:chooseFromList') }
    : { message: said('answers:termNotOffered', { label: term.label }), fix: said('answers:chooseFromList') };
}

/**
 * One term of a vocabulary, kept by its key: a new name reaches every request. Typed words are
 * understood as well.
 */
export const term: KindWork<'term'> = {
  read: (raw, type, around) => {
    if (isBlank(raw)) return EMPTY;
    const found = meant(type, raw, around);
    return 'message' in found ? wrong(found.message, found.fix) : { state: 'value', value: found.key };
  },
  show: (value, type, nameOf) => named(type, String(value), nameOf),
  typed: (value) => String(value),
  toExpression: (value) => String(value),
  fromExpression: (value) => (typeof value === 'string' && value !== '' ? value : undefined),
  scopeType: () => ({ kind: 'text' }),
  stored: () => STORED_TEXT,
};

const keysOf = (value: FieldValue): readonly string[] => value as readonly string[];

/** Several terms, each once, in the order they were chosen. */
export const terms: KindWork<'terms'> = {
  listed: true,
  read: (raw, type, around) => {
    if (isBlank(raw)) return EMPTY;
    const keys = new Set<string>();
    for (const given of raw as readonly unknown[]) {
      const found = meant(type, given, around);
      if ('message' in found) return wrong(found.message, said('answers:removeOrChoose'));
      keys.add(found.key);
    }
    const { most = 50 } = type;
    if (keys.size > most)
      return wrong(
        said('answers:tooManyChosen', { most, chosen: keys.size }),
        said('answers:removeSome', { n: keys.size - most }),
      );
    return { state: 'value', value: [...keys] };
  },
  show: (value, type, nameOf) =>
    keysOf(value)
      .map((key) => named(type, key, nameOf))
      .join(', '),
  typed: keysOf,
  toExpression: keysOf,
  fromExpression: (value) =>
    Array.isArray(value) && value.length > 0 && value.every((each) => typeof each === 'string')
      ? (value as readonly string[])
      : undefined,
  scopeType: () => ({ kind: 'list', of: { kind: 'text' } }),
  stored: () => STORED_APART,
};
