import { createHash } from 'node:crypto';
import { and, eq, lt } from 'drizzle-orm';
import type { Transaction } from './database.ts';
import { Problem } from './problem.ts';
import { idempotency } from './tables.ts';

/** How long an answer is kept for a write that is sent again. */
const KEPT = 7 * 24 * 3_600_000;

export interface OnceInput {
  readonly key: string;
  /** Route and caller. */
  readonly scope: string;
  /** What was sent; the same key with something else is refused. */
  readonly content: unknown;
  readonly now: number;
}

/** Runs a write once per key, inside its transaction: sent again, it gets the first answer. */
export function once<T>(tx: Transaction, input: OnceInput, work: () => T): T {
  const fingerprint = createHash('sha256').update(JSON.stringify(input.content)).digest('hex');
  const earlier = tx
    .select()
    .from(idempotency)
    .where(and(eq(idempotency.scope, input.scope), eq(idempotency.key, input.key)))
    .get();
  if (earlier) {
    if (earlier.fingerprint !== fingerprint) {
      throw new Problem(
        422,
        'key-used',
        'Sent twice with different content',
        'This Idempotency-Key was already used for something else. Use a new key for a new request.',
      );
    }
    return earlier.answer as T;
  }
  const answer = work();
  tx.insert(idempotency)
    .values({ key: input.key, scope: input.scope, fingerprint, answer, createdAt: input.now })
    .run();
  return answer;
}

/** Forgets answers that are past keeping. */
export function forgetOldAnswers(tx: Transaction, now: number): void {
  tx.delete(idempotency)
    .where(lt(idempotency.createdAt, now - KEPT))
    .run();
}
