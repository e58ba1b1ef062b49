import type { AnswerOf } from '@tolvek/contract';
import { freshKey } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import {
  type Problem as FieldProblem,
  type Term,
  termByKey,
  VOCABULARY,
  type Vocabulary,
  vocabularyProblems,
} from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { changeAtOnce, type Done, makeInForce } from '../design/commands.ts';
import { designByKey } from '../design/queries.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, staleVersion, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { isToldToAll } from '../request/protection.ts';
import { requestById } from '../request/queries.ts';
import { allVocabularies } from '../vocabulary/queries.ts';
import { heldTerms, mayReadAllHeld, requestsWithTerms, withTerms } from './heldTerms.ts';

export function createVocabulary(
  house: House,
  viewer: Viewer,
  input: { name: string; key: string },
): AnswerOf<'createVocabulary'> {
  return write(house, ({ tx, now }) =>
    once(tx, { key: input.key, scope: `vocabulary ${viewer.personId}`, content: { name: input.name }, now }, () => {
      const all = allVocabularies(tx);
      if (all.some((each) => each.name.toLowerCase() === input.name.toLowerCase()))
        throw wrongFields([
          {
            field: 'name',
            message: said('workshopErrors:sameVocabulary', { name: input.name }),
            fix: said('workshopErrors:useThatOne'),
          },
        ]);
      const key = freshKey(input.name, new Set(all.map((each) => each.key)));
      makeInForce(tx, VOCABULARY, { key, content: { name: input.name, terms: [] }, note: '' }, { viewer, now });
      return { key };
    }),
  );
}

/** Brings vocabularies in that come with a form; one that is here already stays as it is. */
export function bringVocabularies(tx: Transaction, coming: readonly Vocabulary[], done: Done): void {
  for (const { key, name, terms } of coming) {
    const problems = vocabularyProblems(terms).map(({ message, fix }) => ({
      field: key,
      message: said('workshopErrors:termSays', { term: name, message }),
      fix,
    }));
    if (problems.length > 0) throw wrongFields(problems);
    if (!designByKey(tx, VOCABULARY, key))
      makeInForce(tx, VOCABULARY, { key, content: { name, terms }, note: '' }, done);
  }
}

/**
 * Keeps a vocabulary made on a version. What requests hold is never lost: a term can be retired or
 * merged, and taken away only while none holds it.
 */
export function saveVocabulary(
  house: House,
  viewer: Viewer,
  input: { key: string; version: number; name: string; terms: readonly Term[] },
): AnswerOf<'saveVocabulary'> {
  return write(house, (work) => {
    const { tx, now } = work;
    const design = designByKey(tx, VOCABULARY, input.key);
    if (!design) throw notFound('vocabulary');
    if (design.version !== input.version) throw staleVersion();
    const before = { key: input.key, ...design.draft };
    const keys = new Set(input.terms.map((term) => term.key));
    const gone = before.terms.filter((term) => !keys.has(term.key));
    const problems = [
      ...vocabularyProblems(input.terms).map(({ at, message, fix }) => ({ field: at, message, fix })),
      ...lostTerms(tx, viewer, input.key, gone),
    ];
    if (problems.length > 0) throw wrongFields(problems);
    const content = { name: input.name, terms: input.terms };
    const version = changeAtOnce(tx, design, { version: input.version, content, note: '' }, { viewer, now });
    return {
      version,
      moved: followMerges(work, viewer, before, { key: input.key, name: input.name, terms: input.terms }),
    };
  });
}

/**
 * Terms that can’t be taken away, as requests hold them; or may hold them, where the viewer may not
 * read it.
 */
function lostTerms(
  tx: Transaction,
  viewer: Viewer,
  vocabulary: string,
  gone: readonly Term[],
): readonly FieldProblem[] {
  if (gone.length === 0) return [];
  const held = mayReadAllHeld(tx, viewer, vocabulary) ? heldTerms(tx, viewer, vocabulary) : null;
  return gone
    .filter((term) => held === null || held.has(term.key))
    .map(({ key, label }) => ({
      field: key,
      message: held ? said('workshopErrors:termInUse', { label }) : said('workshopErrors:termMaybeInUse', { label }),
      fix: said('workshopErrors:retireOrMerge'),
    }));
}

/**
 * Requests that hold a term merged just now hold the other one from then on, so that conditions
 * find them by it.
 */
function followMerges(work: Work, viewer: Viewer, before: Vocabulary, after: Vocabulary): number {
  const { tx } = work;
  const fresh = after.terms.filter(
    (term) => term.now !== undefined && before.terms.find((each) => each.key === term.key)?.now !== term.now,
  );
  const into = new Map(
    fresh.flatMap((term) => {
      const target = termByKey(after, term.key);
      return target ? [[term.key, target.key] as const] : [];
    }),
  );
  if (into.size === 0) return 0;
  let moved = 0;
  // Each is read when its turn comes: a change before it may have been carried along to it.
  const holding = [...requestsWithTerms(tx, after.key)].map(({ request, ...rest }) => ({ id: request.id, ...rest }));
  for (const { id, register, fields } of holding) {
    const request = requestById(tx, id);
    if (!request) continue;
    const changes = fields.flatMap((field) => {
      const value = own(request.values, field.key);
      if (value === undefined) return [];
      const next = withTerms(field, after.key, value, into);
      return next === value ? [] : [{ field: field.key, before: value, after: next }];
    });
    if (changes.length === 0) continue;
    if (isToldToAll(tx, register, request, changes)) moved += 1;
    const change = { kind: 'values', why: 'merged', vocabulary: after.name, changes } as const;
    changeRequest(by(work, viewer.personId), request, change);
  }
  return moved;
}
