import type { TakenIn } from '@tolvek/core/intake';
import { eq } from 'drizzle-orm';
import { v7 as uuid } from 'uuid';
import type { ReleaseRow } from '../form/queries.ts';
import type { Transaction } from '../platform/database.ts';
import { firstStage, type RegisterRow, stageWithRole } from '../register/queries.ts';
import { registers } from '../register/tables.ts';
import { requests } from './tables.ts';

interface NewRequest {
  readonly number: string;
  readonly register: RegisterRow;
  readonly release: Pick<ReleaseRow, 'id' | 'formId'>;
  readonly doorId: string;
  readonly requesterId: string;
  readonly taken: TakenIn;
  readonly now: number;
  readonly trial: boolean;
}

/** The number of the next request of a register; it is never given again. */
export function nextNumber(tx: Transaction, { id, prefix, nextNumber: next }: RegisterRow): string {
  tx.update(registers)
    .set({ nextNumber: next + 1 })
    .where(eq(registers.id, id))
    .run();
  return `${prefix}-${String(next).padStart(5, '0')}`;
}

/**
 * Stores what was taken in as a request: to be decided when a decision is needed, at the first
 * stage otherwise.
 */
export function storeRequest(
  tx: Transaction,
  { number, register, release, doorId, requesterId, taken, now, trial }: NewRequest,
): { id: string; phase: string } {
  const { values, routed, approval, deadline } = taken;
  const stage = approval ? stageWithRole(register, 'deciding') : firstStage(register);
  const id = uuid();
  tx.insert(requests)
    .values({
      id,
      number,
      registerId: register.id,
      formId: release.formId,
      releaseId: release.id,
      doorId,
      requesterId,
      stage: stage.key,
      phase: stage.phase,
      team: routed.outcome.team,
      handlerId: null,
      approverGroup: approval?.group ?? null,
      priority: routed.outcome.priority,
      values,
      routed,
      deadline,
      due: deadline.due,
      createdAt: now,
      updatedAt: now,
      finishedAt: stage.phase === 'finished' ? now : null,
      trial,
    })
    .run();
  return { id, phase: stage.phase };
}
