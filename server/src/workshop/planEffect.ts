import type { AnswerOf } from '@tolvek/contract';
import { levelChanges, type Protection, relationBy } from '@tolvek/core/access';
import { belongs, type Viewer } from '@tolvek/core/people';
import { and, eq, sql } from 'drizzle-orm';
import { currentRelease, formsOf } from '../form/queries.ts';
import { viewerOf } from '../people/queries.ts';
import { memberships, people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { protectionFor } from '../request/protection.ts';
import { requests } from '../request/tables.ts';
import { lookingAt, standingBy } from '../view/workedBy.ts';
import { wayKey, waysBy } from './plan.ts';

type Effect = AnswerOf<'accessPlanEffect'>;
type Change = Effect['people'][number]['fields'][number];

const DESK = { isDesk: true, isRequester: false };
const REQUESTER = { isDesk: false, isRequester: true };
const BOTH = { isDesk: true, isRequester: true };

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

/** How many requests somebody has to do with, by the release they came by and by how they stand to them. */
function requestsOf(db: Reader, viewer: Viewer, register: RegisterRow) {
  const standing = standingBy(lookingAt(db, viewer), requests);
  return db
    .select({
      release: requests.releaseId,
      isOwn: sql<number>`coalesce(${requests.requesterId} = ${viewer.personId}, 0)`,
      standing,
      n: sql<number>`count(*)`,
    })
    .from(requests)
    .where(and(eq(requests.registerId, register.id), eq(requests.trial, false)))
    .groupBy(requests.releaseId, sql`2`, sql`3`)
    .all()
    .flatMap(({ isOwn, standing: stands, ...each }) => {
      const relation = relationBy(viewer, { register: register.id, standing: stands, isRequester: isOwn === 1 });
      return relation.isDesk || relation.isRequester ? [{ ...each, relation }] : [];
    });
}

/**
 * What a plan would change: for everybody who is here, field by field and on how many requests; and the ways by which
 * forms in force would tell more than before. Those whom neither plan tells apart from before are not looked at one by
 * one.
 */
export function whatChanges(
  db: Reader,
  before: RegisterRow,
  after: RegisterRow,
): Pick<Effect, 'people' | 'more' | 'fields' | 'opens'> {
  const rules = [...before.access.rules, ...after.access.rules];
  const inGroups = new Map<string, string[]>();
  for (const { personId, groupKey } of db.select().from(memberships).all())
    inGroups.set(personId, [...(inGroups.get(personId) ?? []), groupKey]);
  const protections = protectionsOf(db, before, after);
  const releases = formsOf(db, before.id).flatMap((form) => currentRelease(db, form)?.id ?? []);
  const asked = db
    .selectDistinct({ id: requests.releaseId })
    .from(requests)
    .where(eq(requests.registerId, before.id))
    .all()
    .map(({ id }) => id);
  const all = [...new Set([...releases, ...asked])];
  // Whether anything changes for those of whom the same rules hold.
  const changes = new Map<string, boolean>();
  const concerns = (viewer: Viewer): boolean => {
    const holds = [false, true].flatMap((isOwn) => rules.map((rule) => belongs(rule.audience, viewer, isOwn)));
    const kind = `${viewer.kind} ${holds.map(Number).join('')}`;
    const found =
      changes.get(kind) ??
      all.some((release) =>
        [DESK, REQUESTER, BOTH].some((relation) => levelChanges(...protections(release), viewer, relation).length > 0),
      );
    changes.set(kind, found);
    return found;
  };
  const concerned = db
    .select({ id: people.id, kind: people.kind, name: people.name, email: people.email })
    .from(people)
    .where(eq(people.active, true))
    .orderBy(people.name, people.id)
    .all()
    .filter(({ id, kind }) => concerns({ personId: id, kind, rights: [], groups: inGroups.get(id) ?? [] }));
  const told = concerned.flatMap(({ id, name, email }) => {
    const viewer = viewerOf(db, id);
    const fields = viewer ? changesFor(db, viewer, before, protections) : [];
    return fields.length > 0 ? [{ id, name, email, fields }] : [];
  });
  return {
    people: told.slice(0, NAMED),
    more: Math.max(0, told.length - NAMED),
    fields: summedUp(told),
    opens: opensBy(db, before, after),
  };
}

/** What changes for somebody, on how many requests. */
function changesFor(
  db: Reader,
  viewer: Viewer,
  register: RegisterRow,
  protections: ReturnType<typeof protectionsOf>,
): Change[] {
  const sums = new Map<string, Change>();
  for (const { release, relation, n } of requestsOf(db, viewer, register)) {
    for (const { field, before, after } of levelChanges(...protections(release), viewer, relation)) {
      const key = `${field.key} ${before} ${after}`;
      const known = sums.get(key);
      sums.set(key, { field: field.key, label: field.label, before, after, requests: (known?.requests ?? 0) + n });
    }
  }
  return [...sums.values()];
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
