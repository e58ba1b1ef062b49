import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { count, desc, eq, inArray } from 'drizzle-orm';
import { takeMessage, takeNote } from '../desk/commands.ts';
import { openTo } from '../desk/openTo.ts';
import { filesOfEmail, giveEmailFiles } from '../files/commands.ts';
import { emailFiles } from '../files/tables.ts';
import { personByEmail, personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { openRequest } from '../request/open.ts';
import { type RequestRow, requestById } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { emailsHeld } from './queries.ts';
import { incomingEmails } from './tables.ts';
import { PART_OF_REQUEST } from './take.ts';

type EmailRow = typeof incomingEmails.$inferSelect;

/** So many are listed, with so much of what they say. */
const LISTED = 200;
const BEGINNING = 160;

/** How an email is listed. */
const shownOf = ({ id, receivedAt, fromName, fromAddress, subject, state, why }: EmailRow) => ({
  ...{ id, receivedAt: iso(receivedAt), name: fromName, address: fromAddress, subject, state, why },
});

/** Emails that are held, or were laid aside, the newest first. */
export function emailsIn(db: Reader, state: 'held' | 'aside'): Omit<AnswerOf<'incomingEmails'>, 'isRead'> {
  const rows = db
    .select()
    .from(incomingEmails)
    .where(eq(incomingEmails.state, state))
    .orderBy(desc(incomingEmails.receivedAt), desc(incomingEmails.id))
    .limit(LISTED)
    .all();
  const files = new Map(
    db
      .select({ id: emailFiles.emailId, n: count() })
      .from(emailFiles)
      .where(
        inArray(
          emailFiles.emailId,
          rows.map(({ id }) => id),
        ),
      )
      .groupBy(emailFiles.emailId)
      .all()
      .map(({ id, n }) => [id, n]),
  );
  return {
    emails: rows.map((row) => ({
      ...shownOf(row),
      beginning: (row.text || row.whole).slice(0, BEGINNING),
      files: files.get(row.id) ?? 0,
    })),
    held: emailsHeld(db),
  };
}

/** One email, with what it seems to be about. @throws Problem 404 */
export function emailWith(db: Reader, viewer: Viewer, id: string): Omit<AnswerOf<'incomingEmail'>, 'forms'> {
  const row = emailById(db, id);
  const { text, whole, leftOut, requestId, settledBy, settledAt } = row;
  const request = requestId === null ? undefined : requestById(db, requestId);
  const person = personByEmail(db, row.fromAddress);
  return {
    ...shownOf(row),
    ...{ text, whole, leftOut: [...leftOut] },
    files: filesOfEmail(db, id).map(({ id: file, name, bytes }) => ({ id: file, name, bytes })),
    person: person?.name ?? null,
    about: request ? aboutOf(db, viewer, request) : null,
    theirs: row.state === 'taken' || !person ? [] : newestOf(db, viewer, person.id),
    settled: settledAt === null ? null : { by: personNamed(db, settledBy), at: iso(settledAt) },
  };
}

/** So many of somebody’s newest requests are offered. */
const OFFERED = 4;

/** The newest requests of somebody, as far as whoever looks works on them. */
const newestOf = (db: Reader, viewer: Viewer, personId: string): AnswerOf<'incomingEmail'>['theirs'] =>
  db
    .select({ id: requests.id })
    .from(requests)
    .where(eq(requests.requesterId, personId))
    .orderBy(desc(requests.createdAt))
    .limit(OFFERED)
    .all()
    .flatMap(({ id }) => {
      const request = requestById(db, id);
      const about = request && !request.trial ? aboutOf(db, viewer, request) : null;
      return about ? [{ number: about.number, subject: about.subject }] : [];
    });

/** A request as whoever looks may know it; null for who does not work on it. */
function aboutOf(db: Reader, viewer: Viewer, request: RequestRow): AnswerOf<'incomingEmail'>['about'] {
  const { relation, subject } = openRequest(db, request, viewer, 'list');
  return relation.isDesk ? { number: request.number, subject, requester: personNamed(db, request.requesterId) } : null;
}

function emailById(db: Reader, id: string): EmailRow {
  const row = db.select().from(incomingEmails).where(eq(incomingEmails.id, id)).get();
  if (!row) throw notFound('email');
  return row;
}

/** An email that nobody has said anything about yet, or that was laid aside. @throws Problem 404, 409 where it has a request */
export function leftEmail(tx: Transaction, id: string): EmailRow {
  const row = emailById(tx, id);
  if (row.state === 'taken') throw new Problem(409, 'email-taken', refused('emailTaken'));
  return row;
}

/** Notes what became of an email, and who said so. */
export const settle = (
  { tx, now }: Work,
  viewer: Viewer,
  id: string,
  to: Partial<typeof incomingEmails.$inferInsert>,
): void =>
  void tx
    .update(incomingEmails)
    .set({ ...to, settledBy: viewer.personId, settledAt: now })
    .where(eq(incomingEmails.id, id))
    .run();

/** Whose email it is, as the history says it. */
export const senderOf = ({ fromName, fromAddress }: EmailRow): string =>
  fromName === '' || fromName.toLowerCase() === fromAddress ? fromAddress : `${fromName} <${fromAddress}>`;

/**
 * Makes an email part of a request, as whoever adds it says: as words of whoever asked, or as a note.
 *
 * @throws Problem 403 or 404 for who may not change the request, 409 where it has one, or nobody asked there.
 */
export function joinEmail(
  house: House,
  viewer: Viewer,
  { id, number, as }: { readonly id: string; readonly number: string; readonly as: 'message' | 'note' },
): AnswerOf<'joinEmail'> {
  return write(house, (work) => {
    const { tx } = work;
    const email = leftEmail(tx, id);
    const { request } = openTo(tx, viewer, number.trim().toUpperCase(), 'change');
    if (as === 'message' && request.requesterId === null)
      throw new Problem(409, 'nobody-asked', refused(request.claim === null ? 'nobodyReads' : 'notConfirmedYet'));
    addTo(work, viewer, request, email, as);
    return { number: request.number };
  });
}

/** Makes an email part of a request, by whoever says so. */
export function addTo(work: Work, viewer: Viewer, request: RequestRow, email: EmailRow, as: 'message' | 'note'): void {
  const { leftOut } = email;
  const files = giveEmailFiles(work.tx, email.id, request);
  const came = { from: senderOf(email), ...(leftOut.length > 0 ? { leftOut } : {}) };
  const words = { text: email.text || email.whole, files, email: came };
  const does = by(work, viewer.personId);
  if (as === 'message') takeMessage(does, request, words);
  else takeNote(does, request, words);
  settle(work, viewer, email.id, { ...PART_OF_REQUEST, requestId: request.id });
}

/** Lays an email aside: nothing becomes of it, and it is kept for a while. */
export function layEmailAside(house: House, viewer: Viewer, id: string): AnswerOf<'layEmailAside'> {
  return write(house, (work) => {
    leftEmail(work.tx, id);
    settle(work, viewer, id, { state: 'aside' });
    return { done: true };
  });
}

/** Takes an email back that was laid aside. */
export function holdEmail(house: House, viewer: Viewer, id: string): AnswerOf<'holdEmail'> {
  return write(house, (work) => {
    leftEmail(work.tx, id);
    settle(work, viewer, id, { state: 'held' });
    return { done: true };
  });
}
