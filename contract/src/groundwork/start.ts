import { z } from 'zod';
import { language } from '../people/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { done, moment, withToken } from '../wire/shapes.ts';
import { startHeads } from './heads.ts';
import { address, password, personName } from './shapes.ts';

/** The first start, and what leads people in. */
export const startRoutes = routesOf(startHeads, {
  firstStart: {
    says: 'What the link of a first start opens: until when, and what the environment says of the desk already.',
    params: withToken,
    answer: z.object({
      ends: moment,
      desk: z.object({ organisation: z.string(), name: z.string(), sender: z.string() }),
      /** Whom the link was made for; empty where that was not said. */
      email: z.string(),
    }),
  },
  layGround: {
    says: 'Lays the desk and makes its first administrator. The link works once.',
    params: withToken,
    body: z.strictObject({
      desk: z.strictObject({
        organisation: z.string().trim().max(80),
        name: z.string().trim().max(60),
        zone: z.string().max(64),
        language,
        sender: address,
      }),
      administrator: z.strictObject({ name: personName, email: address, password }),
    }),
    answer: done,
  },
  invitation: {
    says: 'Whom a link leads in, and what it is for: to sign in for the first time, or to choose another password.',
    params: withToken,
    answer: z.object({
      purpose: z.enum(['invite', 'reset']),
      name: z.string(),
      email: z.string(),
      desk: z.string(),
      /** Whether one signs in with a password here; else by one of the other ways. */
      passwords: z.boolean(),
    }),
  },
  acceptInvitation: {
    says: 'Sets the password of whom a link leads in; other sessions of theirs end. The link works once.',
    params: withToken,
    body: z.strictObject({ password }),
    answer: z.object({ email: z.string() }),
  },
});
