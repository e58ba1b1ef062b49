import { RIGHTS } from '@tolvek/core/people';
import { z } from 'zod';
import { language } from '../people/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { done, moment, trouble } from '../wire/shapes.ts';
import { houseHeads } from './heads.ts';

const shades = z.object({ ink: z.string(), wash: z.string(), on: z.string() });

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
          kind: z.enum(['staff', 'contact']),
          /** What they may do, for the whole desk. */
          rights: z.array(z.enum(RIGHTS)),
          groups: z.array(z.string()),
          worksFloor: z.boolean(),
          worksWorkshop: z.boolean(),
          /** The language of pages and emails, once it is known. */
          language: language.nullable(),
        })
        .nullable(),
      desk: z.object({
        name: z.string(),
        organisation: z.string(),
        /** The language that it writes in. */
        language,
        zone: z.string(),
        /** Where people can write to. */
        email: z.string(),
        /** The colour of what can be pressed, on paper and in the dark. */
        accent: z.object({ light: shades, dark: shades }),
        /** The version of its logo; null where it has none. */
        logo: z.string().nullable(),
        /** The first day of a week where days are chosen. */
        firstDay: z.enum(['monday', 'saturday', 'sunday']),
        now: moment,
        open: z.boolean(),
        /** When that changes next; null when it never does. */
        until: moment.nullable(),
      }),
      demo: z
        .object({
          password: z.string(),
          people: z.array(z.object({ name: z.string(), email: z.string(), does: z.string() })),
        })
        .nullable(),
    }),
  },
  setLanguage: {
    says: 'Sets the language of one’s pages and emails.',
    body: z.strictObject({ language }),
    answer: done,
  },
  advanceClock: {
    says: 'Moves the demo clock forward; what became due happens. Only in demo mode.',
    body: z.strictObject({
      minutes: z
        .int()
        .min(1)
        .max(60 * 24 * 60),
    }),
    answer: z.object({ now: moment, happened: z.int() }),
  },
});
