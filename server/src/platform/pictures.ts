import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Request, Response } from 'express';
import type { Reader, Transaction } from './database.ts';
import { isListed, listed, prepared } from './prepared.ts';
import { notFound } from './problem.ts';
import { pictures } from './tables.ts';

/** The kinds that browsers show and that run nothing. */
export const PICTURE_TYPES = ['image/png', 'image/jpeg', 'image/webp'] as const;

/** The picture of the desk itself; those of people go by their ids. */
export const LOGO = 'desk';

const someVersions = prepared((db) =>
  db
    .select({ key: pictures.key, version: pictures.version })
    .from(pictures)
    .where(isListed(pictures.key, 'keys'))
    .prepare(),
);

/** The versions of pictures, by whose they are; none for who has none. */
export const pictureVersions = (db: Reader, keys: readonly string[]): ReadonlyMap<string, string> =>
  new Map(
    someVersions(db)
      .all({ keys: listed(keys) })
      .map(({ key, version }) => [key, version]),
  );

export const pictureVersion = (db: Reader, key: string): string | null => pictureVersions(db, [key]).get(key) ?? null;

/** A picture as it was sent and is kept. */
export interface Picture {
  readonly type: (typeof PICTURE_TYPES)[number];
  readonly bytes: Buffer;
}

/** Keeps a picture in place of the one there was, or takes it away. Returns its version. */
export function putPicture(tx: Transaction, key: string, picture: Picture | null): string | null {
  if (picture === null) {
    tx.delete(pictures).where(eq(pictures.key, key)).run();
    return null;
  }
  const version = createHash('sha256').update(picture.bytes).digest('base64url').slice(0, 16);
  const row = { ...picture, version };
  tx.insert(pictures)
    .values({ key, ...row })
    .onConflictDoUpdate({ target: pictures.key, set: row })
    .run();
  return version;
}

/** Sends a picture: the same address with another version is another picture. @throws Problem 404 */
export function sendPicture(db: Reader, key: string, request: Request, response: Response): void {
  const row = db.select().from(pictures).where(eq(pictures.key, key)).get();
  if (!row) throw notFound('picture');
  const isPinned = request.query.v === row.version;
  response
    .set('Cache-Control', isPinned ? 'private, max-age=31536000, immutable' : 'no-store')
    .set('X-Content-Type-Options', 'nosniff')
    .set('Content-Security-Policy', "default-src 'none'")
    .type(row.type)
    .send(row.bytes);
}
