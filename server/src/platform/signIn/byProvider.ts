import { wayBack } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { fromNodeHeaders } from 'better-auth/node';
import type { Request, Response, Router } from 'express';
import { type ByProvider, createProviderAuth } from '../auth.ts';
import type { House } from '../house.ts';
import type { Limits } from '../limits.ts';
import { patiently } from '../patience.ts';
import { notFound, Problem } from '../problem.ts';
import { type ProviderRow, providerById } from './providers.ts';
import { pass } from './session.ts';

/** Why somebody whom a provider led back could not come in, as the sign-in page tells it. */
const WHY: Readonly<Record<string, string>> = {
  ...{ signup_disabled: 'unknown', account_not_linked: 'unverified', unable_to_link_account: 'other' },
  ...{
    email_not_found: 'no-address',
    access_denied: 'cancelled',
    state_mismatch: 'late',
    please_restart_the_process: 'late',
  },
  ...{ state_not_found: 'late', unable_to_create_session: 'unknown' },
};

type Providing = ReturnType<typeof createProviderAuth>;

/** Sign-in by providers of OpenID Connect: the way there, and the way back. */
export function byProvider(router: Router, house: House, limits: Limits, linked: (id: string, name: string) => void) {
  const made = new Map<string, { readonly row: string; readonly auth: Providing }>();
  /** What signs in by a provider as it is set now. */
  const providing = (row: ProviderRow): Providing => {
    const known = made.get(row.id);
    if (known?.row === JSON.stringify(row)) return known.auth;
    const does: ByProvider = {
      // Contacts have a way of their own.
      mayComeIn: (id) => house.viewerOf(id)?.kind === 'staff',
      linked: (id) => linked(id, row.name),
    };
    const auth = createProviderAuth(house, row, does);
    made.set(row.id, { row: JSON.stringify(row), auth });
    return auth;
  };
  const asked = (request: Request): ProviderRow => {
    const row = providerById(house.db, String(request.params.provider));
    if (!row?.active) throw notFound('provider');
    return row;
  };

  router.get('/api/auth/by/:provider', async (request: Request, response: Response) => {
    await limits.take('sending', null, request, response);
    const row = asked(request);
    const back = wayBack(String(request.query.back ?? ''));
    const given = await patiently(house, async () => {
      try {
        return await providing(row).api.signInSocial({
          body: {
            provider: row.id,
            callbackURL: back,
            errorCallbackURL: '/sign-in',
            disableRedirect: true,
          },
          headers: fromNodeHeaders(request.headers),
          returnHeaders: true,
        });
      } catch (error) {
        // Whom it should lead to does not answer, or not as a provider.
        if (error instanceof Error && 'statusCode' in error) return null;
        throw error;
      }
    });
    const to = given && 'url' in given.response ? given.response.url : undefined;
    if (!given || !to) {
      response.redirect(302, '/sign-in?error=unreachable');
      return;
    }
    pass(given.headers, response);
    response.set('Cache-Control', 'no-store').redirect(302, to);
  });

  router.get('/api/auth/callback/:provider', async (request: Request, response: Response) => {
    await limits.take('sending', null, request, response);
    const row = asked(request);
    const address = new URL(request.originalUrl, house.config.url);
    const headers = fromNodeHeaders(request.headers);
    const answer = await patiently(house, () => providing(row).handler(new Request_(address, { headers })));
    const to = answer.headers.get('location');
    if (to === null) throw new Problem(502, 'provider', refused('providerFailed'));
    pass(answer.headers, response);
    response.set('Cache-Control', 'no-store').redirect(302, inWords(to, house.config.url));
  });
}

/** Of the web, as the sign-in library takes it; the other one is Express’s. */
const Request_ = globalThis.Request;

/** An address to go to, with the reason as the sign-in page tells it. */
function inWords(to: string, url: string): string {
  const { pathname, search, searchParams } = new URL(to, url);
  const code = searchParams.get('error');
  if (code === null) return `${pathname}${search}`;
  return `/sign-in?error=${WHY[code.toLowerCase()] ?? 'other'}`;
}
