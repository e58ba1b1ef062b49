import { plainLetters } from '@tolvek/core/people';
import { eq } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import { addresses, people } from './tables.ts';

/** What somebody is looked for by: their name and their addresses, each on a line of its own. */
export const soughtAs = (name: string, found: readonly string[]): string => plainLetters([name, ...found].join('\n'));

/** Writes down anew what somebody is looked for by, after their name or their addresses changed. */
export function settleSought(tx: Transaction, id: string): void {
  const person = tx.select({ name: people.name }).from(people).where(eq(people.id, id)).get();
  const found = tx.select({ address: addresses.address }).from(addresses).where(eq(addresses.personId, id)).all();
  tx.update(people)
    .set({ sought: soughtAs(person?.name ?? '', found.map(({ address }) => address).sort()) })
    .where(eq(people.id, id))
    .run();
}
