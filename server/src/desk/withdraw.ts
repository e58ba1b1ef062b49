import type { AnswerOf } from '@tolvek/contract';
import { mayStill } from '@tolvek/core/door';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { doorOf } from '../door/queries.ts';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed, notFound, Problem } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { isOwnOf, requestByNumber, type ShownRow } from '../request/queries.ts';

/** Where a request goes that whoever asked withdraws; null while they may not, or no more. */
export function withdrawsTo(db: Reader, request: ShownRow): string | null {
  const until = doorOf(db, request)?.design.withdraws;
  if (!until || !mayStill(until, request.phase)) return null;
  return registerById(db, request.registerId).stages.find(({ role }) => role === 'withdrawn')?.key ?? null;
}

/**
 * Withdraws a request of one’s own: whoever works on it hears of it, a decision that waited is withdrawn, and its
 * deadlines end. What was sent stays.
 *
 * @throws Problem 404 for a request of somebody else, 403 for who may not write any more, 409 when it is too late or
 *   was changed meanwhile
 */
export function withdrawOwn(
  house: House,
  viewer: Viewer,
  input: { readonly number: string; readonly version: number; readonly reason: string },
): AnswerOf<'withdrawMine'> {
  return write(house, (work) => {
    const { tx } = work;
    const request = requestByNumber(tx, input.number.toUpperCase());
    if (!request || !isOwnOf(request, viewer.personId)) throw notFound('request');
    if (!personById(tx, viewer.personId)?.active) throw notAllowed(refused('cannotWrite'));
    const to = withdrawsTo(tx, request);
    if (to === null) throw new Problem(409, 'stage', refused('tooLateToWithdraw'));
    const change = { kind: 'withdrawn', from: request.stage, to, reason: input.reason.trim() } as const;
    return { version: changeRequest(by(work, viewer.personId), request, change, input.version).version };
  });
}
