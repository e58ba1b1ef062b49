import { dateAt } from '@tolvek/core/deadline';
import { and, eq, inArray, isNotNull, or, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { settings } from '../platform/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { groupEntries, memberships } from './tables.ts';

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
  for (const groupKey of wanted)
    if (!had.includes(groupKey)) tx.insert(memberships).values({ groupKey, personId: person }).run();
}

/** A group and all groups that it is in, whenever that counts. */
export const outwardOf = (tx: Transaction, group: string): readonly string[] =>
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
}

/** Settles who is in a group, and in all groups that it is in, on a day. */
export function settleGroup(tx: Transaction, group: string, day: string): void {
  for (const key of outwardOf(tx, group)) {
    const inside = insideOnDay(key, day);
    tx.run(sql`delete from memberships where group_key = ${key} and person_id not in (${inside})`);
    tx.run(sql`insert or ignore into memberships (group_key, person_id) select ${key}, person_id from (${inside})`);
  }
}

/** Where it is written down for which day it is settled who is in which group. */
const SETTLED = 'memberships-day';

/** Whether a day has begun for which it is not settled who is in which group. */
export function isTurned(db: Reader, now: number): boolean {
  return settledDay(db) !== todayAt(db, now);
}

const settledDay = (db: Reader): string | undefined =>
  db.select().from(settings).where(eq(settings.key, SETTLED)).get()?.value;

/** Settles who is in which group on a new day: those whose entries begin or end between the last one and it. */
export function settleNewDay(tx: Transaction, now: number): void {
  const day = todayAt(tx, now);
  const last = settledDay(tx);
  if (last === day) return;
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
  for (const person of new Set(turned.flatMap((each) => each.person ?? []))) settlePerson(tx, person, day);
  for (const group of new Set(turned.flatMap((each) => (each.person === null ? each.group : []))))
    settleGroup(tx, group, day);
  tx.insert(settings)
    .values({ key: SETTLED, value: day })
    .onConflictDoUpdate({ target: settings.key, set: { value: day } })
    .run();
}
