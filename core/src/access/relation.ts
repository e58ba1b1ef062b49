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

/** How somebody stands to requests, made ready for many of them. */
interface Stands {
  readonly standing: (request: RequestParties) => Standing;
  readonly relation: (request: RequestParties) => Relation;
}

const ready = new WeakMap<Viewer, Stands>();

/** What holds of a viewer whatever the request: the seats they hold and the groups they are in. */
function standsOf(viewer: Viewer): Stands {
  const found = ready.get(viewer);
  if (found) return found;
  const held = new Set(holdersOf(viewer));
  const groups = new Set(viewer.groups);
  // It is theirs to work or decide on, of a team or desk of theirs, or neither.
  const standing = ({ handlerId, deciders, team, deskGroups }: RequestParties): Standing => {
    if (handlerId === viewer.personId || deciders.some((word) => held.has(word))) return 'own';
    return (team !== null && groups.has(team)) || deskGroups.some((group) => groups.has(group)) ? 'team' : 'none';
  };
  const known = new Map<string, Relation>();
  const relation = (request: RequestParties): Relation => {
    const [stands, isRequester] = [standing(request), request.requesterId === viewer.personId];
    const key = `${request.register} ${stands} ${isRequester}`;
    let related = known.get(key);
    if (!related) known.set(key, (related = relationBy(viewer, request.register, stands, isRequester)));
    return related;
  };
  const stands = { standing, relation };
  ready.set(viewer, stands);
  return stands;
}

/** Requests of one register, ready to be asked how somebody stands to all of them. */
export interface Gathered {
  readonly releases: readonly string[];
  /** How many requests somebody has to do with, by how they stand to them and by the release they came by. */
  readonly standings: (
    viewer: Viewer,
  ) => readonly { readonly release: string; readonly relation: Relation; readonly n: number }[];
}

/** Requests that came by one release and have the same people, and how many they are. */
export interface AskedAlike extends Pick<RequestParties, 'requesterId' | 'handlerId' | 'team' | 'deciders'> {
  readonly release: string;
  readonly n: number;
}

const STANDINGS = ['none', 'team', 'own'] as const satisfies readonly Standing[];
const TEAM = 1;
const THEIRS = 2;
const ASKED = 4;

/**
 * Gathers requests of a register by the people they have: whom most of them do not concern is not held against each.
 * What comes of it is what `relationTo` says of each.
 */
export function gather(
  { register, deskGroups }: Pick<RequestParties, 'register' | 'deskGroups'>,
  requests: readonly AskedAlike[],
): Gathered {
  const releases = [...new Set(requests.map(({ release }) => release))];
  const releaseOf = requests.map(({ release }) => releases.indexOf(release));
  const totals = releases.map(() => 0);
  const by = {
    requester: new Map<string, number[]>(),
    handler: new Map<string, number[]>(),
    team: new Map<string, number[]>(),
    decider: new Map<string, number[]>(),
  };
  const add = (to: Map<string, number[]>, key: string | null, index: number): void => {
    if (key === null) return;
    const known = to.get(key);
    if (known) known.push(index);
    else to.set(key, [index]);
  };
  for (const [index, { requesterId, handlerId, team, deciders, n }] of requests.entries()) {
    add(by.requester, requesterId, index);
    add(by.handler, handlerId, index);
    add(by.team, team, index);
    for (const word of deciders) add(by.decider, word, index);
    totals[releaseOf[index] as number] = (totals[releaseOf[index] as number] ?? 0) + n;
  }
  const marks = new Uint8Array(requests.length);
  const standings: Gathered['standings'] = (viewer) => {
    const touched: number[] = [];
    const mark = (found: readonly number[] | undefined, as: number): void => {
      for (const index of found ?? []) {
        if (marks[index] === 0) touched.push(index);
        marks[index] = (marks[index] as number) | as;
      }
    };
    mark(by.handler.get(viewer.personId), THEIRS);
    for (const word of holdersOf(viewer)) mark(by.decider.get(word), THEIRS);
    for (const group of viewer.groups) mark(by.team.get(group), TEAM);
    mark(by.requester.get(viewer.personId), ASKED);
    const isOfDesk = deskGroups.some((group) => viewer.groups.includes(group));
    const usual = isOfDesk ? 1 : 0;
    // By release, standing and whether they ask: six for each release.
    const counts = new Array<number>(releases.length * 6).fill(0);
    for (const [release, total] of totals.entries()) counts[release * 6 + usual * 2] = total;
    for (const index of touched) {
      const mine = marks[index] as number;
      const standing = (mine & THEIRS) !== 0 ? 2 : isOfDesk || (mine & TEAM) !== 0 ? 1 : 0;
      const release = (releaseOf[index] as number) * 6;
      const { n } = requests[index] as AskedAlike;
      const [from, to] = [release + usual * 2, release + standing * 2 + ((mine & ASKED) !== 0 ? 1 : 0)];
      counts[from] = (counts[from] as number) - n;
      counts[to] = (counts[to] as number) + n;
      marks[index] = 0;
    }
    return counts.flatMap((n, at) => {
      if (n === 0) return [];
      const relation = relationBy(viewer, register, STANDINGS[(at % 6) >> 1] as Standing, at % 2 === 1);
      return relation.isDesk || relation.isRequester
        ? [{ release: releases[Math.floor(at / 6)] as string, relation, n }]
        : [];
    });
  };
  return { releases, standings };
}

function relationBy(viewer: Viewer, register: string, standing: Standing, isRequester: boolean): Relation {
  const entitled = { rights: rightsAt(viewer, register) };
  const isDesk = viewer.kind === 'staff' && (mayWith(entitled, 'read', standing) || standing === 'own');
  return isDesk && !mayWith(entitled, 'change', standing)
    ? { isDesk, isRequester, onlyReads: true }
    : { isDesk, isRequester };
}

/**
 * The desk of a request: who may read all of them; who may read those of their teams, and it is one,
 * of the register’s desk groups or of its team; and whoever handles it or decides on it. What counts is
 * what they may do in its register. The server’s ledger asks SQLite the same question; a test holds the
 * two together.
 */
export const relationTo = (request: RequestParties, viewer: Viewer): Relation => standsOf(viewer).relation(request);

/** Whether somebody of the desk of a request may do something with it. */
export const mayDo = (request: RequestParties, viewer: Viewer, right: RequestRight): boolean =>
  viewer.kind === 'staff' &&
  mayWith({ rights: rightsAt(viewer, request.register) }, right, standsOf(viewer).standing(request));

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
