import type { PublicKeyCredentialCreationOptionsJSON } from '@simplewebauthn/browser';
import type { AnswerOf } from '@tolvek/contract';
import { api } from '../wire/api.ts';
import type { Asked } from '../wire/call.ts';
import { call } from '../wire/callAny.ts';
import { STOPPED } from '../wire/stopped.ts';

/** The first start, and what leads people in. */
export const startApi = api.injectEndpoints({
  endpoints: (build) => ({
    signInWays: build.query<AnswerOf<'signInWays'>, Asked<'signInWays'>>({ query: call('signInWays') }),
    ownEmails: build.query<AnswerOf<'ownEmails'>, void>({ query: call('ownEmails'), providesTags: ['me'] }),
    setOwnEmails: build.mutation<AnswerOf<'setOwnEmails'>, Asked<'setOwnEmails'>>({
      query: call('setOwnEmails'),
      invalidatesTags: ['me'],
    }),
    setOwnPortrait: build.mutation<AnswerOf<'setOwnPortrait'>, Asked<'setOwnPortrait'>>({
      query: call('setOwnPortrait'),
      invalidatesTags: ['me', 'people'],
    }),
    addPasskey: build.mutation<null, { name: string }>({
      // The options, the device's answer to them, and what is made of it: one step for whoever asks.
      async queryFn({ name }, _api, _extra, fetch) {
        const begun = await fetch({ url: '/api/auth/passkey/begin-add', method: 'POST', body: {} });
        if (begun.error) return { error: begun.error };
        const { startRegistration } = await import('@simplewebauthn/browser');
        const optionsJSON = begun.data as PublicKeyCredentialCreationOptionsJSON;
        const response = await startRegistration({ optionsJSON }).catch(() => null);
        if (!response) return { error: STOPPED };
        const added = await fetch({ url: '/api/auth/passkey/add', method: 'POST', body: { name, response } });
        return added.error ? { error: added.error } : { data: null };
      },
      invalidatesTags: ['me'],
    }),
    endPasskey: build.mutation<AnswerOf<'endPasskey'>, Asked<'endPasskey'>>({
      query: call('endPasskey'),
      invalidatesTags: ['me'],
    }),
    beginCode: build.mutation<{ uri: string; spare: readonly string[] }, { password: string }>({
      query: (body) => ({ url: '/api/auth/code/begin', method: 'POST', body }),
    }),
    confirmCode: build.mutation<unknown, { code: string }>({
      query: (body) => ({ url: '/api/auth/code/confirm', method: 'POST', body }),
      invalidatesTags: ['me'],
    }),
    endCode: build.mutation<unknown, { password: string }>({
      query: (body) => ({ url: '/api/auth/code/end', method: 'POST', body }),
      invalidatesTags: ['me'],
    }),
    firstStart: build.query<AnswerOf<'firstStart'>, Asked<'firstStart'>>({
      query: call('firstStart'),
      keepUnusedDataFor: 0,
    }),
    layGround: build.mutation<AnswerOf<'layGround'>, Asked<'layGround'>>({ query: call('layGround') }),
    invitation: build.query<AnswerOf<'invitation'>, Asked<'invitation'>>({
      query: call('invitation'),
      keepUnusedDataFor: 0,
    }),
    forgotPassword: build.mutation<AnswerOf<'forgotPassword'>, Asked<'forgotPassword'>>({
      query: call('forgotPassword'),
    }),
    askForCode: build.mutation<AnswerOf<'askForCode'>, Asked<'askForCode'>>({ query: call('askForCode') }),
    signInByCode: build.mutation<AnswerOf<'signInByCode'>, Asked<'signInByCode'>>({
      query: call('signInByCode'),
      invalidatesTags: ['me', 'desk', 'mine'],
    }),
    signInByLink: build.mutation<AnswerOf<'signInByLink'>, Asked<'signInByLink'>>({
      query: call('signInByLink'),
      invalidatesTags: ['me', 'desk', 'mine'],
    }),
    account: build.query<AnswerOf<'account'>, Asked<'account'>>({
      query: call('account'),
      providesTags: ['me'],
      keepUnusedDataFor: 0,
    }),
    changePassword: build.mutation<AnswerOf<'changePassword'>, Asked<'changePassword'>>({
      query: call('changePassword'),
      invalidatesTags: ['me'],
    }),
    endSession: build.mutation<AnswerOf<'endSession'>, Asked<'endSession'>>({
      query: call('endSession'),
      invalidatesTags: ['me'],
    }),
    colleagues: build.query<AnswerOf<'colleagues'>, Asked<'colleagues'>>({
      query: call('colleagues'),
      keepUnusedDataFor: 30,
    }),
    addOwnAbsence: build.mutation<AnswerOf<'addOwnAbsence'>, Asked<'addOwnAbsence'>>({
      query: call('addOwnAbsence'),
      invalidatesTags: ['me', 'people'],
    }),
    endOwnAbsence: build.mutation<AnswerOf<'endOwnAbsence'>, Asked<'endOwnAbsence'>>({
      query: call('endOwnAbsence'),
      invalidatesTags: ['me', 'people'],
    }),
    acceptInvitation: build.mutation<AnswerOf<'acceptInvitation'>, Asked<'acceptInvitation'>>({
      query: call('acceptInvitation'),
    }),
  }),
});
