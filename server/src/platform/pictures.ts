import { createHash } from 'node:crypto';
import { said } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import type { Request, Response } from 'express';
import { fileTypeFromBuffer } from 'file-type';
import type { Reader, Transaction } from './database.ts';
import { isListed, listed, prepared } from './prepared.ts';
import { notFound, wrongFields } from './problem.ts';
import { pictures } from './tables.ts';

/** The most a picture may have, bytes: browsers make them small before they send them. */
const MOST = 200 * 1024;
const TYPES = ['image/png', 'image/jpeg', 'image/webp'] as const;
type PictureType = (typeof TYPES)[number];

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
export interface ReadPicture {
  readonly type: PictureType;
  readonly bytes: Buffer;
}

/**
 * Reads a picture that was sent in Base64; null for none.
 *
 * @throws Problem 422 for what is no picture of a kind that browsers show, or too large
 */
export async function readPicture(sent: string | null): Promise<ReadPicture | null> {
  if (sent === null) return null;
  const bytes = Buffer.from(sent, 'base64');
  const mime = (await fileTypeFromBuffer(bytes))?.mime;
  const type = TYPES.find((each) => each === mime);
  if (!type || bytes.length > MOST)
    throw wrongFields([
      { field: 'picture', message: said('pictures:notAPicture'), fix: said('pictures:chooseOther', { most: MOST }) },
    ]);
  return { type, bytes };
}

/** Keeps a picture in place of the one there was, or takes it away. Returns its version. */
export function putPicture(tx: Transaction, key: string, picture: ReadPicture | null): string | null {
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
