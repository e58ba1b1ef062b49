import type { ApprovalPath } from '@tolvek/core/approval';
import type { Again } from '@tolvek/core/door';
import { requestSlots } from '@tolvek/core/register';
import { releaseById } from '../form/queries.ts';
import { membersOf } from '../people/queries.ts';
import { by, type Work } from '../platform/work.ts';
import { registerById, stageWithRole } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { factsOfRequest } from '../request/facts.ts';
import type { RequestRow } from '../request/queries.ts';
import { roundOf } from './queries.ts';

/**
 * Does with a request anew what its door wants when whoever asked has changed answers: it is routed as if it had come
 * with them, and decided by whom its row asks. What is finished stays so, and its due date is what it was.
 */
export function askAnew(work: Work, changed: RequestRow, again: readonly Again[] = []): RequestRow {
  const { tx } = work;
  if (again.length === 0 || changed.phase === 'finished' || changed.routed === null) return changed;
  const { release, route, pathFor } = releaseById(tx, changed.releaseId);
  const register = registerById(tx, changed.registerId);
  const facts = factsOfRequest(tx, changed, register, changed.createdAt);
  const slots = requestSlots(release.design.fields, changed.values, facts);
  const { outcome } = route(slots);
  const path = pathFor(outcome.path, slots);
  // It follows from the answers, and nobody did it by hand.
  const own = by(work, null);
  let row = changed;
  if (again.includes('routing')) {
    const { team, priority, handlerId } = row;
    if (priority !== outcome.priority)
      row = changeRequest(own, row, { kind: 'priority', from: priority, to: outcome.priority, anew: true });
    if (team !== outcome.team) {
      row = changeRequest(own, row, { kind: 'team', from: team, to: outcome.team, anew: true });
      if (handlerId !== null && !membersOf(tx, outcome.team).some(({ id }) => id === handlerId))
        row = changeRequest(own, row, { kind: 'handler', from: handlerId, to: null });
    }
  }
  if (again.includes('decision') && path && !isUndecided(work, row, path)) {
    const { key } = stageWithRole(register, 'deciding');
    row = changeRequest(own, row, { kind: 'decided-anew', from: row.stage, to: key, path });
  }
  return row;
}

/** Whether everybody who decides is still asked, at the steps that are asked now: they decide on what it says now. */
function isUndecided({ tx }: Work, { id }: RequestRow, { steps }: ApprovalPath): boolean {
  const round = roundOf(tx, id);
  if (round?.state !== 'open') return false;
  const isSame = round.steps.map(({ key }) => key).join(' ') === steps.map((step) => step.id).join(' ');
  const seats = round.steps.flatMap((step) => step.seats);
  return isSame && seats.every(({ state }) => state !== 'approved' && state !== 'refused');
}
