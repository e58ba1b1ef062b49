import { ITSELF } from '@tolvek/core/mailing';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { and, eq } from 'drizzle-orm';
import type { DoorRow } from '../door/queries.ts';
import { mailingById, type OwedRow, owedById } from '../mailing/queries.ts';
import { owedForms } from '../mailing/tables.ts';
import { personById, viewerIn } from '../people/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { openLink } from '../platform/links.ts';
import { notFound, notSignedIn, Problem } from '../platform/problem.ts';
import type { Session } from '../platform/signIn/session.ts';
import { hasProved } from '../request/followed.ts';

/** Somebody to whom a form was sent, and what they have to fill in. */
export interface SentTo {
  readonly owed: OwedRow;
  readonly viewer: Viewer;
  /** What it is about, as the form is asked; null where it is about nothing. */
  readonly about: { readonly field: string; readonly value: string } | null;
  /** The id of what they are to look at, where the form changes that very request. */
  readonly entry: string | null;
}

/** What somebody shows who comes to a door: an owed form, by its id where they are signed in, else by the link of their email. */
export interface Shown {
  readonly owed?: string | undefined;
  readonly session: Session | null;
}

/** Whether it is an entry of theirs to look at, whoever stands in it. */
export const isEntrySent = (sent: SentTo | null): boolean => (sent?.entry ?? null) !== null;

/**
 * To whom the form behind a door was sent, as whoever comes shows; null where they show nothing. Whether it is still to
 * be filled in is not looked at here.
 *
 * @throws Problem 404 for what was not sent to them, 410 for a link that is over, 401 where they have to sign in or
 *   prove again that the address is theirs
 */
export function sentTo(db: Reader, door: DoorRow, { owed: shown, session }: Shown, now: number): SentTo | null {
  if (shown === undefined) return null;
  const own = owedById(db, shown);
  if (own && !session) throw notSignedIn();
  const owed = own?.personId === session?.viewer.personId ? own : undefined;
  const found = owed ?? byLink(db, shown, door, session, now);
  if (mailingById(db, found.mailingId)?.formId !== door.formId) throw notFound('form');
  const person = personById(db, found.personId);
  if (!person?.active) throw notFound('form');
  const value = found.aboutPersonId ?? found.aboutRequestId;
  return {
    owed: found,
    viewer: owed && session ? session.viewer : viewerIn(db, person),
    about: found.field === null || found.field === ITSELF || value === null ? null : { field: found.field, value },
    entry: found.field === ITSELF ? value : null,
  };
}

/** What the link of an email opens: for a contact, who proves once more that the address is theirs where the door wants that. */
function byLink(db: Reader, token: string, { design }: DoorRow, session: Session | null, now: number): OwedRow {
  const link = openLink(db, token, 'owed', now);
  const owed = owedById(db, link.targetId);
  // It was passed on, or is the other record’s of the same person.
  if (!owed || owed.personId !== link.personId) throw new Problem(410, 'link-used', refused('owedClosed'));
  if (!hasProved(db, design.follows, session, owed.personId)) throw new Problem(401, 'prove', refused('proveAgain'));
  return owed;
}

/** @throws Problem 409 where it is not to be filled in any more */
export function stillOwed(sent: SentTo): void {
  if (sent.owed.state !== 'open') throw new Problem(409, 'owed-closed', refused('owedClosed'));
}

/** Writes down that a form was filled in. */
export function isAnswered(tx: Transaction, { owed }: SentTo, answerId: string, now: number): void {
  tx.update(owedForms)
    .set({ state: 'done', closedAt: now, remindAt: null, answerId })
    .where(and(eq(owedForms.id, owed.id), eq(owedForms.state, 'open')))
    .run();
}
