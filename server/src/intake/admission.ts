import { type Admission, admit, type Comer, countsSince, type DoorLimit } from '@tolvek/core/door';
import type { Viewer } from '@tolvek/core/people';
import { and, count, eq, gte } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import type { DoorRow } from '../door/queries.ts';
import { releaseInForce } from '../form/queries.ts';
import { groupsOf, type PersonRow } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';

/** Somebody of whom nothing is known yet. */
export const UNKNOWN: Comer = { kind: 'unknown', active: true, groups: [] };

/** Somebody who is known, as a door looks at them. */
export const comerOf = (db: Reader, { id, kind, active }: Pick<PersonRow, 'id' | 'kind' | 'active'>): Comer => ({
  ...{ kind, active },
  groups: groupsOf(db, id),
});

/**
 * How many requests that came by a door count against a limit of it, those of one person where it is of
 * each; more than the limit takes are not counted. Trials count nowhere. `zone`: where days begin at midnight.
 */
export function usedOf(
  db: Reader,
  door: Pick<DoorRow, 'id'>,
  { personId, now, zone }: { readonly personId: string | null; readonly now: number; readonly zone: string },
): (limit: DoorLimit) => number {
  return (limit) => {
    const since = countsSince(limit, now, zone);
    const counted = db
      .select({ id: requests.id })
      .from(requests)
      .where(
        and(
          ...[eq(requests.doorId, door.id), eq(requests.trial, false)],
          since === null ? undefined : gte(requests.createdAt, since),
          limit.of === 'each' ? eq(requests.requesterId, personId ?? '') : undefined,
        ),
      )
      .limit(limit.most)
      .as('counted');
    return db.select({ n: count() }).from(counted).get()?.n ?? 0;
  };
}

/** Who is known by what is stored: nobody at an unnamed door, whoever is signed in. */
export const namedAt = ({ design }: DoorRow, viewer: Viewer | null): Viewer | null => (design.unnamed ? null : viewer);

/** Whether a door admits whoever calls, as far as it is known who they are: whoever is signed in has proved it. */
export function admissionOf(
  db: Reader,
  door: DoorRow,
  viewer: Pick<Viewer, 'personId' | 'kind' | 'groups'> | null,
  now: number,
): Admission {
  const comer = viewer ? { kind: viewer.kind, active: true, groups: viewer.groups } : UNKNOWN;
  const release = door.design.limits.length > 0 ? releaseInForce(db, door.formId) : undefined;
  const zone = release ? calendarOf(db, release.design.deadline.calendar).zone : 'UTC';
  return admit(door.design, comer, now, usedOf(db, door, { personId: viewer?.personId ?? null, now, zone }));
}
