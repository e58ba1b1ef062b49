import { relationTo, revealForLetter, revealSubject } from '@tolvek/core/access';
import { momentInWords } from '@tolvek/core/deadline';
import { type DressedLetter, draftConfirmation, draftNotice, dressLetter, type NoticeEvent } from '@tolvek/core/notice';
import { v7 as uuid } from 'uuid';
import { calendarOf } from '../deadline/queries.ts';
import { releaseById } from '../form/queries.ts';
import { groupsOf, personById } from '../people/queries.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { issueLink } from '../platform/links.ts';
import { partiesIn, type RequestRow, registerById } from '../register/queries.ts';
import { outbox } from './tables.ts';

const DAY = 24 * 3_600_000;
const FOLLOW_DAYS = 180;
const DECIDE_DAYS = 14;

/** Where the signature of every letter comes from. */
export const DESK = { name: 'Field Operations Desk', station: 'Skerrow Point Marine Station' } as const;
const SIGNATURE = `${DESK.name}, ${DESK.station}`;

/** Writes a letter about a request to each person, each with what that person may read. Sent after the transaction. */
export function notify(house: House, tx: Transaction, now: number, request: RequestRow, personIds: readonly string[], event: NoticeEvent, approvalId?: string): void {
  const register = registerById(tx, request.registerId);
  const { release } = releaseById(tx, request.releaseId);
  for (const personId of new Set(personIds)) {
    const person = personById(tx, personId);
    if (!person || (!person.active && person.id !== request.requesterId)) continue;
    const viewer = { personId, kind: person.kind, role: person.role, groups: groupsOf(tx, personId) };
    const relation = relationTo(partiesIn(request, register), viewer);
    const input = { fields: register.fields, values: request.values, plan: register.access, viewer, relation };
    const visible = revealForLetter(input);
    const letter = draftNotice(event, {
      number: request.number,
      formTitle: release.design.title,
      subject: revealSubject(release.design.subject, visible, release.design.title),
      visible,
      reader: person.name,
      url: addressFor(house, tx, now, request, person, event, approvalId),
    });
    post(tx, now, { requestId: request.id, kind: event.kind, toName: person.name, toAddress: person.email, letter: dressLetter(letter, SIGNATURE) });
  }
}

function addressFor(
  house: House,
  tx: Transaction,
  now: number,
  request: RequestRow,
  person: { id: string; kind: 'staff' | 'contact' },
  event: NoticeEvent,
  approvalId?: string,
): string {
  const base = house.config.url;
  if (event.kind === 'approval-asked' && approvalId) {
    return `${base}/decide/${issueLink(tx, { purpose: 'decide', personId: person.id, targetId: approvalId, expiresAt: decideExpiry(now) })}`;
  }
  if (person.id !== request.requesterId || deskEvent(event)) return `${base}/floor/all/${request.number}`;
  if (person.kind === 'staff') return `${base}/my/${request.number}`;
  return `${base}/follow/${issueLink(tx, { purpose: 'follow', personId: person.id, targetId: request.id, expiresAt: now + FOLLOW_DAYS * DAY })}`;
}

const deskEvent = (event: NoticeEvent): boolean => ['new-request', 'assigned', 'reminder', 'escalation'].includes(event.kind);

export const decideExpiry = (now: number): number => now + DECIDE_DAYS * DAY;

export function notifyToConfirm(
  house: House,
  tx: Transaction,
  now: number,
  input: { name: string; email: string; formTitle: string; submissionId: string; expiresAt: number; calendar: string },
): void {
  const token = issueLink(tx, { purpose: 'confirm', personId: '', targetId: input.submissionId, expiresAt: input.expiresAt });
  const { zone } = calendarOf(tx, input.calendar);
  const letter = draftConfirmation({ name: input.name, formTitle: input.formTitle, url: `${house.config.url}/confirm/${token}`, expires: momentInWords(input.expiresAt, zone) });
  post(tx, now, { requestId: null, kind: 'confirm', toName: input.name, toAddress: input.email, letter: dressLetter(letter, SIGNATURE) });
}

function post(tx: Transaction, now: number, entry: { requestId: string | null; kind: string; toName: string; toAddress: string; letter: DressedLetter }): void {
  const { letter, ...rest } = entry;
  tx.insert(outbox)
    .values({ id: uuid(), ...rest, ...letter, state: 'waiting', nextAttemptAt: now, createdAt: now })
    .run();
}
