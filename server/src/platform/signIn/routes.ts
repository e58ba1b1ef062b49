import { setTimeout as pause } from 'node:timers/promises';
import { refused } from '@tolvek/words';
import { fromNodeHeaders } from 'better-auth/node';
import express, { type Request, type Response, Router } from 'express';
import { z } from 'zod';
import type { Auth } from '../auth.ts';
import type { House } from '../house.ts';
import { addressOf, type Limits } from '../limits.ts';
import { patiently } from '../patience.ts';
import { Problem } from '../problem.ts';
import { byProvider } from './byProvider.ts';
import { afterPasswords } from './codes.ts';
import { deviceCookie, isKnownDevice } from './device.ts';
import { SignInGuard } from './guard.ts';
import { byPasskey } from './passkeys.ts';
import { arePasswordsOff } from './providers.ts';
import { callerOf, cookiePrefix, endSession, keepCookie, pass, SESSION_LASTS } from './session.ts';

const credentials = z.object({ email: z.string().min(1).max(254), password: z.string().min(1).max(200) });
const DEVICE_LASTS = 180 * 24 * 3_600_000;
/**
 * Passwords looked at at once, and tries that may wait for their turn: each costs a core a tenth of
 * a second.
 */
const AT_ONCE = 2;
const WAITING = 40;

/** What sign-in needs of the rest of the house. */
interface SignsIn {
  readonly auth: Auth;
  readonly limits: Limits;
  /** Somebody’s account is the one that a provider knows from now on, by the provider’s name. */
  readonly linked: (personId: string, provider: string) => void;
  /** Somebody is asked for a code from now on, or no longer. */
  readonly coded: (personId: string, on: boolean) => void;
  /** Somebody has a key more, by what they call it. */
  readonly keyed: (personId: string, name: string) => void;
}

/**
 * Sign-in and sign-out. Nothing else of the sign-in library has an address. Answers hold no token: that is in a
 * cookie which pages can’t read.
 */
export function signInRoutes(house: House, { auth, limits, linked, coded, keyed }: SignsIn): Router {
  const { config } = house;
  const router = Router();
  byProvider(router, house, limits, linked);
  const guard = new SignInGuard(() => performance.now());
  const turns = new Turns(AT_ONCE, WAITING);
  const kept = { httpOnly: true, sameSite: 'lax', secure: config.url.startsWith('https:'), path: '/' } as const;
  const json = express.json({ limit: '10kb' });

  router.post('/api/auth/sign-in/email', json, async (request: Request, response: Response) => {
    const { email, password } = credentials.parse(request.body);
    if (arePasswordsOff(house.db)) throw new Problem(403, 'passwords-off', refused('passwordsOff'));
    const account = email.trim().toLowerCase();
    const attempt = { account, address: addressOf(request), known: isKnownDevice(config, request, account) };
    const answer = guard.ask(attempt);
    if (answer.kind === 'refused') throw tooManyTries(answer.forMs);
    await pause(answer.waitMs);
    const given = await turns.take(() =>
      patiently(house, () => signedIn(house, auth, account, password, fromNodeHeaders(request.headers))),
    );
    if (!given) throw new Problem(401, 'wrong-password', refused('wrongPassword'));
    guard.right(attempt);
    pass(given.headers, response);
    if (given.needsCode) {
      response.set('Cache-Control', 'no-store').json({ signedIn: false, needsCode: true });
      return;
    }
    const [name, value] = deviceCookie(config, request, account);
    response.cookie(name, value, { ...kept, maxAge: DEVICE_LASTS });
    response.set('Cache-Control', 'no-store').json({ signedIn: true });
  });

  afterPasswords(router, house, auth, limits, coded);
  byPasskey(router, house, auth, limits, keyed);

  router.post('/api/auth/sign-out', json, async (request: Request, response: Response) => {
    const session = callerOf(house, request);
    if (session) {
      await patiently(house, () => endSession(house.db, session.token));
      house.live.end(session.token);
    }
    response.clearCookie(`${cookiePrefix(config)}.session_token`, kept);
    response.set('Cache-Control', 'no-store').json({ signedIn: false });
  });
  return router;
}

/** What came of a right password: cookies, of a session or of what waits for a code. */
interface Right {
  readonly headers: Headers;
  readonly needsCode: boolean;
}

/** The cookies of a new session; null when the address or the password is not right. */
async function signedIn(
  house: House,
  auth: Auth,
  email: string,
  password: string,
  headers: Headers,
): Promise<Right | null> {
  try {
    // Not as an answer of its own: that would make a fault of ours of a locked database.
    const given = await auth.api.signInEmail({ body: { email, password }, headers, returnHeaders: true });
    const { response } = given;
    if (!('user' in response)) return { headers: given.headers, needsCode: true };
    if (house.viewerOf(response.user.id)) return { headers: given.headers, needsCode: false };
    // Who may not come in any more is told nothing else than who does not know the password.
    endSession(house.db, response.token);
    return null;
  } catch (error) {
    const status = error instanceof Error && 'statusCode' in error ? Number(error.statusCode) : 500;
    if (status >= 400 && status < 500) return null;
    throw error;
  }
}

/** Gives the cookie of a session again, with a new end. */
export function giveAgain(response: Response, config: House['config'], signed: string): void {
  keepCookie(response, config, { name: `${cookiePrefix(config)}.session_token`, value: signed, lasts: SESSION_LASTS });
}

function tooManyTries(forMs: number): Problem {
  const minutes = Math.ceil(forMs / 60_000);
  return new Problem(
    429,
    'too-many-tries',
    refused('tooManyTries', { wait: { minutes } }),
    undefined,
    Math.ceil(forMs / 1_000),
  );
}

/**
 * Lets a few pieces of work run at once; more wait for their turn, and too many are turned away.
 */
class Turns {
  private running = 0;
  private readonly queue: (() => void)[] = [];

  constructor(
    private readonly atOnce: number,
    private readonly waiting: number,
  ) {}

  async take<T>(work: () => Promise<T>): Promise<T> {
    if (this.running >= this.atOnce) {
      if (this.queue.length >= this.waiting) throw new Problem(503, 'busy', refused('busySigningIn'), undefined, 5);
      await new Promise<void>((go) => this.queue.push(go));
    }
    this.running += 1;
    try {
      return await work();
    } finally {
      this.running -= 1;
      this.queue.shift()?.();
    }
  }
}
