import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { refused, said, type Words } from '@tolvek/words';
import { and, count, desc, eq, ne, or } from 'drizzle-orm';
import { roundOf } from '../approval/queries.ts';
import { uploads } from '../files/tables.ts';
import { GATHERING, LEFT, notices } from '../notice/tables.ts';
import { knowsOf } from '../notice/told.ts';
import { personNamed } from '../people/queries.ts';
import { adding } from '../platform/adding.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { Problem, staleVersion } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { holdsThings, registerNamed } from '../register/queries.ts';
import { deleteRequests } from '../request/change.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { type RequestRow, requestById } from '../request/queries.ts';
import { deletedRequests, history, pointers } from '../request/tables.ts';
import { openTo } from './openTo.ts';

/** The requests whose references point to one, besides itself. */
const pointingTo = (db: Reader, id: string): readonly string[] =>
  db
    .selectDistinct({ id: pointers.requestId })
    .from(pointers)
    .where(and(eq(pointers.targetId, id), ne(pointers.requestId, id)))
    .all()
    .map((row) => row.id);

/** What goes with a request that is deleted, in words. */
function whatGoes(db: Reader, open: OpenRequest<RequestRow>): readonly Words[] {
  const { request, register } = open;
  const countOf = (table: typeof uploads | typeof history, where: ReturnType<typeof and>): number =>
    db.select({ n: count() }).from(table).where(where).get()?.n ?? 0;
  const numbers: readonly (readonly ['files' | 'lines' | 'emails', number])[] = [
    ['files', countOf(uploads, eq(uploads.requestId, request.id))],
    ['lines', countOf(history, eq(history.requestId, request.id))],
    ['emails', emailsLeft(db, open)],
  ];
  return [
    said('deletion:answers'),
    ...numbers.flatMap(([what, n]) => (n > 0 ? [said(`deletion:${what}`, { count: n })] : [])),
    ...(roundOf(db, request.id)?.state === 'open' ? [said('deletion:decision')] : []),
    ...(request.phase !== 'finished' && request.due !== null ? [said('deletion:deadline')] : []),
    ...(request.requesterId !== null && !holdsThings(register) && !request.trial ? [said('deletion:requester')] : []),
  ];
}

/** How many emails about a request are on their way, as far as whoever looks may know of them. */
function emailsLeft(db: Reader, open: OpenRequest<RequestRow>): number {
  const knows = knowsOf(db, open);
  return db
    .select({ rule: notices.rule })
    .from(notices)
    .where(and(eq(notices.requestId, open.request.id), or(LEFT, GATHERING)))
    .all()
    .filter(({ rule }) => knows(rule)).length;
}

/** References that are named at most. */
const NAMED = 10;

/** What deleting a request would come to, and what stands against it. Nothing is deleted. @throws Problem 403, 404 */
export function deletionPlan(db: Reader, viewer: Viewer, number: string): AnswerOf<'deletionPlan'> {
  const open = openTo(db, viewer, number, 'delete');
  const pointing = pointingTo(db, open.request.id);
  const readable = pointing.slice(0, 200).flatMap((id) => {
    const request = requestById(db, id);
    const each = request && openRequest(db, request, viewer, 'list');
    return each?.relation.isDesk ? [{ number: each.request.number, subject: each.subject }] : [];
  });
  return {
    lines: [...whatGoes(db, open)],
    pointing: { count: pointing.length, some: readable.slice(0, NAMED) },
  };
}

const addDeleted = adding(deletedRequests);

/**
 * Deletes a request for good. That it was there, and who deleted it when and why, is kept.
 *
 * @throws Problem 403 for who lacks the right, 404, 409 where other requests point to it, 412 when somebody was faster.
 */
export function deleteRequest(
  house: House,
  viewer: Viewer,
  { number, version, reason }: { readonly number: string; readonly version: number; readonly reason: string },
): AnswerOf<'deleteRequest'> {
  write(house, (work) => {
    const { tx, now, effects } = work;
    const { request } = openTo(tx, viewer, number, 'delete');
    if (request.version !== version) throw staleVersion();
    const pointing = pointingTo(tx, request.id);
    if (pointing.length > 0) throw new Problem(409, 'pointed-to', refused('pointedTo', { number }));
    deleteRequests(work, [request.id]);
    const { registerId } = request;
    addDeleted(tx, { id: newId(), number: request.number, registerId, at: now, by: viewer.personId, reason });
    effects.changed.add(request.id);
  });
  return { done: true };
}

/** Lines that are shown. */
const SHOWN = 100;

/** The requests of a register that were deleted, the newest first. @throws Problem 404 */
export function deletedIn(db: Reader, key: string): AnswerOf<'deletedIn'> {
  const { id } = registerNamed(db, key);
  return {
    deleted: db
      .select()
      .from(deletedRequests)
      .where(eq(deletedRequests.registerId, id))
      .orderBy(desc(deletedRequests.at), desc(deletedRequests.id))
      .limit(SHOWN)
      .all()
      .map(({ number, at, by, reason }) => ({ number, at: iso(at), by: personNamed(db, by), reason })),
  };
}
