import type { IncomingHttpHeaders } from 'node:http';
import type { Viewer } from '@tolvek/core/people';
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { fromNodeHeaders } from 'better-auth/node';
import { viewerOf } from '../people/queries.ts';
import type { Config } from './config.ts';
import type { Database } from './database.ts';
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
    session: { expiresIn: 14 * 24 * 3600, cookieCache: { enabled: true, maxAge: 60 } },
    rateLimit: { enabled: config.mode === 'production' },
    trustedOrigins:
      config.mode === 'demo'
        ? [config.url, `http://localhost:${config.port}`, `http://127.0.0.1:${config.port}`]
        : [config.url],
    advanced: { cookiePrefix: 'tolvek' },
    telemetry: { enabled: false },
  });
}

/** Who is calling, or null. A person who was made inactive counts as nobody at once. */
export async function callerOf(auth: Auth, db: Database, headers: IncomingHttpHeaders): Promise<Viewer | null> {
  if (!headers.cookie) return null;
  const found = await auth.api.getSession({ headers: fromNodeHeaders(headers) });
  return found ? viewerOf(db, found.user.id) : null;
}
