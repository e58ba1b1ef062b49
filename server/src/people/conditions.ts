import { and, eq } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import { profileConditions } from './tables.ts';

/** Remembers the conditions on profiles that the access plan of a register names, in force or as it is being written. */
export function nameConditions(
  tx: Transaction,
  { register, isDraft }: Pick<typeof profileConditions.$inferSelect, 'register' | 'isDraft'>,
  conditions: readonly string[],
): void {
  tx.delete(profileConditions)
    .where(and(eq(profileConditions.register, register), eq(profileConditions.isDraft, isDraft)))
    .run();
  for (const condition of new Set(conditions))
    tx.insert(profileConditions).values({ register, isDraft, condition }).run();
}
