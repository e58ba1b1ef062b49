import type { AnswerOf } from '@tolvek/contract';
import { type FormDesign, namedBy } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { asc } from 'drizzle-orm';
import { forms } from '../form/tables.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { allVocabularies, vocabularyByKey } from '../vocabulary/queries.ts';
import { heldTerms } from './heldTerms.ts';

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
