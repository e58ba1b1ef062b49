import type { ApprovalPath } from '@tolvek/core/approval';
import type { Again } from '@tolvek/core/door';
import type { Happening } from '@tolvek/core/request';
import { releaseById } from '../form/queries.ts';
import { membersOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { by, type Work } from '../platform/work.ts';
import { registerById, stageWithRole } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { slotsOfRequest } from '../request/facts.ts';
import type { RequestRow, ShownRow } from '../request/queries.ts';
import { type Round, roundOf } from './queries.ts';

/**
 * Does with a request anew what its door wants when whoever asked has changed answers: it is routed as if it had come
 * with them, and decided by whom its row asks. What is finished stays so, and its due date is what it was.
 */
export function askAnew(work: Work, changed: RequestRow, again: readonly Again[] = []): RequestRow {
  const { tx } = work;
  if (again.length === 0 || changed.phase === 'finished' || changed.routed === null) return changed;
  const { route, pathFor } = releaseById(tx, changed.releaseId);
  const register = registerById(tx, changed.registerId);
  const slots = slotsOfRequest(tx, changed, register);
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

type Changed = Extract<Happening, { kind: 'values' }>;

/** Changes by which nobody says anything new: who decides is not asked again by them. */
const NO_NEWS: ReadonlySet<Changed['why']> = new Set(['day', 'numbered', 'recomputed', 'merged', 'pointed']);

/**
 * The fields by whose change who decides is asked again just now: those that the path of its decision names, once somebody
 * has said something at it.
 */
export const asksWhenChanged = (db: Reader, request: ShownRow, round: Round | undefined): readonly string[] =>
  pathHeard(db, request, round)?.again ?? [];

/** The path that a round was planned by, as long as it counts and once somebody has said something at it. */
function pathHeard(db: Reader, request: ShownRow, round: Round | undefined): ApprovalPath | undefined {
  if (request.phase === 'finished') return undefined;
  if (!round || round.state === 'refused' || round.state === 'withdrawn') return undefined;
  const isHeard =
    round.state === 'approved' || round.steps.some(({ seats }) => seats.some(({ decidedAt }) => decidedAt));
  return isHeard ? pathOf(db, request, round) : undefined;
}

/** The path that a round was planned by. */
function pathOf(db: Reader, { releaseId }: Pick<ShownRow, 'releaseId'>, { steps }: Round): ApprovalPath | undefined {
  const keys = new Set(steps.map(({ key }) => key));
  const { paths } = releaseById(db, releaseId).release.design.approval;
  return paths.find((path) => path.steps.some(({ id }) => keys.has(id)));
}

/** Asks who decides again, as a field changed that the path of the decision names: by the path that fits the answers now. */
export function askWhenChanged(work: Work, request: ShownRow, { changes, why }: Changed): ShownRow | undefined {
  const { tx } = work;
  if (NO_NEWS.has(why)) return undefined;
  const before = pathHeard(tx, request, roundOf(tx, request.id));
  const again = before?.again ?? [];
  if (!changes.some(({ field }) => again.includes(field))) return undefined;
  const register = registerById(tx, request.registerId);
  const { route, pathFor } = releaseById(tx, request.releaseId);
  const slots = slotsOfRequest(tx, request, register);
  const path = pathFor(route(slots).outcome.path ?? before?.id ?? null, slots);
  if (!path) return undefined;
  const { key } = stageWithRole(register, 'deciding');
  return changeRequest(by(work, null), request, { kind: 'decided-anew', from: request.stage, to: key, path });
}

/** Whether everybody who decides is still asked, at the steps that are asked now: they decide on what it says now. */
function isUndecided({ tx }: Work, { id }: RequestRow, { steps }: ApprovalPath): boolean {
  const round = roundOf(tx, id);
  if (round?.state !== 'open') return false;
  const isSame = round.steps.map(({ key }) => key).join(' ') === steps.map((step) => step.id).join(' ');
  const seats = round.steps.flatMap((step) => step.seats);
  return isSame && seats.every(({ state }) => state !== 'approved' && state !== 'refused');
}
