import type { AnswerOf } from '@tolvek/contract';
import { completedOver, editionOf, prepareCompletion } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import { calledApart, mayAnywhere, rightsAt, toldApart, type Viewer } from '@tolvek/core/people';
import {
  type Priority,
  type RawAnswers,
  type RequestFacts,
  type Stage,
  stagesToFreeTo,
  typedForm,
} from '@tolvek/core/register';
import type { RequestChange } from '@tolvek/core/request';
import { refused, said } from '@tolvek/words';
import { askAnew } from '../approval/anew.ts';
import { roundOf, stepOf } from '../approval/queries.ts';
import { doorOf } from '../door/queries.ts';
import { claimMessageFiles } from '../files/commands.ts';
import { releaseById } from '../form/queries.ts';
import { rightMissing } from '../people/grants.ts';
import { allGroups, membersOf, personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed, notFound, Problem, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { type RegisterRow, registerById, stageOf, stageWithRole } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { changeAnswers } from '../request/changeAnswers.ts';
import { stagesBefore } from '../request/history.ts';
import { type OpenRequest, openAtDesk, openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, requestByNumber, type ShownRow } from '../request/queries.ts';
import { movesOf } from './moves.ts';
import { openTo } from './openTo.ts';

interface OnVersion {
  readonly number: string;
  readonly version: number;
}

/**
 * Changes fields: each must be writable for the viewer, understood, an answer its kind allows, and
 * sound by the rules of every saving.
 */
export function changeFields(
  house: House,
  viewer: Viewer,
  input: OnVersion & { changes: RawAnswers },
): AnswerOf<'changeFields'> {
  return write(house, (work) => {
    const open = openTo(work.tx, viewer, input.number, 'change');
    return changeAnswers(work, viewer, open, { ...input, asker: null });
  });
}

/**
 * Changes answers of one’s own request: those that the access plan lets whoever asked change, as it stands.
 *
 * @throws Problem 404 for anybody else, 412 when somebody was faster, 422 for what may not be changed, or is no answer.
 */
export function changeOwn(
  house: House,
  viewer: Viewer,
  input: OnVersion & { changes: RawAnswers },
): AnswerOf<'changeFields'> {
  return write(house, (work) => {
    const request = requestByNumber(work.tx, input.number.toUpperCase());
    if (!request || !isOwnOf(request, viewer.personId)) throw notFound('request');
    if (!personById(work.tx, viewer.personId)?.active) throw notAllowed(refused('cannotWrite'));
    const open = openRequest(work.tx, request, viewer, 'following');
    const asks = (changes: RawAnswers, facts: RequestFacts) => asksAgain(work.tx, open, changes, facts);
    const { version, warnings } = changeAnswers(work, viewer, open, { ...input, asker: viewer.personId, asks });
    const changed = version === request.version ? undefined : requestByNumber(work.tx, request.number);
    const again = doorOf(work.tx, request)?.design.again;
    if (!changed) return { version, warnings };
    const row = askAnew(work, changed, again);
    // Whoever decides had asked for more: what was changed is the answer.
    if (row.phase === 'paused' && roundOf(work.tx, row.id)?.state === 'open') goOnWhenAnswered(work, row);
    return { version: requestByNumber(work.tx, row.number)?.version ?? row.version, warnings };
  });
}

/**
 * What the form would say to whoever changes their answers, as where they asked: of what they change, and of what is only
 * asked for by that.
 */
function asksAgain(
  db: Reader,
  { request, fields, reading, layout, design }: OpenRequest<RequestRow>,
  changes: RawAnswers,
  facts: RequestFacts,
): Pick<ReturnType<typeof completedOver>, 'problems' | 'dropped'> {
  // As they were given it; in the edition they are given now, where there is one.
  const asked = design.editions?.find(({ id }) => id === request.edition);
  const form = layout?.form ?? (asked && editionOf(design, asked));
  const { complete } = form ? { complete: prepareCompletion(form) } : releaseById(db, request.releaseId);
  const stood = reading.only(request.values);
  const before: RawAnswers = Object.fromEntries(
    fields.flatMap((field) => {
      const value = field.source === 'asked' ? own(stood, field.key) : undefined;
      return value === undefined ? [] : [[field.key, typedForm(field, value)] as const];
    }),
  );
  return completedOver(complete, before, changes, facts);
}

/** Moves a request by hand. Pausing stops its deadline, going on resumes it, finishing ends it. */
export const moveStage = (house: House, viewer: Viewer, input: OnVersion & { stage: string }): { version: number } =>
  write(house, (work) => movedBy(work, viewer, input));

/** Where a request can be moved to, and why not elsewhere. @throws Problem 403, 404, and 409 while it waits for a decision */
export function waysFrom(db: Reader, viewer: Viewer, number: string, now: number) {
  const open = openTo(db, viewer, number, 'move');
  if (roundOf(db, open.request.id)?.state === 'open') throw new Problem(409, 'stage', refused('awaitsDecision'));
  return { open, moves: movesOf(db, open, viewer, now) };
}

/** A request that can be moved to a stage, and what that would be. @throws Problem 409 for why it can’t */
export function movable({ open, moves }: ReturnType<typeof waysFrom>, stage: string) {
  const { request, register } = open;
  const from = stageOf(register, request.stage);
  const to = register.stages.find(({ key }) => key === stage);
  const move = moves.find((each) => each.stage.key === stage);
  // From outside stages are read as requesters read them, and conditions of ways are the desk’s.
  const { calledIn = false } = open.relation;
  const called = (at: typeof from): string => (calledIn ? at.publicLabel : at.label);
  if (!move || !to || (calledIn && move.whyNot !== null))
    throw new Problem(
      409,
      'stage',
      from.role === 'deciding'
        ? refused('awaitsDecision')
        : refused('noMove', { from: called(from), to: to ? called(to) : '…' }),
    );
  if (move.whyNot !== null) throw new Problem(409, 'stage', refused('notYet', { to: to.label, why: move.whyNot }));
  return { request, change: { kind: 'stage', from: from.key, to: to.key } as const };
}

/** Moves a request as part of a write. @throws Problem as `waysFrom` and `movable`, and 412 when somebody was faster */
export function movedBy(work: Work, viewer: Viewer, input: OnVersion & { stage: string }): { version: number } {
  const { request, change } = movable(waysFrom(work.tx, viewer, input.number, work.now), input.stage);
  return { version: changeRequest(by(work, viewer.personId), request, change, input.version).version };
}

/**
 * Moves a request on from where nobody else can: what waits for a decision, was refused, or is stuck.
 * A decision that waited is withdrawn; the reason stands in its history.
 */
export function freeRequest(
  house: House,
  viewer: Viewer,
  input: OnVersion & { stage: string; reason: string },
): { version: number } {
  return write(house, (work) => {
    if (!mayAnywhere(viewer, 'move', 'none')) throw rightMissing(work.tx, 'move:all');
    const { request, register } = openAtDesk(work.tx, viewer, input.number, 'changing');
    if (!rightsAt(viewer, register.id).includes('move:all')) throw rightMissing(work.tx, 'move:all');
    const from = stageOf(register, request.stage);
    const to = stagesToFreeTo(register.stages, from).find((stage) => stage.key === input.stage);
    if (!to) throw wrongFields([{ field: 'stage', message: said('work:noStage'), fix: said('work:chooseFromList') }]);
    const change = { kind: 'freed', from: from.key, to: to.key, reason: input.reason } as const;
    return { version: changeRequest(by(work, viewer.personId), request, change, input.version).version };
  });
}

/** The groups a request can be handed over to. */
export const teamsFor = (tx: Parameters<typeof membersOf>[0]): readonly { key: string; name: string }[] =>
  allGroups(tx).flatMap(({ key, name, isTeam, retired }) => (isTeam && !retired ? [{ key, name }] : []));

/**
 * Hands a request over to another team, or gives it another priority. A handler who is not in the new
 * team lets go of it.
 */
export function reroute(house: House, viewer: Viewer, input: OnVersion & Wanted): { version: number } {
  return write(house, (work) => {
    const { request } = openToReroute(work.tx, viewer, input.number);
    teamThere(work.tx, input.team);
    return { version: rerouted(by(work, viewer.personId), request, input).version };
  });
}

/** A request that somebody may give to others. @throws Problem 404, 403; 409 for a thing, which has no team. */
export function openToReroute(db: Reader, viewer: Viewer, number: string): OpenRequest<RequestRow> {
  const open = openTo(db, viewer, number, 'assign');
  if (open.register.holds === 'things' || open.request.team === null)
    throw new Problem(409, 'thing', refused('thingHasNoTeam'));
  return open;
}

/** @throws Problem 422 for a team there is none of. */
export function teamThere(tx: Parameters<typeof membersOf>[0], team: string): void {
  if (!teamsFor(tx).some(({ key }) => key === team))
    throw wrongFields([{ field: 'team', message: said('work:noTeam'), fix: said('work:chooseTeam') }]);
}

/** A request with another team or priority, as whoever acts says. @throws Problem 412 when somebody was faster. */
export function rerouted(
  work: Work,
  request: RequestRow,
  { team, priority, version, reason }: Pick<OnVersion, 'version'> & Wanted,
): RequestRow {
  const why = reason?.trim() ? { reason: reason.trim() } : {};
  let row = request;
  if (priority !== row.priority) {
    const change = { kind: 'priority', from: row.priority, to: priority, ...(team === row.team ? why : {}) } as const;
    row = changeRequest(work, row, change, version);
  }
  if (team === row.team) return row;
  return handOver(work, row, team, { ...why, onVersion: row === request ? version : row.version });
}

interface Wanted {
  readonly team: string;
  readonly priority: Priority;
  readonly reason?: string | undefined;
}

/** Gives a request to another team; a handler who is not in it lets go of it. `onVersion`: as for any change. */
export function handOver<Row extends ShownRow>(
  work: Work,
  request: Row,
  team: string,
  { onVersion, ...why }: { readonly reason?: string; readonly onVersion?: number } = {},
): Row {
  const { handlerId } = request;
  const moved = changeRequest(work, request, { kind: 'team', from: request.team, to: team, ...why }, onVersion);
  const stays = membersOf(work.tx, team).some((person) => person.id === handlerId);
  return handlerId === null || stays
    ? moved
    : changeRequest(work, moved, { kind: 'handler', from: handlerId, to: null }, onVersion && moved.version);
}

/** Who may be given a request: active members of its team; a thing, those of its register’s desk. */
export function assignableTo(
  tx: Parameters<typeof membersOf>[0],
  { team }: Pick<RequestRow, 'team'>,
  { deskGroups }: Pick<RegisterRow, 'deskGroups'>,
) {
  const found = (team === null ? deskGroups : [team]).flatMap((group) => membersOf(tx, group));
  const people = [...new Map(found.map((person) => [person.id, person])).values()];
  return toldApart(people).map(({ id, ...person }) => ({ id, name: calledApart(person) }));
}

export function assign(
  house: House,
  viewer: Viewer,
  input: OnVersion & { person: string | null },
): { version: number } {
  return write(house, (work) => {
    const { request, register } = openTo(work.tx, viewer, input.number, 'assign');
    const handler =
      input.person === null
        ? null
        : assignableTo(work.tx, request, register).find((person) => person.id === input.person);
    if (handler === undefined)
      throw wrongFields([{ field: 'person', message: said('work:notInTeam'), fix: said('work:chooseFromTeam') }]);
    const change = { kind: 'handler', from: request.handlerId, to: handler?.id ?? null } as const;
    return { version: changeRequest(by(work, viewer.personId), request, change, input.version).version };
  });
}

/** Words of somebody who works on a request. */
interface Saying {
  readonly number: string;
  readonly text: string;
  readonly visibility: 'internal' | 'requester' | 'handler';
  readonly files?: readonly string[] | undefined;
}

/** A request that somebody can write about, and to whom. @throws Problem 404, 409 where there is nobody to write to */
export function writable(db: Reader, viewer: Viewer, { number, visibility }: Omit<Saying, 'text'>) {
  const { request } = openTo(db, viewer, number, 'change');
  const to: 'desk' | 'requester' | 'handler' = visibility === 'internal' ? 'desk' : visibility;
  const { handlerId } = request;
  const handler = handlerId === null ? undefined : personById(db, handlerId);
  if (to === 'handler' && (handler?.kind !== 'contact' || handler.id === viewer.personId))
    throw new Problem(409, 'nobody-outside', refused('nobodyOutside'));
  if (to === 'requester' && request.requesterId === null)
    throw new Problem(409, 'nobody-asked', refused(request.claim === null ? 'nobodyReads' : 'notConfirmedYet'));
  return { request, to, whom: to === 'handler' ? handler?.id : undefined };
}

/** Says something about a request. */
export function saidBy(work: Work, viewer: Viewer, saying: Saying): void {
  const { request, to, whom } = writable(work.tx, viewer, saying);
  const files = claimMessageFiles(work.tx, request, saying.files ?? []);
  const words = { kind: 'said', text: saying.text, to, ...(whom ? { whom } : {}), byRequester: false, files } as const;
  changeRequest(by(work, viewer.personId), request, words);
}

/** A note for the desk, or a message to the requester, or to somebody from outside who handles it. */
export const comment = (house: House, viewer: Viewer, saying: Saying): void =>
  write(house, (work) => saidBy(work, viewer, saying));

/** A message from the requester; who works on the request hears of it. */
export function messageFromRequester(
  house: House,
  requesterId: string,
  requestNumber: string,
  { text, files: refs = [] }: { readonly text: string; readonly files?: readonly string[] | undefined },
): void {
  write(house, (work) => {
    const request = requestByNumber(work.tx, requestNumber);
    if (!request || !isOwnOf(request, requesterId)) throw notFound('request');
    const requester = personById(work.tx, requesterId);
    if (!requester?.active) throw notAllowed(refused('cannotWrite'));
    const files = claimMessageFiles(work.tx, request, refs);
    takeMessage(by(work, requesterId), request, { text, files });
  });
}

/** Words about a request, with what came along and how. */
type Written = Pick<Extract<RequestChange, { kind: 'said' }>, 'text' | 'files' | 'email'>;

/** Takes words in as whoever’s it is, and goes on with what waited for them. */
export function takeMessage(work: Work, request: RequestRow, words: Written): void {
  changeRequest(work, request, { kind: 'said', ...words, to: 'requester', byRequester: true });
  goOnWhenAnswered(by(work, null), request);
}

/** Notes words for the desk. */
export const takeNote = (work: Work, request: RequestRow, words: Written): void =>
  void changeRequest(work, request, { kind: 'said', ...words, to: 'desk', byRequester: false });

/**
 * What waits for its requester goes on when they have answered, where it was before it waited; by
 * itself, as nobody moved it.
 */
function goOnWhenAnswered(work: Work, request: RequestRow): void {
  if (request.phase !== 'paused') return;
  const register = registerById(work.tx, request.registerId);
  const round = roundOf(work.tx, request.id);
  if (round?.state === 'open') {
    const { key } = stageWithRole(register, 'deciding');
    changeRequest(work, request, { kind: 'answered', step: stepOf(round).label, from: request.stage, to: key });
    return;
  }
  const isAt = (stage: Stage | undefined): stage is Stage =>
    stage !== undefined && !stage.role && !stage.retired && (stage.phase === 'working' || stage.phase === 'arrived');
  const before = stagesBefore(work.tx, request.id, request.stage)
    .map((key) => register.stages.find((stage) => stage.key === key))
    .find(isAt);
  const to = before ?? register.stages.find((stage) => stage.phase === 'working' && isAt(stage));
  if (to) changeRequest(work, request, { kind: 'stage', from: request.stage, to: to.key });
}
