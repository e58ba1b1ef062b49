import { type Challenge, solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/pbkdf2';
import { describe, expect, it } from 'vitest';
import { doneWork, workFor } from './slowWork.ts';

const SECRET = 'a secret of a house';
const door = { id: 'door-1' };
const NOW = 1_800_000_000_000;

const packed = (value: unknown): string => Buffer.from(JSON.stringify(value)).toString('base64url');
const taskOf = (work: string): Challenge => JSON.parse(Buffer.from(work, 'base64url').toString('utf8'));

/** Does the work as a device does. */
async function done(work: string) {
  const challenge = taskOf(work);
  const solution = await solveChallenge({ challenge, deriveKey });
  return { challenge, solution };
}

describe('the work of a device', () => {
  it('counts for its door, as long as it lasts', async () => {
    const handed = packed(await done(await workFor(SECRET, door, NOW)));
    expect(await doneWork(SECRET, door, handed, NOW)).toMatchObject({ until: NOW + 20 * 60_000 });
    expect(await doneWork(SECRET, door, handed, NOW + 20 * 60_000 - 1)).not.toBeNull();
    expect(await doneWork(SECRET, door, handed, NOW + 20 * 60_000)).toBeNull();
    expect(await doneWork(SECRET, { id: 'door-2' }, handed, NOW)).toBeNull();
    expect(await doneWork('another secret', door, handed, NOW)).toBeNull();
  });

  it('does not count when it was not done, or anything of it is another', async () => {
    const { challenge, solution } = await done(await workFor(SECRET, door, NOW));
    const { parameters } = challenge;
    const changed = [
      undefined,
      '',
      'no work',
      packed(null),
      packed({ challenge }),
      packed({
        challenge,
        solution: { ...solution, counter: (solution?.counter ?? 0) + 1, derivedKey: '00'.repeat(32) },
      }),
      packed({ challenge: { ...challenge, signature: '00' }, solution }),
      packed({ challenge: { ...challenge, parameters: { ...parameters, cost: 1 } }, solution }),
      packed({ challenge: { ...challenge, parameters: { ...parameters, keyPrefix: '00' } }, solution }),
      packed({
        challenge: { ...challenge, parameters: { ...parameters, data: { door: 'door-1', until: NOW + 10 ** 9 } } },
        solution,
      }),
    ];
    for (const [place, each] of changed.entries())
      expect([place, await doneWork(SECRET, door, each, NOW)]).toEqual([place, null]);
  });
});
