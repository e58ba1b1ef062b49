import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { labelled, moment, versioned } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { settingHeads } from './heads.ts';
import { deskSettings, groundLine } from './shapes.ts';

const keyed = z.array(labelled);

/** The desk itself, and how far its groundwork is laid. */
export const settingRoutes = routesOf(settingHeads, {
  groundwork: {
    says: 'How much of the groundwork is laid, in the order in which it is laid.',
    answer: z.object({
      counts: z.object({
        people: z.int(),
        contacts: z.int(),
        groups: z.int(),
        teams: z.int(),
        calendars: z.int(),
        registers: z.int(),
        vocabularies: z.int(),
        forms: z.int(),
        /** Forms that were released. */
        released: z.int(),
      }),
      /** What became of the newest test email; null when none was sent. */
      email: z.enum(['waiting', 'sent', 'failed']).nullable(),
      /** The key of some working calendar; null when there is none. */
      calendar: z.string().nullable(),
    }),
  },
  deskSettings: {
    says: 'The desk as it is set, and what it was before.',
    answer: z.object({
      version: z.int(),
      desk: deskSettings,
      /** What was set of its logo. */
      history: z.array(groundLine),
      /** The newest thirty, the newest first, each with what it changed. */
      states: z.array(
        z.object({
          number: z.int(),
          note: z.string(),
          by: z.string(),
          at: moment,
          desk: deskSettings,
          changes: z.array(z.object({ words, before: words, after: words })),
        }),
      ),
    }),
  },
  changeDesk: {
    says: 'Puts another state of the desk in force, at once.',
    body: z.strictObject({ desk: deskSettings, note: z.string().max(500) }),
    answer: versioned,
  },
  skills: {
    says: 'Who can do what, and where that is or could be kept.',
    answer: z.object({
      /** Null where none is named, or it is gone. */
      source: z.object({ register: z.string(), name: z.string() }).nullable(),
      /** Registers whose entries name a person and something, with the fields that could stand for each. */
      registers: z.array(
        z.object({
          ...{ key: z.string(), name: z.string() },
          ...{ person: keyed, skill: keyed, level: keyed, checked: keyed },
        }),
      ),
      skills: keyed,
      people: z.array(
        z.object({
          ...{ id: z.string(), name: z.string(), teams: z.array(z.string()) },
          /** What the reader may see of it; `number`: of the entry. */
          held: z.array(
            z.object({
              ...{ number: z.string(), skill: z.string(), level: z.number().nullable() },
              checked: z.string().nullable(),
            }),
          ),
        }),
      ),
      /** Whether entries are left out that the reader may not see, or that are too many. */
      isWhole: z.boolean(),
      today: z.string(),
    }),
  },
  sendTestEmail: {
    says: 'Sends an email to oneself, to see whether emails go out.',
    answer: z.object({ id: z.string() }),
  },
  testEmail: {
    says: 'What became of a test email.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: z.object({
      state: z.enum(['waiting', 'sent', 'failed']),
      to: z.string(),
      at: moment,
      /** What the mail server said; empty when it took the email. */
      error: z.string(),
      tries: z.int(),
    }),
  },
});
