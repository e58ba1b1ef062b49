import { goesAfter } from '@tolvek/core/mailing';
import { and, eq, inArray, isNotNull, isNull, or, sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { releaseInForce } from '../form/queries.ts';
import { adding } from '../platform/adding.ts';
import type { Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { registerById } from '../register/queries.ts';
import type { Follower } from '../request/change.ts';
import { byRequest, isBefore, type LaidPart, missed } from '../request/layBy.ts';
import { type MailingRow, mailingsAwaiting } from './queries.ts';
import { goings, mailings, owedForms } from './tables.ts';

const addGoing = adding(goings);

/** Plans what is asked once a request has come to a stage, and takes back what was planned when it leaves it again. */
export const followStages: Follower = (work, request, change, before) => {
  if (request.trial || before?.stage === request.stage) return undefined;
  // What was brought in from elsewhere happened before.
  if (change.kind === 'arrived' && change.through.by !== 'door') return undefined;
  const { tx, now } = work;
  if (change.kind === 'withdrawn') askAgain(tx, request.id);
  for (const mailing of mailingsAwaiting(tx, registerById(tx, request.registerId).key)) {
    const { about, when, going } = mailing.design;
    if (about.is !== 'requests' || when.is !== 'reached') continue;
    const planned = plannedFor(tx, mailing, request.id);
    const isThere = about.stages.includes(request.stage);
    if (!isThere && planned?.state === 'waiting')
      tx.update(goings).set({ state: 'dropped' }).where(eq(goings.id, planned.id)).run();
    if (!isThere || !going || planned) continue;
    const release = releaseInForce(tx, mailing.formId);
    if (!release) continue;
    const at = goesAfter(when, now, calendarOf(tx, release.design.deadline.calendar));
    addGoing(tx, { id: newId(), mailingId: mailing.id, at, requestId: request.id, state: 'waiting' });
  }
  return undefined;
};

/** Whoever withdraws an answer has not answered: it is to be filled in again, where its mailing is still there. */
function askAgain(tx: Transaction, answerId: string): void {
  const there = tx.select({ id: mailings.id }).from(mailings).where(isNull(mailings.removedAt));
  tx.update(owedForms)
    .set({ state: 'open', closedAt: null, answerId: null })
    .where(and(eq(owedForms.answerId, answerId), eq(owedForms.state, 'done'), inArray(owedForms.mailingId, there)))
    .run();
}

/** What was planned, or sent, because a request came to a stage. */
const plannedFor = (tx: Transaction, { id }: Pick<MailingRow, 'id'>, requestId: string) =>
  tx
    .select()
    .from(goings)
    .where(and(eq(goings.mailingId, id), eq(goings.requestId, requestId), inArray(goings.state, ['waiting', 'done'])))
    .limit(1)
    .get();

/** What comes back with a request: what should have gone out meanwhile does not. */
export const LAID_OWED: readonly LaidPart[] = [
  {
    table: goings,
    of: byRequest(goings.requestId),
    back: missed((row, now) => row.state === 'waiting' && isBefore(row, 'at', now), { state: 'dropped' }),
  },
  {
    table: owedForms,
    of: (ids) =>
      sql`${byRequest(owedForms.aboutRequestId)(ids)} or going_id in (select id from ${goings} where ${byRequest(goings.requestId)(ids)})`,
    back: missed((row, now) => isBefore(row, 'remind_at', now), { remind_at: null }),
  },
  { table: owedForms, of: byRequest(owedForms.answerId), column: 'answer_id' },
];

/** What is asked about requests that are deleted goes with them; answers that are deleted leave what was asked. */
export function dropOwed(tx: Transaction, requestIds: readonly string[]): void {
  const ids = [...requestIds];
  tx.update(owedForms)
    .set({ answerId: null })
    .where(and(isNotNull(owedForms.answerId), inArray(owedForms.answerId, ids)))
    .run();
  const gone = tx
    .select({ id: goings.id })
    .from(goings)
    .where(and(isNotNull(goings.requestId), inArray(goings.requestId, ids)))
    .all()
    .map(({ id }) => id);
  tx.delete(owedForms)
    .where(
      or(
        and(isNotNull(owedForms.aboutRequestId), inArray(owedForms.aboutRequestId, ids)),
        inArray(owedForms.goingId, gone),
      ),
    )
    .run();
  tx.delete(goings).where(inArray(goings.id, gone)).run();
}

/** What was sent to one record of a person, and is about it, is the other’s; what both were sent once. */
export function owedAsOther(tx: Transaction, from: string, to: string): void {
  const [was, becomes] = [`@${from}`, `@${to}`];
  const both = sql`(select o.id from owed_forms o join owed_forms p on p.going_id = o.going_id
    and p.person_id = ${to} and p.topic = o.topic where o.person_id = ${from})`;
  tx.delete(owedForms).where(sql`${owedForms.id} in ${both}`).run();
  tx.update(owedForms).set({ personId: to }).where(eq(owedForms.personId, from)).run();
  tx.update(owedForms).set({ passedBy: to }).where(eq(owedForms.passedBy, from)).run();
  // Nobody is asked about themselves.
  tx.delete(owedForms)
    .where(and(eq(owedForms.personId, to), inArray(owedForms.topic, [was, becomes])))
    .run();
  const twice = sql`(select o.id from owed_forms o join owed_forms p on p.going_id = o.going_id
    and p.person_id = o.person_id and p.topic = ${becomes} where o.topic = ${was})`;
  tx.delete(owedForms).where(sql`${owedForms.id} in ${twice}`).run();
  tx.update(owedForms).set({ aboutPersonId: to, topic: becomes }).where(eq(owedForms.topic, was)).run();
}
