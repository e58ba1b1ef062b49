import {
  afterQuiet,
  departureAt,
  goingOf,
  type Heard,
  heardAs,
  type NoticeCause,
  nextDigest,
  USUAL_HEARING,
  wayOf,
} from '@tolvek/core/notice';
import { actorOf } from '@tolvek/core/program';
import { type Departure, mayBeOff, type NoticeWay, usualIn, waysOfUsual } from '@tolvek/core/telling';
import { refused } from '@tolvek/words';
import { and, count, eq, gt, min, sql } from 'drizzle-orm';
import { seatById, stepOfSeat } from '../approval/queries.ts';
import { membersOf, type PersonRow, personById } from '../people/queries.ts';
import { adding } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { prepared } from '../platform/prepared.ts';
import { Problem } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { programNamed } from '../program/queries.ts';
import type { ShownRow } from '../request/queries.ts';
import { deskOf } from '../settings/queries.ts';
import { mailboxOf } from './addressee.ts';
import { noticesOf } from './plan.ts';
import { GATHERING, notices } from './tables.ts';

const addNotice = adding(notices);

const HOUR = 3_600_000;
/** Letters to an address that nobody has confirmed: anybody can have them sent to anybody. */
const UNCONFIRMED = { hour: 5, day: 20 } as const;

/** @throws Problem 429 when an address that nobody confirmed has had as many letters as it may. */
export function roomForLetter(tx: Transaction, address: string, now: number): void {
  const sent = (since: number): number =>
    tx
      .select({ n: count() })
      .from(notices)
      .where(and(eq(notices.toAddress, address), sql`kind in ('confirm', 'go-on')`, gt(notices.createdAt, since)))
      .get()?.n ?? 0;
  const isFull = sent(now - HOUR) >= UNCONFIRMED.hour;
  if (!isFull && sent(now - 24 * HOUR) < UNCONFIRMED.day) return;
  throw new Problem(
    429,
    'too-many-letters',
    isFull ? refused('tooManyEmails', { address }) : refused('tooManyEmailsToday', { address }),
    undefined,
    isFull ? 3_600 : 24 * 3_600,
  );
}

/** Work on one change of a request, with those who are told of it, by id. */
export interface Telling extends Work {
  readonly told: Set<string>;
}

/** Notes that people are to hear of something about a request. It is worded and sent after the transaction. */
export function notify(
  work: Work | Telling,
  request: ShownRow,
  personIds: readonly (string | null)[],
  cause: NoticeCause,
): void {
  if (request.trial) return;
  usually(work, request, personIds, cause, waysOfUsual(noticesOf(work.tx, request), cause.kind));
}

/** Notes the same by each of some ways; under the bell alone where there is none. */
function usually(
  work: Work | Telling,
  request: ShownRow,
  personIds: readonly (string | null)[],
  cause: NoticeCause,
  ways: readonly NoticeWay[],
): void {
  const off = isOff(work.tx, request, cause);
  const entries = [...new Set(personIds)].flatMap((personId) => {
    if (personId === null) return [];
    const person = personById(work.tx, personId);
    if (!person || !(person.active || personId === request.requesterId)) return [];
    const to = { requestId: request.id, personId, toName: person.name, toAddress: person.email };
    if (off) return [{ ...noted(work, cause, to), state: 'dropped' as const, why: 'off' as const, cause: null }];
    if (ways.length === 0) return [underBell(work, cause, to)];
    return ways.map((way) => {
      const entry = noted(work, cause, to);
      if (way === 'email') return { ...entry, ...goingTo(work, request, person, cause) };
      const heard = heardAs(cause.kind, person.id === request.requesterId);
      return { ...entry, ...AS_TEXT, ...goingAsText(work, person, heard, AT_ONCE) };
    });
  });
  for (const entry of entries) {
    addNotice(work.tx, entry);
    if ('told' in work && entry.personId) work.told.add(entry.personId);
  }
}

/**
 * When somebody hears of something, as they chose and the desk lets them: not at all, at once, or at a time of theirs with
 * what else goes then. People from outside have chosen nothing.
 */
export function goingTo(
  { tx, now }: Pick<Work, 'now'> & { readonly tx: Reader },
  request: ShownRow,
  { id, kind, hearing }: PersonRow,
  cause: NoticeCause,
): ReturnType<typeof goingBy> {
  const heard = kind === 'staff' ? heardAs(cause.kind, id === request.requesterId) : null;
  if (heard === null) return {};
  const { hears, zone } = deskOf(tx);
  const chosen = hearing ?? USUAL_HEARING;
  const way = wayOf(heard, chosen, hears);
  if (way === 'at-once' && chosen.quiet === null) return {};
  const until = cause.kind === 'approval-asked' ? untilOf(tx, cause.seat) : null;
  const next = nextDigest(chosen, now, zone);
  const isUrgent = request.priority === 'high' || [request.due, until].some((due) => due !== null && due < next);
  const going = goingOf(way, chosen, { now, zone, isUrgent });
  if (!going) return { state: 'dropped', why: 'choice' };
  return going.isGathered ? { state: 'gathering', nextAttemptAt: going.at } : {};
}

export type CausedByRule = Extract<NoticeCause, { kind: 'rule' }>;
interface Leaving {
  readonly goes: Departure;
  readonly isUrgent: boolean;
}
type Going = Pick<typeof notices.$inferInsert, 'why' | 'cause'> & {
  state?: 'dropped' | 'gathering';
  nextAttemptAt?: number;
};

/** A text message goes to the number that somebody has when it goes. */
const AS_TEXT = { way: 'text' as const, toAddress: '' };
const AT_ONCE: Leaving = { goes: { goes: 'at-once' }, isUrgent: false };

/** What stands under the bell alone has gone with that. */
const underBell = (work: Work, cause: NoticeCause, to: Parameters<typeof noted>[2]): typeof notices.$inferInsert => ({
  ...noted(work, cause, to),
  ...{ way: 'bell', state: 'sent', sentAt: work.now },
});

/** Notes that somebody is to hear of what a form tells besides what is usual, by each of some ways; under the bell alone where there is none. */
export function notifyBy(
  work: Telling,
  request: ShownRow,
  personId: string,
  cause: CausedByRule,
  { ways, ...leaving }: Leaving & { readonly ways: readonly NoticeWay[] },
): void {
  if (request.trial) return;
  const person = personById(work.tx, personId);
  if (!person || !(person.active || personId === request.requesterId)) return;
  const to = { requestId: request.id, personId, toName: person.name, toAddress: person.email };
  for (const way of ways) {
    const going =
      way === 'text'
        ? { ...AS_TEXT, ...goingAsText(work, person, cause.as, leaving) }
        : goingBy(work, request, person, cause, leaving);
    addNotice(work.tx, { ...noted(work, cause, to), ...going });
  }
  if (ways.length === 0) addNotice(work.tx, underBell(work, cause, to));
  work.told.add(personId);
}

/** The same to a group that gets its emails together. */
export function notifyGroupBy(
  work: Telling,
  request: ShownRow,
  group: MailGroup,
  cause: CausedByRule,
  { goes, isUrgent }: Leaving,
): void {
  if (request.trial) return;
  const { tx, now } = work;
  const first = goes.goes === 'gathered' && !isUrgent ? firstWaiting(tx, group.mailbox, cause.rule) : null;
  const at = departureAt(goes, { now, zone: deskOf(tx).zone, isUrgent, first });
  addNotice(tx, {
    ...noted(work, cause, toGroup(request, group)),
    ...(at > now ? { state: 'gathering', nextAttemptAt: at } : {}),
  });
  for (const { id } of membersOf(tx, group.key)) work.told.add(id);
}

/** The same to another program. It is told at once: what it makes of it is its own. */
export function notifyProgramBy(work: Telling, request: ShownRow, program: string, cause: CausedByRule): void {
  if (request.trial || work.actor === actorOf(program)) return;
  const to = { requestId: request.id, personId: null, toName: programNamed(work.tx, program), toAddress: '' };
  addNotice(work.tx, { ...noted(work, cause, to), program });
}

/** A test to a program; it is about no request. */
export function notifyProgram(work: Work, program: string): void {
  const to = { requestId: null, personId: null, toName: programNamed(work.tx, program), toAddress: '' };
  addNotice(work.tx, { ...noted(work, { kind: 'test' }, to), program });
}

type MailGroup = NonNullable<ReturnType<typeof mailboxOf>>;

const toGroup = ({ id }: ShownRow, { key, name, mailbox }: MailGroup) => ({
  ...{ requestId: id, personId: null, groupKey: key, toName: name, toAddress: mailbox },
});

/** Notes that a group is to hear of something: at an address of its own, or each of its members. `but`: whoever is not told. */
export function notifyGroup(
  work: Telling,
  request: ShownRow,
  key: string,
  cause: NoticeCause,
  but: string | null,
): void {
  const { tx } = work;
  const group = mailboxOf(tx, key);
  const members = membersOf(tx, key).map(({ id }) => id);
  const others = members.filter((id) => id !== but);
  const ways = waysOfUsual(noticesOf(tx, request), cause.kind);
  if (!group || !ways.includes('email')) {
    notify(work, request, others, cause);
    return;
  }
  if (request.trial) return;
  // Whoever gets the email with their group gets what goes otherwise by themselves.
  const own = ways.filter((way) => way !== 'email');
  if (own.length > 0 && !isOff(tx, request, cause)) usually(work, request, others, cause, own);
  const entry = noted(work, cause, toGroup(request, group));
  addNotice(tx, isOff(tx, request, cause) ? { ...entry, state: 'dropped', why: 'off', cause: null } : entry);
  for (const id of members) work.told.add(id);
}

/** Whether the form of a request does not send one of the usual emails. */
const isOff = (db: Reader, request: ShownRow, { kind }: NoticeCause): boolean =>
  mayBeOff(kind) && usualIn(noticesOf(db, request), kind)?.off === true;

/** When a notice of a form goes to somebody: when it is sent, or when they want to hear of such, whichever is later. */
export function goingBy(
  { tx, now }: Pick<Work, 'now'> & { readonly tx: Reader },
  request: ShownRow,
  { kind, email, hearing }: PersonRow,
  cause: CausedByRule,
  { goes, isUrgent }: Leaving,
): Going {
  const { hears, zone } = deskOf(tx);
  const first = goes.goes === 'gathered' && !isUrgent ? firstWaiting(tx, email, cause.rule) : null;
  const at = departureAt(goes, { now, zone, isUrgent, first });
  const isLater = at > now;
  if (kind !== 'staff') return isLater ? { state: 'gathering', nextAttemptAt: at } : {};
  const chosen = hearing ?? USUAL_HEARING;
  const way = wayOf(cause.as, chosen, hears);
  if (way === 'never') return { state: 'dropped', why: 'choice' };
  if (isLater) return { state: 'gathering', nextAttemptAt: afterQuiet(chosen, at, zone) };
  const going = goingOf(way, chosen, { now, zone, isUrgent: isUrgent || request.priority === 'high' });
  return going?.isGathered ? { state: 'gathering', nextAttemptAt: going.at } : {};
}

/** When a text message goes: it waits for the end of quiet hours, and is in no digest. */
function goingAsText(
  { tx, now }: Pick<Work, 'now'> & { readonly tx: Reader },
  { kind, hearing }: PersonRow,
  heard: Heard | null,
  { goes, isUrgent }: Leaving,
): Going {
  const { hears, zone } = deskOf(tx);
  const at = departureAt(goes, { now, zone, isUrgent, first: null });
  const chosen = hearing ?? USUAL_HEARING;
  const isHeld = kind === 'staff' && heard !== null;
  if (isHeld && wayOf(heard, chosen, hears) === 'never') return { state: 'dropped', why: 'choice' };
  const after = isHeld ? afterQuiet(chosen, at, zone) : at;
  return after > now ? { state: 'gathering', nextAttemptAt: after } : {};
}

const waitingBy = prepared((db) =>
  db
    .select({ at: min(notices.nextAttemptAt) })
    .from(notices)
    .where(and(GATHERING, eq(notices.toAddress, sql.placeholder('address')), eq(notices.rule, sql.placeholder('rule'))))
    .prepare(),
);

/** When what waits already of a notice goes to somebody, epoch ms; null where nothing does. */
const firstWaiting = (tx: Reader, address: string, rule: string): number | null =>
  waitingBy(tx).get({ address, rule })?.at ?? null;

/** When the time to decide at a seat is over, epoch ms; null where it has no end. */
function untilOf(tx: Reader, seat: string): number | null {
  const at = seatById(tx, seat);
  return at ? stepOfSeat(at.round, at.seat).dueAt : null;
}

/** Notes that an address nobody has confirmed yet is to be written to. */
export function notifyAddress(work: Work, address: string, cause: NoticeCause): void {
  const entry = noted(work, cause, { requestId: null, personId: null, toName: '', toAddress: address });
  addNotice(work.tx, entry);
}

/** Notes that one of the staff is to be written to about Tolvek itself. Returns the id of the notice. */
export function notifyPerson(
  work: Work,
  { id: personId, name: toName, email: toAddress }: PersonRow,
  cause: NoticeCause,
): string {
  const entry = noted(work, cause, { requestId: null, personId, toName, toAddress });
  addNotice(work.tx, entry);
  return entry.id;
}

const noted = (
  { now }: Work,
  cause: NoticeCause,
  to: Pick<typeof notices.$inferSelect, 'requestId' | 'personId' | 'toName' | 'toAddress'> & {
    readonly groupKey?: string;
  },
): typeof notices.$inferInsert => ({
  ...{ id: newId(), ...to, kind: cause.kind, rule: cause.kind === 'rule' ? cause.rule : null, cause },
  ...{ state: 'waiting', nextAttemptAt: now, createdAt: now },
});
