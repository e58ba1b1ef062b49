import { randomInt } from 'node:crypto';
import { refused } from '@tolvek/words';
import { type Challenge, createChallenge, type Solution, verifySolution } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/pbkdf2';
import { z } from 'zod';
import type { Transaction } from '../platform/database.ts';
import { Problem } from '../platform/problem.ts';
import type { DoorRow } from './queries.ts';
import { spentWork } from './tables.ts';

/** How long a task may be handed in, in ms. */
const LASTS = 20 * 60_000;
/** Rounds of PBKDF2 with SHA-256 for a try, and how many tries a task takes: well below half a second on a slow phone. */
const ROUNDS = 600;
const TRIES = [60, 120] as const;

const secretFor = (secret: string): string => `${secret} slow work`;

/** Some work for a device, for one door: it can’t be guessed, and is looked over in no time. */
export async function workFor(secret: string, { id }: Pick<DoorRow, 'id'>, now: number): Promise<string> {
  const challenge = await createChallenge({
    algorithm: 'PBKDF2/SHA-256',
    cost: ROUNDS,
    counter: randomInt(...TRIES),
    data: { door: id, until: now + LASTS },
    deriveKey,
    hmacSignatureSecret: secretFor(secret),
  });
  return Buffer.from(JSON.stringify(challenge)).toString('base64url');
}

/** What is handed in: the task as it was given, and what came out. Signed, so that its shape is as it was made. */
const handedIn = z.object({
  challenge: z.object({
    parameters: z.looseObject({ data: z.object({ door: z.string(), until: z.int() }) }),
    signature: z.string().max(200),
  }),
  solution: z.object({ counter: z.int().min(0).max(0xffff_ffff), derivedKey: z.string().max(200) }),
});

/** Work that is done: by its signature, and until when it would count. */
export interface DoneWork {
  readonly signature: string;
  readonly until: number;
}

/** Looks over the work of a device; null when there is none, when it is for another door, too old, or not done. */
export async function doneWork(
  secret: string,
  { id }: Pick<DoorRow, 'id'>,
  work: string | undefined,
  now: number,
): Promise<DoneWork | null> {
  const read = handedIn.safeParse(readJson(work ?? ''));
  if (!read.success) return null;
  const { challenge, solution } = read.data;
  const { door, until } = challenge.parameters.data;
  if (door !== id || now >= until) return null;
  const { verified } = await verifySolution({
    challenge: challenge as unknown as Challenge,
    solution: solution as Solution,
    deriveKey,
    hmacSignatureSecret: secretFor(secret),
  }).catch(() => ({ verified: false }));
  return verified ? { signature: challenge.signature, until } : null;
}

/** Takes work in: it counts once. @throws Problem 422 `work` when there is none, or it was handed in before. */
export function spendWork(tx: Transaction, done: DoneWork | null): void {
  if (!done) throw notDone();
  const { signature, until } = done;
  const { changes } = tx.insert(spentWork).values({ signature, expiresAt: until }).onConflictDoNothing().run();
  if (changes === 0) throw notDone();
}

const notDone = (): Problem => new Problem(422, 'work', refused('workMissing'));

function readJson(text: string): unknown {
  try {
    return JSON.parse(Buffer.from(text, 'base64url').toString('utf8'));
  } catch {
    return null;
  }
}
