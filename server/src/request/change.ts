import { partName } from '@tolvek/core/form';
import type { TakenIn } from '@tolvek/core/intake';
import { own } from '@tolvek/core/own';
import type { Field, FieldValue, Values } from '@tolvek/core/register';
import type { Happening, Through } from '@tolvek/core/request';
import { refused } from '@tolvek/words';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { claimFiles, letGoOfFiles } from '../files/commands.ts';
import type { ReleaseRow } from '../form/queries.ts';
import { adding, changing, givenAll } from '../platform/adding.ts';
import { newId } from '../platform/newId.ts';
import { prepared } from '../platform/prepared.ts';
import { Problem, staleVersion } from '../platform/problem.ts';
import { by, type Work } from '../platform/work.ts';
import { firstStage, type RegisterRow, registerById, stageOf, stageWithRole } from '../register/queries.ts';
import { carriedFrom } from './carryOn.ts';
import { changesBetween, withChanges } from './changes.ts';
import { claim, takenAnswers } from './claims.ts';
import { factsOfRequest } from './facts.ts';
import { fieldsOf } from './fields.ts';
import { remember } from './history.ts';
import { keepingOf } from './keeping.ts';
import type { Laid } from './laid.ts';
import { isThere, putBackRows } from './layBy.ts';
import { isToldToAll, protectionFor } from './protection.ts';
import type { RequestRow, ShownRow } from './queries.ts';
import { readAnew } from './readings.ts';
import { point } from './references.ts';
import { settledChanges } from './settle.ts';
import { stageAfter } from './stageAfter.ts';
import {
  claims,
  followers,
  history,
  mergedRequests,
  pointers,
  readings,
  requests,
  ruleRunChanges,
  shares,
} from './tables.ts';

/**
 * What follows from a change of a request, in areas above it. `before`: the request as it was; null
 * when it has just arrived. Gives the request where that changed again.
 */
export type Follower = (
  work: Work,
  request: ShownRow,
  change: Happening,
  before: ShownRow | null,
) => ShownRow | undefined;

let following: readonly Follower[] = [];

/** Says who follows, in which order: whoever knows all areas, once. */
export function followedBy(all: readonly Follower[]): void {
  following = all;
}

interface Incoming {
  readonly number: string;
  readonly register: RegisterRow;
  readonly release: Pick<ReleaseRow, 'id' | 'formId' | 'number' | 'design'>;
  readonly doorId: string | null;
  /** The edition in which it was asked. */
  readonly edition?: string | null;
  /** The version of the text of its door that who asked agreed to. */
  readonly consent?: number | null;
  /** The language they agreed in. */
  readonly consentIn?: RequestRow['consentIn'];
  readonly requesterId: string | null;
  /** Who says that they asked, where nobody has confirmed it yet. */
  readonly claim?: RequestRow['claim'];
  /** Who typed it in, where that is somebody else. */
  readonly onBehalfId?: string | null;
  readonly enteredById?: string;
  readonly taken: TakenIn;
  readonly through: Through;
}

const without = (values: Values, keys: readonly string[]): Values =>
  keys.length === 0 ? values : Object.fromEntries(Object.entries(values).filter(([key]) => !keys.includes(key)));

/** The stage at which something arrives: to be decided when a decision is needed, else where its work begins. */
export const stageAtFirst = (register: RegisterRow, { approval, routed }: Pick<TakenIn, 'approval' | 'routed'>) =>
  approval ? stageWithRole(register, 'deciding') : firstStage(register, routed?.outcome.stage);

const add = adding(requests);

/**
 * Stores what was taken in as a request: to be decided when a decision is needed, at the first
 * stage otherwise; with what it claims and points to, its files, its history, and all that follows.
 */
export function addRequest(work: Work, incoming: Incoming): RequestRow {
  const { tx, now, effects } = work;
  const { number, register, release, doorId, requesterId, onBehalfId, enteredById, taken, through } = incoming;
  const { edition = null, consent = null, consentIn = null, claim: claimed = null } = incoming;
  const { routed, routing, deadlines } = taken;
  // What has left the register is not kept any more, though a release may still compute it.
  const values = without(taken.values, register.left);
  const stage = stageAtFirst(register, taken);
  const request: RequestRow = {
    ...{
      id: newId(),
      number,
      registerId: register.id,
      formId: release.formId,
      releaseId: release.id,
      computedBy: null,
      plannedBy: null,
      doorId,
      edition,
      consent,
      consentIn,
      requesterId,
      claim: claimed,
      onBehalfId: onBehalfId ?? null,
      enteredById: enteredById ?? null,
    },
    ...{ stage: stage.key, phase: stage.phase, team: routed?.outcome.team ?? null, handlerId: null },
    // Who decides is found by whoever keeps its rounds.
    ...{ deciders: null, priority: routed?.outcome.priority ?? null },
    ...{ values, routed: routing, due: nearest(deadlines), version: 1, createdAt: now, updatedAt: now },
    finishedAt: stage.phase === 'finished' ? now : null,
    trial: through.by === 'trial',
  };
  add(tx, request);
  if (!request.trial) {
    claim(tx, request, register, values);
    point(tx, request.id, release.design.fields, values);
    effects.changed.add(request.id);
  }
  claimFiles(tx, request.id, release.design.fields, values);
  readAnew(tx, request, register);
  happened(work, request, { kind: 'arrived', through, release: release.number, taken }, null);
  return request;
}

/**
 * Changes a request: the only place, besides arriving, where what is stored of one changes. What
 * follows from its values is computed, what it claims is refused or stored, then the request itself,
 * what it points to, its files, its history, what carries it along, and all that follows.
 *
 * `onVersion`: the version the change was made on; without it, the request is changed as it is.
 * Returns the request as it is then.
 *
 * @throws Problem 412 when somebody was faster; 409 when it would take up again what another request
 *   has by now.
 */
export function changeRequest<Row extends ShownRow>(
  work: Work,
  request: Row,
  change: Exclude<Happening, { kind: 'arrived' }>,
  onVersion?: number,
): Row {
  return changed(work, request, change, onVersion, 0);
}

/** Carried values that carry values in turn are followed so far. */
const DEEPEST = 5;

export function changed<Row extends ShownRow>(
  work: Work,
  request: Row,
  change: Exclude<Happening, { kind: 'arrived' }>,
  onVersion: number | undefined,
  depth: number,
): Row {
  const register = registerById(work.tx, request.registerId);
  const settled =
    change.kind === 'values' ? { ...change, changes: settledChanges(work, request, register, change) } : change;
  if (settled.kind === 'values' && settled.changes.length === 0) {
    // What computes it from now on is another release, with the same result: no news to anybody.
    if (settled.why === 'recomputed')
      work.tx.update(requests).set({ computedBy: settled.by }).where(eq(requests.id, request.id)).run();
    return request;
  }
  const outcome = outcomeOf(work, request, register, settled);
  if (outcome === null) {
    work.effects.changed.add(request.id);
    return happened(work, request, settled, request);
  }
  const after: Row = { ...request, ...outcome };
  refuseTaken(work, request, after, register);
  const isTold =
    onVersion !== undefined || settled.kind !== 'values' || isToldToAll(work.tx, register, request, settled.changes);
  if (isTold) work.effects.changed.add(request.id);
  // A new day is nobody’s change: what was read the evening before can still be worked on.
  const isRaised = isTold && (settled.kind !== 'values' || settled.why !== 'day');
  const stored = store(work, after, isRaised, onVersion ?? request.version);
  const isFinished = (row: ShownRow): boolean => row.phase === 'finished';
  const isOther = settled.kind === 'values' || settled.kind === 'same-person';
  if (!request.trial && (isOther || isFinished(request) !== isFinished(after)))
    claim(work.tx, stored, register, stored.values);
  if (settled.kind === 'values') {
    const fields = fieldsOf(work.tx, register, stored);
    claimFiles(work.tx, request.id, fields, stored.values);
    if (!request.trial) point(work.tx, request.id, fields, stored.values);
  }
  readAnew(work.tx, stored, register);
  const followed = happened(work, stored, settled, request);
  if (settled.kind === 'values' && !request.trial && depth < DEEPEST)
    for (const carried of carriedFrom(work, request.id, settled.changes)) {
      const following = { kind: 'values', why: 'followed', number: request.number, changes: carried.changes } as const;
      changed(by(work, null), carried.request, following, undefined, depth + 1);
    }
  return followed;
}

/** Writes down what happened, and lets all follow; gives the request as it is after them. */
function happened<Row extends ShownRow>(work: Work, request: Row, change: Happening, before: ShownRow | null): Row {
  remember(work, request.id, change);
  let row = request;
  for (const follow of following) {
    const followed = follow(work, row, change, before);
    if (followed) row = { ...row, ...followed };
  }
  return row;
}

const nearest = (deadlines: TakenIn['deadlines']): number | null =>
  deadlines.length === 0 ? null : Math.min(...deadlines.map(({ deadline }) => deadline.due));

const dueBy = changing(requests, ['due']);

/** Stores what a request is due by, for whoever keeps its deadlines. */
export function dueIs<Row extends ShownRow>({ tx }: Work, request: Row, due: number | null): Row {
  if (request.due === due) return request;
  dueBy(tx, { due, id: request.id });
  return { ...request, due };
}

const listed = (groups: readonly string[]): string => [...new Set(groups)].sort().join(' ');

/** Stores who may decide on a request or has decided, for whoever keeps its rounds: groups by key. */
export function decidersAre<Row extends ShownRow>({ tx }: Work, request: Row, words: readonly string[]): Row {
  const deciders = listed(words);
  if (request.deciders === deciders) return request;
  tx.update(requests).set({ deciders }).where(eq(requests.id, request.id)).run();
  return { ...request, deciders };
}

/** What a change does to the row of a request; null when it only stands in its history. */
function outcomeOf(
  work: Work,
  request: ShownRow,
  register: RegisterRow,
  change: Exclude<Happening, { kind: 'arrived' }>,
): Partial<ShownRow> | null {
  switch (change.kind) {
    case 'values':
      return {
        values: withChanges(request.values, change.changes),
        ...(change.why === 'recomputed' ? { computedBy: change.by } : {}),
      };
    case 'replanned':
      return { plannedBy: change.by };
    case 'handler':
      return { handlerId: change.to };
    case 'team':
      return { team: change.to };
    case 'priority':
      return { priority: change.to };
    case 'stage':
    case 'freed':
    case 'withdrawn':
    case 'merged':
    case 'unmerged':
    case 'decided-anew':
    case 'sent-to-decide':
    case 'returned':
    case 'answered':
    case 'decided': {
      const stage = stageAfter(register, change);
      return stage === null || (change.kind === 'merged' && stage === request.stage)
        ? null
        : movedTo(work, register, stage);
    }
    case 'claimed':
      return { requesterId: change.of, claim: null };
    case 'same-person':
      return samePerson(fieldsOf(work.tx, register, request), request, change);
    case 'said':
    case 'due':
    case 'rang':
    case 'seat':
    case 'silent':
    case 'handed':
    case 'nobody-decides':
    case 'nobody-handles':
    case 'taken-back':
    case 'shared':
    case 'unshared':
    case 'followed':
    case 'unfollowed':
    case 'links-ended':
    case 'link-sent':
    case 'undelivered':
    case 'confirmed':
    case 'proposed':
    case 'proposal-refused':
    case 'proposal-ended':
    case 'put-back':
    case 'took-in':
    case 'let-out':
      return null;
  }
}

/** A request that names another record of the same person, wherever it named the one. */
function samePerson(
  fields: readonly Field[],
  request: ShownRow,
  { from, to }: { readonly from: string; readonly to: string },
): Partial<ShownRow> {
  const now = <Id extends string | null>(id: Id): Id | string => (id === from ? to : id);
  const named = fields.flatMap(({ key, type }): [string, FieldValue][] => {
    const value = own(request.values, key);
    if (type.kind === 'person' && value === from) return [[key, to]];
    if (type.kind !== 'people' || !Array.isArray(value) || !(value as readonly unknown[]).includes(from)) return [];
    return [[key, [...new Set((value as readonly string[]).map(now))]]];
  });
  return {
    ...{ requesterId: now(request.requesterId), onBehalfId: now(request.onBehalfId) },
    ...{ enteredById: now(request.enteredById), handlerId: now(request.handlerId) },
    values: { ...request.values, ...Object.fromEntries(named) },
  };
}

/** A request at another stage. */
function movedTo({ now }: Work, register: RegisterRow, key: string): Partial<ShownRow> {
  const to = stageOf(register, key);
  return {
    stage: to.key,
    phase: to.phase,
    finishedAt: to.phase === 'finished' ? now : null,
  };
}

/** Refuses to take up again what is finished, when another request has by now what no two may have. */
function refuseTaken({ tx }: Work, before: ShownRow, after: ShownRow, register: RegisterRow): void {
  if (before.trial || before.phase !== 'finished' || after.phase === 'finished') return;
  const [taken] = takenAnswers(tx, {
    register,
    protection: protectionFor(tx, register, before),
    values: after.values,
    asker: null,
    but: after,
  });
  if (taken)
    throw new Problem(
      409,
      'taken',
      refused('takenMeanwhile', { label: partName({ fields: register.fields, parts: [] }, taken.field) }),
      [taken],
    );
}

const storing = prepared((db) => {
  const { values, stage, phase, finishedAt, team, priority, handlerId, computedBy, plannedBy, version, updatedAt } =
    requests;
  const { requesterId, claim: claimed, onBehalfId, enteredById } = requests;
  const columns = {
    ...{ values, stage, phase, finishedAt, team, priority, handlerId, computedBy, plannedBy, version, updatedAt },
    ...{ requesterId, claim: claimed, onBehalfId, enteredById },
  };
  return db
    .update(requests)
    .set(givenAll(columns))
    .where(and(eq(requests.id, sql.placeholder('id')), eq(requests.version, sql.placeholder('onVersion'))))
    .prepare();
});

/** Stores a changed request, and raises its version where everybody may know that it changed. */
function store<Row extends ShownRow>({ tx, now }: Work, after: Row, isRaised: boolean, version: number): Row {
  const raised = isRaised ? { version: version + 1, updatedAt: now } : {};
  const { values, stage, phase, finishedAt, team, priority, handlerId, computedBy, plannedBy } = after;
  const { changes } = storing(tx).run({
    ...{ values, stage, phase, finishedAt, team, priority, handlerId, computedBy, plannedBy },
    ...{
      requesterId: after.requesterId,
      claim: after.claim,
      onBehalfId: after.onBehalfId,
      enteredById: after.enteredById,
    },
    ...{ version: after.version, updatedAt: after.updatedAt, ...raised, id: after.id, onVersion: version },
  });
  if (changes === 0) throw staleVersion();
  return { ...after, ...raised };
}

/** Takes away what an area above keeps of requests that are deleted. */
export type Forgetter = (work: Work, requestIds: readonly string[]) => void;

let forgetters: readonly Forgetter[] = [];

/** Says what goes with requests that are deleted, in which order: whoever knows all areas, once. */
export function forgottenBy(all: readonly Forgetter[]): void {
  forgetters = all;
}

/**
 * Deletes requests, with everything that came of them: what areas above keep, their history, what they claimed and pointed to.
 * Their files are let go of, unless they are kept for a while. No request may point to them.
 */
export function deleteRequests(work: Work, ids: readonly string[], keepsFiles = false): void {
  const { tx } = work;
  const some = [...ids];
  for (const forget of forgetters) forget(work, some);
  for (const table of [history, claims, pointers, readings, ruleRunChanges, shares, followers, mergedRequests])
    tx.delete(table).where(inArray(table.requestId, some)).run();
  if (!keepsFiles) letGoOfFiles(tx, some);
  tx.delete(requests).where(inArray(requests.id, some)).run();
}

/**
 * Brings back a request that was laid by, as it was: what it carries along and what is computed is as it is by now, what it
 * holds against others is held again. Nobody is told, and nothing rings that was missed. What it pointed to and is gone is
 * pointed to no more.
 *
 * @throws Problem 409 where another request has by now what no two may have; SqliteError where something is gone that it needs.
 */
export function bringBack(work: Work, id: string, laid: Laid, deletedAt: number): RequestRow {
  const { tx, now } = work;
  putBackRows(tx, laid, now);
  const was = tx.select().from(requests).where(eq(requests.id, id)).get();
  if (!was) throw new Error(`request ${id} was laid by without a row`);
  const register = registerById(tx, was.registerId);
  const fields = fieldsOf(tx, register, was);
  const { values } = keepingOf(tx, was, register)(was.values, new Set(), factsOfRequest(tx, was, register, now));
  const changes = changesBetween(fields, was.values, values);
  const request: RequestRow = { ...was, values: withChanges(was.values, changes) };
  refuseTaken(work, { ...was, phase: 'finished' }, request, register);
  if (changes.length > 0) {
    tx.update(requests).set({ values: request.values }).where(eq(requests.id, id)).run();
    remember(work, id, { kind: 'values', why: 'day', changes });
  }
  claim(tx, request, register, request.values);
  point(tx, id, fields, request.values, (target) => isThere(tx, requests, target));
  readAnew(tx, request, register);
  work.effects.changed.add(id);
  return happened(work, request, { kind: 'put-back', deletedAt }, request) as RequestRow;
}
