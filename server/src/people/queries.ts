import type { Viewer } from '@tolvek/core/people';
import { and, asc, count, eq, inArray } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { groups, memberships, people } from './tables.ts';

export type PersonRow = typeof people.$inferSelect;

export function personById(db: Reader, id: string): PersonRow | undefined {
  return db.select().from(people).where(eq(people.id, id)).get();
}

export function personByEmail(db: Reader, email: string): PersonRow | undefined {
  return db.select().from(people).where(eq(people.email, email.toLowerCase())).get();
}

export function groupsOf(db: Reader, personId: string): readonly string[] {
  return db
    .select({ key: memberships.groupKey })
    .from(memberships)
    .where(eq(memberships.personId, personId))
    .all()
    .map((row) => row.key);
}

/** Who somebody is to the access plan; null when unknown or inactive. */
export function viewerOf(db: Reader, personId: string): Viewer | null {
  const person = personById(db, personId);
  if (!person?.active) return null;
  return { personId: person.id, kind: person.kind, role: person.role, groups: groupsOf(db, personId) };
}

/** Active members of a group, by name. */
export function membersOf(db: Reader, group: string): readonly PersonRow[] {
  return db
    .select({ person: people })
    .from(memberships)
    .innerJoin(people, eq(people.id, memberships.personId))
    .where(and(eq(memberships.groupKey, group), eq(people.active, true)))
    .orderBy(asc(people.name))
    .all()
    .map((row) => row.person);
}

export function namesOf(db: Reader, ids: readonly string[]): ReadonlyMap<string, string> {
  if (ids.length === 0) return new Map();
  return new Map(
    db
      .select({ id: people.id, name: people.name })
      .from(people)
      .where(inArray(people.id, [...new Set(ids)]))
      .all()
      .map((row) => [row.id, row.name]),
  );
}

export function allGroups(db: Reader): readonly { key: string; name: string; isTeam: boolean; members: number }[] {
  return db
    .select({ key: groups.key, name: groups.name, isTeam: groups.isTeam, members: count(memberships.personId) })
    .from(groups)
    .leftJoin(memberships, eq(memberships.groupKey, groups.key))
    .groupBy(groups.key)
    .orderBy(asc(groups.name))
    .all();
}

export function groupNames(db: Reader): ReadonlyMap<string, string> {
  return new Map(
    db
      .select({ key: groups.key, name: groups.name })
      .from(groups)
      .all()
      .map((row) => [row.key, row.name]),
  );
}

/** Staff the demo offers for sign-in: those whose work is described. */
export function demoPeople(db: Reader): readonly PersonRow[] {
  return db
    .select()
    .from(people)
    .where(and(eq(people.kind, 'staff'), eq(people.active, true)))
    .orderBy(asc(people.id))
    .all()
    .filter((person) => person.does !== '');
}
