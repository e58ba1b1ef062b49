import { inArray, type SQL } from 'drizzle-orm';
import type { SQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Transaction } from './database.ts';

/** Rows that one turn takes away at most: a turn is short, and the next comes soon. */
export const AT_ONCE = 20;

/**
 * Something that is kept for a while only. The table in the guide says the same; a test holds that.
 */
export interface Kept {
  readonly what: string;
  readonly until: string;
  /**
   * Takes away what is past keeping, some of it at once; returns how many rows. `now`: epoch ms.
   */
  readonly sweep: (tx: Transaction, now: number) => number;
}

export const dropOld =
  (table: SQLiteTable, id: SQLiteColumn, isOld: (now: number) => SQL | undefined) =>
  (tx: Transaction, now: number): number =>
    tx
      .delete(table)
      .where(inArray(id, tx.select({ id }).from(table).where(isOld(now)).limit(AT_ONCE)))
      .run().changes;
