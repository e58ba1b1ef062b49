import { choiceOf, meantBy, saidIn, type Updates } from '@tolvek/core/form';
import type { Problem as FieldProblem, RawAnswers } from '@tolvek/core/register';
import { refused, said } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { askAnew } from '../approval/anew.ts';
import type { DoorRow } from '../door/queries.ts';
import { type ReleaseRow, registerOfForm } from '../form/queries.ts';
import { type PersonRow, viewerIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { Problem, wrongFields } from '../platform/problem.ts';
import { by, type Work } from '../platform/work.ts';
import { agreedWith, propose } from '../proposal/commands.ts';
import { changingOf } from '../proposal/queries.ts';
import { askedAt } from '../request/askedAt.ts';
import { changeRequest } from '../request/change.ts';
import { changeAnswers, readChanges } from '../request/changeAnswers.ts';
import { factsFor } from '../request/facts.ts';
import { requestById } from '../request/queries.ts';
import { type Theirs, theirsOf } from '../request/theirs.ts';
import type { SentTo } from './sentTo.ts';

/** What somebody sends by a form that changes what is there. */
export interface Update {
  readonly door: DoorRow;
  readonly release: ReleaseRow;
  readonly person: PersonRow;
  readonly answers: RawAnswers;
  /** What of theirs they mean, by its id; or `another`. */
  readonly entry: string | undefined;
  readonly sent: SentTo | null;
  /** The version of the text of the door that they agreed to, and the language they read it in; null where nothing is asked. */
  readonly consent?: number | null;
  readonly consentIn?: Language | null;
}

export type Updated = { readonly number: string; readonly id: string; readonly is: 'changed' | 'waits' | 'confirmed' };

/** What the answers of somebody are about, of what is theirs. */
export function meantAt(db: Reader, { door, release, person, answers, entry, sent }: Update, now: number) {
  const { updates } = release.design;
  if (!updates) return null;
  const sentEntry = sent?.entry ?? null;
  const asked = askedAt(db, release, { kind: door.kind, id: person.id, about: sent?.about, entry: sentEntry }, now);
  const { design } = asked.release;
  const facts = factsFor(db, { door, design, requester: person, now, named: answers });
  const { values } = asked.complete(saidIn(answers), facts);
  const theirs = theirsOf(db, updates, registerOfForm(db, release.formId), viewerIn(db, person), sentEntry);
  return meantBy(updates, design.fields, values, theirs, sentEntry === null ? choiceOf(entry) : 'sent');
}

/**
 * What of theirs the answers of somebody change; null where they are to be added.
 *
 * @throws Problem 409 where there is nothing to change, or what they mean is not there any more; 422 where they have to
 *   say which.
 */
function changedBy(db: Reader, input: Update, now: number): { readonly updates: Updates; readonly one: Theirs } | null {
  const { release, sent, entry } = input;
  const { updates } = release.design;
  const meant = meantAt(db, input, now);
  if (!updates || !meant || meant.is === 'another') return null;
  if (meant.is === 'one' && (entry === undefined || entry === meant.one.id || sent?.entry))
    return { updates, one: meant.one };
  if (meant.is !== 'several' && entry !== undefined) throw new Problem(409, 'entry-gone', refused('entryGone'));
  if (meant.is === 'several')
    throw wrongFields([{ field: 'form', message: said('answers:whichEntry'), fix: said('answers:chooseEntry') }]);
  if (updates.none === 'add' && !sent?.entry) return null;
  throw new Problem(409, 'entry-gone', refused('nothingToChange'));
}

/**
 * Changes what is theirs by what somebody sent, or has it wait until it is accepted; null where it is to be added.
 *
 * @throws Problem as `changedBy`; 422 where an answer is wrong
 */
export function update(work: Work, input: Update): Updated | null {
  const found = changedBy(work.tx, input, work.now);
  return found && changed(by(work, input.person.id), input, found.updates, found.one);
}

/** What is wrong with answers that would change what is theirs; null where they are to be added. @throws Problem as `changedBy` */
export function updateProblems(db: Reader, input: Update, now: number): readonly FieldProblem[] | null {
  const found = changedBy(db, input, now);
  return found && readChanges(db, found.one.open, changingAt(db, found.one, input, now), now).problems;
}

const changingAt = (db: Reader, one: Theirs, { door, release, person, answers, sent }: Update, now: number) =>
  changingOf(db, one, { door, release, person, answers, wasSent: sent?.entry === one.id, at: now }, now);

function changed(work: Work, input: Update, updates: Updates, one: Theirs): Updated {
  const { tx, now } = work;
  const { door, release, person, answers, sent, consent = null, consentIn = null } = input;
  const { title: form } = release.design;
  const wasSent = sent?.entry === one.id;
  const changing = changingAt(tx, one, input, now);
  const { changes, problems } = readChanges(tx, one.open, changing, now);
  if (problems.length > 0) throw wrongFields(problems);
  const { request } = one.open;
  const { number, id } = request;
  const given = saidIn(answers);
  // By what they say, not by what comes of it: that something hidden changed is not told by what happens then.
  const isSaid = Object.keys(given).some((key) => !updates.by.includes(key));
  if (isSaid && updates.waits) {
    const { formId, id: releaseId } = release;
    const sender = { formId, releaseId, doorId: door.id, personId: person.id };
    propose(work, request, { ...sender, wasSent, answers: given, consent, consentIn }, form);
    return { number, id, is: 'waits' };
  }
  const why = { why: 'updated', form, ...agreedWith(door.id, consent, consentIn) } as const;
  changeAnswers(work, one.open.reading.situation.viewer, one.open, { ...changing, why });
  const after = requestById(tx, id);
  if (after && isSaid && changes.length > 0) askAnew(work, after, door.design.again);
  if (isSaid)
    return { number, id, is: changes.some(({ field }) => field !== updates.stamps) ? 'changed' : 'confirmed' };
  const stamped = requestById(tx, id);
  if (stamped) changeRequest(work, stamped, { kind: 'confirmed', form });
  return { number, id, is: 'confirmed' };
}
