import { EMAIL_STATES, SENT_STATES } from '@tolvek/core/notice';
import { WITH_MESSAGE } from '@tolvek/core/register';
import { z } from 'zod';
import { knownFile, offers } from '../register/shapes.ts';
import { routesOf } from '../wire/route.ts';
import {
  keyed,
  moment,
  numbered,
  trouble,
  visibleSubject,
  visibleTexts,
  visibleValues,
  withToken,
} from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { calendar } from '../workshop/calendars.ts';
import { viewHeads } from './heads.ts';
import { asked, given, hop, ledgerRow, proposalTold, requesterView, sheet, toFill, trayKeys } from './shapes.ts';

/** `field` is the same for all messages. */
const messageFile = z.strictObject({ field: z.literal(WITH_MESSAGE), name: z.string().min(1).max(200) });

/** An email, to whom it was meant, and what became of it. */
const emailTold = z.object({
  id: z.string(),
  person: z.string(),
  about: words,
  state: z.enum(EMAIL_STATES),
  /** It goes as a text message. */
  isText: z.boolean().optional(),
  /** When it was caused; and when it went, or goes. */
  at: moment,
  goes: moment.nullable(),
  /** What the mail server said last, where it took it not. */
  error: z.string().nullable(),
});

const fileOfRequest = z.strictObject({ number: z.string().max(20), id: z.string().max(64) });

/** What people read: trays, the ledger, sheets, their own requests, files. */
export const viewRoutes = routesOf(viewHeads, {
  frontDesk: {
    says: 'The forms one can ask with, and one’s own requests.',
    answer: z.object({
      forms: z.array(
        z.object({
          ...{ slug: z.string(), title: z.string(), intro: z.string(), refusal: words.nullable() },
          /** Under which heading it stands; empty: with all others. */
          topic: z.string(),
        }),
      ),
      /** The first decisions that wait for the caller, and how many wait in all. */
      toDecide: z.object({
        rows: z.array(
          z.object({
            ...{ number: z.string(), subject: visibleSubject, requester: z.string() },
            ...{ due: moment.nullable(), late: z.boolean() },
          }),
        ),
        total: z.int(),
      }),
      /** What somebody from outside was asked to handle or to decide, what is due first. */
      given: z.array(
        z.object({
          ...{ number: z.string(), subject: visibleSubject, form: z.string(), handles: z.boolean() },
          ...{ decides: z.boolean(), due: moment.nullable(), late: z.boolean() },
        }),
      ),
      /** What was sent to the caller to fill in, what is due first. */
      toFill: z.array(toFill),
      /** What the caller began to type and has not sent. */
      begun: z.array(z.object({ slug: z.string(), title: z.string() })),
      mine: z.array(
        z.object({
          number: z.string(),
          form: z.string(),
          subject: visibleSubject,
          stage: z.string(),
          finished: z.boolean(),
          /** Whether it waits for the answer of whoever asked. */
          waits: z.boolean(),
          /** What it waits for, where the desk wrote it. */
          question: asked.nullable(),
          promise: words.nullable(),
        }),
      ),
      /** The shared results that are for the caller. */
      shared: z.array(z.object({ id: z.string(), name: z.string(), by: z.string(), until: z.iso.date() })),
    }),
  },
  trays: {
    says: 'The trays with their counts, and what is due in the next working days.',
    answer: z.object({
      trays: z.array(z.object({ key: z.enum(trayKeys), count: z.int() })),
      horizon: z.array(
        z.object({
          /** The day; null for what is overdue. */
          day: z.iso.date().nullable(),
          today: z.boolean(),
          count: z.int(),
          state: z.enum(['late', 'soon', 'calm']),
        }),
      ),
      /** What keeps the application from doing all of its work. */
      troubles: z.array(trouble),
      /**
       * Letters that were given up after seven tries, for coordinators, who can send them again.
       */
      failedLetters: z.int(),
      /** Text messages that were given up, for the same. */
      failedTexts: z.int(),
      /** The programs that did not take what they were told, for whoever lays the ground. */
      failedPrograms: z.array(z.object({ key: z.string(), name: z.string(), count: z.int() })),
      /** Emails that came in and have no request, for coordinators, who say what becomes of them. */
      heldEmails: z.int(),
    }),
  },
  ledger: {
    says: 'A page of the ledger: the requests of a tray, the most urgent first.',
    query: z.strictObject({
      tray: z.enum(trayKeys).default('arrived'),
      after: z.string().max(120).optional(),
      find: z.string().max(100).optional(),
    }),
    answer: z.object({
      rows: z.array(ledgerRow),
      next: z.string().nullable(),
      total: z.int(),
      /** More was found than is looked through: what is listed and counted is of the newest. */
      newest: z.boolean(),
    }),
  },
  decisionsAlike: {
    says: 'Requests of the same form that wait for the caller at the same step as one does, with all that is needed to decide on them; the oldest first, fifty at most.',
    params: numbered,
    answer: z.object({
      alike: z.array(
        z.object({
          ...{ number: z.string(), subject: visibleSubject, requester: z.string(), values: visibleValues },
          /** Stands for what is in view; the decision says it. */
          seen: z.string(),
        }),
      ),
    }),
  },
  sheet: {
    says: 'The request sheet.',
    params: numbered,
    answer: sheet,
  },
  requestCourse: {
    says: 'The life of a request so far, and what is planned of it, to be drawn over working time.',
    params: numbered,
    answer: z.object({
      calendar,
      ...{ now: moment, from: moment, to: moment },
      /** The stages it came to, as far as its reader may see what happened. */
      stages: z.array(z.object({ label: z.string(), at: moment })),
      steps: z.array(
        z.object({
          ...{ label: z.string(), needed: z.int(), of: z.int() },
          /** Since when it is asked, until when it has time, and when it was decided; null where that is not so. */
          ...{ since: moment.nullable(), until: moment.nullable(), ended: moment.nullable() },
        }),
      ),
      deadlines: z.array(
        z.object({
          ...{ key: z.string(), name: words, from: moment, due: moment, ended: moment.nullable(), late: z.boolean() },
          /** When its time stood still; the end is null while it does. */
          still: z.array(z.object({ from: moment, to: moment.nullable() })),
          rings: z.array(z.object({ at: moment, what: words })),
        }),
      ),
    }),
  },
  sentEmails: {
    says: 'The emails of the desk, the newest first: to whom, about what, and what became of them. Those about a request as far as whoever looks may see its history.',
    query: z.strictObject({
      state: z.enum(SENT_STATES).default('all'),
      /** A part of a name or address, or the number of a request. */
      find: z.string().max(100).default(''),
      /** Those before this one, as the answer before said. */
      before: z.string().max(80).optional(),
    }),
    answer: z.object({
      emails: z.array(emailTold.extend({ number: z.string().nullable(), again: z.boolean() })),
      next: z.string().nullable(),
    }),
  },
  requestEmails: {
    says: 'Who was written to about a request, why somebody was not, and what comes.',
    params: numbered,
    answer: z.object({
      /** The newest first. */
      emails: z.array(emailTold),
      /** Whether there are more. */
      more: z.boolean(),
      /** Notices that whoever looks can send by hand now: by key, what they are called, and whether words of theirs go along. */
      byHand: z.array(z.object({ key: z.string(), name: z.string(), words: z.boolean() })),
      /** What will be told, to whom and when, while nobody does anything; in its order. */
      coming: z.array(z.object({ at: moment, about: words, what: words })),
    }),
  },
  file: {
    says: 'A file of a request, for whoever may read its field; the answer is its bytes.',
    params: fileOfRequest,
    answer: z.string(),
  },
  smallFile: {
    says: 'A picture of a request made small (WebP), for whoever may read its field. With 404 for what is no picture.',
    params: fileOfRequest,
    answer: z.string(),
  },
  changedBy: {
    says: 'Who else has begun to change a request and not saved, and which of the fields that the caller may read.',
    params: numbered,
    answer: z.object({
      others: z.array(z.object({ name: z.string(), asked: z.boolean(), fields: z.array(z.string()) })),
    }),
  },
  sheetUpload: {
    says: 'Takes a file for a field of a request in; its bytes are the body. It is looked at by content, and joins the request when the field is changed to name it.',
    params: numbered,
    query: z.strictObject({ field: z.string().max(64), name: z.string().min(1).max(200) }),
    answer: knownFile,
  },
  messageUpload: {
    says: 'Takes a file in that goes with a note or a message about a request; its bytes are the body. It joins the request when a message names it.',
    params: numbered,
    query: messageFile,
    answer: knownFile,
  },
  myMessageUpload: {
    says: 'The same for one’s own request.',
    params: numbered,
    query: messageFile,
    answer: knownFile,
  },
  followMessageUpload: {
    says: 'The same for one’s own request, by the link in its emails.',
    params: withToken,
    query: messageFile,
    answer: knownFile,
  },
  sheetOffers: {
    says: 'What a reference of a request offers to who works on it, with its values as they are.',
    params: numbered,
    body: z.strictObject({ field: z.string().max(64), find: z.string().max(100) }),
    answer: offers,
  },
  proposalLink: {
    says: 'A change that waits to be accepted, by the link in an email about it, as whom it was sent to may see it.',
    params: withToken,
    answer: z.object({
      ...{ number: z.string(), subject: visibleSubject, reader: z.string() },
      values: visibleValues,
      proposal: proposalTold,
    }),
  },
  decisionLink: {
    says: 'What a decision link asks, as its approver may see it.',
    params: withToken,
    answer: z.object({
      number: z.string(),
      subject: visibleSubject,
      form: z.string(),
      step: z.string(),
      approver: z.string(),
      requester: z.string(),
      due: moment.nullable(),
      /** Until when the step is decided; null where there is no end of it. */
      until: moment.nullable(),
      /** Whether whoever asked can be asked for more first. */
      mayReturn: z.boolean(),
      values: visibleValues,
      words: visibleTexts,
      hops: z.array(hop),
      /** Stands for what is in view; the decision says it, so that it is on what was read. */
      seen: z.string(),
    }),
  },
  live: {
    says: 'Server-sent events: the numbers of requests that changed, for those who may see them.',
    answer: z.object({ event: z.literal('changed'), data: z.object({ number: z.string() }) }),
  },
  follow: {
    says: 'An outside requester’s own request.',
    params: withToken,
    answer: requesterView,
  },
  followFile: {
    says: 'A file of one’s own request, as an outside requester; the answer is its bytes.',
    params: z.strictObject({ token: z.string().max(100), id: z.string().max(64) }),
    answer: z.string(),
  },
  given: {
    says: 'A request that somebody from outside was asked to handle or to decide, as far as they may see it.',
    params: numbered,
    answer: given,
  },
  myRequest: {
    says: 'One’s own request as its requester sees it.',
    params: numbered,
    answer: requesterView,
  },
  takeOut: {
    says: 'The requests of a form as a sheet (CSV, RFC 4180), each with what the caller may read of it; the answer is its bytes.',
    params: keyed,
    query: z.strictObject({ among: z.enum(['unfinished', 'all']).default('all') }),
    answer: z.string(),
  },
});
