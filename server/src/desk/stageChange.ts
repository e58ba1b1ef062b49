import { pauseDeadline, resumeDeadline } from '@tolvek/core/deadline';
import type { Stage } from '@tolvek/core/register';
import { calendarOf } from '../calendar/queries.ts';
import { dropTimers, resetTimers } from '../deadline/timers.ts';
import { releaseById } from '../form/queries.ts';
import type { Transaction } from '../platform/database.ts';
import { claim } from '../request/claims.ts';
import type { RequestRow } from '../request/queries.ts';

/** What a change of stage does to the request, its deadline and its timers. */
export function stageChange(
  tx: Transaction,
  request: RequestRow,
  from: Stage,
  to: Stage,
  now: number,
): Partial<RequestRow> {
  const { deadline: plan } = releaseById(tx, request.releaseId).release.design;
  const calendar = calendarOf(tx, plan.calendar);
  let { deadline } = request;
  if (to.phase === 'paused') deadline = pauseDeadline(deadline, now);
  else if (from.phase === 'paused') deadline = resumeDeadline(deadline, calendar, now);
  if (to.phase === 'finished') dropTimers(tx, request.id);
  else if (deadline !== request.deadline || from.phase === 'finished') resetTimers(tx, request.id, deadline, plan);
  if (!request.trial && (to.phase === 'finished') !== (from.phase === 'finished'))
    claim(tx, { ...request, phase: to.phase }, releaseById(tx, request.releaseId).release.design, request.values);
  return {
    stage: to.key,
    phase: to.phase,
    deadline,
    due: deadline.due,
    finishedAt: to.phase === 'finished' ? now : null,
  };
}
