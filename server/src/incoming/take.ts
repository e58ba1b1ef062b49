import { createHash } from 'node:crypto';
import {
  failedDelivery,
  type Headers,
  kindOfEmail,
  newWords,
  noticesNamed,
  numbersNamed,
  type Place,
  placeOf,
  type SenderRole,
  withoutLinks,
} from '@tolvek/core/incoming';
import { may } from '@tolvek/core/people';
import { and, eq } from 'drizzle-orm';
import { type Attachment, type ParsedMail, type Source, simpleParser } from 'mailparser';
import { takeMessage, takeNote } from '../desk/commands.ts';
import { giveEmailFiles, takeWithEmail } from '../files/commands.ts';
import { bounced, letterOf, type Sent, sentById } from '../notice/answered.ts';
import { type PersonRow, personByEmail, viewerIn } from '../people/queries.ts';
import { adding } from '../platform/adding.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { patiently } from '../platform/patience.ts';
import { Problem } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, requestById, requestByNumber } from '../request/queries.ts';
import { deskOf } from '../settings/queries.ts';
import { incomingEmails } from './tables.ts';

const addEmail = adding(incomingEmails);

/** As much of an email’s words is kept, characters; more is no message any more. */
const MOST_WORDS = 50_000;
/** As many files of one email are taken. */
const MOST_FILES = 20;

/** Reads an email as it is written on its way (RFC 5322, RFC 2045); reports on delivery keep their parts. */
export const parseEmail = (source: Source): Promise<ParsedMail> =>
  simpleParser(source, { skipImageLinks: true, keepDeliveryStatus: true });

/** An email as it came, with where undeliverable mail about it would go. */
export interface Came {
  readonly mail: ParsedMail;
  readonly wayBack: string;
}

/** What is known of an email before anything is written. */
interface ReadEmail {
  readonly id: string;
  readonly messageId: string;
  readonly from: { readonly name: string; readonly address: string };
  readonly subject: string;
  readonly text: string;
  readonly whole: string;
  readonly isAutomatic: boolean;
  readonly leftOut: readonly string[];
  readonly hasFiles: boolean;
  /** The emails of ours that it answers, the last one first. */
  readonly answers: readonly string[];
}

/**
 * Takes in an email that somebody sent to the desk, whole or not at all: as a message or a note of the request it
 * answers, or to be looked at. What comes twice is taken once.
 *
 * @throws Problem 503 where nothing can be stored just now: whoever hands it over tries again
 */
export async function takeEmail(house: House, { mail, wayBack }: Came): Promise<void> {
  const { db } = house;
  const headers: Headers = new Map(mail.headerLines.map(({ key, line }) => [key, line.slice(line.indexOf(':') + 1)]));
  const kind = kindOfEmail(trimmed(headers), wayBack);
  const sender = mail.from?.value[0];
  const from = { name: sender?.name ?? '', address: (sender?.address ?? wayBack).toLowerCase() };
  const messageId = mail.messageId ?? digestOf(mail, from.address);
  if (cameBefore(db, from.address, messageId)) return;
  if (kind === 'undelivered' && (await tellUndelivered(house, mail.attachments))) return;

  const answers = noticesNamed([mail.references ?? [], mail.inReplyTo ?? []].flat().join(' '));
  const whole = withoutLinks((mail.text ?? '').slice(0, 4 * MOST_WORDS), house.config.url);
  const quoted = answers.map((id) => letterOf(house, db, id)).find((text) => text !== '') ?? '';
  const { address } = deskOf(db).sender;
  const text = newWords(whole, { answers: withoutLinks(quoted, house.config.url), address });
  const id = newId();
  const isAutomatic = kind !== 'written';
  const leftOut = isAutomatic ? [] : await keepFiles(house, id, mail.attachments);
  const hasFiles = !isAutomatic && mail.attachments.length > leftOut.length;
  const read: ReadEmail = {
    ...{ id, messageId, from, subject: (mail.subject ?? '').slice(0, 300), isAutomatic, leftOut, hasFiles, answers },
    ...{ text: text.slice(0, MOST_WORDS), whole: whole.slice(0, MOST_WORDS) },
  };
  const place = await patiently(house, () => write(house, (work) => store(work, read)));
  if (place?.is === 'held') house.live.emailCame((viewer) => may(viewer, 'groundwork'));
}

/** Headers without what surrounds their values. */
const trimmed = (headers: Headers): Headers => new Map([...headers].map(([key, value]) => [key, value.trim()]));

/** What an email is known by that its sender named by nothing: what it says, and when. */
function digestOf({ date, subject, text }: ParsedMail, from: string): string {
  const said = JSON.stringify([from, date?.getTime() ?? 0, subject ?? '', text ?? '']);
  return `sha256:${createHash('sha256').update(said).digest('hex')}`;
}

const cameBefore = (db: Reader, fromAddress: string, messageId: string): boolean =>
  db
    .select({ id: incomingEmails.id })
    .from(incomingEmails)
    .where(and(eq(incomingEmails.fromAddress, fromAddress), eq(incomingEmails.messageId, messageId)))
    .get() !== undefined;

/** Notes that an email of ours could not be delivered; false where a report tells of none. */
async function tellUndelivered(house: House, attachments: readonly Attachment[]): Promise<boolean> {
  const parts = attachments.map(({ contentType, content }) => ({
    media: contentType.toLowerCase(),
    text: content.subarray(0, 65_536).toString('utf8'),
  }));
  const failed = failedDelivery(parts);
  const [id] = failed ? noticesNamed(failed.messageId) : [];
  if (!failed || id === undefined) return false;
  return patiently(house, () =>
    write(house, (work) => {
      const reason = failed.reason.slice(0, 500);
      const sent = sentById(work.tx, id);
      if (!bounced(work.tx, id, reason)) return false;
      const request = sent?.requestId ? requestById(work.tx, sent.requestId) : undefined;
      const of = sent?.personId ?? null;
      // Whoever works on it has to know that whoever asked has read nothing.
      if (request && of !== null && isOwnOf(request, of))
        changeRequest(work, request, { kind: 'undelivered', of, reason });
      return true;
    }),
  );
}

/** Keeps what came along, before it is known whose it will be; gives the names of what is not taken. */
async function keepFiles(house: House, emailId: string, attachments: readonly Attachment[]): Promise<string[]> {
  const leftOut: string[] = [];
  for (const [n, { filename, contentType, content }] of attachments.entries()) {
    const name = filename ?? (contentType === 'message/rfc822' ? 'email.eml' : `file-${n + 1}`);
    if (n >= MOST_FILES) {
      leftOut.push(name.slice(0, 120));
      continue;
    }
    try {
      await takeWithEmail(house, emailId, name, content);
    } catch (error) {
      // What could not be kept just now is sent again; what is not taken is told.
      if (!(error instanceof Problem) || error.status >= 500) throw error;
      leftOut.push(name.slice(0, 120));
    }
  }
  return leftOut;
}

/** What one of ours that is answered was about, as far as the request is still there. */
function answeredBy(tx: Reader, answers: readonly string[]): { sent: Sent; request: RequestRow } | null {
  for (const id of answers) {
    const sent = sentById(tx, id);
    const request = sent?.requestId ? requestById(tx, sent.requestId) : undefined;
    if (sent && request && !request.trial) return { sent, request };
  }
  return null;
}

/** What somebody is to a request, as far as they may write to it. */
export function roleAt(tx: Reader, person: PersonRow | undefined, request: RequestRow): SenderRole {
  if (!person?.active) return null;
  if (isOwnOf(request, person.id)) return 'requester';
  if (person.kind !== 'staff') return null;
  const open = openRequest(tx, request, viewerIn(tx, person), 'changing');
  return open.relation.isDesk && open.may('change') ? 'desk' : null;
}

/** Stores an email with what becomes of it; null where it was stored before. */
function store(work: Work, read: ReadEmail): Place | null {
  const { tx } = work;
  if (cameBefore(tx, read.from.address, read.messageId)) return null;
  const person = personByEmail(tx, read.from.address);
  const answered = answeredBy(tx, read.answers);
  const named = numbersNamed(read.subject).flatMap((number) => requestByNumber(tx, number) ?? []);
  const requests = new Map([...named, ...(answered ? [answered.request] : [])].map((each) => [each.id, each]));
  const place = placeOf({
    isAutomatic: read.isAutomatic,
    saysSomething: read.text !== '' || read.hasFiles,
    answered: answered && {
      request: answered.request.id,
      wentToSender: person !== undefined && answered.sent.personId === person.id,
    },
    named: named.filter(({ trial }) => !trial).map(({ id }) => id),
    isKnown: person !== undefined,
    roleAt: (id) => {
      const request = requests.get(id);
      return request ? roleAt(tx, person, request) : null;
    },
  });
  const request = 'request' in place && place.request !== null ? requests.get(place.request) : undefined;
  const isTaken = request !== undefined && person !== undefined && (place.is === 'message' || place.is === 'note');
  addEmail(tx, rowOf(read, isTaken ? { is: place.is, request: request.id } : place, work.now));
  if (!isTaken) return place;
  const files = giveEmailFiles(tx, read.id, request);
  const email = { from: '', ...(read.leftOut.length > 0 ? { leftOut: read.leftOut } : {}) };
  const words = { text: read.text, files, email };
  if (place.is === 'message') takeMessage(by(work, person.id), request, words);
  else takeNote(by(work, person.id), request, words);
  return place;
}

/** An email as it is kept; of what is part of a request, only that it came. */
function rowOf(read: ReadEmail, place: Place, now: number): typeof incomingEmails.$inferInsert {
  const { id, messageId, from, leftOut } = read;
  const came = { id, messageId, receivedAt: now, fromAddress: from.address };
  const isTaken = place.is === 'message' || place.is === 'note';
  if (isTaken) return { ...came, ...PART_OF_REQUEST, requestId: place.request };
  return {
    ...came,
    ...{ fromName: from.name, subject: read.subject, text: read.text, whole: read.whole, leftOut },
    state: place.is,
    why: place.is === 'held' ? place.why : null,
    requestId: place.is === 'held' ? place.request : null,
  };
}

/** What is left of an email once it is part of a request. */
export const PART_OF_REQUEST = {
  ...{ state: 'taken', why: null, fromName: '', subject: '', text: '', whole: '', leftOut: [] },
} as const satisfies Partial<typeof incomingEmails.$inferInsert>;
