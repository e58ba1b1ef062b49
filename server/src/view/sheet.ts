import type { AnswerOf, BodyOf } from '@tolvek/contract';
import {
  type Protection,
  type Revealed,
  readableKeys,
  reveal,
  revealChanges,
  revealReason,
  revealSubject,
  type VisibleChange,
} from '@tolvek/core/access';
import { mayNotDecide } from '@tolvek/core/approval';
import { fuseAt, lengthInWords, momentInWords, promiseInWords } from '@tolvek/core/deadline';
import { type FormDesign, sinksOf } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { type Stage, stagesToMoveTo } from '@tolvek/core/register';
import { type ChangeNames, changeInWords } from '@tolvek/core/request';
import { eq } from 'drizzle-orm';
import { approvalOf } from '../approval/queries.ts';
import { calendarOf } from '../calendar/queries.ts';
import { assignableTo } from '../desk/commands.ts';
import { doors } from '../door/tables.ts';
import { releaseById } from '../form/queries.ts';
import { groupNames, namesOf, personById } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { holdsThings, type RegisterRow, stageOf } from '../register/queries.ts';
import { factsOfRequest, pickedFrom } from '../request/facts.ts';
import { historyOfRequest } from '../request/history.ts';
import { onlyOf } from '../request/keeping.ts';
import { openFor } from '../request/open.ts';
import { type RequestRow, requestByNumber } from '../request/queries.ts';
import { offersOf, requestsNamed } from '../request/references.ts';
import { seenIn } from '../request/seen.ts';
import type { history } from '../request/tables.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { hopsOf } from './hops.ts';
import { openTo, pointingAt } from './pointing.ts';

export const stageView = (stage: Stage) => ({
  key: stage.key,
  label: stage.label,
  phase: stage.phase,
  role: stage.role ?? null,
});

/** All that several views of one request have in common. */
function openRequest(db: Reader, request: RequestRow, viewer: Viewer) {
  const { register, relation, access } = openFor(db, request, viewer);
  const { release } = releaseById(db, request.releaseId);
  const plan = release.design.deadline;
  const calendar = calendarOf(db, plan.calendar);
  const approval = approvalOf(db, request.id);
  const decidedBy = approval?.decidedBy ? (personById(db, approval.decidedBy)?.name ?? null) : null;
  const visible = reveal({ ...access, values: request.values });
  const subject = revealSubject(release.design.subject, visible, release.design.title);
  const stage = stageOf(register, request.stage);
  const moment = (ms: number): string => momentInWords(ms, calendar.zone);
  const teamName = groupNames(db).get(request.team) ?? request.team;
  const readable = readableKeys(access);
  const isRoutingOpen = mayReadRouting(release.design, access.protection, readable);
  const hops = (reader: 'desk' | 'requester') =>
    hopsOf({ request, stage, design: release.design, approval, teamName, decidedBy, moment, isRoutingOpen }, reader);
  return {
    register,
    release,
    relation,
    plan,
    calendar,
    approval,
    decidedBy,
    access,
    visible,
    subject,
    stage,
    moment,
    teamName,
    readable,
    isRoutingOpen,
    hops,
  };
}

/**
 * Whether somebody may know which row was taken: it tells of what the table asks for. It is the
 * table that decides, not what this request holds.
 */
const mayReadRouting = (
  { routing }: FormDesign,
  { fields, tells }: Protection,
  readable: ReadonlySet<string>,
): boolean =>
  sinksOf({ fields, routing })
    .filter((sink) => sink.kind === 'routing')
    .every((sink) => tells(sink).every((key) => readable.has(key)));

/** The request sheet for somebody of its desk. */
export function sheetOf(db: Reader, viewer: Viewer, number: string, now: number): AnswerOf<'sheet'> {
  const request = requestByNumber(db, number);
  if (!request) throw notFound('This request');
  const open = openRequest(db, request, viewer);
  if (!open.relation.isDesk) throw notFound('This request');
  const { register, release, approval, plan, calendar, stage, moment } = open;
  const { readable } = open;
  const { fields } = open.access.protection;
  const readableFields = fields.filter((field) => readable.has(field.key));
  const references = requestsNamed(db, readableFields, request.values);
  const requester = personById(db, request.requesterId);
  const handler = request.handlerId ? personById(db, request.handlerId) : undefined;
  const objection = approval ? mayNotDecide(approval, viewer, request.requesterId) : null;
  const { outcome } = request.routed;
  const door = db.select({ kind: doors.kind }).from(doors).where(eq(doors.id, request.doorId)).get();
  return {
    number: request.number,
    version: request.version,
    subject: open.subject,
    form: release.design.title,
    release: release.number,
    trial: request.trial,
    thing: holdsThings(register),
    door: door?.kind ?? 'staff',
    requester: { name: requester?.name ?? '', outside: requester?.kind === 'contact' },
    stage: stageView(stage),
    moves: stagesToMoveTo(register.stages, stage).map(stageView),
    team: open.teamName,
    handler: handler ? { id: handler.id, name: handler.name } : null,
    assignable: assignableTo(db, request),
    priority: request.priority,
    values: open.visible,
    fieldTypes: Object.fromEntries(readableFields.map((field) => [field.key, field.type])),
    help: Object.fromEntries(
      release.design.parts.flatMap((part) =>
        part.part === 'question' && part.help !== '' && readable.has(part.field) ? [[part.field, part.help]] : [],
      ),
    ),
    people: pickedFrom(db, readableFields).map((person) => ({ ...person, groups: [...person.groups] })),
    vocabularies: vocabulariesFor(db, readableFields),
    references: [...references],
    opens: [...openTo(db, viewer, references)],
    pointing: pointingAt(db, viewer, request.id),
    fuse: fuseAt(request.deadline, plan, calendar, now, request.finishedAt),
    dueWords: moment(request.due),
    dueWhy: dueWhy(request, calendar, moment, open.isRoutingOpen),
    hops: open.hops('desk'),
    routing: {
      row: open.isRoutingOpen ? request.routed.row : null,
      outcome: `${open.teamName} · ${request.priority} priority · ${outcome.workingDays} working days · ${outcome.needsApproval ? 'needs approval' : 'no approval'}`,
      rows: (open.isRoutingOpen ? request.routed.reasons : []).map((row) => ({
        row: row.row,
        note: row.note,
        won: row.won,
        cells: row.cells.map((cell) => revealReason(cell, readable)),
      })),
    },
    approval: approval
      ? {
          label: approval.label,
          group: groupNames(db).get(approval.group) ?? approval.group,
          state: approval.state,
          decidedBy: open.decidedBy,
          comment: approval.comment,
          mayDecide: objection === null,
          seen: seenIn(open.visible),
          whyNot: objection ? objection.reason : null,
        }
      : null,
    history: historyOf(db, request, register, (changes) =>
      revealChanges(changes, fields, readable, open.access.nameOf),
    ),
  };
}

function dueWhy(
  request: RequestRow,
  calendar: { name: string; holidays: readonly { date: string; name: string }[] } & Parameters<typeof lengthInWords>[1],
  moment: (ms: number) => string,
  isRoutingOpen: boolean,
): string[] {
  const { deadline } = request;
  const holidays = calendar.holidays.filter(
    (holiday) => holiday.date >= iso(deadline.start).slice(0, 10) && holiday.date <= iso(deadline.due).slice(0, 10),
  );
  return [
    `Arrived ${moment(deadline.start)}.`,
    `${isRoutingOpen ? `Row ${request.routed.row} of the routing table` : 'The routing table'} allows ${deadline.workingDays} working days: due when the last of them closes.`,
    `Counted in the calendar “${calendar.name}”: ${lengthInWords(deadline.allowance, calendar)} of working time from the start.`,
    ...holidays.map((holiday) => `${holiday.name} (${holiday.date}) does not count.`),
    ...deadline.pauses.map((pause) =>
      pause.to === null
        ? `Paused since ${moment(pause.from)}: the clock stands still.`
        : `Paused from ${moment(pause.from)} to ${moment(pause.to)}: that time was added.`,
    ),
    `Due ${moment(deadline.due)}.`,
  ];
}

function historyOf(
  db: Reader,
  request: RequestRow,
  register: RegisterRow,
  show: (changes: (typeof history.$inferSelect)['changes']) => Revealed<readonly VisibleChange[]>,
): AnswerOf<'sheet'>['history'] {
  const entries = historyOfRequest(db, request.id);
  const names = namesOf(
    db,
    entries.flatMap((entry) =>
      [entry.actorId ?? [], entry.data?.kind === 'handler' ? (entry.data.to ?? []) : []].flat(),
    ),
  );
  const called: ChangeNames = {
    stage: (key) => register.stages.find((stage) => stage.key === key)?.label ?? key,
    person: (id) => names.get(id) ?? '',
  };
  return entries.flatMap((entry) => {
    // A new day is no news: what was computed from it stands in the values.
    if (entry.data?.kind === 'baseline' || (entry.data?.kind === 'values' && entry.data.why === 'day')) return [];
    const changes = show(entry.changes);
    // An entry that only touched fields hidden from this viewer would tell that something is there.
    if (entry.kind === 'fields' && changes.length === 0) return [];
    return [
      {
        id: entry.id,
        at: iso(entry.at),
        who: entry.actorId ? (names.get(entry.actorId) ?? '') : 'Tolvek',
        what: entry.data ? changeInWords(entry.data, called) : entry.words,
        changes,
        comment: entry.comment,
      },
    ];
  });
}

/** What a reference of a request offers to who works on it and may change it. */
export function sheetOffers(
  db: Reader,
  viewer: Viewer,
  number: string,
  { field, find }: BodyOf<'sheetOffers'>,
  now: number,
): AnswerOf<'sheetOffers'> {
  const request = requestByNumber(db, number);
  if (!request) throw notFound('This request');
  const { access, relation, register, visible, readable } = openRequest(db, request, viewer);
  if (!relation.isDesk) throw notFound('This request');
  if (!visible.fields.some((each) => each.key === field && each.writable))
    throw notFound('A field to change with this name');
  return offersOf(db, field, find, {
    fields: access.protection.fields,
    // What is offered is told by what this viewer may read, and by nothing else.
    values: onlyOf(request.values, readable),
    facts: factsOfRequest(db, request, register, now),
    asker: request.requesterId,
  });
}

/** What the requester of a request may count on at a moment. */
export const promiseOf = (request: Pick<RequestRow, 'phase' | 'due'>, zone: string, now: number): string =>
  promiseInWords(
    { finished: request.phase === 'finished', paused: request.phase === 'paused', late: now > request.due },
    momentInWords(request.due, zone),
  );

/**
 * A request as its own requester sees it: visible state, what they sent, messages. Nothing else.
 */
export function requesterViewOf(
  db: Reader,
  viewer: Viewer,
  request: RequestRow | undefined,
  now: number,
): AnswerOf<'follow'> {
  if (request?.requesterId !== viewer.personId) throw notFound('This request');
  // As a requester only: whoever also works at the desk reads the rest on the Floor.
  const asRequester: Viewer = { ...viewer, kind: 'contact', role: 'member' };
  const open = openRequest(db, request, asRequester);
  const messages = historyOfRequest(db, request.id);
  const names = namesOf(
    db,
    messages.flatMap((entry) => entry.actorId ?? []),
  );
  return {
    number: request.number,
    form: open.release.design.title,
    subject: open.subject,
    stage: open.stage.publicLabel,
    finished: request.phase === 'finished',
    sentAt: iso(request.createdAt),
    promise: promiseOf(request, open.calendar.zone, now),
    values: open.visible,
    hops: open.hops('requester'),
    messages: messages.flatMap((entry) =>
      entry.comment?.visibility === 'requester'
        ? [
            {
              at: iso(entry.at),
              from: entry.actorId === viewer.personId ? 'You' : (names.get(entry.actorId ?? '') ?? 'The desk'),
              mine: entry.actorId === viewer.personId,
              text: entry.comment.text,
            },
          ]
        : [],
    ),
  };
}

/** What an approver sees behind the link in their letter. */
export function decisionViewOf(db: Reader, viewer: Viewer, request: RequestRow): AnswerOf<'decisionLink'> {
  const open = openRequest(db, request, viewer);
  return {
    number: request.number,
    subject: open.subject,
    form: open.release.design.title,
    step: open.approval?.label ?? '',
    approver: personById(db, viewer.personId)?.name ?? '',
    requester: personById(db, request.requesterId)?.name ?? '',
    dueWords: open.moment(request.due),
    values: open.visible,
    hops: open.hops('desk'),
    seen: seenIn(open.visible),
  };
}
