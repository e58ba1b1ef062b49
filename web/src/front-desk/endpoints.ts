import type { AnswerOf } from '@tolvek/contract';
import { api } from '../wire/api.ts';
import { type Asked, call } from '../wire/call.ts';

/** Asking, following, and deciding by a link. */
export const frontDeskApi = api.injectEndpoints({
  endpoints: (build) => ({
    frontDesk: build.query<AnswerOf<'frontDesk'>, Asked<'frontDesk'>>({
      query: call('frontDesk'),
      providesTags: ['desk'],
    }),
    door: build.query<AnswerOf<'door'>, Asked<'door'>>({
      query: call('door'),
      keepUnusedDataFor: 0,
      providesTags: ['door'],
    }),
    work: build.mutation<AnswerOf<'work'>, Asked<'work'>>({ query: call('work') }),
    changingMine: build.mutation<AnswerOf<'changingMine'>, Asked<'changingMine'>>({ query: call('changingMine') }),
    changingFollowed: build.mutation<AnswerOf<'changingFollowed'>, Asked<'changingFollowed'>>({
      query: call('changingFollowed'),
    }),
    proposalLink: build.query<AnswerOf<'proposalLink'>, Asked<'proposalLink'>>({
      query: call('proposalLink'),
      keepUnusedDataFor: 0,
    }),
    decideProposal: build.mutation<AnswerOf<'decideProposal'>, Asked<'decideProposal'>>({
      query: call('decideProposal'),
      invalidatesTags: ['ledger', 'sheet'],
    }),
    checkAnswers: build.mutation<AnswerOf<'checkAnswers'>, Asked<'checkAnswers'>>({ query: call('checkAnswers') }),
    submit: build.mutation<AnswerOf<'submit'>, Asked<'submit'>>({
      query: call('submit'),
      invalidatesTags: ['desk', 'ledger'],
    }),
    askByEmail: build.mutation<AnswerOf<'askByEmail'>, Asked<'askByEmail'>>({
      query: call('askByEmail'),
      invalidatesTags: ['mail', 'ledger'],
    }),
    confirmation: build.query<AnswerOf<'confirmation'>, Asked<'confirmation'>>({ query: call('confirmation') }),
    confirm: build.mutation<AnswerOf<'confirm'>, Asked<'confirm'>>({ query: call('confirm') }),
    sentState: build.query<AnswerOf<'sentState'>, Asked<'sentState'>>({
      query: call('sentState'),
      keepUnusedDataFor: 0,
    }),
    sendAgain: build.mutation<AnswerOf<'sendAgain'>, Asked<'sendAgain'>>({ query: call('sendAgain') }),
    backToAnswers: build.mutation<AnswerOf<'backToAnswers'>, Asked<'backToAnswers'>>({ query: call('backToAnswers') }),
    follow: build.query<AnswerOf<'follow'>, Asked<'follow'>>({ query: call('follow'), providesTags: ['mine'] }),
    sharedResult: build.query<AnswerOf<'sharedResult'>, Asked<'sharedResult'>>({ query: call('sharedResult') }),
    sharedByLink: build.query<AnswerOf<'sharedByLink'>, Asked<'sharedByLink'>>({ query: call('sharedByLink') }),
    colleagues: build.query<AnswerOf<'colleagues'>, Asked<'colleagues'>>({ query: call('colleagues') }),
    followMessage: build.mutation<AnswerOf<'followMessage'>, Asked<'followMessage'>>({
      query: call('followMessage'),
      invalidatesTags: ['mine'],
    }),
    myRequest: build.query<AnswerOf<'myRequest'>, Asked<'myRequest'>>({
      query: call('myRequest'),
      providesTags: ['mine'],
    }),
    renewMyLink: build.mutation<AnswerOf<'renewMyLink'>, Asked<'renewMyLink'>>({
      query: call('renewMyLink'),
      invalidatesTags: ['mine'],
    }),
    // The link by which the page was read works no more: it is not read again.
    renewLink: build.mutation<AnswerOf<'renewLink'>, Asked<'renewLink'>>({ query: call('renewLink') }),
    endMyLinks: build.mutation<AnswerOf<'endMyLinks'>, Asked<'endMyLinks'>>({
      query: call('endMyLinks'),
      invalidatesTags: ['mine'],
    }),
    endOtherLinks: build.mutation<AnswerOf<'endOtherLinks'>, Asked<'endOtherLinks'>>({
      query: call('endOtherLinks'),
      invalidatesTags: ['mine'],
    }),
    endProposal: build.mutation<AnswerOf<'endProposal'>, Asked<'endProposal'>>({
      query: call('endProposal'),
      invalidatesTags: ['mine', 'desk'],
    }),
    myMessage: build.mutation<AnswerOf<'myMessage'>, Asked<'myMessage'>>({
      query: call('myMessage'),
      invalidatesTags: ['mine'],
    }),
    actOnMine: build.mutation<AnswerOf<'actOnMine'>, Asked<'actOnMine'>>({
      query: call('actOnMine'),
      invalidatesTags: (_done, error) => (error ? [] : ['mine', 'desk']),
    }),
    actFollowed: build.mutation<AnswerOf<'actFollowed'>, Asked<'actFollowed'>>({
      query: call('actFollowed'),
      invalidatesTags: (_done, error) => (error ? [] : ['mine']),
    }),
    changeMine: build.mutation<AnswerOf<'changeMine'>, Asked<'changeMine'>>({
      query: call('changeMine'),
      invalidatesTags: (_changed, error) => (error ? [] : ['mine', 'desk']),
    }),
    changeFollowed: build.mutation<AnswerOf<'changeFollowed'>, Asked<'changeFollowed'>>({
      query: call('changeFollowed'),
      invalidatesTags: (_changed, error) => (error ? [] : ['mine']),
    }),
    withdrawMine: build.mutation<AnswerOf<'withdrawMine'>, Asked<'withdrawMine'>>({
      query: call('withdrawMine'),
      invalidatesTags: ['mine', 'desk'],
    }),
    withdrawFollowed: build.mutation<AnswerOf<'withdrawFollowed'>, Asked<'withdrawFollowed'>>({
      query: call('withdrawFollowed'),
      invalidatesTags: ['mine'],
    }),
    given: build.query<AnswerOf<'given'>, Asked<'given'>>({ query: call('given'), providesTags: ['mine'] }),
    decideGiven: build.mutation<AnswerOf<'decide'>, Asked<'decide'>>({
      query: call('decide'),
      invalidatesTags: (_done, error) => (error ? ['mine'] : ['desk']),
    }),
    moveGiven: build.mutation<AnswerOf<'moveStage'>, Asked<'moveStage'>>({
      query: call('moveStage'),
      invalidatesTags: ['mine', 'desk'],
    }),
    changeGiven: build.mutation<AnswerOf<'changeFields'>, Asked<'changeFields'>>({
      query: call('changeFields'),
      invalidatesTags: (_changed, error) => (error ? [] : ['mine', 'desk']),
    }),
    sayGiven: build.mutation<AnswerOf<'comment'>, Asked<'comment'>>({
      query: call('comment'),
      invalidatesTags: (_said, error) => (error ? [] : ['mine']),
    }),
    giveBack: build.mutation<AnswerOf<'giveBack'>, Asked<'giveBack'>>({
      query: call('giveBack'),
      invalidatesTags: (_done, error) => (error ? [] : ['desk']),
    }),
    decisionLink: build.query<AnswerOf<'decisionLink'>, Asked<'decisionLink'>>({
      query: call('decisionLink'),
      providesTags: ['sheet'],
      keepUnusedDataFor: 0,
    }),
    decideByLink: build.mutation<AnswerOf<'decideByLink'>, Asked<'decideByLink'>>({
      query: call('decideByLink'),
      invalidatesTags: (_decided, error) => (error ? ['sheet'] : []),
    }),
    joinLine: build.mutation<AnswerOf<'joinLine'>, Asked<'joinLine'>>({ query: call('joinLine') }),
    leaveLine: build.mutation<AnswerOf<'leaveLine'>, Asked<'leaveLine'>>({
      query: call('leaveLine'),
      invalidatesTags: ['door'],
    }),
    offers: build.mutation<AnswerOf<'offers'>, Asked<'offers'>>({ query: call('offers') }),
    keepAnswers: build.mutation<AnswerOf<'keepAnswers'>, Asked<'keepAnswers'>>({
      query: call('keepAnswers'),
      invalidatesTags: ['desk'],
    }),
    sendKept: build.mutation<AnswerOf<'sendKept'>, Asked<'sendKept'>>({ query: call('sendKept') }),
    passOn: build.mutation<AnswerOf<'passOn'>, Asked<'passOn'>>({
      query: call('passOn'),
      invalidatesTags: (_passed, error) => (error ? [] : ['desk', 'mine']),
    }),
    kept: build.query<AnswerOf<'kept'>, Asked<'kept'>>({ query: call('kept'), keepUnusedDataFor: 0 }),
    keepKept: build.mutation<AnswerOf<'keepKept'>, Asked<'keepKept'>>({ query: call('keepKept') }),
  }),
});
