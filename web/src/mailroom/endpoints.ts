import type { AnswerOf } from '@tolvek/contract';
import { api } from '../wire/api.ts';
import type { Asked } from '../wire/call.ts';
import { call } from '../wire/callAny.ts';

/** Letters as they were received. */
export const mailroomApi = api.injectEndpoints({
  endpoints: (build) => ({
    mailroom: build.query<AnswerOf<'mailroom'>, Asked<'mailroom'>>({ query: call('mailroom'), providesTags: ['mail'] }),
    writeEmail: build.mutation<AnswerOf<'writeEmail'>, Asked<'writeEmail'>>({
      query: call('writeEmail'),
      invalidatesTags: ['mail', 'ledger', 'sheet'],
    }),
    toldPrograms: build.query<AnswerOf<'toldPrograms'>, Asked<'toldPrograms'>>({
      query: call('toldPrograms'),
      providesTags: ['mail'],
    }),
    texts: build.query<AnswerOf<'texts'>, Asked<'texts'>>({ query: call('texts'), providesTags: ['mail'] }),
    letter: build.query<AnswerOf<'letter'>, Asked<'letter'>>({ query: call('letter') }),
  }),
});
