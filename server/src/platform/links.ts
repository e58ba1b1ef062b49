import { createHash, randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { v7 as uuid } from 'uuid';
import type { Reader, Transaction } from './database.ts';
import { Problem } from './problem.ts';
import { links } from './tables.ts';

export type Link = typeof links.$inferSelect;

const hash = (token: string): string => createHash('sha256').update(token).digest('base64url');

const DAY = 24 * 3_600_000;
/** How long each kind of link works, in days. */
const DAYS: Readonly<Record<Link['purpose'], number>> = { confirm: 3, decide: 14, follow: 180, resume: 14 };

/** When a link made now ends, epoch ms. */
export const linkEnds = (purpose: Link['purpose'], now: number): number => now + DAYS[purpose] * DAY;

/** Makes a link and returns its token, which is kept nowhere. */
export function issueLink(
  tx: Transaction,
  { now, ...link }: Pick<Link, 'purpose' | 'personId' | 'targetId'> & { readonly now: number },
): string {
  const token = randomBytes(24).toString('base64url');
  tx.insert(links)
    .values({ id: uuid(), tokenHash: hash(token), usedAt: null, expiresAt: linkEnds(link.purpose, now), ...link })
    .run();
  return token;
}

/** The link behind a token; refuses one that is unknown, used or expired, each in its own words. */
export function openLink(db: Reader, token: string, purpose: Link['purpose'], now: number): Link {
  const link = db
    .select()
    .from(links)
    .where(eq(links.tokenHash, hash(token)))
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

export function spendLink(tx: Transaction, link: Link, now: number): void {
  tx.update(links).set({ usedAt: now }).where(eq(links.id, link.id)).run();
}
