import type { AnswerOf } from '@tolvek/contract';
import { holdersPlanned } from '@tolvek/core/approval';
import { FORM } from '@tolvek/core/form';
import { isSame } from '@tolvek/core/own';
import { RIGHTS, type Viewer, wordOf } from '@tolvek/core/people';
import type { FieldValue, Values } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import { designsOf } from '../design/queries.ts';
import { renameInDoors } from '../door/commands.ts';
import { waitAsOther } from '../door/line.ts';
import { keptAnswers } from '../door/tables.ts';
import { renameInMailings } from '../mailing/commands.ts';
import { owedAsOther } from '../mailing/follow.ts';
import { notices } from '../notice/tables.ts';
import { differingRegisters, grantedTo, refuseNobodyLeft } from '../people/given.ts';
import { refuseOver, refuseRaising, settleRights, takeAllRights } from '../people/grants.ts';
import { enterGroup, leaveGroup } from '../people/groups.ts';
import { noteChanged, noteGround } from '../people/history.ts';
import { groupNames, groupsOf, type PersonRow, personById } from '../people/queries.ts';
import { renameInRules, settleRules } from '../people/rules.ts';
import { settleStandIns, todayAt } from '../people/settle.ts';
import { settleSought } from '../people/sought.ts';
import { absences, addresses, groupEntries, people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { pictureVersion, putPicture } from '../platform/pictures.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { links, pictures, user } from '../platform/tables.ts';
import { by, type Work, write } from '../platform/work.ts';
import { proposalsAsOther } from '../proposal/commands.ts';
import { renameInPlans } from '../register/commands.ts';
import { allRegisters } from '../register/queries.ts';
import { reportsAsOther } from '../report/commands.ts';
import { changeRequest } from '../request/change.ts';
import { followAsOther } from '../request/followers.ts';
import { requestById } from '../request/queries.ts';
import { shareAsOther } from '../request/sharedResults.ts';
import { shareWithOther } from '../request/shares.ts';
import { dutiesAsOther } from '../roster/commands.ts';
import { viewsAsOther } from '../view/savedViews.ts';

/** Two records of one person: the one that stays, and the one that becomes a part of it. */
interface Two {
  readonly stays: PersonRow;
  readonly goes: PersonRow;
}

/** @throws Problem 403 for who may do less than one of them, 404, 409 where they can’t become one. */
function twoRecords(db: Reader, viewer: Viewer, id: string, other: string): Two {
  const [stays, goes] = [personById(db, id), personById(db, other)];
  if (!stays || !goes || stays.removedAt !== null || goes.removedAt !== null) throw notFound('person');
  if (stays.id === goes.id || stays.mergedInto !== null || goes.mergedInto !== null || goes.id === viewer.personId)
    throw new Problem(409, 'no-merge', refused('mergeSelf'));
  if (goes.kind === 'staff' && stays.kind === 'contact')
    throw new Problem(409, 'no-merge', refused('mergeIntoContact'));
  if (goes.source === 'directory') throw new Problem(409, 'no-merge', refused('mergeKept'));
  // Whoever reads the mailbox of one of them becomes both.
  for (const record of [stays, goes]) refuseOver(db, record, viewer);
  for (const group of groupsOf(db, goes.id)) refuseRaising(db, viewer, group);
  return { stays, goes };
}

/** The requests that name somebody: by who asked, typed in or handles, in a field, or at a seat. */
function naming(db: Reader, id: string): readonly string[] {
  const registers = allRegisters(db).filter(({ fields }) =>
    fields.some(({ type }) => type.kind === 'person' || type.kind === 'people'),
  );
  const inFields = registers.map(
    (register) => sql`(register_id = ${register.id} and instr("values", ${`"${id}"`}) > 0)`,
  );
  const ways = [
    sql`requester_id = ${id} or handler_id = ${id} or on_behalf_id = ${id} or entered_by_id = ${id}`,
    ...inFields,
  ];
  return db
    .all<{ id: string }>(
      sql`select id from requests where ${sql.join(ways, sql` or `)}
        union select request_id from seats where holder = ${wordOf({ person: id })} or decided_by = ${id}`,
    )
    .map((row) => row.id);
}

/** What merging would come to. @throws Problem as `mergePeople` */
export function mergePlan(db: Reader, viewer: Viewer, id: string, other: string): AnswerOf<'mergePlan'> {
  const { stays, goes } = twoRecords(db, viewer, id, other);
  const names = groupNames(db);
  const inside = new Set(groupsOf(db, stays.id));
  const has = new Set(grantedTo(db, wordOf({ person: stays.id })));
  return {
    requests: naming(db, goes.id).length,
    groups: groupsOf(db, goes.id).flatMap((key) => (inside.has(key) ? [] : [names.get(key) ?? key])),
    addresses: addressesOf(db, goes.id),
    rights: grantedTo(db, wordOf({ person: goes.id })).filter((right) => !has.has(right)).length,
    named: designsOf(db, FORM).filter(({ draft }) =>
      holdersPlanned(draft.approval).some((seat) => 'person' in seat && seat.person === goes.id),
    ).length,
  };
}

const addressesOf = (db: Reader, id: string): string[] =>
  db
    .select({ address: addresses.address })
    .from(addresses)
    .where(eq(addresses.personId, id))
    .orderBy(addresses.address)
    .all()
    .map(({ address }) => address);

/** Requests that are changed in one write. */
const AT_ONCE = 20;

/**
 * Merges another record of the same person into one: its requests a few at a time, and the record itself at last;
 * begun again it goes on with what is left.
 *
 * @throws Problem 403 for who may do less than one of them, 404, 409 where they can’t become one, or nobody could
 *   give rights any more.
 */
export async function mergePeople(
  house: House,
  viewer: Viewer,
  id: string,
  other: string,
): Promise<AnswerOf<'mergePeople'>> {
  const { db } = house;
  const { goes } = twoRecords(db, viewer, id, other);
  const change = { kind: 'same-person', from: goes.id, to: id } as const;
  let count = 0;
  const become = (work: Work, requests: readonly string[]): void => {
    for (const each of requests) {
      const request = requestById(work.tx, each);
      if (!request) continue;
      changeRequest(work, request, change);
      count += 1;
    }
  };
  const named = naming(db, goes.id);
  for (let from = 0; from < named.length; from += AT_ONCE)
    await patiently(house, () =>
      write(house, (work) => become(by(work, viewer.personId), named.slice(from, from + AT_ONCE))),
    );
  await patiently(house, () =>
    write(house, (whole) => {
      const work = by(whole, viewer.personId);
      // What was asked meanwhile comes along.
      become(work, naming(work.tx, goes.id));
      becomeOne(work, viewer, twoRecords(work.tx, viewer, id, other));
    }),
  );
  house.live.endOf(goes.id);
  return { requests: count };
}

/** Everything that is kept of the one record is the other’s, which fills in what it lacks. */
function becomeOne(work: Work, viewer: Viewer, { stays, goes }: Two): void {
  const { tx, now } = work;
  const [from, to] = [goes.id, stays.id];
  const byHand = and(eq(groupEntries.personId, from), ne(groupEntries.source, 'rule'));
  for (const entry of tx.select().from(groupEntries).where(byHand).all()) {
    const { groupKey: group, fromDay, untilDay, source } = entry;
    leaveGroup(work, group, entry.id);
    enterGroup(work, { group, member: { person: to }, from: fromDay, until: untilDay }, source);
  }
  const [was, becomes] = [wordOf({ person: from }), wordOf({ person: to })];
  // In each register they may do what either of the two could there, and no more.
  const there = [...differingRegisters(tx).keys()].map((register) => ({
    register,
    give: [...new Set([was, becomes].flatMap((subject) => grantedTo(tx, subject, register)))],
  }));
  settleRights(work, viewer, becomes, { give: grantedTo(tx, was) });
  for (const { register, give } of there) settleRights(work, viewer, becomes, { give, take: RIGHTS }, register);
  takeAllRights(work, viewer, was);
  tx.update(addresses).set({ personId: to }).where(eq(addresses.personId, from)).run();
  // A link to a first or another password was for the account that goes.
  tx.delete(links)
    .where(and(eq(links.personId, from), inArray(links.purpose, ['invite', 'reset'])))
    .run();
  tx.update(links).set({ personId: to }).where(eq(links.personId, from)).run();
  tx.update(notices).set({ personId: to }).where(eq(notices.personId, from)).run();
  shareWithOther(tx, from, to);
  shareAsOther(tx, from, to);
  followAsOther(tx, from, to);
  owedAsOther(tx, from, to);
  waitAsOther(tx, from, stays);
  proposalsAsOther(tx, from, to);
  keepAnswers(work, from, to);
  tx.update(absences).set({ substituteId: to }).where(eq(absences.substituteId, from)).run();
  tx.delete(absences).where(eq(absences.personId, from)).run();
  tx.delete(user).where(eq(user.id, from)).run();
  if (pictureVersion(tx, to) === null) tx.update(pictures).set({ key: to }).where(eq(pictures.key, from)).run();
  putPicture(tx, from, null);
  becomeNamed(work, from, to);
  tx.update(people)
    .set({ profile: { ...goes.profile, ...stays.profile }, language: stays.language ?? goes.language })
    .where(eq(people.id, to))
    .run();
  tx.update(people)
    .set({ version: sql`${people.version} + 1` })
    .where(inArray(people.id, [from, to]))
    .run();
  tx.update(people)
    .set({
      ...{ active: false, mergedInto: to, leftAt: now, name: stays.name, invitedAt: null },
      // The address is one of those that find the other now, and may become the one that is written to.
      email: `${from}@merged.invalid`,
    })
    .where(eq(people.id, from))
    .run();
  for (const id of [from, to]) settleSought(tx, id);
  renameInRules(work, { [was]: becomes });
  settleRules(work, [from, to]);
  settleStandIns(tx, todayAt(tx, now));
  if (goes.active) noteChanged(work, 'person', from, 'active', true, false);
  const note = `${goes.name} = ${stays.name}`;
  dutiesAsOther(tx, from, to, note, { viewer, now });
  viewsAsOther(tx, from, to, note, { viewer, now });
  reportsAsOther(tx, from, to, note, { viewer, now });
  renameInPlans(tx, { [was]: becomes }, note, { viewer, now });
  renameInMailings(tx, { [was]: becomes }, note, { viewer, now });
  renameInDoors(tx, { [was]: becomes }, note, { viewer, now });
  noteGround(work, 'person', to, { kind: 'merged', name: goes.name, email: goes.email });
  refuseNobodyLeft(tx);
}

/** What was typed and not sent stays; where both had begun the same form, what the one that stays had typed. */
function keepAnswers({ tx }: Work, from: string, to: string): void {
  const doors = tx
    .select({ door: keptAnswers.doorId })
    .from(keptAnswers)
    .where(eq(keptAnswers.personId, to))
    .all()
    .map(({ door }) => door);
  if (doors.length > 0)
    tx.delete(keptAnswers)
      .where(and(eq(keptAnswers.personId, from), inArray(keptAnswers.doorId, doors)))
      .run();
  tx.update(keptAnswers).set({ personId: to }).where(eq(keptAnswers.personId, from)).run();
}

/** Profiles that named the one record name the other. */
function becomeNamed({ tx }: Work, from: string, to: string): void {
  const naming = tx
    .select({ id: people.id, profile: people.profile })
    .from(people)
    .where(and(isNull(people.mergedInto), ne(people.id, from), sql`instr(${people.profile}, ${`"${from}"`}) > 0`))
    .all();
  for (const { id, profile } of naming) {
    const now = (value: FieldValue): FieldValue => {
      if (value === from) return to;
      return Array.isArray(value)
        ? ([...new Set(value.map((each: unknown) => (each === from ? to : each)))] as FieldValue)
        : value;
    };
    const after: Values = Object.fromEntries(Object.entries(profile).map(([key, value]) => [key, now(value)]));
    if (!isSame(profile, after)) tx.update(people).set({ profile: after }).where(eq(people.id, id)).run();
  }
}
