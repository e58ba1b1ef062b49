import { createHmac } from 'node:crypto';
import { signedPart } from '@tolvek/core/program';
import { eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import type { Work } from '../platform/work.ts';
import { programSecrets } from './tables.ts';

/** So long what is sent is signed with the secret before as well, ms: the program takes the new one meanwhile. */
const BOTH = 24 * 3_600_000;

const rowOf = (db: Reader, program: string) =>
  db.select().from(programSecrets).where(eq(programSecrets.program, program)).get();

/** A secret of a program: made again each time from the secret of the installation. */
const secretNo = (secret: string, program: string, no: number): Buffer =>
  createHmac('sha256', secret).update(`hook ${program} ${no}`).digest();

/** Its secret as programs take it (Standard Webhooks 1.0.0), and until when the one before counts, epoch ms. */
export function secretOf(
  db: Reader,
  secret: string,
  program: string,
  now: number,
): { readonly secret: string; readonly untilBoth: number | null } {
  const row = rowOf(db, program);
  const until = row && row.no > 1 ? row.renewedAt + BOTH : null;
  return {
    secret: `whsec_${secretNo(secret, program, row?.no ?? 1).toString('base64')}`,
    untilBoth: until !== null && until > now ? until : null,
  };
}

/** Gives a program another secret; the one before counts a day longer. */
export function renewSecret({ tx, now }: Work, program: string): void {
  const no = (rowOf(tx, program)?.no ?? 1) + 1;
  tx.insert(programSecrets)
    .values({ program, no, renewedAt: now })
    .onConflictDoUpdate({ target: programSecrets.program, set: { no, renewedAt: now } })
    .run();
}

/** The signatures of what is sent, as its header has them: one, or two while the secret before counts as well. */
export function signaturesOf(
  db: Reader,
  secret: string,
  program: string,
  {
    id,
    at,
    seconds,
    body,
  }: {
    readonly id: string;
    /** By the clock of the desk, epoch ms: which secrets count. */
    readonly at: number;
    /** What is signed as the moment, seconds since 1970. */
    readonly seconds: number;
    readonly body: string;
  },
): string {
  const row = rowOf(db, program);
  const no = row?.no ?? 1;
  const counts = row && no > 1 && at < row.renewedAt + BOTH ? [no, no - 1] : [no];
  const part = signedPart(id, seconds, body);
  return counts
    .map(
      (each) =>
        `v1,${createHmac('sha256', secretNo(secret, program, each))
          .update(part)
          .digest('base64')}`,
    )
    .join(' ');
}
