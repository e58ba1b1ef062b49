import { z } from 'zod';
import { route } from '../route.ts';
import { empty, letter } from '../schemas.ts';

/** Letters as they were received. */
export const mailroomRoutes = {
  mailroom: route({
    name: 'mailroom',
    method: 'GET',
    path: '/api/mailroom',
    says: 'Letters the mail stand-in received. Only in demo mode.',
    caller: 'anyone',
    params: empty,
    query: z.strictObject({ find: z.string().max(100).optional() }),
    body: empty,
    guard: 'none',
    answer: z.object({
      letters: z.array(letter.pick({ id: true, receivedAt: true, to: true, subject: true })),
      waiting: z.int(),
      failed: z.int(),
    }),
  }),
  letter: route({
    name: 'letter',
    method: 'GET',
    path: '/api/mailroom/:id',
    says: 'One letter as received.',
    caller: 'anyone',
    params: z.strictObject({ id: z.string().max(64) }),
    query: empty,
    body: empty,
    guard: 'none',
    answer: letter,
  }),
} as const;
