import { dueOf, nextGoing as goingAfter, MAILING, nextReminder, type Owed, type SentOut } from '@tolvek/core/mailing';
import type { Viewer } from '@tolvek/core/people';
import { refused, said } from '@tolvek/words';
import { and, eq, inArray, lte, sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { formById, releaseInForce } from '../form/queries.ts';
import { addOwed, isSentAlso, passOwed } from '../mailing/commands.ts';
import {
  aroundMailing,
  fieldOf,
  type GoingRow,
  type MailingRow,
  mailingById,
  mailingNamed,
  nextGoing,
  nextToRemind,
  type OwedRow,
  owedById,
  topicWord,
} from '../mailing/queries.ts';
import { byPerson, goesTo } from '../mailing/recipients.ts';
import { goings, owedForms } from '../mailing/tables.ts';
import { GOES_TO } from '../mailing/tasks.ts';
import { notifyPerson } from '../notice/notify.ts';
import { personById } from '../people/queries.ts';
import { adding } from '../platform/adding.ts';
import { apart } from '../platform/apart.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { patiently } from '../platform/patience.ts';
import { notFound, Problem, wrongFields } from '../platform/problem.ts';
import { inTurns } from '../platform/turns.ts';
import { type Work, write } from '../platform/work.ts';
import { openTo } from './openTo.ts';

const addGoing = adding(goings);

/** Forms that are sent in one write, or a few more: what one person has to fill in is sent at once. */
const AT_ONCE = 50;

/**
 * Lets everything go out that is due by now, and reminds whoever has not answered: each in its own transaction, some
 * people at a time. Returns how many forms were sent and how many people reminded.
 */
export async function runMailings(house: House): Promise<number> {
  let happened = 0;
  for await (const due of inTurns(dueNow(house)))
    happened +=
      'by' in due ? await goOut(house, due) : await patiently(house, () => write(house, (work) => remind(work, due)));
  return happened;
}

/** Sends all that a going has to send, some people at a time. To whom it goes is found out before, off the thread that answers. */
async function goOut(house: House, going: GoingRow): Promise<number> {
  const sent = going.requestId === null ? await apart(house, GOES_TO, going.mailingId) : null;
  let happened = 0;
  for (;;) {
    const count = await patiently(house, () => write(house, (work) => sendSome(work, going, sent)));
    happened += count;
    if (count < AT_ONCE) return happened;
  }
}

/** What is due, one after the other; each is looked for when the one before has happened. */
function* dueNow({ db, clock }: House): Generator<GoingRow | OwedRow> {
  for (;;) {
    const going = nextGoing(db);
    const reminder = nextToRemind(db);
    const now = clock.now();
    if (going && going.at <= now) yield going;
    else if (reminder && (reminder.remindAt ?? now + 1) <= now) yield reminder;
    else return;
  }
}

/** When something is sent or somebody is reminded next, epoch ms. */
export function nextMailingAt(db: Reader): number | null {
  const moments = [nextGoing(db)?.at, nextToRemind(db)?.remindAt].filter((at) => typeof at === 'number');
  return moments.length === 0 ? null : Math.min(...moments);
}

/** How a form is sent: by which calendar, in which period. */
const calendarFor = (db: Reader, formId: string) => {
  const release = releaseInForce(db, formId);
  return release && calendarOf(db, release.design.deadline.calendar);
};

/**
 * Sends a mailing because of one request, by hand: a moment later it has gone out.
 *
 * @throws Problem 404, 403 for who may not change the request, 422 when the mailing can’t go out
 */
export function askAbout(
  house: House,
  viewer: Viewer,
  { number, mailing: id, key }: { readonly number: string; readonly mailing: string; readonly key: string },
): { readonly people: number } {
  return write(house, ({ tx, now }) =>
    once(tx, { key, scope: `ask about ${viewer.personId}`, content: [number, id], now }, () => {
      const { request, register } = openTo(tx, viewer, number, 'change');
      const { mailing } = mailingNamed(tx, id);
      const { design, formId } = mailing;
      if (design.about.is !== 'requests' || design.about.register !== register.key) throw notFound('mailing');
      const isWrong = MAILING.findings(design, aroundMailing(tx, formId, design)).length > 0;
      const { owed, notSent } = goesTo(tx, mailing, { request: request.id, isSaid: true });
      if (isWrong || owed.length === 0)
        throw wrongFields([
          {
            field: 'mailing',
            message: said(
              isWrong
                ? 'work:cannotAskSo'
                : notSent.some(({ person }) => person !== null)
                  ? 'work:asksWhoCannot'
                  : 'work:asksNobody',
            ),
            fix: said('work:asksOther'),
          },
        ]);
      addGoing(tx, {
        id: newId(),
        mailingId: id,
        at: now,
        by: viewer.personId,
        requestId: request.id,
        state: 'waiting',
      });
      return { people: new Set(owed.map(({ person }) => person)).size };
    }),
  );
}

/** Sends some of what a going has to send; when nothing is left it is done. `found`: to whom it goes, where it was found out before. */
function sendSome(work: Work, { id }: Pick<GoingRow, 'id'>, found: SentOut | null): number {
  const { tx, now } = work;
  const going = tx.select().from(goings).where(eq(goings.id, id)).get();
  const mailing = going && mailingById(tx, going.mailingId);
  if (!going || !mailing || going.state !== 'waiting') return 0;
  const calendar = calendarFor(tx, mailing.formId);
  const form = formById(tx, mailing.formId);
  const isStopped =
    mailing.removedAt !== null ||
    (going.by === null && !mailing.design.going) ||
    form?.stoppedAt !== null ||
    form.deletedAt !== null;
  // What it names may be gone by now, or be hidden.
  const wrong = MAILING.findings(mailing.design, aroundMailing(tx, mailing.formId, mailing.design));
  if (isStopped || !calendar || wrong.length > 0) {
    end(tx, going, 'dropped', 0);
    return 0;
  }
  // After a stand-still only what is due by then goes out: nobody is asked for weeks that are over.
  const after = going.by === null ? goingAfter(mailing.design.when, going.at, calendar) : null;
  if (after && after.at <= now) {
    end(tx, going, 'missed', 0);
    planNext(tx, mailing, going.at);
    return 0;
  }
  const { requestId: request } = going;
  const sent = found ?? goesTo(tx, mailing, request === null ? null : { request, isSaid: going.by !== null });
  const left = byPerson(sent.owed.filter(notSentYet(tx, going)));
  const due = dueOf(mailing.design, now, calendar, going.period);
  const remindAt = nextReminder(mailing.design, due, now, calendar);
  let count = 0;
  for (const [person, owed] of left) {
    if (count >= AT_ONCE) return count;
    give(work, { mailing, going, person, owed, due, remindAt });
    count += owed.length;
  }
  end(tx, going, 'done', sent.notSent.length);
  if (going.by === null) planNext(tx, mailing, going.at);
  return count;
}

function end(tx: Transaction, { id }: GoingRow, state: 'done' | 'dropped' | 'missed', notSent: number): void {
  tx.update(goings).set({ state, notSent }).where(eq(goings.id, id)).run();
}

/** Whether something was not sent by a going yet, nor is still open from an earlier one of the same mailing. */
function notSentYet(tx: Transaction, going: GoingRow): (owed: Owed) => boolean {
  const { id, mailingId, period, onlyNew } = going;
  const known = tx
    .select({ person: owedForms.personId, topic: owedForms.topic })
    .from(owedForms)
    .where(
      and(
        eq(owedForms.mailingId, mailingId),
        onlyNew
          ? undefined
          : // Each period asks anew, whether the one before was answered or not.
            period !== null
            ? eq(owedForms.goingId, id)
            : sql`(${owedForms.goingId} = ${id} or ${owedForms.state} = 'open')`,
      ),
    )
    .all();
  const has = new Set(known.map(({ person, topic }) => `${person} ${topic}`));
  return ({ person, about }) => !has.has(`${person} ${topicWord(about)}`);
}

interface Giving {
  readonly mailing: MailingRow;
  readonly going: GoingRow;
  readonly person: string;
  readonly owed: readonly Owed[];
  /** Until when, and when they are reminded first, epoch ms. */
  readonly due: number | null;
  readonly remindAt: number | null;
}

/** Sends one person what they have to fill in: in one email, however much it is. */
function give(work: Work, { mailing, going, person, owed, due, remindAt }: Giving): void {
  const { tx, now } = work;
  for (const { about } of owed)
    addOwed(tx, {
      ...{ id: newId(), mailingId: mailing.id, goingId: going.id, personId: person },
      aboutPersonId: about && 'person' in about ? about.person : null,
      aboutRequestId: about && 'request' in about ? about.request : null,
      ...{ topic: topicWord(about), field: fieldOf(mailing.design.about) },
      ...{ sentAt: now, due, remindAt, state: 'open' },
    });
  const who = personById(tx, person);
  if (who) notifyPerson(work, who, { kind: 'to-fill-in', going: going.id, again: false });
}

/** Plans when a mailing goes out next by itself. */
export function planNext(tx: Transaction, { id, formId, design }: MailingRow, after: number): void {
  const calendar = calendarFor(tx, formId);
  const next = design.going && calendar ? goingAfter(design.when, after, calendar) : null;
  if (next) addGoing(tx, { id: newId(), mailingId: id, at: next.at, period: next.period, state: 'waiting' });
}

/** Reminds somebody of all that they have not answered of one going, and finds out when they are reminded again. */
function remind(work: Work, { personId, goingId }: OwedRow): number {
  const { tx, now } = work;
  const due = tx
    .select()
    .from(owedForms)
    .where(
      and(
        ...[eq(owedForms.goingId, goingId), eq(owedForms.personId, personId), eq(owedForms.state, 'open')],
        lte(owedForms.remindAt, now),
      ),
    )
    .all();
  for (const owed of due) {
    const mailing = mailingById(tx, owed.mailingId);
    const calendar = mailing && calendarFor(tx, mailing.formId);
    const remindAt = mailing && calendar ? nextReminder(mailing.design, owed.due, now, calendar) : null;
    tx.update(owedForms).set({ remindAt }).where(eq(owedForms.id, owed.id)).run();
  }
  const person = personById(tx, personId);
  if (due.length > 0 && person?.active) notifyPerson(work, person, { kind: 'to-fill-in', going: goingId, again: true });
  return due.length > 0 ? 1 : 0;
}

/** Reminds those who have not answered of some forms, or of all of a mailing, at once. Returns how many people. */
export function remindNow(house: House, mailingId: string, only: readonly string[] | null): number {
  return write(house, (work) => {
    const { tx } = work;
    const open = tx
      .selectDistinct({ person: owedForms.personId, going: owedForms.goingId })
      .from(owedForms)
      .where(
        and(
          ...[eq(owedForms.mailingId, mailingId), eq(owedForms.state, 'open')],
          only === null ? undefined : inArray(owedForms.id, [...only]),
        ),
      )
      .all();
    const told = new Set<string>();
    for (const { person: id, going } of open) {
      const person = personById(tx, id);
      if (!person?.active) continue;
      told.add(id);
      notifyPerson(work, person, { kind: 'to-fill-in', going, again: true });
    }
    return told.size;
  });
}

/** Ends forms of a mailing that nobody has to fill in any more. Returns how many were open. */
export function endOwed(house: House, mailingId: string, ids: readonly string[]): number {
  return write(
    house,
    ({ tx, now }) =>
      tx
        .update(owedForms)
        .set({ state: 'ended', closedAt: now, remindAt: null })
        .where(
          and(
            ...[eq(owedForms.mailingId, mailingId), eq(owedForms.state, 'open')],
            sql`${owedForms.id} in (select value from json_each(${JSON.stringify(ids)}))`,
          ),
        )
        .run().changes,
  );
}

/** Somebody’s own form that is still to be filled in. @throws Problem 404 where it is not theirs, 409 where it is closed */
function ownOpen(tx: Transaction, viewer: Viewer, id: string): OwedRow {
  const owed = owedById(tx, id);
  if (!owed || owed.personId !== viewer.personId) throw notFound('form');
  if (owed.state !== 'open') throw new Problem(409, 'owed-closed', refused('owedClosed'));
  return owed;
}

/**
 * Passes a form on to a colleague, who has to fill it in from now on and hears of it.
 *
 * @throws Problem 404, 409 where it is closed; 403 where it may not be passed on; 422 for who can’t take it
 */
export function passOn(house: House, viewer: Viewer, id: string, to: string): { readonly to: string } {
  return write(house, (work) => {
    const { tx, now } = work;
    const owed = ownOpen(tx, viewer, id);
    if (!mailingById(tx, owed.mailingId)?.design.passesOn)
      throw new Problem(403, 'not-allowed', refused('notPassedOn'));
    const person = personById(tx, to);
    const known = isSentAlso(tx, owed, to);
    const message =
      person?.kind !== 'staff' || !person.active || to === viewer.personId
        ? said('desk:passOnNobody')
        : known
          ? said('desk:passOnHas', { name: person.name })
          : to === owed.aboutPersonId
            ? said('desk:passOnThemselves', { name: person.name })
            : null;
    if (message !== null || !person)
      throw wrongFields([
        { field: 'to', message: message ?? said('desk:passOnNobody'), fix: said('answers:chooseColleague') },
      ]);
    passOwed(tx, owed, to, viewer.personId, now);
    notifyPerson(work, person, { kind: 'passed-on', going: owed.goingId, by: viewer.personId });
    return { to: person.name };
  });
}
