import type { Work } from '../platform/work.ts';
import { by } from '../platform/work.ts';
import { changeRequest, type Follower } from '../request/change.ts';
import type { ShownRow } from '../request/queries.ts';
import { setNobody } from './limits.ts';
import { roundOf, stepOf } from './queries.ts';
import { aroundOf, isStuck } from './seating.ts';

/** What can leave a step without anybody who could decide. */
const CAN_LACK: ReadonlySet<string> = new Set([
  ...([
    'arrived',
    'decided',
    'decided-anew',
    'sent-to-decide',
    'silent',
    'handed',
    'seat',
    'same-person',
    'answered',
  ] as const),
]);

/** A step at which too few are left who could decide is told of once, until somebody can again. */
export const followNobody: Follower = (work, request, change) => {
  if (CAN_LACK.has(change.kind)) raiseAlarm(work, request);
  return undefined;
};

/** Looks whether somebody can decide on what waits for a decision; who could help is told when nobody can any more. */
export function raiseAlarm(work: Work, request: ShownRow): void {
  const { tx, now } = work;
  if (request.trial) return;
  const round = roundOf(tx, request.id);
  if (round?.state !== 'open') return;
  const step = stepOf(round);
  const lacks = isStuck(round, aroundOf(tx, request, now));
  if (lacks === (step.nobodySince !== null)) return;
  setNobody(tx, step, lacks ? now : null);
  if (lacks) changeRequest(by(work, null), request, { kind: 'nobody-decides', step: step.label });
}
