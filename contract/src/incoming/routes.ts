import { HELD_WHY } from '@tolvek/core/incoming';
import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { done, moment, rawAnswers, visibleSubject } from '../wire/shapes.ts';
import { incomingHeads } from './heads.ts';

const one = z.strictObject({ id: z.string().max(64) });
/** An email as a list shows it. */
const email = z.object({
  id: z.string(),
  receivedAt: moment,
  /** As its sender writes it; empty where they wrote none. */
  name: z.string(),
  address: z.string(),
  subject: z.string(),
  state: z.enum(['taken', 'held', 'aside']),
  /** Why it is held; null where it is not. */
  why: z.enum(HELD_WHY).nullable(),
});

/** Emails that came to the desk and have no request. */
export const incomingRoutes = routesOf(incomingHeads, {
  incomingEmails: {
    says: 'Emails that somebody has to say about what becomes of them, or that were laid aside; the newest first.',
    query: z.strictObject({ state: z.enum(['held', 'aside']).default('held') }),
    answer: z.object({
      emails: z.array(email.extend({ beginning: z.string(), files: z.int() })),
      held: z.int(),
      /** Whether emails come in at all. */
      isRead: z.boolean(),
    }),
  },
  incomingEmail: {
    says: 'One email that came in.',
    params: one,
    answer: email.extend({
      /** What is new in it, and all that it says. */
      text: z.string(),
      whole: z.string(),
      files: z.array(z.object({ id: z.string(), name: z.string(), bytes: z.int() })),
      /** Names of files that were not taken. */
      leftOut: z.array(z.string()),
      /** Whose address it is, where it is somebody’s. */
      person: z.string().nullable(),
      /** The request that it seems to be about, or became part of. */
      about: z.object({ number: z.string(), subject: visibleSubject, requester: z.string() }).nullable(),
      /** The newest requests of whoever has the address, as far as the caller works on them. */
      theirs: z.array(z.object({ number: z.string(), subject: visibleSubject })),
      /** The forms by which the caller can ask for whoever wrote it, by their doors. */
      forms: z.array(z.object({ slug: z.string(), title: z.string() })),
      settled: z.object({ by: z.string(), at: moment }).nullable(),
    }),
  },
  incomingFile: {
    says: 'A file that came with an email.',
    params: one.extend({ file: z.string().max(64) }),
    answer: z.string(),
  },
  joinEmail: {
    says: 'Makes an email part of a request: as words of whoever asked, or as a note for the desk.',
    params: one,
    body: z.strictObject({ number: z.string().max(40), as: z.enum(['message', 'note']) }),
    answer: z.object({ number: z.string() }),
  },
  layEmailAside: { says: 'Lays an email aside.', params: one, answer: done },
  holdEmail: { says: 'Takes an email that was laid aside back.', params: one, answer: done },
  askByEmail: {
    says: 'Asks by a door in the name of whoever wrote an email, which becomes part of the request.',
    params: one,
    body: z.strictObject({ slug: z.string().max(64), release: z.int(), answers: rawAnswers }),
    answer: z.object({ number: z.string() }),
  },
});
