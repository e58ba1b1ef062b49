import { createHash } from 'node:crypto';
import { refused } from '@tolvek/words';
import { and, eq, sql } from 'drizzle-orm';
import { adding } from './adding.ts';
import { canonicalJson } from './canonical.ts';
import type { Transaction } from './database.ts';
import { prepared } from './prepared.ts';
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

const answered = prepared((db) =>
  db
    .select()
    .from(idempotency)
    .where(and(eq(idempotency.scope, sql.placeholder('scope')), eq(idempotency.key, sql.placeholder('key'))))
    .prepare(),
);
const addAnswer = adding(idempotency);

/** Runs a write once per key, inside its transaction: sent again, it gets the first answer. */
export function once<T>(tx: Transaction, input: OnceInput, work: () => T): T {
  const fingerprint = fingerprintOf(canonicalJson(input.content));
  const earlier = answered(tx).get({ scope: input.scope, key: input.key });
  if (earlier) {
    // Answers kept by earlier releases have the fingerprint of the text as it was sent.
    if (earlier.fingerprint !== fingerprint && earlier.fingerprint !== fingerprintOf(JSON.stringify(input.content))) {
      throw new Problem(422, 'key-used', refused('keyUsed'));
    }
    return earlier.answer as T;
  }
  const answer = work();
  addAnswer(tx, { key: input.key, scope: input.scope, fingerprint, answer, createdAt: input.now });
  return answer;
}

/** What was done once under scopes that begin with some words was done so under others: it is not done again. */
export const renameScope = (tx: Transaction, from: string, to: string): void =>
  void tx
    .update(idempotency)
    .set({ scope: sql`${to} || substr(${idempotency.scope}, ${from.length + 1})` })
    .where(sql`substr(${idempotency.scope}, 1, ${from.length}) = ${from}`)
    .run();

const fingerprintOf = (text: string): string => createHash('sha256').update(text).digest('hex');
