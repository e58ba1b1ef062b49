import { existsSync, renameSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import type { Response } from 'express';
import sharp from 'sharp';
import type { Config } from '../platform/config.ts';
import { notFound } from '../platform/problem.ts';
import { newPlace, placeOf, previewOf } from './store.ts';

/** A picture on a card, in pixels: twice as large as it is shown, for sharp screens. */
const SIZE = { width: 560, height: 420 } as const;
/** Pictures of more pixels are not read: they would take more memory than they are worth. */
const MOST_PIXELS = 100_000_000;
/** Kept as long as the address is the same: another picture has another. */
const LASTING = 'private, max-age=86400';

// One picture at a time on one processor: pages go on meanwhile.
sharp.concurrency(1);
sharp.cache(false);
let turn: Promise<unknown> = Promise.resolve();

/** A picture that was sent, made small and upright, as WebP. It is made once and kept beside the file. */
async function madeSmall(config: Pick<Config, 'data'>, sha256: string): Promise<Buffer> {
  const kept = previewOf(config, sha256);
  if (!existsSync(kept)) {
    const making = turn.then(async () => {
      if (existsSync(kept)) return;
      const coming = newPlace(config);
      await sharp(placeOf(config, sha256), { limitInputPixels: MOST_PIXELS })
        .rotate()
        .resize({ ...SIZE, fit: 'cover' })
        .webp({ quality: 78 })
        .toFile(coming);
      renameSync(coming, kept);
    });
    turn = making.catch(() => undefined);
    await making;
  }
  return readFile(kept);
}

/** Sends a picture made small. @throws Problem 404 for what can’t be read as one */
export async function sendPreview(config: Pick<Config, 'data'>, sha256: string, response: Response): Promise<void> {
  const bytes = await madeSmall(config, sha256).catch(() => {
    throw notFound('picture');
  });
  response
    .set('Cache-Control', LASTING)
    .set('X-Content-Type-Options', 'nosniff')
    .set('Content-Security-Policy', "default-src 'none'")
    .type('image/webp')
    .send(bytes);
}
