import {
  type GroundChange,
  PACKAGES,
  type PackageName,
  packageOf,
  RIGHTS,
  type Right,
  rightInWords,
  type Viewer,
  wordOf,
} from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { and, eq, inArray, ne, or, type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { notAllowed, Problem } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { noteGround } from './history.ts';
import { type PersonRow, viewerIn } from './queries.ts';
import { EVERYONE } from './rights.ts';
import { outwardOf } from './settle.ts';
import { grants, memberships, people } from './tables.ts';

/** What is given to one subject itself, in the order in which rights are told. */
export function grantedTo(db: Reader, subject: string): readonly Right[] {
  const rights = new Set<string>(
    db
      .select({ right: grants.right })
      .from(grants)
      .where(eq(grants.subject, subject))
      .all()
      .map(({ right }) => right),
  );
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
function holding(db: Reader, right: Right): SQL | undefined {
  const ofRight = eq(grants.right, right);
  const toAll = db
    .select({ subject: grants.subject })
    .from(grants)
    .where(and(ofRight, eq(grants.subject, EVERYONE)))
    .get();
  const byThemselves = db
    .select({ id: sql`substr(${grants.subject}, 2)` })
    .from(grants)
    .where(ofRight);
  const byGroups = db
    .select({ id: memberships.personId })
    .from(memberships)
    .innerJoin(grants, eq(grants.subject, memberships.groupKey))
    .where(ofRight);
  return and(
    eq(people.kind, 'staff'),
    eq(people.active, true),
    toAll ? undefined : or(inArray(people.id, byThemselves), inArray(people.id, byGroups)),
  );
}

/** Who has a right by now and could come in, by whichever way: staff who are active, by id. */
export const holdersOfRight = (db: Reader, right: Right): readonly { readonly id: string; readonly name: string }[] =>
  db.select({ id: people.id, name: people.name }).from(people).where(holding(db, right)).orderBy(people.name).all();

/** @throws Problem 409 when nobody but who leaves would be left who can give people rights. */
export function refuseNobodyLeft(db: Reader, leaver?: string): void {
  const others = leaver === undefined ? undefined : ne(people.id, leaver);
  const left = db
    .select({ id: people.id })
    .from(people)
    .where(and(holding(db, 'rights'), others))
    .limit(1);
  if (!left.get()) throw new Problem(409, 'last-administrator', refused('lastAdministrator'));
}

/** Whose history a grant stands in. */
const aboutSubject = (subject: string): readonly ['everyone' | 'person' | 'group', string] => {
  if (subject === EVERYONE) return ['everyone', EVERYONE];
  return subject.startsWith('@') ? ['person', subject.slice(1)] : ['group', subject];
};

/**
 * Gives and takes rights of one subject, each with a line in its history.
 *
 * @throws Problem 403 for who may not decide what people may do, 409 where nobody could any more.
 */
export function settleRights(
  work: Work,
  viewer: Pick<Viewer, 'rights'>,
  subject: string,
  { give = [], take = [] }: { readonly give?: readonly Right[]; readonly take?: readonly Right[] },
): void {
  const { tx } = work;
  const had = new Set<Right>(grantedTo(tx, subject));
  const given = give.filter((right) => !had.has(right));
  const taken = take.filter((right) => had.has(right) && !give.includes(right));
  if (given.length + taken.length === 0) return;
  if (!viewer.rights.includes('rights')) throw rightMissing(tx, 'rights');
  const note = (change: GroundChange): void => noteGround(work, ...aboutSubject(subject), change);
  for (const right of given) {
    tx.insert(grants).values({ subject, right }).run();
    note({ kind: 'given', right });
  }
  for (const right of taken) {
    tx.delete(grants)
      .where(and(eq(grants.subject, subject), eq(grants.right, right)))
      .run();
    note({ kind: 'taken', right });
  }
  if (taken.includes('rights')) refuseNobodyLeft(tx);
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
export function refuseRaising(tx: Reader, viewer: Pick<Viewer, 'rights'>, group: string): void {
  if (viewer.rights.includes('rights')) return;
  const gives = outwardOf(tx, group).flatMap((each) => grantedTo(tx, each));
  if (gives.some((right) => !viewer.rights.includes(right))) throw rightMissing(tx, 'rights');
}

/** Whether somebody has rights that another lacks. */
const hasMoreThan = (db: Reader, person: PersonRow, { rights }: Pick<Viewer, 'rights'>): boolean =>
  viewerIn(db, person).rights.some((right) => !rights.includes(right));

/**
 * Whoever keeps somebody out, or signs them out, has all that they have, or may decide about rights.
 *
 * @throws Problem 403 for who may do less than they.
 */
export function refuseOver(db: Reader, person: PersonRow, viewer: Pick<Viewer, 'rights'>): void {
  if (!viewer.rights.includes('rights') && hasMoreThan(db, person, viewer)) throw rightMissing(db, 'rights');
}

/** Names that are said of those who can give a right. */
const NAMED = 5;

/** Says which right is missing, and who can give it (needs D22). */
export function rightMissing(db: Reader, right: Right): Problem {
  const givers = holdersOfRight(db, 'rights').slice(0, NAMED);
  return notAllowed(refused('rightMissing', { right: rightInWords(right), people: givers.map(({ name }) => name) }));
}
