import { releaseById } from '../form/queries.ts';
import type { Follower } from '../request/change.ts';
import { dropTimers, resetTimers } from './timers.ts';

/** Timers follow the deadline of a request: set when it arrives or is moved, dropped when it ends. */
export const followDeadlines: Follower = ({ tx }, request, change, before) => {
  if (request.trial || !['arrived', 'stage', 'decided'].includes(change.kind)) return;
  if (request.phase === 'finished') {
    if (before) dropTimers(tx, request.id);
    return;
  }
  const isMoved = before && before.deadline === request.deadline && before.phase !== 'finished';
  if (!isMoved)
    resetTimers(tx, request.id, request.deadline, releaseById(tx, request.releaseId).release.design.deadline);
};
