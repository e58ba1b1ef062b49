import { type DeadlinePlan, FINISH, type Hearer, ringsBefore, ruleOf } from '@tolvek/core/deadline';
import type { News, NoticeCause } from '@tolvek/core/notice';
import { type StandIn, wordOf } from '@tolvek/core/people';
import { fileName } from '@tolvek/core/register';
import type { Happening } from '@tolvek/core/request';
import { and, eq, inArray } from 'drizzle-orm';
import { heardAt, openSeats, roundOf, stepOf } from '../approval/queries.ts';
import { seats } from '../approval/tables.ts';
import { planningOf } from '../form/queries.ts';
import { askedFor } from '../people/absences.ts';
import { holdersOfRight } from '../people/given.ts';
import { membersOf } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Transaction } from '../platform/database.ts';
import { dropLinks } from '../platform/links.ts';
import type { Work } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import type { Follower } from '../request/change.ts';
import { followersOf } from '../request/followers.ts';
import { commentOf, dataOf } from '../request/history.ts';
import { byRequest, type LaidPart, missed } from '../request/layBy.ts';
import { mergedInto } from '../request/merged.ts';
import { requestById, type ShownRow } from '../request/queries.ts';
import { mailboxOf } from './addressee.ts';
import { forgetGathered } from './gather.ts';
import { isDeciding, leadsGroup, leadsOf, workingOn } from './hearers.ts';
import { notify, notifyGroup, type Telling } from './notify.ts';
import { mailboxMeant, recipientsOf, tellByRules } from './rules.ts';
import { notices } from './tables.ts';
import { noteTurned } from './turned.ts';

/** People hear of what happens to a request: who asked, who works on it, who decides. */
export const followNotices: Follower = (work, request, change, before) => {
  if (request.trial) return undefined;
  const telling = { ...work, told: new Set<string>() };
  tell(telling, request, change, before);
  tellFollowers(telling, request, change);
  tellByRules(telling, request, change, before);
  noteTurned(work, request, change, before);
  return undefined;
};

const UNSENT: ReadonlySet<unknown> = new Set(['waiting', 'sending', 'failed', 'gathering']);

/** What was told of a request comes back with it; what had not gone yet does not go any more. */
export const LAID_NOTICES: readonly LaidPart[] = [
  {
    table: notices,
    of: byRequest(notices.requestId),
    back: missed(({ state }) => UNSENT.has(state), { state: 'dropped', why: 'nothing' }),
  },
];

/** Takes away what was told of requests that are deleted, and the links to them; what left the house has left it. */
export function dropNotices(tx: Transaction, requestIds: readonly string[]): void {
  forgetGathered(tx, requestIds);
  tx.delete(notices)
    .where(inArray(notices.requestId, [...requestIds]))
    .run();
  dropLinks(tx, requestIds);
}

function tell(work: Telling, request: ShownRow, change: Happening, before: ShownRow | null): void {
  switch (change.kind) {
    case 'arrived':
      tellOfArrival(work, request, change);
      break;
    case 'stage':
      if (before) tellOfStage(work, request, before);
      break;
    case 'freed':
      tellFreed(work, request, before);
      break;
    case 'withdrawn':
      tellWithdrawn(work, request, change);
      break;
    case 'undelivered':
      // Whoever works on it would wait for somebody who has read nothing.
      tellWorking(work, request, newsOf(work, change), work.actor);
      break;
    case 'link-sent':
      notify(work, request, [change.of], { kind: 'new-link' });
      break;
    case 'proposed':
      tellProposed(work, request, change);
      break;
    case 'team':
      if (request.phase !== 'finished' && !isDeciding(work.tx, request)) tellTeam(work, request);
      break;
    case 'priority':
    case 'shared':
    case 'unshared':
    case 'followed':
    case 'unfollowed':
    case 'same-person':
    case 'links-ended':
    case 'claimed':
    case 'confirmed':
    case 'proposal-refused':
    case 'proposal-ended':
    case 'due':
    case 'replanned':
    case 'put-back':
      break;
    case 'merged':
    case 'took-in':
      notify(work, request, [request.requesterId], { kind: 'together' });
      break;
    case 'unmerged':
      notify(work, request, [request.requesterId], { kind: 'apart' });
      break;
    case 'let-out':
      break;
    case 'seat':
      if (isDeciding(work.tx, request)) tellSeated(work, request, change.to);
      break;
    case 'handler':
      tellHandler(work, request, change.to);
      break;
    case 'said':
      tellWords(work, request, change);
      break;
    case 'decided':
      tellDecision(work, request, change, before);
      break;
    case 'decided-anew':
      tellDecidedAnew(work, request, change);
      break;
    case 'sent-to-decide':
      tellDeciders(work, request);
      break;
    case 'taken-back':
      break;
    case 'silent':
      if (change.gives.length > 0) tellDeciders(work, request, { at: change.gives.map(({ seat }) => seat) });
      else {
        tellDeciders(work, request, { again: true });
        notifyGroup(work, request, leadsGroup(work.tx, request), { kind: 'undecided', step: change.step }, null);
      }
      break;
    case 'returned':
      notify(work, request, [request.requesterId], { kind: 'returned', by: work.actor, text: change.text });
      break;
    case 'answered':
      tellDeciders(work, request);
      break;
    case 'handed':
      tellDeciders(work, request, { at: change.gives.map(({ seat }) => seat) });
      break;
    case 'nobody-handles':
      notifyGroup(work, request, leadsGroup(work.tx, request), { kind: 'nobody-handles', team: change.team }, null);
      break;
    case 'nobody-decides':
      tellNobody(work, request, change);
      break;
    case 'rang':
      tellOfRing(work, request, change);
      break;
    case 'values':
  }
}

/** What whoever follows is told of: where it is, who works on it, what was decided, what was written. */
const NEWS: ReadonlySet<string> = new Set<News['kind']>([
  ...(['stage', 'freed', 'withdrawn', 'team', 'priority', 'handler', 'decided', 'decided-anew', 'said'] as const),
]);

/** Tells those who follow a request what happened, but for who did it and who is told of it already. */
function tellFollowers(work: Telling, request: ShownRow, change: Happening): void {
  if (change.kind === 'followed' && change.who) {
    // Who is of its team hears of it as such.
    const team = isDeciding(work.tx, request) ? [] : membersOf(work.tx, request.team ?? '').map(({ id }) => id);
    tellNews(
      work,
      request,
      change.who.filter((id) => !team.includes(id)),
      change,
    );
    return;
  }
  if (!NEWS.has(change.kind)) return;
  tellNews(work, request, followersOf(work.tx, request.id), change, commentOf(change)?.text);
}

type Of<Kind extends Happening['kind']> = Extract<Happening, { kind: Kind }>;

/** A thing taken in is in use at once, and rows of a sheet come in silently: nobody has to be told. */
function tellOfArrival(work: Telling, request: ShownRow, { through }: Of<'arrived'>): void {
  if (request.phase === 'finished' || through.by !== 'door') return;
  notify(work, request, [request.requesterId], { kind: 'received' });
  if (isDeciding(work.tx, request)) tellDeciders(work, request);
  // Whoever a rule made the handler was told of it.
  else if (request.handlerId === null) tellTeam(work, request);
}

/** Asks whoever may decide now, or at some seats; each once, though they may sit on several. `again`: they were asked before. */
function tellDeciders(
  work: Telling,
  request: ShownRow,
  { again, at }: { readonly again?: true; readonly at?: readonly string[] } = {},
): void {
  const round = roundOf(work.tx, request.id);
  if (round?.state !== 'open') return;
  const told = new Set<string | null>([request.requesterId, ...(again ? heardAt(stepOf(round)) : [])]);
  for (const seat of openSeats(round)) {
    if (at && !at.includes(seat.id)) continue;
    const deciders = askedFor(work.tx, seat.holder, todayAt(work.tx, work.now))
      .map((person) => person.id)
      .filter((id) => !told.has(id));
    for (const id of deciders) told.add(id);
    notify(work, request, deciders, { kind: 'approval-asked', seat: seat.id, ...(again ? { again } : {}) });
  }
}

const planOf = ({ tx }: Pick<Work, 'tx'>, request: ShownRow): DeadlinePlan =>
  planningOf(tx, request).release.design.deadline;

/** Asks those who take the place of others from now on what those are asked: each request once. */
export function tellStandIns(work: Work, standing: readonly StandIn[]): void {
  const told = new Set<string>();
  for (const { holder, person } of standing)
    for (const { seat, request: id } of openSeatsOf(work, holder)) {
      const request = requestById(work.tx, id);
      if (!request || request.trial || request.requesterId === person || told.has(`${id} ${person}`)) continue;
      told.add(`${id} ${person}`);
      notify(work, request, [person], { kind: 'approval-asked', seat });
    }
}

const openSeatsOf = ({ tx }: Work, holder: string) =>
  tx
    .select({ seat: seats.id, request: seats.requestId })
    .from(seats)
    .where(and(eq(seats.holder, holder), eq(seats.state, 'open')))
    .all();

/** Asks one person at the seats they hold now. */
function tellSeated(work: Telling, request: ShownRow, person: string): void {
  const round = roundOf(work.tx, request.id);
  if (round?.state !== 'open' || person === request.requesterId) return;
  const [seat] = openSeats(round).filter(({ holder }) => holder === wordOf({ person }));
  if (seat) notify(work, request, [person], { kind: 'approval-asked', seat: seat.id });
}

/** Tells the team of a request that it is theirs to work on. */
function tellTeam(work: Telling, request: ShownRow): void {
  if (request.team === null) return;
  notifyGroup(work, request, request.team, { kind: 'new-request', team: request.team }, request.requesterId);
}

function tellOfStage(work: Telling, request: ShownRow, before: ShownRow): void {
  const finished = request.phase === 'finished';
  if (!finished && request.phase !== 'paused' && before.phase !== 'paused') return;
  notify(work, request, [request.requesterId], { kind: 'stage', stage: request.stage, finished });
  // Whoever asked the same hears of the end as well, as of their own.
  if (finished) tellTogether(work, request);
}

/** Tells whoever asked what was merged into a request that it has ended. */
function tellTogether(work: Telling, { id, stage }: ShownRow): void {
  for (const { requestId } of mergedInto(work.tx, id)) {
    const request = requestById(work.tx, requestId);
    if (request) notify(work, request, [request.requesterId], { kind: 'stage', stage, finished: true });
  }
}

/** Whoever freed it gave it to its team anew: they hear of it, and the requester of where it is now. */
function tellFreed(work: Telling, request: ShownRow, before: ShownRow | null): void {
  if (before) tellOfStage(work, request, before);
  if (before && isDeciding(work.tx, before) && request.phase !== 'finished') tellTeam(work, request);
}

/** Whoever works on it hears that it was withdrawn, and why. */
function tellWithdrawn(work: Telling, request: ShownRow, change: Of<'withdrawn'>): void {
  tellWorking(work, request, newsOf(work, change, change.reason), work.actor);
}

/**
 * Tells whoever works on it: its handler, or its team, at an address of its own where it has one. `but`: who did it; nobody
 * is told who is told already.
 */
function tellWorking(work: Telling, request: ShownRow, cause: NoticeCause, but: string | null): void {
  const { handlerId, team } = request;
  if (handlerId === null && team !== null && mailboxOf(work.tx, team)) notifyGroup(work, request, team, cause, but);
  else {
    const others = workingOn(work.tx, request).filter((id) => id !== but && !work.told.has(id));
    notify(work, request, others, cause);
  }
}

const newsOf = ({ actor }: Telling, change: Happening, text = ''): NoticeCause => ({
  ...{ kind: 'news', by: actor, change: dataOf(change) as News, text },
});

/** Tells some what happened, but for who did it and who is told of it already. */
function tellNews(work: Telling, request: ShownRow, some: readonly string[], change: Happening, text = ''): void {
  const others = some.filter((id) => id !== work.actor && !work.told.has(id));
  notify(work, request, others, newsOf(work, change, text));
}

/** Whoever works on it hears of a change that waits to be accepted; of a thing, whoever works in its register. */
function tellProposed(work: Telling, request: ShownRow, change: Of<'proposed'>): void {
  const working = workingOn(work.tx, request);
  const desk = (): readonly string[] =>
    registerById(work.tx, request.registerId).deskGroups.flatMap((group) =>
      membersOf(work.tx, group).map(({ id }) => id),
    );
  const some = (working.length > 0 ? working : desk()).filter((id) => id !== work.actor && !work.told.has(id));
  if (change.proposal === undefined) return;
  notify(work, request, some, { kind: 'proposed', proposal: change.proposal, by: work.actor });
}

function tellHandler(work: Telling, request: ShownRow, to: string | null): void {
  if (to !== null && to !== work.actor) notify(work, request, [to], { kind: 'assigned', by: work.actor });
}

function tellWords(
  work: Telling,
  request: ShownRow,
  { text, to, whom, byRequester, question, files = [] }: Of<'said'>,
): void {
  const named = files.length > 0 ? { files: files.map(fileName) } : {};
  const inside = to === 'desk' ? { inside: true as const } : {};
  const cause = { kind: 'message', by: work.actor, text, ...named, ...inside } as const;
  if (byRequester || question) {
    tellWorking(work, request, cause, work.actor);
    const asked = question?.to ?? null;
    if (asked !== work.actor && !(asked !== null && work.told.has(asked))) notify(work, request, [asked], cause);
  } else if (to === 'requester') notify(work, request, [request.requesterId], cause);
  else if (to === 'handler') notify(work, request, [whom ?? null], cause);
}

/** Who decides is asked, and whoever works on it hears that they wait. */
function tellDecidedAnew(work: Telling, request: ShownRow, change: Of<'decided-anew'>): void {
  tellDeciders(work, request);
  tellWorking(work, request, newsOf(work, change), work.actor);
}

/** A verdict that others have to join in is no news to the requester yet. */
function tellDecision(
  work: Telling,
  request: ShownRow,
  { leadsTo, comment, silent }: Of<'decided'>,
  before: ShownRow | null,
): void {
  if (leadsTo === 'next-step') tellDeciders(work, request);
  if (leadsTo === 'next-step' || leadsTo === 'same-step') return;
  notify(work, request, [request.requesterId], {
    kind: leadsTo,
    by: work.actor,
    comment,
    ...(silent ? { silent } : {}),
  });
  if (leadsTo === 'refused') tellTogether(work, request);
  const isGiven = request.handlerId !== null && before?.handlerId === null;
  if (leadsTo === 'approved' && !isGiven) tellTeam(work, request);
}

/** Those who hear of delays, and whoever may move anything on: nobody else can help. */
function tellNobody(work: Telling, request: ShownRow, { step }: Of<'nobody-decides'>): void {
  const movers = holdersOfRight(work.tx, 'move:all', request.registerId).map(({ id }) => id);
  const cause = { kind: 'nobody-decides', step } as const;
  const leads = leadsOf(work.tx, request);
  notifyGroup(work, request, leadsGroup(work.tx, request), cause, null);
  notify(
    work,
    request,
    movers.filter((id) => !leads.includes(id)),
    cause,
  );
}

/** Whoever is to hear of a ring hears of it, each once; what waits for a decision reminds whoever has to decide. */
function tellOfRing(work: Telling, request: ShownRow, { timer, deadline = FINISH, tells = true }: Of<'rang'>): void {
  if (timer === 'decide-reminder') {
    tellDeciders(work, request, { again: true });
    return;
  }
  const ring = ruleOf(planOf(work, request), deadline)?.rings.find(({ key }) => key === timer);
  if (!ring || !tells) return;
  const kind = ringsBefore(ring) ? 'reminder' : 'escalation';
  const isDecided = isDeciding(work.tx, request);
  if (ring.tells.includes('deciding') || (isDecided && ring.tells.includes('working')))
    tellDeciders(work, request, { again: true });
  // While it is decided, whoever works on it can do nothing about it; when it is due they hear of it all the same.
  const hearers = ring.tells.filter((hearer) => hearer !== 'working' || !isDecided || kind !== 'reminder');
  // Those at an address of their own.
  const groups = new Set(hearers.flatMap((hearer) => mailboxMeant(work.tx, request, hearer)?.key ?? []));
  for (const key of groups) notifyGroup(work, request, key, { kind, deadline }, null);
  const heard = hearers.flatMap((hearer) => hearersOf(work, request, hearer));
  const together = new Set([...groups].flatMap((key) => membersOf(work.tx, key).map(({ id }) => id)));
  const desk = [...new Set(heard)].filter((id) => id !== request.requesterId && !together.has(id));
  notify(work, request, desk, { kind, deadline });
  if (ring.tells.includes('requester')) notify(work, request, [request.requesterId], { kind: 'due', deadline });
}

/** Who hears of a ring, by id; deciders and the requester are told in words of their own. */
function hearersOf(work: Telling, request: ShownRow, hearer: Hearer): readonly string[] {
  if (hearer === 'requester' || hearer === 'deciding') return [];
  return hearer === 'working' ? workingOn(work.tx, request) : recipientsOf(work, request, hearer);
}
