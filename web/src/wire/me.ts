import type { PublicKeyCredentialRequestOptionsJSON } from '@simplewebauthn/browser';
import type { AnswerOf } from '@tolvek/contract';
import { api } from './api.ts';
import { type Asked, call } from './call.ts';
import { STOPPED } from './stopped.ts';

/** Who is signed in, and coming and going. */
export const meApi = api.injectEndpoints({
  endpoints: (build) => ({
    me: build.query<AnswerOf<'me'>, Asked<'me'>>({ query: call('me'), providesTags: ['me'] }),
    setLanguage: build.mutation<AnswerOf<'setLanguage'>, Asked<'setLanguage'>>({
      query: call('setLanguage'),
      invalidatesTags: ['me'],
    }),
    signInByPasskey: build.mutation<null, void>({
      async queryFn(_none, _api, _extra, fetch) {
        const begun = await fetch({ url: '/api/auth/passkey/begin', method: 'POST', body: {} });
        if (begun.error) return { error: begun.error };
        const { startAuthentication } = await import('@simplewebauthn/browser');
        const optionsJSON = begun.data as PublicKeyCredentialRequestOptionsJSON;
        const response = await startAuthentication({ optionsJSON }).catch(() => null);
        if (!response) return { error: STOPPED };
        const entered = await fetch({ url: '/api/auth/passkey/enter', method: 'POST', body: { response } });
        return entered.error ? { error: entered.error } : { data: null };
      },
      invalidatesTags: ['me', 'desk', 'mine', 'ledger', 'sheet', 'forms', 'form'],
    }),
    sendCode: build.mutation<unknown, { code: string; trust: boolean }>({
      query: (body) => ({ url: '/api/auth/sign-in/code', method: 'POST', body }),
      invalidatesTags: ['me', 'desk', 'mine', 'ledger', 'sheet', 'forms', 'form'],
    }),
    signIn: build.mutation<{ needsCode?: boolean }, { email: string; password: string }>({
      query: (body) => ({ url: '/api/auth/sign-in/email', method: 'POST', body }),
      invalidatesTags: ['me', 'desk', 'mine', 'ledger', 'sheet', 'forms', 'form'],
    }),
    signOut: build.mutation<unknown, void>({
      query: () => ({ url: '/api/auth/sign-out', method: 'POST', body: {} }),
      invalidatesTags: ['me', 'desk', 'mine', 'ledger', 'sheet', 'forms', 'form'],
    }),
  }),
});
