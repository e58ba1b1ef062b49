import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { verdictProblem } from '@tolvek/core/approval';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { askAnew } from '../approval/anew.ts';
import { doorById } from '../door/queries.ts';
import { notify } from '../notice/notify.ts';
import { viewerOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { openLink, spendLink } from '../platform/links.ts';
import { notAllowed, notFound, Problem, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { agreedWith, closeProposal } from '../proposal/commands.ts';
import { type ProposalRow, proposalById, proposed, seenIn } from '../proposal/queries.ts';
import { changeRequest } from '../request/change.ts';
import { changeAnswers } from '../request/changeAnswers.ts';
import type { OpenRequest } from '../request/open.ts';
import { type RequestRow, requestById } from '../request/queries.ts';
import { openTo } from './openTo.ts';

interface Which {
  readonly number: string;
  readonly id: string;
}

/** @throws Problem 404 for a proposal of another request, 409 where it is closed by now */
function openProposal(db: Reader, request: RequestRow, id: string): ProposalRow {
  const proposal = proposalById(db, id);
  if (proposal?.requestId !== request.id) throw notFound('proposal');
  if (proposal.state !== 'open') throw new Problem(409, 'closed', refused('proposalClosed'));
  return proposal;
}

/** @throws Problem 403 for whoever sent it */
function notTheirOwn(proposal: ProposalRow, viewer: Viewer): void {
  if (proposal.personId === viewer.personId) throw notAllowed(refused('proposalOwn'));
}

/** Why somebody who may change a request can’t accept a change of it; null where they can. */
export function whyNotAccept(
  open: OpenRequest,
  proposal: ProposalRow,
  fields: readonly string[],
  viewer: Viewer,
): 'proposalOwn' | 'proposalHidden' | null {
  if (proposal.personId === viewer.personId) return 'proposalOwn';
  return fields.every((field) => open.readable.has(field)) ? null : 'proposalHidden';
}

/**
 * Accepts a change that somebody sent by a form: it counts from now on, as that form asks for it. `seen`: what was in view.
 *
 * @throws Problem 403 for whoever sent it, or may not see all of it; 409 where it is closed, or is another change by now, or
 *   can’t be made as it is
 */
export function acceptProposal(
  house: House,
  viewer: Viewer,
  { number, id, seen, comment }: Which & { readonly seen: string; readonly comment: string },
): AnswerOf<'acceptProposal'> {
  return write(house, (work) => accepted(work, viewer, { number, id, seen, comment }));
}

function accepted(
  work: Work,
  viewer: Viewer,
  { number, id, seen, comment }: Which & { readonly seen: string; readonly comment: string },
): AnswerOf<'acceptProposal'> {
  const { tx, now } = work;
  const open = openTo(tx, viewer, number, 'change');
  const proposal = openProposal(tx, open.request, id);
  const found = proposed(tx, open.request, proposal, now);
  if (!found) throw notFound('proposal');
  const why = whyNotAccept(open, proposal, found.questions, viewer);
  if (why) throw notAllowed(refused(why));
  if (seenIn(found.changes.filter(({ field }) => open.readable.has(field))) !== seen)
    throw new Problem(409, 'moved', refused('proposalMoved'));
  const [wrong] = found.problems;
  if (wrong)
    throw new Problem(
      409,
      'wrong',
      refused('proposalWrong', { why: open.readable.has(wrong.field) ? wrong.message : '' }),
    );
  closeProposal(by(work, viewer.personId), proposal, 'accepted');
  const { doorId, consent, consentIn } = proposal;
  const agreed = agreedWith(doorId, consent, consentIn);
  const stands = { why: 'updated', form: found.form, by: proposal.personId, ...agreed } as const;
  changeAnswers(work, viewer, found.open, { ...found.changing, why: stands });
  const after = requestById(tx, open.request.id);
  if (after && found.changes.length > 0) askAnew(work, after, doorById(tx, doorId)?.design.again);
  tell(work, viewer, proposal, { accepted: true, reason: comment.trim() });
  return { done: true };
}

/** Refuses a change that somebody sent by a form: everything stays as it was, and they hear why. */
export function refuseProposal(
  house: House,
  viewer: Viewer,
  { number, id, reason }: Which & { readonly reason: string },
): AnswerOf<'refuseProposal'> {
  return write(house, (work) => refusedBy(work, viewer, { number, id, reason }));
}

function refusedBy(
  work: Work,
  viewer: Viewer,
  { number, id, reason }: Which & { readonly reason: string },
): AnswerOf<'refuseProposal'> {
  const { request } = openTo(work.tx, viewer, number, 'change');
  const proposal = openProposal(work.tx, request, id);
  notTheirOwn(proposal, viewer);
  const form = proposed(work.tx, request, proposal, work.now)?.form ?? '';
  const here = by(work, viewer.personId);
  closeProposal(here, proposal, 'refused', reason.trim());
  changeRequest(here, request, { kind: 'proposal-refused', form, reason: reason.trim() });
  tell(work, viewer, proposal, { accepted: false, reason: reason.trim() });
  return { done: true };
}

/**
 * What the link in a letter about a change leads to, for whom it was sent to.
 *
 * @throws Problem 404 where it is gone, 403 for who may not come in any more, 410 where the link opens nothing any more
 */
export function openByLink(db: Reader, token: string, now: number) {
  const link = openLink(db, token, 'accept', now);
  const proposal = proposalById(db, link.targetId);
  const request = proposal && requestById(db, proposal.requestId);
  if (!proposal || !request) throw notFound('proposal');
  const viewer = viewerOf(db, link.personId);
  if (!viewer) throw notAllowed(refused('noLongerDecides'));
  if (proposal.state !== 'open') throw new Problem(410, 'closed', refused('proposalClosed'));
  return { link, proposal, request, viewer };
}

/** Accepts or refuses a change by the link in a letter: it stands for whom it was sent to, and works once. */
export function decideProposalByLink(
  house: House,
  token: string,
  { verdict, comment, seen }: BodyOf<'decideProposal'>,
): AnswerOf<'decideProposal'> {
  return write(house, (work) => {
    const { tx, now } = work;
    const { link, proposal, request, viewer } = openByLink(tx, token, now);
    const which = { number: request.number, id: proposal.id };
    if (verdict === 'approve') accepted(work, viewer, { ...which, seen, comment });
    else {
      const problem = verdictProblem(verdict, comment, 'seat');
      if (problem) throw wrongFields([problem]);
      refusedBy(work, viewer, { ...which, reason: comment });
    }
    spendLink(tx, link, now);
    return { accepted: verdict === 'approve', number: request.number };
  });
}

/** Takes back a change that one sent oneself. @throws Problem 404 for that of somebody else, 409 where it is closed */
export function endProposal(house: House, viewer: Viewer, id: string): AnswerOf<'endProposal'> {
  return write(house, (work) => {
    const proposal = proposalById(work.tx, id);
    const request = proposal?.personId === viewer.personId ? requestById(work.tx, proposal.requestId) : undefined;
    if (!proposal || !request) throw notFound('proposal');
    const form = proposed(work.tx, request, openProposal(work.tx, request, id), work.now)?.form ?? '';
    const here = by(work, viewer.personId);
    closeProposal(here, proposal, 'ended');
    changeRequest(here, request, { kind: 'proposal-ended', form });
    return { done: true };
  });
}

/** Tells whoever sent a change what became of it. */
function tell(
  work: Work,
  viewer: Viewer,
  { requestId, personId }: ProposalRow,
  what: { readonly accepted: boolean; readonly reason: string },
): void {
  const request = requestById(work.tx, requestId);
  if (request) notify(work, request, [personId], { kind: 'proposal', by: viewer.personId, ...what });
}
