import { refused } from '@tolvek/words';
import { fromNodeHeaders } from 'better-auth/node';
import { desc, eq } from 'drizzle-orm';
import express, { type Request, type Response, type Router } from 'express';
import { z } from 'zod';
import type { Auth } from '../auth.ts';
import type { Reader, Transaction } from '../database.ts';
import type { House } from '../house.ts';
import type { Limits } from '../limits.ts';
import { notFound, notSignedIn, Problem } from '../problem.ts';
import { passkey } from '../tables.ts';
import { given } from './given.ts';
import { passkeyHost } from './passkeyHost.ts';
import { callerOf, endSession, pass } from './session.ts';

/** What a browser says of a key: read by the sign-in library, whole. */
const response = z.record(z.string(), z.unknown());
const added = z.object({ name: z.string().trim().min(1).max(60), response });
const text = z.string().max(10_000);
/** What a browser says to sign in (WebAuthn, *AuthenticationResponseJSON*). */
const entered = z.object({
  response: z.object({
    ...{ id: text, rawId: text, type: z.literal('public-key'), clientExtensionResults: z.object({}).default({}) },
    response: z.object({ clientDataJSON: text, authenticatorData: text, signature: text, userHandle: text.optional() }),
  }),
});

/** The keys of somebody, the newest first. */
export const passkeysOf = (db: Reader, personId: string) =>
  db
    .select({ id: passkey.id, name: passkey.name, madeAt: passkey.createdAt })
    .from(passkey)
    .where(eq(passkey.userId, personId))
    .orderBy(desc(passkey.createdAt), passkey.id)
    .all();

/** Takes a key of somebody away. @throws Problem 404 for one that is not theirs */
export function endPasskey(tx: Transaction, personId: string, id: string): void {
  const row = tx.select().from(passkey).where(eq(passkey.id, id)).get();
  if (row?.userId !== personId) throw notFound('passkey');
  tx.delete(passkey).where(eq(passkey.id, id)).run();
}

/** Takes all keys of somebody away: for who has lost what holds them. */
export const endPasskeys = (tx: Transaction, personId: string): number =>
  tx.delete(passkey).where(eq(passkey.userId, personId)).run().changes;

/**
 * Keys of devices (WebAuthn): added by whoever has just signed in, and signed in by in place of password and code.
 * A device has to make sure that it is its owner who uses it.
 */
export function byPasskey(
  router: Router,
  house: House,
  auth: Auth,
  limits: Limits,
  noted: (personId: string, name: string) => void,
): void {
  const json = express.json({ limit: '10kb' });
  const caller = (request: Request) => {
    const session = callerOf(house, request);
    // Contacts prove who they are by letters.
    if (session?.viewer.kind !== 'staff') throw notSignedIn();
    return session;
  };
  const here = (): void => {
    if (passkeyHost(house.config) === null) throw notFound('passkey');
  };

  router.post('/api/auth/passkey/begin-add', json, async (request: Request, response: Response) => {
    here();
    caller(request);
    const headers = fromNodeHeaders(request.headers);
    const made = await given(house, 'signInAgain', () =>
      auth.api.generatePasskeyRegistrationOptions({ headers, query: {}, returnHeaders: true }),
    );
    pass(made.headers, response);
    response.set('Cache-Control', 'no-store').json(made.response);
  });

  router.post('/api/auth/passkey/add', json, async (request: Request, response: Response) => {
    here();
    const { viewer } = caller(request);
    const { name, response: key } = added.parse(request.body);
    const headers = fromNodeHeaders(request.headers);
    const made = await given(house, 'wrongPasskey', () =>
      auth.api.verifyPasskeyRegistration({ body: { name, response: key }, headers, returnHeaders: true }),
    );
    pass(made.headers, response);
    noted(viewer.personId, name);
    response.set('Cache-Control', 'no-store').json({ done: true });
  });

  router.post('/api/auth/passkey/begin', json, async (request: Request, response: Response) => {
    here();
    await limits.take('sending', null, request, response);
    // Whoever signs in is not known yet: which keys somebody has is told to nobody.
    const headers = fromNodeHeaders({ ...request.headers, cookie: '' });
    const made = await given(house, 'wrongPasskey', () =>
      auth.api.generatePasskeyAuthenticationOptions({ headers, returnHeaders: true }),
    );
    pass(made.headers, response);
    response.set('Cache-Control', 'no-store').json({ ...made.response, userVerification: 'required' });
  });

  router.post('/api/auth/passkey/enter', json, async (request: Request, response: Response) => {
    here();
    await limits.take('sending', null, request, response);
    const { response: key } = entered.parse(request.body);
    const headers = fromNodeHeaders(request.headers);
    const made = await given(house, 'wrongPasskey', () =>
      auth.api.verifyPasskeyAuthentication({ body: { response: key }, headers, returnHeaders: true }),
    );
    const { session, user } = made.response;
    if (!house.viewerOf(user.id)) {
      endSession(house.db, session.token);
      throw new Problem(401, 'wrong-code', refused('wrongPasskey'));
    }
    pass(made.headers, response);
    response.set('Cache-Control', 'no-store').json({ signedIn: true });
  });
}
