import { cpSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { Generator } from './generator.ts';

/** How much of a desk’s requests is not finished, at every size. */
export const UNFINISHED = 0.05;
/** Rounds of copies lie so many days apart: years pass until a desk has a million. */
const APART = 3;
/** Requests that copies are made of, at most. */
const PATTERNS = 2_000;

/** Who handles a copy, by the place of it; nobody else than before where that is undefined. */
export type Handling = (copy: number) => string | undefined;

/**
 * Makes a desk of so many requests from one that the application wrote: what is finished goes back over the years, and
 * one in twenty is not. Returns how long that took, ms.
 */
export function grownDesk(from: string, to: string, wanted: number, handling?: Handling): number {
  const began = performance.now();
  if (from !== to) cpSync(from, to, { recursive: true });
  const path = join(to, 'tolvek.sqlite');
  const secret = readFileSync(join(to, 'secret'), 'utf8').trim();
  let copies = 0;
  const but = () => {
    copies += 1;
    const handler = handling?.(copies);
    return handler === undefined ? {} : { handler_id: handler };
  };
  const fill = (which: string, until: number, days: (round: number) => number, rest: object): void => {
    const generator = new Generator(path, secret, which, PATTERNS);
    let missing = until - held(path, which);
    for (let round = 1; missing > 0 && generator.size > 0; round += 1)
      missing -= generator.copy({ round, days: days(round), ...rest }, missing);
    generator.close();
  };
  // What is not finished stays where it is: what it is due by would be long past else.
  fill("phase <> 'finished'", wanted * UNFINISHED, () => 0, { but });
  fill("phase = 'finished'", wanted * (1 - UNFINISHED), (round) => -round * APART, { but });
  return performance.now() - began;
}

function held(path: string, which: string): number {
  const db = new Sqlite(path, { readonly: true });
  const { n } = db.prepare(`select count(*) as n from requests where due is not null and ${which}`).get() as {
    n: number;
  };
  db.close();
  return n;
}
