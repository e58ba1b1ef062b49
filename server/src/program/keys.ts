import type { Viewer } from '@tolvek/core/people';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { noteGround } from '../people/history.ts';
import { endOf, isUsedAnew, newBearer, stateOfBearer } from '../platform/bearers.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { hashOf } from '../platform/links.ts';
import { newId } from '../platform/newId.ts';
import { notFound } from '../platform/problem.ts';
import { type Work, write } from '../platform/work.ts';
import { programNamed, viewerOfKey } from './queries.ts';
import { programKeys } from './tables.ts';

type KeyRow = typeof programKeys.$inferSelect;

/** What every key begins with, so that one that lies about is known for what it is. */
const SIGN = 'tlv_';

/**
 * Makes a key for a program. It is told once and kept nowhere.
 *
 * @param days how long it works; null for as long as it is not ended
 */
export function makeKey(
  work: Work,
  { program, name, days }: { readonly program: string; readonly name: string; readonly days: number | null },
): { readonly id: string; readonly key: string } {
  const { tx, now, actor } = work;
  const { token: key, hash } = newBearer(SIGN);
  const id = newId();
  noteGround(work, 'desk', 'programs', { kind: 'key', program: programNamed(tx, program), name, on: true });
  tx.insert(programKeys)
    .values({
      ...{ id, program, name, hash, madeAt: now, madeBy: actor ?? '', expiresAt: endOf(days, now) },
    })
    .run();
  return { id, key };
}

/** Ends a key of a program at once. @throws Problem 404 */
export function endKey(work: Work, { program, id }: { readonly program: string; readonly id: string }): void {
  const { tx, now } = work;
  const [ended] = tx
    .update(programKeys)
    .set({ endedAt: now })
    .where(and(eq(programKeys.id, id), eq(programKeys.program, program), isNull(programKeys.endedAt)))
    .returning()
    .all();
  if (!ended) throw notFound('token');
  noteGround(work, 'desk', 'programs', {
    ...{ kind: 'key', program: programNamed(tx, program), name: ended.name, on: false },
  });
}

export const keysOf = (db: Reader, program: string): readonly KeyRow[] =>
  db
    .select()
    .from(programKeys)
    .where(eq(programKeys.program, program))
    .orderBy(desc(programKeys.madeAt), desc(programKeys.id))
    .all();

/** Whom a key lets in now; null where it opens nothing. It is written down that it was used. */
export function programBy(house: House, key: string): Viewer | null {
  if (!key.startsWith(SIGN)) return null;
  const now = house.clock.now();
  const row = house.db
    .select()
    .from(programKeys)
    .where(eq(programKeys.hash, hashOf(key)))
    .get();
  if (!row || stateOfBearer(row, now) !== 'works') return null;
  const viewer = viewerOfKey(house.db, row.program);
  if (viewer && isUsedAnew(row, now))
    write(house, ({ tx }) => {
      tx.update(programKeys).set({ usedAt: now }).where(eq(programKeys.id, row.id)).run();
    });
  return viewer;
}
