import type { AnswerOf } from '@tolvek/contract';
import { rightsAt, type Viewer } from '@tolvek/core/people';
import { refused, said, type Words } from '@tolvek/words';
import { and, count, desc, eq, getTableColumns, inArray, isNotNull, lt, ne, or, sql } from 'drizzle-orm';
import { roundOf } from '../approval/queries.ts';
import { letGoOfFiles } from '../files/commands.ts';
import { uploads } from '../files/tables.ts';
import { GATHERING, LEFT, notices } from '../notice/tables.ts';
import { knowsOf } from '../notice/told.ts';
import { personNamed } from '../people/queries.ts';
import { adding } from '../platform/adding.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { AT_ONCE } from '../platform/kept.ts';
import { newId } from '../platform/newId.ts';
import { notFound, Problem, staleVersion } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { holdsThings, registerNamed } from '../register/queries.ts';
import { bringBack, deleteRequests } from '../request/change.ts';
import { laidOf } from '../request/layBy.ts';
import { mergedInto } from '../request/merged.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { type RequestRow, requestById } from '../request/queries.ts';
import { deletedRequests, history, pointers } from '../request/tables.ts';
import { openTo } from './openTo.ts';

/** The requests whose references point to one, besides itself. */
const pointingTo = (db: Reader, id: string): readonly string[] => [
  ...mergedInto(db, id).map(({ requestId }) => requestId),
  ...db
    .selectDistinct({ id: pointers.requestId })
    .from(pointers)
    .where(and(eq(pointers.targetId, id), ne(pointers.requestId, id)))
    .all()
    .map((row) => row.id),
];

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
 * Deletes a request. That it was there, and who deleted it when and why, is kept for good; all there was of it for 30 days.
 *
 * @throws Problem 403 for who lacks the right, 404, 409 where other requests point to it, 412 when somebody was faster.
 */
export function deleteRequest(
  house: House,
  viewer: Viewer,
  { number, version, reason }: { readonly number: string; readonly version: number; readonly reason: string },
): AnswerOf<'deleteRequest'> {
  return write(house, (work) => {
    const { tx, now, effects } = work;
    const { request } = openTo(tx, viewer, number, 'delete');
    if (request.version !== version) throw staleVersion();
    const pointing = pointingTo(tx, request.id);
    if (pointing.length > 0) throw new Problem(409, 'pointed-to', refused('pointedTo', { number }));
    const { registerId, id: requestId } = request;
    const laid = laidOf(tx, requestId);
    deleteRequests(work, [requestId], true);
    const id = newId();
    addDeleted(tx, { id, number: request.number, registerId, at: now, by: viewer.personId, reason, requestId, laid });
    effects.changed.add(requestId);
    return { id };
  });
}

/** How long what was deleted can be put back, ms. */
const PUT_BACK_FOR = 30 * 24 * 3_600_000;

type DeletedRow = typeof deletedRequests.$inferSelect;
/** What was deleted and can be put back: all there was of it is kept. */
type LaidRow = DeletedRow & { readonly requestId: string; readonly laid: NonNullable<DeletedRow['laid']> };

/** Something that was deleted, for whoever deleted it or sets up its register. @throws Problem 404, 409 where it is gone for good */
function laidFor(db: Reader, viewer: Viewer, id: string): LaidRow {
  const row = db.select().from(deletedRequests).where(eq(deletedRequests.id, id)).get();
  const mayBack = row && (row.by === viewer.personId || rightsAt(viewer, row.registerId).includes('configure'));
  if (!row || !mayBack) throw notFound('request');
  const { requestId, laid } = row;
  if (requestId === null || laid === null)
    throw new Problem(409, 'gone', refused('goneForGood', { number: row.number }));
  return { ...row, requestId, laid };
}

/**
 * Puts back a request that was deleted. Nobody is told, and nothing rings that was missed.
 *
 * @throws Problem 404, 409 where it is gone for good, where another has by now what no two may have, or where something is
 *   gone that it needs.
 */
export function putBackRequest(house: House, viewer: Viewer, id: string): AnswerOf<'putBackRequest'> {
  return write(house, (work) => {
    const { tx, now } = work;
    const { requestId, laid, number, at } = laidFor(tx, viewer, id);
    try {
      bringBack(work, requestId, laid, at);
    } catch (error) {
      if (!isLost(error)) throw error;
      throw new Problem(409, 'gone', refused('needsGone', { number }));
    }
    tx.update(deletedRequests)
      .set({ laid: null, putBackAt: now, putBackBy: viewer.personId })
      .where(eq(deletedRequests.id, id))
      .run();
    return { number };
  });
}

/** Whether something that is referred to is not there. */
const isLost = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && 'code' in error && error.code === 'SQLITE_CONSTRAINT_FOREIGNKEY';

/** Deletes for good what could still be put back, with its files. @throws Problem 404, 409 where it is gone already */
export function deleteForGood(house: House, viewer: Viewer, id: string): AnswerOf<'deleteForGood'> {
  write(house, ({ tx }) => {
    const { requestId } = laidFor(tx, viewer, id);
    forgetLaid(tx, [id], [requestId]);
  });
  return { done: true };
}

function forgetLaid(tx: Transaction, ids: readonly string[], requestIds: readonly string[]): void {
  letGoOfFiles(tx, requestIds);
  tx.update(deletedRequests)
    .set({ laid: null })
    .where(inArray(deletedRequests.id, [...ids]))
    .run();
}

/** Forgets what was deleted too long ago to be put back, some of it at once; returns how many. */
export function forgetDeleted(tx: Transaction, now: number): number {
  const old = tx
    .select({ id: deletedRequests.id, requestId: deletedRequests.requestId })
    .from(deletedRequests)
    .where(and(isNotNull(deletedRequests.laid), lt(deletedRequests.at, now - PUT_BACK_FOR)))
    .limit(AT_ONCE)
    .all();
  if (old.length === 0) return 0;
  forgetLaid(
    tx,
    old.map(({ id }) => id),
    old.flatMap(({ requestId }) => requestId ?? []),
  );
  return old.length;
}

/** Lines that are shown. */
const SHOWN = 100;

/** The requests of a register that were deleted, the newest first. @throws Problem 404 */
export function deletedIn(db: Reader, key: string): AnswerOf<'deletedIn'> {
  const { id } = registerNamed(db, key);
  return {
    deleted: db
      .select({ ...getTableColumns(deletedRequests), laid: sql<number>`laid is not null` })
      .from(deletedRequests)
      .where(eq(deletedRequests.registerId, id))
      .orderBy(desc(deletedRequests.at), desc(deletedRequests.id))
      .limit(SHOWN)
      .all()
      .map(({ id, number, at, by, reason, laid, putBackAt, putBackBy }) => ({
        ...{ id, number, at: iso(at), by: personNamed(db, by), reason },
        until: laid ? iso(at + PUT_BACK_FOR) : null,
        putBack: putBackAt && putBackBy ? { at: iso(putBackAt), by: personNamed(db, putBackBy) } : null,
      })),
  };
}
