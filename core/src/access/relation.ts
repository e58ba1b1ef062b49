import {
  belongs,
  holdersOf,
  mayWith,
  NO_REQUEST,
  type RequestRight,
  rightsAt,
  type Standing,
  type Viewer,
} from '../people/index.ts';
import { MOVERS, type MoverRelation, PARTY_RELATIONS } from '../register/index.ts';
import { hasToDoWith, type Relation } from './accessTo.ts';
import type { AccessPlan, RequestReader } from './plan.ts';

/** What decides how somebody stands to a request. Groups by key. */
export interface RequestParties {
  /** The id of its register. */
  readonly register: string;
  /** Null where nobody said who asks. */
  readonly requesterId: string | null;
  /** On whose behalf it was asked, and who typed it in, where that is somebody else. */
  readonly onBehalfId: string | null;
  readonly enteredById: string | null;
  readonly handlerId: string | null;
  /** Null for things: no team works on them. */
  readonly team: string | null;
  /** Who may decide on it, or has: words of groups and persons. */
  readonly deciders: readonly string[];
  /** The ids of those who follow it, where a rule tells them from others. */
  readonly followers: readonly string[];
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
  const bitsOf = ({ handlerId, team, deciders, enteredById, onBehalfId, followers }: RequestParties): number =>
    (enteredById === viewer.personId ? ENTERED : 0) |
    (onBehalfId === viewer.personId ? BEHALF : 0) |
    (followers.includes(viewer.personId) ? FOLLOWER : 0) |
    (handlerId === viewer.personId ? HANDLER : 0) |
    (team !== null && groups.has(team) ? TEAM : 0) |
    (deciders.some((word) => held.has(word)) ? DECIDER : 0);
  const isOfDesk = ({ deskGroups }: RequestParties): boolean => deskGroups.some((group) => groups.has(group));
  const standing = (request: RequestParties): Standing => standingBy(bitsOf(request), isOfDesk(request));
  const known = new Map<string, Relation>();
  const relation = (request: RequestParties): Relation => {
    const [bits, works] = [bitsOf(request), isOfDesk(request)];
    // What is asked on somebody’s behalf is theirs as it is whose who asked.
    const asks = request.requesterId === viewer.personId || (bits & BEHALF) !== 0;
    const key = `${request.register} ${bits} ${works} ${asks}`;
    let related = known.get(key);
    if (!related) known.set(key, (related = relationBy(viewer, request.register, standingBy(bits, works), bits, asks)));
    return related;
  };
  const stands = { standing, relation };
  ready.set(viewer, stands);
  return stands;
}

/** Requests of one register, ready to be asked how somebody stands to all of them. */
export interface Gathered {
  readonly sorts: readonly string[];
  /** How many requests somebody has to do with, by how they stand to them and by their sort. */
  readonly standings: (viewer: Viewer) => readonly {
    readonly sort: string;
    readonly relation: Relation;
    readonly n: number;
    /** One of them, where requests are gathered with their names. */
    readonly example: string | null;
  }[];
}

/** Requests that are of one sort and have the same people, and how many they are. */
export interface AskedAlike
  extends Pick<
    RequestParties,
    'requesterId' | 'onBehalfId' | 'enteredById' | 'handlerId' | 'team' | 'deciders' | 'followers'
  > {
  /** What besides its people decides about a request, as one word: the release it came by, where it stands. */
  readonly sort: string;
  readonly n: number;
  /** What one of them is called. */
  readonly example?: string;
}

/** What somebody is to a request, as bits. */
const HANDLER = 1;
const TEAM = 2;
const DECIDER = 4;
const ENTERED = 8;
const BEHALF = 16;
const FOLLOWER = 32;
const ASKED = 64;
const BITS = 128;

/**
 * Gathers requests of a register by the people they have: whom most of them do not concern is not held against each.
 * What comes of it is what `relationTo` says of each. `others`: also those that somebody has nothing to do with.
 */
export function gather(
  { register, deskGroups }: Pick<RequestParties, 'register' | 'deskGroups'>,
  requests: readonly AskedAlike[],
  others = false,
): Gathered {
  const sorts = [...new Set(requests.map(({ sort }) => sort))];
  const places = new Map(sorts.map((sort, place) => [sort, place]));
  const sortOf = requests.map(({ sort }) => places.get(sort) as number);
  const totals = sorts.map(() => 0);
  const bySort: number[][] = sorts.map(() => []);
  const by = {
    requester: new Map<string, number[]>(),
    behalf: new Map<string, number[]>(),
    entered: new Map<string, number[]>(),
    handler: new Map<string, number[]>(),
    team: new Map<string, number[]>(),
    decider: new Map<string, number[]>(),
    follower: new Map<string, number[]>(),
  };
  const add = (to: Map<string, number[]>, key: string | null, index: number): void => {
    if (key === null) return;
    const known = to.get(key);
    if (known) known.push(index);
    else to.set(key, [index]);
  };
  for (const [index, request] of requests.entries()) {
    const { requesterId, onBehalfId, enteredById, handlerId, team, deciders, followers, n } = request;
    bySort[sortOf[index] as number]?.push(index);
    add(by.requester, requesterId, index);
    add(by.behalf, onBehalfId, index);
    add(by.entered, enteredById, index);
    add(by.handler, handlerId, index);
    add(by.team, team, index);
    for (const word of deciders) add(by.decider, word, index);
    for (const id of followers) add(by.follower, id, index);
    totals[sortOf[index] as number] = (totals[sortOf[index] as number] ?? 0) + n;
  }
  const marks = new Uint8Array(requests.length);
  /** By sort and by what somebody is to it: of the one who is looked at. */
  const counts = new Int32Array(sorts.length * BITS);
  const standings: Gathered['standings'] = (viewer) => {
    const touched: number[] = [];
    const mark = (found: readonly number[] | undefined, as: number): void => {
      for (const index of found ?? []) {
        if (marks[index] === 0) touched.push(index);
        marks[index] = (marks[index] as number) | as;
      }
    };
    mark(by.handler.get(viewer.personId), HANDLER);
    for (const word of holdersOf(viewer)) mark(by.decider.get(word), DECIDER);
    for (const group of viewer.groups) mark(by.team.get(group), TEAM);
    mark(by.requester.get(viewer.personId), ASKED);
    mark(by.behalf.get(viewer.personId), ASKED | BEHALF);
    mark(by.entered.get(viewer.personId), ENTERED);
    mark(by.follower.get(viewer.personId), FOLLOWER);
    const isOfDesk = deskGroups.some((group) => viewer.groups.includes(group));
    // To most of them, somebody is nothing.
    for (const [sort, total] of totals.entries()) counts[sort * BITS] = total;
    const stood = new Set(totals.map((_total, sort) => sort * BITS));
    const examples = new Map<number, number>();
    for (const index of touched) {
      const { n } = requests[index] as AskedAlike;
      const from = (sortOf[index] as number) * BITS;
      const to = from + (marks[index] as number);
      counts[from] = (counts[from] as number) - n;
      counts[to] = (counts[to] as number) + n;
      examples.set(to, index);
      stood.add(to);
    }
    const exampleAt = (at: number): string | null => {
      const index = at % BITS === 0 ? bySort[at / BITS]?.find((each) => marks[each] === 0) : examples.get(at);
      return (index === undefined ? null : requests[index]?.example) ?? null;
    };
    const stands = [...stood]
      .sort((a, b) => a - b)
      .flatMap((at) => {
        const n = counts[at] as number;
        counts[at] = 0;
        if (n === 0) return [];
        const bits = at & (ASKED - 1);
        const relation = relationBy(viewer, register, standingBy(bits, isOfDesk), bits, (at & ASKED) !== 0);
        return others || hasToDoWith(relation)
          ? [{ sort: sorts[Math.floor(at / BITS)] as string, relation, n, example: exampleAt(at) }]
          : [];
      });
    for (const index of touched) marks[index] = 0;
    return stands;
  };
  return { sorts, standings };
}

/** It is theirs to work or decide on, of a team or desk of theirs, or neither. */
function standingBy(bits: number, isOfDesk: boolean): Standing {
  if ((bits & (HANDLER | DECIDER)) !== 0) return 'own';
  return (bits & TEAM) !== 0 || isOfDesk ? 'team' : 'none';
}

function relationBy(
  viewer: Viewer,
  register: string,
  standing: Standing,
  bits: number,
  isRequester: boolean,
): Relation {
  const entitled = { rights: rightsAt(viewer, register) };
  const isDesk = viewer.kind === 'staff' && (mayWith(entitled, 'read', standing) || standing === 'own');
  const builds = isDesk && entitled.rights.includes('configure');
  const related: Relation = { isDesk, isRequester, ...(AS[bits] ?? {}), ...(builds ? { builds } : {}) };
  // Whoever asked from outside stays the one who asked.
  if (viewer.kind === 'contact' && !isRequester && standing === 'own') {
    const calledIn: Relation = { ...related, calledIn: true };
    return (bits & HANDLER) !== 0 ? calledIn : { ...calledIn, onlyReads: true };
  }
  return isDesk && !mayWith(entitled, 'change', standing) ? { ...related, onlyReads: true } : related;
}

/** What each of the bits stands for, together. */
const AS: readonly Pick<Relation, 'as'>[] = Array.from({ length: ASKED }, (_, bits) =>
  bits === 0 ? {} : { as: PARTY_RELATIONS.filter((_relation, place) => ((bits >> place) & 1) === 1) },
);

/**
 * The desk of a request: who may read all of them; who may read those of their teams, and it is one,
 * of the register’s desk groups or of its team; and whoever handles it or decides on it. What counts is
 * what they may do in its register. The server’s ledger asks SQLite the same question; a test holds the
 * two together.
 */
export const relationTo = (request: RequestParties, viewer: Viewer): Relation => standsOf(viewer).relation(request);

/** Of some readers of whole requests those that mean somebody, whatever they are to a request. */
export const readersMeaning = (readers: readonly RequestReader[], viewer: Viewer): readonly RequestReader[] =>
  viewer.kind === 'staff' ? readers.filter(({ audience }) => belongs(audience, viewer, NO_REQUEST)) : [];

/**
 * How somebody stands to a request where the plan lets them read it by what stands in it: as one who works on it and only
 * reads. For whoever works on it anyway nothing is otherwise. `holds`: whether a condition holds of the request.
 */
export function readsAlso(
  { readers = [] }: Pick<AccessPlan, 'readers'>,
  viewer: Viewer,
  relation: Relation,
  holds: (condition: string) => boolean,
): Relation {
  if (relation.isDesk || readers.length === 0) return relation;
  return readersMeaning(readers, viewer).some(({ when }) => holds(when))
    ? { ...relation, isDesk: true, onlyReads: true }
    : relation;
}

/** How somebody stands to a request of a register that they work on, that is not theirs, and that they are nothing else to. */
export const deskRelation = (viewer: Viewer, register: string): Relation =>
  rightsAt(viewer, register).includes('configure')
    ? { isDesk: true, isRequester: false, builds: true }
    : { isDesk: true, isRequester: false };

/** What somebody from outside may do with the one request that they handle. */
const OF_HANDLING: ReadonlySet<RequestRight> = new Set(['change', 'move']);

/** Whether somebody of the desk of a request may do something with it, or whoever handles it from outside. */
export function mayDo(request: RequestParties, viewer: Viewer, right: RequestRight): boolean {
  if (viewer.kind === 'staff')
    return mayWith({ rights: rightsAt(viewer, request.register) }, right, standsOf(viewer).standing(request));
  const { calledIn = false, onlyReads = false } = relationTo(request, viewer);
  return calledIn && !onlyReads && OF_HANDLING.has(right);
}

/** How somebody stands to a request, of what a move can ask for. */
export const relationsTo = (request: RequestParties, viewer: Viewer): ReadonlySet<MoverRelation> =>
  new Set(MOVERS.filter((each) => relationTo(request, viewer).as?.includes(each)));
