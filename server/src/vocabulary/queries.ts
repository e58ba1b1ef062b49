import type { AnswerOf } from '@tolvek/contract';
import { type FormDesign, namedBy } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { type Field, termByKey, type Vocabulary } from '@tolvek/core/register';
import { asc, eq, sql } from 'drizzle-orm';
import { forms } from '../form/tables.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { heldTerms } from './held.ts';
import { vocabularies } from './tables.ts';

const byKey = prepared((db) =>
  db
    .select()
    .from(vocabularies)
    .where(eq(vocabularies.key, sql.placeholder('key')))
    .prepare(),
);

export const vocabularyByKey = (db: Reader, key: string): (Vocabulary & { readonly version: number }) | undefined =>
  byKey(db).get({ key });

export const allVocabularies = (db: Reader): readonly Vocabulary[] =>
  db
    .select({ key: vocabularies.key })
    .from(vocabularies)
    .orderBy(asc(vocabularies.name))
    .all()
    .flatMap(({ key }) => vocabularyByKey(db, key) ?? [])
    .map(({ key, name, terms }) => ({ key, name, terms }));

/** The vocabularies that fields take terms from. */
export const vocabulariesFor = (db: Reader, fields: readonly Field[]): readonly Vocabulary[] =>
  namedBy({ fields }).vocabularies.flatMap((key) => {
    const found = vocabularyByKey(db, key);
    return found ? [{ key: found.key, name: found.name, terms: found.terms }] : [];
  });

/** What a term is called now, by its address `species/grey_seal`. */
export function termName(db: Reader, address: string): string | undefined {
  const slash = address.indexOf('/');
  const vocabulary = vocabularyByKey(db, address.slice(0, slash));
  return vocabulary && termByKey(vocabulary, address.slice(slash + 1))?.label;
}

/** Which drafts and fields take terms from each vocabulary. */
function usesOf(db: Reader): ReadonlyMap<string, { form: string; title: string; field: string }[]> {
  const uses = new Map<string, { form: string; title: string; field: string }[]>();
  for (const { key: form, draft } of db
    .select({ key: forms.key, draft: forms.draft })
    .from(forms)
    .orderBy(asc(forms.key))
    .all()) {
    for (const field of draft.fields) {
      for (const vocabulary of namedBy({ fields: [field] } as Pick<FormDesign, 'fields'>).vocabularies)
        uses.set(vocabulary, [...(uses.get(vocabulary) ?? []), { form, title: draft.title, field: field.label }]);
    }
  }
  return uses;
}

export function listVocabularies(db: Reader): AnswerOf<'vocabularies'>['vocabularies'] {
  const uses = usesOf(db);
  return allVocabularies(db).map(({ key, name, terms }) => ({
    key,
    name,
    terms: terms.filter((term) => term.now === undefined).length,
    uses: uses.get(key) ?? [],
  }));
}

export function vocabularyView(db: Reader, viewer: Viewer, key: string): AnswerOf<'vocabulary'> {
  const found = vocabularyByKey(db, key);
  if (!found) throw notFound('This vocabulary');
  return {
    key,
    name: found.name,
    version: found.version,
    terms: found.terms,
    uses: usesOf(db).get(key) ?? [],
    held: Object.fromEntries(heldTerms(db, viewer, key)),
  };
}
