import {
  type Audience,
  asksRights,
  calledApart,
  holderOf,
  profileConditionsIn,
  type Right,
  rightsAt,
  type Somebody,
  toldApart,
  type Viewer,
} from '@tolvek/core/people';
import { PROGRAM, programIn } from '@tolvek/core/program';
import { type KnownPerson, NO_PROFILE, type Profile, type ProfileField, personMeets } from '@tolvek/core/register';
import type { Speech } from '@tolvek/words/speech';
import { and, asc, eq, getTableColumns, isNull, ne, sql } from 'drizzle-orm';
import { designByKey } from '../design/queries.ts';
import type { Reader } from '../platform/database.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import { speechFor } from '../platform/words.ts';
import { deskOf, profileDesignOf } from '../settings/queries.ts';
import { rightsOf } from './rights.ts';
import { addresses, groups, memberships, people, profileConditions, standIns } from './tables.ts';

export type PersonRow = typeof people.$inferSelect;

const byId = prepared((db) =>
  db
    .select()
    .from(people)
    .where(eq(people.id, sql.placeholder('id')))
    .prepare(),
);

export const personById = (db: Reader, id: string): PersonRow | undefined => byId(db).get({ id });

/** What a person is called, or a program that did something; undefined for who is not here. */
export function nameKnown(db: Reader, id: string): string | undefined {
  const program = programIn(id);
  return program === null ? personById(db, id)?.name : designByKey(db, PROGRAM, program)?.draft.name;
}

/** What somebody is called; empty for nobody, and for who is not here. */
export const personNamed = (db: Reader, id: string | null): string => (id === null ? '' : (nameKnown(db, id) ?? ''));

const byEmail = prepared((db) =>
  db
    .select(getTableColumns(people))
    .from(addresses)
    .innerJoin(people, eq(people.id, addresses.personId))
    .where(eq(addresses.address, sql.placeholder('email')))
    .prepare(),
);

/** Whom an address finds: any that they have, whichever is written to. */
export function personByEmail(db: Reader, email: string): PersonRow | undefined {
  return byEmail(db).get({ email: email.toLowerCase() });
}

/** Somebody by name; undefined when nobody or several are called so. */
export function personByName(db: Reader, name: string): PersonRow | undefined {
  const found = db.select().from(people).where(sql`lower(${people.name}) = ${name.toLowerCase()}`).limit(2).all();
  return found.length === 1 ? found[0] : undefined;
}

const groupsById = prepared((db) =>
  db
    .select({ key: memberships.groupKey })
    .from(memberships)
    .where(eq(memberships.personId, sql.placeholder('id')))
    .prepare(),
);

export const groupsOf = (db: Reader, personId: string): readonly string[] =>
  groupsById(db)
    .all({ id: personId })
    .map((row) => row.key);

/** What the desk knows of somebody, as conditions may read it. */
export function profileOf(db: Reader, person: Pick<PersonRow, 'profile'> | undefined): Profile {
  if (!person) return NO_PROFILE;
  const { fields } = profileDesignOf(db);
  return fields.length === 0 ? NO_PROFILE : { fields, values: person.profile };
}

const named = prepared((db) =>
  db.selectDistinct({ condition: profileConditions.condition }).from(profileConditions).prepare(),
);

/** The conditions on profiles that access plans name, in force or as they are being written. */
export const conditionsNamed = (db: Reader): readonly string[] =>
  named(db)
    .all()
    .map(({ condition }) => condition);

/** Of some conditions, those that hold of somebody’s profile. */
export function metBy(
  db: Reader,
  person: Pick<PersonRow, 'profile'> | undefined,
  conditions: readonly string[],
): readonly string[] {
  const profile = profileOf(db, person);
  return conditions.filter((condition) => personMeets(condition, profile));
}

/** A viewer with what else of some conditions holds of their profile. */
export const meetingAlso = (
  db: Reader,
  viewer: Viewer,
  person: Pick<PersonRow, 'profile'> | undefined,
  conditions: readonly string[],
): Viewer =>
  conditions.length === 0
    ? viewer
    : { ...viewer, meets: [...new Set([...(viewer.meets ?? []), ...metBy(db, person, conditions)])] };

/** Who somebody is to conditions: their groups, their team and their profile. */
export const knownOf = (
  db: Reader,
  id: string,
): { readonly groups: readonly string[]; readonly department: string; readonly profile: Profile } => ({
  groups: groupsOf(db, id),
  department: departmentOf(db, id),
  profile: profileOf(db, personById(db, id)),
});

const placesOf = prepared((db) =>
  db
    .select({ holder: standIns.holder })
    .from(standIns)
    .where(eq(standIns.personId, sql.placeholder('id')))
    .prepare(),
);

/** Somebody as what decides about them knows them, active or not. */
export function viewerIn(
  db: Reader,
  { id, kind, language }: Pick<PersonRow, 'id' | 'kind'> & Partial<Pick<PersonRow, 'language'>>,
): Viewer {
  const groups = groupsOf(db, id);
  const conditions = conditionsNamed(db);
  const meets = conditions.length > 0 ? { meets: metBy(db, personById(db, id), conditions) } : {};
  const reads = language ? { reads: language } : {};
  if (kind !== 'staff') return { personId: id, kind, groups, rights: [], ...meets, ...reads };
  const viewer = { personId: id, kind, groups, ...rightsOf(db, id, groups), ...meets, ...reads };
  const standsIn = placesOf(db)
    .all({ id })
    .map(({ holder }) => holder);
  return standsIn.length > 0 ? { ...viewer, standsIn } : viewer;
}

/** What somebody may do in a register; nothing for who is not here, or from outside. */
export const rightsIn = (db: Reader, personId: string, register: string): readonly Right[] => {
  const viewer = viewerOf(db, personId);
  return viewer ? rightsAt(viewer, register) : [];
};

/** What audiences ask about somebody besides their groups: the conditions on profiles that they name, and what they may do. */
export function toldOf(
  db: Reader,
  audiences: readonly Audience[],
  id: string,
  register: () => string,
): Pick<Somebody, 'meets' | 'rights'> {
  const conditions = audiences.flatMap(profileConditionsIn);
  return {
    ...(conditions.length === 0 ? {} : { meets: metBy(db, personById(db, id), conditions) }),
    ...(audiences.some(asksRights) ? { rights: rightsIn(db, id, register()) } : {}),
  };
}

/** Who somebody is to the access plan; null when unknown or inactive. */
export function viewerOf(db: Reader, personId: string): Viewer | null {
  const person = personById(db, personId);
  if (!person?.active) return null;
  return viewerIn(db, person);
}

const byGroup = prepared((db) =>
  db
    .select({ person: people })
    .from(memberships)
    .innerJoin(people, eq(people.id, memberships.personId))
    .where(and(eq(memberships.groupKey, sql.placeholder('group')), eq(people.active, true)))
    .orderBy(asc(people.name))
    .prepare(),
);

/** Active members of a group, by name. */
export const membersOf = (db: Reader, group: string): readonly PersonRow[] =>
  byGroup(db)
    .all({ group })
    .map((row) => row.person);

/** The record somebody is a part of by now: their own, or the one that theirs was merged into. */
export function recordNow(db: Reader, id: string): PersonRow | undefined {
  let row = personById(db, id);
  for (let times = 0; row?.mergedInto && times < 10; times += 1) row = personById(db, row.mergedInto);
  return row;
}

/** Active people who hold something: the members of a group, or one of the staff. */
export function peopleHolding(db: Reader, word: string): readonly PersonRow[] {
  const holder = holderOf(word);
  if ('group' in holder) return membersOf(db, holder.group);
  const person = personById(db, holder.person);
  return person?.active ? [person] : [];
}

/** What holders are called; `groups`: names by key. */
export const holderNames = (
  db: Reader,
  words: readonly string[],
  groups: ReadonlyMap<string, string>,
): readonly string[] =>
  words.map((word) => {
    const holder = holderOf(word);
    return 'group' in holder ? (groups.get(holder.group) ?? holder.group) : personNamed(db, holder.person);
  });

const someNames = prepared((db) =>
  db.select({ id: people.id, name: people.name }).from(people).where(isListed(people.id, 'ids')).prepare(),
);

export function namesOf(db: Reader, ids: readonly string[]): ReadonlyMap<string, string> {
  if (ids.length === 0) return new Map();
  const names = new Map(
    someNames(db)
      .all({ ids: listed(ids) })
      .map((row) => [row.id, row.name]),
  );
  for (const id of ids) {
    const name = programIn(id) === null ? undefined : nameKnown(db, id);
    if (name !== undefined) names.set(id, name);
  }
  return names;
}

const activeStaff = prepared((db) =>
  db
    .select({ id: people.id, name: people.name, group: memberships.groupKey })
    .from(people)
    .leftJoin(memberships, eq(memberships.personId, people.id))
    .where(and(eq(people.kind, 'staff'), eq(people.active, true)))
    .orderBy(asc(people.name))
    .prepare(),
);

/** Active staff with their groups, of some groups or of all, by name. */
export function staffIn(db: Reader, wanted: readonly string[] | 'all'): readonly KnownPerson[] {
  const found = new Map<string, { id: string; name: string; groups: string[] }>();
  for (const { id, name, group } of activeStaff(db).all()) {
    const person = found.get(id) ?? { id, name, groups: [] };
    if (group) person.groups.push(group);
    found.set(id, person);
  }
  return [...found.values()].filter(
    (person) => wanted === 'all' || person.groups.some((group) => wanted.includes(group)),
  );
}

/** The team somebody belongs to, by name; empty when there is none. */
export function departmentOf(db: Reader, personId: string): string {
  // Of a few: put in order here, which takes SQLite longer than finding them.
  const [first] = teamsOf(db)
    .all({ id: personId })
    .map(({ name }) => name)
    .sort();
  return first ?? '';
}

const teamsOf = prepared((db) =>
  db
    .select({ name: groups.name })
    .from(memberships)
    .innerJoin(groups, eq(groups.key, memberships.groupKey))
    .where(and(eq(memberships.personId, sql.placeholder('id')), eq(groups.isTeam, true)))
    .prepare(),
);

/** All groups by name, with how many are in each today; those that are retired as well. */
export function allGroups(
  db: Reader,
): readonly { key: string; name: string; isTeam: boolean; retired: boolean; members: number }[] {
  const { key, name, isTeam, retired, members } = groups;
  return db
    .select({ key, name, isTeam, retired, members })
    .from(groups)
    .where(isNull(groups.removedAt))
    .orderBy(asc(groups.name))
    .all();
}

const everyGroup = prepared((db) => db.select({ key: groups.key, name: groups.name }).from(groups).prepare());

export const groupNames = (db: Reader): ReadonlyMap<string, string> =>
  new Map(
    everyGroup(db)
      .all()
      .map((row) => [row.key, row.name]),
  );

/** Staff the demo offers for sign-in: those whose work is described. */
export function demoPeople(db: Reader): readonly PersonRow[] {
  return db
    .select()
    .from(people)
    .where(and(eq(people.kind, 'staff'), eq(people.active, true), ne(people.does, '')))
    .orderBy(asc(people.id))
    .all();
}

/** Groups, active staff by name and the fields of profiles, for building and explaining conditions. */
export function knownNames(db: Reader): {
  groups: { key: string; label: string }[];
  people: { key: string; label: string }[];
  profile: readonly ProfileField[];
} {
  const staff = db
    .select({ key: people.id, name: people.name, email: people.email })
    .from(people)
    .where(and(eq(people.kind, 'staff'), eq(people.active, true)))
    .orderBy(asc(people.name))
    .all();
  return {
    groups: [...groupNames(db)].map(([key, label]) => ({ key, label })),
    people: toldApart(staff).map((each) => ({ key: each.key, label: calledApart(each) })),
    profile: profileDesignOf(db).fields,
  };
}

/** Speaks to somebody, in the language they read; for what is named in it once and stored. */
export const spokenTo = (db: Reader, personId: string): Speech =>
  speechFor({ language: personById(db, personId)?.language ?? deskOf(db).language });
