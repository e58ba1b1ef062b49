import { type Language, said, type Words } from '@tolvek/words';
import { sayIn, stateOf, type Translations } from '../design/index.ts';

/** One word of a vocabulary. */
export interface Term {
  /** Never changes once made; answers, rules and routing name the term by it. */
  readonly key: string;
  readonly label: string;
  /** The key of the term it stands under; at the top when there is none. */
  readonly under?: string;
  /** Other words people may type for it. */
  readonly also?: readonly string[];
  /** Kept on old requests, no longer offered. */
  readonly retired?: boolean;
  /** The key of the term it was merged into: it is read and called as that one. */
  readonly now?: string;
  /** What it is called in other languages; at the place `label`. */
  readonly translations?: Translations | undefined;
}

/** A list of terms kept once and used by many forms. */
export interface Vocabulary {
  readonly key: string;
  readonly name: string;
  readonly terms: readonly Term[];
}

/** How deep terms may stand under each other. */
export const MOST_DEPTH = 8;
export const MOST_TERMS = 5_000;

const plain = (words: string): string => words.trim().replace(/\s+/g, ' ').toLowerCase();

/** What a vocabulary’s terms are found by, made once for each list of terms. */
interface Index {
  readonly byKey: ReadonlyMap<string, Term>;
  /** By label or other word; null where two terms share it. */
  readonly byWord: ReadonlyMap<string, Term | null>;
  /** By what they are called in other languages; asked where no word of the desk’s own is meant. */
  readonly byOther: ReadonlyMap<string, Term | null>;
  readonly below: ReadonlyMap<string, readonly Term[]>;
}

const indexes = new WeakMap<readonly Term[], Index>();

function indexOf(terms: readonly Term[]): Index {
  const known = indexes.get(terms);
  if (known) return known;
  const byKey = new Map(terms.map((term) => [term.key, term]));
  const [byWord, byOther] = [new Map<string, Term | null>(), new Map<string, Term | null>()];
  const below = new Map<string, Term[]>();
  for (const term of terms) {
    const at = term.under !== undefined && byKey.has(term.under) ? term.under : '';
    const siblings = below.get(at);
    if (siblings) siblings.push(term);
    else below.set(at, [term]);
    const add = (map: Map<string, Term | null>, words: readonly string[]): void => {
      for (const word of words.map(plain))
        map.set(word, map.has(word) && map.get(word)?.key !== term.key ? null : term);
    };
    add(byWord, [term.label, ...(term.also ?? [])]);
    add(byOther, inOthers(term));
  }
  const index = { byKey, byWord, byOther, below };
  indexes.set(terms, index);
  return index;
}

/** What a term is called in other languages, as far as that is of what it is called now. */
const inOthers = ({ label, translations = {} }: Term): readonly string[] =>
  Object.values(translations).flatMap((there) => (there.label?.of === label ? [there.label.says] : []));

/** How many of the terms that are offered are not called anything in a language. */
export const termsLeft = (terms: readonly Term[], language: Language): number =>
  termsOffered({ terms }).filter(
    ({ term: { label, translations } }) => stateOf(translations?.[language]?.label, label) !== 'translated',
  ).length;

const spoken = new WeakMap<readonly Term[], Map<Language, readonly Term[]>>();

/**
 * A vocabulary as it is read in a language: its terms called so where they are translated, and found by what they were
 * called as well. The very one where nothing is translated; asked for the same again, its terms are the same list.
 */
export function vocabularyIn<Some extends Vocabulary>(vocabulary: Some, language: Language | null): Some {
  const { terms } = vocabulary;
  if (language === null || !terms.some(({ translations }) => translations?.[language] !== undefined)) return vocabulary;
  let of = spoken.get(terms);
  if (!of) spoken.set(terms, (of = new Map()));
  let found = of.get(language);
  if (!found) {
    found = terms.map((term) => {
      const label = sayIn(term.translations, language)('label', term.label, 'term');
      return label === term.label ? term : { ...term, label, also: [...new Set([...(term.also ?? []), term.label])] };
    });
    of.set(language, found);
  }
  return { ...vocabulary, terms: found };
}

/** The term a key stands for: itself, or the one it was merged into in the end. */
export function termByKey({ terms }: Pick<Vocabulary, 'terms'>, key: string): Term | undefined {
  const { byKey } = indexOf(terms);
  let term = byKey.get(key);
  for (let steps = 0; term?.now !== undefined && steps < MOST_DEPTH; steps += 1) term = byKey.get(term.now);
  return term;
}

/**
 * The term somebody means: by its key, its label, or another word for it, whatever the capitals.
 * Undefined when none or several are meant.
 */
export function termMeant(vocabulary: Pick<Vocabulary, 'terms'>, said: string): Term | undefined {
  const { byWord, byOther } = indexOf(vocabulary.terms);
  const word = plain(said);
  const found = termByKey(vocabulary, said) ?? (byWord.has(word) ? byWord.get(word) : byOther.get(word));
  return found ? termByKey(vocabulary, found.key) : undefined;
}

/** The labels from the top down to a term: `['Mammals', 'Seals', 'Grey seal']`. */
export function termPath({ terms }: Pick<Vocabulary, 'terms'>, key: string): readonly string[] {
  const { byKey } = indexOf(terms);
  const path: string[] = [];
  for (
    let term = byKey.get(key);
    term && path.length < MOST_DEPTH;
    term = term.under === undefined ? undefined : byKey.get(term.under)
  )
    path.unshift(term.label);
  return path;
}

/** The parent of each term by key, empty at the top: what expressions know of a vocabulary. */
export const parentsIn = ({ terms }: Pick<Vocabulary, 'terms'>): Readonly<Record<string, string>> =>
  Object.fromEntries(terms.map((term) => [term.key, term.under ?? '']));

/** A term in its place, for a list to choose from. */
export interface PlacedTerm {
  readonly term: Term;
  /** 0 at the top of what is offered. */
  readonly depth: number;
}

/**
 * Terms in reading order: each with those under it after it. `under` takes only those below one
 * term.
 */
export function termsInOrder({ terms }: Pick<Vocabulary, 'terms'>, under = ''): readonly PlacedTerm[] {
  const { below } = indexOf(terms);
  const placed: PlacedTerm[] = [];
  const visit = (at: string, depth: number): void => {
    if (depth > MOST_DEPTH) return;
    for (const term of below.get(at) ?? []) {
      placed.push({ term, depth });
      visit(term.key, depth + 1);
    }
  };
  visit(under, 0);
  return placed;
}

/** The terms that are offered now: neither retired nor merged, nor under one that is retired. */
export function termsOffered(vocabulary: Pick<Vocabulary, 'terms'>, under = ''): readonly PlacedTerm[] {
  let hiddenAt = Number.POSITIVE_INFINITY;
  return termsInOrder(vocabulary, under).filter(({ term, depth }) => {
    if (depth <= hiddenAt) hiddenAt = Number.POSITIVE_INFINITY;
    if (hiddenAt === Number.POSITIVE_INFINITY && (term.retired || term.now !== undefined)) hiddenAt = depth;
    return hiddenAt === Number.POSITIVE_INFINITY;
  });
}

/**
 * Two changed lists put together: each term as whoever changed it has it, and mine where both did.
 */
export function mergeTerms(base: readonly Term[], mine: readonly Term[], theirs: readonly Term[]): readonly Term[] {
  const before = new Map(base.map((term) => [term.key, JSON.stringify(term)]));
  const own = new Map(mine.map((term) => [term.key, term]));
  const other = new Map(theirs.map((term) => [term.key, term]));
  const pick = (term: Term): Term =>
    JSON.stringify(term) === before.get(term.key) ? (other.get(term.key) ?? term) : term;
  // Their order and additions, after the terms of mine they stand behind; what either took away is
  // gone.
  const kept = mine.filter((term) => other.has(term.key) || JSON.stringify(term) !== before.get(term.key)).map(pick);
  return [...kept, ...theirs.filter((term) => !own.has(term.key) && !before.has(term.key))];
}

/** What is wrong with a list of terms, each at the key of its term. */
export function vocabularyProblems(
  terms: readonly Term[],
): readonly { readonly at: string; readonly message: Words; readonly fix: Words }[] {
  const problems: { at: string; message: Words; fix: Words }[] = [];
  const { byKey } = indexOf(terms);
  const keys = new Set<string>();
  const places = new Map<string, string>();
  const words = new Map<string, Term>();
  for (const term of terms) {
    const add = (message: Words, fix: Words): void => void problems.push({ at: term.key, message, fix });
    if (keys.has(term.key)) add(said('vocabularies:sameKey', { key: term.key }), said('vocabularies:giveOther'));
    keys.add(term.key);
    if (term.label.trim() === '') add(said('vocabularies:noWords'), said('vocabularies:nameOrRemove'));
    const place = `${term.under ?? ''}/${plain(term.label)}`;
    if (places.has(place) && term.now === undefined)
      add(said('vocabularies:twice', { label: term.label }), said('vocabularies:mergeOrRename'));
    if (term.now === undefined) places.set(place, term.key);
    for (const word of (term.also ?? []).map(plain)) {
      const other = words.get(word);
      if (other && other.key !== term.key)
        add(said('vocabularies:sharedWord', { word, label: other.label }), said('vocabularies:removeFromOne'));
      words.set(word, term);
    }
    if (term.under !== undefined && !byKey.has(term.under))
      add(said('vocabularies:lostParent', { label: term.label }), said('vocabularies:moveIt'));
    if (term.under !== undefined && isInCircle(term, byKey, 'under'))
      add(said('vocabularies:underItself', { label: term.label }), said('vocabularies:moveIt'));
    else if (depthOf(term, byKey) > MOST_DEPTH)
      add(said('vocabularies:tooDeep', { label: term.label, most: MOST_DEPTH }), said('vocabularies:moveUp'));
    if (term.now !== undefined && (!byKey.has(term.now) || isInCircle(term, byKey, 'now')))
      add(said('vocabularies:lostMerge', { label: term.label }), said('vocabularies:mergeOther'));
  }
  return problems;
}

function isInCircle(term: Term, byKey: ReadonlyMap<string, Term>, way: 'under' | 'now'): boolean {
  const seen = new Set<string>();
  for (let at: Term | undefined = term; at; ) {
    if (seen.has(at.key)) return true;
    seen.add(at.key);
    const next: string | undefined = at[way];
    at = next === undefined ? undefined : byKey.get(next);
  }
  return false;
}

function depthOf(term: Term, byKey: ReadonlyMap<string, Term>): number {
  let depth = 1;
  for (let at: Term | undefined = term; at?.under !== undefined && depth <= MOST_DEPTH + 1; at = byKey.get(at.under))
    depth += 1;
  return depth;
}
