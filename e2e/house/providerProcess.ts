import { Provider } from 'oidc-provider';

/**
 * A provider of OpenID Connect on this machine, in a process of its own: whoever signs in there says who they are.
 * Its port, the client and where it leads back to stand in the environment.
 */
const { OIDC_PORT = '0', OIDC_BACK = '' } = process.env;

const people: Readonly<Record<string, { email?: string; email_verified?: boolean; name: string }>> = {
  maren: { name: 'Maren', email: 'maren.okafor@skerrow.example', email_verified: true },
  ada: { name: 'Ada', email: 'ada.quillfeather@skerrow.example', email_verified: true },
  // Somebody else, at the provider, who goes by the same address.
  'ada-two': { name: 'Another Ada', email: 'ada.quillfeather@skerrow.example', email_verified: true },
  bram: { name: 'Bram', email: 'BRAM.solheim@skerrow.example', email_verified: true },
  unverified: { name: 'Ilse', email: 'ilse.brandvold@skerrow.example', email_verified: false },
  stranger: { name: 'Stranger', email: 'stranger@elsewhere.example', email_verified: true },
  contact: { name: 'Wim', email: 'wim.haldane@haldane.example', email_verified: true },
  gone: { name: 'Cormac', email: 'cormac.dewhurst@skerrow.example', email_verified: true },
  nameless: { name: 'Nobody' },
};

const provider = new Provider(`http://127.0.0.1:${OIDC_PORT}`, {
  clients: [
    {
      ...{ client_id: 'tolvek', client_secret: 'a secret of the test', redirect_uris: [OIDC_BACK] },
      ...{ grant_types: ['authorization_code'], response_types: ['code'] },
    },
  ],
  claims: { openid: ['sub'], email: ['email', 'email_verified'], profile: ['name'] },
  // Claims stand in the identity token as well, as with most providers.
  conformIdTokenClaims: false,
  pkce: { required: () => true },
  cookies: { keys: ['a key of the test'] },
  findAccount: (_context, id) => ({ accountId: id, claims: () => ({ sub: id, ...people[id] }) }),
});
const server = provider.listen(Number(OIDC_PORT), '127.0.0.1', () => {
  process.send?.('ready');
  console.log('ready');
});
for (const signal of ['SIGINT', 'SIGTERM', 'disconnect'] as const)
  process.on(signal, () => {
    server.closeAllConnections();
    server.close(() => process.exit(0));
  });
