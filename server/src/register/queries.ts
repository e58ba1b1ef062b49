import type { RequestParties } from '@tolvek/core/access';
import { eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { registers, requests } from './tables.ts';

export type RequestRow = typeof requests.$inferSelect;
export type RegisterRow = typeof registers.$inferSelect;

export function registerById(db: Reader, id: string): RegisterRow {
  const register = db.select().from(registers).where(eq(registers.id, id)).get();
  if (!register) throw new Error(`No register ${id}.`);
  return register;
}

export function requestByNumber(db: Reader, number: string): RequestRow | undefined {
  return db.select().from(requests).where(eq(requests.number, number.toUpperCase())).get();
}

export function requestById(db: Reader, id: string): RequestRow | undefined {
  return db.select().from(requests).where(eq(requests.id, id)).get();
}

export const partiesIn = (request: RequestRow, register: RegisterRow): RequestParties => ({
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

export function firstStage(register: RegisterRow) {
  const stage = register.stages.find((each) => each.phase === 'arrived' && !each.role);
  if (!stage) throw new Error(`Register “${register.name}” has no stage to arrive in.`);
  return stage;
}
