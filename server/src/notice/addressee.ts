import type { Viewer } from '@tolvek/core/people';
import { and, eq, isNull, ne, sql } from 'drizzle-orm';
import { nestedRows } from '../people/entries.ts';
import { type PersonRow, personById, viewerIn } from '../people/queries.ts';
import { rightsOf } from '../people/rights.ts';
import { groups } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';

/** Whom an email goes to: a person, or all members of a group at one address, who have no id together. */
export type Addressee = Pick<PersonRow, 'id' | 'kind' | 'name' | 'email' | 'language'>;

const withMailbox = prepared((db) =>
  db
    .select({ key: groups.key, name: groups.name, mailbox: groups.mailbox })
    .from(groups)
    .where(and(eq(groups.key, sql.placeholder('key')), ne(groups.mailbox, ''), isNull(groups.removedAt)))
    .prepare(),
);

/** A group that gets its emails together, at an address of its own; undefined where each of its members gets theirs. */
export const mailboxOf = (db: Reader, key: string) => withMailbox(db).get({ key });

/** Who reads the emails of a group: what anybody may by being in it, and through it in others, and nothing else. */
function viewerOfGroup(db: Reader, key: string): Viewer {
  const within = new Set([key]);
  const nested = nestedRows(db);
  for (let size = 0; size !== within.size; ) {
    size = within.size;
    for (const { groupKey, memberGroup } of nested) if (memberGroup && within.has(memberGroup)) within.add(groupKey);
  }
  const all = [...within];
  return { personId: '', kind: 'staff', groups: all, ...rightsOf(db, '', all) };
}

/** Whom a notice is to, and how they read; null where nobody is there any more. `asked`: whose request it is about. */
export function addresseeOf(
  db: Reader,
  { personId, groupKey }: { readonly personId: string | null; readonly groupKey: string | null },
  asked: string | null = null,
): { readonly to: Addressee; readonly viewer: Viewer } | null {
  if (groupKey !== null) {
    const group = mailboxOf(db, groupKey);
    if (!group) return null;
    const to = { id: '', kind: 'staff', name: group.name, email: group.mailbox, language: null } as const;
    return { to, viewer: viewerOfGroup(db, groupKey) };
  }
  const person = personId === null ? undefined : personById(db, personId);
  if (!person || !(person.active || person.id === asked)) return null;
  return { to: person, viewer: viewerIn(db, person) };
}
