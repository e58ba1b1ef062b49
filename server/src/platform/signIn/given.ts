import { type RefusalName, refused } from '@tolvek/words';
import type { House } from '../house.ts';
import { patiently } from '../patience.ts';
import { Problem } from '../problem.ts';

/** What the sign-in library gives back when it takes something, with its cookies. */
interface Given<T> {
  readonly headers: Headers;
  readonly response: T;
}

/** @throws Problem 401 for what the sign-in library does not take, 429 when it was tried too often */
export async function given<T>(
  house: House,
  why: Extract<RefusalName, 'wrongCode' | 'wrongOwnPassword' | 'wrongPasskey' | 'signInAgain'>,
  does: () => Promise<Given<T>>,
): Promise<Given<T>> {
  return patiently(house, async () => {
    try {
      return await does();
    } catch (error) {
      const status = error instanceof Error && 'statusCode' in error ? Number(error.statusCode) : 500;
      const body =
        error instanceof Error && 'body' in error ? (error.body as { code?: string } | undefined) : undefined;
      if (status === 429 || body?.code?.includes('TOO_MANY'))
        throw new Problem(429, 'too-many-tries', refused('manyCodes'), undefined, 900);
      if (status >= 400 && status < 500) throw new Problem(401, 'wrong-code', refused(why));
      throw error;
    }
  });
}
