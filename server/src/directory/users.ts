import { DirectoryRefusal, personIn, type Resource, USER } from '@tolvek/core/directory';
import { isSame } from '@tolvek/core/own';
import { RIGHTS, type Viewer } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import { addPerson, changePerson } from '../people/commands.ts';
import { leaveGroup } from '../people/groups.ts';
import { DIRECTORY } from '../people/kept.ts';
import { personByEmail, personById } from '../people/queries.ts';
import { groupEntries, groups, memberships, people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { Work } from '../platform/work.ts';
import type { Filled } from './profiles.ts';
import { directoryGroups, directoryUsers } from './tables.ts';

/** What changes made by a directory may: whoever gives it a token may decide about rights. */
export const KEEPER: Viewer = { personId: DIRECTORY, kind: 'staff', groups: [], rights: RIGHTS };

type UserRow = typeof directoryUsers.$inferSelect;
type Found = Pick<UserRow, 'personId' | 'externalId' | 'resource' | 'createdAt' | 'changedAt'> & {
  readonly active: boolean;
};

const COLUMNS = {
  ...{ personId: directoryUsers.personId, externalId: directoryUsers.externalId, resource: directoryUsers.resource },
  ...{ createdAt: directoryUsers.createdAt, changedAt: directoryUsers.changedAt, active: people.active },
};

/** Users as a directory sees them: what it sent, what is known here, and the groups it keeps that they are in. */
function asResources(db: Reader, base: string, found: readonly Found[]): readonly Resource[] {
  const ids = found.map(({ personId }) => personId);
  const inside = new Map<string, Resource[]>();
  if (ids.length > 0)
    for (const { person, key, name, entry } of db
      .select({ person: memberships.personId, key: groups.key, name: groups.name, entry: groupEntries.id })
      .from(memberships)
      .innerJoin(groups, eq(groups.key, memberships.groupKey))
      .innerJoin(directoryGroups, eq(directoryGroups.groupKey, groups.key))
      .leftJoin(
        groupEntries,
        and(eq(groupEntries.groupKey, memberships.groupKey), eq(groupEntries.personId, memberships.personId)),
      )
      .where(inArray(memberships.personId, ids))
      .groupBy(memberships.personId, groups.key)
      .orderBy(asc(groups.key))
      .all())
      inside.set(person, [
        ...(inside.get(person) ?? []),
        { value: key, $ref: `${base}/Groups/${key}`, display: name, type: entry === null ? 'indirect' : 'direct' },
      ]);
  return found.map(({ personId: id, externalId, resource, createdAt, changedAt, active }) => ({
    schemas: [USER.schema.id, ...USER.extensions.map((each) => each.id).filter((each) => each in resource)],
    id,
    ...(externalId === null ? {} : { externalId }),
    ...resource,
    active,
    ...(inside.has(id) ? { groups: inside.get(id) ?? [] } : {}),
    meta: {
      ...{ resourceType: 'User', created: iso(createdAt), lastModified: iso(changedAt) },
      location: `${base}/Users/${id}`,
    },
  }));
}

const query = (db: Reader) =>
  db.select(COLUMNS).from(directoryUsers).innerJoin(people, eq(people.id, directoryUsers.personId));

export const userById = (db: Reader, base: string, id: string): Resource | undefined =>
  asResources(db, base, query(db).where(eq(directoryUsers.personId, id)).all())[0];

/** Users in the order of their ids, from one on. */
export const usersAfter = (db: Reader, base: string, after: string, most: number): readonly Resource[] =>
  asResources(
    db,
    base,
    query(db).where(gt(directoryUsers.personId, after)).orderBy(directoryUsers.personId).limit(most).all(),
  );

/** Users in the order of their ids, from a place on that is counted from 0. */
export const usersAt = (db: Reader, base: string, place: number, most: number): readonly Resource[] =>
  asResources(db, base, query(db).orderBy(directoryUsers.personId).limit(most).offset(place).all());

export const countUsers = (db: Reader): number =>
  db.select({ n: sql<number>`count(*)` }).from(directoryUsers).get()?.n ?? 0;

/** Users that have what a filter asks for certainly; null where that says nothing that can be looked up. */
export function usersWith(db: Reader, base: string, certain: ReadonlyMap<string, string>): readonly Resource[] | null {
  const [id, userName, externalId] = [certain.get('id'), certain.get('username'), certain.get('externalid')];
  const where =
    id !== undefined
      ? eq(directoryUsers.personId, id)
      : userName !== undefined
        ? eq(directoryUsers.userName, userName.toLowerCase())
        : externalId !== undefined
          ? eq(directoryUsers.externalId, externalId)
          : null;
  return where && asResources(db, base, query(db).where(where).orderBy(directoryUsers.personId).all());
}

const taken = (name: string): DirectoryRefusal => new DirectoryRefusal(409, 'uniqueness', said('scim:taken', { name }));

/** @throws DirectoryRefusal 409 when another user goes by the name */
function refuseTakenName(db: Reader, userName: string, own: string | null): void {
  const [other] = db
    .select({ id: directoryUsers.personId })
    .from(directoryUsers)
    .where(eq(directoryUsers.userName, userName.toLowerCase()))
    .all();
  if (other && other.id !== own) throw taken(userName);
}

const nameOf = ({ userName }: Resource): string => String(userName).trim();

/** What is kept of what was sent: all but what stands in columns, and whether somebody is active. */
function keptOf(sent: Resource): Pick<UserRow, 'userName' | 'externalId' | 'resource'> {
  const { active: _active, externalId, ...resource } = sent;
  return {
    ...{ userName: nameOf(sent).toLowerCase(), externalId: typeof externalId === 'string' ? externalId : null },
    resource,
  };
}

/**
 * Adds a user: somebody new of the staff, or whoever an address of theirs finds, whom the directory keeps from then
 * on. Nobody is written to. Returns their id.
 *
 * @throws DirectoryRefusal 400 without an address that could be written to, 409 when name or address are another’s
 */
export function addUser(work: Work, sent: Resource, fill: (user: Resource) => Filled): string {
  const { tx, now } = work;
  refuseTakenName(tx, nameOf(sent), null);
  const { name, email, active, language } = personIn(sent);
  if (email === null) throw new DirectoryRefusal(400, 'invalidValue', said('scim:noAddress'));
  const { profile, unread } = fill(sent);
  const known = personByEmail(tx, email);
  const isKept = known && tx.select().from(directoryUsers).where(eq(directoryUsers.personId, known.id)).get();
  if (isKept) throw taken(email);
  if (known?.kind === 'contact') throw new DirectoryRefusal(409, 'uniqueness', said('scim:isContact', { email }));
  const id = known?.id ?? addPerson(work, { kind: 'staff', name, email, active: active ?? true, language, profile }).id;
  tx.update(people).set({ source: 'directory' }).where(eq(people.id, id)).run();
  tx.insert(directoryUsers)
    .values({ ...keptOf(sent), personId: id, unread, createdAt: now, changedAt: now })
    .run();
  // Whoever is added comes in, unless it is said that they don’t: also who had left.
  if (known) becomeKnown(work, id, { ...sent, active: active ?? true }, { profile, unread });
  return id;
}

/** Somebody becomes who the directory says. */
function becomeKnown(work: Work, id: string, sent: Resource, { profile, unread }: Filled): void {
  const { tx } = work;
  const person = personById(tx, id);
  if (!person) return;
  const { name, email, active, language } = personIn(sent);
  if (email === null) throw new DirectoryRefusal(400, 'invalidValue', said('scim:noAddress'));
  const holder = personByEmail(tx, email);
  if (holder && holder.id !== id) throw taken(email);
  const spoken = person.language === null && language !== null ? { language } : {};
  const changes = { name, email, ...(active === null ? {} : { active }), ...spoken, profile };
  changePerson(work, KEEPER, { id, version: person.version, changes });
  tx.update(directoryUsers).set({ unread }).where(eq(directoryUsers.personId, id)).run();
}

/** Makes a user what was sent. @throws DirectoryRefusal as `addUser` */
export function putUser(
  work: Work,
  id: string,
  sent: Resource,
  before: Resource,
  fill: (user: Resource) => Filled,
): void {
  const { tx, now } = work;
  const kept = keptOf(sent);
  const had = keptOf(before);
  refuseTakenName(tx, nameOf(sent), id);
  becomeKnown(work, id, sent, fill(sent));
  if (!isSame(kept, had) || sent.active !== before.active)
    tx.update(directoryUsers)
      .set({ ...kept, changedAt: now })
      .where(eq(directoryUsers.personId, id))
      .run();
}

/**
 * A user goes: they can’t come in any more, are in no group by the directory, and are kept here like anybody who
 * leaves. What hangs on them is handed over by people.
 */
export function removeUser(work: Work, id: string): void {
  const { tx } = work;
  const person = personById(tx, id);
  if (!person) return;
  const entries = tx
    .select()
    .from(groupEntries)
    .where(and(eq(groupEntries.personId, id), eq(groupEntries.source, 'directory')))
    .all();
  for (const { id: entry, groupKey } of entries) leaveGroup(work, groupKey, entry);
  changePerson(work, KEEPER, { id, version: person.version, changes: { active: false } });
  tx.delete(directoryUsers).where(eq(directoryUsers.personId, id)).run();
  tx.update(people).set({ source: 'local' }).where(eq(people.id, id)).run();
}
