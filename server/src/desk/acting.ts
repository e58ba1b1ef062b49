import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { NamedAction } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import type { Happening } from '@tolvek/core/request';
import { refused, said, type Words } from '@tolvek/words';
import { roundOf, stepOf } from '../approval/queries.ts';
import { releaseById } from '../form/queries.ts';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed, notFound, Problem } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { type RegisterRow, stageWithRole } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { slotsOfRequest } from '../request/facts.ts';
import { putFollower } from '../request/followers.ts';
import { type OpenRequest, openAtDesk, openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, requestByNumber } from '../request/queries.ts';
import { actionGiven, takePart } from '../request/takingPart.ts';

/** What is done with a request: of the actions that its words offer, by its id. */
interface Acting {
  readonly number: string;
  readonly action: string;
  readonly body: BodyOf<'act'>;
}

/**
 * Does what the words beside a request offer to whoever reads it at the desk, though they may change nothing else in it.
 *
 * @throws Problem 404 for what is not offered to them; 409 where it can’t be done now.
 */
export function act(house: House, viewer: Viewer, acting: Acting): AnswerOf<'act'> {
  write(house, (work) => {
    const open = openAtDesk(work.tx, viewer, acting.number, 'sheet');
    const asks = done(work, viewer, open, acting);
    if (!asks) return;
    const mine = by(work, viewer.personId);
    const question = { kind: 'said', to: 'desk', byRequester: false, ...asks } as const;
    const row = changeRequest(mine, open.request, question);
    // Whoever asks wants to know what is answered.
    if (putFollower(work.tx, row.id, viewer.personId, work.now)) changeRequest(mine, row, { kind: 'followed' });
  });
  return { done: true };
}

/** Does what the words beside one’s own request offer. */
export function actOnOwn(house: House, viewer: Viewer, acting: Acting): AnswerOf<'actOnMine'> {
  write(house, (work) => {
    const request = requestByNumber(work.tx, acting.number);
    if (!request || !isOwnOf(request, viewer.personId)) throw notFound('request');
    if (!personById(work.tx, viewer.personId)?.active) throw notAllowed(refused('cannotWrite'));
    const asks = done(work, viewer, openRequest(work.tx, request, viewer, 'following'), acting);
    const question = { kind: 'said', to: 'requester', byRequester: true } as const;
    if (asks) changeRequest(by(work, viewer.personId), request, { ...question, ...asks });
  });
  return { done: true };
}

/** Does what needs no words of its own; gives the question where one is asked. */
function done(work: Work, viewer: Viewer, open: OpenRequest<RequestRow>, { action: id, body }: Acting) {
  const action = actionGiven(open, id);
  if (action.does === 'ask' && body.does === 'ask') return { text: body.text, question: { to: askedBy(open, action) } };
  if (action.does === 'begin' && body.does === 'begin') {
    beginPath(by(work, viewer.personId), open, action);
    return null;
  }
  if (action.does !== 'take-part' || body.does !== 'take-part') throw notFound('action');
  takePart(work, viewer, open, action, body.takes);
  return null;
}

type Begins = Extract<NamedAction, { does: 'begin' }>;

/** Why a request can’t be decided by a path now: it is decided just now, was approved by it, or is over; null where it can. */
export function whyNotBegin(
  db: Reader,
  { request }: Pick<OpenRequest<RequestRow>, 'request'>,
  { path }: Pick<Begins, 'path'>,
): Words | null {
  if (request.phase === 'finished') return said('answers:beginFinished');
  const round = roundOf(db, request.id);
  if (round?.state === 'open') return said('answers:beginWaits', { step: stepOf(round).label, since: round.openedAt });
  const { paths } = releaseById(db, request.releaseId).release.design.approval;
  const keys = new Set(paths.find(({ id }) => id === path)?.steps.map(({ id }) => id));
  return round?.state === 'approved' && round.steps.some(({ key }) => keys.has(key))
    ? said('answers:beginApproved', { at: round.endedAt ?? round.openedAt })
    : null;
}

/** Has a request decided by a path. @throws Problem 409 where that can’t be now, or none of its steps applies. */
function beginPath(work: Work, open: OpenRequest<RequestRow>, action: Begins): void {
  const begun = pathNow(work.tx, open.request, open.register, action.path);
  if ('why' in begun) throw new Problem(409, 'no-decision', refused('cannotAct', { why: begun.why }));
  changeRequest(work, open.request, begun);
}

type Begun = Extract<Happening, { kind: 'sent-to-decide' }>;

/** What has a request decided by a path, by its id, now; or why that can’t be. */
export function pathNow(
  db: Reader,
  request: RequestRow,
  register: RegisterRow,
  id: string,
): Begun | { readonly why: Words } {
  const why = whyNotBegin(db, { request }, { path: id });
  if (why) return { why };
  const path = releaseById(db, request.releaseId).pathFor(id, slotsOfRequest(db, request, register));
  if (!path) return { why: said('answers:beginNoStep') };
  return { kind: 'sent-to-decide', from: request.stage, to: stageWithRole(register, 'deciding').key, path };
}

/** Whom a question is put to besides those who work on the request: who stands in a field, whether its reader may read that or not. */
function askedBy({ request }: OpenRequest, { asks }: Extract<NamedAction, { does: 'ask' }>): string | null {
  const person = own(request.values, asks);
  return typeof person === 'string' ? person : null;
}
