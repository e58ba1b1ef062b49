import { passkey as passkeys } from '@better-auth/passkey';
import { type BetterAuthOptions, betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { APIError } from 'better-auth/api';
import { twoFactor as codesAfterPasswords, genericOAuth } from 'better-auth/plugins';
import { and, eq, ne } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Config } from './config.ts';
import type { Database } from './database.ts';
import { passkeyHost } from './signIn/passkeyHost.ts';
import { discoveryOf, type ProviderRow, secretOf } from './signIn/providers.ts';
import { SESSION_LASTS } from './signIn/session.ts';
import { account, passkey, session, twoFactor, user, verification } from './tables.ts';

export type Auth = ReturnType<typeof createAuth>;

/** What sign-in stands on. */
interface Stands {
  readonly db: Database;
  readonly config: Config;
  readonly log: Logger;
}

const common = ({ db, config, log }: Stands) =>
  ({
    baseURL: config.url,
    secret: config.secret,
    database: drizzleAdapter(db, {
      provider: 'sqlite',
      schema: { user, session, account, verification, twoFactor, passkey },
    }),
    session: { expiresIn: SESSION_LASTS / 1_000 },
    // Wrong tries are counted by our own guard, which knows devices and delays.
    rateLimit: { enabled: false },
    trustedOrigins:
      config.mode === 'demo'
        ? [config.url, `http://localhost:${config.port}`, `http://127.0.0.1:${config.port}`]
        : [config.url],
    advanced: { cookiePrefix: 'tolvek' },
    telemetry: { enabled: false },
    logger: { log: (level, message) => log[level === 'error' ? 'warn' : 'debug']({ signIn: message }, 'signing in') },
  }) satisfies BetterAuthOptions;

/**
 * Sign-in for staff by address and password, and by a code after it where they chose so. Accounts are made by the
 * desk: nobody signs themselves up.
 */
export function createAuth(house: Stands) {
  const { config } = house;
  return betterAuth({
    ...common(house),
    emailAndPassword: { enabled: true, disableSignUp: true },
    plugins: [
      codesAfterPasswords({ issuer: new URL(config.url).host }),
      passkeys({
        rpID: passkeyHost(config) ?? 'localhost',
        rpName: new URL(config.url).host,
        authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
        authentication: {
          // A key in place of password and code: whoever holds the device has shown that it is theirs.
          afterVerification: ({ verification }) => {
            if (!verification.authenticationInfo.userVerified) throw new APIError('UNAUTHORIZED');
          },
        },
      }),
    ],
  });
}

/** What the desk does when a provider proves who somebody is. */
export interface ByProvider {
  /** Whether somebody may come in. */
  readonly mayComeIn: (personId: string) => boolean;
  /** Somebody’s account is the one that a provider knows from now on. */
  readonly linked: (personId: string) => void;
}

/**
 * Sign-in by one provider of OpenID Connect, for staff whose address it has verified. Each has an instance of its
 * own, so that one which does not answer holds up nobody else.
 */
export function createProviderAuth(house: Stands, provider: ProviderRow, does: ByProvider) {
  const { db, config } = house;
  const clientSecret = secretOf(config, provider);
  return betterAuth({
    ...common(house),
    emailAndPassword: { enabled: false },
    account: {
      // What it would let us ask of the provider later is of no use here, and is not kept.
      updateAccountOnSignIn: false,
      accountLinking: { enabled: true, requireLocalEmailVerified: true },
    },
    plugins: [
      genericOAuth({
        config: [
          {
            ...{ providerId: provider.id, name: provider.name, discoveryUrl: discoveryOf(provider.issuer) },
            ...{ clientId: provider.clientId, pkce: true, scopes: ['openid', 'email', 'profile'] },
            ...(clientSecret === null ? { tokenEndpointAuth: { method: 'none' as const } } : { clientSecret }),
            ...{ disableSignUp: true, requireIdTokenVerification: true },
          },
        ],
      }),
    ],
    databaseHooks: {
      account: {
        create: {
          before: async (made) => {
            // Whoever has an address after somebody else is not them: one person, one subject of a provider.
            const other = db
              .select({ id: account.id })
              .from(account)
              .where(
                and(
                  eq(account.userId, made.userId),
                  eq(account.providerId, made.providerId),
                  ne(account.accountId, made.accountId),
                ),
              )
              .get();
            if (other) return false;
            return { data: { ...made, accessToken: null, refreshToken: null, idToken: null } };
          },
          after: async ({ userId }) => does.linked(userId),
        },
      },
      session: { create: { before: async ({ userId }) => (does.mayComeIn(userId) ? undefined : false) } },
    },
  });
}
