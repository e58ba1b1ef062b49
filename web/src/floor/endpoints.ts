import type { AnswerOf, QueryOf } from '@tolvek/contract';
import { api } from '../wire/api.ts';
import type { Asked } from '../wire/call.ts';
import { call } from '../wire/callAny.ts';

/** Reading and working on requests. */
export const floorApi = api.injectEndpoints({
  endpoints: (build) => ({
    sendFailedAgain: build.mutation<AnswerOf<'sendFailedAgain'>, Asked<'sendFailedAgain'>>({
      query: call('sendFailedAgain'),
      invalidatesTags: ['ledger', 'mail'],
    }),
    incomingEmails: build.query<AnswerOf<'incomingEmails'>, Asked<'incomingEmails'>>({
      query: call('incomingEmails'),
      providesTags: ['mail'],
    }),
    incomingEmail: build.query<AnswerOf<'incomingEmail'>, Asked<'incomingEmail'>>({
      query: call('incomingEmail'),
      providesTags: ['mail'],
    }),
    joinEmail: build.mutation<AnswerOf<'joinEmail'>, Asked<'joinEmail'>>({
      query: call('joinEmail'),
      invalidatesTags: ['mail', 'sheet', 'ledger'],
    }),
    layEmailAside: build.mutation<AnswerOf<'layEmailAside'>, Asked<'layEmailAside'>>({
      query: call('layEmailAside'),
      invalidatesTags: ['mail', 'ledger'],
    }),
    holdEmail: build.mutation<AnswerOf<'holdEmail'>, Asked<'holdEmail'>>({
      query: call('holdEmail'),
      invalidatesTags: ['mail', 'ledger'],
    }),
    trays: build.query<AnswerOf<'trays'>, Asked<'trays'>>({ query: call('trays'), providesTags: ['ledger', 'counts'] }),
    ledger: build.infiniteQuery<
      AnswerOf<'ledger'>,
      { tray: NonNullable<QueryOf<'ledger'>['tray']>; find: string },
      string
    >({
      query: ({ queryArg, pageParam }) => call('ledger')({ query: { ...queryArg, after: pageParam } }),
      infiniteQueryOptions: { initialPageParam: '', getNextPageParam: (last) => last.next ?? undefined },
      providesTags: ['ledger'],
    }),
    duty: build.query<AnswerOf<'duty'>, Asked<'duty'>>({ query: call('duty'), providesTags: ['roster'] }),
    offerDuty: build.mutation<AnswerOf<'offerDuty'>, Asked<'offerDuty'>>({
      query: call('offerDuty'),
      invalidatesTags: ['roster'],
    }),
    answerOffer: build.mutation<AnswerOf<'answerOffer'>, Asked<'answerOffer'>>({
      query: call('answerOffer'),
      invalidatesTags: ['roster'],
    }),
    forecast: build.query<AnswerOf<'forecast'>, Asked<'forecast'>>({
      query: call('forecast'),
      providesTags: ['forecast'],
    }),
    forecastHelps: build.query<AnswerOf<'forecastHelps'>, Asked<'forecastHelps'>>({
      query: call('forecastHelps'),
      providesTags: ['forecast'],
    }),
    forecastTried: build.query<AnswerOf<'forecastTried'>, Asked<'forecastTried'>>({ query: call('forecastTried') }),
    serviceTimes: build.query<AnswerOf<'serviceTimes'>, Asked<'serviceTimes'>>({
      query: call('serviceTimes'),
      keepUnusedDataFor: 0,
    }),
    servedRows: build.query<AnswerOf<'servedRows'>, Asked<'servedRows'>>({
      query: call('servedRows'),
      keepUnusedDataFor: 0,
    }),
    requestForecast: build.query<AnswerOf<'requestForecast'>, Asked<'requestForecast'>>({
      query: call('requestForecast'),
      providesTags: ['sheet'],
    }),
    forecastScore: build.query<AnswerOf<'forecastScore'>, Asked<'forecastScore'>>({ query: call('forecastScore') }),
    sheet: build.query<AnswerOf<'sheet'>, Asked<'sheet'>>({ query: call('sheet'), providesTags: ['sheet'] }),
    requestCourse: build.query<AnswerOf<'requestCourse'>, Asked<'requestCourse'>>({
      query: call('requestCourse'),
      providesTags: ['sheet'],
    }),
    requestEmails: build.query<AnswerOf<'requestEmails'>, Asked<'requestEmails'>>({
      query: call('requestEmails'),
      providesTags: ['sheet'],
    }),
    changedBy: build.query<AnswerOf<'changedBy'>, Asked<'changedBy'>>({
      query: call('changedBy'),
      providesTags: ['atWork'],
    }),
    changing: build.mutation<AnswerOf<'changing'>, Asked<'changing'>>({ query: call('changing') }),
    changeFields: build.mutation<AnswerOf<'changeFields'>, Asked<'changeFields'>>({
      query: call('changeFields'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    moveStage: build.mutation<AnswerOf<'moveStage'>, Asked<'moveStage'>>({
      query: call('moveStage'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    freeRequest: build.mutation<AnswerOf<'freeRequest'>, Asked<'freeRequest'>>({
      query: call('freeRequest'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    reroute: build.mutation<AnswerOf<'reroute'>, Asked<'reroute'>>({
      query: call('reroute'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    rerouteMany: build.mutation<AnswerOf<'rerouteMany'>, Asked<'rerouteMany'>>({
      query: call('rerouteMany'),
      invalidatesTags: (answer) => (answer?.applied ? ['sheet', 'ledger'] : []),
    }),
    writeMany: build.mutation<AnswerOf<'writeMany'>, Asked<'writeMany'>>({
      query: call('writeMany'),
      invalidatesTags: (answer) => (answer?.applied ? ['sheet', 'ledger'] : []),
    }),
    moveMany: build.mutation<AnswerOf<'moveMany'>, Asked<'moveMany'>>({
      query: call('moveMany'),
      invalidatesTags: (answer) => (answer?.applied ? ['sheet', 'ledger'] : []),
    }),
    changeCells: build.mutation<AnswerOf<'changeCells'>, Asked<'changeCells'>>({
      query: call('changeCells'),
      invalidatesTags: (answer) => (answer?.applied ? ['sheet', 'ledger'] : []),
    }),
    takeBackCells: build.mutation<AnswerOf<'takeBackCells'>, Asked<'takeBackCells'>>({
      query: call('takeBackCells'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    assign: build.mutation<AnswerOf<'assign'>, Asked<'assign'>>({
      query: call('assign'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    giveOutside: build.mutation<AnswerOf<'giveOutside'>, Asked<'giveOutside'>>({
      query: call('giveOutside'),
      invalidatesTags: (_given, error) => (error ? [] : ['sheet', 'ledger']),
    }),
    decisionsAlike: build.query<AnswerOf<'decisionsAlike'>, Asked<'decisionsAlike'>>({
      query: call('decisionsAlike'),
      providesTags: ['sheet'],
    }),
    deciderTargets: build.query<AnswerOf<'deciderTargets'>, Asked<'deciderTargets'>>({ query: call('deciderTargets') }),
    handDecision: build.mutation<AnswerOf<'handDecision'>, Asked<'handDecision'>>({
      query: call('handDecision'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    takeBackDecision: build.mutation<AnswerOf<'takeBackDecision'>, Asked<'takeBackDecision'>>({
      query: call('takeBackDecision'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    shareTargets: build.query<AnswerOf<'shareTargets'>, Asked<'shareTargets'>>({ query: call('shareTargets') }),
    shareRequest: build.mutation<AnswerOf<'shareRequest'>, Asked<'shareRequest'>>({
      query: call('shareRequest'),
      invalidatesTags: ['sheet'],
    }),
    unshareRequest: build.mutation<AnswerOf<'unshareRequest'>, Asked<'unshareRequest'>>({
      query: call('unshareRequest'),
      invalidatesTags: ['sheet'],
    }),
    endLinks: build.mutation<AnswerOf<'endLinks'>, Asked<'endLinks'>>({
      query: call('endLinks'),
      invalidatesTags: ['sheet'],
    }),
    sendLink: build.mutation<AnswerOf<'sendLink'>, Asked<'sendLink'>>({
      query: call('sendLink'),
      invalidatesTags: ['sheet'],
    }),
    acceptProposal: build.mutation<AnswerOf<'acceptProposal'>, Asked<'acceptProposal'>>({
      query: call('acceptProposal'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    refuseProposal: build.mutation<AnswerOf<'refuseProposal'>, Asked<'refuseProposal'>>({
      query: call('refuseProposal'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    askAbout: build.mutation<AnswerOf<'askAbout'>, Asked<'askAbout'>>({
      query: call('askAbout'),
      invalidatesTags: (_asked, error) => (error ? [] : ['sheet']),
    }),
    followRequest: build.mutation<AnswerOf<'followRequest'>, Asked<'followRequest'>>({
      query: call('followRequest'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    deletionPlan: build.query<AnswerOf<'deletionPlan'>, Asked<'deletionPlan'>>({
      query: call('deletionPlan'),
      keepUnusedDataFor: 0,
    }),
    requestMergePlan: build.query<AnswerOf<'requestMergePlan'>, Asked<'requestMergePlan'>>({
      query: call('requestMergePlan'),
      keepUnusedDataFor: 0,
    }),
    mergeRequest: build.mutation<AnswerOf<'mergeRequest'>, Asked<'mergeRequest'>>({
      query: call('mergeRequest'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    unmergeRequest: build.mutation<AnswerOf<'unmergeRequest'>, Asked<'unmergeRequest'>>({
      query: call('unmergeRequest'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    deleteRequest: build.mutation<AnswerOf<'deleteRequest'>, Asked<'deleteRequest'>>({
      query: call('deleteRequest'),
      invalidatesTags: ['ledger'],
    }),
    putBackRequest: build.mutation<AnswerOf<'putBackRequest'>, Asked<'putBackRequest'>>({
      query: call('putBackRequest'),
      invalidatesTags: ['ledger', 'sheet'],
    }),
    sharedResults: build.query<AnswerOf<'sharedResults'>, Asked<'sharedResults'>>({
      query: call('sharedResults'),
      providesTags: ['shared'],
    }),
    sharable: build.query<AnswerOf<'sharable'>, Asked<'sharable'>>({ query: call('sharable') }),
    lookAtShared: build.query<AnswerOf<'lookAtShared'>, Asked<'lookAtShared'>>({ query: call('lookAtShared') }),
    shareResult: build.mutation<AnswerOf<'shareResult'>, Asked<'shareResult'>>({
      query: call('shareResult'),
      invalidatesTags: ['shared'],
    }),
    changeShared: build.mutation<AnswerOf<'changeShared'>, Asked<'changeShared'>>({
      query: call('changeShared'),
      invalidatesTags: ['shared'],
    }),
    endShared: build.mutation<AnswerOf<'endShared'>, Asked<'endShared'>>({
      query: call('endShared'),
      invalidatesTags: ['shared'],
    }),
    comment: build.mutation<AnswerOf<'comment'>, Asked<'comment'>>({
      query: call('comment'),
      invalidatesTags: ['sheet'],
    }),
    sendNotice: build.mutation<AnswerOf<'sendNotice'>, Asked<'sendNotice'>>({
      query: call('sendNotice'),
      invalidatesTags: ['sheet'],
    }),
    act: build.mutation<AnswerOf<'act'>, Asked<'act'>>({
      query: call('act'),
      invalidatesTags: (_done, error) => (error ? [] : ['sheet', 'ledger']),
    }),
    decide: build.mutation<AnswerOf<'decide'>, Asked<'decide'>>({
      query: call('decide'),
      invalidatesTags: ['sheet', 'ledger'],
    }),
    sheetOffers: build.mutation<AnswerOf<'sheetOffers'>, Asked<'sheetOffers'>>({ query: call('sheetOffers') }),
  }),
});
