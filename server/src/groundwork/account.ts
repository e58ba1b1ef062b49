import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { USUAL_HEARING } from '@tolvek/core/notice';
import { refused, said } from '@tolvek/words';
import { verifyPassword } from 'better-auth/crypto';
import Bowser from 'bowser';
import { and, count, desc, eq, gt, ne } from 'drizzle-orm';
import { notifyPerson } from '../notice/notify.ts';
import { notices } from '../notice/tables.ts';
import { endSessionsOf, hashOfPassword, hasPassword, setPassword } from '../people/accounts.ts';
import { refuseOver } from '../people/grants.ts';
import { noteGround } from '../people/history.ts';
import { personByEmail, personById } from '../people/queries.ts';
import { people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { pictureVersion } from '../platform/pictures.ts';
import { notFound, Problem, wrongFields } from '../platform/problem.ts';
import { endPasskey, passkeysOf } from '../platform/signIn/passkeys.ts';
import { arePasswordsOff } from '../platform/signIn/providers.ts';
import type { Session } from '../platform/signIn/session.ts';
import { account, session } from '../platform/tables.ts';
import { by, write } from '../platform/work.ts';
import { deskOf } from '../settings/queries.ts';
import { absencesView } from './absences.ts';
import { refusePassword } from './firstStart.ts';
import { proofsOf } from './signIn.ts';

const HOUR = 3_600_000;
/** Emails to choose another password that somebody gets in an hour at most: anybody can ask for them. */
const RESETS_AN_HOUR = 3;

const resetsOf = (tx: Transaction, personId: string, since: number): number =>
  tx
    .select({ n: count() })
    .from(notices)
    .where(and(eq(notices.personId, personId), eq(notices.kind, 'reset'), gt(notices.createdAt, since)))
    .get()?.n ?? 0;

/**
 * Writes to whoever forgot their password, where the address is that of somebody who signs in by one.
 * Nothing that is answered tells whether it is.
 */
export function forgotPassword(house: House, email: string): void {
  if (arePasswordsOff(house.db)) return;
  write(house, (work) => {
    const person = personByEmail(work.tx, email.trim());
    if (!person?.active || person.kind !== 'staff' || !hasPassword(work.tx, person.id)) return;
    if (resetsOf(work.tx, person.id, work.now - HOUR) < RESETS_AN_HOUR) notifyPerson(work, person, { kind: 'reset' });
  });
}

/** A browser and its system by what it said of itself: `Firefox, Linux`; empty where that says neither. */
function browserOf(userAgent: string | null): string {
  if (!userAgent) return '';
  const { browser, os } = Bowser.parse(userAgent);
  return [browser.name, os.name].filter(Boolean).join(', ');
}

type SessionRow = typeof session.$inferSelect;

/** Sessions of somebody that go on, the newest first. */
const sessionsOf = (db: Reader, personId: string): readonly SessionRow[] =>
  db
    .select()
    .from(session)
    .where(and(eq(session.userId, personId), gt(session.expiresAt, new Date())))
    .orderBy(desc(session.updatedAt))
    .all();

/** Where somebody is signed in, the newest first, with the session that asks marked. */
export const sessionsView = (db: Reader, { token }: Session, personId: string): AnswerOf<'person'>['sessions'] =>
  sessionsOf(db, personId).map(({ id, token: theirs, createdAt, updatedAt, userAgent, ipAddress }) => ({
    ...{ id, here: theirs === token, since: iso(createdAt.getTime()), seen: iso(updatedAt.getTime()) },
    ...{ browser: browserOf(userAgent), address: ipAddress ?? '' },
  }));

/** Who somebody is here, and where they are signed in, the newest first. */
export function accountView(db: Reader, own: Session, now: number): AnswerOf<'account'> {
  const { viewer } = own;
  const person = personById(db, viewer.personId);
  if (!person) throw notFound('person');
  return {
    ...{ name: person.name, email: person.email, ...proofsOf(db, person.id) },
    portrait: pictureVersion(db, person.id),
    ...absencesView(db, viewer.personId, now),
    sessions: sessionsView(db, own, viewer.personId),
  };
}

/** Whether a password is that of somebody. */
async function isTheirs(db: Reader, personId: string, password: string): Promise<boolean> {
  const kept = db
    .select({ hash: account.password })
    .from(account)
    .where(and(eq(account.userId, personId), eq(account.providerId, 'credential')))
    .get();
  return kept?.hash ? verifyPassword({ hash: kept.hash, password }) : false;
}

/**
 * Sets another password of one’s own; all other sessions end.
 *
 * @throws Problem 422 when the one of now is wrong, or the next one is too short or easy to guess.
 */
export async function changePassword(
  house: House,
  { token, viewer }: Session,
  { current, next }: BodyOf<'changePassword'>,
): Promise<void> {
  const { db } = house;
  const person = personById(db, viewer.personId);
  if (!person) throw notFound('person');
  if (!(await isTheirs(db, person.id, current)))
    throw wrongFields([{ field: 'current', message: said('start:notYours'), fix: said('start:typeAgain') }]);
  refusePassword(next, [person.name, person.email, deskOf(db).name], 'next');
  const hash = await hashOfPassword(next);
  write(house, (work) => {
    const { tx } = work;
    const here = tx.select().from(session).where(eq(session.token, token)).get();
    setPassword(tx, person.id, hash);
    // The one that changed it goes on.
    if (here) tx.insert(session).values(here).run();
    noteGround(by(work, person.id), 'person', person.id, { kind: 'password', again: true });
  });
  house.live.endOf(person.id);
}

/** Takes a key of a device of one’s own away. @throws Problem 404 */
export function endOwnPasskey(house: House, { viewer }: Session, id: string): void {
  write(house, (work) => {
    const name = passkeysOf(work.tx, viewer.personId).find((each) => each.id === id)?.name ?? '';
    endPasskey(work.tx, viewer.personId, id);
    noteGround(by(work, viewer.personId), 'person', viewer.personId, { kind: 'passkey', name, on: false });
  });
}

/** Ends a session of one’s own. @throws Problem 404 for any other, 409 for the one that asks */
export function endOwnSession(house: House, { token, viewer }: Session, id: string): void {
  write(house, ({ tx }) => {
    const found = tx
      .select()
      .from(session)
      .where(and(eq(session.id, id), eq(session.userId, viewer.personId)))
      .get();
    if (!found) throw notFound('session');
    if (found.token === token) throw new Problem(409, 'own-session', refused('ownSession'));
    tx.delete(session)
      .where(and(eq(session.id, id), ne(session.token, token)))
      .run();
    house.live.end(found.token);
  });
}

/** Ends one session of somebody. @throws Problem 403 for somebody who may do more, 404, 409 for the one that asks */
export function endTheirSession(house: House, own: Session, id: string, asked: string): void {
  if (id === own.viewer.personId) {
    endOwnSession(house, own, asked);
    return;
  }
  write(house, (work) => {
    const person = personById(work.tx, id);
    if (!person) throw notFound('person');
    refuseOver(work.tx, person, own.viewer);
    const found = sessionsOf(work.tx, id).find((each) => each.id === asked);
    if (!found) throw notFound('session');
    work.tx.delete(session).where(eq(session.id, asked)).run();
    noteGround(by(work, own.viewer.personId), 'person', id, {
      kind: 'signed-out',
      browser: browserOf(found.userAgent),
    });
    house.live.end(found.token);
  });
}

/** Signs somebody out everywhere. @throws Problem 403 for somebody who may do more, 404 */
export function signOutPerson(house: House, { viewer }: Session, id: string): AnswerOf<'signOutPerson'> {
  const ended = write(house, (work) => {
    const person = personById(work.tx, id);
    if (!person) throw notFound('person');
    refuseOver(work.tx, person, viewer);
    const there = work.tx.select({ n: count() }).from(session).where(eq(session.userId, id)).get()?.n ?? 0;
    endSessionsOf(work.tx, id);
    noteGround(by(work, viewer.personId), 'person', id, { kind: 'signed-out' });
    return there;
  });
  house.live.endOf(id);
  return { ended };
}

/** When somebody gets which emails, and what of that they may choose. */
export const ownEmails = (db: Reader, personId: string): AnswerOf<'ownEmails'> => ({
  hearing: personById(db, personId)?.hearing ?? USUAL_HEARING,
  desk: deskOf(db).hears,
});

/** Keeps what somebody chose of their emails: what waits already goes as it was to go. */
export function setOwnEmails(house: House, personId: string, hearing: BodyOf<'setOwnEmails'>): void {
  write(house, ({ tx }) => tx.update(people).set({ hearing }).where(eq(people.id, personId)).run());
}
