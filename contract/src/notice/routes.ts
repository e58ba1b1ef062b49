import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { done } from '../wire/shapes.ts';
import { noticeHeads } from './heads.ts';
import { letter } from './shapes.ts';

/** Letters: as they were received, and those that were given up. */
export const noticeRoutes = routesOf(noticeHeads, {
  sendFailedAgain: {
    says: 'Sends the letters that were given up once more.',
    answer: z.object({ letters: z.int() }),
  },
  sendEmailAgain: {
    says: 'Sends an email once more, as it was: one that was given up, or one that went.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: done,
  },
  mailroom: {
    says: 'Letters the mail stand-in received. Only in demo mode.',
    query: z.strictObject({ find: z.string().max(100).optional() }),
    answer: z.object({
      letters: z.array(letter.pick({ id: true, receivedAt: true, to: true, subject: true })),
      waiting: z.int(),
      failed: z.int(),
    }),
  },
  writeEmail: {
    says: 'Sends an email to the desk, as any mail program would: one that answers a letter, from its reader, or another. Only in demo mode.',
    body: z.strictObject({
      from: z.string().trim().max(200),
      subject: z.string().trim().max(200),
      text: z.string().trim().min(1).max(20_000),
      /** The letter that is answered, by its id. */
      answers: z.string().max(64).nullable(),
    }),
    answer: done,
  },
  letter: {
    says: 'One letter as received.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: letter,
  },
});
