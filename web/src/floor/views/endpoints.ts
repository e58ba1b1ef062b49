import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { api } from '../../wire/api.ts';
import type { Asked } from '../../wire/call.ts';
import { call } from '../../wire/callAny.ts';

/** Views, and looking through them. */
export const viewsApi = api.injectEndpoints({
  endpoints: (build) => ({
    views: build.query<AnswerOf<'views'>, Asked<'views'>>({ query: call('views'), providesTags: ['views'] }),
    view: build.query<AnswerOf<'view'>, Asked<'view'>>({ query: call('view'), providesTags: ['views'] }),
    nameable: build.query<AnswerOf<'nameable'>, Asked<'nameable'>>({
      query: call('nameable'),
      providesTags: ['views'],
    }),
    lookThrough: build.infiniteQuery<AnswerOf<'lookThrough'>, Pick<BodyOf<'lookThrough'>, 'view' | 'picture'>, string>({
      query: ({ queryArg, pageParam }) =>
        call('lookThrough')({ body: { ...queryArg, ...(pageParam === '' ? {} : { after: pageParam }) } }),
      infiniteQueryOptions: { initialPageParam: '', getNextPageParam: (last) => last.next ?? undefined },
      providesTags: ['ledger'],
    }),
    lookAgain: build.query<AnswerOf<'lookAgain'>, Asked<'lookAgain'>>({
      query: call('lookAgain'),
      keepUnusedDataFor: 0,
    }),
    addUpView: build.query<AnswerOf<'addUpView'>, Asked<'addUpView'>>({
      query: call('addUpView'),
      keepUnusedDataFor: 0,
    }),
    lookAtBoard: build.query<AnswerOf<'lookAtBoard'>, Asked<'lookAtBoard'>>({
      query: call('lookAtBoard'),
      providesTags: ['ledger', 'counts'],
    }),
    lookAtCalendar: build.query<AnswerOf<'lookAtCalendar'>, Asked<'lookAtCalendar'>>({
      query: call('lookAtCalendar'),
      providesTags: ['ledger', 'counts'],
    }),
    lookAtChart: build.query<AnswerOf<'lookAtChart'>, Asked<'lookAtChart'>>({
      query: call('lookAtChart'),
      providesTags: ['ledger', 'counts'],
    }),
    lookAtMatrix: build.query<AnswerOf<'lookAtMatrix'>, Asked<'lookAtMatrix'>>({
      query: call('lookAtMatrix'),
      providesTags: ['ledger', 'counts'],
    }),
    lookAtTotals: build.query<AnswerOf<'lookAtTotals'>, Asked<'lookAtTotals'>>({
      query: call('lookAtTotals'),
      providesTags: ['ledger', 'counts'],
    }),
    takeOutView: build.mutation<string, Asked<'takeOutView'>>({
      query: (asked) => ({
        ...call('takeOutView')(asked),
        responseHandler: (answer) => (answer.ok ? answer.text() : answer.json()),
      }),
    }),
    makeView: build.mutation<AnswerOf<'makeView'>, Asked<'makeView'>>({
      query: call('makeView'),
      invalidatesTags: ['views'],
    }),
    changeView: build.mutation<AnswerOf<'changeView'>, Asked<'changeView'>>({
      query: call('changeView'),
      invalidatesTags: ['views'],
    }),
    removeView: build.mutation<AnswerOf<'removeView'>, Asked<'removeView'>>({
      query: call('removeView'),
      invalidatesTags: ['views'],
    }),
  }),
});
