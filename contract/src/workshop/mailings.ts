import { z } from 'zod';
import { release } from '../form/shapes.ts';
import { mailing, owedState } from '../mailing/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { keyed, moment, versioned } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { mailingHeads } from './heads.ts';

const named = z.strictObject({ id: z.string().max(64) });

const view = z.object({
  id: z.string(),
  version: z.int(),
  mailing,
  /** What it does, in sentences. */
  says: z.array(words),
  findings: z.array(z.object({ at: z.string(), message: words })),
  /** What the people it names are called, by their ids. */
  people: z.record(z.string(), z.string()),
  /** When it goes out next by itself. */
  next: moment.nullable(),
  /** Periods, by the day they began, for which it did not go: the desk stood still. */
  missed: z.array(z.iso.date()),
  counts: z.object({ open: z.int(), late: z.int(), done: z.int() }),
  /** When it went, the newest first. */
  goings: z.array(
    z.object({
      ...{ id: z.string(), at: moment, by: z.string() },
      /** The day its period began; null where it has none. */
      period: z.iso.date().nullable(),
      ...{ sent: z.int(), done: z.int(), notSent: z.int() },
    }),
  ),
  states: z.array(release.extend({ mailing })),
});

/** What somebody is asked about, as far as the caller may know; names are null where they may not. */
const asked = { name: z.string().nullable(), about: words.nullable() };

/** Forms that are sent to people to fill in. */
export const mailingRoutes = routesOf(mailingHeads, {
  mailings: {
    says: 'The mailings of a form: what each does, when it goes, and how many have answered.',
    params: keyed,
    answer: z.object({ mailings: z.array(view) }),
  },
  addMailing: {
    says: 'Adds a mailing to a form, in force at once. By hand, nothing goes out until somebody sends it.',
    params: keyed,
    body: z.strictObject({ mailing }),
    answer: z.object({ id: z.string() }),
  },
  tryMailing: {
    says: 'Whom a mailing would go to now, were it like this, and to whom it could not be sent and why.',
    params: keyed,
    body: z.strictObject({ mailing }),
    answer: z.object({
      /** How many forms, to how many people. */
      ...{ forms: z.int(), people: z.int() },
      /** Some of them. */
      some: z.array(z.object(asked)),
      notSent: z.int(),
      someNot: z.array(
        z.object({
          ...asked,
          why: z.enum(['nobody', 'unknown', 'inactive', 'door-for-staff', 'asks-outside']),
        }),
      ),
      findings: z.array(z.object({ at: z.string(), message: words })),
    }),
  },
  changeMailing: {
    says: 'Changes a mailing: it is in force at once. What was sent stays as it was sent.',
    params: named,
    body: z.strictObject({
      mailing,
      /** Why; others read it later. */
      note: z.string().max(500),
    }),
    answer: versioned,
  },
  removeMailing: {
    says: 'Removes a mailing. What nobody has answered yet ends; answers stay.',
    params: named,
    answer: z.object({ ended: z.int() }),
  },
  sendMailing: {
    says: 'Sends a mailing now. Whoever has the same form still open is not sent it again.',
    params: named,
    body: z.strictObject({
      /** Only to those who were never sent it. */
      onlyNew: z.boolean(),
    }),
    answer: z.object({ forms: z.int(), people: z.int() }),
  },
  owedForms: {
    says: 'Who was sent a mailing, about what, and who has answered; those that are due first come first.',
    params: named,
    query: z.strictObject({
      state: owedState.optional(),
      going: z.string().max(64).optional(),
    }),
    answer: z.object({
      rows: z.array(
        z.object({
          ...{ id: z.string(), ...asked, state: owedState, sent: moment, due: moment.nullable() },
          closed: moment.nullable(),
          /** Whether they can be reminded: they are still here. */
          active: z.boolean(),
          passedBy: z.string().nullable(),
          /** The request that the answer became. */
          answer: z.string().nullable(),
        }),
      ),
      total: z.int(),
    }),
  },
  remindOwed: {
    says: 'Reminds those who have not answered, at once: of some forms, or of all that are open.',
    params: named,
    body: z.strictObject({ only: z.array(z.string().max(64)).max(1_000).nullable() }),
    answer: z.object({ people: z.int() }),
  },
  endOwed: {
    says: 'Ends forms that nobody has to fill in any more.',
    params: named,
    body: z.strictObject({ forms: z.array(z.string().max(64)).max(1_000) }),
    answer: z.object({ ended: z.int() }),
  },
  unjoined: {
    says: 'Requests that came by a form without saying which request they are about, for a mailing that asks about requests.',
    params: named,
    answer: z.object({ requests: z.array(z.object({ number: z.string(), subject: words, at: moment })) }),
  },
});
