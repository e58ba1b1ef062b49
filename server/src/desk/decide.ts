import { mayNotDecide, type Verdict, verdictProblem } from '@tolvek/core/approval';
import type { Viewer } from '@tolvek/core/people';
import { and, eq } from 'drizzle-orm';
import { type ApprovalRow, approvalOf } from '../approval/queries.ts';
import { approvals } from '../approval/tables.ts';
import { viewerOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { openLink, spendLink } from '../platform/links.ts';
import { notAllowed, notFound, Problem, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { openAtDesk, openRequest } from '../request/open.ts';
import { type RequestRow, requestById } from '../request/queries.ts';

interface Decision {
  readonly verdict: Verdict;
  readonly comment: string;
  readonly key: string;
  /** What stands for the state that was read; null when the desk’s own commands decide. */
  readonly seen: string | null;
}

type Decided = { state: 'approved' | 'refused'; number: string };

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
        const { request } = openAtDesk(tx, viewer, input.number, 'changing');
        const approval = approvalOf(tx, request.id);
        if (!approval) throw new Problem(409, 'no-decision', 'Nothing to decide', 'This request needs no decision.');
        return carryOut(work, request, approval, viewer, input);
      },
    );
  });
}

/** What a decision link opens: the approval, its request and the approver the letter went to. */
export function openDecision(db: Reader, token: string, now: number) {
  const link = openLink(db, token, 'decide', now);
  const approval = db.select().from(approvals).where(eq(approvals.id, link.targetId)).get();
  const request = approval ? requestById(db, approval.requestId) : undefined;
  const viewer = viewerOf(db, link.personId);
  if (!approval || !request) throw notFound('What this link would decide');
  if (!viewer) throw notAllowed('The person this letter went to no longer decides here.');
  if (approval.state !== 'waiting')
    throw new Problem(
      410,
      'link-used',
      'Already decided',
      `Somebody has decided this already: it was ${approval.state}. Nothing is left to do.`,
    );
  return { link, approval, request, viewer };
}

/** Decides by the link in a letter: it stands for the approver it was sent to, and works once. */
export function decideByLink(house: House, input: Decision & { token: string }): Decided {
  return write(house, (work) => {
    const { tx, now } = work;
    return once(
      tx,
      { key: input.key, scope: `decide ${input.token}`, content: [input.verdict, input.comment], now },
      () => {
        const { link, approval, request, viewer } = openDecision(tx, input.token, now);
        const decided = carryOut(work, request, approval, viewer, input);
        spendLink(tx, link, now);
        return decided;
      },
    );
  });
}

function carryOut(work: Work, request: RequestRow, approval: ApprovalRow, viewer: Viewer, input: Decision): Decided {
  const { tx, now } = work;
  const objection = mayNotDecide(approval, viewer, request.requesterId);
  if (objection)
    throw approval.state === 'waiting'
      ? notAllowed(`${objection.reason} ${objection.fix}`)
      : new Problem(409, 'decided', 'Already decided', `${objection.reason} ${objection.fix}`);
  if (input.seen !== null && input.seen !== openRequest(tx, request, viewer, 'sheet').seen)
    throw new Problem(
      409,
      'changed-meanwhile',
      'Changed since you read it',
      'Somebody changed this request after you opened it. Nothing was decided, and your comment is still here. Read it again, then decide.',
    );
  const problem = verdictProblem(input.verdict, input.comment);
  if (problem) throw wrongFields([problem]);
  const comment = input.comment.trim();
  const state = input.verdict === 'approve' ? 'approved' : 'refused';
  const claimed = tx
    .update(approvals)
    .set({ state, decidedBy: viewer.personId, decidedAt: now, comment })
    .where(and(eq(approvals.id, approval.id), eq(approvals.state, 'waiting')))
    .run();
  if (claimed.changes === 0)
    throw new Problem(409, 'decided', 'Already decided', 'Somebody else decided this a moment ago.');

  const { verdict } = input;
  changeRequest(by(work, viewer.personId), request, { kind: 'decided', step: approval.label, verdict, comment });
  return { state, number: request.number };
}
