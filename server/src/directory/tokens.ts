import { and, desc, eq, isNull } from 'drizzle-orm';
import { noteGround } from '../people/history.ts';
import { endOf, isUsedAnew, newBearer, stateOfBearer } from '../platform/bearers.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { hashOf } from '../platform/links.ts';
import { newId } from '../platform/newId.ts';
import { notFound } from '../platform/problem.ts';
import { type Work, write } from '../platform/work.ts';
import { directoryTokens } from './tables.ts';

type TokenRow = typeof directoryTokens.$inferSelect;

/**
 * Makes a token for a directory. It is told once and kept nowhere.
 *
 * @param days how long it works; null for as long as it is not ended
 */
export function makeToken(
  work: Work,
  { name, days }: { readonly name: string; readonly days: number | null },
): { readonly id: string; readonly token: string } {
  const { tx, now, actor } = work;
  const { token, hash } = newBearer();
  const id = newId();
  noteGround(work, 'desk', 'directory', { kind: 'token', name, on: true });
  tx.insert(directoryTokens)
    .values({
      ...{ id, name, hash, madeAt: now, madeBy: actor ?? '', expiresAt: endOf(days, now) },
    })
    .run();
  return { id, token };
}

/** Ends a token at once. @throws Problem 404 */
export function endToken(work: Work, id: string): void {
  const { tx, now } = work;
  const [ended] = tx
    .update(directoryTokens)
    .set({ endedAt: now })
    .where(and(eq(directoryTokens.id, id), isNull(directoryTokens.endedAt)))
    .returning()
    .all();
  if (!ended) throw notFound('token');
  noteGround(work, 'desk', 'directory', { kind: 'token', name: ended.name, on: false });
}

export const allTokens = (db: Reader): readonly TokenRow[] =>
  db.select().from(directoryTokens).orderBy(desc(directoryTokens.madeAt), desc(directoryTokens.id)).all();

/** Whether a token opens the way in now; it is written down that it did. */
export function isToken(house: House, token: string): boolean {
  const now = house.clock.now();
  const row = house.db
    .select()
    .from(directoryTokens)
    .where(eq(directoryTokens.hash, hashOf(token)))
    .get();
  if (!row || stateOfBearer(row, now) !== 'works') return false;
  if (isUsedAnew(row, now))
    write(house, ({ tx }) => {
      tx.update(directoryTokens).set({ usedAt: now }).where(eq(directoryTokens.id, row.id)).run();
    });
  return true;
}
