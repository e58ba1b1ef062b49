import { isIP } from 'node:net';
import type { Config } from '../config.ts';

/**
 * The host that keys of devices are for (WebAuthn, *relying party identifier*): a name, never a number. Null where
 * the application has none. On a machine of one's own it is `localhost`.
 */
export function passkeyHost({ url }: Pick<Config, 'url'>): string | null {
  const { hostname } = new URL(url);
  if (hostname === '127.0.0.1' || hostname === '[::1]') return 'localhost';
  return isIP(hostname.replace(/^\[|\]$/g, '')) === 0 ? hostname : null;
}
