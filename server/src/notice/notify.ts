import { momentInWords } from '@tolvek/core/deadline';
import {
  type DressedLetter,
  draftConfirmation,
  draftGoingOn,
  draftNotice,
  dressLetter,
  type NoticeEvent,
} from '@tolvek/core/notice';
import { and, count, eq, gt, sql } from 'drizzle-orm';
import { v7 as uuid } from 'uuid';
import { calendarOf } from '../calendar/queries.ts';
import { releaseById } from '../form/queries.ts';
import { groupsOf, personById } from '../people/queries.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { issueLink, linkEnds } from '../platform/links.ts';
import { Problem } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { openRequest } from '../request/open.ts';
import type { ShownRow } from '../request/queries.ts';
import { outbox } from './tables.ts';

/** Where the signature of every letter comes from. */
export const DESK = { name: 'Field Operations Desk', station: 'Skerrow Point Marine Station' } as const;
const SIGNATURE = `${DESK.name}, ${DESK.station}`;

const HOUR = 3_600_000;
/** Letters to an address that nobody has confirmed: anybody can have them sent to anybody. */
const UNCONFIRMED = { hour: 5, day: 20 } as const;

/** @throws Problem 429 when an address that nobody confirmed has had as many letters as it may. */
export function roomForLetter(tx: Transaction, address: string, now: number): void {
  const sent = (since: number): number =>
    tx
      .select({ n: count() })
      .from(outbox)
      .where(and(eq(outbox.toAddress, address), sql`kind in ('confirm', 'go-on')`, gt(outbox.createdAt, since)))
      .get()?.n ?? 0;
  const isFull = sent(now - HOUR) >= UNCONFIRMED.hour;
  if (!isFull && sent(now - 24 * HOUR) < UNCONFIRMED.day) return;
  throw new Problem(
    429,
    'too-many-letters',
    'Many letters went there already',
    `Several letters went to ${address} lately, so no more are sent for now. Look for them there, also among unwanted mail, or try again ${isFull ? 'in an hour' : 'tomorrow'}; what you typed is still here.`,
    undefined,
    isFull ? 3_600 : 24 * 3_600,
  );
}

/**
 * Writes a letter about a request to each person, each with what that person may read. Sent after
 * the transaction.
 */
export function notify(
  work: Work,
  request: ShownRow,
  personIds: readonly string[],
  event: NoticeEvent,
  /** What a link in it decides at. */
  seat: string | null = null,
): void {
  const { tx, now } = work;
  if (request.trial) return;
  const register = registerById(tx, request.registerId);
  const { release } = releaseById(tx, request.releaseId);
  const entries: (typeof outbox.$inferInsert)[] = [];
  for (const personId of new Set(personIds)) {
    const person = personById(tx, personId);
    if (!person || (!person.active && person.id !== request.requesterId)) continue;
    const viewer = { personId, kind: person.kind, role: person.role, groups: groupsOf(tx, personId) };
    const open = openRequest(tx, request, viewer, 'letter', { register });
    const letter = draftNotice(event, {
      number: request.number,
      formTitle: release.design.title,
      subject: open.subject,
      visible: open.values,
      reader: person.name,
      url: addressFor(work, request, person, event, seat),
    });
    entries.push(
      posted(now, {
        requestId: request.id,
        kind: event.kind,
        toName: person.name,
        toAddress: person.email,
        letter: dressLetter(letter, SIGNATURE),
      }),
    );
  }
  if (entries.length > 0) tx.insert(outbox).values(entries).run();
}

function addressFor(
  { house, tx, now }: Work,
  request: ShownRow,
  person: { id: string; kind: 'staff' | 'contact' },
  event: NoticeEvent,
  seat: string | null,
): string {
  const base = house.config.url;
  if (seat !== null)
    return `${base}/decide/${issueLink(tx, { purpose: 'decide', personId: person.id, targetId: seat, now })}`;
  if (person.id !== request.requesterId || deskEvent(event)) return `${base}/floor/all/${request.number}`;
  if (person.kind === 'staff') return `${base}/my/${request.number}`;
  return `${base}/follow/${issueLink(tx, { purpose: 'follow', personId: person.id, targetId: request.id, now })}`;
}

const deskEvent = (event: NoticeEvent): boolean =>
  ['new-request', 'assigned', 'reminder', 'escalation'].includes(event.kind);

export function notifyToConfirm(
  house: House,
  tx: Transaction,
  now: number,
  input: { email: string; formTitle: string; submissionId: string; calendar: string },
): void {
  const token = issueLink(tx, { purpose: 'confirm', personId: '', targetId: input.submissionId, now });
  const { zone } = calendarOf(tx, input.calendar);
  const letter = draftConfirmation({
    formTitle: input.formTitle,
    url: `${house.config.url}/confirm/${token}`,
    expires: momentInWords(linkEnds('confirm', now), zone),
  });
  tx.insert(outbox)
    .values(
      posted(now, {
        requestId: null,
        kind: 'confirm',
        toName: '',
        toAddress: input.email,
        letter: dressLetter(letter, SIGNATURE),
      }),
    )
    .run();
}

/** The letter with the link to go on with what was begun. It repeats nothing of what was typed. */
export function notifyToGoOn(
  house: House,
  tx: Transaction,
  now: number,
  input: { email: string; formTitle: string; slug: string; token: string; calendar: string },
): void {
  const { zone } = calendarOf(tx, input.calendar);
  const letter = draftGoingOn({
    formTitle: input.formTitle,
    url: `${house.config.url}/ask/${input.slug}?kept=${input.token}`,
    expires: momentInWords(linkEnds('resume', now), zone),
  });
  tx.insert(outbox)
    .values(
      posted(now, {
        requestId: null,
        kind: 'go-on',
        toName: '',
        toAddress: input.email,
        letter: dressLetter(letter, SIGNATURE),
      }),
    )
    .run();
}

function posted(
  now: number,
  entry: { requestId: string | null; kind: string; toName: string; toAddress: string; letter: DressedLetter },
): typeof outbox.$inferInsert {
  const { letter, ...rest } = entry;
  return { id: uuid(), ...rest, ...letter, state: 'waiting', nextAttemptAt: now, createdAt: now };
}
