import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { mayNotDecide, NOBODY } from '@tolvek/core/approval';
import { type Viewer, wordOf } from '@tolvek/core/people';
import { refused, said } from '@tolvek/words';
import {
  asked,
  decidesBy,
  heardAt,
  type Round,
  roundOf,
  type SeatRow,
  seatFor,
  stepOf,
  stepOfSeat,
} from '../approval/queries.ts';
import { aroundOf } from '../approval/seating.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed, Problem, wrongFields } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { type OpenRequest, openAtDesk } from '../request/open.ts';
import { type RequestRow, whoseIs } from '../request/queries.ts';
import { targetsFound } from './share.ts';

/** The seat that somebody may give to somebody else: their own, or, with the right to decide for others, one that is open. */
function seatToGive(db: Reader, round: Round, open: OpenRequest<RequestRow>, viewer: Viewer): SeatRow | null {
  const how = decidesBy(db, round, viewer, open.may('decide'));
  const own = seatFor(db, round, viewer, how);
  if (mayNotDecide(asked(stepOfSeat(round, own), own), viewer, whoseIs(open.request), how)) return null;
  const vacant =
    how === 'right'
      ? stepOf(round).seats.find(({ state, holder }) => state === 'open' && holder === NOBODY)
      : undefined;
  return vacant ?? own;
}

/** Whether somebody may ask somebody else to decide in place of whoever is asked. */
export const mayHand = (db: Reader, round: Round | undefined, open: OpenRequest<RequestRow>, viewer: Viewer): boolean =>
  round?.state === 'open' && seatToGive(db, round, open, viewer) !== null;

function opened(db: Reader, viewer: Viewer, number: string) {
  const open = openAtDesk(db, viewer, number, 'changing');
  const round = roundOf(db, open.request.id);
  if (round?.state !== 'open') throw new Problem(409, 'no-decision', refused('noDecision'));
  const seat = seatToGive(db, round, open, viewer);
  if (!seat) throw notAllowed(refused('cannotHand'));
  return { open, round, seat };
}

/**
 * Asks a group or one of the staff to decide in place of whoever is asked at a seat: they are written to, and the step has
 * its time anew.
 *
 * @throws Problem 403 for who neither decides nor may for others, 404, 409 where nothing waits for a decision, 422 for who
 *   could not decide: not here, asked for it themselves, asked or heard at this step already.
 */
export function handDecision(
  house: House,
  viewer: Viewer,
  number: string,
  { to }: BodyOf<'handDecision'>,
): AnswerOf<'handDecision'> {
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { tx, now } = work;
    const { open, round, seat } = opened(tx, viewer, number);
    const step = stepOf(round);
    const word = wordOf(to);
    const around = aroundOf(tx, open.request, now);
    const heard = heardAt(step);
    const others = step.seats.filter(({ id, state }) => id !== seat.id && state === 'open').map(({ holder }) => holder);
    const able = around
      .able(to, 'sometime')
      .filter((id) => !around.whose.includes(id) && !heard.includes(id) && !others.includes(wordOf({ person: id })));
    if (able.length === 0 || word === seat.holder)
      throw wrongFields([{ field: 'to', message: said('answers:cannotBeAsked'), fix: said('answers:askAnother') }]);
    const gives = [{ seat: seat.id, from: seat.holder, to: word }];
    changeRequest(work, open.request, { kind: 'handed', step: step.label, gives });
  });
  return { done: true };
}

/** Groups and staff who can be asked to decide instead, by part of their names. @throws Problem 403, 404, 409 */
export function deciderTargets(db: Reader, viewer: Viewer, number: string, find: string): AnswerOf<'deciderTargets'> {
  const { open } = opened(db, viewer, number);
  const whose = whoseIs(open.request);
  const { groups, people } = targetsFound(db, find);
  return { groups, people: people.filter(({ id }) => !whose.includes(id)) };
}
