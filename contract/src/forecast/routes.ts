import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { day, moment, numbered, visibleSubject } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { forecastHeads } from './heads.ts';

/** From 0 to 1. */
const share = z.number().min(0).max(1);

/** How fast a team is: 1 is as ever; how many it got done in the last seven days, and usually would have. */
const pace = z.object({ is: z.number(), did: z.int(), usually: z.number() });

/** What would be so with something changed, of what its reader may know. */
const tried = z.object({
  /** How many fewer promises would be late on average; below zero: more. */
  fewer: z.number(),
  /** Those for which it changes most. */
  helped: z.array(z.object({ number: z.string(), before: share, after: share })),
});

/** By when one in ten, half and nine in ten runs finish it; null where that is beyond three weeks. */
const finish = z.object({ early: moment.nullable(), likely: moment.nullable(), late: moment.nullable() });

/** What is likely to become of something that a request was promised. */
const outlook = z.object({
  /** What it is due for; null where it is to be finished. */
  dueFor: words.nullable(),
  /** Null while its time stands still. */
  due: moment.nullable(),
  ...{ finish, reasons: z.array(words) },
});

/** What will probably be late. */
export const forecastRoutes = routesOf(forecastHeads, {
  forecast: {
    says: 'What will probably be late of the requests that its reader works on, and why.',
    answer: z.object({
      at: moment,
      /** How many requests are open, late already, likely late, likely in time, and due beyond what is looked at. */
      ...{ open: z.int(), late: z.int(), likely: z.int(), inTime: z.int(), beyond: z.int() },
      /** How many requests that are finished it was learned from. */
      from: z.int(),
      /** What may be late, the likeliest first. */
      requests: z.array(
        outlook.extend({
          ...{ number: z.string(), subject: visibleSubject, team: z.string(), handler: z.string().nullable() },
          chance: share,
        }),
      ),
      /** How many more may be late. */
      more: z.int(),
      teams: z.array(
        z.object({
          ...{ key: z.string(), name: z.string(), open: z.int(), members: z.int(), here: z.int() },
          ...{ takes: pace, finishes: pace },
          /** On which days it can be tried that it works longer. */
          days: z.array(day),
        }),
      ),
    }),
  },
  forecastHelps: {
    says: 'What would help most of what could be done, for what its reader may know.',
    answer: z.object({
      changes: z.array(tried.extend({ what: words, do: z.enum(['longer', 'hand-over', 'decide']) })),
    }),
  },
  forecastTried: {
    says: 'What would be so if a team worked longer on a day.',
    query: z.strictObject({ team: z.string().max(64), day, hours: z.coerce.number().int().min(1).max(8) }),
    answer: tried,
  },
  requestForecast: {
    says: 'What is likely to become of what a request was promised, as far as its reader may know; nothing when it is finished.',
    params: numbered,
    answer: z.object({
      at: moment,
      /** `chance`: 1 where it is late already, null where it is due beyond what is looked at. */
      promised: z.array(outlook.extend({ late: z.boolean(), chance: share.nullable() })),
    }),
  },
  forecastScore: {
    says: 'How right the forecasts of past days would have been, from what was known then.',
    answer: z.object({
      ...{ days: z.int(), forecasts: z.int(), late: z.int() },
      /** Brier scores: of the forecast, of “nothing is late”, and of “each takes as long as half of those by its row”. */
      ...{ score: z.number(), noneLate: z.number(), asUsual: z.number() },
      /** For each tenth of what was said: how often, how likely on average, and how many were late. */
      bands: z.array(z.object({ count: z.int(), said: share, late: z.int() })),
    }),
  },
});
