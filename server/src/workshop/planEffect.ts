import type { AnswerOf } from '@tolvek/contract';
import {
  type AskedAlike,
  type Concerned,
  gather,
  levelChanges,
  type Protection,
  planEffect,
} from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import { and, eq, sql } from 'drizzle-orm';
import { currentRelease, formsOf } from '../form/queries.ts';
import { viewerOf } from '../people/queries.ts';
import { memberships, people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { protectionFor } from '../request/protection.ts';
import { requests } from '../request/tables.ts';
import { wayKey, waysBy } from './plan.ts';

type Effect = AnswerOf<'accessPlanEffect'>;
type Change = Effect['people'][number]['fields'][number];

const DESK = { isDesk: true, isRequester: false };

/** People who are told by name; the others are counted. */
const NAMED = 200;

/** What protects requests that came by a release, before and after. */
function protectionsOf(db: Reader, before: RegisterRow, after: RegisterRow) {
  const known = new Map<string, readonly [Protection, Protection]>();
  return (releaseId: string): readonly [Protection, Protection] => {
    const came = { releaseId, computedBy: null, trial: false };
    const found = known.get(releaseId) ?? ([protectionFor(db, before, came), protectionFor(db, after, came)] as const);
    known.set(releaseId, found);
    return found;
  };
}

/** The requests of a register, those that came by one release and have the same people together. */
const askedAlike = (db: Reader, id: string): readonly AskedAlike[] =>
  db
    .select({
      release: requests.releaseId,
      requesterId: requests.requesterId,
      handlerId: requests.handlerId,
      team: requests.team,
      deciders: requests.deciders,
      n: sql<number>`count(*)`,
    })
    .from(requests)
    .where(and(eq(requests.registerId, id), eq(requests.trial, false)))
    .groupBy(requests.releaseId, requests.requesterId, requests.handlerId, requests.team, requests.deciders)
    .all()
    .map(({ deciders, ...each }) => ({ ...each, deciders: deciders?.split(' ') ?? [] }));

/**
 * What a plan would change: for everybody who is here, field by field and on how many requests; and the ways by which
 * forms in force would tell more than before.
 */
export function whatChanges(
  db: Reader,
  before: RegisterRow,
  after: RegisterRow,
): Pick<Effect, 'people' | 'more' | 'fields' | 'opens'> {
  const known = new Map(
    db
      .select({ id: people.id, name: people.name, email: people.email })
      .from(people)
      .where(eq(people.active, true))
      .orderBy(people.name, people.id)
      .all()
      .map((person) => [person.id, person]),
  );
  const inGroups = new Map<string, string[]>();
  for (const { personId, groupKey } of db.select().from(memberships).all()) {
    const found = inGroups.get(personId);
    if (found) found.push(groupKey);
    else inGroups.set(personId, [groupKey]);
  }
  const concerned = [...known.keys()].map(
    (personId): Concerned => ({
      ...{ personId, groups: inGroups.get(personId) ?? [] },
      viewer: () => viewerOf(db, personId) ?? { personId, kind: 'contact', rights: [], groups: [] },
    }),
  );
  const asked = gather({ register: before.id, deskGroups: before.deskGroups }, askedAlike(db, before.id));
  const told = planEffect(concerned, asked, protectionsOf(db, before, after)).map(({ personId, changes }) => ({
    ...(known.get(personId) ?? { id: personId, name: '', email: '' }),
    fields: changes.map(({ field, ...change }): Change => ({ ...change, field: field.key, label: field.label })),
  }));
  return {
    people: told.slice(0, NAMED),
    more: Math.max(0, told.length - NAMED),
    fields: summedUp(told),
    opens: opensBy(db, before, after),
  };
}

/** The same by field: for how many people, and on how many requests at most for one of them. */
function summedUp(told: readonly { readonly name: string; readonly fields: readonly Change[] }[]): Effect['fields'] {
  const sums = new Map<string, Effect['fields'][number]>();
  for (const { name, fields } of told)
    for (const { field, label, before, after, requests: n } of fields) {
      const key = `${field} ${before} ${after}`;
      const known = sums.get(key) ?? { field, label, before, after, people: 0, requests: 0, names: [] };
      sums.set(key, {
        ...known,
        ...{ people: known.people + 1, requests: Math.max(known.requests, n) },
        names: known.names.length < 6 ? [...known.names, name] : known.names,
      });
    }
  return [...sums.values()];
}

/** What changes for whoever puts a plan in force, on requests that they work on and that are not their own. */
export function ownChanges(db: Reader, viewer: Viewer, before: RegisterRow, after: RegisterRow): Effect['yours'] {
  const protections = protectionsOf(db, before, after);
  const releases = formsOf(db, before.id).flatMap((form) => currentRelease(db, form)?.id ?? []);
  const found = releases.flatMap((release) => levelChanges(...protections(release), viewer, DESK));
  const once = new Map(
    found.map(({ field, before: was, after: is }) => [
      field.key,
      { field: field.key, label: field.label, before: was, after: is },
    ]),
  );
  return [...once.values()];
}

/** The ways by which forms in force would tell somebody what they may not read, and do not before. */
function opensBy(db: Reader, before: RegisterRow, after: RegisterRow): Effect['opens'] {
  return formsOf(db, before.id).flatMap((form) => {
    const release = currentRelease(db, form);
    if (!release) return [];
    const known = new Set(waysBy(db, before.access, release).map(wayKey));
    return waysBy(db, after.access, release)
      .filter((way) => !known.has(wayKey(way)))
      .map(({ message }) => ({ form: form.key, title: form.draft.title, message }));
  });
}
