import { z } from 'zod';
import { door } from '../door/shapes.ts';
import { doorSettings, release } from '../form/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { keyed, moment, slugged, versioned } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { doorHeads } from './heads.ts';

/** What ends with a door: requests that wait for an address to be confirmed, forms that were begun; and what stays. */
const ended = z.object({ waiting: z.int(), begun: z.int(), requests: z.int(), line: z.int() });

/** The short address of a door, as people type it. */
const address = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'say wire:address')
  .max(40);

/** Some people by name, and how many there are in all. */
const some = z.object({ n: z.int(), names: z.array(z.string()) });

/** Ways in to forms: who comes in, by which proof, when, and how many. */
export const doorRoutes = routesOf(doorHeads, {
  doorDesign: {
    says: 'A door as it is in force, what has come in against its limits, and what was in force before.',
    params: slugged,
    answer: z.object({
      slug: z.string(),
      form: z.string(),
      version: z.int(),
      door,
      /** What the words of its audience are called, and people by their ids. */
      words: z.record(z.string(), words),
      people: z.record(z.string(), z.string()),
      /** Requests that count against each limit for all, up to what it takes; those of each person are counted when one comes. */
      used: z.array(z.object({ limit: z.string(), n: z.int() })),
      /** Other doors to which it could send those who can’t come in. */
      others: z.array(z.object({ slug: z.string(), name: z.string(), form: z.string() })),
      /** Who waits for a place, the first first, and until when one is held for them. */
      line: z.array(z.object({ name: z.string(), email: z.string(), since: moment, until: moment.nullable() })),
      /** The addresses that it had before, the last first. */
      former: z.array(z.object({ slug: z.string(), leadsOn: z.boolean(), at: moment })),
      states: z.array(release.extend({ door })),
    }),
  },
  changeDoor: {
    says: 'Changes a door: it is in force at once. What came in by it stays.',
    params: slugged,
    body: z.strictObject({
      door,
      /** Why; others read it later. */
      note: z.string().max(500),
    }),
    answer: versioned,
  },
  addDoor: {
    says: 'Adds a door to a form, open to everybody who proves who they are in this way. It leads nowhere until the form is released.',
    params: keyed,
    body: z.strictObject({
      name: z.string().trim().min(1, 'say wire:nameMissing').max(200),
      proof: z.enum(['sign-in', 'confirmed-address']),
      /** Its short address; one is made of the form’s key when nothing is said. */
      slug: address.optional(),
    }),
    answer: z.object({ slug: z.string() }),
  },
  doorRemoval: {
    says: 'What would end with a door, and how many requests came by it: those stay.',
    params: slugged,
    answer: ended,
  },
  removeDoor: {
    says: 'Removes a door, for good. Its links end, with what was begun or waits to be confirmed; requests stay.',
    params: slugged,
    answer: ended,
  },
  moveDoor: {
    says: 'Gives a door another address. The one it had leads on to it, or no more: then it says so to whoever comes by it.',
    params: slugged,
    body: z.strictObject({ slug: address.optional(), leadsOn: z.boolean() }),
    answer: z.object({ slug: z.string() }),
  },
  tryDoor: {
    says: 'Whom a door would mean today, were it like this: how many, who would be so for the first time or no more, and who would be meant but is left out.',
    params: slugged,
    body: z.strictObject({ door }),
    answer: z.object({
      ...{ staff: z.int(), contacts: z.int() },
      /** By name, some of them each; and how many they are. */
      ...{ comeIn: some, dropOut: some, leftOut: some },
    }),
  },
  setDoor: {
    says: 'Opens or closes a door, and what people read when it is closed.',
    params: slugged,
    body: z.strictObject({ open: z.boolean(), closedMessage: z.string().max(500) }),
    answer: doorSettings,
  },
});
