import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { consentProblems, contactProblems } from '@tolvek/core/door';
import { type FormDesign, inLanguage, OWN_REQUESTS, readIn } from '@tolvek/core/form';
import { own as ownValue } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import type { RawAnswers, Values } from '@tolvek/core/register';
import { refused, said, type Words } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { eq } from 'drizzle-orm';
import { finishOf } from '../deadline/queries.ts';
import { keptByOthers } from '../door/admission.ts';
import { leaveLine } from '../door/line.ts';
import { type DoorRow, doorById, doorBySlug } from '../door/queries.ts';
import { type DoneWork, spendWork } from '../door/slowWork.ts';
import { keptAnswers, waitingSubmissions } from '../door/tables.ts';
import { type ReleaseRow, releaseById } from '../form/queries.ts';
import { notifyAddress, roomForLetter } from '../notice/notify.ts';
import { addPerson, type NewPerson } from '../people/commands.ts';
import { type PersonRow, personByEmail, personById, viewerIn } from '../people/queries.ts';
import { people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { openLink, spendLink, turnLink } from '../platform/links.ts';
import { newId } from '../platform/newId.ts';
import { notAllowed, notFound, notSignedIn, Problem, wrongFields } from '../platform/problem.ts';
import type { Session } from '../platform/signIn/session.ts';
import { by, type Work, write } from '../platform/work.ts';
import { askedAt } from '../request/askedAt.ts';
import { changeRequest } from '../request/change.ts';
import { factsFor } from '../request/facts.ts';
import { hasProved } from '../request/followed.ts';
import { isOwnOf, type RequestRow, requestById } from '../request/queries.ts';
import { offersOf, pictureOnCard } from '../request/references.ts';
import { linkEnds, linkFor } from '../settings/links.ts';
import { deskOf } from '../settings/queries.ts';
import { admissionOf, comerOf, countedAt, namedAt, UNKNOWN } from './admission.ts';
import { answersHeld, arrive, consider, refusal } from './arrive.ts';
import { confirmationOf } from './confirmation.ts';
import { ledBy, refuseElsewhere } from './elsewhere.ts';
import { refuseFormer } from './formerAddress.ts';
import { forgetKept, keptBy } from './kept.ts';
import { placeShown } from './line.ts';
import { openedSince } from './opened.ts';
import { isAnswered, isEntrySent, type SentTo, type Shown, sentTo, stillOwed } from './sentTo.ts';
import { meantAt, type Updated, update, updateProblems } from './update.ts';

export interface Submission {
  readonly slug: string;
  readonly release: number;
  readonly answers: RawAnswers;
  /** The link to a place that is held for them. */
  readonly place?: string | undefined;
  readonly contact?: { readonly name: string; readonly email: string } | undefined;
  /** On whose behalf one of the staff asks. */
  readonly onBehalf?: string | undefined;
  /** What proves since when it was being filled in. */
  readonly opened?: string | undefined;
  /** The version of the text of the door that was agreed to. */
  readonly consent?: number | undefined;
  /** What they show where the form was sent to them. */
  readonly owed?: string | undefined;
  /** Of a form that changes what is there: which of theirs they mean, by its id; or `another`. */
  readonly entry?: string | undefined;
  readonly session?: Session | null;
  /** What the device worked out first, where the door asks for that. */
  readonly work?: DoneWork | null;
  readonly key: string;
  readonly language?: Language;
}

export type Submitted =
  /** `confirms`: where an email went by which it becomes theirs; null where it is. */
  | { state: 'arrived'; number: string; due: string | null; says: Words | null; confirms: string | null }
  | { state: 'changed'; number: string; is: Updated['is'] }
  | { state: 'to-confirm'; email: string; sent: string | null };

/**
 * Takes a submission in: of who is signed in at once, else once its address is confirmed.
 */
export function submit(house: House, caller_: Viewer | null, input: Submission): Submitted {
  return write(house, (work) => {
    const { tx, now } = work;
    const { door, release } = doorBySlug(tx, input.slug, input.language);
    const sent = sentTo(tx, door, { owed: input.owed, session: input.session ?? null }, now);
    const viewer = sent?.viewer ?? caller_;
    if (door.kind === 'staff' && !viewer) throw notSignedIn();
    const kept = keptByOthers(tx, door.formId, viewer, isEntrySent(sent));
    if (kept !== null) throw notAllowed(kept);
    const isUnnamed = door.design.unnamed ?? false;
    const caller = isUnnamed ? '' : (viewer?.personId ?? input.contact?.email.toLowerCase() ?? '');
    const content = {
      ...{ release: input.release, answers: input.answers, contact: isUnnamed ? undefined : input.contact },
      ...(input.onBehalf === undefined ? {} : { onBehalf: input.onBehalf }),
      ...(sent ? { owed: sent.owed.id } : {}),
      ...(input.entry === undefined ? {} : { entry: input.entry }),
    };
    return once(tx, { key: input.key, scope: `submit ${door.slug} ${caller}`, content, now }, (): Submitted => {
      if (sent) stillOwed(sent);
      // A release that changed meanwhile is told before anything is stored.
      if (release.number !== input.release) {
        throw new Problem(409, 'form-changed', refused('formChanged'));
      }
      // What was sent to somebody they answer where it leads.
      if (!sent) refuseElsewhere(tx, { door, release, answers: input.answers }, { viewer, now, reads: input.language });
      const consent = agreedTo(door.design, input.consent);
      if (door.design.slowsRobots && !viewer) spendWork(tx, input.work ?? null);
      const since = openedSince(house.config.secret, door, input.opened);
      refuseFormer(door, { since, shows: sent !== null || placeShown(tx, door, input.place, now) !== null });
      const consentIn = agreedIn(tx, release, consent, input.language);
      const sending = { door, release, input, since, consent, consentIn };
      if (isUnnamed) return arriveUnnamed(work, sending, viewer);
      if (release.design.updates && !viewer && !addsStrangers(door, release)) throw notSignedIn();
      const { proves } = door.design;
      if (door.kind === 'outside' && !viewer)
        return proves === 'never' ? arriveClaimed(work, sending) : keepForConfirmation(house, work, sending);
      const isProved =
        sent !== null ||
        hasProved(tx, proves === 'never' ? undefined : proves, input.session ?? null, viewer?.personId ?? '');
      if (door.kind === 'outside' && !isProved && viewer)
        return keepForConfirmation(house, work, sending, personById(tx, viewer.personId));
      const requester = viewer ? personById(tx, viewer.personId) : undefined;
      if (!requester) throw notSignedIn();
      // For somebody else asks who is of the staff.
      const onBehalfId = behalfOf(tx, requester, door.kind === 'staff' && !sent ? input.onBehalf : undefined);
      const begun = keptBy(tx, door.id, viewer, sent?.owed.id)?.beganAt ?? null;
      const updated = onBehalfId === null ? updateBy(work, sending, requester, { sent, since: since ?? begun }) : null;
      if (updated) {
        if (sent) isAnswered(tx, sent, updated.id, now);
        forgetKept(tx, door.id, { personId: requester.id, owed: sent?.owed.id });
        return { state: 'changed', number: updated.number, is: updated.is };
      }
      const { id, number, due, says } = arriveBy(work, door, release, requester, input.answers, {
        ...{ onBehalfId, consent, consentIn, sent },
        since: since ?? begun,
      });
      if (sent) isAnswered(tx, sent, id, now);
      forgetKept(tx, door.id, { personId: requester.id, owed: sent?.owed.id });
      return { state: 'arrived', number, due, says, confirms: null };
    });
  });
}

/**
 * Whether somebody of whom nothing is known may fill in a form that changes what is there: what they send is added, or
 * changes what is theirs, once they have confirmed whose address it is.
 */
export const addsStrangers = ({ kind, design: { proves, unnamed } }: DoorRow, { design }: ReleaseRow): boolean =>
  kind === 'outside' &&
  !unnamed &&
  proves !== 'never' &&
  design.updates?.none === 'add' &&
  design.updates.whose === OWN_REQUESTS;

interface Sending {
  readonly door: DoorRow;
  readonly release: ReleaseRow;
  readonly input: Submission;
  /** Since when it was being filled in, epoch ms, as far as the house knows. */
  readonly since: number | null;
  readonly consent: number | null;
  readonly consentIn: Language | null;
}

/**
 * The version of the text of a door that was agreed to; null where it asks for nothing.
 *
 * @throws Problem 422 when nobody agreed, 409 when it is another text by now
 */
function agreedTo(design: DoorRow['design'], version: number | undefined): number | null {
  const { consent } = design;
  if (!consent) return null;
  const missing = consentProblems(design, version);
  if (missing.length > 0) throw wrongFields(missing);
  if (version !== consent.version) throw new Problem(409, 'form-changed', refused('consentChanged'));
  return version;
}

/** Who says that they send something, and where they are written to. */
function saidBy({ contact }: Submission, known?: PersonRow): { readonly name: string; readonly email: string } {
  const { name, email } = known ?? contact ?? { name: '', email: '' };
  return { name: name.trim(), email: email.trim().toLowerCase() };
}

/** The language in which somebody agreed to a text: the one they read, where the form is there in it. */
const agreedIn = (
  db: Reader,
  { design }: ReleaseRow,
  consent: number | null,
  reads: Language | null | undefined,
): Language | null =>
  consent === null ? null : (readIn(design, reads ?? undefined) ?? design.written ?? deskOf(db).language);

/** `known`: who is signed in, where they have to prove once more that their address is theirs. */
function keepForConfirmation(
  house: House,
  work: Work,
  { door, release, input, since, consent }: Sending,
  known?: PersonRow,
): Submitted {
  const { tx, now } = work;
  const { name, email } = saidBy(input, known);
  const { answers, language: reads } = input;
  // A place may be held for whoever has the address: that it is theirs is confirmed before it is taken.
  const inLine = { email, place: placeShown(tx, door, input.place, now) };
  const whose = known ? { asks: known, admits: comerOf(tx, door, known) } : { asks: null, admits: UNKNOWN };
  const arriving = { ...through(door, release), ...whose, answers, since, reads, inLine };
  const { entry } = input;
  const changes = known && updateProblems(tx, { door, release, person: known, answers, entry, sent: null }, now);
  const considered = changes ? null : consider(tx, arriving, now);
  if (considered?.is === 'refused') throw refusal(considered.refusal);
  const wrong = changes ?? (considered?.is === 'wrong' ? considered.problems : []);
  const all = [...wrong, ...contactProblems({ name, email })];
  if (all.length > 0) throw wrongFields(all);
  roomForLetter(tx, email, now);
  // Whether the address belongs to somebody, and whether they may come in, is said only to who
  // holds it: in the letter's page.
  const id = newId();
  const sent = linkFor(tx, house.config.secret, { purpose: 'sent', personId: '', targetId: id, now });
  const submission = {
    id,
    doorId: door.id,
    releaseId: release.id,
    name,
    email,
    answers: input.answers,
    createdAt: now,
    expiresAt: linkEnds(tx, 'confirm', now),
    language: input.language ?? null,
    sentLink: sent.id,
    consent,
    personId: known?.id ?? null,
    entry: entry ?? null,
  };
  tx.insert(waitingSubmissions).values(submission).run();
  forgetKept(tx, door.id, known ? { personId: known.id } : { email });
  notifyAddress(work, email, { kind: 'confirm', submission: submission.id });
  return { state: 'to-confirm', email, sent: sent.token };
}

/**
 * Takes in what somebody sent who proves nothing first: it is nobody’s until they confirm their address by the email they
 * are sent, and theirs from then on.
 */
function arriveClaimed(work: Work, { door, release, input, since, ...agreed }: Sending): Submitted {
  const { tx, now } = work;
  const { answers, language: reads } = input;
  const claim = saidBy(input);
  const arriving = { ...through(door, release), asks: null, admits: UNKNOWN, answers, since, reads };
  const problems = contactProblems(claim);
  if (problems.length > 0) {
    const considered = consider(tx, arriving, now);
    throw wrongFields([...(considered.is === 'wrong' ? considered.problems : []), ...problems]);
  }
  roomForLetter(tx, claim.email, now);
  const { request } = arrive(work, arriving, { doorId: door.id, requesterId: null, claim, ...agreed });
  askToConfirm(work, door, release, request, claim, reads);
  forgetKept(tx, door.id, { email: claim.email });
  return { state: 'arrived', ...arrivedFrom(tx, door, request), confirms: claim.email };
}

/** Asks whoever has an address to confirm that a request that came in is theirs. */
function askToConfirm(
  work: Work,
  { id: doorId }: DoorRow,
  { id: releaseId }: ReleaseRow,
  { id: requestId }: RequestRow,
  claim: NonNullable<RequestRow['claim']>,
  language: Language | null = null,
): void {
  const { tx, now } = work;
  const id = newId();
  const waits = { id, doorId, releaseId, requestId, ...claim, answers: {}, language };
  tx.insert(waitingSubmissions)
    .values({ ...waits, createdAt: now, expiresAt: linkEnds(tx, 'confirm', now) })
    .run();
  notifyAddress(work, claim.email, { kind: 'confirm', submission: id });
}

export function waitingFor(db: Reader, token: string, now: number) {
  const link = openLink(db, token, 'confirm', now);
  const submission = db.select().from(waitingSubmissions).where(eq(waitingSubmissions.id, link.targetId)).get();
  if (!submission) throw new Problem(404, 'not-found', refused('confirmGone'));
  return { link, submission, release: releaseById(db, submission.releaseId).release };
}

/** What a sender’s link leads to: what waits for its address to be confirmed, or the request it became. */
function sentBy(db: Reader, token: string, now: number) {
  const link = openLink(db, token, 'sent', now);
  const waiting = db.select().from(waitingSubmissions).where(eq(waitingSubmissions.id, link.targetId)).get();
  return { link, waiting, request: waiting ? undefined : requestById(db, link.targetId) };
}

/** What became of what was sent from outside, for whoever sent it. Nothing of the request itself is told. */
export function sentState(db: Reader, token: string, now: number, reads: Language): AnswerOf<'sentState'> {
  const { waiting, request } = sentBy(db, token, now);
  if (waiting) {
    const design = inLanguage(releaseById(db, waiting.releaseId).release.design, reads);
    const slug = doorById(db, waiting.doorId)?.slug ?? '';
    return { state: 'to-confirm', form: design.title, slug, email: waiting.email, until: iso(waiting.expiresAt) };
  }
  if (!request) throw new Problem(410, 'link-expired', refused('confirmExpired'));
  const design = inLanguage(releaseById(db, request.releaseId).release.design, reads);
  const finish = finishOf(db, request.id);
  const due = finish === null ? null : iso(finish);
  return { state: 'arrived', form: design.title, number: request.number, due };
}

/**
 * Sends the link to confirm once more. To another address, what waits begins anew: whoever got the first
 * email by mistake can confirm nothing.
 */
export function sendAgain(house: House, token: string, typed: string): AnswerOf<'sendAgain'> {
  return write(house, (work) => {
    const { tx, now } = work;
    const { link, waiting } = sentBy(tx, token, now);
    if (!waiting) throw new Problem(410, 'link-used', refused('confirmUsed'));
    const email = typed.trim().toLowerCase();
    const problems = contactProblems({ name: waiting.name, email });
    if (problems.length > 0) throw wrongFields(problems);
    roomForLetter(tx, email, now);
    const isSame = email === waiting.email;
    const id = isSame ? waiting.id : newId();
    if (!isSame) {
      tx.delete(waitingSubmissions).where(eq(waitingSubmissions.id, waiting.id)).run();
      tx.insert(waitingSubmissions)
        // Of whoever holds that address, and of nobody who was signed in.
        .values({ ...waiting, id, email, personId: null })
        .run();
      turnLink(tx, link.id, id);
    }
    notifyAddress(work, email, { kind: 'confirm', submission: id });
    return { email };
  });
}

/** The door that somebody is at, and what they show to prove since when. */
interface Through extends Shown {
  readonly slug: string;
  /** The link to a place that is held for them. */
  readonly place?: string | undefined;
  readonly opened?: string | undefined;
  /** The language they read. */
  readonly reads: Language;
}

/** A door that admits whoever calls: a closed one answers nothing about its form. */
function openDoor(house: House, caller: Viewer | null, { slug, opened, reads, place, ...shown }: Through, now: number) {
  const { db } = house;
  const at = doorBySlug(db, slug, reads);
  const sent = sentTo(db, at.door, shown, now);
  if (sent) stillOwed(sent);
  const viewer = sent?.viewer ?? caller;
  if (at.door.kind === 'staff' && !viewer) throw notSignedIn();
  const since = openedSince(house.config.secret, at.door, opened);
  const held = placeShown(db, at.door, place, now);
  const counted = countedAt(db, at.door, { personId: viewer?.personId ?? null, place: held }, now);
  const admission = admissionOf(db, at.door, viewer, now, since, counted, sent ? true : undefined);
  if (!admission.admitted) throw refusal(admission);
  const kept = keptByOthers(db, at.door.formId, viewer, isEntrySent(sent));
  if (kept !== null) throw notAllowed(kept);
  return { ...at, viewer, sent, reads };
}

/** What answers at a door come to so far, for whoever is typing them. */
function completedAt(
  db: Reader,
  { door, release: inForce, viewer, sent, reads }: ReturnType<typeof openDoor>,
  answers: RawAnswers,
  now: number,
) {
  const known = namedAt(door, viewer);
  const requester = known ? (personById(db, known.personId) ?? null) : null;
  const asked = askedAt(
    db,
    inForce,
    { kind: door.kind, id: requester?.id ?? null, about: sent?.about, entry: sent?.entry, reads },
    now,
  );
  const { release } = asked;
  const facts = factsFor(db, { door, design: release.design, requester, now, named: answers });
  return { asked, release, facts, values: asked.complete(answers, facts).values, asker: requester?.id ?? null };
}

/**
 * What only the house can know of answers while they are being filled in. What is wrong otherwise
 * is not told here.
 */
export function checkAnswers(
  house: House,
  viewer: Viewer | null,
  { answers, entry, ...at_ }: Through & Omit<BodyOf<'checkAnswers'>, 'owed'>,
  now: number,
): AnswerOf<'checkAnswers'> {
  const { db } = house;
  const at = openDoor(house, viewer, at_, now);
  const { asked, release, facts, values, asker } = completedAt(db, at, answers, now);
  const person = asker === null ? undefined : personById(db, asker);
  const meant = person && meantAt(db, { ...at, person, answers, entry }, now);
  const but = meant?.is === 'one' ? { but: meant.one.open.request } : {};
  const asker_ = { viewer: at.viewer, now, reads: at.reads };
  return {
    problems: [...answersHeld(db, release, { values, facts, asker }, but)],
    leadsTo: at.sent ? null : ledBy(db, at.door.formId, { asked, values, facts }, asker_),
  };
}

/** What a reference of a form offers with the answers so far. */
export function offersAt(
  house: House,
  viewer: Viewer | null,
  { field, find, answers, ...at_ }: Through & Omit<BodyOf<'offers'>, 'owed'>,
  now: number,
): AnswerOf<'offers'> {
  const { db } = house;
  const at = openDoor(house, viewer, at_, now);
  const { release, facts, values, asker } = completedAt(db, at, answers, now);
  asksFor(release.design, field);
  return offersOf(db, field, find, { fields: release.design.fields, values, facts, asker }, { reads: at.reads });
}

/** The hash of the file that is the picture on a card, for whoever may fill the form in. @throws Problem 404 */
export function pictureAt(
  house: House,
  viewer: Viewer | null,
  { field, file, ...at_ }: Through & { readonly field: string; readonly file: string },
  now: number,
): string {
  const { db } = house;
  const { release, asker } = completedAt(db, openDoor(house, viewer, at_, now), {}, now);
  asksFor(release.design, field);
  return pictureOnCard(db, field, file, { fields: release.design.fields, asker });
}

/** @throws Problem 404 where a form does not ask for a field */
function asksFor({ parts }: Pick<FormDesign, 'parts'>, field: string): void {
  if (!parts.some((part) => part.part === 'question' && part.field === field)) throw notFound('question');
}

/** Confirms an outside address by the link in the letter. It works once. */
export function confirm(house: House, token: string, entry?: string): AnswerOf<'confirm'> {
  return write(house, (work) => {
    const { tx, now } = work;
    const { link, submission } = waitingFor(tx, token, now);
    const arrived = sendWaiting(work, submission, entry);
    spendLink(tx, link, now);
    const { requesterId: personId, id: targetId, number, due, says, is } = arrived;
    const request = requestById(tx, targetId);
    // What they stand in may be somebody else’s request.
    const isOwn = request !== undefined && isOwnOf(request, personId);
    const follow = isOwn
      ? linkFor(tx, house.config.secret, { purpose: 'follow', personId, targetId, now }).token
      : null;
    return { number, due, says, is, follow };
  });
}

/** What of theirs whoever confirms an address may mean, where the form changes what is there; none where that is clear. */
export function meantByWaiting(
  db: Reader,
  submission: typeof waitingSubmissions.$inferSelect,
  now: number,
): AnswerOf<'confirmation'>['which'] {
  const door = submission.requestId === null ? doorById(db, submission.doorId) : undefined;
  const { release } = releaseById(db, submission.releaseId);
  const person = whoseWaits(db, submission);
  if (!door || !person || !release.design.updates || submission.entry !== null) return null;
  const meant = meantAt(db, { door, release, person, answers: submission.answers, entry: undefined, sent: null }, now);
  if (meant?.is !== 'several') return null;
  return {
    theirs: meant.among.map(({ id, open }) => ({ id, number: open.request.number, subject: open.subject })),
    another: release.design.updates.beside ?? false,
  };
}

/** Who is on file of those whose address waits to be confirmed. */
const whoseWaits = (db: Reader, { personId, email }: typeof waitingSubmissions.$inferSelect): PersonRow | undefined =>
  personId === null ? personByEmail(db, email) : personById(db, personId);

/**
 * Gives what waits for a confirmed address back to whoever holds its letter, as answers that were
 * begun: what was fine when it was typed may not be any more.
 */
export function backToAnswers(house: House, token: string): AnswerOf<'backToAnswers'> {
  return write(house, ({ tx, now }) => {
    const { link, submission } = waitingFor(tx, token, now);
    const door = submission.requestId === null ? doorById(tx, submission.doorId) : undefined;
    if (!door) throw new Problem(404, 'not-found', refused('confirmGone'));
    const id = newId();
    tx.insert(keptAnswers)
      .values({
        ...{ id, doorId: door.id, name: submission.name, email: submission.email, answers: submission.answers },
        ...{ typedAt: submission.createdAt, beganAt: submission.createdAt, expiresAt: linkEnds(tx, 'resume', now) },
      })
      .run();
    tx.delete(waitingSubmissions).where(eq(waitingSubmissions.id, submission.id)).run();
    spendLink(tx, link, now);
    const { token: kept } = linkFor(tx, house.config.secret, { purpose: 'resume', personId: '', targetId: id, now });
    return { slug: door.slug, kept };
  });
}

/** Confirms an address on the desk's word, without its letter. */
export function confirmSubmission(house: House, submissionId: string): void {
  write(house, (work) => {
    const { tx } = work;
    const submission = tx.select().from(waitingSubmissions).where(eq(waitingSubmissions.id, submissionId)).get();
    if (submission) sendWaiting(work, submission);
  });
}

/** Sends what waited for a confirmed address. The request arrives now, not when it was typed. */
function sendWaiting(work: Work, submission: typeof waitingSubmissions.$inferSelect, choice?: string) {
  const { tx } = work;
  const door = doorById(tx, submission.doorId);
  if (!door) throw new Problem(404, 'not-found', refused('confirmGone'));
  const { release } = releaseById(tx, submission.releaseId);
  const known = submission.personId === null ? undefined : personById(tx, submission.personId);
  const requester = whoseWaits(tx, submission) ?? addPerson(work, contactOf(submission));
  if (requester.kind === 'contact' && submission.language !== null)
    tx.update(people).set({ language: submission.language }).where(eq(people.id, requester.id)).run();
  const { createdAt: since, consent } = submission;
  const agreed = { consent, consentIn: agreedIn(tx, release, consent, submission.language) };
  const { requestId, answers } = submission;
  const entry = choice ?? submission.entry ?? undefined;
  const sending = { door, release, input: { answers, entry }, ...agreed };
  const updated = requestId === null ? updateBy(work, sending, requester, { sent: null, since }) : null;
  const arrived = updated
    ? { id: updated.id, number: updated.number, due: null, says: null, is: updated.is }
    : requestId === null
      ? arriveBy(work, door, release, requester, answers, { isKnown: known !== undefined, since, ...agreed })
      : claimed(work, door, requestId, requester);
  tx.delete(waitingSubmissions).where(eq(waitingSubmissions.id, submission.id)).run();
  if (submission.sentLink !== null) turnLink(tx, submission.sentLink, arrived.id);
  return { is: 'arrived' as const, ...arrived, requesterId: requester.id };
}

/** What came in before its address was confirmed is theirs now. @throws Problem 404 where it is gone, or somebody’s */
function claimed(work: Work, door: DoorRow, requestId: string, { id: of }: PersonRow) {
  const request = requestById(work.tx, requestId);
  if (!request || request.requesterId !== null) throw new Problem(404, 'not-found', refused('confirmGone'));
  const theirs = changeRequest(by(work, of), request, { kind: 'claimed', of });
  return { id: theirs.id, ...arrivedFrom(work.tx, door, theirs) };
}

const contactOf = ({ name, email, language }: typeof waitingSubmissions.$inferSelect): NewPerson => ({
  ...{ kind: 'contact', name, email, language },
});

/** What comes by a door, whoever asks. */
const through = (door: DoorRow, release: ReleaseRow) =>
  ({ through: { by: 'door', kind: door.kind }, release, door, comesBy: door.kind }) as const;

/** On whose behalf one of the staff asks, by id: nobody’s where they ask for themselves. @throws Problem 422 for who is not here */
function behalfOf(tx: Transaction, requester: PersonRow, wanted: string | undefined): string | null {
  if (wanted === undefined || wanted === requester.id) return null;
  const person = personById(tx, wanted);
  if (person?.kind === 'staff' && person.active) return person.id;
  throw wrongFields([
    { field: 'onBehalf', message: said('answers:nobodyToAskFor'), fix: said('answers:chooseColleague') },
  ]);
}

/** Changes what is theirs by what somebody sent, where the form does that; null where it is to be added. */
function updateBy(
  work: Work,
  {
    door,
    release,
    input: { answers, entry },
    consent,
    consentIn,
  }: Omit<Sending, 'input' | 'since'> & { readonly input: Pick<Submission, 'answers' | 'entry'> },
  person: PersonRow,
  { sent, since }: { readonly sent: SentTo | null; readonly since: number | null },
): Updated | null {
  const { tx, now } = work;
  if (!release.design.updates) return null;
  const viewer = viewerIn(tx, person);
  const admission = admissionOf(tx, door, viewer, now, since, undefined, sent ? true : undefined);
  if (!admission.admitted) throw refusal(admission);
  return update(work, { door, release, person, answers, entry, sent, consent, consentIn });
}

/** Takes in what came by a door that stores nothing about who comes: whoever it was, nobody asked. */
function arriveUnnamed(
  work: Work,
  { door, release, input: { answers, language: reads }, since, ...agreed }: Sending,
  viewer: Viewer | null,
): Submitted {
  // Whether they may come in is looked at, and forgotten.
  const person = viewer ? personById(work.tx, viewer.personId) : undefined;
  const admits = person ? comerOf(work.tx, door, person) : UNKNOWN;
  const arriving = { ...through(door, release), asks: null, admits, answers, since, reads };
  const { request } = arrive(work, arriving, { doorId: door.id, requesterId: null, ...agreed });
  return { state: 'arrived', ...arrivedFrom(work.tx, door, request), confirms: null };
}

/**
 * Takes in by a door what one of the staff enters for somebody who asked otherwise. The door admits whoever enters it.
 *
 * @throws Problem 403, 404 or 409 where it admits them not, or nobody can be asked for there; 422 for wrong answers.
 */
export function enterFor(
  work: Work,
  { slug, release: number, answers }: Pick<Submission, 'slug' | 'release' | 'answers'>,
  { enters, asks }: { readonly enters: Viewer; readonly asks: PersonRow },
): RequestRow {
  const { tx } = work;
  const { door, release } = doorBySlug(tx, slug);
  if (release.number !== number) throw new Problem(409, 'form-changed', refused('formChanged'));
  const person = personById(tx, enters.personId);
  if (!person) throw notSignedIn();
  if (door.design.unnamed || release.design.updates) throw new Problem(409, 'asks-nobody', refused('notByEmail'));
  const arriving = { ...through(door, release), asks, admits: comerOf(tx, door, person), answers, isKnown: true };
  const own = { doorId: door.id, requesterId: asks.id, enteredById: person.id };
  return arrive(by(work, person.id), arriving, own).request;
}

/** Takes in what somebody who is known sent by a door. */
function arriveBy(
  work: Work,
  door: DoorRow,
  release: ReleaseRow,
  requester: PersonRow,
  answers: RawAnswers,
  {
    onBehalfId = null,
    isKnown = true,
    since = null,
    consent = null,
    consentIn = null,
    sent = null,
  }: {
    readonly sent?: SentTo | null;
    readonly onBehalfId?: string | null;
    readonly isKnown?: boolean;
    readonly since?: number | null;
    readonly consent?: number | null;
    readonly consentIn?: Language | null;
  },
) {
  const arriving = {
    ...through(door, release),
    asks: requester,
    admits: { ...comerOf(work.tx, door, requester), ...(sent ? { sent: true as const } : {}) },
    ...{ answers, isKnown, since, about: sent?.about ?? null, entry: sent?.entry ?? null },
    inLine: { email: requester.email },
  };
  const own = { doorId: door.id, requesterId: requester.id, onBehalfId, consent, consentIn };
  const parties = (values: Values) => ({ ...own, ...whoseIs(work, door, requester, values) });
  const { request } = arrive(by(work, requester.id), arriving, parties);
  if (request.claim !== null) {
    roomForLetter(work.tx, request.claim.email, work.now);
    askToConfirm(work, door, release, request, request.claim);
  }
  leaveLine(work.tx, door.id, { personId: requester.id, email: requester.email });
  return { id: request.id, ...arrivedFrom(work.tx, door, request) };
}

/**
 * Whose a request is that its door takes from a field: the person in it; whoever has the address in it, on the word of
 * staff, and from outside once they have confirmed it. Nothing where it is of who asks.
 */
function whoseIs(
  work: Work,
  { design, kind }: DoorRow,
  asks: PersonRow,
  values: Values,
): { readonly requesterId?: string | null; readonly enteredById?: string; readonly claim?: RequestRow['claim'] } {
  const named = design.whose === undefined ? undefined : ownValue(values, design.whose);
  if (typeof named !== 'string') return {};
  const isAddress = named.includes('@');
  const email = named.trim().toLowerCase();
  const found = isAddress ? personByEmail(work.tx, email) : personById(work.tx, named);
  if (found?.id === asks.id || (!found && !isAddress)) return {};
  if (isAddress && kind === 'outside')
    return { requesterId: null, enteredById: asks.id, claim: { name: email, email } };
  const owner = found ?? addPerson(work, { kind: 'contact', name: email, email });
  return { requesterId: owner.id, enteredById: asks.id };
}

/** What is said of a request once it came in: its number, until when, and the words of its door. */
function arrivedFrom(db: Reader, door: DoorRow, request: RequestRow) {
  const { number, id } = request;
  const due = finishOf(db, id);
  return { number, due: due === null ? null : iso(due), says: confirmationOf(db, door, request) };
}
