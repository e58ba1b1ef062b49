import { and, eq } from 'drizzle-orm';
import { v7 as uuid } from 'uuid';
import { releaseById } from '../form/queries.ts';
import type { Follower } from '../request/change.ts';
import { approvals } from './tables.ts';

/** What arrives to be decided waits for its decision; what a coordinator frees waits for none. */
export const followApprovals: Follower = ({ tx, now, actor }, request, change) => {
  if (change.kind === 'arrived' && request.approverGroup !== null) {
    const { step } = releaseById(tx, request.releaseId).release.design.approval;
    const waits = { id: uuid(), requestId: request.id, label: step.label, group: request.approverGroup };
    tx.insert(approvals)
      .values({ ...waits, state: 'waiting' })
      .run();
  }
  if (change.kind === 'freed')
    tx.update(approvals)
      .set({ state: 'withdrawn', decidedBy: actor, decidedAt: now, comment: change.reason })
      .where(and(eq(approvals.requestId, request.id), eq(approvals.state, 'waiting')))
      .run();
  return undefined;
};
