import { holdersOf, type Viewer } from '../people/index.ts';
import type { MoverRelation } from '../register/index.ts';
import type { Relation } from './accessTo.ts';

/** What decides how somebody stands to a request. Groups by key. */
export interface RequestParties {
  /** Null where nobody said who asks. */
  readonly requesterId: string | null;
  readonly handlerId: string | null;
  /** Null for things: no team works on them. */
  readonly team: string | null;
  /** Who may decide on it, or has: words of groups and persons. */
  readonly deciders: readonly string[];
  /** Groups that work in the request's register. */
  readonly deskGroups: readonly string[];
}

/**
 * The desk of a request: coordinators and administrators, the register's desk groups, its team, its
 * handler and its deciders. The server's ledger asks SQLite the same question; a test holds the
 * two together.
 */
export function relationTo(request: RequestParties, viewer: Viewer): Relation {
  const inGroup = (group: string | null): boolean => group !== null && viewer.groups.includes(group);
  const isDesk =
    viewer.kind === 'staff' &&
    (viewer.role !== 'member' ||
      request.handlerId === viewer.personId ||
      inGroup(request.team) ||
      isDecider(request, viewer) ||
      request.deskGroups.some(inGroup));
  return { isDesk, isRequester: request.requesterId === viewer.personId };
}

function isDecider({ deciders }: Pick<RequestParties, 'deciders'>, viewer: Viewer): boolean {
  if (deciders.length === 0) return false;
  const held = holdersOf(viewer);
  return deciders.some((word) => held.includes(word));
}

/** How somebody stands to a request, of what a move can ask for. */
export function relationsTo(request: RequestParties, viewer: Viewer): ReadonlySet<MoverRelation> {
  return new Set<MoverRelation>([
    ...(request.handlerId === viewer.personId ? (['handler'] as const) : []),
    ...(request.team !== null && viewer.groups.includes(request.team) ? (['team'] as const) : []),
    ...(isDecider(request, viewer) ? (['decider'] as const) : []),
  ]);
}
