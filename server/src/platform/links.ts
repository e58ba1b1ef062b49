import { createHash, createHmac } from 'node:crypto';
import { and, eq, ne } from 'drizzle-orm';
import { adding } from './adding.ts';
import type { Reader, Transaction } from './database.ts';
import { newId } from './newId.ts';
import { Problem } from './problem.ts';
import { links } from './tables.ts';

export type Link = typeof links.$inferSelect;

const addLink = adding(links);

/** What is kept of a token. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('base64url');

const DAY = 24 * 3_600_000;
/** How long each kind of link works, in days. */
const DAYS: Readonly<Record<Link['purpose'], number>> = { confirm: 3, decide: 14, follow: 180, resume: 14 };

/** When a link made now ends, epoch ms. */
export const linkEnds = (purpose: Link['purpose'], now: number): number => now + DAYS[purpose] * DAY;

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
  { now, ...link }: Pick<Link, 'purpose' | 'personId' | 'targetId'> & { readonly now: number },
): { readonly id: string; readonly token: string } {
  const id = newId();
  const token = tokenOf(secret, id);
  addLink(tx, { id, tokenHash: hashOf(token), usedAt: null, expiresAt: linkEnds(link.purpose, now), ...link });
  return { id, token };
}

/** The link behind a token; refuses one that is unknown, used or expired, each in its own words. */
export function openLink(db: Reader, token: string, purpose: Link['purpose'], now: number): Link {
  const link = db
    .select()
    .from(links)
    .where(eq(links.tokenHash, hashOf(token)))
    .get();
  if (link?.purpose !== purpose)
    throw new Problem(
      404,
      'link-unknown',
      'This link is not known',
      'Check that the whole address was copied from the letter.',
    );
  if (link.usedAt !== null)
    throw new Problem(
      410,
      'link-used',
      'This link was used already',
      'It works once. What it did is kept; the later letters hold the way on.',
    );
  if (now >= link.expiresAt)
    throw new Problem(
      410,
      'link-expired',
      'This link has ended',
      purpose === 'confirm' || purpose === 'resume'
        ? 'Fill in the form again to get a new one.'
        : 'Sign in, or ask the desk for a new one.',
    );
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

export function spendLink(tx: Transaction, link: Link, now: number): void {
  tx.update(links).set({ usedAt: now }).where(eq(links.id, link.id)).run();
}
