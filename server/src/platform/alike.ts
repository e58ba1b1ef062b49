import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import type { Request, Response } from 'express';
import { LRUCache } from 'lru-cache';
import type { House } from './house.ts';
import { toldNothing } from './reads.ts';

/** An answer as it is written, for whoever is given the same. */
export class Written<Answer> {
  /** What it says, as a type alone. */
  declare readonly says: Answer;
  private readonly packed = new Map<string, Buffer>();

  constructor(readonly text: string) {}

  /** Sends it, packed once for all who can unpack it so (RFC 9110, 12.5.3). */
  send(request: Request, response: Response): void {
    const way = this.text.length > SMALL && request.acceptsEncodings(Object.keys(PACKS));
    const as = (way || 'identity') as keyof typeof PACKS;
    const known = this.packed.get(as);
    const bytes = known ?? PACKS[as](this.text);
    if (!known) this.packed.set(as, bytes);
    response.vary('Accept-Encoding').setHeader('Content-Type', 'application/json; charset=utf-8');
    if (as !== 'identity') response.setHeader('Content-Encoding', as);
    response.setHeader('Content-Length', bytes.length);
    response.end(bytes);
  }
}

/** What is shorter than this is sent as it is. */
const SMALL = 1_000;
/** The ways to pack, the tightest first. */
const PACKS = {
  br: (text: string) => brotliCompressSync(text, { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } }),
  gzip: (text: string) => gzipSync(text),
  identity: (text: string) => Buffer.from(text),
};

/** How long the same is answered while nothing is written, ms: doors open and close by the clock. */
const WHILE = 1_000;

interface Kept {
  readonly at: string;
  readonly answer: Written<never>;
}

/**
 * Answers that are the same for everybody who asks the same: worked out once a second at most, and anew after anything
 * was written, by this program or another one. What depends on who asks is not for it, nor what tells of something whose
 * reading is noted.
 */
export class Alike {
  private readonly kept = new LRUCache<string, Kept>({ max: 200 });
  private readonly written: () => string;

  constructor(private readonly house: Pick<House, 'db' | 'clock'>) {
    const { $client } = house.db;
    // What was changed by this connection, and how often another one committed (SQLite, `total_changes` and `data_version`).
    const own = $client.prepare('select total_changes()').pluck();
    const others = $client.prepare('pragma data_version').pluck();
    this.written = () => `${own.get()} ${others.get()}`;
  }

  /** `key`: all that the answer depends on besides what is stored and the time. */
  answer<Answer>(key: string, work: () => Answer): Written<Answer> | Answer {
    const at = `${this.written()} ${Math.floor(this.house.clock.now() / WHILE)}`;
    const known = this.kept.get(key);
    if (known?.at === at) return known.answer as Written<Answer>;
    const answer = work();
    if (!toldNothing()) return answer;
    const written = new Written<Answer>(JSON.stringify(answer));
    this.kept.set(key, { at, answer: written as Written<never> });
    return written;
  }
}
