import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import { follower } from '../door/admission.ts';
import { doorById } from '../door/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { Problem } from '../platform/problem.ts';
import type { Session } from '../platform/signIn/session.ts';
import { session as sessions } from '../platform/tables.ts';
import { requestById } from './queries.ts';

/** How long a proof that is asked for each time counts, in ms: as long as somebody reads and answers. */
const LATELY = 15 * 60_000;

/**
 * Who holds a link to a request of theirs, and whether that is enough: a door may want them to have proved on this
 * device, or lately, that its address is theirs, so that a link that was passed on opens nothing.
 *
 * @throws Problem 401 `prove` where they have to prove it
 */
export function followed(
  { db, clock }: Pick<House, 'db' | 'clock'>,
  { params, session }: { readonly params: { readonly token: string }; readonly session: Session | null },
): { readonly viewer: Viewer; readonly requestId: string } {
  const found = follower(db, params.token, clock.now());
  const doorId = requestById(db, found.requestId)?.doorId ?? null;
  const wants = doorId === null ? undefined : doorById(db, doorId)?.design.follows;
  if (!wants) return found;
  const isThey = session?.viewer.personId === found.viewer.personId;
  if (isThey && (wants === 'device' || isFresh(db, session.token))) return found;
  throw new Problem(401, 'prove', refused('proveAgain'));
}

/** Whether a session began a moment ago: sessions live by the real clock. */
function isFresh(db: Reader, token: string): boolean {
  const found = db.select({ at: sessions.createdAt }).from(sessions).where(eq(sessions.token, token)).get();
  return found !== undefined && Date.now() - found.at.getTime() < LATELY;
}
