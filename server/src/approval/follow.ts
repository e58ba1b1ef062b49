import { v7 as uuid } from 'uuid';
import { releaseById } from '../form/queries.ts';
import type { Follower } from '../request/change.ts';
import { approvals } from './tables.ts';

/** What arrives to be decided waits for its decision. */
export const followApprovals: Follower = ({ tx }, request, change) => {
  if (change.kind !== 'arrived' || request.approverGroup === null) return;
  const { step } = releaseById(tx, request.releaseId).release.design.approval;
  const waits = { id: uuid(), requestId: request.id, label: step.label, group: request.approverGroup };
  tx.insert(approvals)
    .values({ ...waits, state: 'waiting' })
    .run();
};
