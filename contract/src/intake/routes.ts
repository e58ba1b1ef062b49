import { z } from 'zod';
import { asksForOffers, knownFile, offers } from '../register/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { done, moment, rawAnswers, slugged, visibleSubject, withToken } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { intakeHeads } from './heads.ts';
import { doorView, keptAnswers, leadsTo } from './shapes.ts';

const contact = z.strictObject({ name: z.string().trim().max(200), email: z.string().trim().max(254) });
/** Epoch ms by the clock of the device it was typed on. */
const typedAt = z.int().min(0);
/** What proves since when somebody has been filling in. */
const opened = z.string().max(60).optional();
/** What was sent to them to fill in: its id where they are signed in, else the token of the link in their email. */
const owed = z.string().max(60).optional();
/** The link to a place that is held for them, from their email. */
const place = z.string().max(60).optional();

/** Asking: doors, answers that are kept, and confirming an address. */
export const intakeRoutes = routesOf(intakeHeads, {
  door: {
    says: 'A door and, to whom it admits, the form behind it.',
    params: slugged,
    query: z.strictObject({
      ...{ opened, owed, place },
      /** Somebody of whom nothing is here yet fills in a form that changes what is there. */
      fresh: z.stringbool().default(false),
    }),
    answer: doorView,
  },
  checkAnswers: {
    says: 'Which answers another request has already, where no two may have the same, and whether they lead to another form. Whose it is is said only to whoever asked it.',
    params: slugged,
    body: z.strictObject({ answers: rawAnswers, opened, owed, place, entry: z.string().max(64).optional() }),
    answer: z.object({ problems: z.array(z.object({ field: z.string(), message: words, fix: words })), leadsTo }),
  },
  offers: {
    says: 'What a reference of the form offers with the answers so far: only what the reference shows and carries along of each request.',
    params: slugged,
    body: asksForOffers.extend({ opened, owed, place }),
    answer: offers,
  },
  cardPicture: {
    says: 'The picture on a card of what a reference of the form offers, made small. With 404 where the card has none.',
    params: slugged.extend({ field: z.string().max(64), file: z.string().max(64) }),
    query: z.strictObject({ opened, owed, place }),
    answer: z.string(),
  },
  keepAnswers: {
    says: 'Keeps what the caller typed and has not sent, for any device they sign in on. Nothing typed forgets it.',
    params: slugged,
    body: z.strictObject({ answers: rawAnswers, typedAt, owed }),
    answer: z.object({ kept: z.boolean() }),
  },
  sendKept: {
    says: 'Keeps what was typed at an outside door for fourteen days, and sends a link to go on with it.',
    params: slugged,
    body: z.strictObject({ answers: rawAnswers, contact, typedAt }),
    answer: z.object({ email: z.string() }),
  },
  kept: {
    says: 'What was kept behind a link to go on.',
    params: withToken,
    answer: keptAnswers.extend({ slug: z.string(), contact: z.object({ name: z.string(), email: z.string() }) }),
  },
  keepKept: {
    says: 'Keeps what is typed behind a link to go on.',
    params: withToken,
    body: z.strictObject({ answers: rawAnswers, contact, typedAt }),
    answer: z.object({ kept: z.boolean() }),
  },
  upload: {
    says: 'Takes a file for a question in; its bytes are the body. It is looked at by content, and forgotten unless a request names it within fifteen days.',
    params: slugged,
    query: z.strictObject({ field: z.string().max(64), name: z.string().min(1).max(200), opened, owed, place }),
    answer: knownFile,
  },
  submit: {
    says: 'Sends a request through a door. At an outside door it waits for the address to be confirmed.',
    params: slugged,
    body: z.strictObject({
      ...{ release: z.int(), answers: rawAnswers, contact: contact.optional() },
      /** One of the staff on whose behalf somebody asks at a staff door, by id. */
      onBehalf: z.string().max(64).optional(),
      ...{ opened, owed, place },
      /** Of a form that changes what is there: which of theirs they mean, by its id; or `another`. */
      entry: z.string().max(64).optional(),
      /** The version of the text that they agree to. */
      consent: z.int().optional(),
      /** What the device worked out. */
      work: z.string().max(4_000).optional(),
    }),
    answer: z.discriminatedUnion('state', [
      z.object({
        ...{ state: z.literal('arrived'), number: z.string(), due: moment.nullable() },
        /** The words of the door; not there where it was sent before doors had such words. */
        says: words.nullable().optional(),
        /** Where an email went by which it becomes the sender’s own; null where it is. */
        confirms: z.string().nullable().optional(),
      }),
      z.object({
        ...{ state: z.literal('changed'), number: z.string() },
        /** Whether it changed, waits to be accepted, or all of it is still right. */
        is: z.enum(['changed', 'waits', 'confirmed']),
      }),
      z.object({
        state: z.literal('to-confirm'),
        email: z.string(),
        /** The token of the link by which the sender sees what became of it. Null: sent before there were such links. */
        sent: z.string().nullable(),
      }),
    ]),
  },
  joinLine: {
    says: 'Puts the caller at the end of the line of a door whose places are taken. They are written to when one is free.',
    params: slugged,
    body: z.strictObject({ contact: contact.optional() }),
    answer: z.object({ email: z.string() }),
  },
  leaveLine: {
    says: 'Takes the caller out of the line of a door: whoever is signed in, or has the link to their place.',
    params: slugged,
    body: z.strictObject({ place }),
    answer: done,
  },
  work: {
    says: 'Some work for a device that sends through a door where robots are slowed down; what comes out goes along, once.',
    params: slugged,
    answer: z.object({ work: z.string() }),
  },
  confirmation: {
    says: 'What a confirmation link would send.',
    params: withToken,
    answer: z.object({
      ...{ form: z.string(), name: z.string(), email: z.string() },
      /** The number of the request that came in already; null where confirming sends it. */
      arrived: z.string().nullable(),
      /** Who sent it for them, by name; null where they did. */
      by: z.string().nullable(),
      /** Where it may change several of theirs: which, and whether it may be another one; null where that is clear. */
      which: z
        .object({
          theirs: z.array(z.object({ id: z.string(), number: z.string(), subject: visibleSubject })),
          another: z.boolean(),
        })
        .nullable(),
    }),
  },
  confirm: {
    says: 'Confirms the address and sends the request.',
    params: withToken,
    /** What of theirs they mean, where several fit: its id, or `another`. */
    query: z.strictObject({ entry: z.string().max(64).optional() }),
    answer: z.object({
      ...{ number: z.string(), due: moment.nullable(), says: words.nullable() },
      /** Whether it came in, or changed what was there, has it wait to be accepted, or says that all is still right. */
      is: z.enum(['arrived', 'changed', 'waits', 'confirmed']),
      /** The link to follow it; null where it changed what is not one’s own request. */
      follow: z.string().nullable(),
    }),
  },
  sentState: {
    says: 'What became of what was sent from outside: it waits for its address to be confirmed, or has arrived.',
    params: withToken,
    answer: z.discriminatedUnion('state', [
      z.object({
        state: z.literal('to-confirm'),
        form: z.string(),
        slug: z.string(),
        email: z.string(),
        until: moment,
      }),
      z.object({ state: z.literal('arrived'), form: z.string(), number: z.string(), due: moment.nullable() }),
    ]),
  },
  sendAgain: {
    says: 'Sends the link to confirm once more: to the same address, or to a corrected one; the links of another address end.',
    params: withToken,
    body: z.strictObject({ email: z.string().max(254) }),
    answer: z.object({ email: z.string() }),
  },
  backToAnswers: {
    says: 'Gives back what waits to be confirmed, as answers that were begun: nothing is sent, and the link in the letter is used up.',
    params: withToken,
    answer: z.object({
      slug: z.string(),
      /** The token of the link that leads to the answers. */
      kept: z.string(),
    }),
  },
});
