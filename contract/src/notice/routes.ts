import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { done, moment } from '../wire/shapes.ts';
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
  bell: {
    says: 'What whoever asks was told lately, the newest first, and how much of it is new to them.',
    answer: z.object({
      unseen: z.int(),
      items: z.array(
        z.object({
          ...{ id: z.string(), at: moment, words: z.string() },
          /** Where it leads, at the desk. */
          path: z.string(),
          isNew: z.boolean(),
        }),
      ),
    }),
  },
  seeBell: {
    says: 'Whoever asks has seen what they were told until a moment.',
    body: z.strictObject({ until: moment }),
    answer: done,
  },
  takeText: {
    says: 'Takes a text message as a gateway of the OMA interface for messaging does, and keeps it. Only in demo mode.',
    params: z.strictObject({ sender: z.string().max(80) }),
    body: z.strictObject({
      outboundSMSMessageRequest: z.strictObject({
        address: z.array(z.string().max(40)).min(1).max(100),
        senderAddress: z.string().max(40),
        outboundSMSTextMessage: z.strictObject({ message: z.string().max(2_000) }),
        clientCorrelator: z.string().max(80),
      }),
    }),
    answer: z.object({ resourceReference: z.object({ resourceURL: z.string() }) }),
  },
  texts: {
    says: 'Text messages that the stand-in for their gateway received, the newest first. Only in demo mode.',
    answer: z.object({
      texts: z.array(z.object({ id: z.string(), receivedAt: moment, to: z.string(), text: z.string() })),
    }),
  },
  letter: {
    says: 'One letter as received.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: letter,
  },
});
