import { addressOf } from '@tolvek/demo';
import { DEMO_PASSWORD } from '@tolvek/server';

/** The cookies of somebody who signed in at a desk, by name. */
export async function signedIn(url: string, name: string): Promise<string> {
  const response = await fetch(`${url}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify({ email: addressOf(name), password: DEMO_PASSWORD }),
  });
  if (!response.ok) throw new Error(`${name} could not sign in: ${await response.text()}`);
  return response.headers
    .getSetCookie()
    .map((each) => each.split(';')[0])
    .join('; ');
}
