import { dateAt } from '@tolvek/core/deadline';
import { type Absence, type StandIn, standInsOn } from '@tolvek/core/people';
import { and, eq, gte, inArray, isNotNull, isNull, lte, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { settings } from '../platform/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { absences, groupEntries, groups, memberships, people, standIns } from './tables.ts';

/** The day at the desk (ISO 8601). */
export const todayAt = (db: Reader, now: number): string => dateAt(now, deskOf(db).zone);

const counts = (day: string) =>
  sql`(e.from_day is null or e.from_day <= ${day}) and (e.until_day is null or e.until_day >= ${day})`;

/** The groups that somebody is in on a day, by the entries: what core’s `groupsOn` says of them. */
const groupsOnDay = (tx: Transaction, person: string, day: string): readonly string[] =>
  tx
    .all<{ key: string }>(
      sql`with recursive within(key) as (
        select e.group_key from group_entries e where e.person_id = ${person} and ${counts(day)}
        union
        select e.group_key from within join group_entries e on e.member_group = within.key where ${counts(day)}
      ) select key from within`,
    )
    .map(({ key }) => key);

/** The people who are in a group on a day, by the entries. */
const insideOnDay = (group: string, day: string) =>
  sql`with recursive inside(key) as (
    select ${group}
    union
    select e.member_group from inside join group_entries e on e.group_key = inside.key
    where e.member_group is not null and ${counts(day)}
  ) select distinct e.person_id from inside join group_entries e on e.group_key = inside.key
    where e.person_id is not null and ${counts(day)}`;

/** Settles which groups somebody is in, on a day. */
export function settlePerson(tx: Transaction, person: string, day: string): void {
  const wanted = new Set(groupsOnDay(tx, person, day));
  const had = tx
    .select({ key: memberships.groupKey })
    .from(memberships)
    .where(eq(memberships.personId, person))
    .all()
    .map(({ key }) => key);
  const gone = had.filter((key) => !wanted.has(key));
  if (gone.length > 0)
    tx.delete(memberships)
      .where(and(eq(memberships.personId, person), inArray(memberships.groupKey, gone)))
      .run();
  const come = [...wanted].filter((key) => !had.includes(key));
  for (const groupKey of come) tx.insert(memberships).values({ groupKey, personId: person }).run();
  countMembers(tx, gone, -1);
  countMembers(tx, come, 1);
  settleStandIns(tx, day);
}

/** Says of groups that so many more, or fewer, are in them. */
function countMembers(tx: Transaction, keys: readonly string[], more: number): void {
  if (keys.length > 0)
    tx.update(groups)
      .set({ members: sql`${groups.members} + ${more}` })
      .where(inArray(groups.key, [...keys]))
      .run();
}

/** A group and all groups that it is in, whenever that counts. */
export const outwardOf = (tx: Reader, group: string): readonly string[] =>
  tx
    .all<{ key: string }>(
      sql`with recursive outward(key) as (
        select ${group}
        union
        select e.group_key from outward join group_entries e on e.member_group = outward.key
      ) select key from outward`,
    )
    .map(({ key }) => key);

/**
 * Settles what comes of putting a group into another, on a day on which that counts: whoever is in the one
 * is in the other, and in all that it is in. What `settleGroup` would find anew for all of them.
 */
export function settleNesting(tx: Transaction, inner: string, outer: string, day: string): void {
  const outward = sql`with recursive outward(key) as (
    select ${outer}
    union
    select e.group_key from outward join group_entries e on e.member_group = outward.key where ${counts(day)}
  )`;
  tx.run(sql`${outward} insert or ignore into memberships (group_key, person_id)
    select outward.key, m.person_id from outward join memberships m on m.group_key = ${inner}`);
  tx.run(sql`${outward} update groups set members = ${membersNow} where key in (select key from outward)`);
  settleStandIns(tx, day);
}

/** How many are in the group that is updated, counted one by one. */
const membersNow = sql`(select count(*) from memberships where group_key = groups.key)`;

/** Settles who is in a group, and in all groups that it is in, on a day. */
export function settleGroup(tx: Transaction, group: string, day: string): void {
  for (const key of outwardOf(tx, group)) {
    const inside = insideOnDay(key, day);
    tx.run(sql`delete from memberships where group_key = ${key} and person_id not in (${inside})`);
    tx.run(sql`insert or ignore into memberships (group_key, person_id) select ${key}, person_id from (${inside})`);
    tx.run(sql`update groups set members = ${membersNow} where key = ${key}`);
  }
  settleStandIns(tx, day);
}

const substitutes = alias(people, 'substitutes');
const allOn = prepared((db) =>
  db
    .select({ absence: absences, canTake: substitutes.active })
    .from(absences)
    // Crossed, so that SQLite goes from the few absences to people and not through all people.
    .crossJoin(people)
    .leftJoin(substitutes, eq(substitutes.id, absences.substituteId))
    .where(
      and(
        ...[eq(people.id, absences.personId), eq(people.active, true)],
        lte(absences.fromDay, sql.placeholder('day')),
        or(isNull(absences.untilDay), gte(absences.untilDay, sql.placeholder('day'))),
      ),
    )
    .prepare(),
);

/** Absences of people who can come in that began by a day and are not over, with substitutes who can. */
export const absencesOn = (db: Reader, day: string): readonly Absence[] =>
  allOn(db)
    .all({ day })
    .map(({ absence: { personId, fromDay, untilDay, substituteId }, canTake }) => ({
      ...{ person: personId, from: fromDay, until: untilDay, substitute: canTake ? substituteId : null },
    }));

/** Settles who takes whose place on a day; returns the places that were not taken before. */
export function settleStandIns(tx: Transaction, day: string): readonly StandIn[] {
  const away = absencesOn(tx, day);
  const had = tx.select().from(standIns).all();
  if (away.length === 0 && had.length === 0) return [];
  const inGroups = new Map<string, string[]>();
  // The groups that somebody is away from, with all who are in them and can come in.
  const of = tx
    .selectDistinct({ key: memberships.groupKey })
    .from(memberships)
    .where(
      inArray(
        memberships.personId,
        away.map(({ person }) => person),
      ),
    )
    .all()
    .map(({ key }) => key);
  for (const { key, id } of tx
    .select({ key: memberships.groupKey, id: people.id })
    .from(memberships)
    .innerJoin(people, and(eq(people.id, memberships.personId), eq(people.active, true)))
    .where(inArray(memberships.groupKey, of))
    .all())
    inGroups.set(key, [...(inGroups.get(key) ?? []), id]);
  tx.delete(standIns).run();
  const now = standInsOn(away, inGroups, day);
  for (const { holder, person } of now) tx.insert(standIns).values({ holder, personId: person }).run();
  return now.filter(({ holder, person }) => !had.some((each) => each.holder === holder && each.personId === person));
}

/** Where it is written down for which day it is settled who is in which group. */
const SETTLED = 'memberships-day';

/** Whether a day has begun for which it is not settled who is in which group. */
export function isTurned(db: Reader, now: number): boolean {
  return settledDay(db) !== todayAt(db, now);
}

/** The day of the desk for which it is settled who is in which group; undefined before the first. */
export const settledDay = (db: Reader): string | undefined =>
  db.select().from(settings).where(eq(settings.key, SETTLED)).get()?.value;

/**
 * Settles who is in which group on a new day: those whose entries begin or end between the last one and it; and
 * who takes whose place, of which those are returned who did not before.
 */
export function settleNewDay(tx: Transaction, now: number): NewDay {
  const day = todayAt(tx, now);
  const last = settledDay(tx);
  if (last === day) return { standing: [], touched: [] };
  const [early, late] = last === undefined || last > day ? ['0000-01-01', '9999-12-31'] : [last, day];
  const turned = tx
    .selectDistinct({ person: groupEntries.personId, group: groupEntries.groupKey })
    .from(groupEntries)
    .where(
      or(
        and(isNotNull(groupEntries.fromDay), sql`from_day > ${early} and from_day <= ${late}`),
        and(isNotNull(groupEntries.untilDay), sql`until_day >= ${early} and until_day < ${late}`),
      ),
    )
    .all();
  const persons = new Set(turned.flatMap((each) => each.person ?? []));
  const nested = new Set(turned.flatMap((each) => (each.person === null ? each.group : [])));
  for (const person of persons) settlePerson(tx, person, day);
  for (const group of nested) settleGroup(tx, group, day);
  const standing = settleStandIns(tx, day);
  tx.insert(settings)
    .values({ key: SETTLED, value: day })
    .onConflictDoUpdate({ target: settings.key, set: { value: day } })
    .run();
  return { standing, touched: nested.size > 0 ? 'all' : [...persons] };
}

/** What a new day brought. */
interface NewDay {
  /** Who takes whose place that they did not take before. */
  readonly standing: readonly StandIn[];
  /** Whose groups may be others, by id. */
  readonly touched: Touched;
}

/** Whom something may be otherwise for: some people by id, or anybody. */
export type Touched = 'all' | readonly string[];
