import { createHash, createHmac } from 'node:crypto';
import { type RefusalName, refused } from '@tolvek/words';
import { and, desc, eq, inArray, ne } from 'drizzle-orm';
import { adding } from './adding.ts';
import type { Reader, Transaction } from './database.ts';
import { newId } from './newId.ts';
import { Problem } from './problem.ts';
import { links } from './tables.ts';

export type Link = typeof links.$inferSelect;

const addLink = adding(links);

/** What is kept of a token. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('base64url');

/** The token of a link: 24 bytes in Base64 for addresses, from a secret of the installation and its id. */
export const tokenOf = (secret: string, linkId: string): string =>
  createHmac('sha256', secret).update(`link ${linkId}`).digest().subarray(0, 24).toString('base64url');

/**
 * Makes a link and returns its id and token. The token is kept nowhere: it can be made again from the
 * id, so that a letter that goes twice is the same.
 */
export function issueLink(
  tx: Transaction,
  secret: string,
  link: Pick<Link, 'purpose' | 'personId' | 'targetId' | 'expiresAt'> & { readonly createdAt?: number | null },
): { readonly id: string; readonly token: string } {
  const id = newId();
  const token = tokenOf(secret, id);
  addLink(tx, { id, tokenHash: hashOf(token), usedAt: null, createdAt: null, device: null, ...link });
  return { id, token };
}

const USED = {
  confirm: 'confirmUsed',
  decide: 'decideUsed',
  follow: 'followEnded',
  resume: 'linkUsed',
  sent: 'linkUsed',
  shared: 'linkUsed',
  'first-start': 'firstStartUsed',
  invite: 'inviteUsed',
  reset: 'inviteUsed',
  'sign-in': 'signInLinkUsed',
  owed: 'linkUsed',
  place: 'placeOver',
  accept: 'decideUsed',
} as const satisfies Record<Link['purpose'], RefusalName>;

const EXPIRED = {
  confirm: 'confirmExpired',
  decide: 'decideExpired',
  follow: 'followExpired',
  resume: 'keptExpired',
  sent: 'confirmExpired',
  shared: 'sharedOver',
  'first-start': 'firstStartExpired',
  invite: 'inviteExpired',
  reset: 'inviteExpired',
  'sign-in': 'signInLinkExpired',
  owed: 'owedExpired',
  place: 'placeOver',
  accept: 'decideExpired',
} as const satisfies Record<Link['purpose'], RefusalName>;

/** The link behind a token, whatever has become of it. */
export const linkBehind = (db: Reader, token: string): Link | undefined =>
  db
    .select()
    .from(links)
    .where(eq(links.tokenHash, hashOf(token)))
    .get();

/** The link behind a token; refuses one that is unknown, used or expired, each in its own words. */
export function openLink(db: Reader, token: string, purpose: Link['purpose'], now: number): Link {
  const link = linkBehind(db, token);
  if (link?.purpose !== purpose) throw new Problem(404, 'link-unknown', refused('linkUnknown'));
  if (link.usedAt !== null) throw new Problem(410, 'link-used', refused(USED[purpose]));
  if (now >= link.expiresAt) throw new Problem(410, 'link-expired', refused(EXPIRED[purpose]));
  return link;
}

/** A link whose letter goes again opens by the token of today: another one than it had, where the secret was changed. */
export function renewLink(tx: Transaction, secret: string, id: string): void {
  const tokenHash = hashOf(tokenOf(secret, id));
  tx.update(links)
    .set({ tokenHash })
    .where(and(eq(links.id, id), ne(links.tokenHash, tokenHash)))
    .run();
}

/** Lets a link lead somewhere else from now on. */
export function turnLink(tx: Transaction, id: string, targetId: string): void {
  tx.update(links).set({ targetId }).where(eq(links.id, id)).run();
}

/** Lets a link open for longer, or shorter. */
export function lengthenLink(tx: Transaction, id: string, expiresAt: number): void {
  tx.update(links).set({ expiresAt }).where(eq(links.id, id)).run();
}

export function spendLink(tx: Transaction, link: Link, now: number): void {
  tx.update(links).set({ usedAt: now }).where(eq(links.id, link.id)).run();
}

/** The links of one purpose that lead to something, the newest first. */
export const linksTo = (db: Reader, targetId: string, purpose: Link['purpose']): readonly Link[] =>
  db
    .select()
    .from(links)
    .where(and(eq(links.targetId, targetId), eq(links.purpose, purpose)))
    .orderBy(desc(links.expiresAt), desc(links.id))
    .all();

/** Whether a link still opens what it leads to. */
export const isWorking = ({ usedAt, expiresAt }: Pick<Link, 'usedAt' | 'expiresAt'>, now: number): boolean =>
  usedAt === null && now < expiresAt;

/** Takes away the links that open some things: what they opened is gone. */
export const dropLinks = (tx: Transaction, targetIds: readonly string[]): void =>
  void tx
    .delete(links)
    .where(inArray(links.targetId, [...targetIds]))
    .run();
