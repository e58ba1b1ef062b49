import type { AnswerOf } from '@tolvek/contract';
import { api } from '../../wire/api.ts';
import type { Asked } from '../../wire/call.ts';
import { call } from '../../wire/callAny.ts';

/** Reports, what they tell, and their frozen copies. */
export const reportsApi = api.injectEndpoints({
  endpoints: (build) => ({
    reports: build.query<AnswerOf<'reports'>, Asked<'reports'>>({ query: call('reports'), providesTags: ['reports'] }),
    report: build.query<AnswerOf<'report'>, Asked<'report'>>({ query: call('report'), providesTags: ['reports'] }),
    lookAtReport: build.query<AnswerOf<'lookAtReport'>, Asked<'lookAtReport'>>({
      query: call('lookAtReport'),
      providesTags: ['ledger'],
    }),
    reportCopy: build.query<AnswerOf<'reportCopy'>, Asked<'reportCopy'>>({
      query: call('reportCopy'),
      providesTags: ['reports'],
    }),
    makeReport: build.mutation<AnswerOf<'makeReport'>, Asked<'makeReport'>>({
      query: call('makeReport'),
      invalidatesTags: ['reports'],
    }),
    changeReport: build.mutation<AnswerOf<'changeReport'>, Asked<'changeReport'>>({
      query: call('changeReport'),
      invalidatesTags: ['reports'],
    }),
    removeReport: build.mutation<AnswerOf<'removeReport'>, Asked<'removeReport'>>({
      query: call('removeReport'),
      invalidatesTags: ['reports'],
    }),
    freezeReport: build.mutation<AnswerOf<'freezeReport'>, Asked<'freezeReport'>>({
      query: call('freezeReport'),
      invalidatesTags: ['reports'],
    }),
    removeReportCopy: build.mutation<AnswerOf<'removeReportCopy'>, Asked<'removeReportCopy'>>({
      query: call('removeReportCopy'),
      invalidatesTags: ['reports'],
    }),
  }),
});
