import { namedBy } from '@tolvek/core/form';
import { type Field, termByKey, type Vocabulary } from '@tolvek/core/register';
import { asc, eq, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
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
