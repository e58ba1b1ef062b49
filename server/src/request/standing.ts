import { wallClockAt, workingTimeBetween } from '@tolvek/core/deadline';
import type { Viewer } from '@tolvek/core/people';
import type { KnownStanding, RequestStanding, StandingViewer } from '@tolvek/core/register';
import { sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { formById, formsOf, releaseById } from '../form/queries.ts';
import { knownNames, knownOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import type { ShownRow } from './queries.ts';

const DECISIONS: Readonly<Record<string, RequestStanding['decision']>> = {
  ...{ open: 'waiting', approved: 'approved', refused: 'refused' },
};

/** How the last round of a decision stands. Approvals are an area above this one: asked by their names. */
const lastDecision = (db: Reader, requestId: string): string =>
  db.get<{ readonly state: string } | undefined>(
    sql`select state from approval_rounds where request_id = ${requestId} order by opened_at desc, id desc limit 1`,
  )?.state ?? '';

/** Where a stored request stands, for conditions that ask. `now`: epoch ms. */
export function standingOf(db: Reader, request: ShownRow, now: number): RequestStanding {
  const { design } = releaseById(db, request.releaseId).release;
  const calendar = calendarOf(db, design.deadline.calendar);
  const at = (ms: number | null): string | null => (ms === null ? null : wallClockAt(ms, calendar.zone));
  const until = request.finishedAt ?? now;
  return {
    ...{
      number: request.number,
      form: formById(db, request.formId)?.key ?? '',
      stage: request.stage,
      phase: request.phase,
    },
    ...{ team: request.team, handler: request.handlerId, priority: request.priority, trial: request.trial },
    arrived: wallClockAt(request.createdAt, calendar.zone),
    ...{ due: at(request.due), finished: at(request.finishedAt) },
    age: Math.floor(workingTimeBetween(calendar, request.createdAt, until) / 60_000),
    decision: DECISIONS[lastDecision(db, request.id)] ?? null,
  };
}

/** What of that a change of the request writes: read from its row alone, with its form where a condition asks for it. */
export const writtenOf = (db: Reader, request: ShownRow, condition: string): RequestStanding => ({
  number: request.number,
  form: condition.includes('form') ? (formById(db, request.formId)?.key ?? '') : '',
  ...{ stage: request.stage, phase: request.phase, trial: request.trial },
  ...{ team: request.team, handler: request.handlerId, priority: request.priority },
  ...{ arrived: '', due: null, finished: null, age: 0, decision: null },
});

/** Who looks, as conditions know them. */
export const meIn = (db: Reader, { personId, groups }: Viewer): StandingViewer => ({
  ...knownOf(db, personId),
  ...{ person: personId, groups },
});

/** What the names are called that conditions about requests of a register use. */
export const knownStanding = (db: Reader, register: Pick<RegisterRow, 'id' | 'stages'>): KnownStanding => ({
  ...knownNames(db),
  stages: register.stages,
  forms: formsOf(db, register.id).map(({ key, draft }) => ({ key, label: draft.title })),
});
