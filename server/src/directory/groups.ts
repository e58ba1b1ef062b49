import { DirectoryRefusal, GROUP, type Resource } from '@tolvek/core/directory';
import type { GroundMember } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { and, asc, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import { changeGroup, enterGroup, groupByKey, leaveGroup, makeGroup } from '../people/groups.ts';
import { groupEntries, groups, people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { Work } from '../platform/work.ts';
import { directoryGroups, directoryUsers } from './tables.ts';

type Found = typeof directoryGroups.$inferSelect & { readonly name: string };

const COLUMNS = {
  ...{ groupKey: directoryGroups.groupKey, externalId: directoryGroups.externalId, name: groups.name },
  ...{ createdAt: directoryGroups.createdAt, changedAt: directoryGroups.changedAt },
};

/** Groups as a directory sees them: with those whom it let in itself. */
function asResources(db: Reader, base: string, found: readonly Found[]): readonly Resource[] {
  const members = new Map<string, Resource[]>();
  const of = (key: string): Resource[] => {
    const had = members.get(key) ?? [];
    members.set(key, had);
    return had;
  };
  for (const { key, person, personName, group, groupName } of db
    .select({
      ...{ key: groupEntries.groupKey, person: groupEntries.personId, personName: people.name },
      ...{ group: groupEntries.memberGroup, groupName: groups.name },
    })
    .from(groupEntries)
    .leftJoin(people, eq(people.id, groupEntries.personId))
    .leftJoin(groups, eq(groups.key, groupEntries.memberGroup))
    .where(
      and(
        inArray(
          groupEntries.groupKey,
          found.map((each) => each.groupKey),
        ),
        eq(groupEntries.source, 'directory'),
      ),
    )
    .orderBy(asc(groupEntries.id))
    .all()) {
    if (person !== null)
      of(key).push({ value: person, $ref: `${base}/Users/${person}`, type: 'User', display: personName ?? '' });
    else if (group !== null)
      of(key).push({ value: group, $ref: `${base}/Groups/${group}`, type: 'Group', display: groupName ?? '' });
  }
  return found.map(({ groupKey: id, externalId, name, createdAt, changedAt }) => ({
    schemas: [GROUP.schema.id],
    id,
    ...(externalId === null ? {} : { externalId }),
    displayName: name,
    ...(members.has(id) ? { members: members.get(id) ?? [] } : {}),
    meta: {
      ...{ resourceType: 'Group', created: iso(createdAt), lastModified: iso(changedAt) },
      location: `${base}/Groups/${id}`,
    },
  }));
}

const query = (db: Reader) =>
  db.select(COLUMNS).from(directoryGroups).innerJoin(groups, eq(groups.key, directoryGroups.groupKey));

export const groupResource = (db: Reader, base: string, id: string): Resource | undefined =>
  asResources(db, base, query(db).where(eq(directoryGroups.groupKey, id)).all())[0];

/** Groups in the order of their ids, from one on. */
export const groupsAfter = (db: Reader, base: string, after: string, most: number): readonly Resource[] =>
  asResources(
    db,
    base,
    query(db).where(gt(directoryGroups.groupKey, after)).orderBy(directoryGroups.groupKey).limit(most).all(),
  );

/** Groups in the order of their ids, from a place on that is counted from 0. */
export const groupsAt = (db: Reader, base: string, place: number, most: number): readonly Resource[] =>
  asResources(db, base, query(db).orderBy(directoryGroups.groupKey).limit(most).offset(place).all());

export const countGroups = (db: Reader): number =>
  db.select({ n: sql<number>`count(*)` }).from(directoryGroups).get()?.n ?? 0;

/** Groups that have what a filter asks for certainly; null where that says nothing that can be looked up. */
export function groupsWith(db: Reader, base: string, certain: ReadonlyMap<string, string>): readonly Resource[] | null {
  const [id, name, externalId] = [certain.get('id'), certain.get('displayname'), certain.get('externalid')];
  const where =
    id !== undefined
      ? eq(directoryGroups.groupKey, id)
      : externalId !== undefined
        ? eq(directoryGroups.externalId, externalId)
        : name !== undefined
          ? sql`lower(${groups.name}) = ${name.toLowerCase()}`
          : null;
  return where && asResources(db, base, query(db).where(where).orderBy(directoryGroups.groupKey).all());
}

const nameOf = ({ displayName }: Resource): string => String(displayName).trim();
const externalOf = ({ externalId }: Resource): string | null => (typeof externalId === 'string' ? externalId : null);

/** @throws DirectoryRefusal 409 when a group goes by the name that the directory does not keep as this one */
function refuseTakenName(db: Reader, name: string, own: string | null): typeof groups.$inferSelect | undefined {
  const named = and(sql`lower(${groups.name}) = ${name.toLowerCase()}`, isNull(groups.removedAt));
  const same = db.select().from(groups).where(named).get();
  if (!same || same.key === own) return undefined;
  const isKept = db.select().from(directoryGroups).where(eq(directoryGroups.groupKey, same.key)).get() !== undefined;
  // One that nobody uses any more is taken up again.
  if (own === null && !isKept && same.retired) return same;
  throw new DirectoryRefusal(409, 'uniqueness', said(isKept ? 'scim:taken' : 'scim:localGroup', { name }));
}

/** Adds a group with its members. Returns its id. @throws DirectoryRefusal 400 for members that are not here, 409 */
export function addDirectoryGroup(work: Work, sent: Resource): string {
  const { tx, now } = work;
  const before = refuseTakenName(tx, nameOf(sent), null);
  const key = before?.key ?? makeGroup(work, { name: nameOf(sent), isTeam: false });
  tx.update(groups).set({ source: 'directory' }).where(eq(groups.key, key)).run();
  if (before?.retired) changeGroup(work, { key, version: before.version, changes: { retired: false } });
  tx.insert(directoryGroups)
    .values({ groupKey: key, externalId: externalOf(sent), createdAt: now, changedAt: now })
    .run();
  settleMembers(work, key, membersOf(sent), []);
  return key;
}

/** Makes a group what was sent. @throws DirectoryRefusal as `addDirectoryGroup` */
export function putDirectoryGroup(work: Work, key: string, sent: Resource, before: Resource): void {
  const { tx, now } = work;
  const group = groupByKey(tx, key);
  if (!group) return;
  refuseTakenName(tx, nameOf(sent), key);
  if (nameOf(sent) !== group.name) changeGroup(work, { key, version: group.version, changes: { name: nameOf(sent) } });
  const turned = settleMembers(work, key, membersOf(sent), membersOf(before));
  if (turned > 0 || nameOf(sent) !== group.name || externalOf(sent) !== externalOf(before))
    tx.update(directoryGroups)
      .set({ externalId: externalOf(sent), changedAt: now })
      .where(eq(directoryGroups.groupKey, key))
      .run();
}

/** A group goes: nobody is in it by the directory, nor is it in another, and it is offered nowhere. What names it keeps it. */
export function removeDirectoryGroup(work: Work, key: string, before: Resource): void {
  const { tx } = work;
  const group = groupByKey(tx, key);
  if (!group) return;
  settleMembers(work, key, [], membersOf(before));
  const within = tx
    .select()
    .from(groupEntries)
    .where(and(eq(groupEntries.memberGroup, key), eq(groupEntries.source, 'directory')))
    .all();
  for (const { id, groupKey } of within) leaveGroup(work, groupKey, id);
  tx.delete(directoryGroups).where(eq(directoryGroups.groupKey, key)).run();
  tx.update(groups).set({ source: 'local' }).where(eq(groups.key, key)).run();
  if (!group.retired) changeGroup(work, { key, version: group.version, changes: { retired: true } });
}

const membersOf = ({ members }: Resource): readonly string[] =>
  ((members ?? []) as readonly Resource[]).map(({ value }) => String(value ?? ''));

/** Somebody, or a group, that the directory keeps. @throws DirectoryRefusal 400 */
function memberBy(db: Reader, id: string): GroundMember {
  const person = db
    .select({ id: directoryUsers.personId })
    .from(directoryUsers)
    .where(eq(directoryUsers.personId, id))
    .get();
  if (person) return { person: id };
  const group = db
    .select({ id: directoryGroups.groupKey })
    .from(directoryGroups)
    .where(eq(directoryGroups.groupKey, id))
    .get();
  if (group) return { group: id };
  throw new DirectoryRefusal(400, 'invalidValue', said('scim:noMember', { member: id }));
}

/** Lets in and out whom the directory says; who is in by the desk stays. Returns how many came or went. */
function settleMembers(work: Work, key: string, wanted: readonly string[], had: readonly string[]): number {
  const { tx } = work;
  const [after, before] = [new Set(wanted), new Set(had)];
  const going = had.filter((id) => !after.has(id));
  const coming = [...after].filter((id) => !before.has(id));
  if (going.length > 0) {
    const gone = new Set(going);
    const entries = tx
      .select()
      .from(groupEntries)
      .where(and(eq(groupEntries.groupKey, key), eq(groupEntries.source, 'directory')))
      .all();
    for (const { id, personId, memberGroup } of entries)
      if (gone.has(personId ?? memberGroup ?? '')) leaveGroup(work, key, id);
  }
  for (const id of coming) {
    const entry = enterGroup(work, { group: key, member: memberBy(tx, id), from: null, until: null }, 'directory');
    // Who was in by the desk is in by the directory as well from now on.
    tx.update(groupEntries).set({ source: 'directory' }).where(eq(groupEntries.id, entry)).run();
  }
  return going.length + coming.length;
}
