import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import { type Field, type FieldValue, isFilled, type RawAnswers, typedForm } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import { and, desc, eq, ne } from 'drizzle-orm';
import { putRoundsBack, roundsNow } from '../approval/follow.ts';
import { roundOf } from '../approval/queries.ts';
import { adding } from '../platform/adding.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { Problem, staleVersion } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { firstStage, type RegisterRow } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { changeAnswers } from '../request/changeAnswers.ts';
import { changesBetween, isSame } from '../request/changes.ts';
import { mergedAs, mergedInto } from '../request/merged.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { type RequestRow, requestById, SHOWN_COLUMNS } from '../request/queries.ts';
import { requestsPointingTo } from '../request/references.ts';
import { mergedRequests, requests } from '../request/tables.ts';
import { openTo } from './openTo.ts';

type Open = OpenRequest<RequestRow>;

/** Files are of the request they came with, and are read there. */
const isTaken = (field: Field): boolean => isFilled(field) && field.type.kind !== 'files';

/** Fields in which two requests differ, as far as whoever merges them reads both. */
const differing = (of: Open, into: Open): readonly Field[] =>
  into.fields.filter(
    (field) =>
      isTaken(field) &&
      of.readable.has(field.key) &&
      into.readable.has(field.key) &&
      !isSame(own(of.request.values, field.key) ?? null, own(into.request.values, field.key) ?? null),
  );

/** Where something goes that is merged: withdrawn where there is such a stage, else done. */
const endOf = ({ stages }: RegisterRow) => {
  const ends = stages.filter(({ phase, retired, role }) => phase === 'finished' && !retired && role !== 'refused');
  return ends.find(({ role }) => role === 'withdrawn') ?? ends.find(({ role }) => role === 'done') ?? ends[0];
};

/** The two that are to be merged. @throws Problem 403, 404, and 409 where they can’t be */
function bothOf(db: Reader, viewer: Viewer, number: string, other: string): { readonly of: Open; readonly into: Open } {
  const of = openTo(db, viewer, number, 'change');
  const into = openTo(db, viewer, other.trim(), 'change');
  const not = (
    why: 'togetherSelf' | 'togetherElsewhere' | 'togetherMerged' | 'togetherTaken' | 'togetherTrial',
  ): Problem => new Problem(409, 'not-merged', refused(why, { number: of.request.number, other: into.request.number }));
  if (of.request.id === into.request.id) throw not('togetherSelf');
  if (of.register.id !== into.register.id) throw not('togetherElsewhere');
  if (of.request.trial || into.request.trial || !endOf(of.register)) throw not('togetherTrial');
  if (mergedAs(db, of.request.id) || mergedAs(db, into.request.id)) throw not('togetherMerged');
  if (mergedInto(db, of.request.id).length > 0) throw not('togetherTaken');
  return { of, into };
}

/** Requests that are looked through for one that is alike, the newest first; and those that are named. */
const LOOKED = 200;
const NAMED = 5;

/** Those of the register that say the same as a request, or were asked by the same; the likest first. */
function alikeTo(db: Reader, viewer: Viewer, of: Open): AnswerOf<'requestMergePlan'>['alike'] {
  const { request } = of;
  const fields = of.fields.filter((field) => isTaken(field) && of.readable.has(field.key));
  const said = fields.filter(({ key }) => own(request.values, key) !== undefined);
  return db
    .select(SHOWN_COLUMNS)
    .from(requests)
    .where(and(eq(requests.registerId, request.registerId), eq(requests.trial, false), ne(requests.id, request.id)))
    .orderBy(desc(requests.createdAt), desc(requests.id))
    .limit(LOOKED)
    .all()
    .flatMap((row) => {
      if (mergedAs(db, row.id)) return [];
      const open = openRequest(db, row, viewer, 'list');
      if (!open.relation.isDesk) return [];
      const same = said.filter(
        ({ key }) => open.readable.has(key) && isSame(own(row.values, key) ?? null, own(request.values, key) ?? null),
      ).length;
      const isTheirs = row.requesterId !== null && row.requesterId === request.requesterId;
      return same > 1 && (same * 3 >= said.length || isTheirs)
        ? [{ number: row.number, subject: open.subject, same, isTheirs }]
        : [];
    })
    .sort((a, b) => b.same - a.same)
    .slice(0, NAMED);
}

/**
 * What merging a request into another would come to: the fields in which they differ, with what both say. Without another,
 * those that are alike. Nothing is changed.
 *
 * @throws Problem 403, 404, and 409 where they can’t be merged
 */
export function requestMergePlan(
  db: Reader,
  viewer: Viewer,
  number: string,
  other: string,
): AnswerOf<'requestMergePlan'> {
  if (other.trim() === '') return { alike: alikeTo(db, viewer, openTo(db, viewer, number, 'change')), into: null };
  const { of, into } = bothOf(db, viewer, number, other);
  const fields = differing(of, into);
  const keys = fields.map(({ key }) => key);
  return {
    alike: [],
    into: {
      ...{ number: into.request.number, version: into.request.version, subject: into.subject },
      fields: fields.map(({ key, label }) => ({
        ...{ key, label, mayTake: into.mayWrite(key) },
        // What says nothing takes what the other says.
        takes: into.mayWrite(key) && own(into.request.values, key) === undefined,
      })),
      ...{ here: into.cellsOf(keys), theirs: of.cellsOf(keys) },
      pointing: requestsPointingTo(db, of.request.id).length,
    },
  };
}

const addMerged = adding(mergedRequests);

/** The value of a reference with one request in place of another. */
const pointedAt = (value: FieldValue | undefined, from: string, to: string): FieldValue | undefined => {
  if (value === from) return to;
  if (!Array.isArray(value) || !(value as readonly unknown[]).includes(from)) return value;
  return [...new Set((value as readonly string[]).map((id) => (id === from ? to : id)))];
};

/** Has a reference of a request point to another, with what it carries along. */
function pointElsewhere(
  work: Work,
  { id, field }: { readonly id: string; readonly field: string },
  { id: from }: Pick<RequestRow, 'id'>,
  { id: to, number }: Pick<RequestRow, 'id' | 'number'>,
): void {
  const request = requestById(work.tx, id);
  const before = request && own(request.values, field);
  const after = pointedAt(before, from, to);
  if (!request || before === undefined || after === undefined || isSame(before, after)) return;
  changeRequest(work, request, { kind: 'values', why: 'pointed', number, changes: [{ field, before, after }] });
}

/**
 * Merges a request into another that is about the same: the other takes what is chosen of it, and whatever points to it points
 * there; it ends, and both who asked are told that theirs is handled together with another.
 *
 * @throws Problem 403, 404, 409 where they can’t be merged, 412, 422 for what the other can’t take
 */
export function mergeRequest(
  house: House,
  viewer: Viewer,
  input: { readonly number: string; readonly version: number } & BodyOf<'mergeRequest'>,
): AnswerOf<'mergeRequest'> {
  return write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { tx, now } = work;
    const { of, into } = bothOf(tx, viewer, input.number, input.into);
    const { request } = of;
    if (request.version !== input.version || into.request.version !== input.intoVersion) throw staleVersion();
    const differs = differing(of, into).filter(({ key }) => input.take.includes(key));
    const changes: RawAnswers = Object.fromEntries(
      differs.map((field) => {
        const value = own(request.values, field.key);
        return [field.key, value === undefined ? null : typedForm(field, value)];
      }),
    );
    const round = roundOf(tx, request.id)?.state === 'open' ? roundsNow(tx, request.id) : null;
    const { stage, deciders, id } = request;
    // It ends before the other takes what only one of them may have.
    const end = request.phase === 'finished' ? stage : (endOf(of.register)?.key ?? stage);
    const change = { kind: 'merged', from: stage, to: end, into: into.request.number } as const;
    addMerged(tx, {
      ...{ requestId: id, intoId: into.request.id, at: now, by: viewer.personId, stage, round, deciders },
      ...{ taken: [], moved: [] },
    });
    changeRequest(work, request, change, input.version);
    if (differs.length > 0) changeAnswers(work, viewer, into, { changes, version: input.intoVersion, asker: null });
    const taken = changesBetween(
      into.fields,
      into.request.values,
      requestById(tx, into.request.id)?.values ?? into.request.values,
    );
    const moved = requestsPointingTo(tx, id)
      .filter(({ requestId }) => requestId !== into.request.id)
      .map(({ requestId, field }) => ({ id: requestId, field }));
    for (const each of moved) pointElsewhere(work, each, request, into.request);
    tx.update(mergedRequests).set({ taken, moved }).where(eq(mergedRequests.requestId, id)).run();
    const other = requestById(tx, into.request.id);
    if (other) changeRequest(work, other, { kind: 'took-in', number: request.number });
    return { into: into.request.number };
  });
}

/**
 * Undoes a merge in one step: the request is where it was, with the decision that waited, and what pointed to it does so again;
 * the other has what it had before, but for what was changed there since.
 *
 * @throws Problem 403, 404, 409 where it is not merged, or another has by now what only one may have
 */
export function unmergeRequest(house: House, viewer: Viewer, number: string): AnswerOf<'unmergeRequest'> {
  return write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { tx } = work;
    const { request, register } = openTo(tx, viewer, number, 'change');
    const merged = mergedAs(tx, request.id);
    const into = merged && requestById(tx, merged.intoId);
    if (!merged || !into) throw new Problem(409, 'not-merged', refused('togetherOver', { number: request.number }));
    openTo(tx, viewer, into.number, 'change');
    tx.delete(mergedRequests).where(eq(mergedRequests.requestId, request.id)).run();
    // What was changed there since stays.
    const changes = merged.taken.flatMap(({ field, before, after }) => {
      const is = own(into.values, field) ?? null;
      return isSame(is, after) ? [{ field, before: is, after: before }] : [];
    });
    const other = changes.length > 0 ? changeRequest(work, into, { kind: 'values', why: 'changed', changes }) : into;
    for (const each of merged.moved) pointElsewhere(work, each, into, request);
    const stage = stageBefore(register, merged.stage);
    const apart = { kind: 'unmerged', from: request.stage, to: stage, into: into.number } as const;
    const back = stage === request.stage ? request : changeRequest(work, request, apart);
    if (merged.round) putRoundsBack(work, back, merged.round, merged.deciders?.split(' ') ?? []);
    changeRequest(work, requestById(tx, other.id) ?? other, { kind: 'let-out', number: request.number });
    return { number: request.number };
  });
}

/** The stage something was at, where it is still there. */
const stageBefore = (register: RegisterRow, key: string): string =>
  (register.stages.find((stage) => stage.key === key) ?? firstStage(register)).key;
