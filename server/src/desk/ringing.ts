import { calendarFor, FINISH, isPaused, type RingAct, ringsBefore, ruleOf } from '@tolvek/core/deadline';
import { eq } from 'drizzle-orm';
import { roundOf } from '../approval/queries.ts';
import { calendarOf } from '../calendar/queries.ts';
import { deadlineIn, deadlinesOf } from '../deadline/queries.ts';
import { timers } from '../deadline/tables.ts';
import { resetTimers } from '../deadline/timers.ts';
import { planningOf } from '../form/queries.ts';
import type { Work } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import type { RequestRow } from '../request/queries.ts';
import { pathNow } from './acting.ts';
import { handOver, teamsFor } from './commands.ts';
import { stageOnItsOwn } from './moves.ts';

/**
 * Lets a ring of a deadline happen: whoever is to hear of it does, what it does is done, and where it repeats it is set
 * again, from now on. One that its plan does not know, or whose deadline is over, does nothing.
 */
export function ringOf(work: Work, request: RequestRow, timer: typeof timers.$inferSelect): void {
  const { tx, now } = work;
  const { deadline: plan } = planningOf(tx, request).release.design;
  const rows = (): ReturnType<typeof deadlinesOf> => deadlinesOf(tx, request.id);
  const row = rows().find(({ id }) => id === timer.deadlineId);
  const rule = ruleOf(plan, row?.key ?? FINISH);
  const ring = rule?.rings.find(({ key }) => key === timer.ring);
  if (!rule || !ring || (row && row.state !== 'open')) return;
  const { key, at, days, again, tells, does } = ring;
  if (again !== undefined) tx.update(timers).set({ at: now }).where(eq(timers.id, timer.id)).run();
  // What comes too late to remind of anything, after a stop, tells nobody: what rings when it is due does.
  const isPast = ringsBefore(ring) && (row?.due ?? now) < now;
  const told = {
    deadline: rule.key,
    name: rule.name,
    at,
    ...(days === undefined ? {} : { days }),
    tells: tells.length > 0 && !isPast,
  };
  let is = changeRequest(work, request, { kind: 'rang', timer: key, ...told });
  for (const act of does) is = done(work, is, act);
  if (again === undefined) return;
  // What it has done may have ended it, or let it stand still.
  const still = rows().find(({ id }) => id === timer.deadlineId);
  const deadline = still && deadlineIn(still);
  if (still?.state === 'open' && deadline && !isPaused(deadline))
    resetTimers(tx, still, deadline, { rule, calendar: calendarOf(tx, calendarFor(plan, rule)) });
}

/** Does what a ring does, where it can be done as the request is; gives it as it is then. */
function done(work: Work, request: RequestRow, act: RingAct): RequestRow {
  const { tx, now } = work;
  if (request.phase === 'finished') return request;
  const register = registerById(tx, request.registerId);
  switch (act.do) {
    case 'priority':
      return act.to === request.priority
        ? request
        : changeRequest(work, request, { kind: 'priority', from: request.priority, to: act.to });
    case 'team':
      return act.team === request.team || !teamsFor(tx).some(({ key }) => key === act.team)
        ? request
        : handOver(work, request, act.team);
    case 'stage': {
      const isDecided = roundOf(tx, request.id)?.state === 'open';
      const to = isDecided ? undefined : stageOnItsOwn(tx, request, register, act.stage, now);
      return to ? changeRequest(work, request, { kind: 'stage', from: request.stage, to: to.key }) : request;
    }
    case 'decide': {
      const begun = pathNow(tx, request, register, act.path);
      return 'why' in begun ? request : changeRequest(work, request, begun);
    }
  }
}
