import type { AnswerOf } from '@tolvek/contract';
import {
  type AskedAlike,
  type Concerned,
  circumstancesOf,
  deskRelation,
  gather,
  levelChanges,
  type Protections,
  planEffect,
  RANK,
  type RequestMoment,
  relationsTo,
  waysToStand,
} from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import type { PartyRelation } from '@tolvek/core/register';
import { and, eq, gt, lt, sql } from 'drizzle-orm';
import { currentRelease, formsOf } from '../form/queries.ts';
import { conditionsNamed, metBy, viewerOf } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { memberships, people } from '../people/tables.ts';
import { nowIn, type Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { followersOf, followsIn, tellsFollowers } from '../request/followers.ts';
import { momentOf } from '../request/moment.ts';
import { protectionFor } from '../request/protection.ts';
import { wordsKept } from '../request/queries.ts';
import { requests, tallies } from '../request/tables.ts';
import { wayKey, waysBy } from './plan.ts';

type Effect = AnswerOf<'accessPlanEffect'>;
type Change = Effect['people'][number]['fields'][number];

/** People who are told by name; the others are counted. */
const NAMED = 200;

/** What protects requests that came by a release, before and after. */
function protectionsOf(db: Reader, before: RegisterRow, after: RegisterRow) {
  const known = new Map<string, Omit<Protections, 'at'>>();
  return (releaseId: string): Omit<Protections, 'at'> => {
    const came = { releaseId, computedBy: null, trial: false };
    const found = known.get(releaseId) ?? {
      ...{ before: protectionFor(db, before, came), after: protectionFor(db, after, came) },
    };
    known.set(releaseId, found);
    return found;
  };
}

/** What besides its people decides about a request: the release it came by, its stage, and the conditions that hold. */
type Sort = readonly [release: string, stage: string, holding: readonly number[]];

/** What stands in the word of a sort. `conditions`: those that its numbers mean; `day`: the one that is looked at. */
export function sortRead(
  sort: string,
  conditions: readonly string[],
  day: string,
): { readonly releaseId: string; readonly at: RequestMoment } {
  const [releaseId, stage, holding] = JSON.parse(sort) as Sort;
  const held = new Set(holding.map((index) => conditions[index]));
  return { releaseId, at: { stage, day, holds: (condition) => held.has(condition) } };
}

/** What is the same for all requests of a sort. */
function protectionsBy(db: Reader, before: RegisterRow, after: RegisterRow, conditions: readonly string[]) {
  const of = protectionsOf(db, before, after);
  const day = todayAt(db, nowIn(db));
  const known = new Map<string, Protections>();
  return (sort: string): Protections => {
    let found = known.get(sort);
    if (!found) {
      const { releaseId, at } = sortRead(sort, conditions, day);
      known.set(sort, (found = { ...of(releaseId), at }));
    }
    return found;
  };
}

const PEOPLE = {
  requesterId: requests.requesterId,
  onBehalfId: requests.onBehalfId,
  enteredById: requests.enteredById,
  handlerId: requests.handlerId,
  team: requests.team,
  deciders: requests.deciders,
};

/** Who follows a request, by id with spaces between, where some plan tells them from others. */
const followersAs = (told: boolean) =>
  told
    ? sql<
        string | null
      >`(select group_concat(person_id, ' ') from (select person_id from followers where request_id = ${requests.id} order by person_id))`
    : sql<string | null>`null`;

/**
 * The requests of a register, those that are of one sort and have the same people together, with the number of one of
 * them. `until`: those alone that had come in by then, epoch ms.
 */
export function askedAlike(
  db: Reader,
  register: RegisterRow,
  { conditions, followers, until }: Hanging & { readonly until?: number | undefined },
): readonly AskedAlike[] {
  const followed = followersAs(followers);
  const among = and(countedIn(register.id, 'all'), until === undefined ? undefined : lt(requests.createdAt, until));
  if (conditions.length === 0) {
    const stage = requests.stage;
    return db
      .select({
        release: requests.releaseId,
        stage,
        ...PEOPLE,
        followers: followed,
        n: sql<number>`count(*)`,
        example: sql<string>`max(${requests.number})`,
      })
      .from(requests)
      .where(among)
      .groupBy(requests.releaseId, stage, ...Object.values(PEOPLE), followed)
      .all()
      .map(({ release, stage: at, deciders, followers: names, ...each }) => ({
        ...each,
        sort: JSON.stringify([release, at, []] satisfies Sort),
        deciders: wordsKept(deciders),
        followers: wordsKept(names),
      }));
  }
  // What a condition says is found out for each of them.
  const found = new Map<string, AskedAlike & { n: number }>();
  for (const request of eachRequest(db, among)) {
    const { holds } = momentOf(db, request, register, true);
    const holding = conditions.flatMap((condition, index) => (holds(condition) ? [index] : []));
    const { number, releaseId, stage, requesterId, onBehalfId, enteredById, handlerId, team, deciders } = request;
    const sort = JSON.stringify([releaseId, stage, holding] satisfies Sort);
    const following = followers ? followersOf(db, request.id) : [];
    const key = [sort, requesterId, onBehalfId, enteredById, handlerId, team, deciders, ...following].join(' ');
    const known = found.get(key);
    if (known) known.n += 1;
    else
      found.set(key, {
        sort,
        ...{ requesterId, onBehalfId, enteredById },
        handlerId,
        team,
        deciders: wordsKept(deciders),
        followers: following,
        n: 1,
        example: number,
      });
  }
  return [...found.values()];
}

/** What of requests the rules of some plans hang on. */
export interface Hanging {
  readonly conditions: readonly string[];
  /** Whether who follows is told from others. */
  readonly followers: boolean;
}

export const hangingOn = (...registers: readonly RegisterRow[]): Hanging => ({
  conditions: [
    ...new Set(
      registers.flatMap(({ access: { rules, readers = [] } }) => [
        ...rules.flatMap(({ exceptions = [] }) => exceptions.flatMap(({ when }) => (when ? [when] : []))),
        ...readers.map(({ when }) => when),
      ]),
    ),
  ],
  followers: registers.some(({ access }) => tellsFollowers(access)),
});

/**
 * People as rules tell them apart: their groups are read at once, who they are to the desk where it is asked. `also`:
 * conditions on profiles besides those that plans name.
 */
export function concernedBy(db: Reader, ids: readonly string[], also: readonly string[] = []): readonly Concerned[] {
  const inGroups = new Map<string, string[]>();
  for (const { personId, groupKey } of db.select().from(memberships).all()) {
    const found = inGroups.get(personId);
    if (found) found.push(groupKey);
    else inGroups.set(personId, [groupKey]);
  }
  const known = new Map(
    db
      .select({ id: people.id, kind: people.kind, profile: people.profile })
      .from(people)
      .all()
      .map((person) => [person.id, person]),
  );
  const conditions = [...new Set([...conditionsNamed(db), ...also])];
  return ids.map(
    (personId): Concerned => ({
      ...{ personId, groups: inGroups.get(personId) ?? [], kind: known.get(personId)?.kind ?? 'contact' },
      ...(conditions.length > 0 ? { meets: metBy(db, known.get(personId), conditions) } : {}),
      viewer: () => viewerOf(db, personId) ?? { personId, kind: 'contact', rights: [], groups: [] },
    }),
  );
}

/**
 * What a plan would change: for everybody who is here, field by field and on how many requests; and the ways by which
 * forms in force would tell more than before.
 */
export function whatChanges(
  db: Reader,
  before: RegisterRow,
  after: RegisterRow,
): Pick<Effect, 'people' | 'more' | 'fields' | 'opens' | 'closes'> {
  const known = new Map(
    db
      .select({ id: people.id, name: people.name, email: people.email })
      .from(people)
      .where(eq(people.active, true))
      .orderBy(people.name, people.id)
      .all()
      .map((person) => [person.id, person]),
  );
  const concerned = concernedBy(db, [...known.keys()]);
  const hanging = hangingOn(before, after);
  const asked = gather(
    { register: before.id, deskGroups: before.deskGroups },
    askedAlike(db, before, hanging),
    [before, after].some(({ access }) => access.readers),
  );
  const told = planEffect(concerned, asked, protectionsBy(db, before, after, hanging.conditions)).map(
    ({ personId, changes }) => ({
      ...(known.get(personId) ?? { id: personId, name: '', email: '' }),
      fields: changes.map(({ field, ...change }): Change => ({ ...change, field: field.key, label: field.label })),
    }),
  );
  return {
    people: told.slice(0, NAMED),
    more: Math.max(0, told.length - NAMED),
    fields: summedUp(told),
    ...waysChanged(db, before, after),
  };
}

/** The same by field: for how many people, and on how many requests at most for one of them. */
function summedUp(told: readonly { readonly name: string; readonly fields: readonly Change[] }[]): Effect['fields'] {
  const sums = new Map<string, Effect['fields'][number]>();
  for (const { name, fields } of told)
    for (const { field, label, before, after, activity, requests: n } of fields) {
      const key = `${activity} ${field} ${before} ${after}`;
      const known = sums.get(key) ?? { field, label, before, after, activity, people: 0, requests: 0, names: [] };
      sums.set(key, {
        ...known,
        ...{ people: known.people + 1, requests: Math.max(known.requests, n) },
        names: known.names.length < 6 ? [...known.names, name] : known.names,
      });
    }
  // What changes on the request itself comes first.
  return [...sums.values()].sort((a, b) => Number(a.activity !== 'working') - Number(b.activity !== 'working'));
}

/** What changes for whoever puts a plan in force, on requests that they work on and that are not their own. */
export function ownChanges(db: Reader, viewer: Viewer, before: RegisterRow, after: RegisterRow): Effect['yours'] {
  const protections = protectionsOf(db, before, after);
  const releases = formsOf(db, before.id).flatMap((form) => currentRelease(db, form)?.id ?? []);
  const rules = [...before.access.rules, ...after.access.rules];
  const circumstances = circumstancesOf(rules, ['working']) ?? [];
  // What they are to no request here, they lose nothing by.
  const stands = standsAs(db, before, viewer);
  const desk = deskRelation(viewer, before.id);
  const ways = waysToStand({ rules }).filter((as) => as.every((each) => stands.has(each)));
  const found = releases.flatMap((release) => {
    const each = protections(release);
    return ways.flatMap((as) =>
      circumstances.flatMap((at) => levelChanges(each.before, each.after, viewer, { ...desk, as }, at)),
    );
  });
  // Of what changes by circumstance, what is lost most.
  const once = new Map<string, Effect['yours'][number]>();
  for (const { field, before: was, after: is } of found) {
    const known = once.get(field.key);
    const change = { field: field.key, label: field.label, before: was, after: is };
    if (!known || RANK[is] - RANK[was] < RANK[known.after] - RANK[known.before]) once.set(field.key, change);
  }
  return [...once.values()];
}

/** What somebody is to any request of a register: counted, so that no request has to be read for it. */
function standsAs(db: Reader, register: RegisterRow, viewer: Viewer): ReadonlySet<PartyRelation> {
  const found = new Set<PartyRelation>();
  const { team, handlerId, deciders } = tallies;
  for (const each of db
    .selectDistinct({ team, handlerId, deciders })
    .from(tallies)
    .where(and(eq(tallies.registerId, register.id), gt(tallies.n, 0)))
    .all()) {
    const nobody = { requesterId: null, onBehalfId: null, enteredById: null, followers: [] };
    const parties = { ...each, ...nobody, register: register.id, deskGroups: register.deskGroups };
    for (const is of relationsTo({ ...parties, deciders: wordsKept(each.deciders) }, viewer)) found.add(is);
  }
  for (const [column, is] of [
    [requests.onBehalfId, 'behalf'],
    [requests.enteredById, 'entered'],
  ] as const) {
    const among = and(eq(requests.registerId, register.id), eq(column, viewer.personId));
    if (db.select({ id: requests.id }).from(requests).where(among).limit(1).get()) found.add(is);
  }
  if (followsIn(db, register.id, viewer.personId)) found.add('follower');
  return found;
}

/** The ways by which forms in force would tell somebody what they may not read and do not before, and the other way round. */
function waysChanged(db: Reader, before: RegisterRow, after: RegisterRow): Pick<Effect, 'opens' | 'closes'> {
  const found = formsOf(db, before.id).flatMap((form) => {
    const release = currentRelease(db, form);
    if (!release) return [];
    const [was, is] = [waysBy(db, before.access, release), waysBy(db, after.access, release)];
    const but = (ways: typeof was, others: typeof was): Effect['opens'] => {
      const known = new Set(others.map(wayKey));
      return ways
        .filter((way) => !known.has(wayKey(way)))
        .map(({ message, way = [] }) => ({ form: form.key, title: form.draft.title, message, way: [...way] }));
    };
    return [{ opens: but(is, was), closes: but(was, is) }];
  });
  return { opens: found.flatMap(({ opens }) => opens), closes: found.flatMap(({ closes }) => closes) };
}
