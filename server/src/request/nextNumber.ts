import { eq } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { registers } from '../register/tables.ts';

/** The number of the next request of a register; it is never given again. */
export function nextNumber(tx: Transaction, { id, prefix, nextNumber: next }: RegisterRow): string {
  tx.update(registers)
    .set({ nextNumber: next + 1 })
    .where(eq(registers.id, id))
    .run();
  return `${prefix}-${String(next).padStart(5, '0')}`;
}
