import { v7 as uuid } from 'uuid';
import type { Transaction } from '../platform/database.ts';
import { history } from './tables.ts';

type Entry = Pick<typeof history.$inferInsert, 'requestId' | 'actorId' | 'kind' | 'words'> &
  Partial<Pick<typeof history.$inferInsert, 'changes' | 'comment'>>;

/**
 * Adds to what happened to a request. Words hold no field values: those stand in `changes`, where
 * they can be revealed.
 */
export function remember(tx: Transaction, now: number, entry: Entry): void {
  tx.insert(history)
    .values({ id: uuid(), at: now, changes: [], comment: null, ...entry })
    .run();
}
