import type { AnswerOf } from '@tolvek/contract';
import { api } from '../wire/api.ts';
import type { Asked } from '../wire/call.ts';
import { call } from '../wire/callAny.ts';

/** Finding. */
export const findApi = api.injectEndpoints({
  endpoints: (build) => ({
    find: build.query<AnswerOf<'find'>, Asked<'find'>>({ query: call('find'), providesTags: ['ledger', 'counts'] }),
  }),
});
