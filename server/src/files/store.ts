import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { join } from 'node:path';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { refused } from '@tolvek/words';
import type { Config } from '../platform/config.ts';
import { newId } from '../platform/newId.ts';
import { Problem } from '../platform/problem.ts';

/** A file as it was received, not yet kept. */
export interface Received {
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
}

const folderOf = (config: Pick<Config, 'data'>): string => {
  const folder = join(config.data, 'files');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  return folder;
};

export const tooLarge = (most: number): Problem => new Problem(413, 'too-large', refused('tooLarge', { most }));

/**
 * Writes what comes in straight to disk, a piece at a time, and stops at the limit: however much is
 * sent, no more than a piece of it is in memory and no more than the limit on disk.
 */
export async function receive(config: Pick<Config, 'data'>, body: Readable, mostBytes: number): Promise<Received> {
  const path = newPlace(config);
  const hash = createHash('sha256');
  let bytes = 0;
  const measured = new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      if (bytes > mostBytes) return done(tooLarge(mostBytes));
      hash.update(chunk);
      done(null, chunk);
    },
  });
  try {
    await pipeline(body, measured, createWriteStream(path, { flags: 'wx' }));
  } catch (error) {
    rmSync(path, { force: true });
    throw error;
  }
  return { path, bytes, sha256: hash.digest('hex') };
}

/** A place for what is not whole yet; what stays there is taken away at the next start. */
export const newPlace = (config: Pick<Config, 'data'>): string => join(folderOf(config), `coming-${newId()}`);

/** Takes away what was being received when the application ended: nobody knows of it any more. */
export function dropHalfSent(config: Pick<Config, 'data'>): void {
  for (const name of readdirSync(folderOf(config)))
    if (name.startsWith('coming-')) rmSync(join(folderOf(config), name), { force: true });
}

/** Keeps a received file by its content; the same content is kept once. */
export function keepFile(config: Pick<Config, 'data'>, received: Received): void {
  const place = placeOf(config, received.sha256);
  if (existsSync(place)) rmSync(received.path, { force: true });
  else renameSync(received.path, place);
}

export const dropReceived = (received: Received): void => rmSync(received.path, { force: true });
/** Takes a file away, and what was made of it. */
export function dropFile(config: Pick<Config, 'data'>, sha256: string): void {
  rmSync(placeOf(config, sha256), { force: true });
  rmSync(previewOf(config, sha256), { force: true });
}
export const readFileOf = (config: Pick<Config, 'data'>, sha256: string) => createReadStream(placeOf(config, sha256));

/** Where a file lies, by the hash of its content. */
export const placeOf = (config: Pick<Config, 'data'>, sha256: string): string => join(folderOf(config), sha256);
/** Where a picture lies that was made small from a file. */
export const previewOf = (config: Pick<Config, 'data'>, sha256: string): string =>
  join(folderOf(config), `small-${sha256}`);

/** Whether the beginning of a file is text: UTF-8 without signs that text has not. */
export async function isText(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(8_192), 0, 8_192, 0);
    const head = buffer.subarray(0, bytesRead);
    if (head.includes(0)) return false;
    // A letter of several bytes may be cut in two at the end of what was read.
    return [0, 1, 2, 3].some((cut) => isUtf8(head.subarray(0, Math.max(0, head.length - cut))));
  } finally {
    await file.close();
  }
}

function isUtf8(bytes: Buffer): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}
