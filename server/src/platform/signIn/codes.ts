import { refused } from '@tolvek/words';
import { fromNodeHeaders } from 'better-auth/node';
import { eq } from 'drizzle-orm';
import express, { type Request, type Response, type Router } from 'express';
import { z } from 'zod';
import type { Auth } from '../auth.ts';
import type { Reader, Transaction } from '../database.ts';
import type { House } from '../house.ts';
import type { Limits } from '../limits.ts';
import { notSignedIn, Problem } from '../problem.ts';
import { twoFactor, user } from '../tables.ts';
import { given } from './given.ts';
import { callerOf, endSession, pass } from './session.ts';

const typed = z.object({ code: z.string().trim().min(1).max(40), trust: z.boolean().default(false) });
const withPassword = z.object({ password: z.string().min(1).max(200) });

/** Whether somebody is asked for a code after their password. */
export const isCodeOn = (db: Reader, personId: string): boolean =>
  db.select({ on: user.twoFactorEnabled }).from(user).where(eq(user.id, personId)).get()?.on === true;

/** Asks somebody for no code any more: for who has lost what computes it. */
export function endCode(tx: Transaction, personId: string): void {
  tx.delete(twoFactor).where(eq(twoFactor.userId, personId)).run();
  tx.update(user).set({ twoFactorEnabled: false }).where(eq(user.id, personId)).run();
}

/**
 * Codes after a password (RFC 6238): asked for at a sign-in, and set up and ended by their owner. Wrong codes are
 * counted by the sign-in library: five of one sign-in, ten of one account.
 */
export function afterPasswords(
  router: Router,
  house: House,
  auth: Auth,
  limits: Limits,
  noted: (personId: string, on: boolean) => void,
): void {
  const json = express.json({ limit: '10kb' });

  router.post('/api/auth/sign-in/code', json, async (request: Request, response: Response) => {
    await limits.take('sending', null, request, response);
    const { code, trust } = typed.parse(request.body);
    const headers = fromNodeHeaders(request.headers);
    const digits = code.replace(/\s/g, '');
    const made = await given(house, 'wrongCode', () =>
      /^\d{6}$/.test(digits)
        ? auth.api.verifyTOTP({ body: { code: digits, trustDevice: trust }, headers, returnHeaders: true })
        : auth.api.verifyBackupCode({ body: { code }, headers, returnHeaders: true }),
    );
    const { token, user: who } = made.response;
    if (!who || !house.viewerOf(who.id)) {
      if (token) endSession(house.db, token);
      throw new Problem(401, 'wrong-code', refused('wrongCode'));
    }
    pass(made.headers, response);
    response.set('Cache-Control', 'no-store').json({ signedIn: true });
  });

  /** One’s own code is set up in two steps: what computes it, and a first one that proves it was set up. */
  router.post('/api/auth/code/begin', json, async (request: Request, response: Response) => {
    caller(house, request);
    const { password } = withPassword.parse(request.body);
    const headers = fromNodeHeaders(request.headers);
    const made = await given(house, 'wrongOwnPassword', () =>
      auth.api.enableTwoFactor({ body: { password, method: 'totp' }, headers, returnHeaders: true }),
    );
    pass(made.headers, response);
    const { response: set } = made;
    if (!('totpURI' in set)) throw new Problem(409, 'code', refused('wrongCode'));
    response.set('Cache-Control', 'no-store').json({ uri: set.totpURI, spare: set.backupCodes });
  });

  router.post('/api/auth/code/confirm', json, async (request: Request, response: Response) => {
    const { viewer } = caller(house, request);
    const { code } = typed.parse(request.body);
    const headers = fromNodeHeaders(request.headers);
    const made = await given(house, 'wrongCode', () =>
      auth.api.verifyTOTP({ body: { code: code.replace(/\s/g, '') }, headers, returnHeaders: true }),
    );
    pass(made.headers, response);
    noted(viewer.personId, true);
    response.set('Cache-Control', 'no-store').json({ done: true });
  });

  router.post('/api/auth/code/end', json, async (request: Request, response: Response) => {
    const { viewer } = caller(house, request);
    const { password } = withPassword.parse(request.body);
    const headers = fromNodeHeaders(request.headers);
    const made = await given(house, 'wrongOwnPassword', () =>
      auth.api.disableTwoFactor({ body: { password }, headers, returnHeaders: true }),
    );
    pass(made.headers, response);
    noted(viewer.personId, false);
    response.set('Cache-Control', 'no-store').json({ done: true });
  });
}

function caller(house: House, request: Request) {
  const session = callerOf(house, request);
  // Contacts have no password, and nothing after it.
  if (session?.viewer.kind !== 'staff') throw notSignedIn();
  return session;
}
