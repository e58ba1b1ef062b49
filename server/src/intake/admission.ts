import { type Admission, admit, type Comer, countsSince, type DoorLimit } from '@tolvek/core/door';
import type { Viewer } from '@tolvek/core/people';
import { and, count, desc, eq, gte, ne, not, sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { aheadOf, type InLine } from '../door/line.ts';
import { type DoorRow, shutAt } from '../door/queries.ts';
import { registerOfForm, releaseInForce } from '../form/queries.ts';
import { groupsOf, type PersonRow, toldOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { isListed, listed, preparedEach } from '../platform/prepared.ts';
import type { RequestRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';

/** Somebody of whom nothing is known yet. */
export const UNKNOWN: Comer = { kind: 'unknown', active: true, groups: [] };

/** Somebody who is known, as a door looks at them. */
export const comerOf = (
  db: Reader,
  door: DoorRow,
  { id, kind, active }: Pick<PersonRow, 'id' | 'kind' | 'active'>,
): Comer => ({
  ...{ kind, active, personId: id },
  groups: groupsOf(db, id),
  ...toldAt(db, door, id),
});

/** What a door asks about somebody besides their groups: the conditions on profiles that it names, and what they may do. */
function toldAt(db: Reader, { design, formId }: DoorRow, id: string): Pick<Comer, 'meets' | 'rights'> {
  return toldOf(db, [design.audience], id, () => registerOfForm(db, formId).id);
}

interface Counted extends InLine {
  readonly personId: string | null;
  readonly now: number;
  /** Where days begin at midnight. */
  readonly zone: string;
}

/**
 * Which requests that came by a door count against a limit, those of one person where it is of each: trials count
 * nowhere, nor does what was refused or withdrawn. Names what `givenFor` gives.
 */
const counts = (of: DoorLimit['of'], isUnfinished: boolean) =>
  and(
    ...[eq(requests.doorId, sql.placeholder('door')), eq(requests.trial, false)],
    gte(requests.createdAt, sql.placeholder('since')),
    of === 'each' ? eq(requests.requesterId, sql.placeholder('person')) : undefined,
    isUnfinished ? ne(requests.phase, 'finished') : undefined,
    not(isListed(requests.stage, 'ended')),
  );

const counting = preparedEach((of: DoorLimit['of'], which: 'any' | 'unfinished') => (db) => {
  const some = db
    .select({ id: requests.id })
    .from(requests)
    .where(counts(of, which === 'unfinished'))
    .limit(sql.placeholder('most'))
    .as('counted');
  return db.select({ n: count() }).from(some).prepare();
});

const last = preparedEach(
  (of: DoorLimit['of'], which: 'any' | 'unfinished') => (db) =>
    db
      .select()
      .from(requests)
      .where(counts(of, which === 'unfinished'))
      .orderBy(desc(requests.createdAt), desc(requests.id))
      .limit(1)
      .prepare(),
);

function givenFor(db: Reader, door: Pick<DoorRow, 'id' | 'formId'>, limit: DoorLimit, whose: Counted) {
  const { personId, now, zone } = whose;
  const ended = registerOfForm(db, door.formId).stages.flatMap(({ role, key }) =>
    role === 'refused' || role === 'withdrawn' ? [key] : [],
  );
  return { door: door.id, since: countsSince(limit, now, zone) ?? 0, person: personId ?? '', ended: listed(ended) };
}

const whichOf = ({ unfinished }: DoorLimit): 'any' | 'unfinished' => (unfinished ? 'unfinished' : 'any');

/** How many requests count against a limit of a door; more than the limit takes are not counted. */
export const usedOf =
  (db: Reader, door: DoorRow, whose: Counted): ((limit: DoorLimit) => number) =>
  (limit) => {
    const used = countOf(db, door, limit, whose);
    // Whoever waits for a place comes before those who did not.
    return limit.of === 'all' && door.design.waits !== undefined ? used + aheadOf(db, door.id, whose, whose.now) : used;
  };

/** The same without those who wait. */
export function countOf(db: Reader, door: Pick<DoorRow, 'id' | 'formId'>, limit: DoorLimit, whose: Counted): number {
  const given = { ...givenFor(db, door, limit, whose), most: limit.most };
  return counting(limit.of, whichOf(limit))(db).get(given)?.n ?? 0;
}

/** The last request that counts against a limit of a door. */
export const lastOf = (
  db: Reader,
  door: Pick<DoorRow, 'id' | 'formId'>,
  limit: DoorLimit,
  whose: Counted,
): RequestRow | undefined => last(limit.of, whichOf(limit))(db).get(givenFor(db, door, limit, whose));

/** Who is known by what is stored: nobody at an unnamed door, whoever is signed in. */
export const namedAt = ({ design }: DoorRow, viewer: Viewer | null): Viewer | null => (design.unnamed ? null : viewer);

/**
 * Whether a door admits whoever calls, as far as it is known who they are: whoever is signed in has proved it. `since`:
 * since when they have been filling in, epoch ms; `sent`: that its form was sent to them.
 */
export function admissionOf(
  db: Reader,
  door: DoorRow,
  viewer: Pick<Viewer, 'personId' | 'kind' | 'groups'> | null,
  now: number,
  since: number | null = null,
  { zone, used } = countedAt(db, door, { personId: viewer?.personId ?? null }, now),
  sent?: true,
): Admission {
  const known = viewer && { kind: viewer.kind, active: true, groups: viewer.groups, personId: viewer.personId };
  const comer = known ? { ...known, sent, ...toldAt(db, door, known.personId) } : UNKNOWN;
  return admit(door.design, comer, { now, zone, since, shutAt: since === null ? null : shutAt(db, door) }, used);
}

/**
 * What counts against the limits of a door now, each counted once however often it is asked. A form that changes what is
 * there takes nobody’s place: what it adds is counted as it arrives.
 */
export function countedAt(db: Reader, door: DoorRow, who: InLine & { readonly personId: string | null }, now: number) {
  const design = door.design.limits.length > 0 ? releaseInForce(db, door.formId)?.design : undefined;
  const zone = design ? calendarOf(db, design.deadline.calendar).zone : 'UTC';
  if (design?.updates) return { zone, used: () => 0 };
  const count = usedOf(db, door, { ...who, now, zone });
  const known = new Map<string, number>();
  const used = (limit: DoorLimit): number => {
    const n = known.get(limit.id) ?? count(limit);
    known.set(limit.id, n);
    return n;
  };
  return { zone, used };
}

/** What counts against the limits of a door for all, without those who wait for a place. */
export function placesTakenAt(db: Reader, door: DoorRow, now: number): (limit: DoorLimit) => number {
  const { zone } = calendarOf(db, releaseInForce(db, door.formId)?.design.deadline.calendar ?? '');
  return (limit) => countOf(db, door, limit, { personId: null, now, zone });
}
