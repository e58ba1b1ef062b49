import { calendarFor, deadlineName, FINISH, lengthOf, ruleOf, workingTimeBetween } from '@tolvek/core/deadline';
import {
  draftNotice,
  type Facts,
  inOwnWords,
  type Letter,
  type NoticeCause,
  type NoticeEvent,
} from '@tolvek/core/notice';
import { type Field, type FieldValue, publicLabelIn, sayValue } from '@tolvek/core/register';
import { changeInWords } from '@tolvek/core/request';
import { type NoticePlan, type NoticeRule, type NoticeText, noticeIn, textIn, usualIn } from '@tolvek/core/telling';
import { said, type Words } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { seatById, stepOfSeat } from '../approval/queries.ts';
import { calendarOf } from '../calendar/queries.ts';
import { deadlinesOf, finishOf } from '../deadline/queries.ts';
import { planningOf } from '../form/queries.ts';
import { groupNames, namesOf, personNamed } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { proposalById, proposed } from '../proposal/queries.ts';
import { registerById, stageOf } from '../register/queries.ts';
import { changeNames, peopleIn } from '../request/changeNames.ts';
import { proofWanted } from '../request/followed.ts';
import { followersOf } from '../request/followers.ts';
import { mergedAs, mergedInto } from '../request/merged.ts';
import { nameOf } from '../request/names.ts';
import type { OpenRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow } from '../request/queries.ts';
import { linkEnds } from '../settings/links.ts';
import { deskOf } from '../settings/queries.ts';
import type { Addressee } from './addressee.ts';
import { mayCount } from './groups.ts';
import { fieldsRead } from './ready.ts';

/** A request, and one of its readers. */
interface About {
  readonly request: RequestRow;
  readonly person: Addressee;
  /** The request as they have it in emails. */
  readonly open: OpenRequest;
  /** Epoch ms. */
  readonly now: number;
}

/** What is written to one of the staff about no request. */
export type ToPerson = 'invitation' | 'test' | 'reset' | 'sign-in' | 'duty' | 'report';

/** Why somebody is written to about a request. */
export type AboutRequest = Exclude<
  NoticeCause,
  {
    kind: ('confirm' | 'go-on' | 'place-free' | 'digest' | 'to-fill-in' | 'passed-on') | ToPerson;
  }
>;

interface By<Way> {
  /** What its form tells whom, and the fields of the form. */
  readonly plan: NoticePlan;
  readonly fields: readonly Field[];
  /** Whether answers by email are read. */
  readonly readsAnswers: boolean;
  /** Where its button leads, and until when that opens the request for whoever has the email, epoch ms; asked for once it goes. */
  readonly follows: () => { readonly way: Way; readonly until: number | null };
}

interface Told<Way> {
  readonly letter: Letter<Words>;
  readonly language: Language;
  readonly way: Way;
  /** Sentences in words of the form that are left out, with what they name that its reader has not. */
  readonly left: readonly { readonly sentence: string; readonly names: readonly string[] }[];
}

/**
 * What somebody is written about a request: with what they may read of it now, in the words of its form where it has some.
 * Null when nothing is left to tell; `hidden` where they may not read what it would tell of.
 */
export function letterAbout<Way>(
  db: Reader,
  about: About,
  cause: AboutRequest,
  { plan, fields, readsAnswers, follows }: By<Way>,
): Told<Way> | 'hidden' | null {
  const { request, person, open } = about;
  const told = eventOf(db, about, cause, plan);
  if (!told) return null;
  // Whoever may not read it hears of it only where they are asked to act on it.
  const isTheirs = person.id === request.requesterId && cause.kind !== 'news';
  const { isDesk, calledIn = false, onlyReads = false } = open.relation;
  // Whoever handles it from outside reads what its requester writes, and what is written to them alone.
  const isForHandler = cause.kind === 'message' && !cause.inside && calledIn && !onlyReads;
  if (FOR_READERS.has(cause.kind) && !isDesk && !isTheirs && !isForHandler)
    return cause.kind === 'rule' ? 'hidden' : null;
  const rule = cause.kind === 'rule' ? noticeIn(plan, cause.rule) : undefined;
  const tells = [
    ...(rule ? fieldsRead(rule, fields) : []),
    ...(cause.kind === 'rule' && cause.field ? [cause.field] : []),
  ];
  if (tells.some((field) => !open.readable.has(field))) return 'hidden';
  if (rule?.on.is === 'group' && !mayCount(db, open.reading.situation.viewer, request.registerId, rule, fields))
    return 'hidden';
  const { way, until } = follows();
  const language = person.language ?? deskOf(db).language;
  const context = {
    number: request.number,
    formTitle: open.layout?.edition.title || open.design.title,
    subject: open.subject,
    visible: open.values,
    reader: person.name,
    requester: personNamed(db, request.requesterId),
    linkUntil: until,
    needsCode: proofWanted(db, request) !== undefined,
    answers: readsAnswers ? answerOf(person, open) : null,
  };
  const usual = draftNotice(asSeen(told, open), context);
  const text = ownText(plan, cause, language);
  const own =
    text &&
    inOwnWords(
      usual,
      text,
      context,
      factsOf(db, about, cause, { open, isTheirs, group: groupFacts(db, cause, rule, fields) }),
    );
  return { letter: own?.letter ?? usual, left: own?.left ?? [], language, way };
}

/** What the form of a request says in words of its own, in a language; null where it is as usual. */
function ownText(plan: NoticePlan, cause: AboutRequest, language: Language): NoticeText | null {
  const own = cause.kind === 'rule' ? noticeIn(plan, cause.rule) : usualIn(plan, cause.kind);
  return own ? textIn(own, language) : null;
}

/** What an email can put in of the group that it is about: what makes it, and how many it has. */
function groupFacts(db: Reader, cause: AboutRequest, rule: NoticeRule | undefined, fields: readonly Field[]): Facts {
  if (cause.kind !== 'rule' || !cause.group || rule?.on.is !== 'group') return {};
  const { value, count } = cause.group;
  const { by } = rule.on;
  const field = fields.find(({ key }) => key === by);
  // Where a field has several, the group is of one of them.
  const one = field && ['choices', 'terms', 'people', 'references'].includes(field.type.kind) ? [value] : value;
  const name = field && value !== null ? sayValue(field, one as FieldValue, nameOf(db)) : '';
  return { 'group.name': name, 'group.count': String(count) };
}

/** What an email can put in of a request besides its fields, as far as its reader has it. */
function factsOf(
  tx: Reader,
  { request }: About,
  cause: AboutRequest,
  { open, isTheirs, group }: { readonly open: OpenRequest; readonly isTheirs: boolean; readonly group: Facts },
): Facts {
  const due = finishOf(tx, request.id);
  const by = 'by' in cause ? personNamed(tx, cause.by) : '';
  const isInside = isTheirs && cause.kind === 'rule' && cause.inside === true;
  const text = isInside
    ? ''
    : 'text' in cause
      ? cause.text
      : 'comment' in cause
        ? cause.comment
        : 'reason' in cause
          ? cause.reason
          : '';
  const stage = isTheirs ? open.publicStage : stageOf(open.register, request.stage).label;
  return {
    ...{ 'request.stage': stage, 'happened.by': by, 'happened.text': text },
    ...group,
    ...(due === null ? {} : { 'request.due': said('values:moment', { moment: due }) }),
    ...(isTheirs
      ? {}
      : {
          'request.team': request.team === null ? '' : (groupNames(tx).get(request.team) ?? request.team),
          'request.handler': personNamed(tx, request.handlerId),
          ...(request.priority === null ? {} : { 'request.priority': said(`priorities:${request.priority}`) }),
        }),
  };
}

/** What an answer by email of whoever reads about a request becomes. */
function answerOf({ id, kind }: Addressee, open: OpenRequest): 'message' | 'note' | null {
  // Who answers for a group is not known by the address.
  if (id === '') return null;
  if (isOwnOf(open.request, id)) return 'message';
  return kind === 'staff' && open.relation.isDesk && open.may('change') ? 'note' : null;
}

/** What happened, with the names and moments that are told of it; null when it is past telling. */
function eventOf(tx: Reader, about: About, cause: AboutRequest, plan: NoticePlan): NoticeEvent | null {
  const { now, request, person, open } = about;
  const due = finishOf(tx, request.id);
  const { spoken } = open;
  switch (cause.kind) {
    case 'received':
      return { kind: 'received', due };
    case 'new-link':
      return { kind: 'new-link' };
    case 'new-request':
      return { kind: 'new-request', team: groupNames(tx).get(cause.team) ?? cause.team, due };
    case 'approval-asked': {
      const at = seatById(tx, cause.seat);
      if (at?.seat.state !== 'open') return null;
      const until = stepOfSeat(at.round, at.seat).dueAt;
      return { kind: 'approval-asked', due, until, again: cause.again ?? false, expires: linkEnds(tx, 'decide', now) };
    }
    case 'approved':
      return {
        kind: 'approved',
        by: personNamed(tx, cause.by),
        comment: cause.comment,
        silent: cause.silent ?? false,
        due,
      };
    case 'refused':
      return { kind: 'refused', by: personNamed(tx, cause.by), comment: cause.comment, silent: cause.silent ?? false };
    case 'nobody-handles':
      return { kind: 'nobody-handles', team: groupNames(tx).get(cause.team) ?? cause.team };
    case 'undecided':
    case 'nobody-decides':
      return { kind: cause.kind, step: cause.step };
    case 'assigned':
      return { kind: 'assigned', by: personNamed(tx, cause.by), due, outside: person.kind === 'contact' };
    case 'message':
      return { kind: 'message', from: personNamed(tx, cause.by), text: cause.text, files: cause.files ?? [] };
    case 'together':
    case 'apart': {
      const isMerged = mergedAs(tx, request.id) !== undefined || mergedInto(tx, request.id).length > 0;
      return isMerged === (cause.kind === 'together') ? { kind: cause.kind } : null;
    }
    case 'returned':
      return { kind: 'returned', by: personNamed(tx, cause.by), text: cause.text };
    case 'stage': {
      const stage = stageOf(registerById(tx, request.registerId), cause.stage);
      const { phase } = stage;
      const is = cause.finished ? 'finished' : phase === 'paused' ? 'paused' : 'resumed';
      return { kind: 'stage', stage: publicLabelIn(stage, spoken), is };
    }
    case 'news': {
      const { change, text } = cause;
      const register = registerById(tx, request.registerId);
      const called = changeNames(tx, register, namesOf(tx, peopleIn(change)), groupNames(tx));
      const follows = followersOf(tx, request.id).includes(person.id);
      return { kind: 'news', by: personNamed(tx, cause.by), what: changeInWords(change, called), text, follows };
    }
    case 'proposed':
      return proposedTo(tx, request, open, cause, now);
    case 'proposal':
      return { kind: 'proposal', accepted: cause.accepted, by: personNamed(tx, cause.by), reason: cause.reason };
    case 'reminder':
    case 'escalation':
    case 'due':
      return dueEvent(tx, request, cause, now);
    case 'rule': {
      const rule = noticeIn(plan, cause.rule);
      if (!rule || rule.off) return null;
      return { kind: 'rule', name: rule.name, theirs: person.id === request.requesterId, answers: rule.answers };
    }
  }
}

/** That something is due, or was; null where it is over by now. */
function dueEvent(
  tx: Reader,
  request: RequestRow,
  { kind, deadline: key = FINISH }: Extract<NoticeCause, { kind: 'reminder' | 'escalation' | 'due' }>,
  now: number,
): NoticeEvent | null {
  const { deadline: plan } = planningOf(tx, request).release.design;
  const rule = ruleOf(plan, key);
  const row = deadlinesOf(tx, request.id).find((each) => each.key === key);
  // What is over by now reminds nobody; that it was not in time is told all the same.
  if (!rule || !row || (kind !== 'escalation' && row.state !== 'open')) return null;
  const { due } = row;
  if (kind === 'due') return { kind, name: deadlineName(rule), due, isPast: due <= now };
  const name = rule.name.trim() === '' ? null : rule.name;
  if (kind === 'escalation') return { kind, name, due, handler: personNamed(tx, request.handlerId) };
  const calendar = calendarOf(tx, calendarFor(plan, rule));
  return { kind, name, left: lengthOf(Math.max(0, workingTimeBetween(calendar, now, due)), calendar), due };
}

/** A change that waits to be accepted, as far as whoever is to accept it reads it; null where it waits no more. */
function proposedTo(
  tx: Reader,
  request: RequestRow,
  open: OpenRequest,
  cause: Extract<NoticeCause, { kind: 'proposed' }>,
  now: number,
): NoticeEvent | null {
  const proposal = proposalById(tx, cause.proposal);
  const found = proposal?.state === 'open' ? proposed(tx, request, proposal, now) : null;
  if (!found) return null;
  const { form, changes } = found;
  return {
    ...{ kind: 'proposed', by: personNamed(tx, cause.by), form, expires: linkEnds(tx, 'accept', now) },
    changes: open.changes(changes.filter(({ field }) => open.readable.has(field))),
  };
}

/** News as far as its reader may see what happened: where they may not, they are told where it is, and what was written. */
function asSeen(event: NoticeEvent, open: OpenRequest): NoticeEvent {
  if (event.kind !== 'news' || event.text !== '' || open.may('history')) return event;
  const { label: stage } = stageOf(open.register, open.request.stage);
  return { ...event, by: '', what: said('emails:news.changed', { stage }) };
}

/** What is told to those who work on a request, as far as they may read it by now. */
const FOR_READERS: ReadonlySet<string> = new Set(['new-request', 'reminder', 'message', 'news', 'proposed', 'rule']);
