import { z } from 'zod';
import { asksForOffers, knownFile, offers } from '../register/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { keyed, rawAnswers, visibleReason, visibleSubject } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { tryingHeads } from './heads.ts';

/** Trying a draft before anybody asks by it. */
export const tryingRoutes = routesOf(tryingHeads, {
  draftUpload: {
    says: 'Takes a file for a question of the draft in, for its proof and its trials; its bytes are the body. It is looked at by content, and forgotten unless a trial names it within fifteen days.',
    params: keyed,
    query: z.strictObject({ field: z.string().max(64), name: z.string().min(1).max(200) }),
    answer: knownFile,
  },
  draftPicture: {
    says: 'The picture on a card of what a reference of the draft offers, made small.',
    params: keyed.extend({ field: z.string().max(64), file: z.string().max(64) }),
    answer: z.string(),
  },
  draftOffers: {
    says: 'What a reference of the draft offers, for its proof.',
    params: keyed,
    body: asksForOffers.extend({ person: z.string().max(64).nullable(), outside: z.boolean() }),
    answer: offers,
  },
  sendTrial: {
    says: 'Sends a trial request from the proof of the draft: marked, uncounted, telling nobody.',
    params: keyed,
    body: z.strictObject({
      answers: rawAnswers,
      person: z.string().max(64).nullable(),
      outside: z.boolean(),
      /** The edition that it is tried in; null: the form as it is. The one that they are given when nothing is said. */
      edition: z.string().max(64).nullable().optional(),
    }),
    answer: z.object({ number: z.string() }),
  },
  clearTrials: {
    says: 'Takes all trial requests of a form away.',
    params: keyed,
    answer: z.object({ cleared: z.int() }),
  },
  tryCondition: {
    says: 'Tries a condition on the last requests of the form’s register: how many it holds for, and why it does or does not for one of them.',
    params: keyed,
    body: z.strictObject({
      condition: z.string().max(4_000),
      /** The request to explain; the newest when none is named. */
      number: z.string().max(20).nullable(),
    }),
    answer: z.object({
      /** Why it could not be tried; null when it was. */
      refused: words.nullable(),
      holds: z.int(),
      fails: z.int(),
      /** Requests for which it can’t be said, as something it needs is empty. */
      unsaid: z.int(),
      /**
       * Over all requests of the register, when the database can decide the condition; null when it
       * can’t.
       */
      ever: z.object({ holds: z.int(), of: z.int() }).nullable(),
      tried: z.array(z.object({ number: z.string(), subject: visibleSubject, result: z.boolean().nullable() })),
      explained: z.object({ number: z.string(), reason: visibleReason }).nullable(),
    }),
  },
});
