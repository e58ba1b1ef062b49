import type { AnswerOf } from '@tolvek/contract';
import { NOBODY } from '@tolvek/core/approval';
import { sinksOf } from '@tolvek/core/form';
import { holderOf } from '@tolvek/core/people';
import { type Round, standingOf } from '../approval/queries.ts';
import { holderNames } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { OpenRequest } from '../request/open.ts';
import { askedSince } from './decision.ts';

/**
 * Whether somebody may know how a request is decided: it follows from what the routing table, the steps and their seats ask
 * for, whatever this request holds.
 */
const mayKnowHow = ({ design, fields, reading }: OpenRequest): boolean =>
  sinksOf({
    fields,
    routing: design.routing,
    approval: design.approval,
    deadline: design.deadline,
    editions: design.editions ?? [],
  })
    .filter(({ kind, page }) => kind === 'routing' || (kind === 'step' && page === 'approval'))
    .every((sink) => reading.mayHear(sink));

/**
 * Where a decision stands, for whoever asked: its steps in turn, who is asked and since when. Nothing where it is over, or
 * where that would tell them what they may not read. People from outside are told groups, and no names of the staff.
 */
export function decidingFor(
  db: Reader,
  open: OpenRequest,
  round: Round | undefined,
  groups: ReadonlyMap<string, string>,
): AnswerOf<'follow'>['deciding'] {
  if (round?.state !== 'open' || !mayKnowHow(open)) return [];
  const since = askedSince(round);
  const at = standingOf(round).step;
  const isStaff = open.reading.situation.viewer.kind === 'staff';
  return round.steps.map(({ label, needed, dueAt, seats }, place) => {
    const asked = seats.flatMap(({ state, holder }) => (state === 'open' && holder !== NOBODY ? [holder] : []));
    const told = asked.filter((word) => isStaff || 'group' in holderOf(word));
    const from = place === at ? (since[place] ?? null) : null;
    const agreed = seats.filter(({ state }) => state === 'approved').length;
    return {
      ...{ label, needed: Math.max(1, needed - agreed), of: place === at ? asked.length : seats.length },
      state: place < at ? ('over' as const) : place > at ? ('ahead' as const) : ('asked' as const),
      who: place === at ? [...new Set(holderNames(db, told, groups))] : [],
      since: from === null ? null : iso(from),
      until: place === at && dueAt !== null ? iso(dueAt) : null,
    };
  });
}
