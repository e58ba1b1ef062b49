import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import type { Config } from './config.ts';
import type { Database } from './database.ts';
import { SESSION_LASTS } from './signIn/session.ts';
import { account, session, user, verification } from './tables.ts';

export type Auth = ReturnType<typeof createAuth>;

/**
 * Sign-in for staff by address and password. Accounts are made by the desk: nobody signs themselves
 * up.
 */
export function createAuth(db: Database, config: Config) {
  return betterAuth({
    baseURL: config.url,
    secret: config.secret,
    database: drizzleAdapter(db, { provider: 'sqlite', schema: { user, session, account, verification } }),
    emailAndPassword: { enabled: true, disableSignUp: true },
    session: { expiresIn: SESSION_LASTS / 1_000 },
    // Wrong tries are counted by our own guard, which knows devices and delays.
    rateLimit: { enabled: false },
    trustedOrigins:
      config.mode === 'demo'
        ? [config.url, `http://localhost:${config.port}`, `http://127.0.0.1:${config.port}`]
        : [config.url],
    advanced: { cookiePrefix: 'tolvek' },
    telemetry: { enabled: false },
  });
}
