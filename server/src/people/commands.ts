import type { Language } from '@tolvek/words/speech';
import { hashPassword } from 'better-auth/crypto';
import { eq } from 'drizzle-orm';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { account, user } from '../platform/tables.ts';
import { write } from '../platform/work.ts';
import { groups, memberships, people } from './tables.ts';

export interface NewPerson {
  readonly name: string;
  readonly email: string;
  readonly kind: 'staff' | 'contact';
  readonly role: 'administrator' | 'coordinator' | 'member';
  readonly groups: readonly string[];
  readonly does: string;
  readonly active: boolean;
}

/** Sets what somebody reads pages and emails in. */
export function setLanguage(house: House, personId: string, language: Language): void {
  write(house, ({ tx }) => void tx.update(people).set({ language }).where(eq(people.id, personId)).run());
}

/**
 * Adds groups and people; staff get an account with the given password. Returns the people's ids by
 * address.
 */
export async function addPeople(
  house: House,
  newGroups: readonly (typeof groups.$inferInsert)[],
  newPeople: readonly NewPerson[],
  password: string,
): Promise<ReadonlyMap<string, string>> {
  const hash = await hashPassword(password);
  const now = new Date(house.clock.now());
  return house.db.transaction((tx) => {
    for (const group of newGroups) tx.insert(groups).values(group).run();
    const ids = new Map<string, string>();
    for (const { groups: memberOf, ...person } of newPeople) {
      const id = newId();
      ids.set(person.email, id);
      tx.insert(people)
        .values({ id, ...person })
        .run();
      for (const groupKey of memberOf) tx.insert(memberships).values({ groupKey, personId: id }).run();
      if (person.kind !== 'staff') continue;
      tx.insert(user)
        .values({ id, name: person.name, email: person.email, emailVerified: true, createdAt: now, updatedAt: now })
        .run();
      tx.insert(account)
        .values({
          id: newId(),
          accountId: id,
          providerId: 'credential',
          userId: id,
          password: hash,
          createdAt: now,
          updatedAt: now,
        })
        .run();
    }
    return ids;
  });
}
