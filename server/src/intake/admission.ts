import { type Admission, admit } from '@tolvek/core/door';
import type { Viewer } from '@tolvek/core/people';
import { groupsOf, personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { openLink } from '../platform/links.ts';
import { notFound } from '../platform/problem.ts';
import type { DoorRow } from './commands.ts';

/** Whether a door admits whoever calls, as far as it is known who they are. */
export const admissionOf = (door: DoorRow, viewer: Viewer | null, now: number): Admission => admit(door, { kind: viewer?.kind ?? 'unknown', active: true }, now);

/** Who holds a follow-up link. A contact made inactive still reads their own past requests. */
export function follower(db: Reader, token: string, now: number): { viewer: Viewer; requestId: string } {
  const link = openLink(db, token, 'follow', now);
  const person = personById(db, link.personId);
  if (!person) throw notFound('This request');
  return { viewer: { personId: person.id, kind: person.kind, role: person.role, groups: groupsOf(db, person.id) }, requestId: link.targetId };
}
