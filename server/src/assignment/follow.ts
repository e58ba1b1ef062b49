import { type Chosen, chooseHandler, type DutyAsked, type HandlerRule } from '@tolvek/core/assignment';
import { own } from '@tolvek/core/own';
import { wordOf } from '@tolvek/core/people';
import type { Happening } from '@tolvek/core/request';
import { type FollowerPlan, handlersIn, type Routed, saidThen } from '@tolvek/core/routing';
import { calendarOf } from '../calendar/queries.ts';
import { releaseById } from '../form/queries.ts';
import { peopleHolding, recordNow, viewerOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { by, type Work } from '../platform/work.ts';
import { registerById, stageOf } from '../register/queries.ts';
import { changeRequest, type Follower } from '../request/change.ts';
import { putFollower } from '../request/followers.ts';
import { openRequest } from '../request/open.ts';
import { type RequestRow, requestById, type ShownRow, whoseIs } from '../request/queries.ts';
import { onDuty as onDutyBy } from '../roster/queries.ts';
import { candidatesFor, lastHandlerOf, namedBy } from './candidates.ts';
import { abilityOf } from './skills.ts';
import { handlerTurns } from './tables.ts';

/** By what the work on a request begins: it arrives, or is decided. Rows of a sheet come in silently, and nobody is given them. */
const begins = (change: Happening): boolean =>
  (change.kind === 'arrived' && change.through.by !== 'sheet of rows') ||
  (change.kind === 'decided' && change.leadsTo === 'approved');

/**
 * A request whose row says so gets its handler when the work on it begins: after its decision, where there is one. Whoever
 * was made its handler by hand stays.
 */
export const followAssignment: Follower = (work, request, change) => {
  if (change.kind === 'arrived' && begins(change)) haveFollow(work, request, change.taken?.routed?.outcome.followers);
  const { team, handlerId, phase } = request;
  if (!begins(change) || team === null || handlerId !== null || phase === 'finished') return undefined;
  if (stageOf(registerById(work.tx, request.registerId), request.stage).role === 'deciding') return undefined;
  const routed = change.kind === 'arrived' ? change.taken?.routed : requestById(work.tx, request.id)?.routed;
  const rule = ruleFor(work.tx, request, routed);
  if (!rule) return undefined;
  const chosen = chosenBy(work, { ...request, team }, rule);
  return chosen
    ? assignBy(work, request, team, chosen)
    : changeRequest(by(work, null), request, { kind: 'nobody-handles', team });
};

/**
 * Gives a request to whoever is found by the rule of its row now; as it is where that is who handles it already. Null where
 * nobody is found, its row has no rule, or it is with another team by now. `reason`: why it is given anew.
 */
export function giveByRule(work: Work, request: RequestRow, reason = ''): RequestRow | null {
  const { team } = request;
  const rule = ruleFor(work.tx, request, request.routed);
  const chosen = rule && team !== null ? chosenBy(work, { ...request, team }, rule) : null;
  if (!chosen || team === null) return null;
  return chosen.person === request.handlerId ? request : assignBy(work, request, team, chosen, reason);
}

/** Whether a request can be given by the rule of its row. */
export const hasRule = (db: Reader, request: RequestRow): boolean => ruleFor(db, request, request.routed) !== undefined;

/** Has those follow a request whom the routing table names: people who are here and may read it, but for whoever asked. */
function haveFollow(work: Work, request: ShownRow, plans: readonly FollowerPlan[] = []): void {
  const { tx, now } = work;
  const found = plans.flatMap((plan): readonly string[] => {
    const person = 'field' in plan ? personIn(tx, request, plan.field) : null;
    const holder = 'field' in plan ? person && { person } : plan;
    return holder ? peopleHolding(tx, wordOf(holder)).map(({ id }) => id) : [];
  });
  const whose = whoseIs(request);
  const reads = (id: string): boolean => {
    const viewer = whose.includes(id) ? null : viewerOf(tx, id);
    return viewer !== null && openRequest(tx, request, viewer, 'letter').relation.isDesk;
  };
  const who = [...new Set(found)].filter((id) => reads(id) && putFollower(tx, request.id, id, now));
  if (who.length > 0) changeRequest(by(work, null), request, { kind: 'followed', who });
}

/** Whom a field of a request names, by id; null for nobody. */
function personIn(db: Reader, request: ShownRow, field: string): string | null {
  const value = own(request.values, field);
  return typeof value === 'string' ? (recordNow(db, value)?.id ?? null) : null;
}

/** The rule of the row that a request went by, as long as it is with the team of that row. */
function ruleFor(
  db: Reader,
  request: ShownRow,
  routed: RequestRow['routed'] | Routed | undefined,
): HandlerRule | undefined {
  const { routing } = releaseById(db, request.releaseId).release.design;
  if (!routed || handlersIn(routing).length === 0) return undefined;
  const outcome = 'outcome' in routed ? routed.outcome : saidThen(routing, routed);
  return outcome.team === request.team ? outcome.handler : undefined;
}

/** Who handles a request by a rule, of those who could now; null for nobody. */
function chosenBy({ tx, now }: Work, request: ShownRow & { readonly team: string }, rule: HandlerRule): Chosen | null {
  const { team } = request;
  const last = rule.ways.some((way) => way.by === 'last') ? lastHandlerOf(tx, request) : null;
  const named = (field: string): string | null => personIn(tx, request, field);
  const onDuty = (way: DutyAsked): readonly string[] => onDutyBy(tx, way, now);
  const calendar = calendarOf(tx, releaseById(tx, request.releaseId).release.design.deadline.calendar);
  const candidates = candidatesFor(tx, { team, besides: namedBy(rule, last, { named, onDuty }), calendar, now });
  const asksSkill = rule.ways.some((way) => way.by === 'skill');
  const can = abilityOf(tx, asksSkill ? candidates.map(({ person }) => person) : [], now);
  return chooseHandler(rule, { candidates, whose: whoseIs(request), last, named, can, onDuty });
}

function assignBy<Row extends ShownRow>(work: Work, request: Row, team: string, chosen: Chosen, reason = ''): Row {
  if (!request.trial)
    work.tx
      .insert(handlerTurns)
      .values({ team, personId: chosen.person, at: work.now })
      .onConflictDoUpdate({ target: [handlerTurns.team, handlerTurns.personId], set: { at: work.now } })
      .run();
  return changeRequest(by(work, null), request, {
    ...{ kind: 'handler', from: request.handlerId, to: chosen.person, chosen },
    ...(reason ? { reason } : {}),
  });
}
