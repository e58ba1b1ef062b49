import type { Viewer } from '@tolvek/core/people';
import { and, eq, inArray, notInArray, or, type SQL, sql } from 'drizzle-orm';
import { wordsHeld } from '../approval/queries.ts';
import { seats } from '../approval/tables.ts';
import type { Reader } from '../platform/database.ts';
import { allRegisters, type RegisterRow } from '../register/queries.ts';
import { type NamedReader, readAlong, readersFor } from '../request/readings.ts';
import { type dues, requests, type tallies } from '../request/tables.ts';

/** Who and what a request, or a tally of requests, belongs to. */
export type Worked =
  | Pick<typeof requests, 'handlerId' | 'team' | 'deciders' | 'registerId'>
  | typeof tallies
  | typeof dues;

/** Somebody who looks, with all that says what they work on: read once for all that a page tells. */
export interface Looking {
  readonly db: Reader;
  readonly viewer: Viewer;
  /** All registers there are. */
  readonly registers: readonly RegisterRow[];
  /** The words by which they hold seats. */
  readonly words: readonly string[];
  /** The ids of what they read by what stands in it: as a part of a query; nothing where no plan lets them. */
  readonly along?: SQL | undefined;
  /** The readers of access plans that mean them: by whom they read that. */
  readonly readers: readonly NamedReader[];
}

export function lookingAt(db: Reader, viewer: Viewer): Looking {
  const registers = allRegisters(db);
  const readers = readersFor(registers, viewer);
  return { db, viewer, registers, words: wordsHeld(db, viewer), along: readAlong(readers), readers };
}

/** Whether somebody is among those who decide, by a group of theirs or by themselves. */
const isDecider = (of: Pick<Worked, 'deciders'>, words: readonly string[]): SQL | undefined =>
  or(...words.map((word) => sql`instr(' ' || ${of.deciders} || ' ', ${` ${word} `}) > 0`));

type Looks = Pick<Looking, 'viewer' | 'words' | 'along'> & {
  readonly registers: readonly Pick<RegisterRow, 'id' | 'deskGroups'>[];
};

/** The registers at whose desk somebody works. */
const workedIn = ({ registers, viewer }: Looks): string[] =>
  registers
    .filter((register) => register.deskGroups.some((group) => viewer.groups.includes(group)))
    .map((register) => register.id);

/** How much of what is there some rights let somebody read, besides what is their own. */
const readsOf = (rights: Viewer['rights']): 'all' | 'team' | 'own' =>
  rights.includes('read:all') ? 'all' : rights.includes('read:team') ? 'team' : 'own';

/** The registers in which a viewer reads more or less than elsewhere, by how much they read there. */
const readOtherwise = ({ rights, otherwise = {} }: Viewer): readonly (readonly [string, 'all' | 'team' | 'own'])[] =>
  Object.entries(otherwise).flatMap(([id, there]) =>
    readsOf(there) === readsOf(rights) ? [] : [[id, readsOf(there)] as const],
  );

/** Whether a viewer works on all there is, whatever it is. */
export const worksOnAll = (viewer: Viewer): boolean =>
  viewer.kind === 'staff' && readsOf(viewer.rights) === 'all' && readOtherwise(viewer).length === 0;

/** Whether a viewer reads everything, but for some registers at most. */
export const readsMost = ({ kind, rights }: Viewer): boolean => kind === 'staff' && readsOf(rights) === 'all';

/**
 * Asks SQLite what `relationTo` of core answers for one: whether the viewer works on a request.
 * Undefined: on all of them.
 */
export function workedBy(looks: Looks, of: Worked): SQL | undefined {
  const { viewer, words } = looks;
  if (worksOnAll(viewer)) return undefined;
  if (viewer.kind !== 'staff') return sql`0`;
  // As said with a plus: it is looked at where one is found, and no index is chosen for it (that is `idsNear`).
  const theirs = or(sql`+${of.handlerId} = ${viewer.personId}`, isDecider(of, words));
  const groups = [...viewer.groups];
  const worked = groups.length > 0 ? workedIn(looks) : [];
  const ofTeams =
    groups.length > 0
      ? or(inArray(sql`+${of.team}`, groups), worked.length > 0 ? inArray(sql`+${of.registerId}`, worked) : undefined)
      : undefined;
  const reading = { all: sql`1`, team: ofTeams ?? sql`0`, own: sql`0` };
  const otherwise = readOtherwise(viewer);
  const elsewhere = reading[readsOf(viewer.rights)];
  const usual =
    otherwise.length > 0
      ? and(
          notInArray(
            sql`+${of.registerId}`,
            otherwise.map(([id]) => id),
          ),
          elsewhere,
        )
      : elsewhere;
  return or(
    theirs,
    usual,
    ...otherwise.flatMap(([id, reads]) =>
      reads === 'own' ? [] : [and(sql`+${of.registerId} = ${id}`, reading[reads])],
    ),
  );
}

/**
 * The ids of what a member may work on, each found by an index: for those who work on little of what there is, and
 * do not read most of it (`readsMost`).
 * `where`: what else is so of them. Some of these they may not work on; `workedBy` has the last word.
 */
export function idsNear(looks: Looks, where: SQL | undefined): SQL {
  const { viewer, words } = looks;
  const groups = [...viewer.groups];
  const worked = workedIn(looks);
  const found = [
    eq(requests.handlerId, viewer.personId),
    ...(groups.length > 0 ? [inArray(requests.team, groups)] : []),
    ...(worked.length > 0 ? [inArray(requests.registerId, worked)] : []),
    ...readOtherwise(viewer).flatMap(([id, reads]) => (reads === 'all' ? [eq(requests.registerId, id)] : [])),
    sql`${requests.id} in (select request_id from seats where ${inArray(seats.holder, [...words])})`,
    ...(looks.along ? [sql`${requests.id} in ${looks.along}`] : []),
  ].map((by) => sql`select id from requests where ${and(by, where)}`);
  return sql`${requests.id} in (${sql.join(found, sql` union `)})`;
}
