import { eq, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { prepared } from '../platform/prepared.ts';
import { notices } from './tables.ts';
import { dressed } from './wording.ts';

const byId = prepared((db) =>
  db
    .select()
    .from(notices)
    .where(eq(notices.id, sql.placeholder('id')))
    .prepare(),
);

/** An email of ours, by what it is named by: about which request, and to whom it went. */
export type Sent = Pick<typeof notices.$inferSelect, 'requestId' | 'personId'>;

/** An email that went, by its id. */
export function sentById(db: Reader, id: string): Sent | undefined {
  const found = byId(db).get({ id });
  return found?.state === 'sent' ? found : undefined;
}

/** An email that went as plain text; empty where there is none, or its text is not kept any more. */
export function letterOf(post: Pick<House, 'config'>, db: Reader, id: string): string {
  const said = byId(db).get({ id })?.said;
  return said && !('body' in said) ? dressed(post, db, said).text : '';
}

/**
 * Notes that an email came back: it counts as one that was not delivered, with what the mail server said. False where
 * there is none by this id that went.
 */
export const bounced = (tx: Transaction, id: string, reason: string): boolean =>
  tx
    .update(notices)
    .set({ state: 'failed', lastError: reason })
    .where(sql`${notices.id} = ${id} and ${notices.state} = 'sent'`)
    .run().changes > 0;
