import { hashPassword } from 'better-auth/crypto';
import { and, eq } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { account, session, user } from '../platform/tables.ts';
import type { PersonRow } from './queries.ts';

/** How a password is kept: as the sign-in library reads it. */
export const hashOfPassword = (password: string): Promise<string> => hashPassword(password);

const CREDENTIAL = 'credential';

/** Whether somebody has a password. */
export const hasPassword = (db: Reader, personId: string): boolean =>
  db
    .select({ id: account.id })
    .from(account)
    .where(and(eq(account.userId, personId), eq(account.providerId, CREDENTIAL)))
    .get() !== undefined;

/** Gives one of the staff an account without a password, by which nobody can sign in yet. */
export function openAccount(tx: Transaction, { id, name, email }: Pick<PersonRow, 'id' | 'name' | 'email'>): void {
  const now = new Date();
  tx.insert(user)
    .values({ id, name, email, emailVerified: true, createdAt: now, updatedAt: now })
    .onConflictDoUpdate({ target: user.id, set: { name, email, updatedAt: now } })
    .run();
}

/** Sets the password of somebody with an account. Whoever was signed in as them is signed out. */
export function setPassword(tx: Transaction, personId: string, hash: string): void {
  const now = new Date();
  const [kept] = tx
    .select({ id: account.id })
    .from(account)
    .where(and(eq(account.userId, personId), eq(account.providerId, CREDENTIAL)))
    .all();
  if (kept) tx.update(account).set({ password: hash, updatedAt: now }).where(eq(account.id, kept.id)).run();
  else
    tx.insert(account)
      .values({
        ...{ id: newId(), accountId: personId, providerId: CREDENTIAL, userId: personId, password: hash },
        ...{ createdAt: now, updatedAt: now },
      })
      .run();
  endSessionsOf(tx, personId);
}

/** Signs somebody out everywhere. */
export function endSessionsOf(tx: Transaction, personId: string): void {
  tx.delete(session).where(eq(session.userId, personId)).run();
}
