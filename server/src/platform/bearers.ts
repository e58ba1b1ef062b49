import { randomBytes } from 'node:crypto';
import { integer, text } from 'drizzle-orm/sqlite-core';
import { hashOf } from './links.ts';

/** What something outside proves itself by, with each call: a text that is told once, of which a hash alone is kept. */
export const bearerColumns = () => ({
  id: text().primaryKey(),
  /** What it is for. */
  name: text().notNull(),
  hash: text().notNull().unique(),
  /** Epoch ms. */
  madeAt: integer().notNull(),
  madeBy: text().notNull(),
  /** When it was used last, to the minute, epoch ms. */
  usedAt: integer(),
  /** From when on it is refused, epoch ms; null when it does not end by itself. */
  expiresAt: integer(),
  endedAt: integer(),
});

interface Bearer {
  readonly usedAt: number | null;
  readonly expiresAt: number | null;
  readonly endedAt: number | null;
}

const DAY = 86_400_000;
/** How exactly it is kept when one was used last, ms. */
const MINUTE = 60_000;

/** Another one: 32 random bytes behind what all of its kind begin with, and what is kept of it. */
export function newBearer(sign = ''): { readonly token: string; readonly hash: string } {
  const token = `${sign}${randomBytes(32).toString('base64url')}`;
  return { token, hash: hashOf(token) };
}

/** When one ends that works for some days from now on, epoch ms; null for one that is ended by hand. */
export const endOf = (days: number | null, now: number): number | null => (days === null ? null : now + days * DAY);

/** Whether one opens anything at a moment (epoch ms), or why not. */
export function stateOfBearer({ endedAt, expiresAt }: Bearer, now: number): 'works' | 'ended' | 'expired' {
  if (endedAt !== null) return 'ended';
  return expiresAt !== null && now >= expiresAt ? 'expired' : 'works';
}

/** Whether it is to be written down that one was used. */
export const isUsedAnew = ({ usedAt }: Bearer, now: number): boolean => usedAt === null || now - usedAt >= MINUTE;
