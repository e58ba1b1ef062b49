import { plainLetters, type Viewer } from '@tolvek/core/people';
import { and, asc, count, desc, eq, gt, isNull, type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { heldIn } from '../platform/heldIn.ts';
import { pictureVersions } from '../platform/pictures.ts';
import { inList } from '../platform/prepared.ts';
import { account } from '../platform/tables.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { groupNames, type PersonRow } from './queries.ts';
import { groups, memberships, people } from './tables.ts';

/** How people are looked for. */
export interface Looking {
  readonly kind?: Viewer['kind'] | undefined;
  /** Part of a name, an address or the name of a group. */
  readonly find?: string | undefined;
  readonly group?: string | undefined;
  readonly state?: 'active' | 'inactive' | 'not-invited' | undefined;
  /** Fields of profiles, and what stands in each: `title=skipper&site=pier`, written like the query of an address. */
  readonly where?: string | undefined;
  /** `name`, `email`, `newest`, or the key of a field of profiles; by name where it is anything else. */
  readonly sort?: string | undefined;
}

/** Whether a word stands in what somebody is looked for by; signs that `glob` reads as anything are made plain. */
const isSoughtBy = (word: string): SQL => sql`${people.sought} glob ${`*${word.replace(/[*?[]/g, '[$&]')}*`}`;

/** Whether somebody has a password, or has signed in by a provider. */
const signsIn = sql`exists (select 1 from ${account} where ${account.userId} = ${people.id})`;

/** The conditions of those whom words are about: each by their name, an address or the name of a group. */
function aboutWords(db: Reader, words: readonly string[]): readonly SQL[] {
  const called = [...groupNames(db)].map(([key, name]) => ({ key, name: plainLetters(name) }));
  return words.map((word) => {
    const named = called.flatMap(({ key, name }) => (name.includes(word) ? [key] : []));
    const byGroup = sql`select ${memberships.personId} from ${memberships} where ${inList(memberships.groupKey, named)}`;
    return named.length > 0 ? sql`(${isSoughtBy(word)} or ${people.id} in (${byGroup}))` : isSoughtBy(word);
  });
}

/** A condition, and how many people it holds for; null where they are too many to be counted for a page. */
interface Counted {
  readonly holds: SQL;
  readonly all: number | null;
}

/** So many people at most are counted, and named one by one, of those whom words are about. */
const COUNTED = 1_000;

/**
 * Those whom words are about, found out by what an index holds, without anybody’s record; where they are few, they are
 * named, so that only theirs are read for whatever else is asked. Null where no word is said.
 */
function soughtBy(db: Reader, find: string | undefined): Counted | null {
  const words = plainLetters(find ?? '')
    .trim()
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, 6);
  if (words.length === 0) return null;
  const about = and(...aboutWords(db, words)) as SQL;
  const { n, ids } = db.get<{ readonly n: number; readonly ids: string }>(
    sql`select count(*) as n, json_group_array(id) as ids from (select ${people.id} from ${people} where ${about} limit ${COUNTED + 1})`,
  );
  if (n > COUNTED) return { all: null, holds: about };
  return { all: n, holds: sql`${people.id} in (select value from json_each(${ids}))` };
}

/** Whether what is asked for stands in fields of profiles, alone or among others. */
function holdsValues(db: Reader, where: string): SQL | undefined {
  const { fields } = profileDesignOf(db);
  return and(
    ...[...new URLSearchParams(where)].map(([key, value]) =>
      fields.some((field) => field.key === key)
        ? sql`exists (select 1 from json_each(${people.profile}, ${`$."${key}"`}) as held where case held.type
            when 'true' then 'true' when 'false' then 'false' else cast(held.value as text) end = ${value})`
        : undefined,
    ),
  );
}

/** Those who are in a group. */
const isIn = (db: Reader, group: string): Counted => ({
  holds: sql`exists (select 1 from ${memberships} where ${memberships.personId} = ${people.id} and ${memberships.groupKey} = ${group})`,
  all: db.select({ n: groups.members }).from(groups).where(eq(groups.key, group)).get()?.n ?? 0,
});

/** What is looked for besides words and a group. */
const lookedFor = (db: Reader, { kind, state, where }: Looking): SQL =>
  and(
    isNull(people.mergedInto),
    isNull(people.removedAt),
    kind && eq(people.kind, kind),
    where ? holdsValues(db, where) : undefined,
    state === 'active' ? eq(people.active, true) : undefined,
    state === 'inactive' ? eq(people.active, false) : undefined,
    state === 'not-invited'
      ? and(eq(people.kind, 'staff'), eq(people.active, true), isNull(people.invitedAt), sql`not ${signsIn}`)
      : undefined,
  ) as SQL;

export interface Listed extends PersonRow {
  readonly signsIn: boolean;
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  readonly namesake: boolean;
}

/** What a list needs of people besides their rows, asked once for all of them. */
export function withGroups(db: Reader, rows: readonly PersonRow[]): readonly Listed[] {
  const ids = rows.map(({ id }) => id);
  const inside = db
    .select({ person: memberships.personId, key: groups.key, name: groups.name })
    .from(memberships)
    .innerJoin(groups, eq(groups.key, memberships.groupKey))
    .where(inList(memberships.personId, ids))
    .orderBy(asc(groups.name))
    .all();
  const signing = new Set(
    db
      .select({ id: account.userId })
      .from(account)
      .where(inList(account.userId, ids))
      .all()
      .map(({ id }) => id),
  );
  const names = rows.map(({ name }) => name);
  const twice = new Set(
    db
      .select({ name: people.name })
      .from(people)
      .where(inList(people.name, names))
      .groupBy(people.name)
      .having(gt(count(), 1))
      .all()
      .map(({ name }) => name),
  );
  const groupsOf = new Map<string, { readonly key: string; readonly name: string }[]>(ids.map((id) => [id, []]));
  for (const { person, key, name } of inside) groupsOf.get(person)?.push({ key, name });
  return rows.map((row) => ({
    ...row,
    signsIn: signing.has(row.id),
    groups: groupsOf.get(row.id) ?? [],
    namesake: twice.has(row.name),
  }));
}

export const PEOPLE_AT_ONCE = 100;

/** A place in a list: what it is sorted by there, and who stands there. */
export interface Place {
  readonly by: string | number;
  readonly id: string;
}

/** What a list is sorted by; who has nothing there comes last. */
function sortedBy(db: Reader, sort: string | undefined): { readonly by: SQL; readonly isFalling: boolean } {
  if (sort === 'newest') return { by: sql`${people.id}`, isFalling: true };
  if (sort === 'email') return { by: sql`${people.email}`, isFalling: false };
  const field = profileDesignOf(db).fields.find(({ key }) => key === sort);
  if (!field) return { by: sql`${people.name}`, isFalling: false };
  const stands = heldIn(people.profile, field);
  if (field.type.kind === 'choice') {
    // In the order of the options; what was said in other words comes behind them.
    const cases = field.type.options.map(({ key }, place) => sql`when ${key} then ${place}`);
    if (cases.length > 0)
      return {
        by: sql`coalesce(case ${stands} ${sql.join(cases, sql` `)} else ${stands} end, ${LAST})`,
        isFalling: false,
      };
  }
  return {
    by: sql`coalesce(case typeof(${stands}) when 'text' then lower(${stands}) else ${stands} end, ${LAST})`,
    isFalling: false,
  };
}

/** Stands behind everything that is written. */
const LAST = '\u{10ffff}';

/** The records of some people, in the order in which they are named. */
function peopleInOrder(db: Reader, named: readonly { readonly id: string }[]): readonly PersonRow[] {
  const found = new Map(
    db
      .select()
      .from(people)
      .where(
        inList(
          people.id,
          named.map(({ id }) => id),
        ),
      )
      .all()
      .map((row) => [row.id, row]),
  );
  return named.flatMap(({ id }) => found.get(id) ?? []);
}

/**
 * How many of some people another condition holds for: all of them but those for whom it does not, as these are fewer.
 * Null where all of them are too many to be counted.
 */
function countOf(db: Reader, of: Counted | null, also: SQL): number | null {
  const countWhere = (condition: SQL | undefined): number =>
    db.select({ n: count() }).from(people).where(condition).get()?.n ?? 0;
  if (!of) return countWhere(also);
  return of.all === null ? null : of.all - countWhere(and(sql`(${also}) is not true`, of.holds));
}

/** People in their order as far as they are looked for, from a place on; and how many they are in all, where they are counted. */
export function listPeople(
  db: Reader,
  looking: Looking,
  after: Place | null,
  most = PEOPLE_AT_ONCE,
): { readonly people: readonly Listed[]; readonly total: number | null; readonly next: Place | null } {
  const sought = soughtBy(db, looking.find);
  const inGroup = looking.group === undefined ? null : isIn(db, looking.group);
  const of = sought ?? inGroup;
  const also = and(lookedFor(db, looking), sought ? inGroup?.holds : undefined) as SQL;
  const { by, isFalling } = sortedBy(db, looking.sort);
  const from =
    after &&
    (isFalling
      ? sql`(${by}, ${people.id}) < (${after.by}, ${after.id})`
      : sql`(${by}, ${people.id}) > (${after.by}, ${after.id})`);
  const rows = db
    .select({ id: people.id, by })
    .from(people)
    .where(and(also, of?.holds, from ?? undefined))
    .orderBy(...(isFalling ? [desc(by), desc(people.id)] : [asc(by), asc(people.id)]))
    .limit(most + 1)
    .all();
  const shown = rows.slice(0, most);
  const last = shown.at(-1);
  return {
    people: withGroups(db, peopleInOrder(db, shown)),
    total: countOf(db, of, also),
    next: rows.length > most && last ? { by: last.by as string, id: last.id } : null,
  };
}

/** Active staff by part of a name or an address, so many at most, each with their portrait: to choose one of. */
export const staffFound = (db: Reader, find: string | undefined, most: number): readonly Found[] =>
  peopleFound(db, { kind: 'staff', find }, most);

type Found = Listed & { readonly portrait: string | null };

/** The same of contacts as well, where no kind is said. */
export function peopleFound(
  db: Reader,
  { kind, find }: Pick<Looking, 'kind' | 'find'>,
  most: number,
): readonly Found[] {
  const found = listPeople(db, { kind, state: 'active', find }, null, most).people;
  const portraits = pictureVersions(
    db,
    found.map(({ id }) => id),
  );
  return found.map((person) => ({ ...person, portrait: portraits.get(person.id) ?? null }));
}

/** How many staff and contacts there are who are active. */
export function countsOfPeople(db: Reader): { readonly people: number; readonly contacts: number } {
  const counts = new Map(
    db
      .select({ kind: people.kind, n: count() })
      .from(people)
      .where(eq(people.active, true))
      .groupBy(people.kind)
      .all()
      .map(({ kind, n }) => [kind, n]),
  );
  return { people: counts.get('staff') ?? 0, contacts: counts.get('contact') ?? 0 };
}

/** Somebody with the groups they are in today, whether they can come in or not. */
interface InGroups extends Pick<PersonRow, 'name' | 'kind' | 'active'> {
  readonly personId: string;
  readonly groups: readonly string[];
}

/** All people, or some by their ids, by name, each with their groups. */
export const peopleInGroups = (db: Reader, ids: readonly string[] | null): readonly InGroups[] =>
  db
    .select({
      ...{ personId: people.id, name: people.name, kind: people.kind, active: people.active },
      groups: sql<string>`(select json_group_array(group_key) from memberships where person_id = ${people.id})`,
    })
    .from(people)
    .where(
      and(...[isNull(people.mergedInto), isNull(people.removedAt)], ids === null ? undefined : inList(people.id, ids)),
    )
    .orderBy(people.name, people.id)
    .all()
    .map(({ groups: keys, ...person }) => ({ ...person, groups: JSON.parse(keys) as string[] }));
