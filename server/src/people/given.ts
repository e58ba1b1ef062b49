import {
  type Difference,
  type Grant,
  grantsAt,
  isRight,
  type PackageName,
  packageOf,
  type RegisterRights,
  RIGHTS,
  type Right,
  wordOf,
} from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { and, count, eq, inArray, ne, or, type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { inList, listed } from '../platform/prepared.ts';
import { Problem } from '../platform/problem.ts';
import { EVERYONE } from './rights.ts';
import { settledDay } from './settle.ts';
import { grants, memberships, people, registerGrants, registersApart } from './tables.ts';

/** What is given as the desk’s defaults: all of it, or to one subject, or of one right. */
const deskGrants = (db: Reader, { subject, right }: Partial<Grant>): readonly Grant[] =>
  db
    .select()
    .from(grants)
    .where(
      and(
        subject === undefined ? undefined : eq(grants.subject, subject),
        right === undefined ? undefined : eq(grants.right, right),
      ),
    )
    .all()
    .filter((grant): grant is Grant => isRight(grant.right));

/** How each register that differs from the desk does so, by its id. */
export function differingRegisters(db: Reader): ReadonlyMap<string, RegisterRights> {
  const found = new Map<string, { register: string; apart: boolean; differences: Difference[] }>();
  const of = (register: string) => {
    const known = found.get(register) ?? { register, apart: false, differences: [] };
    found.set(register, known);
    return known;
  };
  for (const { registerId } of db.select().from(registersApart).all()) of(registerId).apart = true;
  for (const { registerId, subject, right, given } of db.select().from(registerGrants).all())
    if (isRight(right)) of(registerId).differences.push({ subject, right, given });
  return found;
}

/** How a register differs from the desk; nothing where it does not. */
export const registerRightsOf = (db: Reader, register: string): RegisterRights =>
  differingRegisters(db).get(register) ?? { register, apart: false, differences: [] };

/** Where rights are given: in one register, by its id, or at the desk. */
export type Where = string | null;

/** What is given, at the desk or in a register: all of it, or to one subject, or of one right. */
export function grantsIn(db: Reader, where: Where, only: Partial<Grant> = {}): readonly Grant[] {
  const desk = deskGrants(db, only);
  if (where === null) return desk;
  const { subject = null, right = null } = only;
  return grantsAt(desk, registerRightsOf(db, where)).filter(
    (grant) => (subject === null || grant.subject === subject) && (right === null || grant.right === right),
  );
}

/** What of some grants is given to a subject, in the order in which rights are told. */
export const givenTo = (given: readonly Grant[], subject: string): Right[] =>
  RIGHTS.filter((right) => given.some((grant) => grant.subject === subject && grant.right === right));

/** What is given to one subject itself, in the order in which rights are told. */
export const grantedTo = (db: Reader, subject: string, where: Where = null): readonly Right[] =>
  givenTo(grantsIn(db, where, { subject }), subject);

/** The packages that are given to people themselves, asked once for all of them. */
export function packagesGivenTo(db: Reader, personIds: readonly string[]): (id: string) => PackageName {
  const given = new Map<string, string[]>();
  const subjects = personIds.map((person) => wordOf({ person }));
  for (const { subject, right } of db.select().from(grants).where(inArray(grants.subject, subjects)).all())
    given.set(subject, [...(given.get(subject) ?? []), right]);
  return (person) => packageOf(given.get(wordOf({ person })) ?? []);
}

/** The package that is given to a person themselves. */
export const packageGivenTo = (db: Reader, personId: string): PackageName =>
  packageOf(grantedTo(db, wordOf({ person: personId })));

/** The staff who are active and have a right, by whichever way: found from what is given, as most have nothing. */
function holding(db: Reader, right: Right, where: Where): SQL | undefined {
  const subjects = grantsIn(db, where, { right }).map(({ subject }) => subject);
  const persons = subjects.flatMap((subject) => (subject.startsWith('@') ? [subject.slice(1)] : []));
  const byGroups = db
    .select({ id: memberships.personId })
    .from(memberships)
    .where(inList(memberships.groupKey, subjects));
  return and(
    eq(people.kind, 'staff'),
    eq(people.active, true),
    subjects.includes(EVERYONE) ? undefined : or(inList(people.id, persons), inArray(people.id, byGroups)),
  );
}

/** Who has a right by now and could come in, by whichever way: staff who are active, by id. */
export const holdersOfRight = (
  db: Reader,
  right: Right,
  where: Where = null,
): readonly { readonly id: string; readonly name: string }[] =>
  db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(holding(db, right, where))
    .orderBy(people.name)
    .all();

/** How many have a right by now and could come in. */
export const countHolders = (db: Reader, right: Right, where: Where): number =>
  db
    .select({ n: count() })
    .from(people)
    .where(holding(db, right, where))
    .get()?.n ?? 0;

/** The groups that are in some groups for good, by whatever way, and those themselves: as a part of a query. */
const groupsWithin = (groups: readonly string[], day: string): SQL => sql`with recursive within(key) as (
  select value from json_each(${listed(groups)})
  union select entry.member_group from group_entries entry join within on entry.group_key = within.key
  where entry.member_group is not null and ${forGood(day)}
) select key from within`;

/** That an entry holds and has no last day. */
const forGood = (day: string): SQL =>
  sql`entry.until_day is null and (entry.from_day is null or entry.from_day <= ${day})`;

/**
 * Whoever can give people rights, whatever day comes: a membership that ends leaves nobody on the day after it.
 *
 * @throws Problem 409 when nobody but who leaves would be left.
 */
export function refuseNobodyLeft(db: Reader, leaver?: string): void {
  const subjects = grantsIn(db, null, { right: 'rights' }).map(({ subject }) => subject);
  const persons = subjects.flatMap((subject) => (subject.startsWith('@') ? [subject.slice(1)] : []));
  const day = settledDay(db) ?? '';
  const byGroups = sql`${people.id} in (select entry.person_id from group_entries entry
    where entry.person_id is not null and ${forGood(day)} and entry.group_key in (${groupsWithin(subjects, day)}))`;
  const left = db
    .select({ id: people.id })
    .from(people)
    .where(
      and(
        eq(people.kind, 'staff'),
        eq(people.active, true),
        leaver === undefined ? undefined : ne(people.id, leaver),
        subjects.includes(EVERYONE) ? undefined : or(inList(people.id, persons), byGroups),
      ),
    )
    .limit(1);
  if (!left.get()) throw new Problem(409, 'last-administrator', refused('lastAdministrator'));
}
