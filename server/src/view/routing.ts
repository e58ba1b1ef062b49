import { type RoutingSaid, type RowReason, routedAgain, type SaidBy, saidThen } from '@tolvek/core/routing';
import type { Words } from '@tolvek/words';
import { releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { factsOfRequest } from '../request/facts.ts';
import { arrivedWith } from '../request/history.ts';
import type { OpenRequest } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';

/** How a request was routed, as pages tell of it. */
export interface RoutingTold {
  readonly row: number;
  /** What other rows have said, by their places. */
  readonly by: SaidBy;
  readonly isOtherwise: boolean;
  /** Why its row is there, in the words of whoever made the table. */
  readonly note: Words;
  readonly outcome: RoutingSaid;
  /** Why this row and no other; empty where that can’t be told any more. */
  readonly reasons: readonly RowReason[];
}

/** How a request was routed: null for things, and for what was never routed. */
export function routingOf(
  db: Reader,
  { request, register, design }: OpenRequest<RequestRow>,
  now: number,
): RoutingTold | null {
  const { routed } = request;
  if (routed === null) return null;
  // Kept with its reasons, before reasons were made from what the table had read.
  if ('reasons' in routed) return { ...routed, by: {}, note: routed.reasons.find((each) => each.won)?.note ?? '' };
  const chosen = design.routing.rows[routed.row - 1];
  const facts = factsOfRequest(db, request, register, now);
  const { route } = releaseById(db, request.releaseId);
  const again = routedAgain(route, routed, design.fields, () => arrivedWith(db, request), facts);
  return {
    ...{ row: routed.row, by: routed.by ?? {} },
    isOtherwise: chosen === undefined,
    note: chosen ? chosen.note : '',
    outcome: saidThen(design.routing, routed),
    reasons: again?.reasons ?? [],
  };
}
