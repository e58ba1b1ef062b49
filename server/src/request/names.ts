import { own } from '@tolvek/core/own';
import { type Field, type NameOf, showValue } from '@tolvek/core/register';
import { eq, sql } from 'drizzle-orm';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { registerById } from '../register/queries.ts';
import { termName } from '../vocabulary/queries.ts';
import { openToOthers } from './protection.ts';
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

/**
 * What a request is called by some of its fields: `Halcyon, 12 m`; by its number where they say
 * nothing. References among them are called by number.
 */
export function labelOf(
  open: readonly Field[],
  target: Pick<Target, 'number' | 'values'>,
  by: readonly string[],
  names: NameOf,
): string {
  const shown = by.flatMap((key) => {
    const field = open.find((each) => each.key === key);
    const value = own(target.values, key);
    return field && value !== undefined
      ? [showValue(field, value, (id, deeper) => (deeper ? names(id, []) : names(id)))]
      : [];
  });
  return shown.join(', ') || target.number;
}

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
  return row && labelOf(openToOthers(db, registerById(db, row.registerId), row), row, by, nameOf(db));
}
