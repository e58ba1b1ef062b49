import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { desc, eq } from 'drizzle-orm';
import { roundOf, stepOf } from '../approval/queries.ts';
import { openTo } from '../desk/openTo.ts';
import { sentByHand } from '../notice/byHand.ts';
import { noticesOf } from '../notice/plan.ts';
import { notices } from '../notice/tables.ts';
import { knowsOf } from '../notice/told.ts';
import { groupNames, namesOf } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { RequestRow } from '../request/queries.ts';
import { deadlinesComing } from './deadlines.ts';
import { emailTold } from './emailTold.ts';

/** So many are listed. */
const LISTED = 200;

/** When whoever decides is reminded, and what their silence will mean. */
function decisionComing(db: Reader, request: RequestRow) {
  const round = roundOf(db, request.id);
  if (round?.state !== 'open' || request.phase === 'paused') return [];
  const { label, limit, ringAt, dueAt } = stepOf(round);
  if (!limit || ringAt === null || dueAt === null) return [];
  return [
    ...(ringAt < dueAt ? [{ at: ringAt, about: label, what: said('hearing:coming.remind') }] : []),
    { at: dueAt, about: label, what: said(`hearing:coming.${limit.silence}`) },
  ];
}

/**
 * Who was written to about a request, and what became of it; who was not, as they want none of its kind or nothing was left
 * to tell; and what will be told while nobody does anything. What was written is not told: it held what its reader may read.
 *
 * @throws Problem 404 for who may not read the request, 403 for who may not see its history.
 */
export function requestEmails(db: Reader, viewer: Viewer, number: string, now: number): AnswerOf<'requestEmails'> {
  const open = openTo(db, viewer, number, 'history');
  const { request } = open;
  const rows = db
    .select()
    .from(notices)
    .where(eq(notices.requestId, request.id))
    .orderBy(desc(notices.createdAt), desc(notices.id))
    .limit(LISTED + 1)
    .all();
  const names = namesOf(
    db,
    rows.flatMap(({ personId }) => personId ?? []),
  );
  const plan = noticesOf(db, request);
  const isTold = knowsOf(db, open);
  const emails = rows
    .slice(0, LISTED)
    .filter(({ rule }) => isTold(rule))
    .map((notice) => emailTold(notice, { plan, names }));
  const coming = [...deadlinesComing(db, open, groupNames(db)), ...decisionComing(db, request)]
    .sort((a, b) => a.at - b.at)
    .map(({ at, ...told }) => ({ ...told, at: iso(at) }));
  return { emails, more: rows.length > LISTED, byHand: [...sentByHand(db, open, now)], coming };
}
