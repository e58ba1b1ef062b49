import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Revealed, VisibleValues } from '@tolvek/core/access';
import { isHolder, NOBODY, pathName, seatOf } from '@tolvek/core/approval';
import { promiseInWords } from '@tolvek/core/deadline';
import type { Consent } from '@tolvek/core/door';
import { type FormDesign, sinksOf } from '@tolvek/core/form';
import { rightsAt, type Viewer } from '@tolvek/core/people';
import {
  columnKey,
  type Field,
  fileId,
  fileName,
  publicLabelIn,
  type Stage,
  stagesToFreeTo,
  withColumns,
} from '@tolvek/core/register';
import { changeInWords, priorityInWords, type RequestChange } from '@tolvek/core/request';
import { type Said, said, type Words } from '@tolvek/words';
import { asksWhenChanged } from '../approval/anew.ts';
import { type Round, roundOf, type SeatRow, stepOf } from '../approval/queries.ts';
import { calendarOf } from '../calendar/queries.ts';
import { whyNotBegin } from '../desk/acting.ts';
import { assignableTo, teamsFor } from '../desk/commands.ts';
import { canReturn, mayTakeBack } from '../desk/decide.ts';
import { mayHand } from '../desk/handing.ts';
import { linksView, ownLinks } from '../desk/links.ts';
import { movesOf } from '../desk/moves.ts';
import { withdrawsTo } from '../desk/withdraw.ts';
import { agreedText, doorOf, doorsOf } from '../door/queries.ts';
import { formById, releaseById, releaseInForce } from '../form/queries.ts';
import { admissionOf } from '../intake/admission.ts';
import { standInsOf } from '../people/absences.ts';
import { holdersOfRight } from '../people/given.ts';
import { groupNames, holderNames, namesOf, personById, personNamed } from '../people/queries.ts';
import type { AtIt } from '../platform/atWork.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { pictureVersion } from '../platform/pictures.ts';
import { notFound } from '../platform/problem.ts';
import { holdsThings, stageOf } from '../register/queries.ts';
import { changeNames, peopleIn } from '../request/changeNames.ts';
import { factsOfRequest, kindOfDoor, pickedFrom } from '../request/facts.ts';
import { followersOf } from '../request/followers.ts';
import { historyOfRequest } from '../request/history.ts';
import { goesWith } from '../request/merged.ts';
import { type OpenRequest, openAtDesk, openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, type ShownRow, whoseIs } from '../request/queries.ts';
import { questionOf } from '../request/questionOf.ts';
import { offersOf, requestsNamed } from '../request/references.ts';
import { sharesOf } from '../request/shares.ts';
import { placeOf } from '../request/takingPart.ts';
import { rosterNamed } from '../roster/queries.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { askedAbout, canAsk, toFillIn } from './asked.ts';
import { deadlinesView, finishTold } from './deadlines.ts';
import { decidingFor } from './deciding.ts';
import { askedSince, decisionIn, whyNotDecide } from './decision.ts';
import { hopsOf } from './hops.ts';
import { keptBy } from './keptBy.ts';
import { mergesTold } from './merges.ts';
import { ownCourse } from './ownCourse.ts';
import { openTo, pointingAt } from './pointing.ts';
import { ownProposals, proposalsOn } from './proposals.ts';
import { type RoutingTold, routingOf } from './routing.ts';

export const stageView = (stage: Stage) => ({
  key: stage.key,
  label: stage.label,
  phase: stage.phase,
  role: stage.role ?? null,
});

/** All that several views of one request have in common. */
export function looked(db: Reader, open: OpenRequest<RequestRow>) {
  const { request, register, design } = open;
  const plan = design.deadline;
  const calendar = calendarOf(db, plan.calendar);
  const round = roundOf(db, request.id);
  const approval = round && decisionIn(round);
  const decidedBy = approval?.decidedBy ? (personById(db, approval.decidedBy)?.name ?? null) : null;
  const stage = stageOf(register, request.stage);
  const groups = groupNames(db);
  const teamName = keptBy(request, register, groups);
  const isRoutingOpen = mayReadRouting(open);
  const finish = finishTold(db, open);
  /** `routed`: null for who is told nothing of the routing. */
  const hops = (reader: 'desk' | 'requester', routed: RoutingTold | null) =>
    hopsOf(
      { request, routed, stage, publicStage: open.publicStage, approval, teamName, decidedBy, isRoutingOpen, finish },
      reader,
    );
  const typesOf = (fields: readonly Field[]) =>
    Object.fromEntries(
      fields.map((field) => {
        // Of lines, the columns that this viewer may read.
        const lines = open.values.fields.find(({ key }) => key === field.key)?.lines;
        const shown = lines && new Set(lines.columns.map(({ key }) => columnKey(field.key, key)));
        return [field.key, (shown ? withColumns(field, shown) : field).type];
      }),
    );
  const helpOf = (fields: readonly Field[]): Record<string, string> =>
    Object.fromEntries(
      (open.layout?.form ?? design).parts.flatMap((part) =>
        part.part === 'question' && part.help !== '' && fields.some(({ key }) => key === part.field)
          ? [[part.field, part.help]]
          : [],
      ),
    );
  return { plan, calendar, round, approval, decidedBy, stage, groups, teamName, isRoutingOpen, hops, typesOf, helpOf };
}

/**
 * Whether somebody may know which row was taken: it tells of what the table asks for. It is the
 * table that decides, not what this request holds.
 */
const mayReadRouting = ({ design, fields, reading }: OpenRequest): boolean =>
  sinksOf({ fields, routing: design.routing })
    .filter((sink) => sink.kind === 'routing')
    .every((sink) => reading.mayHear(sink));

/** The request sheet for somebody of its desk. */
export function sheetOf(db: Reader, viewer: Viewer, number: string, now: number): AnswerOf<'sheet'> {
  const open = openAtDesk(db, viewer, number, 'sheet');
  const { request, register, design } = open;
  const about = looked(db, open);
  const routed = routingOf(db, open, now);
  const { round, approval, stage, groups } = about;
  const happened = historyOfRequest(db, request.id);
  const readableFields = open.fields.filter(({ key }) => open.reading.levelOf(key).level !== 'hidden');
  const references = requestsNamed(db, readableFields, request.values);
  const requester = request.requesterId === null ? undefined : personById(db, request.requesterId);
  const handler = request.handlerId ? personById(db, request.handlerId) : undefined;
  const whyNot = round ? whyNotDecide(db, round, viewer, whoseIs(request)) : null;
  const may = {
    ...{ change: open.may('change'), move: open.may('move'), assign: open.may('assign') },
    ...{ delete: open.may('delete'), share: open.may('share'), history: open.may('history') },
  };
  const moves = may.move && round?.state !== 'open' ? movesOf(db, open, viewer, now) : [];
  return {
    number: request.number,
    version: request.version,
    subject: open.subject,
    form: design.title,
    release: releaseById(db, request.releaseId).release.number,
    builds: rightsAt(viewer, register.id).includes('configure') ? (formById(db, request.formId)?.key ?? null) : null,
    trial: request.trial,
    merged: mergesTold(db, viewer, request),
    thing: holdsThings(register),
    door: request.doorId === null ? null : kindOfDoor(db, request.doorId),
    requester: {
      name: requester?.name ?? request.claim?.name ?? '',
      outside: requester?.kind === 'contact' || request.claim !== null,
      face: faceOf(db, request.requesterId),
      unconfirmed: request.claim?.email ?? null,
    },
    consent: agreedText(db, request),
    onBehalf: personNamed(db, request.onBehalfId) || null,
    enteredBy: personNamed(db, request.enteredById) || null,
    stage: stageView(stage),
    may,
    givers: Object.values(may).every(Boolean) ? [] : holdersOfRight(db, 'rights').map(({ name }) => name),
    shares: sharesView(db, request.id, groups),
    followers: followersView(db, request.id, viewer),
    moves: moves.flatMap(({ stage: to, whyNot: not }) => (not === null ? [stageView(to)] : [])),
    notNow: moves.flatMap(({ stage: { label }, whyNot: not }) => (not === null ? [] : [{ label, whyNot: not }])),
    team: about.teamName,
    handler: handler
      ? { id: handler.id, name: handler.name, face: faceOf(db, handler.id), outside: handler.kind === 'contact' }
      : null,
    assignable: may.assign ? assignableTo(db, request, register) : [],
    teams:
      request.team === null || !may.assign
        ? []
        : teamsFor(db).map((team) => ({ ...team, here: team.key === request.team })),
    frees: !rightsAt(viewer, register.id).includes('move:all')
      ? []
      : stagesToFreeTo(register.stages, stage).map(stageView),
    priority: request.priority,
    values: open.laidOut,
    edition: open.layout && {
      name: open.layout.edition.name,
      leftOut: open.values.fields.flatMap(({ key }) => (open.layout?.leavesOut(key) ? [key] : [])),
      opensToChange: opensToChange(open),
    },
    words: wordsOf(open),
    actions: actionsOf(db, open, viewer),
    handlerWhy: handlerWhy(db, request, happened),
    asksAgain: asksWhenChanged(db, request, round).filter((key) => readableFields.some((field) => field.key === key)),
    fieldTypes: about.typesOf(readableFields),
    help: about.helpOf(readableFields),
    people: pickedFrom(db, readableFields).map((person) => ({ ...person, groups: [...person.groups] })),
    vocabularies: vocabulariesFor(db, readableFields),
    references: [...references],
    opens: [...openTo(db, viewer, references)],
    pointing: pointingAt(db, viewer, request.id),
    links: may.change ? linksView(db, request, now) : [],
    proposals: proposalsOn(db, viewer, open, now),
    asks: canAsk(db, open, may.change),
    asked: askedAbout(db, viewer, open, now),
    deadlines: deadlinesView(db, open, { routed: about.isRoutingOpen ? routed : null, groups, now }),
    hops: about.hops('desk', routed),
    wishes: wishesOf(open),
    routing: routed && {
      row: about.isRoutingOpen ? routed.row : null,
      outcome: outcomeInWords(routed, design, groups),
      rows: (about.isRoutingOpen ? routed.reasons : []).map((row) => ({
        row: row.row,
        note: row.note,
        won: row.won,
        cells: row.cells.map((cell) => open.reading.reason(cell)),
        ...(row.says ? { says: row.says } : {}),
      })),
    },
    approval: approval
      ? {
          label: approval.label,
          group: holderNames(db, approval.holders, groups).join(', '),
          instead: approval.state === 'waiting' ? approval.holders.flatMap((word) => standInNames(db, word)) : [],
          state: approval.state,
          decidedBy: about.decidedBy,
          comment: approval.comment,
          mayDecide: whyNot === null,
          mayDecideFor:
            whyNot !== null &&
            round !== undefined &&
            open.may('decide') &&
            whyNotDecide(db, round, viewer, whoseIs(request), 'right') === null,
          seen: open.seen,
          mayReturn: canReturn(request, register),
          mayHand: mayHand(db, round, open, viewer),
          mayTakeBack: mayTakeBack(round, viewer),
          nobodySince: round ? momentOr(stepOf(round).nobodySince) : null,
          whyNot,
          steps: round ? stepsTold(db, round, open, { groups, happened }) : [],
        }
      : null,
    history: historyOf(db, open, happened, groups),
  };
}

/** The steps of a decision with those who are asked, by name. */
function stepsTold(
  db: Reader,
  round: Round,
  open: OpenRequest,
  { groups, happened }: { readonly groups: Parameters<typeof holderNames>[2]; readonly happened: Happened },
): NonNullable<AnswerOf<'sheet'>['approval']>['steps'] {
  const since = askedSince(round);
  const fieldNamed = (key: string, all: readonly Pick<Field, 'key' | 'label'>[]): string =>
    all.find((field) => field.key === key)?.label ?? key;
  /** Who or what a word of a plan means, by name. */
  const called = (word: string): string => {
    const seat = seatOf(word);
    if ('field' in seat) return fieldNamed(seat.field, open.fields);
    if ('profile' in seat) return fieldNamed(seat.profile, profileDesignOf(db).fields);
    if ('duty' in seat) return rosterNamed(db, seat.duty);
    return holderNames(db, [word], groups).join(', ');
  };
  const asWhom = ({ planned, insteadOf }: Pick<SeatRow, 'planned' | 'insteadOf'>): Words | null => {
    if (insteadOf !== null) return said('sheet:inPlaceOf', { who: called(insteadOf) });
    const seat = planned === null ? null : seatOf(planned);
    if (planned === null || seat === null || isHolder(seat)) return null;
    return said('duty' in seat ? 'sheet:onDutyBy' : 'sheet:namedBy', { field: called(planned) });
  };
  return round.steps.map(({ label, needed, limit, dueAt, silently, seats }, place) => {
    const from = since[place] ?? null;
    return {
      ...{ label, needed, since: from === null ? null : iso(from), until: momentOr(dueAt), silently },
      silence: limit?.silence ?? null,
      seats: seats.map((seat) => ({
        ...{ who: seat.holder === NOBODY ? '' : called(seat.holder), as: asWhom(seat) },
        ...{ state: seat.state, comment: seat.comment, read: readThen(open, seat, happened) },
        by: seat.decidedBy === null ? null : personNamed(db, seat.decidedBy),
        at: momentOr(seat.decidedAt),
      })),
    };
  });
}

/**
 * What was in view of whoever decided at a seat, by the labels that whoever looks may read now; what of it has changed since,
 * for who may see the history.
 */
function readThen(
  open: OpenRequest,
  { read, decidedBy, decidedAt }: SeatRow,
  happened: Happened,
): NonNullable<AnswerOf<'sheet'>['approval']>['steps'][number]['seats'][number]['read'] {
  if (read === null) return null;
  const shown = open.values.fields.filter(({ key }) => read.fields.includes(key));
  const decided = happened.findLastIndex(
    ({ kind, actorId, at }) => kind === 'decision' && actorId === decidedBy && at === decidedAt,
  );
  const changed = new Set(
    decided < 0 || !open.may('history')
      ? []
      : happened.slice(decided + 1).flatMap(({ changes }) => changes.map(({ field }) => field)),
  );
  return {
    fields: shown.map(({ label }) => label),
    changed: shown.flatMap(({ key, label }) => (changed.has(key) ? [label] : [])),
  };
}

/** Who takes the place of a holder of seats today, by name. */
const standInNames = (db: Reader, holder: string): readonly string[] =>
  standInsOf(db, holder).map((id) => personNamed(db, id));

type Happened = ReturnType<typeof historyOfRequest>;

/** What whoever asked wished for, in the answers that its reader may read. */
function wishesOf({ design, values }: OpenRequest<RequestRow>): AnswerOf<'sheet'>['wishes'] {
  const { wishes = {} } = design.routing;
  const said = (key: string | undefined): Words | null =>
    values.fields.find((field) => field.key === key)?.shown || null;
  return { priority: said(wishes.priority), due: said(wishes.due) };
}

/** By which rule somebody was made the handler who still is, and why nobody else was. */
function handlerWhy(db: Reader, { handlerId }: RequestRow, happened: Happened): readonly Words[] {
  const last = happened.findLast(({ data }) => data?.kind === 'handler')?.data;
  if (last?.kind !== 'handler' || !last.chosen || last.to !== handlerId) return [];
  const { by, tried, passed } = last.chosen;
  const names = namesOf(
    db,
    passed.map(({ person }) => person),
  );
  const reasons = [...new Set(passed.map(({ why }) => why))];
  return [
    said(`sheet:handlerBy.${by}`),
    ...tried.map((way) => said(`sheet:handlerNot.${way}`)),
    ...reasons.map((why) =>
      said(`sheet:passed.${why}`, {
        names: passed.flatMap((each) => (each.why === why ? [names.get(each.person) ?? ''] : [])),
      }),
    ),
  ];
}

export const momentOr = (at: number | null): string | null => (at === null ? null : iso(at));

function outcomeInWords(
  { outcome }: RoutingTold,
  { approval }: Pick<FormDesign, 'approval'>,
  groups: ReadonlyMap<string, string>,
): Said {
  const { team, priority, workingDays: count, path: id } = outcome;
  const path = approval.paths.find((each) => each.id === id);
  const given = { team: groups.get(team) ?? team, priority: priorityInWords(priority), count };
  if (!path) return said('sheet:outcome', given);
  return approval.paths.length > 1
    ? said('sheet:outcomePath', { ...given, path: pathName(path) })
    : said('sheet:outcomeApproval', given);
}

/** The portrait of somebody, if they have one. */
function faceOf(db: Reader, id: string | null): { id: string; portrait: string } | null {
  const portrait = id === null ? null : pictureVersion(db, id);
  return id === null || portrait === null ? null : { id, portrait };
}

/** Who reads a request besides those who work on it. */
function sharesView(db: Reader, requestId: string, groups: ReadonlyMap<string, string>): AnswerOf<'sheet'>['shares'] {
  const all = sharesOf(db, requestId);
  const names = holderNames(
    db,
    all.map(({ holder }) => holder),
    groups,
  );
  return all.map(({ holder, untilDay }, at) => ({ holder, name: names[at] ?? '', until: untilDay }));
}

/** Who follows a request, and whether whoever looks does. */
function followersView(db: Reader, requestId: string, { personId }: Viewer): AnswerOf<'sheet'>['followers'] {
  const all = followersOf(db, requestId);
  const others = all.filter((id) => id !== personId);
  const names = namesOf(db, others);
  return { others: others.map((id) => names.get(id) ?? ''), mine: others.length < all.length };
}

function historyOf(
  db: Reader,
  open: OpenRequest,
  entries: Happened,
  groups: ReadonlyMap<string, string>,
): AnswerOf<'sheet'>['history'] {
  const { register } = open;
  const names = namesOf(
    db,
    entries.flatMap((entry) => [entry.actorId ?? [], peopleIn(entry.data)].flat()),
  );
  const called = changeNames(db, register, names, groups);
  return entries.flatMap((entry) => {
    // Without the right to see it, what people wrote is read, and nothing else of what happened.
    if (entry.comment === null && !open.may('history')) return [];
    // A new day is no news: what was computed from it stands in the values.
    if (entry.data?.kind === 'baseline' || (entry.data?.kind === 'values' && entry.data.why === 'day')) return [];
    const changes = open.changes(entry.changes);
    // An entry that only touched fields hidden from this viewer would tell that something is there.
    if (entry.kind === 'fields' && changes.length === 0) return [];
    return [
      {
        id: entry.id,
        at: iso(entry.at),
        who: entry.actorId ? (names.get(entry.actorId) ?? '') : 'Tolvek',
        what: entry.data ? changeInWords(entry.data, called) : entry.words,
        changes,
        comment: entry.comment && {
          ...{ text: entry.comment.text, visibility: entry.comment.visibility },
          files: filesOf(entry.comment.files),
        },
        agreed: agreedThen(db, entry.data),
      },
    ];
  });
}

/** What was sent with a message. */
export const filesOf = (refs: readonly string[] = []) => refs.map((ref) => ({ id: fileId(ref), name: fileName(ref) }));

/** What somebody agreed to when they changed a request by a form. */
function agreedThen(db: Reader, data: RequestChange | null): Consent | null {
  const agreed = data?.kind === 'values' && data.why === 'updated' ? data.agreed : undefined;
  return agreed ? agreedText(db, { doorId: agreed.door, consent: agreed.version, consentIn: agreed.language }) : null;
}

/** What a reference of a request offers to who works on it and may change it. */
export function sheetOffers(
  db: Reader,
  viewer: Viewer,
  number: string,
  { field, find }: BodyOf<'sheetOffers'>,
  now: number,
): AnswerOf<'sheetOffers'> {
  const open = openAtDesk(db, viewer, number, 'changing');
  const { request, register, fields, reading } = open;
  if (!open.mayWrite(field)) throw notFound('field');
  return offersOf(db, field, find, {
    fields,
    // What is offered is told by what this viewer may read, and by nothing else.
    values: reading.only(request.values),
    facts: factsOfRequest(db, request, register, now),
    asker: request.requesterId,
  });
}

/** What the requester of a request may count on at a moment. */
export function promiseOf(db: Reader, open: OpenRequest, now: number): Said | null {
  const { phase } = open.request;
  const finish = finishTold(db, open);
  return promiseInWords(
    { finished: phase === 'finished', paused: phase === 'paused', late: now > (finish ?? now) },
    finish,
  );
}

/** What the desk asks whoever asked, and who wrote it. */
export function questionTold(...asked: Parameters<typeof questionOf>): AnswerOf<'follow'>['question'] {
  const [db] = asked;
  const question = questionOf(...asked);
  return question && { text: question.text, from: personNamed(db, question.by), at: iso(question.at) };
}

/**
 * A request as its own requester sees it: visible state, what they sent, messages. Nothing else. `came`: the id of the link
 * they came by.
 */
export function requesterViewOf(
  { db, clock, atWork }: Pick<House, 'db' | 'clock' | 'atWork'>,
  viewer: Viewer,
  request: RequestRow | undefined,
  came: string | null = null,
): AnswerOf<'follow'> {
  const now = clock.now();
  if (!request || !isOwnOf(request, viewer.personId)) throw notFound('request');
  const open = openRequest(db, request, viewer, 'following');
  const about = looked(db, open);
  const { together, stage, finished } = standsAt(db, open);
  const messages = historyOfRequest(db, request.id);
  const names = namesOf(
    db,
    messages.flatMap((entry) => entry.actorId ?? []),
  );
  const values = shownOf(open);
  const writable = new Set(values.fields.flatMap((field) => (field.writable ? [field.key] : [])));
  const changing = open.fields.filter((field) => writable.has(field.key));
  return {
    number: request.number,
    version: request.version,
    form: open.layout?.edition.title || open.design.title,
    askedBy: request.requesterId === viewer.personId ? null : personNamed(db, request.requesterId) || null,
    onBehalf: request.onBehalfId === viewer.personId ? null : personNamed(db, request.onBehalfId) || null,
    subject: open.subject,
    ...{ stage, finished, together },
    sentAt: iso(request.createdAt),
    promise: together ? null : promiseOf(db, open, now),
    question: questionTold(db, request, messages),
    values,
    words: wordsOf(open),
    actions: actionsOf(db, open, viewer),
    consent: agreedText(db, request, open.spoken),
    atWork: labelsAt(values, atWork.others(request.id, viewer.personId, now)),
    opensToChange: opensToChange(open),
    dates: datesOf(values, open.fields),
    again: askedAgainBy(db, request, viewer, now),
    toFill: toFillIn(db, viewer, now, request.id),
    links: ownLinks(db, request, viewer, now, came),
    proposals: [...ownProposals(db, viewer, open, now)],
    mayWithdraw: withdrawsTo(db, request) !== null,
    changing: {
      types: about.typesOf(changing),
      help: about.helpOf(changing),
      vocabularies: vocabulariesFor(db, changing, open.spoken),
      again: doorOf(db, request)?.design.again ?? [],
      asksAgain: asksWhenChanged(db, request, about.round).filter((key) => changing.some((field) => field.key === key)),
    },
    hops: together ? [] : about.hops('requester', null),
    course: together ? [] : ownCourse(open, messages, { approval: about.approval, finish: finishTold(db, open) }),
    deciding: decidingFor(db, open, about.round, about.groups),
    messages: messages.flatMap((entry) =>
      entry.comment?.visibility === 'requester'
        ? [
            {
              at: iso(entry.at),
              from: entry.actorId === viewer.personId ? '' : (names.get(entry.actorId ?? '') ?? ''),
              mine: entry.actorId === viewer.personId,
              text: entry.comment.text,
              files: filesOf(entry.comment.files),
            },
          ]
        : [],
    ),
  };
}

/** Where a request stands for whoever asked: what is handled together with another stands where that does. */
export function standsAt(
  db: Reader,
  { request, register, publicStage, spoken }: Pick<OpenRequest, 'request' | 'register' | 'publicStage' | 'spoken'>,
): { readonly stage: string; readonly finished: boolean; readonly together: boolean } {
  const leads = goesWith(db, request);
  if (leads === request) return { stage: publicStage, finished: request.phase === 'finished', together: false };
  const stage = publicLabelIn(stageOf(register, leads.stage), spoken);
  return { stage, finished: leads.phase === 'finished', together: true };
}

/** Whether whoever opens a request changes it at once, by the edition that they are given: what is finished is read first. */
const opensToChange = ({ layout, request }: OpenRequest): boolean =>
  layout?.edition.opens === 'changing' && request.phase !== 'finished';

/** What of it others have begun to change, as far as it is read. */
const labelsAt = ({ fields }: VisibleValues, others: readonly AtIt[]): string[] =>
  fields.flatMap(({ key, label }) => (others.some((each) => each.fields.includes(key)) ? [label] : []));

/** The days and moments among what somebody reads of a request. */
function datesOf({ fields }: VisibleValues, all: readonly Field[]): AnswerOf<'follow'>['dates'] {
  const dated = new Set(all.flatMap(({ key, type }) => (/^date(-time)?$/.test(type.kind) ? [key] : [])));
  return fields.flatMap(({ key, label, value }) =>
    dated.has(key) && typeof value === 'string' ? [{ key, label, at: value }] : [],
  );
}

/** The door by which whoever asked can ask the same again: the one it came by, else another of its form that is open to them. */
function askedAgainBy(db: Reader, { formId, doorId }: ShownRow, viewer: Viewer, now: number): string | null {
  const form = formById(db, formId);
  if (doorId === null || form?.stoppedAt !== null || form.deletedAt !== null || !releaseInForce(db, formId))
    return null;
  const doors = [...doorsOf(db, formId)].sort((a, b) => Number(b.id === doorId) - Number(a.id === doorId));
  return doors.find((door) => admissionOf(db, door, viewer, now).admitted)?.slug ?? null;
}

/** What is shown of a request as it is laid out, and nothing else. */
export function shownOf(open: OpenRequest): Revealed<VisibleValues> {
  const { laidOut, layout } = open;
  return layout ? { ...laidOut, fields: laidOut.fields.filter(({ key }) => !layout.leavesOut(key)) } : laidOut;
}

/** What the edition that somebody is given says beside a request, with the values that they may read. */
export const wordsOf = (open: OpenRequest): Revealed<readonly Words[]> =>
  open.textsOf((open.layout?.words ?? []).map(({ text }) => text));

/** What can be done beside a request, each at the words it stands with. */
const actionsOf = (db: Reader, open: OpenRequest<RequestRow>, viewer: Viewer): AnswerOf<'sheet'>['actions'] =>
  (open.layout?.words ?? []).flatMap(({ mail, actions = [] }, at) => [
    ...actions.map((action) =>
      action.does === 'ask'
        ? { at, id: action.id, does: action.does, label: action.label }
        : action.does === 'begin'
          ? { at, id: action.id, does: action.does, label: action.label, whyNot: whyNotBegin(db, open, action) }
          : {
              ...{ at, id: action.id, does: action.does, label: action.label, back: action.back },
              ...placeOf(open, viewer, action),
            },
    ),
    ...(mail ? [{ at, does: 'write' as const, ...mail }] : []),
  ]);

/** What an approver sees behind the link in their letter. */
export function decisionViewOf(db: Reader, viewer: Viewer, request: RequestRow): AnswerOf<'decisionLink'> {
  const open = openRequest(db, request, viewer, 'sheet');
  const about = looked(db, open);
  return {
    number: request.number,
    subject: open.subject,
    form: open.design.title,
    step: about.approval?.label ?? '',
    approver: personNamed(db, viewer.personId),
    requester: personNamed(db, request.requesterId),
    due: momentOr(finishTold(db, open)),
    until: about.round ? momentOr(stepOf(about.round).dueAt) : null,
    mayReturn: canReturn(request, open.register),
    values: shownOf(open),
    words: wordsOf(open),
    hops: about.hops(open.relation.calledIn ? 'requester' : 'desk', null),
    seen: open.seen,
  };
}
