import { and, asc, eq, isNotNull, lte, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { doorLines } from './tables.ts';

export type LineRow = typeof doorLines.$inferSelect;

/** Who comes to a door, as its line knows them: by the link to a place, by who they are, or by their address. */
export interface InLine {
  /** The id of their place in the line, as a link shows it. */
  readonly place?: string | null | undefined;
  readonly personId?: string | null | undefined;
  readonly email?: string | null | undefined;
}

const lineAt = prepared((db) =>
  db
    .select()
    .from(doorLines)
    .where(eq(doorLines.doorId, sql.placeholder('door')))
    .orderBy(asc(doorLines.since), asc(doorLines.id))
    .prepare(),
);

/** Who waits at a door, the first first; whoever a place is held for among them. */
export const lineOf = (db: Reader, doorId: string): readonly LineRow[] => lineAt(db).all({ door: doorId });

/** Somebody’s place in a line. */
export const placeIn = (line: readonly LineRow[], { place, personId, email }: InLine): LineRow | undefined =>
  line.find(
    (row) =>
      (place != null && row.id === place) ||
      (personId != null && row.personId === personId) ||
      (email != null && row.email === email.toLowerCase()),
  );

/** Somebody’s place in the line of a door. */
export const placeOf = (db: Reader, doorId: string, who: InLine): LineRow | undefined =>
  placeIn(lineOf(db, doorId), who);

/** How many of the line come before somebody who wants to come in: all others, until a place is held for them. */
export function aheadOf(db: Reader, doorId: string, who: InLine, now: number): number {
  const line = lineOf(db, doorId);
  if (line.length === 0) return 0;
  const own = placeIn(line, who);
  // Whoever a place is held for takes that one: it is nobody’s else.
  const isHeld = own?.heldUntil != null && own.heldUntil > now;
  return isHeld ? line.filter((row) => row.id !== own.id && row.heldUntil !== null).length : line.length;
}

/** Takes somebody out of the line of a door. */
export const leaveLine = (tx: Transaction, doorId: string, who: InLine): void => {
  const own = placeOf(tx, doorId, who);
  if (own) tx.delete(doorLines).where(eq(doorLines.id, own.id)).run();
};

/** The doors at which somebody waits. */
export const doorsWithLines = (db: Reader): readonly string[] =>
  db
    .selectDistinct({ id: doorLines.doorId })
    .from(doorLines)
    .all()
    .map(({ id }) => id);

/** Takes those out of a line who let the time of their place go by. Returns how many. */
export const dropLate = (tx: Transaction, doorId: string, now: number): number =>
  tx
    .delete(doorLines)
    .where(and(eq(doorLines.doorId, doorId), isNotNull(doorLines.heldUntil), lte(doorLines.heldUntil, now)))
    .run().changes;

/** Whoever waited as one record waits as the other; where both did, as whoever came first. */
export function waitAsOther(tx: Transaction, from: string, to: { readonly id: string; readonly email: string }): void {
  for (const row of tx.select().from(doorLines).where(eq(doorLines.personId, from)).all()) {
    const other = placeOf(tx, row.doorId, { personId: to.id, email: to.email });
    if (other && other.id !== row.id) {
      const late = other.since <= row.since ? row : other;
      tx.delete(doorLines).where(eq(doorLines.id, late.id)).run();
      if (late.id === row.id) continue;
    }
    tx.update(doorLines).set({ personId: to.id, email: to.email.toLowerCase() }).where(eq(doorLines.id, row.id)).run();
  }
}

/** Whoever is removed waits nowhere. */
export const endWaiting = (tx: Transaction, personId: string): void =>
  void tx.delete(doorLines).where(sql`${doorLines.personId} = ${personId}`).run();
