import { refused } from '@tolvek/words';
import { desc } from 'drizzle-orm';
import type { Request, Response } from 'express';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { Problem } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { toldPrograms } from './tables.ts';

const MOST_BYTES = 512 * 1_024;
const SHOWN = 200;
/** Headers that say something of what is sent, rather than of the line it came by. */
const OF_INTEREST = /^(webhook-|content-type$|user-agent$)/;

async function bodyOf(request: Request): Promise<string> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request) {
    size += (part as Buffer).length;
    if (size > MOST_BYTES) throw new Problem(413, 'too-large', refused('tooLarge', { most: MOST_BYTES }));
    parts.push(part as Buffer);
  }
  return Buffer.concat(parts).toString('utf8');
}

/**
 * Takes what a program is told in its place, and keeps it for the Mailroom. What is answered stands at the end of the name:
 * `boats-503` is not well, `boats-410` wants nothing any more, `boats` takes all.
 */
export async function hearInPlace(house: House, name: string, request: Request, response: Response): Promise<void> {
  const body = await bodyOf(request);
  const status = Number(/-([2-5]\d\d)$/.exec(name)?.[1] ?? 200);
  const headers = Object.entries(request.headers).flatMap(([header, value]) =>
    OF_INTEREST.test(header) ? [{ name: header, value: String(value) }] : [],
  );
  write(house, ({ tx, now }) => {
    tx.insert(toldPrograms).values({ id: newId(), receivedAt: now, path: name, headers, body, status }).run();
  });
  response.status(status).json({ done: true });
}

/** What the stand-in received, the newest first. */
export const heardInPlace = (db: Reader) =>
  db
    .select()
    .from(toldPrograms)
    .orderBy(desc(toldPrograms.receivedAt), desc(toldPrograms.id))
    .limit(SHOWN)
    .all()
    .map(({ id, receivedAt, path: name, status, body, headers }) => ({
      ...{ id, receivedAt: iso(receivedAt), name, status, body, headers: [...headers] },
    }));
