import { createApi, type FetchBaseQueryError, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import type { AnswerOf, BodyOf, ParamsOf, ProblemDocument, QueryOf, RouteName, Routes } from '@tolvek/contract';

/**
 * The address of a route of the contract. The path is checked against the contract by the compiler,
 * at no cost in the browser.
 */
function address<N extends RouteName>(
  path: Routes[N]['path'],
  params: ParamsOf<N>,
  query: Readonly<Record<string, string | undefined>> = {},
): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String((params as Record<string, unknown>)[name] ?? '')),
  );
  const asked = new URLSearchParams(
    Object.entries(query).filter((entry): entry is [string, string] => Boolean(entry[1])),
  );
  return asked.size > 0 ? `${filled}?${asked}` : filled;
}

type OnVersion = { readonly version: number };
type WithKey = { readonly key: string };
const ifMatch = (version: number) => ({ 'If-Match': `"${version}"` });
const once = (key: string) => ({ 'Idempotency-Key': key });

export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/' }),
  tagTypes: ['me', 'desk', 'ledger', 'sheet', 'mine', 'forms', 'form', 'register', 'vocabulary', 'mail'],
  endpoints: (build) => ({
    me: build.query<AnswerOf<'me'>, void>({ query: () => address<'me'>('/api/me', {}), providesTags: ['me'] }),
    signIn: build.mutation<unknown, { email: string; password: string }>({
      query: (body) => ({ url: '/api/auth/sign-in/email', method: 'POST', body }),
      invalidatesTags: ['me', 'desk', 'mine', 'ledger', 'sheet', 'forms', 'form'],
    }),
    signOut: build.mutation<unknown, void>({
      query: () => ({ url: '/api/auth/sign-out', method: 'POST', body: {} }),
      invalidatesTags: ['me', 'desk', 'mine', 'ledger', 'sheet', 'forms', 'form'],
    }),
    sendFailedAgain: build.mutation<AnswerOf<'sendFailedAgain'>, void>({
      query: () => ({ url: address<'sendFailedAgain'>('/api/letters/again', {}), method: 'POST', body: {} }),
      invalidatesTags: ['ledger', 'mail'],
    }),
    advanceClock: build.mutation<AnswerOf<'advanceClock'>, BodyOf<'advanceClock'>>({
      query: (body) => ({ url: address<'advanceClock'>('/api/demo/clock', {}), method: 'POST', body }),
      invalidatesTags: ['me', 'ledger', 'sheet', 'mail', 'desk', 'mine'],
    }),

    frontDesk: build.query<AnswerOf<'frontDesk'>, void>({
      query: () => address<'frontDesk'>('/api/desk', {}),
      providesTags: ['desk'],
    }),
    door: build.query<AnswerOf<'door'>, ParamsOf<'door'>>({
      query: (params) => address<'door'>('/api/doors/:slug', params),
      keepUnusedDataFor: 0,
    }),
    checkAnswers: build.mutation<AnswerOf<'checkAnswers'>, ParamsOf<'checkAnswers'> & BodyOf<'checkAnswers'>>({
      query: ({ slug, ...body }) => ({
        url: address<'checkAnswers'>('/api/doors/:slug/checks', { slug }),
        method: 'POST',
        body,
      }),
    }),
    submit: build.mutation<AnswerOf<'submit'>, ParamsOf<'submit'> & WithKey & { body: BodyOf<'submit'> }>({
      query: ({ slug, key, body }) => ({
        url: address<'submit'>('/api/doors/:slug/requests', { slug }),
        method: 'POST',
        headers: once(key),
        body,
      }),
      invalidatesTags: ['desk', 'ledger'],
    }),
    confirmation: build.query<AnswerOf<'confirmation'>, ParamsOf<'confirmation'>>({
      query: (params) => address<'confirmation'>('/api/confirmations/:token', params),
    }),
    confirm: build.mutation<AnswerOf<'confirm'>, ParamsOf<'confirm'>>({
      query: (params) => ({ url: address<'confirm'>('/api/confirmations/:token', params), method: 'POST', body: {} }),
    }),
    backToAnswers: build.mutation<AnswerOf<'backToAnswers'>, ParamsOf<'backToAnswers'>>({
      query: (params) => ({
        url: address<'backToAnswers'>('/api/confirmations/:token/answers', params),
        method: 'POST',
        body: {},
      }),
    }),
    follow: build.query<AnswerOf<'follow'>, ParamsOf<'follow'>>({
      query: (params) => address<'follow'>('/api/follow/:token', params),
      providesTags: ['mine'],
    }),
    followMessage: build.mutation<AnswerOf<'followMessage'>, ParamsOf<'followMessage'> & BodyOf<'followMessage'>>({
      query: ({ token, ...body }) => ({
        url: address<'followMessage'>('/api/follow/:token/messages', { token }),
        method: 'POST',
        body,
      }),
      invalidatesTags: ['mine'],
    }),
    myRequest: build.query<AnswerOf<'myRequest'>, ParamsOf<'myRequest'>>({
      query: (params) => address<'myRequest'>('/api/my/requests/:number', params),
      providesTags: ['mine'],
    }),
    myMessage: build.mutation<AnswerOf<'myMessage'>, ParamsOf<'myMessage'> & BodyOf<'myMessage'>>({
      query: ({ number, ...body }) => ({
        url: address<'myMessage'>('/api/my/requests/:number/messages', { number }),
        method: 'POST',
        body,
      }),
      invalidatesTags: ['mine'],
    }),

    trays: build.query<AnswerOf<'trays'>, void>({
      query: () => address<'trays'>('/api/trays', {}),
      providesTags: ['ledger'],
    }),
    ledger: build.infiniteQuery<
      AnswerOf<'ledger'>,
      { tray: NonNullable<QueryOf<'ledger'>['tray']>; find: string },
      string
    >({
      query: ({ queryArg, pageParam }) =>
        address<'ledger'>('/api/requests', {}, { tray: queryArg.tray, find: queryArg.find, after: pageParam }),
      infiniteQueryOptions: { initialPageParam: '', getNextPageParam: (last) => last.next ?? undefined },
      providesTags: ['ledger'],
    }),
    sheet: build.query<AnswerOf<'sheet'>, ParamsOf<'sheet'>>({
      query: (params) => address<'sheet'>('/api/requests/:number', params),
      providesTags: ['sheet'],
    }),
    changeFields: build.mutation<
      AnswerOf<'changeFields'>,
      ParamsOf<'changeFields'> & OnVersion & BodyOf<'changeFields'>
    >({
      query: ({ number, version, changes }) => ({
        url: address<'changeFields'>('/api/requests/:number/fields', { number }),
        method: 'PATCH',
        headers: ifMatch(version),
        body: { changes },
      }),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    moveStage: build.mutation<AnswerOf<'moveStage'>, ParamsOf<'moveStage'> & OnVersion & BodyOf<'moveStage'>>({
      query: ({ number, version, stage }) => ({
        url: address<'moveStage'>('/api/requests/:number/stage', { number }),
        method: 'POST',
        headers: ifMatch(version),
        body: { stage },
      }),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    freeRequest: build.mutation<AnswerOf<'freeRequest'>, ParamsOf<'freeRequest'> & OnVersion & BodyOf<'freeRequest'>>({
      query: ({ number, version, ...body }) => ({
        url: address<'freeRequest'>('/api/requests/:number/freeing', { number }),
        method: 'POST',
        headers: ifMatch(version),
        body,
      }),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    reroute: build.mutation<AnswerOf<'reroute'>, ParamsOf<'reroute'> & OnVersion & BodyOf<'reroute'>>({
      query: ({ number, version, ...body }) => ({
        url: address<'reroute'>('/api/requests/:number/routing', { number }),
        method: 'POST',
        headers: ifMatch(version),
        body,
      }),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    assign: build.mutation<AnswerOf<'assign'>, ParamsOf<'assign'> & OnVersion & BodyOf<'assign'>>({
      query: ({ number, version, person }) => ({
        url: address<'assign'>('/api/requests/:number/handler', { number }),
        method: 'POST',
        headers: ifMatch(version),
        body: { person },
      }),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    comment: build.mutation<AnswerOf<'comment'>, ParamsOf<'comment'> & BodyOf<'comment'>>({
      query: ({ number, ...body }) => ({
        url: address<'comment'>('/api/requests/:number/comments', { number }),
        method: 'POST',
        body,
      }),
      invalidatesTags: ['sheet'],
    }),
    decide: build.mutation<AnswerOf<'decide'>, ParamsOf<'decide'> & WithKey & BodyOf<'decide'>>({
      query: ({ number, key, ...body }) => ({
        url: address<'decide'>('/api/requests/:number/decision', { number }),
        method: 'POST',
        headers: once(key),
        body,
      }),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    decisionLink: build.query<AnswerOf<'decisionLink'>, ParamsOf<'decisionLink'>>({
      query: (params) => address<'decisionLink'>('/api/decisions/:token', params),
      providesTags: ['sheet'],
      keepUnusedDataFor: 0,
    }),
    decideByLink: build.mutation<AnswerOf<'decideByLink'>, ParamsOf<'decideByLink'> & WithKey & BodyOf<'decideByLink'>>(
      {
        query: ({ token, key, ...body }) => ({
          url: address<'decideByLink'>('/api/decisions/:token', { token }),
          method: 'POST',
          headers: once(key),
          body,
        }),
        // What changed meanwhile is shown again before anything is decided.
        invalidatesTags: (_decided, error) => (error ? ['sheet'] : []),
      },
    ),

    offers: build.mutation<AnswerOf<'offers'>, ParamsOf<'offers'> & BodyOf<'offers'>>({
      query: ({ slug, ...body }) => ({
        url: address<'offers'>('/api/doors/:slug/offers', { slug }),
        method: 'POST',
        body,
      }),
    }),
    keepAnswers: build.mutation<AnswerOf<'keepAnswers'>, ParamsOf<'keepAnswers'> & BodyOf<'keepAnswers'>>({
      query: ({ slug, ...body }) => ({
        url: address<'keepAnswers'>('/api/doors/:slug/kept', { slug }),
        method: 'PUT',
        body,
      }),
      invalidatesTags: ['desk'],
    }),
    sendKept: build.mutation<AnswerOf<'sendKept'>, ParamsOf<'sendKept'> & BodyOf<'sendKept'>>({
      query: ({ slug, ...body }) => ({
        url: address<'sendKept'>('/api/doors/:slug/kept', { slug }),
        method: 'POST',
        body,
      }),
    }),
    kept: build.query<AnswerOf<'kept'>, ParamsOf<'kept'>>({
      query: (params) => address<'kept'>('/api/kept/:token', params),
      keepUnusedDataFor: 0,
    }),
    keepKept: build.mutation<AnswerOf<'keepKept'>, ParamsOf<'keepKept'> & BodyOf<'keepKept'>>({
      query: ({ token, ...body }) => ({ url: address<'keepKept'>('/api/kept/:token', { token }), method: 'PUT', body }),
    }),
    sheetOffers: build.mutation<AnswerOf<'sheetOffers'>, ParamsOf<'sheetOffers'> & BodyOf<'sheetOffers'>>({
      query: ({ number, ...body }) => ({
        url: address<'sheetOffers'>('/api/requests/:number/offers', { number }),
        method: 'POST',
        body,
      }),
    }),
    draftOffers: build.mutation<AnswerOf<'draftOffers'>, ParamsOf<'draftOffers'> & BodyOf<'draftOffers'>>({
      query: ({ key, ...body }) => ({
        url: address<'draftOffers'>('/api/forms/:key/offers', { key }),
        method: 'POST',
        body,
      }),
    }),
    vocabularies: build.query<AnswerOf<'vocabularies'>, void>({
      query: () => address<'vocabularies'>('/api/vocabularies', {}),
      providesTags: ['forms'],
    }),
    vocabulary: build.query<AnswerOf<'vocabulary'>, ParamsOf<'vocabulary'>>({
      query: (params) => address<'vocabulary'>('/api/vocabularies/:key', params),
      keepUnusedDataFor: 0,
      providesTags: ['vocabulary'],
    }),
    createVocabulary: build.mutation<AnswerOf<'createVocabulary'>, BodyOf<'createVocabulary'> & WithKey>({
      query: ({ key, ...body }) => ({
        url: address<'createVocabulary'>('/api/vocabularies', {}),
        method: 'POST',
        headers: once(key),
        body,
      }),
      invalidatesTags: ['forms', 'form'],
    }),
    saveVocabulary: build.mutation<
      AnswerOf<'saveVocabulary'>,
      ParamsOf<'saveVocabulary'> & OnVersion & BodyOf<'saveVocabulary'>
    >({
      query: ({ key, version, ...body }) => ({
        url: address<'saveVocabulary'>('/api/vocabularies/:key', { key }),
        method: 'PUT',
        headers: ifMatch(version),
        body,
      }),
      invalidatesTags: ['forms', 'form', 'ledger', 'sheet', 'desk'],
    }),

    forms: build.query<AnswerOf<'forms'>, void>({
      query: () => address<'forms'>('/api/forms', {}),
      providesTags: ['forms'],
    }),
    form: build.query<AnswerOf<'form'>, ParamsOf<'form'>>({
      query: (params) => address<'form'>('/api/forms/:key', params),
      providesTags: ['form'],
      keepUnusedDataFor: 0,
    }),
    ground: build.query<AnswerOf<'ground'>, void>({ query: () => address<'ground'>('/api/ground', {}) }),
    createForm: build.mutation<AnswerOf<'createForm'>, BodyOf<'createForm'> & { once: string }>({
      query: ({ once: key, ...body }) => ({
        url: address<'createForm'>('/api/forms', {}),
        method: 'POST',
        headers: once(key),
        body,
      }),
      invalidatesTags: ['forms'],
    }),
    saveDraft: build.mutation<AnswerOf<'saveDraft'>, ParamsOf<'saveDraft'> & OnVersion & BodyOf<'saveDraft'>>({
      query: ({ key, version, draft }) => ({
        url: address<'saveDraft'>('/api/forms/:key/draft', { key }),
        method: 'PUT',
        headers: ifMatch(version),
        body: { draft },
      }),
      invalidatesTags: ['forms'],
    }),
    releaseForm: build.mutation<AnswerOf<'releaseForm'>, ParamsOf<'releaseForm'> & OnVersion & BodyOf<'releaseForm'>>({
      query: ({ key, version, ...body }) => ({
        url: address<'releaseForm'>('/api/forms/:key/releases', { key }),
        method: 'POST',
        headers: ifMatch(version),
        body,
      }),
      invalidatesTags: ['forms', 'form', 'register', 'desk', 'ledger', 'sheet'],
    }),
    recomputation: build.query<AnswerOf<'recomputation'>, ParamsOf<'recomputation'>>({
      query: (params) => ({
        url: address<'recomputation'>('/api/forms/:key/recomputation', params),
        method: 'POST',
        body: {},
      }),
      keepUnusedDataFor: 0,
    }),
    doubles: build.query<AnswerOf<'doubles'>, ParamsOf<'doubles'>>({
      query: (params) => address<'doubles'>('/api/registers/:key/doubles', params),
      providesTags: ['register', 'ledger', 'sheet'],
    }),
    register: build.query<AnswerOf<'register'>, ParamsOf<'register'>>({
      query: (params) => address<'register'>('/api/registers/:key', params),
      providesTags: ['register'],
      keepUnusedDataFor: 0,
    }),
    changeRegister: build.mutation<
      AnswerOf<'changeRegister'>,
      ParamsOf<'changeRegister'> & OnVersion & { body: BodyOf<'changeRegister'> }
    >({
      query: ({ key, version, body }) => ({
        url: address<'changeRegister'>('/api/registers/:key', { key }),
        method: 'PUT',
        headers: ifMatch(version),
        body,
      }),
      invalidatesTags: ['register', 'forms', 'form', 'ledger', 'sheet', 'mine'],
    }),
    goBackToState: build.mutation<AnswerOf<'goBackToState'>, { key: string; number: number } & OnVersion>({
      query: ({ key, number, version }) => ({
        url: address<'goBackToState'>('/api/registers/:key/states/:number', { key, number }),
        method: 'POST',
        headers: ifMatch(version),
        body: {},
      }),
      invalidatesTags: ['register', 'forms', 'form', 'ledger', 'sheet', 'mine'],
    }),
    askInto: build.mutation<AnswerOf<'askInto'>, ParamsOf<'askInto'> & { once: string; body: BodyOf<'askInto'> }>({
      query: ({ key, once: token, body }) => ({
        url: address<'askInto'>('/api/registers/:key/forms', { key }),
        method: 'POST',
        headers: once(token),
        body,
      }),
      invalidatesTags: ['forms', 'register'],
    }),
    duplicateForm: build.mutation<
      AnswerOf<'duplicateForm'>,
      ParamsOf<'duplicateForm'> & { once: string } & BodyOf<'duplicateForm'>
    >({
      query: ({ key, once: token, ...body }) => ({
        url: address<'duplicateForm'>('/api/forms/:key/duplicate', { key }),
        method: 'POST',
        headers: once(token),
        body,
      }),
      invalidatesTags: ['forms', 'register'],
    }),
    setFormState: build.mutation<AnswerOf<'setFormState'>, ParamsOf<'setFormState'> & BodyOf<'setFormState'>>({
      query: ({ key, ...body }) => ({
        url: address<'setFormState'>('/api/forms/:key/state', { key }),
        method: 'PUT',
        body,
      }),
      invalidatesTags: ['forms', 'register', 'desk'],
    }),
    takeInRows: build.mutation<AnswerOf<'takeInRows'>, { key: string; once: string; body: BodyOf<'takeInRows'> }>({
      query: ({ key, once: token, body }) => ({
        url: address<'takeInRows'>('/api/forms/:key/rows', { key }),
        method: 'POST',
        headers: once(token),
        body,
      }),
      invalidatesTags: ['ledger', 'forms'],
    }),
    sendTrial: build.mutation<AnswerOf<'sendTrial'>, { form: string; once: string; body: BodyOf<'sendTrial'> }>({
      query: ({ form, once: key, body }) => ({
        url: address<'sendTrial'>('/api/forms/:key/trials', { key: form }),
        method: 'POST',
        headers: once(key),
        body,
      }),
      invalidatesTags: ['form'],
    }),
    allowWay: build.mutation<AnswerOf<'allowWay'>, { form: string; once: string; body: BodyOf<'allowWay'> }>({
      query: ({ form, once: key, body }) => ({
        url: address<'allowWay'>('/api/forms/:key/disclosures', { key: form }),
        method: 'POST',
        headers: once(key),
        body,
      }),
      invalidatesTags: ['form', 'forms'],
    }),
    endWay: build.mutation<AnswerOf<'endWay'>, ParamsOf<'endWay'>>({
      query: (params) => ({
        url: address<'endWay'>('/api/forms/:key/disclosures/:id/end', params),
        method: 'POST',
        body: {},
      }),
      invalidatesTags: ['form', 'forms'],
    }),
    protectAlike: build.mutation<AnswerOf<'protectAlike'>, ParamsOf<'protectAlike'> & BodyOf<'protectAlike'>>({
      query: ({ key, ...body }) => ({
        url: address<'protectAlike'>('/api/forms/:key/protects', { key }),
        method: 'POST',
        body,
      }),
      invalidatesTags: ['form', 'forms'],
    }),
    clearTrials: build.mutation<AnswerOf<'clearTrials'>, ParamsOf<'clearTrials'>>({
      query: (params) => ({
        url: address<'clearTrials'>('/api/forms/:key/trials/clear', params),
        method: 'POST',
        body: {},
      }),
      invalidatesTags: ['form'],
    }),
    draftHistory: build.query<AnswerOf<'draftHistory'>, ParamsOf<'draftHistory'>>({
      query: (params) => address<'draftHistory'>('/api/forms/:key/draft/history', params),
      keepUnusedDataFor: 0,
    }),
    takeRunBack: build.mutation<AnswerOf<'takeRunBack'>, ParamsOf<'takeRunBack'>>({
      query: (params) => ({
        url: address<'takeRunBack'>('/api/forms/:key/runs/:run/back', params),
        method: 'POST',
        body: {},
      }),
      invalidatesTags: ['ledger', 'sheet'],
    }),
    overExisting: build.mutation<AnswerOf<'overExisting'>, ParamsOf<'overExisting'> & BodyOf<'overExisting'>>({
      query: ({ key, rule, ...body }) => ({
        url: address<'overExisting'>('/api/forms/:key/rules/:rule/existing', { key, rule }),
        method: 'POST',
        body,
      }),
      invalidatesTags: ['ledger', 'sheet'],
    }),
    compareRelease: build.query<AnswerOf<'compareRelease'>, { key: string; number: number }>({
      query: ({ key, number }) => address<'compareRelease'>('/api/forms/:key/releases/:number', { key, number }),
      keepUnusedDataFor: 0,
    }),
    job: build.query<AnswerOf<'job'>, ParamsOf<'job'>>({
      query: (params) => address<'job'>('/api/jobs/:id', params),
      keepUnusedDataFor: 0,
    }),
    stopJob: build.mutation<AnswerOf<'stopJob'>, ParamsOf<'stopJob'>>({
      query: (params) => ({ url: address<'stopJob'>('/api/jobs/:id/stop', params), method: 'POST', body: {} }),
    }),
    tryCondition: build.query<AnswerOf<'tryCondition'>, ParamsOf<'tryCondition'> & BodyOf<'tryCondition'>>({
      query: ({ key, ...body }) => ({
        url: address<'tryCondition'>('/api/forms/:key/tries', { key }),
        method: 'POST',
        body,
      }),
      keepUnusedDataFor: 30,
    }),
    setDoor: build.mutation<AnswerOf<'setDoor'>, ParamsOf<'setDoor'> & BodyOf<'setDoor'>>({
      query: ({ slug, ...body }) => ({ url: address<'setDoor'>('/api/doors/:slug', { slug }), method: 'PATCH', body }),
      invalidatesTags: ['form', 'desk'],
    }),

    mailroom: build.query<AnswerOf<'mailroom'>, { find: string }>({
      query: ({ find }) => address<'mailroom'>('/api/mailroom', {}, { find }),
      providesTags: ['mail'],
    }),
    letter: build.query<AnswerOf<'letter'>, ParamsOf<'letter'>>({
      query: (params) => address<'letter'>('/api/mailroom/:id', params),
    }),
  }),
});

/** What went wrong, in the server's words; for a lost connection, in our own. */
export function problemOf(error: unknown): ProblemDocument {
  const found = error as FetchBaseQueryError | undefined;
  if (
    found &&
    typeof found.status === 'number' &&
    typeof found.data === 'object' &&
    found.data !== null &&
    'title' in found.data
  )
    return found.data as ProblemDocument;
  if (found && found.status === 'PARSING_ERROR' && typeof found.data === 'string') {
    try {
      return JSON.parse(found.data) as ProblemDocument;
    } catch {
      // Not a problem document: the general words below say what to do.
    }
  }
  return {
    type: 'offline',
    title: 'The desk can’t be reached',
    status: 0,
    detail: 'What you typed is kept. Check the connection and try again.',
  };
}
