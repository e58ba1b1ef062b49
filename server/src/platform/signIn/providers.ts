import { eq } from 'drizzle-orm';
import { z } from 'zod';
import type { Config } from '../config.ts';
import type { Reader, Transaction } from '../database.ts';
import { settings, signInProviders } from '../tables.ts';
import { unseal } from './sealed.ts';

export type ProviderRow = typeof signInProviders.$inferSelect;

export const allProviders = (db: Reader): readonly ProviderRow[] =>
  db.select().from(signInProviders).orderBy(signInProviders.madeAt, signInProviders.id).all();

export const providerById = (db: Reader, id: string): ProviderRow | undefined =>
  db.select().from(signInProviders).where(eq(signInProviders.id, id)).get();

/** Where a provider leads back to. */
export const callbackOf = ({ url }: Pick<Config, 'url'>, id: string): string => `${url}/api/auth/callback/${id}`;

/** Where the discovery document of an issuer stands (OpenID Connect Discovery 1.0, 4). */
export const discoveryOf = (issuer: string): string => `${issuer.replace(/\/+$/, '')}/.well-known/openid-configuration`;

/** The secret of a provider; null where there is none, or it was sealed with another secret of the installation. */
export const secretOf = ({ secret }: Pick<Config, 'secret'>, provider: ProviderRow): string | null =>
  provider.secret === null ? null : unseal(secret, provider.secret);

/** Where it is written down that nobody signs in by a password. */
const PASSWORDS = 'passwords';

export const arePasswordsOff = (db: Reader): boolean =>
  db.select().from(settings).where(eq(settings.key, PASSWORDS)).get()?.value === 'off';

export function setPasswords(tx: Transaction, on: boolean): void {
  const value = on ? 'on' : 'off';
  tx.insert(settings)
    .values({ key: PASSWORDS, value })
    .onConflictDoUpdate({ target: settings.key, set: { value } })
    .run();
}

/** Why a provider can’t be used, as far as its discovery document says. */
export type Unusable = 'unreachable' | 'no-document' | 'other-issuer' | 'not-secure';

const document = z.object({
  issuer: z.string(),
  authorization_endpoint: z.url(),
  token_endpoint: z.url(),
  jwks_uri: z.url(),
});

/** How long a provider may take to answer, ms. */
const PATIENCE = 8_000;

/** Only a provider on this machine is asked without TLS. */
export const isSecure = (address: string): boolean => {
  const { protocol, hostname } = new URL(address);
  return protocol === 'https:' || (protocol === 'http:' && ['127.0.0.1', 'localhost', '[::1]'].includes(hostname));
};

/** Asks a provider for its discovery document; null when all is well. */
export async function tryProvider(issuer: string): Promise<Unusable | null> {
  if (!isSecure(issuer)) return 'not-secure';
  try {
    const answer = await fetch(discoveryOf(issuer), { signal: AbortSignal.timeout(PATIENCE), redirect: 'error' });
    if (!answer.ok) return 'no-document';
    const read = document.safeParse(await answer.json().catch(() => null));
    if (!read.success) return 'no-document';
    const { issuer: named, ...addresses } = read.data;
    // The document says whose it is, or somebody else answers for them (OpenID Connect Discovery 1.0, 4.3).
    if (named.replace(/\/+$/, '') !== issuer.replace(/\/+$/, '')) return 'other-issuer';
    return Object.values(addresses).every(isSecure) ? null : 'not-secure';
  } catch {
    return 'unreachable';
  }
}
