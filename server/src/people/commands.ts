import { isSame, own } from '@tolvek/core/own';
import { type GroundField, type PackageName, type Viewer, wordOf } from '@tolvek/core/people';
import { type Problem as FieldProblem, type FieldValue, isMailAddress } from '@tolvek/core/register';
import { profileAfter } from '@tolvek/core/settings';
import { refused, said } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { and, eq, inArray, ne, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { putPicture } from '../platform/pictures.ts';
import { notFound, Problem, staleVersion, wrongFields } from '../platform/problem.ts';
import { user } from '../platform/tables.ts';
import { type Work, write } from '../platform/work.ts';
import { endSessionsOf, hashOfPassword, openAccount, setPassword } from './accounts.ts';
import { holdersOfRight, packageGivenTo, refuseNobodyLeft } from './given.ts';
import { givePackage, refuseOver, rightMissing } from './grants.ts';
import { enterGroup, leaveGroup, makeGroup } from './groups.ts';
import { noteChanged, noteGround } from './history.ts';
import { keptOf, refuseKept } from './kept.ts';
import { type PersonRow, personByEmail, personById } from './queries.ts';
import { beginDay, settleRules } from './rules.ts';
import { settleStandIns, todayAt } from './settle.ts';
import { settleSought, soughtAs } from './sought.ts';
import { addresses, grants, groupEntries, type groups, people, registerGrants } from './tables.ts';

/** What is set in a profile by the keys of its fields; null empties one. */
export type ProfileChanges = Readonly<Record<string, FieldValue | null>>;

export interface NewPerson {
  readonly name: string;
  readonly email: string;
  readonly kind: 'staff' | 'contact';
  readonly does?: string;
  readonly active?: boolean;
  readonly language?: Language | null;
  readonly profile?: ProfileChanges;
}

/** Sets what somebody reads pages and emails in. */
export function setLanguage(house: House, personId: string, language: Language): void {
  write(house, ({ tx }) => void tx.update(people).set({ language }).where(eq(people.id, personId)).run());
}

const wrongAddress = (field: string): FieldProblem => ({
  field,
  message: said('start:badAddress'),
  fix: said('start:likeAddress'),
});

/** @throws Problem 422 when a name is empty, or an address is none or finds somebody already. */
export function refuseWrong(
  tx: Reader,
  { name, email }: { name?: string; email?: string },
  isOwn: (id: string) => boolean,
) {
  const holder = email === undefined ? undefined : personByEmail(tx, email.trim());
  const problems: FieldProblem[] = [
    ...(name === undefined || name.trim() !== ''
      ? []
      : [{ field: 'name', message: said('start:noName'), fix: said('start:writeName') }]),
    ...(email === undefined || isMailAddress(email.trim()) ? [] : [wrongAddress('email')]),
    ...(holder && !isOwn(holder.id)
      ? [
          {
            field: 'email',
            message: said('start:addressTaken', { name: holder.name }),
            fix: said('start:otherAddress'),
          },
        ]
      : []),
  ];
  if (problems.length > 0) throw wrongFields(problems);
}

/**
 * Adds somebody, with an account where they are staff; nobody is written to. Returns their row.
 *
 * @throws Problem 422 when the name is empty, or the address is none or finds somebody already.
 */
export function addPerson(work: Work, { name, email, profile = {}, ...person }: NewPerson): PersonRow {
  const { tx } = work;
  const address = email.trim().toLowerCase();
  refuseWrong(tx, { name, email: address }, () => false);
  const id = newId();
  const row = tx
    .insert(people)
    .values({
      ...{ ...person, id, name: name.trim(), email: address, sought: soughtAs(name.trim(), [address]) },
      profile: profileAfter({}, { values: profile }),
    })
    .returning()
    .get();
  tx.insert(addresses).values({ address, personId: id }).run();
  if (row.kind === 'staff') openAccount(tx, row);
  noteGround(work, 'person', id, { kind: 'added' });
  settleRules(work, [id]);
  return row;
}

export interface PersonChanges {
  readonly name?: string;
  readonly email?: string;
  /** The package of rights that they have themselves. */
  readonly role?: PackageName;
  readonly language?: Language | null;
  readonly active?: boolean;
  readonly profile?: ProfileChanges;
}

/**
 * Changes who somebody is, whether they may come in and what they may do; what changes is written
 * down, one by one. Who is no longer active, or goes by another address, is signed out. Returns the
 * next version.
 *
 * @throws Problem 403 for who may not decide about rights, 409 where nobody could any more, 412 when somebody was faster, 422 when the name is empty or the address is none or taken.
 */
export function changePerson(
  work: Work,
  viewer: Viewer,
  { id, version, changes }: { readonly id: string; readonly version: number; readonly changes: PersonChanges },
): number {
  const { tx, now } = work;
  const person = personById(tx, id);
  if (!person || person.mergedInto !== null || person.removedAt !== null) throw notFound('person');
  if (person.version !== version) throw staleVersion();
  const wanted = {
    ...changes,
    ...(changes.name === undefined ? {} : { name: changes.name.trim() }),
    ...(changes.email === undefined ? {} : { email: changes.email.trim().toLowerCase() }),
  };
  refuseWrong(tx, wanted, (holder) => holder === id);
  const { role, profile = {}, ...settings } = wanted;
  const changed = (Object.keys(settings) as (keyof typeof settings & GroundField)[]).filter(
    (field) => settings[field] !== undefined && settings[field] !== person[field],
  );
  const raises = role !== undefined && role !== packageGivenTo(tx, id);
  const knew = (key: string): FieldValue | null => own(person.profile, key) ?? null;
  const learnt = Object.keys(profile).filter((key) => !isSame(profile[key] ?? null, knew(key)));
  if (changed.length === 0 && learnt.length === 0 && !raises) return version;
  const givesRights = holdersOfRight(tx, 'rights').some((holder) => holder.id === id);
  const kept = keptOf(tx, person);
  if ([...changed, ...learnt.map((key) => `profile.${key}`)].some((each) => kept.has(each))) refuseKept(work, person);
  const keepsOut = changed.includes('active') || changed.includes('email');
  // Whoever goes by another address comes in by it: nobody becomes somebody who may do more than they.
  if (raises && !viewer.rights.includes('rights')) throw rightMissing(tx, 'rights');
  if (keepsOut) refuseOver(tx, person, viewer);
  if (raises && person.kind === 'contact') throw new Problem(409, 'contact-role', refused('contactRole'));
  const fields = Object.fromEntries(changed.map((field) => [field, settings[field]]));
  const after = {
    ...{ ...person, ...fields, version: version + 1 },
    profile: profileAfter(person.profile, { values: profile }),
  };
  tx.update(people)
    .set({ ...after, leftAt: after.active ? null : (person.leftAt ?? now) })
    .where(eq(people.id, id))
    .run();
  if (after.email !== person.email)
    tx.insert(addresses).values({ address: after.email, personId: id }).onConflictDoNothing().run();
  if (after.email !== person.email || after.name !== person.name) settleSought(tx, id);
  if (person.kind === 'staff') openAccount(tx, after);
  if (!after.active || after.email !== person.email) endSessionsOf(tx, id);
  for (const field of changed) noteChanged(work, 'person', id, field, person[field], after[field]);
  for (const field of learnt)
    noteGround(work, 'person', id, { kind: 'profile', field, before: knew(field), after: profile[field] ?? null });
  if (raises) givePackage(work, viewer, id, role);
  if (changed.includes('active')) settleStandIns(tx, todayAt(tx, now));
  if (learnt.length > 0) settleRules(work, [id]);
  if (givesRights && !after.active) refuseNobodyLeft(tx);
  return version + 1;
}

/**
 * Takes somebody back as if they had never come: they stand in no list, no address finds them, and nobody signs in
 * as them. Only their name stays, for what may name it.
 */
export function removePerson(work: Work, id: string): void {
  const { tx, now } = work;
  const byHand = and(eq(groupEntries.personId, id), ne(groupEntries.source, 'rule'));
  for (const entry of tx.select().from(groupEntries).where(byHand).all()) leaveGroup(work, entry.groupKey, entry.id);
  tx.delete(grants)
    .where(eq(grants.subject, wordOf({ person: id })))
    .run();
  tx.delete(registerGrants)
    .where(eq(registerGrants.subject, wordOf({ person: id })))
    .run();
  tx.delete(addresses).where(eq(addresses.personId, id)).run();
  tx.delete(user).where(eq(user.id, id)).run();
  putPicture(tx, id, null);
  tx.update(people)
    .set({ active: false, removedAt: now, email: `${id}@removed.invalid`, version: sql`${people.version} + 1` })
    .where(eq(people.id, id))
    .run();
  settleSought(tx, id);
  settleRules(work, [id]);
  noteChanged(work, 'person', id, 'active', true, false);
  noteGround(work, 'person', id, { kind: 'removed' });
}

/**
 * Adds groups and people at once, staff with one password for all of them; for demos and tests.
 * Returns the people’s ids by address.
 */
export async function addPeople(
  house: House,
  newGroups: readonly Pick<typeof groups.$inferInsert, 'key' | 'name' | 'isTeam'>[],
  newPeople: readonly (NewPerson & { readonly groups: readonly string[]; readonly role: PackageName })[],
  password: string,
): Promise<ReadonlyMap<string, string>> {
  const hash = await hashOfPassword(password);
  return write(house, (work) => {
    beginDay(work);
    for (const group of newGroups) makeGroup(work, { name: group.name, isTeam: group.isTeam ?? false, key: group.key });
    const ids = new Map<string, string>();
    for (const { groups: memberOf, role, ...person } of newPeople) {
      const { id } = addPerson(work, person);
      ids.set(person.email, id);
      for (const group of memberOf) enterGroup(work, { group, member: { person: id }, from: null, until: null });
      if (person.kind === 'staff') setPassword(work.tx, id, hash);
      givePackage(work, { rights: ['rights'] }, id, role);
    }
    return ids;
  });
}

/** Marks people of the staff as invited; returns those who were, without who is inactive or has a password. */
export function markInvited(work: Work, ids: readonly string[]): readonly PersonRow[] {
  const { tx, now } = work;
  const asked = tx
    .select({ person: people })
    .from(people)
    .innerJoin(user, eq(user.id, people.id))
    .where(and(inArray(people.id, [...ids]), eq(people.active, true), eq(people.kind, 'staff')))
    .all()
    .map(({ person }) => person);
  for (const { id } of asked) {
    tx.update(people).set({ invitedAt: now }).where(eq(people.id, id)).run();
    noteGround(work, 'person', id, { kind: 'invited' });
  }
  return asked;
}
