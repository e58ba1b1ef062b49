import type { AnswerOf } from '@tolvek/contract';
import { api } from './api.ts';
import { type Asked, call } from './call.ts';

/** Who is signed in, and coming and going. */
export const meApi = api.injectEndpoints({
  endpoints: (build) => ({
    me: build.query<AnswerOf<'me'>, Asked<'me'>>({ query: call('me'), providesTags: ['me'] }),
    setLanguage: build.mutation<AnswerOf<'setLanguage'>, Asked<'setLanguage'>>({
      query: call('setLanguage'),
      invalidatesTags: ['me'],
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
