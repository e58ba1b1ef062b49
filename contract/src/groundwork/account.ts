import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { done, moment } from '../wire/shapes.ts';
import { accountHeads } from './heads.ts';
import { absence, address, deskHearing, hearing, password, session } from './shapes.ts';

const withId = z.strictObject({ id: z.string().max(64) });

/** One’s own account: the password, and where one is signed in. */
export const accountRoutes = routesOf(accountHeads, {
  forgotPassword: {
    says: 'Sends a link to choose another password, if the address is that of somebody who signs in. The answer is the same for all.',
    body: z.strictObject({ email: address }),
    answer: done,
  },
  askForCode: {
    says: 'Sends a code and a link to sign in by, if the address is that of a contact. The answer is the same for all.',
    body: z.strictObject({ email: address }),
    answer: done,
  },
  signInByCode: {
    says: 'Signs a contact in by the code of an email. The session is in a cookie.',
    body: z.strictObject({ email: address, code: z.string().trim().min(1).max(20) }),
    answer: done,
  },
  signInByLink: {
    says: 'Signs a contact in by the link of an email. It works once. The session is in a cookie.',
    params: z.strictObject({ token: z.string().max(100) }),
    answer: done,
  },
  account: {
    says: 'Who one is here, and where one is signed in.',
    answer: z.object({
      name: z.string(),
      email: z.string(),
      /** The version of one’s portrait; null for none. */
      portrait: z.string().nullable(),
      hasPassword: z.boolean(),
      /** Whether one is asked for a code after the password. */
      code: z.boolean(),
      /** Providers that one has signed in by, by name. */
      providers: z.array(z.string()),
      /** Keys of devices that one signs in with, the newest first. */
      passkeys: z.array(z.object({ id: z.string(), name: z.string(), made: moment })),
      absences: z.array(absence),
      /** Whose place one takes today when a decision is asked for, by name. */
      standsIn: z.array(z.string()),
      /** The newest first. */
      sessions: z.array(session),
    }),
  },
  ownEmails: {
    says: 'When one gets which emails.',
    answer: z.object({
      hearing,
      /** As it is while nobody has chosen otherwise. */
      desk: deskHearing,
    }),
  },
  setOwnEmails: {
    says: 'Chooses when one gets which emails.',
    body: hearing,
    answer: done,
  },
  changePassword: {
    says: 'Sets another password of one’s own; all other sessions end.',
    body: z.strictObject({ current: password, next: password }),
    answer: done,
  },
  endPasskey: {
    says: 'Takes a key of a device of one’s own away.',
    params: withId,
    answer: done,
  },
  endSession: {
    says: 'Ends a session of one’s own.',
    params: withId,
    answer: done,
  },
  signOutPerson: {
    says: 'Signs somebody out everywhere.',
    params: withId,
    answer: z.object({ ended: z.int() }),
  },
  endTheirSession: {
    says: 'Ends one session of somebody.',
    params: withId.extend({ session: z.string().max(64) }),
    answer: done,
  },
});
