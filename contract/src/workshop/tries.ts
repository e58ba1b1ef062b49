import { z } from 'zod';
import { language } from '../people/shapes.ts';
import { asksForOffers, knownFile, offers } from '../register/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { keyed, moment, rawAnswers, visibleReason, visibleSubject } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { tryingHeads } from './heads.ts';

/** An email as one reader would get it: it is made of what is revealed to them, and to whoever looks. */
const shownLetter = z.object({
  reader: z.string(),
  language,
  subject: z.string(),
  greeting: z.string(),
  paragraphs: z.array(z.string()).readonly(),
  facts: z.array(z.object({ label: z.string(), shown: z.string() })).readonly(),
  action: z.string(),
  /** Sentences that are left out for this reader, with what they name that is empty, or that they may not read. */
  left: z.array(z.object({ sentence: z.string(), names: z.array(words).readonly() })).readonly(),
});

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
  showNotice: {
    says: 'Shows a notice of the draft as one of its readers would get it for a real request, and who else would: as far as whoever looks may read it. That they looked is noted.',
    params: keyed,
    body: z.strictObject({
      /** A usual one by its kind, or one of the form’s own by its key. */
      notice: z.string().max(64),
      /** The request; the newest when none is named. */
      number: z.string().max(20).nullable(),
      /** Whose email is shown, by id; the first one’s when nobody is named. */
      reader: z.string().max(64).nullable(),
    }),
    answer: z.object({
      /** The newest requests of the form, to choose from. */
      requests: z.array(z.object({ number: z.string(), subject: visibleSubject })),
      number: z.string().nullable(),
      /** Whether its condition holds there; null where it has none, or whoever looks may not read what it reads. */
      holds: z.boolean().nullable(),
      readers: z.array(
        z.object({
          id: z.string(),
          name: z.string(),
          /** When they would get it: at once, at a moment with others, or not, and why not. */
          how: z.enum(['now', 'later', 'unwanted', 'off', 'hidden', 'nothing']),
          at: moment.nullable(),
        }),
      ),
      /** How many more would get it. */
      more: z.int(),
      letter: shownLetter.nullable(),
    }),
  },
});
