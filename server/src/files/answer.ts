import type { Response } from 'express';
import type { House } from '../platform/house.ts';
import { readFileOf } from './store.ts';
import type { uploads } from './tables.ts';

/** Answers with the bytes of a file, to be saved: no browser runs or shows what somebody sent. */
export function answerWithFile(
  house: Pick<House, 'config'>,
  response: Response,
  { name, media, bytes, sha256 }: Pick<typeof uploads.$inferSelect, 'name' | 'media' | 'bytes' | 'sha256'>,
): void {
  response.set({
    'Content-Type': media,
    'Content-Length': String(bytes),
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    'Content-Security-Policy': "sandbox; default-src 'none'",
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'private, no-store',
  });
  readFileOf(house.config, sha256)
    .on('error', () => response.destroy())
    .pipe(response);
}
