import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { prepareCompletion } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { RawAnswers } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import { and, desc, eq } from 'drizzle-orm';
import { dropFrozen, freezeDraft } from '../design/commands.ts';
import { doorsOf } from '../door/queries.ts';
import { designOfForm, formNamed, releaseById } from '../form/queries.ts';
import { UNKNOWN } from '../intake/admission.ts';
import { arrive } from '../intake/arrive.ts';
import { personById, spokenTo } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, Problem, staleVersion } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';
import { deleteRequests } from '../request/change.ts';
import { factsFor } from '../request/facts.ts';
import { offersOf, pictureOnCard } from '../request/references.ts';
import { requests } from '../request/tables.ts';
import { draftContent, type Found } from './findings.ts';

interface Trial {
  readonly form: string;
  readonly answers: RawAnswers;
  /** Whose eyes the proof had: one of the staff by id, or nobody in particular. */
  readonly person: string | null;
  readonly outside: boolean;
  /** The edition that the proof was looked at in; null: the form as it is, undefined: the one they are given. */
  readonly edition?: string | null | undefined;
  readonly key: string;
}

/**
 * Sends a request from a proof through the whole way of a request, with the draft as it is. It is
 * marked, has a number of its own, counts nowhere, holds no answer against others, and tells
 * nobody.
 */
export function sendTrial(house: House, viewer: Viewer, input: Trial, found: Found): { number: string } {
  return write(house, (work) => {
    const { tx, now } = work;
    const form = formNamed(tx, input.form);
    return once(tx, { key: input.key, scope: `trial ${form.id} ${viewer.personId}`, content: input, now }, () => {
      if (draftContent(tx, form.id, form.draft) !== found.content) throw staleVersion();
      if (found.findings.some((finding) => finding.severity === 'error'))
        throw new Problem(422, 'draft-has-errors', refused('draftErrors'));
      const releaseId = freezeDraft(tx, designOfForm(form), spokenTo(tx, viewer.personId).say('notes:forTrials'), {
        viewer,
        now,
      });
      const door =
        doorsOf(tx, form.id).find((each) => each.kind === (input.outside ? 'outside' : 'staff')) ??
        doorsOf(tx, form.id)[0];
      if (!door) throw notFound('door');
      const requester = personById(tx, input.person ?? viewer.personId);
      if (!requester) throw notFound('person');
      const { release } = releaseById(tx, releaseId);
      const arriving = {
        ...{ through: { by: 'trial' } as const, release, door: null, answers: input.answers },
        ...({
          comesBy: input.outside ? 'outside' : 'staff',
          asks: input.outside && input.person === null ? null : requester,
        } as const),
        admits: UNKNOWN,
        edition: input.edition,
      };
      const parties = { doorId: door.id, requesterId: requester.id };
      const { request } = arrive(by(work, viewer.personId), arriving, parties);
      return { number: request.number };
    });
  });
}

/** What a reference of a draft offers in its proof, as the person whose eyes the proof has. */
export function draftOffers(
  db: Reader,
  viewer: Viewer,
  formKey: string,
  input: BodyOf<'draftOffers'>,
  now: number,
): AnswerOf<'draftOffers'> {
  const form = formNamed(db, formKey);
  const requester =
    input.outside && input.person === null ? undefined : personById(db, input.person ?? viewer.personId);
  const facts = factsFor(db, {
    door: { kind: input.outside ? 'outside' : 'staff' },
    design: form.draft,
    requester: requester ?? null,
    now,
    named: input.answers,
  });
  const { values } = prepareCompletion(form.draft)(input.answers, facts);
  const asking = { fields: form.draft.fields, values, facts, asker: requester?.id ?? null };
  return offersOf(db, input.field, input.find, asking, { reads: null });
}

/** The hash of the file that is the picture on a card in the proof of a draft. @throws Problem 404 */
export function draftPicture(
  db: Reader,
  viewer: Viewer,
  { key, field, file }: { readonly key: string; readonly field: string; readonly file: string },
): string {
  return pictureOnCard(db, field, file, { fields: formNamed(db, key).draft.fields, asker: viewer.personId });
}

/** The trial requests of a form, the newest first. */
export const trialsOf = (db: Reader, formId: string): { number: string; createdAt: number }[] =>
  db
    .select({ number: requests.number, createdAt: requests.createdAt })
    .from(requests)
    .where(and(eq(requests.formId, formId), eq(requests.trial, true)))
    .orderBy(desc(requests.createdAt))
    .all();

/** Takes all trial requests of a form away, with everything that came of them. */
export function clearTrials(house: House, formKey: string): { cleared: number } {
  return write(house, (work) => {
    const { tx } = work;
    const form = formNamed(tx, formKey);
    const ids = tx
      .select({ id: requests.id })
      .from(requests)
      .where(and(eq(requests.formId, form.id), eq(requests.trial, true)))
      .all()
      .map((row) => row.id);
    if (ids.length > 0) deleteRequests(work, ids);
    dropFrozen(tx, form.id);
    return { cleared: ids.length };
  });
}
