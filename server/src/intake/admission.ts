import { type Admission, admit, type Comer, countsSince, type DoorLimit } from '@tolvek/core/door';
import type { Viewer } from '@tolvek/core/people';
import { and, count, eq, gte, ne, notInArray } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { type DoorRow, shutAt } from '../door/queries.ts';
import { registerOfForm, releaseInForce } from '../form/queries.ts';
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

interface Counted {
  readonly personId: string | null;
  readonly now: number;
  /** Where days begin at midnight. */
  readonly zone: string;
}

/**
 * Which requests that came by a door count against a limit of it, those of one person where it is of each. Trials count
 * nowhere, nor does what was refused or withdrawn.
 */
export function countedBy(
  db: Reader,
  door: Pick<DoorRow, 'id' | 'formId'>,
  limit: DoorLimit,
  { personId, now, zone }: Counted,
) {
  const since = countsSince(limit, now, zone);
  const given = registerOfForm(db, door.formId).stages.flatMap(({ role, key }) =>
    role === 'refused' || role === 'withdrawn' ? [key] : [],
  );
  return and(
    ...[eq(requests.doorId, door.id), eq(requests.trial, false)],
    since === null ? undefined : gte(requests.createdAt, since),
    limit.of === 'each' ? eq(requests.requesterId, personId ?? '') : undefined,
    limit.unfinished ? ne(requests.phase, 'finished') : undefined,
    given.length > 0 ? notInArray(requests.stage, given) : undefined,
  );
}

/** How many requests count against a limit of a door; more than the limit takes are not counted. */
export function usedOf(db: Reader, door: Pick<DoorRow, 'id' | 'formId'>, whose: Counted): (limit: DoorLimit) => number {
  return (limit) => {
    const counted = db
      .select({ id: requests.id })
      .from(requests)
      .where(countedBy(db, door, limit, whose))
      .limit(limit.most)
      .as('counted');
    return db.select({ n: count() }).from(counted).get()?.n ?? 0;
  };
}

/** Who is known by what is stored: nobody at an unnamed door, whoever is signed in. */
export const namedAt = ({ design }: DoorRow, viewer: Viewer | null): Viewer | null => (design.unnamed ? null : viewer);

/**
 * Whether a door admits whoever calls, as far as it is known who they are: whoever is signed in has proved it. `since`:
 * since when they have been filling in, epoch ms.
 */
export function admissionOf(
  db: Reader,
  door: DoorRow,
  viewer: Pick<Viewer, 'personId' | 'kind' | 'groups'> | null,
  now: number,
  since: number | null = null,
): Admission {
  const comer = viewer ? { kind: viewer.kind, active: true, groups: viewer.groups } : UNKNOWN;
  const zone = door.design.limits.length > 0 ? zoneOfDoor(db, door) : 'UTC';
  const used = usedOf(db, door, { personId: viewer?.personId ?? null, now, zone });
  return admit(door.design, comer, { now, zone, since, shutAt: since === null ? null : shutAt(db, door) }, used);
}

/** Where the days of a door begin at midnight: the zone of its form’s calendar. */
export function zoneOfDoor(db: Reader, { formId }: Pick<DoorRow, 'formId'>): string {
  const release = releaseInForce(db, formId);
  return release ? calendarOf(db, release.design.deadline.calendar).zone : 'UTC';
}
