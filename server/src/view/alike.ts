import type { AnswerOf } from '@tolvek/contract';
import { seatsHeldBy, type Viewer } from '@tolvek/core/people';
import { and, asc, eq, inArray, ne } from 'drizzle-orm';
import { roundOf, stepOf } from '../approval/queries.ts';
import { approvalRounds, approvalSteps, seats } from '../approval/tables.ts';
import { personNamed } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { openAtDesk, openRequest } from '../request/open.ts';
import { requestById, whoseIs } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { whyNotDecide } from './decision.ts';
import { shownOf } from './sheet.ts';

/** So many are decided in one go at most. */
const MOST = 50;

/** What waits for somebody at the same step of the same form as one request does, the oldest first. @throws Problem 404 */
export function decisionsAlike(db: Reader, viewer: Viewer, number: string): AnswerOf<'decisionsAlike'> {
  const { request } = openAtDesk(db, viewer, number, 'sheet');
  const round = roundOf(db, request.id);
  if (round?.state !== 'open') return { alike: [] };
  const waiting = db
    .selectDistinct({ id: requests.id, at: approvalRounds.openedAt })
    .from(seats)
    .innerJoin(approvalSteps, eq(approvalSteps.id, seats.stepId))
    .innerJoin(approvalRounds, eq(approvalRounds.id, approvalSteps.roundId))
    .innerJoin(requests, eq(requests.id, approvalRounds.requestId))
    .where(
      and(
        ...[eq(seats.state, 'open'), inArray(seats.holder, [...seatsHeldBy(viewer)])],
        ...[eq(approvalSteps.key, stepOf(round).key), eq(requests.formId, request.formId)],
        ...[ne(requests.id, request.id), eq(requests.trial, false)],
      ),
    )
    .orderBy(asc(approvalRounds.openedAt), asc(requests.id))
    .limit(MOST)
    .all();
  return {
    alike: waiting.flatMap(({ id }) => {
      const [row, its] = [requestById(db, id), roundOf(db, id)];
      if (!row || !its || whyNotDecide(db, its, viewer, whoseIs(row)) !== null) return [];
      const open = openRequest(db, row, viewer, 'sheet');
      const { subject, seen } = open;
      return [
        { number: row.number, subject, requester: personNamed(db, row.requesterId), values: shownOf(open), seen },
      ];
    }),
  };
}
