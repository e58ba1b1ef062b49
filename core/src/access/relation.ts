import { holdersOf, mayWith, type RequestRight, rightsAt, type Standing, type Viewer } from '../people/index.ts';
import type { MoverRelation } from '../register/index.ts';
import type { Relation } from './accessTo.ts';

/** What decides how somebody stands to a request. Groups by key. */
export interface RequestParties {
  /** The id of its register. */
  readonly register: string;
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

/** How somebody stands to a request: it is theirs to work or decide on, of a team or desk of theirs, or neither. */
function standingTo(request: RequestParties, viewer: Viewer): Standing {
  const inGroup = (group: string | null): boolean => group !== null && viewer.groups.includes(group);
  if (isTheirs(request, viewer)) return 'own';
  return inGroup(request.team) || request.deskGroups.some(inGroup) ? 'team' : 'none';
}

/** Whether somebody is asked to work on a request, or to decide on it: they themselves or by a seat they hold. */
const isTheirs = (request: RequestParties, viewer: Viewer): boolean =>
  request.handlerId === viewer.personId || isDecider(request, viewer);

/**
 * The desk of a request: who may read all of them; who may read those of their teams, and it is one,
 * of the register’s desk groups or of its team; and whoever handles it or decides on it. What counts is
 * what they may do in its register. The server’s ledger asks SQLite the same question; a test holds the
 * two together.
 */
export const relationTo = (request: RequestParties, viewer: Viewer): Relation =>
  relationBy(viewer, {
    ...{ register: request.register, standing: standingTo(request, viewer) },
    isRequester: request.requesterId === viewer.personId,
  });

/** The same for whoever stands to some requests of a register alike. */
export function relationBy(
  viewer: Viewer,
  {
    register,
    standing,
    isRequester,
  }: { readonly register: string; readonly standing: Standing; readonly isRequester: boolean },
): Relation {
  const entitled = { rights: rightsAt(viewer, register) };
  const isDesk = viewer.kind === 'staff' && (mayWith(entitled, 'read', standing) || standing === 'own');
  return isDesk && !mayWith(entitled, 'change', standing)
    ? { isDesk, isRequester, onlyReads: true }
    : { isDesk, isRequester };
}

/** Whether somebody of the desk of a request may do something with it. */
export const mayDo = (request: RequestParties, viewer: Viewer, right: RequestRight): boolean =>
  viewer.kind === 'staff' &&
  mayWith({ rights: rightsAt(viewer, request.register) }, right, standingTo(request, viewer));

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
