import { type DecidesBy, leadsTo, mayNotDecide, type Verdict, verdictProblem } from '@tolvek/core/approval';
import type { Viewer } from '@tolvek/core/people';
import type { Stage } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import { and, eq } from 'drizzle-orm';
import {
  asked,
  decidesBy,
  type Round,
  roundOf,
  type SeatRow,
  seatById,
  seatFor,
  standingOf,
  stepOf,
  stepOfSeat,
} from '../approval/queries.ts';
import { seats } from '../approval/tables.ts';
import { viewerOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { openLink, spendLink } from '../platform/links.ts';
import { notAllowed, Problem, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { type RegisterRow, registerById } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { openAtDesk, openAtWork, openRequest } from '../request/open.ts';
import { type RequestRow, requestById, whoseIs } from '../request/queries.ts';

interface Decision {
  readonly verdict: Verdict | 'return';
  readonly comment: string;
  readonly key: string;
  /** What stands for the state that was read; null when the desk’s own commands decide. */
  readonly seen: string | null;
}

/** `more`: others have to decide besides, now or next. */
type Decided = { state: 'approved' | 'refused' | 'returned'; more: boolean; number: string };

/** Decides from the Floor. */
export function decide(house: House, viewer: Viewer, input: Decision & { number: string }): Decided {
  return write(house, (work) => {
    const { tx, now } = work;
    return once(
      tx,
      {
        key: input.key,
        scope: `decide ${viewer.personId}`,
        content: [input.number, input.verdict, input.comment],
        now,
      },
      () => {
        const open = openAtWork(tx, viewer, input.number, 'changing');
        const { request } = open;
        const round = roundOf(tx, request.id);
        if (!round) throw new Problem(409, 'no-decision', refused('noDecision'));
        const how = decidesBy(tx, round, viewer, open.may('decide'));
        const seat = seatFor(tx, round, viewer, how);
        return carryOut(work, request, { round, seat, way: 'desk', by: how }, viewer, input);
      },
    );
  });
}

/** What a decision link opens: the seat, its request and the approver the letter went to. */
export function openDecision(db: Reader, token: string, now: number) {
  const link = openLink(db, token, 'decide', now);
  const at = seatById(db, link.targetId);
  const request = at && requestById(db, at.round.requestId);
  const viewer = viewerOf(db, link.personId);
  if (!at || !request) throw new Problem(404, 'not-found', refused('decideLinkGone'));
  if (!viewer) throw notAllowed(refused('noLongerDecides'));
  if (at.seat.state !== 'open') throw new Problem(410, 'link-used', refused(ALREADY[outcomeAt(at)] ?? 'alreadyFreed'));
  return { link, ...at, request, viewer };
}

/** What an approver is told when it was decided before. */
const ALREADY: Readonly<Record<string, 'alreadyApproved' | 'alreadyRefused' | 'alreadyFreed'>> = {
  approved: 'alreadyApproved',
  refused: 'alreadyRefused',
};

/** What became of what a seat was asked: by its own verdict, or by those of others. */
const outcomeAt = ({ seat, round }: { readonly seat: SeatRow; readonly round: Round }): string =>
  seat.state === 'closed' ? (round.state === 'open' ? 'approved' : round.state) : seat.state;

/** Decides by the link in a letter: it stands for the approver it was sent to, and works once. */
export function decideByLink(house: House, input: Decision & { token: string }): Decided {
  return write(house, (work) => {
    const { tx, now } = work;
    return once(
      tx,
      { key: input.key, scope: `decide ${input.token}`, content: [input.verdict, input.comment], now },
      () => {
        const { link, seat, round, request, viewer } = openDecision(tx, input.token, now);
        const decided = carryOut(work, request, { round, seat, way: 'link', by: 'seat' }, viewer, input);
        // It works for one decision: whoever asks for more has not decided yet.
        if (decided.state !== 'returned') spendLink(tx, link, now);
        return decided;
      },
    );
  });
}

interface At {
  readonly round: Round;
  readonly seat: SeatRow;
  readonly way: 'desk' | 'link';
  readonly by: DecidesBy;
}

function carryOut(
  work: Work,
  request: RequestRow,
  { round, seat, way, by: how }: At,
  viewer: Viewer,
  input: Decision,
): Decided {
  const { tx, now } = work;
  const step = stepOfSeat(round, seat);
  const objection = mayNotDecide(asked(step, seat), viewer, whoseIs(request), how);
  if (objection)
    throw seat.state === 'open'
      ? notAllowed(refused('cannotDecide', objection))
      : new Problem(409, 'decided', refused('cannotDecide', objection));
  const open = openRequest(tx, request, viewer, 'sheet');
  if (input.seen !== null && input.seen !== open.seen)
    throw new Problem(409, 'changed-meanwhile', refused('changedBeforeDeciding'));
  const problem = verdictProblem(input.verdict, input.comment, how);
  if (problem) throw wrongFields([problem]);
  const comment = input.comment.trim();
  const { verdict } = input;
  if (verdict === 'return') {
    returnForMore(by(work, viewer.personId), request, step.label, comment);
    return { state: 'returned', more: false, number: request.number };
  }
  const state = verdict === 'approve' ? 'approved' : 'refused';
  const read = { version: request.version, fields: open.values.fields.map(({ key }) => key) };
  const claimed = tx
    .update(seats)
    .set({ ...{ state, way, comment }, decidedBy: viewer.personId, decidedAt: now, seen: input.seen, read })
    .where(and(eq(seats.id, seat.id), eq(seats.state, 'open')))
    .run();
  if (claimed.changes === 0) throw new Problem(409, 'decided', refused('someoneDecided'));

  const after = roundOf(tx, request.id);
  if (!after) throw new Error(`The round of ${request.number} is gone.`);
  const next = leadsTo(standingOf(round), standingOf(after));
  changeRequest(by(work, viewer.personId), request, {
    ...{ kind: 'decided', step: step.label, verdict, comment },
    ...(how === 'right' ? { insteadOf: seat.holder } : {}),
    leadsTo: next,
    ...(round.fromStage === null ? {} : { to: round.fromStage }),
  });
  return { state, more: next === 'same-step' || next === 'next-step', number: request.number };
}

/** Where a request waits while whoever asked has to answer: the first stage at which it stands still; none where there is none. */
export const whereItWaits = ({ stages }: Pick<RegisterRow, 'stages'>): Stage | undefined =>
  stages.find(({ phase, role, retired }) => phase === 'paused' && !role && !retired);

/** Whether a decision can be put back to whoever asked: they can be written to, and there is a stage at which it waits. */
export const canReturn = (request: Pick<RequestRow, 'requesterId' | 'phase'>, register: RegisterRow): boolean =>
  request.requesterId !== null && request.phase !== 'paused' && whereItWaits(register) !== undefined;

/** @throws Problem 409 where nobody could answer, it waits already, or has nowhere to wait. */
function returnForMore(work: Work, request: RequestRow, step: string, text: string): void {
  const register = registerById(work.tx, request.registerId);
  if (request.requesterId === null) throw new Problem(409, 'nobody-asked', refused('nobodyReads'));
  if (request.phase === 'paused') throw new Problem(409, 'stage', refused('returnedAlready'));
  const to = whereItWaits(register);
  if (!to) throw new Problem(409, 'stage', refused('nowhereToWait'));
  changeRequest(work, request, { kind: 'returned', step, from: request.stage, to: to.key, text });
}

/** Whether somebody may take back what they said in a round: at the step it is at, where others still have to say something. */
export function mayTakeBack(round: Round | undefined, viewer: Viewer): boolean {
  if (round?.state !== 'open') return false;
  return stepOf(round).seats.some(({ decidedBy }) => decidedBy === viewer.personId);
}

/** Takes back what somebody said at a step. @throws Problem 404, 409 where they said nothing, or something has followed. */
export function takeBackDecision(house: House, viewer: Viewer, number: string): { done: true } {
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { request } = openAtDesk(work.tx, viewer, number, 'changing');
    const round = roundOf(work.tx, request.id);
    if (!round || !mayTakeBack(round, viewer)) throw new Problem(409, 'decided', refused('nothingToTakeBack'));
    changeRequest(work, request, { kind: 'taken-back', step: stepOf(round).label });
  });
  return { done: true };
}
