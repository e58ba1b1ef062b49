import { z } from 'zod';
import { route } from '../route.ts';
import { empty, moment, trouble } from '../schemas.ts';

/** Of the whole application. */
export const houseRoutes = {
  health: route({
    name: 'health',
    method: 'GET',
    path: '/api/health',
    says: 'Whether the application answers, and what keeps it from doing all of its work.',
    caller: 'anyone',
    params: empty,
    query: empty,
    body: empty,
    guard: 'none',
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
  }),
  openapi: route({
    name: 'openapi',
    method: 'GET',
    path: '/api/openapi.json',
    says: 'This document.',
    caller: 'anyone',
    params: empty,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.looseObject({ openapi: z.string() }),
  }),
  me: route({
    name: 'me',
    method: 'GET',
    path: '/api/me',
    says: 'Who is signed in, and the state of the desk.',
    caller: 'anyone',
    params: empty,
    query: empty,
    body: empty,
    guard: 'none',
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
  }),
  sendFailedAgain: route({
    name: 'sendFailedAgain',
    method: 'POST',
    path: '/api/letters/again',
    says: 'Sends the letters that were given up once more.',
    caller: 'coordinator',
    params: empty,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({ letters: z.int() }),
  }),
  advanceClock: route({
    name: 'advanceClock',
    method: 'POST',
    path: '/api/demo/clock',
    says: 'Moves the demo clock forward; what became due happens. Only in demo mode.',
    caller: 'anyone',
    params: empty,
    query: empty,
    body: z.strictObject({
      minutes: z
        .int()
        .min(1, 'At least one minute.')
        .max(60 * 24 * 60, 'At most 60 days at once.'),
    }),
    guard: 'none',
    answer: z.object({ now: moment, happened: z.int() }),
  }),
} as const;
