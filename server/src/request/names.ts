import { labelOf } from '@tolvek/core/access';
import type { NameOf } from '@tolvek/core/register';
import { eq, sql } from 'drizzle-orm';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { registerById } from '../register/queries.ts';
import { termName } from '../vocabulary/queries.ts';
import { protectionFor } from './protection.ts';
import type { RequestRow } from './queries.ts';
import { requests } from './tables.ts';

/** What people, terms and requests are called, looked up when it is asked. */
export const nameOf =
  (db: Reader): NameOf =>
  (id, by) =>
    by ? requestName(db, id, by) : id.includes('/') ? termName(db, id) : personById(db, id)?.name;

export type Target = Pick<
  RequestRow,
  'id' | 'number' | 'values' | 'requesterId' | 'phase' | 'stage' | 'releaseId' | 'trial'
>;

export const TARGET = {
  id: requests.id,
  number: requests.number,
  values: requests.values,
  requesterId: requests.requesterId,
  phase: requests.phase,
  stage: requests.stage,
  releaseId: requests.releaseId,
  trial: requests.trial,
};

export const named = prepared((db) =>
  db
    .select({ ...TARGET, registerId: requests.registerId })
    .from(requests)
    .where(eq(requests.id, sql.placeholder('id')))
    .prepare(),
);

/** What a request is called for whoever may read a reference to it. */
export function requestName(db: Reader, id: string, by: readonly string[]): string | undefined {
  const row = named(db).get({ id });
  return row && labelOf(protectionFor(db, registerById(db, row.registerId), row), row, by, nameOf(db));
}
