/**
 * The host of an address that somebody may be led to: HTTPS, a host that the desk allows (`forms.example` allows itself and
 * what ends in `.forms.example`), no name or password before it and no other port. Null for any other address.
 */
export function hostAllowed(address: string, hosts: readonly string[]): string | null {
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    return null;
  }
  const { protocol, hostname, port, username, password } = url;
  if (protocol !== 'https:' || port !== '' || username !== '' || password !== '') return null;
  const isAllowed = hosts.some((host) => hostname === host || hostname.endsWith(`.${host}`));
  return isAllowed ? hostname : null;
}

/**
 * Whether a text is the origin of pages that may show something of ours in a frame (RFC 6454): HTTPS, a host and perhaps a
 * port, and nothing after it; plain HTTP on this very machine alone.
 */
export function isOrigin(text: string): boolean {
  const [, scheme, host = '', port] = /^(https?):\/\/([a-z0-9.-]+)(?::(\d{1,5}))?$/.exec(text) ?? [];
  const isHere = host === 'localhost' || host === '127.0.0.1';
  const isPort = port === undefined || (Number(port) > 0 && Number(port) < 65_536);
  return isPort && (isHere || (scheme === 'https' && isHost(host)));
}

/** Whether a text can be the host of an address: labels of letters, figures and hyphens (RFC 1123), at least two of them. */
export const isHost = (text: string): boolean =>
  text.length <= 253 && /^(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z][a-z0-9-]{0,61}[a-z0-9]$/.test(text);
