import type { AnswerOf } from '@tolvek/contract';
import { api } from '../wire/api.ts';
import { type Asked, call } from '../wire/call.ts';

/** The first start, and what leads people in. */
export const startApi = api.injectEndpoints({
  endpoints: (build) => ({
    firstStart: build.query<AnswerOf<'firstStart'>, Asked<'firstStart'>>({
      query: call('firstStart'),
      keepUnusedDataFor: 0,
    }),
    layGround: build.mutation<AnswerOf<'layGround'>, Asked<'layGround'>>({ query: call('layGround') }),
    invitation: build.query<AnswerOf<'invitation'>, Asked<'invitation'>>({
      query: call('invitation'),
      keepUnusedDataFor: 0,
    }),
    acceptInvitation: build.mutation<AnswerOf<'acceptInvitation'>, Asked<'acceptInvitation'>>({
      query: call('acceptInvitation'),
    }),
  }),
});
