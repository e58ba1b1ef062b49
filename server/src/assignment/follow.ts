import { chooseHandler, type HandlerRule } from '@tolvek/core/assignment';
import { own } from '@tolvek/core/own';
import type { Happening } from '@tolvek/core/request';
import { calendarOf } from '../calendar/queries.ts';
import { releaseById } from '../form/queries.ts';
import { recordNow } from '../people/queries.ts';
import { by, type Work } from '../platform/work.ts';
import { registerById, stageOf } from '../register/queries.ts';
import { changeRequest, type Follower } from '../request/change.ts';
import { requestById, type ShownRow, whoseIs } from '../request/queries.ts';
import { candidatesFor, lastHandlerOf, namedBy } from './candidates.ts';
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
  const { team, handlerId, phase } = request;
  if (!begins(change) || team === null || handlerId !== null || phase === 'finished') return undefined;
  if (stageOf(registerById(work.tx, request.registerId), request.stage).role === 'deciding') return undefined;
  const rule = ruleFor(work, request, change);
  return rule && assignBy(work, { ...request, team }, rule);
};

/** The rule of the row that a request went by, as long as it is with the team of that row. */
function ruleFor({ tx }: Work, request: ShownRow, change: Happening): HandlerRule | undefined {
  const { rows, otherwise } = releaseById(tx, request.releaseId).release.design.routing;
  if (!rows.some(({ outcome }) => outcome.handler) && !otherwise.handler) return undefined;
  const row = change.kind === 'arrived' ? change.taken?.routed?.row : requestById(tx, request.id)?.routed?.row;
  if (row === undefined) return undefined;
  const outcome = rows[row - 1]?.outcome ?? otherwise;
  return outcome.team === request.team ? outcome.handler : undefined;
}

function assignBy(work: Work, request: ShownRow & { readonly team: string }, rule: HandlerRule): ShownRow {
  const { tx, now } = work;
  const { team } = request;
  const last = rule.ways.some((way) => way.by === 'last') ? lastHandlerOf(tx, request) : null;
  const named = (field: string): string | null => {
    const value = own(request.values, field);
    return typeof value === 'string' ? (recordNow(tx, value)?.id ?? null) : null;
  };
  const calendar = calendarOf(tx, releaseById(tx, request.releaseId).release.design.deadline.calendar);
  const candidates = candidatesFor(tx, { team, besides: namedBy(rule, last, named), calendar, now });
  const chosen = chooseHandler(rule, { candidates, whose: whoseIs(request), last, named });
  const itself = by(work, null);
  if (!chosen) return changeRequest(itself, request, { kind: 'nobody-handles', team });
  if (!request.trial)
    tx.insert(handlerTurns)
      .values({ team, personId: chosen.person, at: now })
      .onConflictDoUpdate({ target: [handlerTurns.team, handlerTurns.personId], set: { at: now } })
      .run();
  return changeRequest(itself, request, { kind: 'handler', from: null, to: chosen.person, chosen });
}
