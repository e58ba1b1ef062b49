import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { called, done, moment, versioned } from '../wire/shapes.ts';
import { signInHeads } from './heads.ts';
import { groundLine } from './shapes.ts';

const provider = {
  /** What people read on the button. */
  name: z.string().trim().min(1).max(60),
  /** Where its discovery document is found (OpenID Connect Discovery 1.0). */
  issuer: z.url().max(300),
  clientId: z.string().trim().min(1).max(300),
};
const withId = z.strictObject({ id: z.string().max(64) });

/** How staff sign in. */
export const signInRoutes = routesOf(signInHeads, {
  signInWays: {
    says: 'How staff sign in here: by password, and by which providers.',
    answer: z.object({
      passwords: z.boolean(),
      providers: z.array(called),
      /** The host that keys of devices are for; null where none can be used. */
      passkeys: z.string().nullable(),
    }),
  },
  signInSettings: {
    says: 'What is set of how staff sign in.',
    answer: z.object({
      passwords: z.boolean(),
      /** Whether the one who asks may change it. */
      mayChange: z.boolean(),
      /** Whether the one who asks could still sign in without a password. */
      mayDoWithout: z.boolean(),
      /** Active staff, and how many of them have signed in by a provider. */
      staff: z.int(),
      linked: z.int(),
      history: z.array(groundLine),
      providers: z.array(
        z.object({
          ...provider,
          id: z.string(),
          /** Where it leads back to: it wants to know this address. */
          callback: z.string(),
          /** `lost`: there is one, and it can no longer be read. */
          secret: z.enum(['kept', 'none', 'lost']),
          active: z.boolean(),
          version: z.int(),
          made: moment,
          people: z.int(),
        }),
      ),
    }),
  },
  addProvider: {
    says: 'Lets staff sign in by a provider of OpenID Connect, after asking it for its discovery document.',
    body: z.strictObject({
      ...provider,
      /** Null for a public client. It is kept encrypted and never told. */
      secret: z.string().min(1).max(1_000).nullable(),
    }),
    answer: z.object({ id: z.string() }),
  },
  changeProvider: {
    says: 'Changes a provider, or lets nobody sign in by it any more.',
    params: withId,
    body: z.strictObject({
      name: provider.name.optional(),
      clientId: provider.clientId.optional(),
      secret: z.string().min(1).max(1_000).nullable().optional(),
      active: z.boolean().optional(),
    }),
    answer: versioned,
  },
  setPasswords: {
    says: 'Switches passwords on or off, for everybody. Off only for who has signed in by a provider.',
    body: z.strictObject({ on: z.boolean() }),
    answer: done,
  },
  endTheirCode: {
    says: 'Takes away what somebody lost with a device: the code after their password, and keys. They are signed out everywhere.',
    params: withId,
    answer: done,
  },
});
