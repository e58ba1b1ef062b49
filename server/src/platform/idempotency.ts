import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { canonicalJson } from './canonical.ts';
import type { Transaction } from './database.ts';
import { Problem } from './problem.ts';
import { idempotency } from './tables.ts';

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
  const fingerprint = fingerprintOf(canonicalJson(input.content));
  const earlier = tx
    .select()
    .from(idempotency)
    .where(and(eq(idempotency.scope, input.scope), eq(idempotency.key, input.key)))
    .get();
  if (earlier) {
    // Answers kept by earlier releases have the fingerprint of the text as it was sent.
    if (earlier.fingerprint !== fingerprint && earlier.fingerprint !== fingerprintOf(JSON.stringify(input.content))) {
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

const fingerprintOf = (text: string): string => createHash('sha256').update(text).digest('hex');
