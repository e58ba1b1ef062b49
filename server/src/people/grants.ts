import {
  type Difference,
  type Grant,
  grantsAt,
  isRight,
  PACKAGES,
  type PackageName,
  packageOf,
  type RegisterRights,
  RIGHTS,
  type Right,
  rightInWords,
  rightsAt,
  type Viewer,
  wordOf,
} from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { and, count, eq, inArray, ne, or, type SQL, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { inList, listed } from '../platform/prepared.ts';
import { notAllowed, Problem } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { noteGround } from './history.ts';
import { type PersonRow, viewerIn } from './queries.ts';
import { EVERYONE } from './rights.ts';
import { outwardOf, settledDay } from './settle.ts';
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

/** Somebody with rights, at the desk and where it is otherwise. */
type Entitled = Pick<Viewer, 'rights' | 'otherwise'>;

/** Where rights are given: in one register, by its id, or at the desk. */
type Where = string | null;

/** What is given, at the desk or in a register: all of it, or to one subject, or of one right. */
export function grantsIn(db: Reader, where: Where, only: Partial<Grant> = {}): readonly Grant[] {
  const desk = deskGrants(db, only);
  if (where === null) return desk;
  const { subject = null, right = null } = only;
  return grantsAt(desk, registerRightsOf(db, where)).filter(
    (grant) => (subject === null || grant.subject === subject) && (right === null || grant.right === right),
  );
}

/** What is given to one subject itself, in the order in which rights are told. */
export function grantedTo(db: Reader, subject: string, where: Where = null): readonly Right[] {
  const rights = new Set(grantsIn(db, where, { subject }).map(({ right }) => right));
  return RIGHTS.filter((right) => rights.has(right));
}

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

/** Whose history a grant stands in. */
const aboutSubject = (subject: string): readonly ['everyone' | 'person' | 'group', string] => {
  if (subject === EVERYONE) return ['everyone', EVERYONE];
  return subject.startsWith('@') ? ['person', subject.slice(1)] : ['group', subject];
};

/** Rights that are given to a subject, and that are taken from them. */
interface Settled {
  readonly give?: readonly Right[];
  readonly take?: readonly Right[];
}

/**
 * Gives and takes rights of one subject, each with a line in its history; in a register as a difference from what the
 * desk gives, which ends where it makes none any more.
 *
 * @throws Problem 403 for who may not decide what people may do, 409 where nobody could any more.
 */
export function settleRights(
  work: Work,
  viewer: Pick<Viewer, 'rights'>,
  subject: string,
  { give = [], take = [] }: Settled,
  where: Where = null,
): void {
  const { tx } = work;
  const had = new Set<Right>(grantedTo(tx, subject, where));
  const given = give.filter((right) => !had.has(right));
  const taken = take.filter((right) => had.has(right) && !give.includes(right));
  if (given.length + taken.length === 0) return;
  if (!viewer.rights.includes('rights')) throw rightMissing(tx, 'rights');
  const said = (right: Right): { register?: string; was?: boolean } => {
    if (where === null) return {};
    const was = registerRightsOf(tx, where).differences.find(
      (each) => each.subject === subject && each.right === right,
    )?.given;
    return was === undefined ? { register: where } : { register: where, was };
  };
  const change = (kind: 'given' | 'taken', right: Right): void => {
    noteGround(work, ...aboutSubject(subject), { kind, right, ...said(right) });
    if (where === null) setGrant(tx, { subject, right }, kind === 'given');
    else setDifference(tx, where, { subject, right }, kind === 'given');
  };
  for (const right of given) change('given', right);
  for (const right of taken) change('taken', right);
  if (where === null && taken.includes('rights')) refuseNobodyLeft(tx);
}

function setGrant(tx: Transaction, grant: Grant, given: boolean): void {
  if (given) tx.insert(grants).values(grant).run();
  else
    tx.delete(grants)
      .where(and(eq(grants.subject, grant.subject), eq(grants.right, grant.right)))
      .run();
}

/** Says of a register whether it gives a right: written down where that is another than it would be without. */
function setDifference(tx: Transaction, register: string, { subject, right }: Grant, given: boolean): void {
  const { apart } = registerRightsOf(tx, register);
  const usual = !apart && grantedTo(tx, subject).includes(right);
  const here = { registerId: register, subject, right };
  tx.delete(registerGrants)
    .where(
      and(
        eq(registerGrants.registerId, register),
        eq(registerGrants.subject, subject),
        eq(registerGrants.right, right),
      ),
    )
    .run();
  if (usual !== given)
    tx.insert(registerGrants)
      .values({ ...here, given })
      .run();
}

/**
 * Lets a register stand apart from the desk, or no longer.
 *
 * @throws Problem 403 for who may not decide what people may do
 */
export function setApart(work: Work, viewer: Pick<Viewer, 'rights'>, register: string, on: boolean): void {
  const { tx } = work;
  if (registerRightsOf(tx, register).apart === on) return;
  if (!viewer.rights.includes('rights')) throw rightMissing(tx, 'rights');
  if (on) tx.insert(registersApart).values({ registerId: register }).run();
  else tx.delete(registersApart).where(eq(registersApart.registerId, register)).run();
  noteGround(work, 'register', register, { kind: 'apart', register, on });
}

/** A register is as the desk again, in all that it gave otherwise. @throws Problem 403 as `setApart` */
export function putBackRights(work: Work, viewer: Pick<Viewer, 'rights'>, register: string): void {
  const there = registerRightsOf(work.tx, register);
  if (!there.apart && there.differences.length === 0) return;
  if (!viewer.rights.includes('rights')) throw rightMissing(work.tx, 'rights');
  forget(work.tx, register);
  noteGround(work, 'register', register, { kind: 'put-back', ...there });
}

/** A register differs again, as it did when it was put back. @throws Problem 403 as `setApart` */
export function differAgain(work: Work, viewer: Pick<Viewer, 'rights'>, there: RegisterRights): void {
  const { tx } = work;
  const { register, apart, differences } = there;
  if (!viewer.rights.includes('rights')) throw rightMissing(tx, 'rights');
  forget(tx, register);
  if (apart) tx.insert(registersApart).values({ registerId: register }).run();
  for (const each of differences)
    tx.insert(registerGrants)
      .values({ registerId: register, ...each })
      .run();
  noteGround(work, 'register', register, { kind: 'differing', register, apart, differences });
}

function forget(tx: Transaction, register: string): void {
  tx.delete(registersApart).where(eq(registersApart.registerId, register)).run();
  tx.delete(registerGrants).where(eq(registerGrants.registerId, register)).run();
}

/** Takes all that is given to a subject themselves, at the desk and in every register. */
export function takeAllRights(work: Work, viewer: Pick<Viewer, 'rights'>, subject: string): void {
  for (const register of differingRegisters(work.tx).keys())
    settleRights(work, viewer, subject, { take: grantedHere(work.tx, subject, register) }, register);
  settleRights(work, viewer, subject, { take: RIGHTS });
}

/** What a register gives a subject that the desk does not. */
export function grantedHere(db: Reader, subject: string, register: string): readonly Right[] {
  const usual = new Set(grantedTo(db, subject));
  return grantedTo(db, subject, register).filter((right) => !usual.has(right));
}

/** Gives a person a package in the place of the one they had; other rights of theirs stay. */
export function givePackage(work: Work, viewer: Pick<Viewer, 'rights'>, personId: string, name: PackageName): void {
  const wanted: readonly Right[] = name === 'member' ? [] : PACKAGES[name];
  const had = packageGivenTo(work.tx, personId);
  const before: readonly Right[] = had === 'member' ? [] : PACKAGES[had];
  settleRights(work, viewer, wordOf({ person: personId }), {
    give: wanted,
    take: before.filter((right) => !wanted.includes(right)),
  });
}

/**
 * Letting somebody into a group gives them what is given to it, and to the groups that it is in: whoever
 * lets them in has all of that themselves, or may decide about rights.
 *
 * @throws Problem 403 for who would give more than they have.
 */
export function refuseRaising(tx: Reader, viewer: Entitled, group: string): void {
  if (viewer.rights.includes('rights')) return;
  const groups = outwardOf(tx, group);
  const gives = groups.flatMap((each) => grantedTo(tx, each));
  const isMore = [...differingRegisters(tx).keys()].some((register) =>
    groups.some((each) => grantedTo(tx, each, register).some((right) => !rightsAt(viewer, register).includes(right))),
  );
  if (isMore || gives.some((right) => !viewer.rights.includes(right))) throw rightMissing(tx, 'rights');
}

/** Whether somebody has rights that another lacks, at the desk or in a register. */
function hasMoreThan(db: Reader, person: PersonRow, viewer: Entitled): boolean {
  const theirs = viewerIn(db, person);
  const lacks = (has: readonly Right[], other: readonly Right[]): boolean =>
    has.some((right) => !other.includes(right));
  return (
    lacks(theirs.rights, viewer.rights) ||
    [...differingRegisters(db).keys()].some((register) => lacks(rightsAt(theirs, register), rightsAt(viewer, register)))
  );
}

/**
 * Whoever keeps somebody out, or signs them out, has all that they have, or may decide about rights.
 *
 * @throws Problem 403 for who may do less than they.
 */
export function refuseOver(db: Reader, person: PersonRow, viewer: Entitled): void {
  if (!viewer.rights.includes('rights') && hasMoreThan(db, person, viewer)) throw rightMissing(db, 'rights');
}

/** Names that are said of those who can give a right. */
const NAMED = 5;

/** Says which right is missing, and who can give it (needs D22). */
export function rightMissing(db: Reader, right: Right): Problem {
  const givers = holdersOfRight(db, 'rights').slice(0, NAMED);
  return notAllowed(refused('rightMissing', { right: rightInWords(right), people: givers.map(({ name }) => name) }));
}
