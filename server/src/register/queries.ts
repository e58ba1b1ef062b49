import type { RequestParties } from '@tolvek/core/access';
import { eq, getTableColumns, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { registers, requests } from './tables.ts';

export type RequestRow = typeof requests.$inferSelect;
export type RegisterRow = typeof registers.$inferSelect;

/**
 * A request without the routing's reasons: by far the longest column, read only where one request
 * is explained.
 */
const { routed: _, ...shown } = getTableColumns(requests);
export const SHOWN_COLUMNS = shown;
export type ShownRow = Omit<RequestRow, 'routed'>;

const register = prepared((db) =>
  db
    .select()
    .from(registers)
    .where(eq(registers.id, sql.placeholder('id')))
    .prepare(),
);
const numbered = prepared((db) =>
  db
    .select()
    .from(requests)
    .where(eq(requests.number, sql.placeholder('number')))
    .prepare(),
);
const byId = prepared((db) =>
  db
    .select()
    .from(requests)
    .where(eq(requests.id, sql.placeholder('id')))
    .prepare(),
);

export function registerById(db: Reader, id: string): RegisterRow {
  const found = register(db).get({ id });
  if (!found) throw new Error(`No register ${id}.`);
  return found;
}

export const requestByNumber = (db: Reader, number: string): RequestRow | undefined =>
  numbered(db).get({ number: number.toUpperCase() });

export const requestById = (db: Reader, id: string): RequestRow | undefined => byId(db).get({ id });

export const partiesIn = (
  request: Pick<RequestRow, 'requesterId' | 'handlerId' | 'team' | 'approverGroup'>,
  register: RegisterRow,
): RequestParties => ({
  requesterId: request.requesterId,
  handlerId: request.handlerId,
  team: request.team,
  approverGroup: request.approverGroup,
  deskGroups: register.deskGroups,
});

export function partiesOf(db: Reader, requestId: string): { number: string; parties: RequestParties } | null {
  const request = requestById(db, requestId);
  return request ? { number: request.number, parties: partiesIn(request, registerById(db, request.registerId)) } : null;
}

export function stageOf(register: RegisterRow, key: string) {
  const stage = register.stages.find((each) => each.key === key);
  if (!stage) throw new Error(`No stage “${key}” in register “${register.name}”.`);
  return stage;
}

export function stageWithRole(register: RegisterRow, role: 'deciding' | 'refused' | 'done') {
  const stage = register.stages.find((each) => each.role === role);
  if (!stage) throw new Error(`Register “${register.name}” has no stage for “${role}”.`);
  return stage;
}

/**
 * Whether a register holds things other forms point to: they are in use from the start, and nothing
 * is due.
 */
export const holdsThings = (register: Pick<RegisterRow, 'stages'>): boolean =>
  !register.stages.some((stage) => stage.phase === 'arrived' && !stage.role);

export function firstStage(register: RegisterRow) {
  // Things have no stage to arrive in: they are in use at once.
  const stage =
    register.stages.find((each) => each.phase === 'arrived' && !each.role) ??
    register.stages.find((each) => each.role === 'done');
  if (!stage) throw new Error(`Register “${register.name}” has no stage to arrive in.`);
  return stage;
}
