import type { AnswerOf } from '@tolvek/contract';
import { api } from '../wire/api.ts';
import { type Asked, call } from '../wire/call.ts';

/** What stands around every page. */
export const appApi = api.injectEndpoints({
  endpoints: (build) => ({
    advanceClock: build.mutation<AnswerOf<'advanceClock'>, Asked<'advanceClock'>>({
      query: call('advanceClock'),
      invalidatesTags: ['me', 'ledger', 'sheet', 'mail', 'desk', 'mine'],
    }),
  }),
});
