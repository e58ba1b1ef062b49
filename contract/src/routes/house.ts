import { z } from 'zod';
import { route } from '../route.ts';
import { empty, moment } from '../schemas.ts';

/** Of the whole application. */
export const houseRoutes = {
  health: route({
    name: 'health',
    method: 'GET',
    path: '/api/health',
    says: 'Whether the application answers.',
    caller: 'anyone',
    params: empty,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({ status: z.literal('ok'), now: moment }),
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
