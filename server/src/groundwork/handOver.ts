import type { AnswerOf } from '@tolvek/contract';
import { type Viewer, wordOf } from '@tolvek/core/people';
import type { Problem as FieldProblem } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { and, eq, inArray, ne, sql } from 'drizzle-orm';
import { seats } from '../approval/tables.ts';
import { assignableTo } from '../desk/commands.ts';
import { handOverOwed, owedOf } from '../mailing/commands.ts';
import { notifyPerson } from '../notice/notify.ts';
import { changePerson } from '../people/commands.ts';
import { refuseNobodyLeft } from '../people/given.ts';
import { refuseOver, takeAllRights } from '../people/grants.ts';
import { leaveGroup } from '../people/groups.ts';
import { type PersonRow, personById } from '../people/queries.ts';
import { groupEntries } from '../people/tables.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { handOnReports } from '../report/commands.ts';
import { changeRequest } from '../request/change.ts';
import { isOwnOf, requestById } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { leaveRosters, rostersOf } from '../roster/commands.ts';
import { handOnViews } from '../view/savedViews.ts';

/** Requests that are handed over in one write. */
const AT_ONCE = 20;

/** The unfinished requests that somebody handles, and those they are still to decide on, by id. */
function hangingOn(db: Reader, person: string): readonly string[] {
  const handled = db
    .select({ id: requests.id })
    .from(requests)
    .where(and(eq(requests.handlerId, person), ne(requests.phase, 'finished')))
    .all();
  const decided = db
    .selectDistinct({ id: seats.requestId })
    .from(seats)
    .where(and(sql`${seats.holder} = ${wordOf({ person })}`, inArray(seats.state, ['open', 'ahead'])))
    .all();
  return [...new Set([...handled, ...decided].map(({ id }) => id))];
}

/** Who work is given to; null where nobody is. @throws Problem 422 for who can’t take it */
function takerOf(db: Reader, leaver: string, to: string | null): PersonRow | null {
  if (to === null) return null;
  const person = personById(db, to);
  const problem: FieldProblem = {
    ...{ field: 'to', message: said('ground:cannotTake'), fix: said('absences:chooseOther') },
  };
  if (!person?.active || person.kind !== 'staff' || person.id === leaver) throw wrongFields([problem]);
  return person;
}

/** What becomes of one request that hangs on somebody who leaves. */
interface Becoming {
  readonly handler: 'given' | 'back' | null;
  /** Whether somebody else decides on it; null where they are not asked. */
  readonly seat: 'given' | 'waits' | null;
}

/** Who takes a request handles it where they are in its team, else its team has it back; nobody decides on their own. */
function becomingOf(tx: Transaction, request: Row, leaver: string, taker: PersonRow | null): Becoming {
  const which = and(
    eq(seats.requestId, request.id),
    eq(seats.holder, wordOf({ person: leaver })),
    inArray(seats.state, ['open', 'ahead']),
  );
  const isAsked = tx.select({ id: seats.id }).from(seats).where(which).limit(1).get() !== undefined;
  const mayDecide = taker !== null && !isOwnOf(request, taker.id);
  const handles = request.handlerId === leaver && request.phase !== 'finished';
  const isTheirs = (): boolean =>
    taker !== null &&
    assignableTo(tx, request, registerById(tx, request.registerId)).some((person) => person.id === taker.id);
  return {
    handler: handles ? (isTheirs() ? 'given' : 'back') : null,
    seat: isAsked ? (mayDecide ? 'given' : 'waits') : null,
  };
}

type Row = NonNullable<ReturnType<typeof requestById>>;

/** Hands one request over. */
function handOverOne(work: Work, id: string, leaver: string, taker: PersonRow | null): Becoming['handler'] {
  const request = requestById(work.tx, id);
  if (!request) return null;
  const { handler, seat } = becomingOf(work.tx, request, leaver, taker);
  const seated =
    seat === 'given' && taker ? changeRequest(work, request, { kind: 'seat', from: leaver, to: taker.id }) : request;
  if (handler)
    changeRequest(work, seated, {
      kind: 'handler',
      from: leaver,
      to: handler === 'given' ? (taker?.id ?? null) : null,
    });
  return handler;
}

/** What handing over would come to. @throws Problem 404, 422 for somebody who can’t take it */
export function handOverPlan({ db }: House, leaver: string, to: string | null): AnswerOf<'handOverPlan'> {
  if (personById(db, leaver)?.kind !== 'staff') throw notFound('person');
  const taker = takerOf(db, leaver, to);
  const all = db.transaction((tx) =>
    hangingOn(tx, leaver).flatMap((id) => {
      const request = requestById(tx, id);
      return request ? [becomingOf(tx, request, leaver, taker)] : [];
    }),
  );
  const forms = owedOf(db, leaver, taker?.id ?? null);
  const groups = db
    .select({ id: groupEntries.id })
    .from(groupEntries)
    .where(and(eq(groupEntries.personId, leaver), eq(groupEntries.source, 'local')))
    .all();
  return {
    given: all.filter(({ handler }) => handler === 'given').length,
    back: all.filter(({ handler }) => handler === 'back').length,
    decides: all.filter(({ seat }) => seat === 'given').length,
    waits: all.filter(({ seat }) => seat === 'waits').length,
    groups: groups.length,
    rosters: rostersOf(db, leaver),
    forms: { given: forms.given.length, ended: forms.ended.length },
  };
}

/**
 * Hands all over that hangs on somebody who leaves: their requests and decisions to one other person, or
 * back to the teams; then they are in no group, have no rights of their own, and can’t come in. Done a
 * few requests at a time; begun again, it goes on with what is left.
 *
 * @throws Problem 403 for who may not keep them out, 404, 409 where nobody could give rights any more,
 *   422 for somebody who can’t take it.
 */
export async function handOver(
  house: House,
  viewer: Viewer,
  leaver: string,
  to: string | null,
): Promise<AnswerOf<'handOver'>> {
  const { db } = house;
  const person = personById(db, leaver);
  if (person?.kind !== 'staff') throw notFound('person');
  refuseOver(db, person, viewer);
  const taker = takerOf(db, leaver, to);
  refuseNobodyLeft(db, leaver);
  const done = { given: 0, back: 0 };
  const left = hangingOn(db, leaver);
  for (let from = 0; from < left.length; from += AT_ONCE)
    await patiently(house, () =>
      write(house, (whole) => {
        const work = by(whole, viewer.personId);
        for (const id of left.slice(from, from + AT_ONCE)) {
          const became = handOverOne(work, id, leaver, taker);
          if (became) done[became] += 1;
        }
      }),
    );
  const groups = await patiently(house, () =>
    write(house, (whole) => letGo(by(whole, viewer.personId), viewer, leaver, taker)),
  );
  house.live.endOf(leaver);
  return { ...done, groups };
}

/** Hands over what they were to fill in, takes somebody out of their groups, takes the rights that are their own, and lets them in no more. */
function letGo(work: Work, viewer: Viewer, leaver: string, taker: PersonRow | null): number {
  const { tx, now } = work;
  const passed = handOverOwed(tx, { leaver, to: taker?.id ?? null, by: viewer.personId, now });
  for (const going of passed) if (taker) notifyPerson(work, taker, { kind: 'passed-on', going, by: viewer.personId });
  leaveRosters(tx, leaver, taker?.id ?? null, { viewer, now });
  if (taker) {
    handOnViews(tx, leaver, taker.id);
    handOnReports(tx, leaver, taker.id);
  }
  // Out of the groups of a directory they are taken there.
  const entries = tx
    .select()
    .from(groupEntries)
    .where(and(eq(groupEntries.personId, leaver), eq(groupEntries.source, 'local')))
    .all();
  for (const { id, groupKey } of entries) leaveGroup(work, groupKey, id);
  // Who may keep them out takes what they had with them.
  const keeper: Viewer = { ...viewer, rights: [...viewer.rights, 'rights'] };
  takeAllRights(work, keeper, wordOf({ person: leaver }));
  const { version } = personById(tx, leaver) ?? { version: 0 };
  changePerson(work, keeper, { id: leaver, version, changes: { active: false } });
  return entries.length;
}
