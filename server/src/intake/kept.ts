import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { contactProblems } from '@tolvek/core/door';
import type { FormDesign } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import type { RawAnswers } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { and, desc, eq } from 'drizzle-orm';
import { type DoorRow, doorById, doorBySlug } from '../door/queries.ts';
import { doors, keptAnswers } from '../door/tables.ts';
import { filesNamed } from '../files/commands.ts';
import { currentRelease, formById, releaseInForce } from '../form/queries.ts';
import { notifyAddress, roomForLetter } from '../notice/notify.ts';
import { groupsOf } from '../people/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { openLink } from '../platform/links.ts';
import { newId } from '../platform/newId.ts';
import { notAllowed, Problem, wrongFields } from '../platform/problem.ts';
import type { Session } from '../platform/signIn/session.ts';
import { write } from '../platform/work.ts';
import { askedAt } from '../request/askedAt.ts';
import { factsFor } from '../request/facts.ts';
import { offerProblems } from '../request/references.ts';
import { linkEnds } from '../settings/links.ts';
import { admissionOf } from './admission.ts';
import { openedAt } from './opened.ts';
import { type SentTo, sentTo } from './sentTo.ts';

/** Answers to what a form asks: nothing else is kept, whatever is sent. */
function askedOnly({ parts }: FormDesign, answers: RawAnswers): RawAnswers {
  const asked = new Set(parts.flatMap((part) => (part.part === 'question' ? [part.field] : [])));
  return Object.fromEntries(Object.entries(answers).filter(([key]) => asked.has(key)));
}

/** What somebody who is signed in began to type at a door; null when there is nothing. */
export function keptBy(db: Reader, doorId: string, viewer: Viewer | null, owed = '') {
  if (!viewer) return null;
  return (
    db
      .select()
      .from(keptAnswers)
      .where(
        and(...[eq(keptAnswers.doorId, doorId), eq(keptAnswers.personId, viewer.personId), eq(keptAnswers.owed, owed)]),
      )
      .get() ?? null
  );
}

/** As whom an outside door knows whoever comes. */
const STRANGER = { kind: 'outside', id: null } as const;

/**
 * Keeps what somebody types who is signed in, for any device they sign in on; nothing typed is nothing kept.
 */
export function keepForStaff(
  house: House,
  session: Session,
  slug: string,
  { answers: typed, typedAt, owed: shown }: BodyOf<'keepAnswers'>,
): AnswerOf<'keepAnswers'> {
  return write(house, ({ tx, now }) => {
    const { door, release } = doorBySlug(tx, slug);
    // What would be kept by person tells who was there.
    if (door.design.unnamed) return { kept: false };
    const { viewer } = session;
    const sent = sentTo(tx, door, { owed: shown, session }, now);
    // What was sent to somebody else is kept for nobody.
    if (sent && sent.owed.personId !== viewer.personId) return { kept: false };
    const owed = sent?.owed.id ?? '';
    const known = keptBy(tx, door.id, viewer, owed);
    const asking = { kind: door.kind, id: viewer.personId, about: sent?.about, entry: sent?.entry };
    const answers = askedOnly(askedAt(tx, release, asking, now).release.design, typed);
    if (Object.keys(answers).length === 0) {
      if (known) tx.delete(keptAnswers).where(eq(keptAnswers.id, known.id)).run();
      return { kept: false };
    }
    const row = { answers, typedAt, expiresAt: linkEnds(tx, 'resume', now) };
    if (known) tx.update(keptAnswers).set(row).where(eq(keptAnswers.id, known.id)).run();
    else
      tx.insert(keptAnswers)
        .values({ id: newId(), doorId: door.id, personId: viewer.personId, beganAt: now, owed, ...row })
        .run();
    return { kept: true };
  });
}

/** Keeps what was typed at an outside door, and sends the link to go on to the address given. */
export function keepByLink(
  house: House,
  slug: string,
  { answers: typed, contact, typedAt, language }: BodyOf<'sendKept'> & { readonly language: Language },
): AnswerOf<'sendKept'> {
  return write(house, (work) => {
    const { tx, now } = work;
    const { door, release } = doorBySlug(tx, slug);
    const admission = admissionOf(tx, door, null, now);
    if (door.kind !== 'outside' || door.design.unnamed || !admission.admitted)
      throw notAllowed(
        admission.admitted ? refused('signInToKeep') : refused('notAdmitted', { why: admission.message }),
      );
    const name = contact.name.trim();
    const email = contact.email.trim().toLowerCase();
    const problems = contactProblems({ name: name || '-', email });
    if (problems.length > 0) throw wrongFields(problems);
    roomForLetter(tx, email, now);
    const answers = askedOnly(askedAt(tx, release, STRANGER, now).release.design, typed);
    const id = newId();
    tx.insert(keptAnswers)
      .values({
        ...{ id, doorId: door.id, name, email, answers, typedAt, language },
        ...{ beganAt: now, expiresAt: linkEnds(tx, 'resume', now) },
      })
      .run();
    notifyAddress(work, email, { kind: 'go-on', kept: id });
    return { email };
  });
}

function behind(db: Reader, token: string, now: number) {
  const link = openLink(db, token, 'resume', now);
  const kept = db.select().from(keptAnswers).where(eq(keptAnswers.id, link.targetId)).get();
  const door = kept && doorById(db, kept.doorId);
  if (!door) throw new Problem(410, 'link-used', refused('keptGone'));
  return { kept, door };
}

/** What a link to go on leads to, with the files and the requests its answers name. */
export function keptBehind(house: House, token: string, now: number): AnswerOf<'kept'> {
  const { db } = house;
  const { kept, door } = behind(db, token, now);
  return {
    slug: door.slug,
    answers: kept.answers,
    contact: { name: kept.name, email: kept.email ?? '' },
    typedAt: kept.typedAt,
    opened: kept.beganAt === null ? null : openedAt(house.config.secret, door, kept.beganAt),
    ...namedIn(db, door, null, kept.answers, now),
  };
}

/**
 * Files and requests that kept answers name, for the form to know them: of requests those that are
 * offered with these answers.
 */
export function namedIn(
  db: Reader,
  door: DoorRow,
  requester: { readonly id: string; readonly kind: 'staff' | 'contact' } | null,
  answers: RawAnswers,
  now: number,
  sent: SentTo | null = null,
) {
  const release = releaseInForce(db, door.formId);
  if (!release) return { files: [], references: [] };
  const asking = { kind: door.kind, id: requester?.id ?? null, about: sent?.about, entry: sent?.entry };
  const asked = askedAt(db, release, asking, now);
  const { design } = asked.release;
  const { fields } = design;
  const facts = factsFor(db, { door, design, requester, now, named: answers });
  const { values } = asked.complete(answers, facts);
  const asker = requester?.id ?? null;
  // A closed door names nothing.
  const viewer = requester && { personId: requester.id, kind: requester.kind, groups: groupsOf(db, requester.id) };
  const isOpen = admissionOf(db, door, viewer, now, null, undefined, sent ? true : undefined).admitted;
  const kept = new Set(offerProblems(db, { fields, values, facts, asker }).map((problem) => problem.field));
  const gone = new Set<unknown>([...kept].flatMap((key): unknown => own(answers, key)));
  return {
    files: [...filesNamed(db, door.formId, fields, answers)],
    references: isOpen ? facts.references.filter((reference) => !gone.has(reference.id)) : [],
  };
}

/** Keeps what is typed behind a link to go on. */
export function keepBehind(
  house: House,
  token: string,
  { answers: typed, contact, typedAt }: BodyOf<'keepKept'>,
): AnswerOf<'keepKept'> {
  return write(house, ({ tx, now }) => {
    const { kept, door } = behind(tx, token, now);
    const name = contact.name.trim();
    const problems = contactProblems({ name: name || '-', email: kept.email ?? '' });
    if (problems.length > 0) throw wrongFields(problems);
    const answers = askedOnly(askedAt(tx, doorBySlug(tx, door.slug).release, STRANGER, now).release.design, typed);
    tx.update(keptAnswers).set({ answers, name, typedAt }).where(eq(keptAnswers.id, kept.id)).run();
    return { kept: true };
  });
}

/** Forgets what was kept, once it is sent. */
export function forgetKept(
  tx: Transaction,
  doorId: string,
  who: { readonly personId: string; readonly owed?: string | undefined } | { readonly email: string },
): void {
  const whose =
    'personId' in who
      ? and(eq(keptAnswers.personId, who.personId), eq(keptAnswers.owed, who.owed ?? ''))
      : eq(keptAnswers.email, who.email);
  tx.delete(keptAnswers)
    .where(and(eq(keptAnswers.doorId, doorId), whose))
    .run();
}

/** What somebody who is signed in began and has not sent, the newest first. */
export function begunBy(db: Reader, viewer: Viewer, now: number): AnswerOf<'frontDesk'>['begun'] {
  return (
    db
      .select({ door: doors })
      .from(keptAnswers)
      .innerJoin(doors, eq(doors.id, keptAnswers.doorId))
      // What was sent to them is listed as that.
      .where(and(eq(keptAnswers.personId, viewer.personId), eq(keptAnswers.owed, '')))
      .orderBy(desc(keptAnswers.typedAt))
      .all()
      .flatMap(({ door }) => {
        const form = formById(db, door.formId);
        if (form?.stoppedAt !== null || form.deletedAt !== null) return [];
        const release = currentRelease(db, form);
        const design = release && askedAt(db, release, { kind: door.kind, id: viewer.personId }, now).release.design;
        return [{ slug: door.slug, title: design?.title ?? form.draft.title }];
      })
  );
}
