import {
  type Grant,
  PACKAGES,
  type PackageName,
  type RegisterRights,
  RIGHTS,
  type Right,
  rightInWords,
  rightsAt,
  type Viewer,
  wordOf,
} from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { and, eq } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { notAllowed, type Problem } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import {
  differingRegisters,
  grantedTo,
  holdersOfRight,
  packageGivenTo,
  refuseNobodyLeft,
  registerRightsOf,
  type Where,
} from './given.ts';
import { noteGround } from './history.ts';
import { type PersonRow, viewerIn } from './queries.ts';
import { EVERYONE } from './rights.ts';
import { outwardOf } from './settle.ts';
import { grants, registerGrants, registersApart } from './tables.ts';

/** Somebody with rights, at the desk and where it is otherwise. */
type Entitled = Pick<Viewer, 'rights' | 'otherwise'>;

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
  settleRights(work, viewer, subject, { take: RIGHTS });
  // What is left to them in a register is what that gave itself.
  for (const register of differingRegisters(work.tx).keys())
    settleRights(work, viewer, subject, { take: grantedTo(work.tx, subject, register) }, register);
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
