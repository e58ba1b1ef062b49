import { factsAt } from '@tolvek/core/intake';
import type { Field, KnownPerson, RequestFacts } from '@tolvek/core/register';
import { calendarOf } from '../deadline/queries.ts';
import type { doors } from '../door/tables.ts';
import type { ReleaseRow } from '../form/queries.ts';
import { departmentOf, groupsOf, staffIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';

/** What conditions may know about who asks, at which door, on which day; and who can be picked where people are asked for. */
export function factsFor(
  db: Reader,
  door: Pick<typeof doors.$inferSelect, 'kind'>,
  release: ReleaseRow,
  requester: { id: string; kind: 'staff' | 'contact' } | null,
  now: number,
  people: readonly KnownPerson[] = door.kind === 'staff' ? pickedFrom(db, release.design.fields) : [],
): RequestFacts {
  const calendar = calendarOf(db, release.design.deadline.calendar);
  const asker = requester ? { id: requester.id, kind: requester.kind, groups: groupsOf(db, requester.id), department: departmentOf(db, requester.id) } : null;
  return factsAt(now, calendar, door.kind, asker, people);
}

/** The people whom fields for people are picked from. */
export function pickedFrom(db: Reader, fields: readonly Field[]): readonly KnownPerson[] {
  const from = fields.flatMap(({ type }) => (type.kind === 'person' || type.kind === 'people' ? [type.from] : []));
  if (from.length === 0) return [];
  return staffIn(db, from.some((groups) => groups.length === 0) ? 'all' : from.flat());
}
