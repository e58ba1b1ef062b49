import type { DoorDesign } from '@tolvek/core/door';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import { follower } from '../door/admission.ts';
import { doorOf } from '../door/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound, Problem } from '../platform/problem.ts';
import type { Session } from '../platform/signIn/session.ts';
import { session as sessions } from '../platform/tables.ts';
import { type RequestRow, requestById } from './queries.ts';

/** What whoever follows a request by a link has to prove besides; undefined where the link is enough. */
export const proofWanted = (db: Reader, request: Pick<RequestRow, 'doorId'>): DoorDesign['follows'] =>
  doorOf(db, request)?.design.follows;

/** How long a proof that is asked for each time counts, in ms: as long as somebody reads and answers. */
const LATELY = 15 * 60_000;

/**
 * Who holds a link to a request of theirs, which link it is, and whether that is enough: a door may want them to have proved on this
 * device, or lately, that its address is theirs, so that a link that was passed on opens nothing.
 *
 * @throws Problem 404 where the request is gone, 401 `prove` where they have to prove it
 */
export function followed(
  { db, clock }: Pick<House, 'db' | 'clock'>,
  { params, session }: { readonly params: { readonly token: string }; readonly session: Session | null },
): { readonly viewer: Viewer; readonly request: RequestRow; readonly linkId: string } {
  const { viewer, requestId, linkId } = follower(db, params.token, clock.now());
  const request = requestById(db, requestId);
  if (!request) throw notFound('request');
  if (hasProved(db, proofWanted(db, request), session, viewer.personId)) return { viewer, request, linkId };
  throw new Problem(401, 'prove', refused('proveAgain'));
}

/** Whether somebody has proved who they are as a door wants it: by being signed in, lately where it wants that each time. */
export function hasProved(
  db: Reader,
  wants: DoorDesign['follows'],
  session: Session | null,
  personId: string,
): boolean {
  if (!wants) return true;
  return session?.viewer.personId === personId && (wants === 'device' || isFresh(db, session.token));
}

/** Whether a session began a moment ago: sessions live by the real clock. */
function isFresh(db: Reader, token: string): boolean {
  const found = db.select({ at: sessions.createdAt }).from(sessions).where(eq(sessions.token, token)).get();
  return found !== undefined && Date.now() - found.at.getTime() < LATELY;
}
