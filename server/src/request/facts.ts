import type { RevealedFacts } from '@tolvek/core/access';
import type { Slots } from '@tolvek/core/expression';
import type { FormDesign } from '@tolvek/core/form';
import { factsAt } from '@tolvek/core/intake';
import { type Field, type KnownPerson, type RawAnswers, type RequestFacts, requestSlots } from '@tolvek/core/register';
import { eq, sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { doors } from '../door/tables.ts';
import { releaseById } from '../form/queries.ts';
import { knownOf, personById, staffIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import type { RegisterRow } from '../register/queries.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { fieldsOf } from './fields.ts';
import type { ShownRow } from './queries.ts';
import { requestsNamed } from './references.ts';

const doorKind = prepared((db) =>
  db
    .select({ kind: doors.kind })
    .from(doors)
    .where(eq(doors.id, sql.placeholder('id')))
    .prepare(),
);

/** What kind of door a request came by: what the desk made itself counts as come by its own. */
export const kindOfDoor = (db: Reader, doorId: string | null): 'staff' | 'outside' =>
  (doorId === null ? undefined : doorKind(db).get({ id: doorId })?.kind) ?? 'staff';

/**
 * What rules and formulas may know about a request that is stored: its requester and door, and the
 * moment of the change. `picked`: what its register’s fields pick from, when that was read before.
 */
export function factsOfRequest(
  db: Reader,
  request: ShownRow,
  register: RegisterRow,
  now: number,
  { changes = {}, picked = pickedBy(db, register.fields) }: { changes?: RawAnswers; picked?: Picked } = {},
): RequestFacts {
  const { release } = releaseById(db, request.releaseId);
  const requester = request.requesterId === null ? undefined : personById(db, request.requesterId);
  return factsFor(db, {
    door: { kind: kindOfDoor(db, request.doorId) },
    design: release.design,
    requester: requester ?? null,
    now,
    fields: fieldsOf(db, register, request),
    named: { ...request.values, ...changes },
    stored: true,
    picked,
  });
}

/** What routing and conditions reckon with, of a request that is stored: as it is, and as it were when it arrived. */
export const slotsOfRequest = (
  db: Reader,
  request: ShownRow,
  register: RegisterRow,
  {
    fields = releaseById(db, request.releaseId).release.design.fields,
    at = request.createdAt,
  }: {
    /** Those of another release, where its texts are what reads them. */
    readonly fields?: readonly Field[];
    /** On which day they are read, epoch ms: on that of its arrival unless another is said. */
    readonly at?: number;
  } = {},
): Slots => requestSlots(fields, request.values, factsOfRequest(db, request, register, at));

interface Asking {
  readonly door: Pick<typeof doors.$inferSelect, 'kind'>;
  readonly design: Pick<FormDesign, 'deadline' | 'fields'>;
  /** Null while nobody has said who they are. */
  readonly requester: { readonly id: string; readonly kind: 'staff' | 'contact' } | null;
  /** Epoch ms. */
  readonly now: number;
  /** Answers or values: the requests they point to are made known. */
  readonly named?: Readonly<Record<string, unknown>>;
  /** Whether these were stored before: what was pointed to stays known, offered or not. */
  readonly stored?: true;
  /** The fields of the form, unless those of its register are wanted. */
  readonly fields?: readonly Field[];
  /** What fields pick from, read before: for many requests it is the same. */
  readonly picked?: Picked | undefined;
}

/** What fields pick from: people and terms. */
export type Picked = Pick<RequestFacts, 'people' | 'vocabularies'>;

export const pickedBy = (db: Reader, fields: readonly Field[]): Picked => ({
  people: pickedFrom(db, fields),
  vocabularies: vocabulariesFor(db, fields),
});

/**
 * What conditions may know about who asks, at which door, on which day; and what its fields name:
 * people to pick, terms, requests that references point to. Staff are not shown to whoever comes
 * from outside.
 */
export function factsFor(
  db: Reader,
  { door, design, requester, now, named = {}, stored, fields = design.fields, picked }: Asking,
): RevealedFacts {
  const calendar = calendarOf(db, design.deadline.calendar);
  const asker = requester ? { id: requester.id, kind: requester.kind, ...knownOf(db, requester.id) } : null;
  const facts = factsAt(now, calendar, door.kind, asker, {
    people: picked?.people ?? (door.kind === 'staff' ? pickedFrom(db, fields) : []),
    vocabularies: picked?.vocabularies ?? vocabulariesFor(db, fields),
  });
  const references = requestsNamed(db, fields, named, stored ? undefined : { by: requester?.id ?? null });
  return { ...facts, references };
}

/** The people whom fields for people are picked from. */
export function pickedFrom(db: Reader, fields: readonly Field[]): readonly KnownPerson[] {
  const from = fields.flatMap(({ type }) => (type.kind === 'person' || type.kind === 'people' ? [type.from] : []));
  if (from.length === 0) return [];
  return staffIn(db, from.some((groups) => groups.length === 0) ? 'all' : from.flat());
}
