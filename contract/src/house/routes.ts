import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { moment, trouble } from '../wire/shapes.ts';
import { houseHeads } from './heads.ts';

/** Of the whole application. */
export const houseRoutes = routesOf(houseHeads, {
  health: {
    says: 'Whether the application answers, and what keeps it from doing all of its work.',
    answer: z.object({
      status: z.enum(['ok', 'troubled']),
      now: moment,
      /** What is wrong around the application, such as a full disk; empty when all is well. */
      troubles: z.array(trouble),
      /** Letters that wait to go, and letters that were given up after seven tries. */
      letters: z.object({ waiting: z.int(), failed: z.int() }),
      /** Ways by which forms in force tell somebody what the access plan hides from them by now. */
      openWays: z.int(),
    }),
  },
  openapi: {
    says: 'This document.',
    answer: z.looseObject({ openapi: z.string() }),
  },
  me: {
    says: 'Who is signed in, and the state of the desk.',
    answer: z.object({
      person: z
        .object({
          id: z.string(),
          name: z.string(),
          role: z.enum(['administrator', 'coordinator', 'member']),
          groups: z.array(z.string()),
          worksFloor: z.boolean(),
        })
        .nullable(),
      desk: z.object({
        name: z.string(),
        station: z.string(),
        zone: z.string(),
        nowWords: z.string(),
        hoursWords: z.string(),
      }),
      demo: z
        .object({
          password: z.string(),
          people: z.array(z.object({ name: z.string(), email: z.string(), does: z.string() })),
        })
        .nullable(),
    }),
  },
  advanceClock: {
    says: 'Moves the demo clock forward; what became due happens. Only in demo mode.',
    body: z.strictObject({
      minutes: z
        .int()
        .min(1, 'At least one minute.')
        .max(60 * 24 * 60, 'At most 60 days at once.'),
    }),
    answer: z.object({ now: moment, happened: z.int() }),
  },
});
