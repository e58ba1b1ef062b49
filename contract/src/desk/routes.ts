import { priorities } from '@tolvek/core/register';
import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { done, numbered, rawAnswers, text, versioned, withToken } from '../wire/shapes.ts';
import { deskHeads } from './heads.ts';
import { decision } from './shapes.ts';

/** What people do to requests. */
export const deskRoutes = routesOf(deskHeads, {
  changeFields: {
    says: 'Changes fields of a request.',
    params: numbered,
    body: z.strictObject({ changes: rawAnswers }),
    answer: versioned.extend({
      /** What rules say about the change that was kept; at “form” what is about no field in view. */
      warnings: z.array(z.object({ field: z.string(), text: z.string() })),
    }),
  },
  moveStage: {
    says: 'Moves a request to another stage.',
    params: numbered,
    body: z.strictObject({ stage: z.string().max(64) }),
    answer: versioned,
  },
  freeRequest: {
    says: 'Moves a request on from where nobody else can, by a coordinator with a reason; a decision that waits is withdrawn.',
    params: numbered,
    body: z.strictObject({ stage: z.string().max(64), reason: text }),
    answer: versioned,
  },
  reroute: {
    says: 'Hands a request over to another team, or gives it another priority.',
    params: numbered,
    body: z.strictObject({ team: z.string().max(64), priority: z.enum(priorities) }),
    answer: versioned,
  },
  assign: {
    says: 'Gives a request to a handler, or takes it back.',
    params: numbered,
    body: z.strictObject({ person: z.string().max(64).nullable() }),
    answer: versioned,
  },
  comment: {
    says: 'An internal note, or a message to the requester.',
    params: numbered,
    body: z.strictObject({ text, visibility: z.enum(['internal', 'requester']) }),
    answer: done,
  },
  decide: {
    says: 'Approves or refuses.',
    params: numbered,
    body: decision,
    answer: z.object({ state: z.enum(['approved', 'refused']) }),
  },
  decideByLink: {
    says: 'Approves or refuses by the link in a letter.',
    params: withToken,
    body: decision,
    answer: z.object({ state: z.enum(['approved', 'refused']), number: z.string() }),
  },
  followMessage: {
    says: 'A message from an outside requester to the desk.',
    params: withToken,
    body: z.strictObject({ text }),
    answer: done,
  },
  myMessage: {
    says: 'A message from a staff requester to the desk.',
    params: numbered,
    body: z.strictObject({ text }),
    answer: done,
  },
});
