import { type Changeable, OWN_REQUESTS, type Updates } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { holdsThings, type RegisterRow } from '../register/queries.ts';
import { type OpenRequest, openRequest } from './open.ts';
import { isOwnOf, type RequestRow, requestById } from './queries.ts';
import { requests } from './tables.ts';

/** Something of theirs that somebody’s answers may change, opened for them. */
export interface Theirs extends Changeable {
  readonly open: OpenRequest<RequestRow>;
}

/** The stages at which something can be changed so: a request that is not finished, a thing that is in use. */
const here = (register: RegisterRow): string[] =>
  register.stages.flatMap(({ key, phase, role }) =>
    phase !== 'finished' || (holdsThings(register) && role === 'done') ? [key] : [],
  );

const isHere = (register: RegisterRow, { stage }: RequestRow): boolean => here(register).includes(stage);

/** So much of theirs is looked through, the newest first. */
const MOST = 200;

/** Opened for whose it is, or who stands in it: what they may read of it, by whichever way. `looker`: who looks with their eyes. */
export function openTheirs(db: Reader, request: RequestRow, viewer: Viewer, looker?: OpenRequest): Theirs {
  const purpose = isOwnOf(request, viewer.personId) ? 'following' : 'sheet';
  const open = openRequest(db, request, viewer, purpose, looker ? { looker } : {});
  return { id: request.id, values: open.reading.only(request.values), open };
}

/**
 * What an update form finds of somebody: what they may read of the register and that has not come to its end. `entry`:
 * the one alone that was sent to them to look at, whether they may read it or not.
 */
export function theirsOf(
  db: Reader,
  { whose }: Pick<Updates, 'whose'>,
  register: RegisterRow,
  viewer: Viewer,
  entry: string | null,
): readonly Theirs[] {
  if (entry !== null) {
    const request = requestById(db, entry);
    return request && isHere(register, request) ? [openTheirs(db, request, viewer)] : [];
  }
  const { personId } = viewer;
  const own = sql`${requests.id} in (select id from requests where requester_id = ${personId} union select id from requests where on_behalf_id = ${personId})`;
  const is = whose === OWN_REQUESTS ? own : sql`json_extract(${requests.values}, ${`$."${whose}"`}) = ${personId}`;
  return db
    .select()
    .from(requests)
    .where(
      and(eq(requests.registerId, register.id), eq(requests.trial, false), inArray(requests.stage, here(register)), is),
    )
    .orderBy(desc(requests.createdAt), desc(requests.id))
    .limit(MOST)
    .all()
    .map((request) => openTheirs(db, request, viewer))
    .filter(({ open: { relation } }) => relation.isRequester || relation.isDesk);
}
