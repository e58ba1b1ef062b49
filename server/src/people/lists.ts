import type { Viewer } from '@tolvek/core/people';
import { storedForm } from '@tolvek/core/register';
import { and, asc, count, desc, eq, gt, inArray, isNull, type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { pictureVersions } from '../platform/pictures.ts';
import { inList } from '../platform/prepared.ts';
import { account } from '../platform/tables.ts';
import { profileDesignOf } from '../settings/queries.ts';
import type { PersonRow } from './queries.ts';
import { addresses, groups, memberships, people } from './tables.ts';

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

/** Signs that `like` reads as anything, made plain. */
const plainly = (text: string): string => text.replace(/[\\%_]/g, (sign) => `\\${sign}`);
const isLike = (column: SQL | typeof people.name, text: string): SQL =>
  sql`${column} like ${`%${plainly(text)}%`} escape '\\'`;

/** Whether somebody has a password, or has signed in by a provider. */
const signsIn = sql`exists (select 1 from ${account} where ${account.userId} = ${people.id})`;

/** The groups in whose names a word stands. */
const groupsNamed = (db: Reader, word: string): readonly string[] =>
  db
    .select({ key: groups.key })
    .from(groups)
    .where(isLike(sql`${groups.name}`, word))
    .all()
    .map(({ key }) => key);

/**
 * Whoever a word is about, by their name, an address or a group: each looked through once for all people,
 * as a look for each of them would take twenty times as long.
 */
function aboutWord(db: Reader, word: string): SQL {
  const named = groupsNamed(db, word);
  const byAddress = sql`select ${addresses.personId} from ${addresses} where ${isLike(sql`${addresses.address}`, word.toLowerCase())}`;
  const byGroup = sql`select ${memberships.personId} from ${memberships} where ${inList(memberships.groupKey, named)}`;
  return sql`(${isLike(people.name, word)} or ${people.id} in (${byAddress})${named.length > 0 ? sql` or ${people.id} in (${byGroup})` : sql``})`;
}

/** So few people are looked at one by one. */
const FEW = 2_000;

/**
 * The people whom a word is about, where they are few. Names and addresses are gone through by what their indexes hold,
 * and nobody’s record is read for it.
 */
function fewAbout(db: Reader, word: string): readonly string[] | null {
  const named = db
    .select({ id: people.id })
    .from(people)
    .where(isLike(people.name, word))
    .limit(FEW + 1)
    .all();
  if (named.length > FEW) return null;
  const written = db
    .select({ id: addresses.personId })
    .from(addresses)
    .where(isLike(sql`${addresses.address}`, word.toLowerCase()))
    .limit(FEW + 1)
    .all();
  if (written.length > FEW) return null;
  const inGroups = db
    .select({ id: memberships.personId })
    .from(memberships)
    .where(inList(memberships.groupKey, groupsNamed(db, word)))
    .limit(FEW + 1)
    .all();
  if (inGroups.length > FEW) return null;
  return [...new Set([...named, ...written, ...inGroups].map(({ id }) => id))];
}

/** The condition of those whom all of some words are about. */
function aboutWords(db: Reader, words: readonly string[]): SQL | undefined {
  let few: readonly string[] | null = null;
  const others = [...words];
  // The longest fits fewest, most often.
  for (const word of words.toSorted((a, b) => b.length - a.length)) {
    few = fewAbout(db, word);
    if (!few) continue;
    others.splice(others.indexOf(word), 1);
    break;
  }
  return and(few ? inList(people.id, few) : undefined, ...others.map((word) => aboutWord(db, word)));
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

/** The condition of those who are looked for. */
function lookedFor(db: Reader, { kind, find, group, state, where }: Looking): SQL | undefined {
  const words = (find ?? '').trim().split(/\s+/).filter(Boolean).slice(0, 6);
  return and(
    isNull(people.mergedInto),
    isNull(people.removedAt),
    kind && eq(people.kind, kind),
    where ? holdsValues(db, where) : undefined,
    group === undefined
      ? undefined
      : sql`exists (select 1 from ${memberships} where ${memberships.personId} = ${people.id} and ${memberships.groupKey} = ${group})`,
    state === 'active' ? eq(people.active, true) : undefined,
    state === 'inactive' ? eq(people.active, false) : undefined,
    state === 'not-invited'
      ? and(eq(people.kind, 'staff'), eq(people.active, true), isNull(people.invitedAt), sql`not ${signsIn}`)
      : undefined,
    aboutWords(db, words),
  );
}

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
    .where(inArray(memberships.personId, ids))
    .orderBy(asc(groups.name))
    .all();
  const signing = new Set(
    db
      .select({ id: account.userId })
      .from(account)
      .where(inArray(account.userId, ids))
      .all()
      .map(({ id }) => id),
  );
  const names = rows.map(({ name }) => name);
  const twice = new Set(
    db
      .select({ name: people.name })
      .from(people)
      .where(inArray(people.name, names))
      .groupBy(people.name)
      .having(gt(count(), 1))
      .all()
      .map(({ name }) => name),
  );
  return rows.map((row) => ({
    ...row,
    signsIn: signing.has(row.id),
    groups: inside.flatMap(({ person, key, name }) => (person === row.id ? [{ key, name }] : [])),
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
  const { part } = storedForm(field);
  const stands = sql`json_extract(${people.profile}, ${`$."${field.key}"${part ? `.${part}` : ''}`})`;
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
        inArray(
          people.id,
          named.map(({ id }) => id),
        ),
      )
      .all()
      .map((row) => [row.id, row]),
  );
  return named.flatMap(({ id }) => found.get(id) ?? []);
}

/** People in their order as far as they are looked for, from a place on; and how many they are in all. */
export function listPeople(
  db: Reader,
  looking: Looking,
  after: Place | null,
): { readonly people: readonly Listed[]; readonly total: number; readonly next: Place | null } {
  const wanted = lookedFor(db, looking);
  const { by, isFalling } = sortedBy(db, looking.sort);
  const from =
    after &&
    (isFalling
      ? sql`(${by}, ${people.id}) < (${after.by}, ${after.id})`
      : sql`(${by}, ${people.id}) > (${after.by}, ${after.id})`);
  // Who is looked for by words may be any of all: they are gone through once, for how many they are and who stands
  // first. Else those that stand first are found by an index.
  const isOnce = !from && (looking.find ?? '').trim() !== '';
  const rows = db
    .select({ id: people.id, by, total: isOnce ? sql<number>`count(*) over ()` : sql<number>`0` })
    .from(people)
    .where(and(wanted, from ?? undefined))
    .orderBy(...(isFalling ? [desc(by), desc(people.id)] : [asc(by), asc(people.id)]))
    .limit(PEOPLE_AT_ONCE + 1)
    .all();
  const total = isOnce ? (rows[0]?.total ?? 0) : (db.select({ n: count() }).from(people).where(wanted).get()?.n ?? 0);
  const shown = rows.slice(0, PEOPLE_AT_ONCE);
  const last = shown.at(-1);
  return {
    people: withGroups(db, peopleInOrder(db, shown)),
    total,
    next: rows.length > PEOPLE_AT_ONCE && last ? { by: last.by as string, id: last.id } : null,
  };
}

/** Active staff by part of a name or an address, so many at most, each with their portrait: to choose one of. */
export function staffFound(
  db: Reader,
  find: string | undefined,
  most: number,
): readonly (Listed & { readonly portrait: string | null })[] {
  const found = listPeople(db, { kind: 'staff', state: 'active', find }, null).people.slice(0, most);
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
