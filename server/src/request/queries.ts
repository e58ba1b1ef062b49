import type { RequestParties } from '@tolvek/core/access';
import { eq, getTableColumns, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import type { RegisterRow } from '../register/queries.ts';
import { requests } from './tables.ts';

export type RequestRow = typeof requests.$inferSelect;

/**
 * A request without the routing's reasons: by far the longest column, read only where one request
 * is explained.
 */
const { routed: _, ...shown } = getTableColumns(requests);

export const SHOWN_COLUMNS = shown;

export type ShownRow = Omit<RequestRow, 'routed'>;

const numbered = prepared((db) =>
  db
    .select()
    .from(requests)
    .where(eq(requests.number, sql.placeholder('number')))
    .prepare(),
);

const byId = prepared((db) =>
  db
    .select()
    .from(requests)
    .where(eq(requests.id, sql.placeholder('id')))
    .prepare(),
);

export const requestByNumber = (db: Reader, number: string): RequestRow | undefined =>
  numbered(db).get({ number: number.toUpperCase() });

export const requestById = (db: Reader, id: string): RequestRow | undefined => byId(db).get({ id });

/** Words with spaces between, as they are kept. */
export const wordsKept = (kept: string | null): readonly string[] => kept?.split(' ') ?? [];

export const partiesIn = (
  request: Pick<RequestRow, 'requesterId' | 'onBehalfId' | 'enteredById' | 'handlerId' | 'team' | 'deciders'>,
  register: RegisterRow,
  /** Who follows it, by id, where that is asked for. */
  followers: readonly string[] = [],
): RequestParties => ({
  register: register.id,
  requesterId: request.requesterId,
  onBehalfId: request.onBehalfId,
  enteredById: request.enteredById,
  handlerId: request.handlerId,
  team: request.team,
  deciders: wordsKept(request.deciders),
  followers,
  deskGroups: register.deskGroups,
});

type Parties = Pick<RequestRow, 'requesterId' | 'onBehalfId'>;

/** Whose a request is: who asked it, and on whose behalf it was asked. */
export const whoseIs = ({ requesterId, onBehalfId }: Parties): readonly (string | null)[] => [requesterId, onBehalfId];

/** Whether a request is somebody’s own. */
export const isOwnOf = (request: Parties, personId: string): boolean => whoseIs(request).includes(personId);
