import { eq, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { registers } from './tables.ts';

const keyed = prepared((db) =>
  db
    .select()
    .from(registers)
    .where(eq(registers.key, sql.placeholder('key')))
    .prepare(),
);

export const registerByKey = (db: Reader, key: string): RegisterRow | undefined => keyed(db).get({ key });

export type RegisterRow = typeof registers.$inferSelect;

export const register = prepared((db) =>
  db
    .select()
    .from(registers)
    .where(eq(registers.id, sql.placeholder('id')))
    .prepare(),
);

export function registerById(db: Reader, id: string): RegisterRow {
  const found = register(db).get({ id });
  if (!found) throw new Error(`No register ${id}.`);
  return found;
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
