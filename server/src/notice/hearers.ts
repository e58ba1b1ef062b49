import { planningOf } from '../form/queries.ts';
import { membersOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { registerById, stageOf } from '../register/queries.ts';
import type { ShownRow } from '../request/queries.ts';

const idsOf = (db: Reader, group: string): readonly string[] => membersOf(db, group).map(({ id }) => id);

/** The group that hears of delays, by key. */
export const leadsGroup = (db: Reader, request: ShownRow): string =>
  planningOf(db, request).release.design.deadline.leads;

/** Who hears of delays, besides whoever works on it. */
export const leadsOf = (db: Reader, request: ShownRow): readonly string[] => idsOf(db, leadsGroup(db, request));

/** Whoever works on it: its handler, or its team. */
export const workingOn = (db: Reader, request: ShownRow): readonly string[] =>
  request.handlerId ? [request.handlerId] : request.team === null ? [] : idsOf(db, request.team);

/** Whether a decision waits. */
export const isDeciding = (db: Reader, request: ShownRow): boolean =>
  stageOf(registerById(db, request.registerId), request.stage).role === 'deciding';
