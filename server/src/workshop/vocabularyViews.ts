import type { AnswerOf } from '@tolvek/contract';
import { FORM } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { VOCABULARY } from '@tolvek/core/register';
import type { Words } from '@tolvek/words';
import { referringTo } from '../design/queries.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { allVocabularies, vocabularyByKey } from '../vocabulary/queries.ts';
import { heldTerms } from './heldTerms.ts';

/** Which drafts take terms from a vocabulary, and in which fields. */
const usesOf = (db: Reader, key: string): { form: string; title: string; field: Words }[] =>
  referringTo(db, FORM, { kind: VOCABULARY.kind, key }).map(({ key: form, title, at }) => ({ form, title, field: at }));

export function listVocabularies(db: Reader): AnswerOf<'vocabularies'>['vocabularies'] {
  return allVocabularies(db).map(({ key, name, terms }) => ({
    key,
    name,
    terms: terms.filter((term) => term.now === undefined).length,
    uses: usesOf(db, key),
  }));
}

export function vocabularyView(db: Reader, viewer: Viewer, key: string): AnswerOf<'vocabulary'> {
  const found = vocabularyByKey(db, key);
  if (!found) throw notFound('vocabulary');
  return {
    key,
    name: found.name,
    version: found.version,
    terms: found.terms,
    uses: usesOf(db, key),
    held: Object.fromEntries(heldTerms(db, viewer, key)),
  };
}
